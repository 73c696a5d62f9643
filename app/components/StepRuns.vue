<script setup lang="ts">
import type { TrayBead } from '#core/bead/bead'
import { GAP, type WordRun } from '#core/tally/words'

/** Beads that a step picks up, run by run; those that are strung fade. */
defineProps<{
  runs: readonly WordRun[]
  tray: ReadonlyMap<number, TrayBead>
  /** Runs that are strung. */
  done: number
}>()
</script>

<template>
  <span class="runs">
    <span v-for="(run, n) in runs" :key="n" class="run" :class="{ over: n < done }"
      ><span
        v-if="run.number !== 0"
        class="swatch"
        :style="{ '--bead': tray.get(run.number)?.colour }"
        aria-hidden="true"
      /><b>{{ run.count }}{{ run.number === 0 ? GAP : tray.get(run.number)?.letter }}</b
      ><span class="hidden">{{ run.number === 0 ? 'empty' : tray.get(run.number)?.name }}</span></span
    >
  </span>
</template>

<style scoped>
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
.over {
  opacity: 0.45;
}
</style>
