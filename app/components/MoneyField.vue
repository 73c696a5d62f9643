<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { plainMoney, requireCurrency, tryParseMoney } from '#core/money/money'

/** An amount of money as people type it; gives and takes smallest units. Empty is 0: unknown, or not decided. */
const props = defineProps<{ modelValue: number; currency: string; label: string; hint?: string }>()
const emit = defineEmits<{ 'update:modelValue': [minor: number] }>()
const shown = (minor: number) => (minor === 0 ? '' : plainMoney(minor, requireCurrency(props.currency).decimals))
const text = ref(shown(props.modelValue))
const problem = ref('')
watch([() => props.modelValue, () => props.currency], () => {
  text.value = shown(props.modelValue)
  problem.value = ''
})
const sign = computed(() => requireCurrency(props.currency).sign)
function left() {
  if (text.value.trim() === '') {
    problem.value = ''
    emit('update:modelValue', 0)
    return
  }
  const read = tryParseMoney(text.value, props.currency)
  problem.value = read.ok ? '' : read.problems[0]!.says
  if (read.ok) {
    text.value = shown(read.value)
    emit('update:modelValue', read.value)
  }
}
</script>

<template>
  <VTextField
    v-model="text"
    :label="label"
    :prefix="sign"
    :hint="hint"
    :persistent-hint="Boolean(hint)"
    :error-messages="problem ? [problem] : []"
    :aria-invalid="problem ? 'true' : undefined"
    inputmode="decimal"
    autocomplete="off"
    @change="left"
  />
</template>
