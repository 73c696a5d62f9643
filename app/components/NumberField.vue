<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { tryParseNumber, type Bounds } from '#core/units/number'

/**
 * A number as people type it, held to the bounds of the schema that checks it. What cannot be read stays in the field,
 * with a sentence.
 */
const props = defineProps<{
  modelValue: number
  label: string
  bounds: Bounds
  unit?: string
  hint?: string
  optional?: boolean
  disabled?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number] }>()

/** 0 is shown as an empty field where nothing need be said. */
const shown = (n: number) =>
  props.optional && n === 0 ? '' : `${Math.round(n * 1000) / 1000}${props.unit ? ` ${props.unit}` : ''}`
const text = ref(shown(props.modelValue))
const typing = ref(false)
watch(
  () => props.modelValue,
  (now) => {
    if (!typing.value) text.value = shown(now)
  },
)
const read = computed(() =>
  props.optional && text.value.trim() === ''
    ? { ok: true as const, value: 0 }
    : tryParseNumber(text.value, props.bounds, props.unit),
)
const problem = computed(() => (read.value.ok ? '' : read.value.problems[0]!.says))

function typed(value: string) {
  typing.value = true
  text.value = value
}
/** A number is given when it is whole: at the end of typing, as a figure half typed would already change the piece. */
function left() {
  typing.value = false
  if (!read.value.ok) return
  emit('update:modelValue', read.value.value)
  text.value = shown(read.value.value)
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
    :inputmode="bounds.whole ? 'numeric' : 'decimal'"
    autocomplete="off"
    :disabled="disabled"
    @update:model-value="typed"
    @change="left"
  />
</template>
