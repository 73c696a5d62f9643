<script setup lang="ts">
import type { TrayBead } from '#core/bead/bead'
import { GAP, type ToldRuns } from '#core/tally/words'

/** The steps of a row one under the other: which needle, the beads that it picks up, or what else it does. */
defineProps<{
  told: readonly ToldRuns[]
  tray: ReadonlyMap<number, TrayBead>
  /** Runs that are done, counted over all steps; none if not said. */
  done?: number
  large?: boolean
}>()
/** Number of the first run of a step, counted over all steps. */
const firstOf = (told: readonly ToldRuns[], k: number) =>
  told.slice(0, k).reduce((sum, step) => sum + step.runs.length, 0)
</script>

<template>
  <ol class="told" :class="{ large }">
    <li v-for="(step, k) in told" :key="k" :class="{ over: step.runs.length && firstOf(told, k + 1) <= (done ?? 0) }">
      <span v-if="step.who" class="who">{{ step.who }}</span>
      <span v-if="step.runs.length" class="runs">
        <span v-for="(run, n) in step.runs" :key="n" class="run" :class="{ over: firstOf(told, k) + n < (done ?? 0) }"
          ><span
            v-if="run.number !== 0"
            class="swatch"
            :style="{ '--bead': tray.get(run.number)?.colour }"
            aria-hidden="true"
          /><b>{{ run.count }}{{ run.number === 0 ? GAP : tray.get(run.number)?.letter }}</b
          ><span class="hidden">{{ run.number === 0 ? 'empty' : tray.get(run.number)?.name }}</span></span
        >
      </span>
      <span v-else>{{ step.says }}</span>
      <span v-if="step.note" class="note">{{ step.note }}</span>
    </li>
  </ol>
</template>

<style scoped>
.told {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
  min-width: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 10px;
  font-size: 15px;
  line-height: 1.4;
}
.who {
  min-width: 92px;
  color: var(--soft);
}
.runs {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 2px 10px;
}
.run {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
b {
  font: 650 16px/1.3 var(--title);
}
.note {
  color: var(--soft);
}
.note::before {
  content: '· ';
}
.over {
  opacity: 0.45;
}
.large {
  gap: clamp(6px, 1vh, 12px);
}
.large li {
  font-size: clamp(19px, 2.2vw, 28px);
  gap: 4px 18px;
}
.large .who {
  min-width: 7.2em;
  font-size: 0.8em;
}
.large b {
  font-size: clamp(24px, 3vw, 40px);
  line-height: 1.1;
}
.large .run {
  gap: 9px;
  padding: 5px 12px 5px 9px;
  border-radius: 13px;
  background: var(--paper);
}
.large .swatch {
  width: 22px;
  height: 28px;
}
.large .note {
  font-size: 0.78em;
}
@media (width <= 900px) {
  /* Each needle over what it does, whether that is short or long. */
  .large .who {
    min-width: 100%;
  }
}
</style>
