<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue'
import { useDayOrEvening } from '../composables/theme'
import { ownStyle } from '../theme/own-style'

/** A chart and the same figures as a table. The chart library is loaded when the first chart is opened. */
const props = defineProps<{
  title: string
  /** One sentence that says what the chart shows, for those who cannot see it. */
  summary: string
  traces: readonly object[]
  layout?: object
  head: readonly string[]
  rows: readonly (readonly string[])[]
  height?: number
  open?: boolean
}>()

const CHART_SHEET = 'plotly.js-style-global'
const box = ref<HTMLElement>()
const shown = ref(props.open ?? false)
const theme = useDayOrEvening()
let plotly:
  | {
      react(element: HTMLElement, data: readonly object[], layout: object, config: object): Promise<void>
      purge(element: HTMLElement): void
    }
  | undefined

const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim()

/** One look for every chart: the mat's own colours and type, thin lines, no frame. */
function look(): object {
  const axis = {
    gridcolor: token('line'),
    zerolinecolor: token('edge'),
    linecolor: token('edge'),
    tickcolor: token('edge'),
    automargin: true,
    fixedrange: true,
    title: { standoff: 8 },
  }
  const own = (props.layout ?? {}) as { xaxis?: object; yaxis?: object }
  return {
    height: props.height ?? 260,
    margin: { l: 8, r: 12, t: 8, b: 40 },
    paper_bgcolor: 'rgba(0,0,0,0)',
    plot_bgcolor: 'rgba(0,0,0,0)',
    font: { family: token('text'), size: 13, color: token('ink') },
    colorway: [token('verdigris'), token('madder'), token('marigold-mark'), token('soft')],
    showlegend: false,
    bargap: 0.35,
    dragmode: false,
    hoverlabel: { font: { family: token('text') } },
    ...own,
    xaxis: { ...axis, ...own.xaxis },
    yaxis: { ...axis, ...own.yaxis },
  }
}

async function draw() {
  if (!shown.value || !box.value) return
  // The library writes its rules into this sheet; one that it made itself would not be obeyed.
  if (!document.getElementById(CHART_SHEET)) ownStyle('').id = CHART_SHEET
  plotly ??= (await import('plotly.js-basic-dist-min')).default
  await plotly.react(box.value, props.traces, look(), { displayModeBar: false, responsive: true, staticPlot: false })
}
watch(
  [shown, box, theme, () => props.traces],
  () => {
    void draw()
  },
  { flush: 'post' },
)
onBeforeUnmount(() => {
  if (box.value) plotly?.purge(box.value)
})
</script>

<template>
  <details class="chart" :open="shown || undefined" @toggle="shown = ($event.target as HTMLDetailsElement).open">
    <summary>{{ title }}</summary>
    <figure>
      <div ref="box" role="img" :aria-label="summary" class="plot" :style="{ minHeight: `${height ?? 260}px` }" />
      <figcaption class="hidden">{{ summary }}</figcaption>
    </figure>
    <details class="table">
      <summary>The same as a table</summary>
      <div class="wide" tabindex="0" role="region" :aria-label="`${title}, as a table`">
        <table>
          <thead>
            <tr>
              <th v-for="(h, k) in head" :key="h" scope="col" :class="{ number: k > 0 }">{{ h }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row[0]">
              <template v-for="(cell, k) in row" :key="k"
                ><th v-if="k === 0" scope="row">{{ cell }}</th>
                <td v-else class="number">{{ cell }}</td></template
              >
            </tr>
          </tbody>
        </table>
      </div>
    </details>
  </details>
</template>

<style scoped>
.chart {
  border-top: 1px solid var(--line);
  padding-top: 4px;
}
summary {
  cursor: pointer;
  color: var(--verdigris);
  min-height: 36px;
  display: list-item;
  padding: 6px 0;
}
figure {
  margin: 0;
}
.plot {
  width: 100%;
}
.wide {
  overflow-x: auto;
}
table {
  font-size: 14px;
  width: 100%;
}
th,
td {
  padding: 5px 10px 5px 0;
  border-top: 1px solid var(--line);
}
tbody th {
  color: var(--ink);
}
</style>
