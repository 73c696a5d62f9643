<script setup lang="ts">
import type { TrayBead } from '#core/bead/bead'
import type { ToldRuns } from '#core/tally/words'
import StepRuns from './StepRuns.vue'

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
      <StepRuns v-if="step.runs.length" :runs="step.runs" :tray="tray" :done="(done ?? 0) - firstOf(told, k)" />
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
.large :deep(b) {
  font-size: clamp(24px, 3vw, 40px);
  line-height: 1.1;
}
.large :deep(.run) {
  gap: 9px;
  padding: 5px 12px 5px 9px;
  border-radius: 13px;
  background: var(--paper);
}
.large :deep(.swatch) {
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
