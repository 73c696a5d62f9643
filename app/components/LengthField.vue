<script setup lang="ts">
import { inchFraction, showNumber, tryParseLength } from '#core/units/length'
import { computed, ref, watch } from 'vue'
import type { Bounds } from '#core/units/number'
import { useLengths } from '../composables/lengths'

/**
 * A length as people type it; gives and takes millimetres. What cannot be read stays in the field, with a sentence.
 */
const props = defineProps<{
  modelValue: number
  label: string
  least?: number
  most?: number
  bounds?: Bounds
  hint?: string
  decimals?: number
}>()
const emit = defineEmits<{ 'update:modelValue': [mm: number] }>()
const { unit, length } = useLengths()

const shown = (mm: number) =>
  unit.value === 'in'
    ? `${inchFraction(mm)} in`
    : `${showNumber(mm, Number.isInteger(mm) ? 0 : (props.decimals ?? 1))} mm`
const text = ref(shown(props.modelValue))
const typing = ref(false)

watch([() => props.modelValue, unit], () => {
  if (!typing.value) text.value = shown(props.modelValue)
})

const read = computed(() => tryParseLength(text.value, unit.value))
const problem = computed(() => {
  if (!read.value.ok) return read.value.problems[0]!.says
  const mm = read.value.value
  const [least, most] = [props.least ?? props.bounds?.least, props.most ?? props.bounds?.most]
  // Bounds under a few millimetres need their decimals.
  const shownBound = (bound: number) => length(bound, bound < 10 && !Number.isInteger(bound) ? 2 : 0)
  if (least !== undefined && mm < least - 1e-9) return `At least ${shownBound(least)}, please.`
  if (most !== undefined && mm > most + 1e-9) return `At most ${shownBound(most)}, please.`
  return ''
})

function typed(value: string) {
  typing.value = true
  text.value = value
  if (!problem.value && read.value.ok) emit('update:modelValue', read.value.value)
}

function left() {
  typing.value = false
  if (!problem.value) text.value = shown(props.modelValue)
}
</script>

<template>
  <VTextField
    :model-value="text"
    :label="label"
    :hint="hint"
    :persistent-hint="Boolean(hint)"
    :error-messages="problem ? [problem] : []"
    :aria-invalid="problem ? 'true' : undefined"
    inputmode="text"
    autocomplete="off"
    @update:model-value="typed"
    @blur="left"
  />
</template>
