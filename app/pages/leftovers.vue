<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import { requireSpec } from '#core/bead/spec'
import { fitKindOf } from '#core/wear/kind'
import { beginSmall } from '#core/begin/begin-small'
import { pieceToBody } from '#core/piece/codec'
import { fittedPart } from '#core/piece/piece'
import { makeable, smallFromBox, type Makeable, type SmallMakeable } from '#core/supply/leftovers'
import { showNumber } from '#core/units/length'
import { createdAnswer } from '#core/contract/piece'
import { api } from '../composables/api'
import { listOfPieces, openPieces, type Opened } from '../composables/pieces'
import { saying } from '../composables/saying'
import { useAccount } from '../stores/account'
import { useBox } from '../stores/box'
import BoxNav from '../components/BoxNav.vue'
import PartPicture from '../components/PartPicture.vue'
import WorkshopHead from '../components/WorkshopHead.vue'

useHead({ title: 'Leftovers · Weben' })
const box = useBox()
const account = useAccount()
const opened = shallowRef<readonly Opened[]>([])
const says = ref('')
const busy = ref(true)
const guarded = (work: () => Promise<unknown>) => {
  says.value = ''
  return saying(work, (text) => {
    says.value = text
  })
}
onMounted(async () => {
  await guarded(async () => {
    const [list] = await Promise.all([listOfPieces(), box.fetch()])
    await openPieces(
      list.slice(0, 100).map((p) => p.id),
      (one) => {
        opened.value = [...opened.value, one]
      },
    )
  })
  busy.value = false
})

const small = computed(() => smallFromBox(box.box).map((m) => ({ ...m, piece: beginSmall(m) })))
const saved = computed(() =>
  opened.value
    .map((o) => ({ ...o, ...makeable(o.piece, box.box) }))
    .toSorted(
      (a, b) =>
        fitKindOf(b.piece.fit.kind).pieces - fitKindOf(a.piece.fit.kind).pieces ||
        b.times - a.times ||
        a.name.localeCompare(b.name),
    ),
)
const can = computed(() => saved.value.filter((s) => s.times > 0))
const cannot = computed(() => saved.value.filter((s) => s.times === 0 && s.limit))
const noun = (kind: Parameters<typeof fitKindOf>[0], n: number) =>
  fitKindOf(kind).pieces === 2
    ? n === 1
      ? 'pair'
      : 'pairs'
    : n === 1
      ? fitKindOf(kind).noun
      : `${fitKindOf(kind).noun}s`
function limitNote({ name, spec, haveGrams, needGrams }: NonNullable<Makeable['limit']>): string {
  return haveGrams > 0
    ? `${name}: ${showNumber(haveGrams, 1)} of ${showNumber(needGrams, 1)} g`
    : `${name}, ${requireSpec(spec).name}, is not in the box`
}
async function begin(m: SmallMakeable) {
  await guarded(async () => {
    const { id } = await api(createdAnswer, 'piece', {
      method: 'POST',
      body: pieceToBody(beginSmall(m, account.account?.settings.currency)),
    })
    await navigateTo(`/piece/${id}/mat`)
  })
}
</script>

<template>
  <div>
    <WorkshopHead title="Leftovers"><NuxtLink to="/" class="button plain">Back</NuxtLink></WorkshopHead>
    <main class="page">
      <BoxNav />
      <p v-if="says" class="caution" role="alert">{{ says }}</p>
      <section aria-labelledby="small">
        <h2 id="small">Small things, earrings first</h2>
        <p v-if="!busy && small.length === 0" class="soft">
          The box has no three tubes of one size with enough left. Weigh what you have, and look again.
        </p>
        <ul class="small">
          <li v-for="m in small" :key="m.design.id" :data-design="m.design.name">
            <PartPicture
              :part="fittedPart(m.piece)"
              :tray="m.piece.tray"
              :parts="m.piece.parts"
              class="picture"
              :class="{ hangs: m.piece.parts.length > 1 }"
            />
            <b>{{ m.design.name }}</b>
            <span
              ><span class="figure">{{ showNumber(m.times) }}</span> {{ noun(m.design.kind, m.times) }}</span
            >
            <span class="quiet">{{ requireSpec(m.spec).name }}; {{ m.limit.value.name }} runs out first</span>
            <button type="button" class="button" :aria-label="`Begin ${m.design.name}`" @click="begin(m)">
              Begin it
            </button>
          </li>
        </ul>
      </section>
      <section aria-labelledby="saved">
        <h2 id="saved">Your pieces once more</h2>
        <p v-if="busy" class="soft">Looking through the box…</p>
        <p v-else-if="can.length === 0" class="soft">None of your pieces can be made whole from the box alone.</p>
        <ul>
          <li v-for="s in can" :key="s.id" :data-piece="s.name">
            <span class="figure times">{{ showNumber(s.times) }}</span>
            <PartPicture :part="fittedPart(s.piece)" :tray="s.piece.tray" :parts="s.piece.parts" class="strip" />
            <span class="what"
              ><NuxtLink :to="`/piece/${s.id}/supplies`">{{ s.name }}</NuxtLink
              ><span class="quiet"
                >{{ noun(s.piece.fit.kind, s.times) }}; {{ s.limit!.name }} ends it,
                {{ showNumber(s.limit!.haveGrams, 1) }} g of {{ requireSpec(s.limit!.spec).name }}</span
              ></span
            >
          </li>
        </ul>
        <details v-if="cannot.length" class="cannot">
          <summary>{{ cannot.length }} that the box cannot make whole</summary>
          <ul>
            <li v-for="s in cannot" :key="s.id">
              <span class="figure times none">0</span
              ><span class="swatch" :style="{ '--bead': s.limit!.colour }" /><span class="what"
                ><NuxtLink :to="`/piece/${s.id}/supplies`">{{ s.name }}</NuxtLink
                ><span class="quiet">{{ limitNote(s.limit!) }}</span></span
              >
            </li>
          </ul>
        </details>
      </section>
    </main>
  </div>
</template>

<style scoped>
.page {
  max-width: 1180px;
  margin: 0 auto;
  padding: 0 28px 40px;
  display: grid;
  gap: 26px;
}
section {
  display: grid;
  gap: 12px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.small {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 20px;
}
.small li {
  display: grid;
  align-content: start;
  gap: 6px;
  justify-items: start;
  background: var(--paper);
  border-radius: var(--round);
  padding: 14px;
}
.picture {
  width: 100%;
  height: 96px;
}
.picture.hangs {
  height: 150px;
}
.small .figure {
  font-size: 30px;
  color: var(--verdigris);
}
section > ul:not(.small) li,
.cannot li {
  display: grid;
  grid-template-columns: 56px 120px 1fr;
  gap: 16px;
  align-items: center;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.cannot li {
  grid-template-columns: 56px 20px 1fr;
}
.times {
  font-size: 34px;
  color: var(--verdigris);
  text-align: end;
}
.none {
  color: var(--soft);
  font-size: 24px;
}
.strip {
  height: 44px;
}
.what {
  display: grid;
  gap: 2px;
}
.cannot summary {
  cursor: pointer;
  color: var(--verdigris);
  min-height: 36px;
}
.caution {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 10px 14px;
  border-radius: 10px;
}
@media (width <= 600px) {
  .page {
    padding: 0 14px 28px;
  }
  section > ul:not(.small) li {
    grid-template-columns: 44px 70px 1fr;
    gap: 10px;
  }
  .small {
    grid-template-columns: 1fr 1fr;
    gap: 12px;
  }
}
</style>
