<script setup lang="ts">
import { computed } from 'vue'
import { runPairs } from '#core/grid/runs'
import type { Piece } from '#core/piece/piece'

/** Beads in order, each as often as its band is wide: written like the words of a row, changed by pressing dishes. */
const props = defineProps<{ piece: Piece; label: string }>()
const model = defineModel<number[]>({ required: true })

const runs = computed(() => runPairs(model.value))
const bead = (number: number) => props.piece.tray.find((b) => b.number === number)
function change(at: number, by: number) {
  model.value = runs.value.flatMap((run, k) =>
    Array<number>(Math.max(0, run.count + (k === at ? by : 0))).fill(run.number),
  )
}
</script>

<template>
  <div class="sequence" role="group" :aria-label="label">
    <span class="quiet">{{ label }}</span>
    <ol v-if="runs.length">
      <li v-for="(run, k) in runs" :key="k">
        <button
          type="button"
          class="less"
          :aria-label="`One ${bead(run.number)?.letter ?? 'empty'} fewer`"
          @click="change(k, -1)"
        >
          −
        </button>
        <b>{{ run.count }}{{ bead(run.number)?.letter ?? '–' }}</b
        ><span class="swatch" :style="{ '--bead': bead(run.number)?.colour ?? 'transparent' }" />
        <button type="button" :aria-label="`One ${bead(run.number)?.letter ?? 'empty'} more`" @click="change(k, 1)">
          +
        </button>
      </li>
    </ol>
    <p v-else class="quiet">Press the beads below, in order.</p>
    <div class="tray">
      <button
        v-for="b in piece.tray"
        :key="b.number"
        type="button"
        class="add"
        :aria-label="`Then ${b.letter} ${b.name}`"
        :title="`Then ${b.letter} ${b.name}`"
        @click="model = [...model, b.number]"
      >
        <span class="swatch" :style="{ '--bead': b.colour }" />{{ b.letter }}
      </button>
      <button v-if="model.length" type="button" class="add" @click="model = []">Clear</button>
    </div>
  </div>
</template>

<style scoped>
.sequence {
  display: grid;
  gap: 6px;
}
ol {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 0;
  padding: 0;
}
li {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  background: var(--ground);
  border-radius: 9px;
}
li b {
  font: 650 15px/1 var(--title);
}
.sequence > ol > li > button {
  width: 28px;
  height: 34px;
  border: 0;
  background: none;
  color: var(--soft);
  font-size: 17px;
  cursor: pointer;
}
.tray {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.add {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 32px;
  padding: 0 9px;
  border: 0;
  border-radius: 9px;
  background: none;
  color: var(--ink);
  font: 500 14px/1 var(--text);
  cursor: pointer;
  box-shadow: inset 0 0 0 1px var(--line);
}
.add:hover {
  box-shadow: inset 0 0 0 1px var(--edge);
}
.swatch {
  width: 13px;
  height: 16px;
}
@media (width <= 900px) {
  .sequence > ol > li > button {
    width: 40px;
    height: 44px;
  }
  .add {
    min-height: 44px;
  }
}
</style>
