<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import { planIcs, type PlanEntry } from '#core/format/plan-ics'
import { makingsAnswer, syncedAnswer, type MakingListing } from '#core/contract/making'
import { helpFor, rowsByDay, scheduleOf } from '#core/making/schedule'
import { showNumber } from '#core/units/length'
import NumberField from '../components/NumberField.vue'
import WorkshopHead from '../components/WorkshopHead.vue'
import { api, ApiError } from '../composables/api'
import { todayHere, weekdayWords } from '../composables/days'
import { queued, type Queued } from '../composables/queue'
import { saveFile } from '../composables/save-file'
import { saying } from '../composables/saying'
import { useAccount } from '../stores/account'
import { useLearned } from '../stores/learned'

useHead({ title: 'Ready by · Weben' })
const account = useAccount()
const learned = useLearned()
const queue = shallowRef<readonly Queued[]>([])
const known = ref(false)
const says = ref('')
const guarded = (work: () => Promise<void>) => {
  says.value = ''
  return saying(work, (text) => {
    says.value = text
  })
}
/** More than this nobody works on at once. */
const MOST = 30
onMounted(async () => {
  await guarded(async () => {
    await learned.fetch()
    const { makings } = await api(makingsAnswer, 'making')
    const open = makings.filter((m) => m.status === 'planned' || m.status === 'on the bench').slice(0, MOST)
    const out: Queued[] = []
    for (const making of open)
      try {
        out.push(await queued(making, learned.reckoned))
      } catch (error) {
        // One that cannot be opened does not hide the others.
        if (!(error instanceof ApiError)) throw error
        says.value = error.says
      }
    queue.value = out
  })
  known.value = true
})

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const hours = computed(() => account.account?.settings.benchHours ?? [])
const setHours = (k: number, value: number) =>
  guarded(() => account.change({ benchHours: hours.value.map((h, i) => (i === k ? value : h)) }))
const plan = computed(() =>
  scheduleOf(
    queue.value.map((q) => q.job),
    { from: todayHere(), weekday: hours.value },
  ),
)
const endOf = (q: Queued) => plan.value.ends.find((e) => e.job === q.job.id)!
const rows = computed(
  () =>
    new Map(
      queue.value.map((q) => {
        const stints = plan.value.days.flatMap(({ day, stints: all }) =>
          all.filter((s) => s.job === q.job.id).map((s) => ({ day, hours: s.hours })),
        )
        return [q.job.id, new Map(rowsByDay(q.agenda, q.index, q.perHour, stints).map((r) => [r.day, r]))]
      }),
    ),
)
const nameOf = (job: string) => queue.value.find((q) => q.job.id === job)?.name ?? ''
const minutes = (h: number) => (h < 1 ? `${Math.max(1, Math.round(h * 60))} min` : `${showNumber(h, 1)} h`)
const SHOWN = 14
const all = ref(false)
const days = computed(() => (all.value ? plan.value.days : plan.value.days.slice(0, SHOWN)))

async function setDue(q: Queued, day: string) {
  await guarded(async () => {
    const due = day || null
    await api(syncedAnswer, `piece/${q.making.piece}/making/${q.making.id}/event`, {
      method: 'POST',
      body: {
        after: Number.MAX_SAFE_INTEGER,
        now: Date.now(),
        events: [{ id: crypto.randomUUID(), at: Date.now(), event: { do: 'due', day: due } }],
      },
    })
    const making: MakingListing = { ...q.making, due }
    queue.value = queue.value.map((x) => (x === q ? { ...q, making, job: { ...q.job, due } } : x))
  })
}

function save() {
  const work = plan.value.days.flatMap(({ day, stints }) =>
    stints.map(({ job, hours: h }): PlanEntry => ({
      id: `${job}/${day}`,
      day,
      title: nameOf(job),
      text: `${rows.value.get(job)?.get(day)?.says ?? ''}, ${minutes(h)}`,
    })),
  )
  const due = queue.value.flatMap((q): PlanEntry[] =>
    q.job.due ? [{ id: `${q.job.id}/due`, day: q.job.due, title: `Ready: ${q.name}`, text: '' }] : [],
  )
  saveFile('weben-ready-by.ics', planIcs([...work, ...due], Date.now()), 'text/calendar')
}
</script>

<template>
  <div>
    <WorkshopHead title="Ready by">
      <button type="button" class="button" :disabled="plan.days.length === 0" @click="save">Save as calendar</button>
    </WorkshopHead>
    <main class="page">
      <p v-if="says" class="problem" role="alert">{{ says }}</p>
      <div class="column">
        <section aria-labelledby="queue">
          <h2 id="queue">To be made</h2>
          <p v-if="known && queue.length === 0" class="soft">
            Nothing is planned. Open a piece in your <NuxtLink to="/">workshop</NuxtLink> and begin it on its Bench: it
            stands here then with the hours that it still takes, and you can say when it must be ready.
          </p>
          <ul>
            <li v-for="q in queue" :key="q.job.id" :class="{ late: endOf(q).late }" :data-piece="q.name">
              <NuxtLink :to="`/piece/${q.making.piece}/bench`"
                ><b>{{ q.name }}</b></NuxtLink
              >
              <span
                ><b class="figure">{{ minutes(q.job.hours) }}</b> left<template v-if="q.making.copies > 1">
                  for {{ q.making.copies }}</template
                ></span
              >
              <label
                >wanted by
                <input
                  type="date"
                  :value="q.job.due ?? ''"
                  @change="(e) => setDue(q, (e.target as HTMLInputElement).value)"
              /></label>
              <p class="end" role="status">
                <template v-if="endOf(q).late"
                  >It cannot be ready by then<template v-if="endOf(q).shortHours > 0"
                    >: {{ minutes(endOf(q).shortHours) }} are missing</template
                  >.
                  <template v-if="helpFor(endOf(q))?.moreADay"
                    >{{ minutes(helpFor(endOf(q))!.moreADay!) }} more on each of {{ endOf(q).daysThere }}
                    {{ endOf(q).daysThere === 1 ? 'day' : 'days' }} would do, or
                  </template>
                  <template v-if="helpFor(endOf(q))?.day"
                    >say {{ weekdayWords(helpFor(endOf(q))!.day!) }} instead.</template
                  ><template v-else>give it hours on some day of the week.</template></template
                >
                <template v-else-if="endOf(q).ready">Ready on {{ weekdayWords(endOf(q).ready!) }}.</template>
                <template v-else>Give the week some hours, and it says when it is ready.</template>
              </p>
            </li>
          </ul>
        </section>
        <section aria-labelledby="hours">
          <h2 id="hours">Hours at the bench</h2>
          <div class="week">
            <NumberField
              v-for="(name, k) in DAYS"
              :key="name"
              :model-value="hours[k] ?? 0"
              :label="name"
              unit="h"
              :bounds="{ least: 0, most: 24, whole: false }"
              @update:model-value="(h) => setHours(k, h)"
            />
          </div>
        </section>
      </div>
      <section aria-labelledby="days">
        <h2 id="days">Day by day</h2>
        <p v-if="known && plan.days.length === 0" class="soft">
          {{ queue.length === 0 ? 'The rows of each day stand here.' : 'There are no hours at the bench to fill.' }}
        </p>
        <ol>
          <li v-for="d in days" :key="d.day" data-test="day">
            <b class="day">{{ weekdayWords(d.day) }}</b>
            <span v-for="s in d.stints" :key="s.job" class="stint"
              ><b>{{ nameOf(s.job) }}</b> {{ rows.get(s.job)?.get(d.day)?.says }}
              <span class="soft">{{ minutes(s.hours) }}</span></span
            >
          </li>
        </ol>
        <button v-if="plan.days.length > SHOWN && !all" type="button" class="link" @click="all = true">
          {{ plan.days.length - SHOWN }} more days
        </button>
      </section>
    </main>
  </div>
</template>

<style scoped src="../components/workshop-lists.css" />
<style scoped>
.column {
  display: grid;
  gap: 32px;
  align-content: start;
}
li .figure {
  font-size: 20px;
}
label {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
input[type='date'] {
  border: 1.5px solid var(--edge);
  border-radius: 9px;
  background: var(--paper);
  color: var(--ink);
  font: 500 16px/1.4 var(--text);
  padding: 6px 10px;
  min-height: 44px;
}
.end {
  flex-basis: 100%;
  color: var(--verdigris);
}
.late {
  box-shadow: inset 4px 0 0 var(--marigold);
}
.late .end {
  color: var(--marigold);
}
.week {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 12px;
}
.day {
  flex-basis: 100%;
  color: var(--soft);
  font-size: 15px;
}
.stint {
  flex-basis: 100%;
}
</style>
