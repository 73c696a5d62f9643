<script setup lang="ts">
import { isRound } from '#core/piece/nature'
import { isRope } from '#core/piece/drawing'
import { computed } from 'vue'
import { VISION_NAMES, VISIONS } from '#core/colour/vision'
import { techniqueOf, type Part } from '#core/piece/piece'
import { wornRound, type FitKind } from '#core/wear/kind'
import { useMat } from '../../stores/mat'
import ChoiceRow from './ChoiceRow.vue'
import MatPanel from './MatPanel.vue'

/** How the work is looked at; nothing of the pattern changes. */
const props = defineProps<{ part: Part; kind: FitKind }>()
const mat = useMat()
const tube = computed(() => isRound(props.part))
/** As what it is seen when it is not flat; null of what hangs flat. */
const worn = computed(() => {
  if (isRope(props.part)) return 'as a rope, turning'
  if (tube.value) return 'as a tube, turning'
  const what = wornRound(props.kind)
  return what && `round the ${what}`
})
const side = computed({
  get: () => (mat.wrongSide ? 'wrong' : 'right'),
  set: (v: 'wrong' | 'right') => {
    mat.wrongSide = v === 'wrong'
  },
})
const begins = computed({
  get: () => (mat.turned ? 'far' : 'near'),
  set: (v: 'near' | 'far') => {
    mat.turned = v === 'far'
  },
})
const bent = computed({
  get: () => (mat.bent ? 'bent' : 'flat'),
  set: (v: 'bent' | 'flat') => {
    mat.bent = v === 'bent'
  },
})
const charts = computed(() => techniqueOf(props.part).charts ?? [])
const chart = computed({
  get: () => mat.chart || charts.value[0]!.id,
  set: (v) => {
    mat.chart = v
  },
})
const lie = computed({
  get: () => mat.lie,
  set: (v) => {
    mat.lie = v
  },
})
const visions = VISIONS.map((v) => ({ value: v, title: VISION_NAMES[v] }))
</script>

<template>
  <MatPanel title="Ways to look" @close="mat.panel = null">
    <ChoiceRow
      v-if="worn"
      v-model="bent"
      label="Lies"
      :items="[
        { value: 'flat', title: 'flat' },
        {
          value: 'bent',
          title: worn,
        },
      ]"
    />
    <VSelect
      v-if="charts.length"
      v-model="chart"
      :items="charts.map((c) => ({ value: c.id, title: c.name }))"
      label="Unrolled in"
      :hint="charts.find((c) => c.id === chart)!.says"
      persistent-hint
      density="compact"
    />
    <ChoiceRow
      v-model="side"
      label="Side"
      :items="[
        { value: 'right', title: 'front' },
        { value: 'wrong', title: 'wrong side' },
      ]"
    />
    <ChoiceRow
      v-model="lie"
      label="Length runs"
      :items="[
        { value: 'level', title: 'level' },
        { value: 'upright', title: 'upright' },
      ]"
    />
    <ChoiceRow
      v-model="begins"
      label="Begins"
      :items="
        mat.lie === 'level'
          ? [
              { value: 'near', title: 'at the left' },
              { value: 'far', title: 'at the right' },
            ]
          : [
              { value: 'near', title: 'at the bottom' },
              { value: 'far', title: 'at the top' },
            ]
      "
    />
    <ChoiceRow
      v-model="mat.look"
      label="Shown as"
      :items="[
        { value: 'beads', title: 'beads' },
        { value: 'chart', title: 'chart for black-and-white print' },
      ]"
    />
    <ChoiceRow
      v-model="mat.tone"
      label="Mat"
      :items="[
        { value: 'theme', title: 'as the theme' },
        { value: 'day', title: 'light' },
        { value: 'evening', title: 'dark' },
      ]"
    />
    <VSelect v-model="mat.vision" :items="visions" label="Seen" density="compact" />
  </MatPanel>
</template>
