<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import ReadForm from './ReadForm.vue'
import { tryParseNumber } from '#core/units/number'
import { requireSpec } from '#core/bead/spec'
import { READINGS, settle, STEADY, weighed, type Reading } from '#core/device/reading'
import type { ShelfBead, ShelfItem } from '#core/shelf/shelf'
import { showNumber } from '#core/units/length'
import { readDevice } from '../composables/devices'
import { saying } from '../composables/saying'

/** Weighs a tube on the bench scale, or takes the weight as it is typed; the count follows. */
const props = defineProps<{ item: (ShelfItem & { value: ShelfBead }) | null }>()
const emit = defineEmits<{ close: []; keep: [value: ShelfBead] }>()
const readings = ref<Reading[]>([])
const typed = ref('')
const tube = ref('')
const busy = ref(false)
const says = ref('')
watch(
  () => props.item,
  (item) => {
    readings.value = []
    says.value = ''
    typed.value = ''
    tube.value = item ? String(item.value.tubeGrams) : ''
  },
  { immediate: true },
)

const WEIGHT = { least: 0, most: 100_000, whole: false }
const readWeight = (text: string) => (text.trim() === '' ? null : tryParseNumber(text, WEIGHT, 'g'))
const typedRead = computed(() => readWeight(typed.value))
const tubeRead = computed(() => readWeight(tube.value))
const saysOf = (read: ReturnType<typeof readWeight>) => (read && !read.ok ? [read.problems[0]!.says] : [])
const tubeGrams = computed(() => (tubeRead.value?.ok ? tubeRead.value.value : null))
const gross = computed(() => {
  if (typedRead.value) return typedRead.value.ok ? { value: typedRead.value.value, spread: 0.005, steady: true } : null
  return settle(readings.value, STEADY.scale)
})
const result = computed(() =>
  gross.value && tubeGrams.value !== null && props.item
    ? weighed(gross.value, tubeGrams.value, requireSpec(props.item.value.spec).perGram)
    : null,
)

async function weigh() {
  busy.value = true
  says.value = ''
  typed.value = ''
  const taken: Reading[] = []
  await saying(
    async () => {
      while (taken.length < READINGS) taken.push(await readDevice('scale'))
      readings.value = taken
      if (!settle(taken, STEADY.scale)!.steady)
        says.value = 'The scale swings. Wait until it is still, then weigh again; or type the weight.'
    },
    (text) => {
      says.value = text
    },
  )
  busy.value = false
}
/** The empty tube on the scale: its weight is what is taken off. */
async function tare() {
  busy.value = true
  says.value = ''
  const taken: Reading[] = []
  await saying(
    async () => {
      while (taken.length < READINGS) taken.push(await readDevice('scale'))
      tube.value = String(settle(taken, STEADY.scale)!.value)
    },
    (text) => {
      says.value = text
    },
  )
  busy.value = false
}
function keep() {
  if (!props.item) return
  if (!result.value || tubeGrams.value === null) {
    says.value = 'Weigh the tube or type its weight, and what the empty tube weighs: 0 if the beads lie bare.'
    return
  }
  emit('keep', { ...props.item.value, grams: result.value.grams, tubeGrams: tubeGrams.value })
}
</script>

<template>
  <VDialog
    :model-value="item !== null"
    max-width="480"
    aria-label="Weigh"
    @update:model-value="(v) => !v && emit('close')"
  >
    <ReadForm v-if="item" class="sheet weigh" aria-label="Weigh" @done="keep">
      <h2><span class="swatch" :style="{ '--bead': item.value.colour }" /> {{ item.value.name }}</h2>
      <p class="quiet">
        {{ requireSpec(item.value.spec).name }}, {{ showNumber(requireSpec(item.value.spec).perGram) }} to a gram.
        Until now {{ showNumber(item.value.grams, 2) }} g.
      </p>
      <div class="row">
        <button type="button" class="button main" :disabled="busy" @click="weigh">
          {{ busy ? 'Weighing…' : 'Weigh tube and beads' }}
        </button>
        <VTextField
          v-model="typed"
          autocomplete="off"
          :error-messages="saysOf(typedRead)"
          :aria-invalid="saysOf(typedRead).length > 0 ? 'true' : undefined"
          label="or type it, g"
          inputmode="decimal"
          :placeholder="gross && typed === '' ? showNumber(gross.value, 2) : ''"
          persistent-placeholder
        />
      </div>
      <div class="row">
        <button type="button" class="button" :disabled="busy" @click="tare">Weigh the empty tube</button>
        <VTextField
          v-model="tube"
          autocomplete="off"
          :error-messages="saysOf(tubeRead)"
          :aria-invalid="saysOf(tubeRead).length > 0 ? 'true' : undefined"
          label="Empty tube, g"
          inputmode="decimal"
        />
      </div>
      <p v-if="says" class="says" role="alert">{{ says }}</p>
      <p v-if="result" class="result" role="status">
        <span class="figure">{{ showNumber(result.grams, 2) }} g</span
        ><span
          >about <b>{{ showNumber(result.count) }}</b> beads, ± {{ showNumber(Math.max(1, result.countSpread)) }} from
          the scale</span
        >
      </p>
      <div class="row">
        <button type="submit" class="button main">Keep this weight</button
        ><button type="button" class="button plain" @click="emit('close')">Not now</button>
      </div>
    </ReadForm>
  </VDialog>
</template>

<style scoped>
.weigh {
  display: grid;
  gap: 16px;
}
.row {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
.row .button {
  min-height: 48px;
}
.result {
  display: flex;
  gap: 16px;
  align-items: baseline;
  flex-wrap: wrap;
}
.result .figure {
  font-size: 34px;
}
.says {
  color: var(--marigold);
  font-size: 14.5px;
}
</style>
