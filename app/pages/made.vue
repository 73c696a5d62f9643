<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { requireSpec } from '#core/bead/spec'
import { piecesAnswer, type Listing } from '#core/contract/piece'
import { makingsAnswer, type MakingListing } from '#core/contract/making'
import type { Lesson } from '#core/making/learned'
import { requireTechnique } from '#core/technique/registry'
import { requireThread } from '#core/thread/catalogue'
import { showNumber } from '#core/units/length'
import WorkshopHead from '../components/WorkshopHead.vue'
import { api } from '../composables/api'
import { dayWords } from '../composables/days'
import { saying } from '../composables/saying'
import { useAccount, type Settings } from '../stores/account'
import { useLearned } from '../stores/learned'

useHead({ title: 'Made · Weben' })
const account = useAccount()
const learned = useLearned()
const makings = ref<readonly MakingListing[]>([])
const pieces = ref<readonly Listing[]>([])
const says = ref('')
const known = ref(false)
onMounted(async () => {
  await saying(
    async () => {
      pieces.value = (await api(piecesAnswer, 'piece')).pieces
      makings.value = (await api(makingsAnswer, 'making')).makings
      await learned.fetch()
    },
    (text) => {
      says.value = text
    },
  )
  known.value = true
})
const nameOf = (piece: string) => pieces.value.find((p) => p.id === piece)?.name ?? 'A piece'
const finished = computed(() => makings.value.filter((m) => m.status === 'made' || m.status === 'given'))
const recordOf = (making: string) => learned.records.find((r) => r.making === making)?.record
const nameOfMaking = (making: string) => {
  const found = makings.value.find((m) => m.id === making)
  return found ? `${nameOf(found.piece)}, ${dayWords(found.at || found.begunAt)}` : 'a making'
}

interface Line {
  readonly key: string
  readonly what: string
  readonly says: string
  readonly lesson: Lesson
}
const percent = (share: number) => `${showNumber(share * 100, 1)} %`
const sign = (share: number) => `${share < 0 ? '−' : '+'} ${percent(Math.abs(share))}`
const groups = computed(() => {
  const { speed, culls, slack, along } = learned.learned
  return [
    {
      title: 'Speed',
      switch: 'learnSpeed' as const,
      used: 'in hours and costs, in place of 100–200 beads an hour',
      lines: [...speed].map(([id, lesson]): Line => ({
        key: id,
        what: requireTechnique(id).name,
        says: `${Math.round(lesson.value)} beads an hour, ${Math.round(lesson.least)}–${Math.round(lesson.most)}`,
        lesson,
      })),
    },
    {
      title: 'Beads put aside',
      switch: 'learnCull' as const,
      used: 'in what to buy, in place of 5 in 100',
      lines: [...culls].map(([spec, lesson]): Line => ({
        key: spec,
        what: requireSpec(spec).name,
        says: `${percent(lesson.value)} of what you looked at`,
        lesson,
      })),
    },
    {
      title: 'Thread',
      switch: 'learnThread' as const,
      used: 'in what to cut and where it is joined, in place of the path × 1.05',
      lines: slack
        ? [{ key: 'slack', what: 'Any stitch', says: `path × ${showNumber(slack.value, 2)}`, lesson: slack }]
        : [],
    },
    {
      title: 'Gauge',
      switch: null,
      used: 'kept with your gauges; Fit says where it is used',
      lines: [...along].map(([key, lesson]): Line => {
        const [technique, spec, thread] = JSON.parse(key) as [string, string, string]
        return {
          key,
          what: [requireTechnique(technique).name, requireSpec(spec).name, requireThread(thread).name].join(', '),
          says: `${sign(lesson.value - 1)} against nominal beads`,
          lesson,
        }
      }),
    },
  ]
})
const isOn = (key: keyof Settings) => account.account?.settings[key] === 'on'
const flip = (key: keyof Settings, on: boolean) =>
  saying(
    () => account.change({ [key]: on ? 'on' : 'off' }),
    (text) => {
      says.value = text
    },
  )
</script>

<template>
  <div>
    <WorkshopHead title="Made" />
    <main class="page">
      <p v-if="says" class="problem" role="alert">{{ says }}</p>
      <section aria-labelledby="finished">
        <h2 id="finished">Finished</h2>
        <p v-if="known && finished.length === 0" class="soft">
          Nothing yet. What you finish on the bench is listed here, with what you wrote down of it.
        </p>
        <ul class="finished">
          <li v-for="m in finished" :key="m.id">
            <NuxtLink :to="`/piece/${m.piece}/bench`"
              ><b>{{ nameOf(m.piece) }}</b></NuxtLink
            >
            <span
              >{{ m.status }}, {{ dayWords(m.at || m.begunAt)
              }}<template v-if="m.copies > 1">, {{ m.copies }} of them</template
              ><template v-if="recordOf(m.id)?.wearer">, for {{ recordOf(m.id)!.wearer }}</template
              ><template v-if="recordOf(m.id)?.facts">
                · {{ showNumber(recordOf(m.id)!.facts!.hours, 1) }} h</template
              ></span
            >
            <span v-if="recordOf(m.id)?.changed" class="soft">{{ recordOf(m.id)!.changed }}</span>
          </li>
        </ul>
      </section>
      <section aria-labelledby="taught">
        <h2 id="taught">What your hand has taught</h2>
        <p v-if="groups.every((g) => g.lines.length === 0)" class="soft">
          Nothing yet: it comes from what you write down when a piece is finished. From then on your own figures stand
          where these usual ones do.
        </p>
        <div v-for="g in groups" :key="g.title" class="group">
          <h3>{{ g.title }}</h3>
          <label v-if="g.switch" class="switch"
            ><input
              type="checkbox"
              :checked="isOn(g.switch)"
              @change="(e) => flip(g.switch!, (e.target as HTMLInputElement).checked)"
            />
            used {{ g.used }}</label
          >
          <p v-else class="soft">{{ g.used }}</p>
          <ul v-if="g.lines.length > 0">
            <li v-for="l in g.lines" :key="l.key">
              <b>{{ l.what }}</b> <span>{{ l.says }}</span>
              <span class="soft"
                >from {{ l.lesson.makings }} {{ l.lesson.makings === 1 ? 'making' : 'makings'
                }}<template v-if="l.lesson.questioned.length">
                  · left out as strange: {{ l.lesson.questioned.map(nameOfMaking).join('; ') }}</template
                ></span
              >
            </li>
          </ul>
        </div>
      </section>
    </main>
  </div>
</template>

<style scoped src="../components/workshop-lists.css" />
<style scoped>
.finished li span {
  flex-basis: 100%;
}
.group {
  display: grid;
  gap: 6px;
}
.switch {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.switch input {
  width: 20px;
  height: 20px;
  accent-color: var(--madder);
}
</style>
