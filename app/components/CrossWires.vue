<script setup lang="ts">
import { computed } from 'vue'
import { techniqueOf, workOf, type Part, type Piece } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import { addCrossSteps, changeCrossSteps, crossesOf, removeCrossSteps } from '#core/piece/wire'
import { useLengths } from '../composables/lengths'
import NumberField from './NumberField.vue'

/** Wires across a frame: where each comes out, what fills it, and whether that fits. */
const props = defineProps<{ piece: Piece; part: Part }>()
const emit = defineEmits<{ steps: [label: string, steps: Step[]] }>()
const { length } = useLengths()
const side = computed(() => techniqueOf(props.part).wire!.crosses!)
const crosses = computed(() => crossesOf(props.part) ?? [])
const last = computed(() => side.value.lastGap(workOf(props.part)))
const fillings = computed(() => side.value.fillings.map(({ id, name }) => ({ value: id, title: name })))
const saysOf = (id: string) => side.value.fillings.find((one) => one.id === id)?.says ?? ''
const off = (free: number, long: number) =>
  long > free + 0.05
    ? `${length(long - free, 1)} too long`
    : free - long < 0.05
      ? 'full'
      : `${length(free - long, 1)} free`
</script>

<template>
  <fieldset class="crosses">
    <legend>Wires across</legend>
    <p class="quiet">Gaps are counted from the top, down both sides.</p>
    <ol v-if="crosses.length">
      <li v-for="(cross, k) in crosses" :key="k" :data-cross="k + 1">
        <NumberField
          :model-value="cross.gap"
          :label="`Wire ${k + 1}, gap`"
          :bounds="{ least: 1, most: Math.max(1, last), whole: true }"
          @update:model-value="(gap) => emit('steps', 'Wire across', changeCrossSteps(piece, part, k, { gap }))"
        />
        <VSelect
          :model-value="cross.filling"
          :items="fillings"
          :label="`Wire ${k + 1} carries`"
          :hint="saysOf(cross.filling)"
          persistent-hint
          @update:model-value="
            (filling: string) => emit('steps', 'Wire across', changeCrossSteps(piece, part, k, { filling }))
          "
        />
        <span class="fits" :class="{ over: cross.longMm > cross.freeMm + 0.05 }"
          ><b class="figure">{{ length(cross.freeMm, 1) }}</b
          ><span class="quiet">of room, {{ off(cross.freeMm, cross.longMm) }}</span></span
        >
        <button
          type="button"
          class="link"
          :aria-label="`Take wire ${k + 1} out`"
          @click="emit('steps', 'Wire taken out', removeCrossSteps(piece, part, k))"
        >
          Take out
        </button>
      </li>
    </ol>
    <button type="button" class="button" @click="emit('steps', 'Wire put across', addCrossSteps(piece, part))">
      Put a wire across
    </button>
  </fieldset>
</template>

<style scoped>
.crosses {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 12px;
  min-width: 0;
}
legend {
  font-weight: 600;
  padding: 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 14px;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 7em) minmax(0, 1fr);
  gap: 8px 12px;
  align-items: start;
  border-top: 1px solid var(--line);
  padding-top: 12px;
}
.fits {
  display: grid;
}
.fits .figure {
  font-size: 19px;
}
.fits.over .quiet {
  color: var(--madder);
}
.link {
  justify-self: end;
}
.button {
  justify-self: start;
}
</style>
