<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { titled } from '#core/technique/technique'
import { EARRING_GRAMS } from '#core/wear/kind'
import { weightOf } from '#core/supply/cost'
import { strandCords } from '#core/tally/cords'
import { requireThread } from '#core/thread/catalogue'
import { showNumber } from '#core/units/length'
import { useLengths } from '../../../composables/lengths'
import { provideSupplies } from '../../../composables/supplies'
import { useBox } from '../../../stores/box'
import { useLearned } from '../../../stores/learned'
import SuppliesBeads from '../../../components/SuppliesBeads.vue'
import SuppliesCost from '../../../components/SuppliesCost.vue'
import SuppliesCut from '../../../components/SuppliesCut.vue'

const supplies = provideSupplies(useRoute().params.id as string)
const { piece, supply, reckoned, buy, made, kind, checks, caps, lengths, threadMm } = supplies
const { cord, wiredOf, onlyCords, costing, money } = supplies
const learned = useLearned()
const box = useBox()
const { long } = useLengths()
onMounted(() => {
  void learned.fetch()
  box.fetch().catch(() => {
    /* the list works without the box */
  })
})

const taught = computed(() => {
  const said: string[] = []
  const speed = learned.speedOf(piece.value)
  if (speed)
    said.push(
      `${Math.round(speed.least)}–${Math.round(speed.most)} beads an hour, from ${speed.makings} of your makings`,
    )
  if (reckoned.value.supply.culls) said.push('the share of beads that you put aside')
  if (reckoned.value.supply.slack) said.push(`path × ${showNumber(reckoned.value.supply.slack, 2)} of thread`)
  return said
})
const worst = computed(() =>
  checks.value.some((c) => c.verdict === 'no')
    ? 'no'
    : checks.value.some((c) => c.verdict === 'tight')
      ? 'tight'
      : 'easy',
)
const toBuyGrams = computed(() => buy.value.reduce((sum, b) => sum + b.buyGrams, 0))
const allGrams = computed(() => buy.value.reduce((sum, b) => sum + b.grams, 0))
const packPrice = computed(() => buy.value.reduce((sum, b) => sum + (b.buyGrams > 0 ? (b.price ?? 0) : 0), 0))
const weight = computed(() => weightOf(piece.value))
/** What is cut most of, in words: thread, wire or cord. */
const cutting = computed(() => {
  if (threadMm.value > 0 || lengths.value.length === 0)
    return { what: 'Thread', mm: threadMm.value, of: requireThread(supply.value.thread).name }
  const { material, totalMm } = lengths.value.find((l) => l.totalMm > 0) ?? lengths.value[0]!
  return {
    what: titled(material),
    mm: totalMm,
    of:
      cord.value?.name ??
      wiredOf.value ??
      `${piece.value.parts.reduce((sum, p) => sum + strandCords(p, piece.value.tray).length, 0)} strands`,
  }
})
const VERDICT = { easy: 'easily', tight: 'tight', no: 'no' } as const
</script>

<template>
  <main class="supplies">
    <section class="sum" aria-label="What is needed">
      <div v-if="!onlyCords">
        <span class="quiet">Beads to buy</span
        ><span class="figure" data-test="to-buy">{{ showNumber(toBuyGrams, 1) }} g</span
        ><span class="quiet"
          >of {{ showNumber(allGrams, 1) }} g with spare{{ packPrice > 0 ? `, ${money(packPrice)}` : '' }}</span
        >
      </div>
      <div>
        <span class="quiet">{{ cutting.what }} to cut</span><span class="figure">{{ long(cutting.mm) }}</span
        ><span class="quiet">{{ cutting.of }}</span>
      </div>
      <div v-if="!onlyCords" :class="{ wants: worst !== 'easy' }">
        <span class="quiet">Goes through</span><span class="figure word">{{ VERDICT[worst] }}</span
        ><span class="quiet">{{ cord || wiredOf ? 'without a needle' : `needle ${supply.needle}` }}</span>
      </div>
      <div v-if="caps.length">
        <span class="quiet">End caps, inside</span
        ><span class="figure">{{ showNumber(caps[0]!.end.capMm, 1) }} mm</span
        ><span class="quiet">two, {{ caps[0]!.end.cords }} cords bound</span>
      </div>
      <div>
        <span class="quiet">{{
          made > 1
            ? `Costs, for ${supply.batch} ${kind.pieces === 2 ? (supply.batch === 1 ? 'pair' : 'pairs') : 'pieces'}`
            : 'Costs you'
        }}</span><span class="figure">{{ money(costing.least) }}</span
        ><span class="quiet"
          >to {{ money(costing.most) }}{{ costing.unknown ? `, ${costing.unknown} without a price` : '' }}</span
        >
      </div>
      <div v-if="piece.fit.kind === 'earrings'" :class="{ wants: weight > EARRING_GRAMS.comfortable }">
        <span class="quiet">Each weighs</span><span class="figure">{{ showNumber(weight, 1) }} g</span
        ><span class="quiet">{{
          weight > EARRING_GRAMS.careful
            ? 'heavy: be careful'
            : weight > EARRING_GRAMS.comfortable
              ? 'more than comfortable'
              : 'comfortable'
        }}</span>
      </div>
    </section>

    <p v-if="taught.length" class="taught" data-test="taught">
      Reckoned with what your hand has taught: {{ taught.join('; ') }}. <NuxtLink to="/made">Where from</NuxtLink>
    </p>

    <SuppliesBeads v-if="!onlyCords" />
    <SuppliesCut />
    <SuppliesCost />
  </main>
</template>

<style scoped>
.supplies {
  padding: 12px 24px 32px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(330px, 1fr));
  gap: 24px 32px;
  align-items: start;
  max-width: 1480px;
  margin: 0 auto;
  width: 100%;
}
.sum {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 12px;
  background: var(--paper);
  border-radius: var(--round);
  padding: 16px 20px;
}
.taught {
  grid-column: 1 / -1;
  padding: 10px 16px;
  border-radius: var(--round-in);
  background: var(--verdigris-wash);
  color: var(--verdigris);
}
.sum > div {
  display: grid;
  gap: 4px;
  align-content: start;
}
.sum .figure {
  font-size: 30px;
  white-space: nowrap;
}
.sum .wants .figure {
  color: var(--marigold);
}
@media (width >= 1160px) {
  .supplies {
    grid-template-columns: 1.25fr 1fr 1fr;
  }
}
@media (width <= 720px) {
  .supplies {
    grid-template-columns: minmax(0, 1fr);
    padding: 8px 14px 24px;
  }
  .sum {
    grid-template-columns: 1fr 1fr;
    padding: 12px 14px;
  }
  .sum .figure {
    font-size: 26px;
  }
}
</style>

<style>
/* What its sections share. */
.supplies .need {
  display: grid;
  gap: 16px;
}
.supplies .fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px 12px;
  align-items: start;
}
.supplies .more summary {
  cursor: pointer;
  color: var(--verdigris);
  min-height: 32px;
}
.supplies .more .fields {
  padding-top: 12px;
}
.supplies .more h3 {
  padding-top: 14px;
}
</style>
