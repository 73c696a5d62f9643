<script setup lang="ts">
import { computed } from 'vue'
import type { Choice } from '#core/fit/choices'
import { fitKindOf, type FitKind } from '#core/wear/kind'
import { inchFromMm, showNumber } from '#core/units/length'
import { useLengths } from '../composables/lengths'
import PlotChart from '../chart/PlotChart.vue'

/** Length against choices: where each closes, how far beads and hands may move it, and what is wanted. */
const props = defineProps<{ choices: readonly Choice[]; kind: FitKind; words: (choice: Choice) => string }>()
const { unit, length } = useLengths()
const name = (c: Choice) => `${c.times} × ${props.words(c)}`
const to = (mm: number) => (unit.value === 'in' ? inchFromMm(mm) : mm)
const shown = computed(() => props.choices.toReversed())
const traces = computed(() => [
  {
    type: 'scatter',
    mode: 'markers',
    x: shown.value.map((c) => to(c.fit.atMm)),
    y: shown.value.map((c, k) => `${k}`),
    hovertemplate: '%{x:.1f}<extra></extra>',
    marker: { size: 13, symbol: shown.value.map((c) => (c.current ? 'diamond' : 'circle')) },
    error_x: {
      type: 'data',
      symmetric: false,
      thickness: 2,
      width: 5,
      array: shown.value.map((c) => to(c.fit.finishedMm.most - c.fit.finishedMm.nominal)),
      arrayminus: shown.value.map((c) => to(c.fit.finishedMm.nominal - c.fit.finishedMm.least)),
    },
  },
])
const wanted = computed(() => to(props.choices[0]!.fit.wantedMm))
const layout = computed(() => ({
  xaxis: {
    title: {
      text: `${fitKindOf(props.kind).bend === 'round' ? 'closes at' : 'comes to'}, ${unit.value}; dashed: wanted`,
    },
  },
  yaxis: {
    tickvals: shown.value.map((_, k) => `${k}`),
    ticktext: shown.value.map((c) => (name(c).length > 34 ? `${name(c).slice(0, 33)}…` : name(c))),
  },
  shapes: [
    {
      type: 'line',
      x0: wanted.value,
      x1: wanted.value,
      y0: 0,
      y1: 1,
      yref: 'paper',
      line: { dash: 'dash', width: 2, color: 'rgba(140,110,90,0.9)' },
    },
  ],
}))
const rows = computed(() =>
  props.choices.map((c) => [
    name(c),
    length(c.fit.atMm, 1),
    length(c.fit.differenceMm, 1),
    `${length(c.fit.finishedMm.least)} – ${length(c.fit.finishedMm.most)}`,
    showNumber(c.beads),
  ]),
)
const summary = computed(
  () =>
    `Finished measure of ${props.choices.length} choices against ${length(props.choices[0]!.fit.wantedMm)} ` +
    `wanted; nearest is ${name(props.choices[0]!)}, ${length(props.choices[0]!.fit.atMm, 1)}.`,
)
</script>

<template>
  <PlotChart
    title="Length against choices, as a chart"
    :summary="summary"
    :traces="traces"
    :layout="layout"
    :height="90 + 34 * choices.length"
    :head="['Choice', 'Comes to', 'Off', 'From – to', 'Beads']"
    :rows="rows"
  />
</template>
