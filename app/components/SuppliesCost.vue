<script setup lang="ts">
import { computed } from 'vue'
import { boundsOf } from '#core/bounds'
import { amountIn, CURRENCIES, requireCurrency } from '#core/money/money'
import { costSchema, findingSchema, type Cost } from '#core/piece/schema'
import type { BeadToBuy } from '#core/supply/beads'
import { showNumber } from '#core/units/length'
import { closureName } from '#core/wear/closure'
import PlotChart from '../chart/PlotChart.vue'
import { useLengths } from '../composables/lengths'
import { useSupplies } from '../composables/supplies'
import LengthField from './LengthField.vue'
import MoneyField from './MoneyField.vue'
import NumberField from './NumberField.vue'

/** What a piece costs and how long it takes, from prices of one’s own, the box and the supplier. */
const { piece, cost, costing, buy, kind, caps, money, setCost } = useSupplies()
const { long } = useLengths()
const field = (e: Event) => (e.target as HTMLInputElement).value

// ---- prices of one's own
const ownPrice = (b: BeadToBuy) =>
  cost.value.beads.find((p) => p.number === b.bead.number) ?? { number: b.bead.number, grams: 10, price: 0 }
function setOwnPrice(b: BeadToBuy, more: { grams?: number; price?: number }) {
  const next = { ...ownPrice(b), ...more }
  const rest = cost.value.beads.filter((p) => p.number !== b.bead.number)
  setCost('beads', next.price > 0 ? [...rest, next] : rest)
}

// ---- what else is bought for the piece: end caps, jump rings, wire
const setFinding = (k: number, more: Partial<Cost['findings'][number]>) =>
  setCost(
    'findings',
    cost.value.findings.map((f, i) => (i === k ? { ...f, ...more } : f)),
  )
const addFinding = () =>
  setCost('findings', [
    ...cost.value.findings,
    { name: caps.value.length ? `End caps, ${caps.value[0]!.end.capMm} mm inside` : 'Jump rings', count: 2, price: 0 },
  ])

const costTraces = computed(() => [
  {
    type: 'bar',
    orientation: 'h',
    y: costing.value.lines.map((l) => l.name).toReversed(),
    x: costing.value.lines.map((l) => amountIn(l.most, costing.value.currency)).toReversed(),
    error_x: {
      type: 'data',
      symmetric: false,
      array: costing.value.lines.map(() => 0).toReversed(),
      arrayminus: costing.value.lines.map((l) => amountIn(l.most - l.least, costing.value.currency)).toReversed(),
    },
    hovertemplate: `%{x:.${requireCurrency(costing.value.currency).decimals}f}<extra></extra>`,
  },
])
const range = (least: number, most: number) => (least === most ? money(least) : `${money(least)} to ${money(most)}`)
</script>

<template>
  <section class="need" aria-labelledby="cost">
    <h2 id="cost">Cost and time</h2>
    <table class="costs">
      <tbody>
        <tr v-for="l in costing.lines" :key="l.id">
          <th scope="row">
            {{ l.name }}<span v-if="l.unknown" class="warn none">{{ l.unknown }} without a price</span>
          </th>
          <td class="number">{{ range(l.least, l.most) }}</td>
        </tr>
        <tr class="total">
          <th scope="row">Costs you</th>
          <td class="number">{{ range(costing.least, costing.most) }}</td>
        </tr>
        <tr v-if="costing.hours.most > 0">
          <th scope="row">Time at the beads</th>
          <td class="number">
            {{ showNumber(costing.hours.least, 1) }} – {{ showNumber(costing.hours.most, 1) }} h, and
            {{ costing.prepareMinutes }} min before
          </td>
        </tr>
        <tr v-if="costing.margin">
          <th scope="row">Left of what you ask, {{ money(costing.asked) }}</th>
          <td class="number" :class="{ warn: costing.margin.least < 0 }">
            {{ range(costing.margin.least, costing.margin.most) }}
          </td>
        </tr>
      </tbody>
    </table>
    <p class="quiet">Materials are what is worked in, not what is bought. The price is your decision.</p>
    <div class="fields">
      <MoneyField
        :model-value="cost.asked"
        :currency="cost.currency"
        :label="kind.pieces === 2 ? 'You ask for a pair' : 'You ask for one'"
        @update:model-value="(v) => setCost('asked', v)"
      />
      <MoneyField
        :model-value="cost.hourly"
        :currency="cost.currency"
        label="Your hour"
        @update:model-value="(v) => setCost('hourly', v)"
      />
    </div>
    <details class="more">
      <summary>Prices, speed, currency</summary>
      <div class="fields">
        <template v-for="b in buy" :key="b.bead.number"
          ><MoneyField
            :model-value="ownPrice(b).price"
            :currency="cost.currency"
            :label="`${b.bead.letter} ${b.bead.name}, ${ownPrice(b).grams} g`"
            @update:model-value="(v) => setOwnPrice(b, { price: v })" /><VSelect
            :model-value="ownPrice(b).grams"
            :items="[5, 10, 28, 50, 100, 500]"
            :label="`for so many grams of ${b.bead.letter}`"
            @update:model-value="(g: number) => setOwnPrice(b, { grams: g })"
        /></template>
        <MoneyField
          :model-value="cost.threadPrice"
          :currency="cost.currency"
          :label="`Thread, ${long(cost.threadMm)}`"
          @update:model-value="(v) => setCost('threadPrice', v)"
        />
        <LengthField
          :model-value="cost.threadMm"
          label="for so much thread"
          :bounds="boundsOf(costSchema, 'threadMm')"
          @update:model-value="(mm) => setCost('threadMm', mm)"
        />
        <MoneyField
          v-if="piece.fit.closure.kind !== 'none'"
          :model-value="cost.closure"
          :currency="cost.currency"
          :label="`${closureName(piece.fit.closure)}${kind.pieces === 2 ? ', a pair' : ''}`"
          @update:model-value="(v) => setCost('closure', v)"
        />
        <NumberField
          :model-value="cost.prepareMinutes"
          label="Minutes to prepare"
          :bounds="boundsOf(costSchema, 'prepareMinutes')"
          @update:model-value="(n) => setCost('prepareMinutes', n)"
        />
        <NumberField
          :model-value="cost.beadsPerHourLeast"
          label="Beads an hour, slow"
          :bounds="boundsOf(costSchema, 'beadsPerHourLeast')"
          @update:model-value="(n) => setCost('beadsPerHourLeast', n)"
        />
        <NumberField
          :model-value="cost.beadsPerHourMost"
          label="Beads an hour, quick"
          :bounds="boundsOf(costSchema, 'beadsPerHourMost')"
          @update:model-value="(n) => setCost('beadsPerHourMost', n)"
        />
        <template v-for="(f, k) in cost.findings" :key="k">
          <VTextField
            :model-value="f.name"
            :label="`Finding ${k + 1}`"
            maxlength="60"
            @change="(e: Event) => field(e).trim() && setFinding(k, { name: field(e).trim() })"
          />
          <div class="finding">
            <NumberField
              :model-value="f.count"
              :label="`So many of finding ${k + 1}`"
              :bounds="boundsOf(findingSchema, 'count')"
              @update:model-value="(n) => setFinding(k, { count: n })"
            />
            <MoneyField
              :model-value="f.price"
              :currency="cost.currency"
              :label="`Each, finding ${k + 1}`"
              @update:model-value="(v) => setFinding(k, { price: v })"
            />
            <button
              type="button"
              class="link"
              :aria-label="`Take finding ${k + 1} off`"
              @click="
                setCost(
                  'findings',
                  cost.findings.filter((_, i) => i !== k),
                )
              "
            >
              Take off
            </button>
          </div>
        </template>
        <button v-if="cost.findings.length < 40" type="button" class="button" @click="addFinding">
          Add a finding
        </button>
        <VSelect
          :model-value="cost.currency"
          :items="CURRENCIES.map((c) => ({ value: c.code, title: `${c.name}, ${c.sign}` }))"
          label="Currency"
          @update:model-value="(v: Cost['currency']) => setCost('currency', v)"
        />
      </div>
    </details>
    <PlotChart
      title="What it is made up of, as a chart"
      :summary="`Parts of the cost, ${money(costing.least)} to ${money(costing.most)}.`"
      :traces="costTraces"
      :layout="{ xaxis: { title: { text: cost.currency } } }"
      :height="90 + 30 * costing.lines.length"
      :head="['Part', 'Least', 'Most']"
      :rows="costing.lines.map((l) => [l.name, money(l.least), money(l.most)])"
    />
  </section>
</template>

<style scoped>
.finding {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 8px;
  align-items: center;
}
.costs {
  width: 100%;
}
.costs th,
.costs td {
  padding: 8px 0;
  border-top: 1px solid var(--line);
  vertical-align: top;
}
.costs th {
  color: var(--ink);
}
.none {
  display: block;
}
.total th,
.total td {
  font-weight: 700;
}
.warn {
  color: var(--marigold);
  font-size: 14px;
}
</style>
