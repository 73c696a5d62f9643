<script setup lang="ts">
import { computed, ref } from 'vue'
import { requireSpec } from '#core/bead/spec'
import { boundsOf } from '#core/bounds'
import { packWords } from '#core/format/shopping-csv'
import { supplySchema, type Supply } from '#core/piece/schema'
import { amountOf } from '#core/shelf/shelf'
import { beadAsks, type BeadToBuy } from '#core/supply/beads'
import { askOf, contests, freeFor, reservedBy } from '#core/supply/box'
import { showNumber } from '#core/units/length'
import PlotChart from '../chart/PlotChart.vue'
import { saying } from '../composables/saying'
import { useSupplies } from '../composables/supplies'
import { useAccount } from '../stores/account'
import { useBox } from '../stores/box'
import { useSupplier } from '../stores/supplier'
import NumberField from './NumberField.vue'

/** Beads to buy, what the box has of them, and how many are wanted to spare. */
const { id, piece, supply, cost, buy, made, kind, threadMm, spool, clasp, money, problem, set } = useSupplies()
const box = useBox()
const supplier = useSupplier()
const account = useAccount()
const says = ref('')

const contested = computed(() => new Map(contests(box.box).map((c) => [c.item.id, c])))
const tubeNote = (b: BeadToBuy) => {
  if (!b.tube) return ''
  if (b.takenGrams > 0) return `${showNumber(b.takenGrams, 1)} g taken out for this piece`
  const reserved = reservedBy(box.box, b.tube, id)
  const others = amountOf(b.tube.value) - freeFor(box.box, b.tube, id)
  const forThis = reserved > 0 ? `, ${showNumber(reserved, 1)} g set aside for this` : ''
  const forOthers = others > 0.005 ? `, ${showNumber(others, 1)} g for other pieces` : ''
  return `${showNumber(amountOf(b.tube.value), 1)} g in the box${forThis}${forOthers}`
}
const mostOf = (beads: readonly BeadToBuy[]) => beads.toSorted((a, b) => b.count - a.count)[0]!.bead.name
const offerNote = (b: BeadToBuy) =>
  b.shortGrams > 0
    ? `the supplier lacks ${showNumber(b.shortGrams, 1)} g`
    : b.unitPrice
      ? `${{ you: 'yours', supplier: 'supplier', box: 'box' }[b.unitPrice.from]}: ${money(b.unitPrice.price)} ` +
        `for ${showNumber(b.unitPrice.grams)} g`
      : ''

const bounds = (field: keyof Supply) => boundsOf(supplySchema, field)
/** A share is typed in hundredths. */
const percents = (field: 'spare' | 'cull') => ({
  least: bounds(field).least * 100,
  most: bounds(field).most * 100,
  whole: false,
})
const setPacks = (text: string) => {
  const grams = text
    .split(/[;\s]+/)
    .map((t) => Number(t.replace(',', '.').replace(/g$/, '')))
    .filter(Boolean)
  if (grams.length > 0 && grams.every((g) => Number.isFinite(g) && g > 0)) set('packGrams', grams)
  else problem.value = 'Type the packs you can buy in grams, like 5 10 28.'
}
const field = (e: Event) => (e.target as HTMLInputElement).value

// ---- the box
const holds = computed(() => box.holdings.some((h) => h.pieceId === id && h.kind === 'reserved'))
const taken = computed(() => box.holdings.some((h) => h.pieceId === id && h.kind === 'taken'))
const asks = (what: 'reserve' | 'take') => [
  ...beadAsks(buy.value, what),
  ...askOf(box.box, spool.value, id, threadMm.value),
  ...askOf(box.box, clasp.value, id, made.value * Math.max(1, piece.value.fit.closure.openings)),
]
async function hold(what: 'reserve' | 'release' | 'take' | 'back') {
  says.value = ''
  const list = what === 'reserve' || what === 'take' ? asks(what) : []
  if ((what === 'reserve' || what === 'take') && list.length === 0) {
    says.value = 'The box has nothing of this piece that is free.'
    return
  }
  await saying(
    async () => {
      await box.change(id, what, list)
      says.value = {
        reserve: 'Set aside in the box for this piece.',
        release: 'Free again for other pieces.',
        take: 'Taken out of the box.',
        back: 'Put back in the box.',
      }[what]
    },
    (text) => {
      says.value = text
    },
  )
}
const ask = () => supplier.ask(buy.value.map((b) => b.bead))

const barColours = computed(() => buy.value.map((b) => b.bead.colour))
const beadTraces = computed(() => [
  {
    type: 'bar',
    orientation: 'h',
    y: buy.value.map((b) => `${b.bead.letter} ${b.bead.name} · ${requireSpec(b.bead.spec).name}`).toReversed(),
    x: buy.value.map((b) => b.count).toReversed(),
    marker: { color: barColours.value.toReversed(), line: { width: 1, color: 'rgba(120,100,80,0.7)' } },
    hovertemplate: '%{x} beads<extra></extra>',
  },
])
</script>

<template>
  <section class="need" aria-labelledby="beads">
    <h2 id="beads">Beads to buy</h2>
    <ul class="beads">
      <li v-for="b in buy" :key="b.bead.number" :data-bead="b.bead.letter">
        <span class="swatch tall" :style="{ '--bead': b.bead.colour }" />
        <span class="what"
          ><b>{{ b.bead.letter }} {{ b.bead.name }}</b
          ><span class="quiet"
            >{{ requireSpec(b.bead.spec).name }}, {{ b.bead.finish }} · {{ showNumber(b.count) }}
            {{ made > 1 ? 'in all' : 'in the piece' }}, {{ showNumber(b.need) }} with spare and culls =
            {{ showNumber(b.grams, 1) }}&nbsp;g</span
          ><span v-if="tubeNote(b)" class="quiet">{{ tubeNote(b) }}</span
          ><span v-if="b.tube && contested.has(b.tube.id)" class="warn"
            >Pieces want {{ showNumber(contested.get(b.tube.id)!.wanted, 1) }} g of this tube together;
            {{ showNumber(contested.get(b.tube.id)!.there, 1) }} g are there.</span
          ></span
        >
        <span class="amount"
          ><span class="figure">{{ b.buyGrams > 0 ? `${showNumber(b.buyGrams, 1)} g` : 'enough' }}</span
          ><span v-if="b.packs.length" class="quiet"
            >{{ packWords(b.packs) }}{{ b.price !== null ? ` · ${money(b.price)}` : '' }}</span
          ><span class="quiet">about {{ showNumber(b.left) }} left</span
          ><span v-if="offerNote(b)" class="quiet">{{ offerNote(b) }}</span></span
        >
      </li>
    </ul>
    <p v-if="buy.length === 0" class="soft">No beads in the pattern yet. Lay some on the mat.</p>
    <div class="acts">
      <button type="button" class="button" :disabled="supplier.asking || buy.length === 0" @click="ask">
        {{ supplier.asking ? 'Asking…' : 'Ask the supplier' }}
      </button>
      <button v-if="!taken" type="button" class="button" @click="hold(holds ? 'release' : 'reserve')">
        {{ holds ? 'Set free in the box' : 'Set aside in the box' }}
      </button>
      <button v-if="!taken" type="button" class="button" @click="hold('take')">Take out of the box</button>
      <button v-else type="button" class="button" @click="hold('back')">Put back in the box</button>
      <NuxtLink :to="`/shop?piece=${id}`" class="button plain">Shop for several</NuxtLink>
    </div>
    <p v-if="supplier.says" class="says" role="status">{{ supplier.says }}</p>
    <p v-if="says" class="says" role="status">{{ says }}</p>
    <p v-if="account.account && account.account.settings.currency !== cost.currency" class="quiet">
      Prices of box and supplier are in {{ account.account.settings.currency }} and are left out here.
    </p>
    <div class="fields three">
      <NumberField
        :model-value="supply.batch"
        :label="kind.pieces === 2 ? 'Pairs to make' : 'How many to make'"
        :bounds="bounds('batch')"
        @update:model-value="(n) => set('batch', n)"
      />
      <NumberField
        :model-value="supply.spare * 100"
        label="Spare"
        unit="%"
        :bounds="percents('spare')"
        @update:model-value="(n) => set('spare', n / 100)"
      />
      <NumberField
        :model-value="supply.cull * 100"
        label="Culls in a bag"
        unit="%"
        :bounds="percents('cull')"
        @update:model-value="(n) => set('cull', n / 100)"
      />
      <VTextField
        :model-value="supply.packGrams.join(' ')"
        label="Packs sold, g"
        @change="(e: Event) => setPacks(field(e))"
      />
      <VCheckbox :model-value="supply.hanks" label="Hanks too" @update:model-value="(v) => set('hanks', Boolean(v))" />
    </div>
    <p v-if="problem" class="warn" role="alert">{{ problem }}</p>
    <PlotChart
      v-if="buy.length"
      title="Beads by colour and size, as a chart"
      :summary="`Beads of each colour and size; most of ${mostOf(buy)}.`"
      :traces="beadTraces"
      :layout="{ xaxis: { title: { text: 'beads' } } }"
      :height="80 + 30 * buy.length"
      :head="['Bead', 'Size', 'Beads', 'Grams']"
      :rows="
        buy.map((b) => [
          `${b.bead.letter} ${b.bead.name}`,
          requireSpec(b.bead.spec).name,
          showNumber(b.count),
          showNumber(b.grams, 1),
        ])
      "
    />
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.beads li {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 12px;
  align-items: center;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.tall {
  width: 22px;
  height: 30px;
  border-radius: 7px;
}
.what,
.amount {
  display: grid;
  gap: 2px;
}
.amount {
  display: grid;
  gap: 2px;
}
.beads .figure {
  font-size: 24px;
  white-space: nowrap;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.acts .button {
  padding: 0 14px;
  font-size: 14.5px;
}
.says {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  padding: 10px 14px;
  border-radius: 10px;
  font-size: 14.5px;
}
.three {
  grid-template-columns: repeat(3, 1fr);
}
.warn {
  color: var(--marigold);
  font-size: 14px;
}
@media (width <= 720px) {
  .amount {
    max-width: 116px;
  }
  .three {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
