<script setup lang="ts">
import { ref } from 'vue'
import { READINGS, settle, STEADY, type Reading } from '#core/device/reading'
import { readDevice } from '../composables/devices'
import { saying } from '../composables/saying'

/** Takes a length from the caliper: several readings, and the middle of them once they are steady. */
const props = defineProps<{ label: string }>()
const emit = defineEmits<{ measured: [mm: number] }>()
const busy = ref(false)
const says = ref('')

async function take() {
  busy.value = true
  says.value = ''
  await saying(
    async () => {
      const readings: Reading[] = []
      for (let k = 0; k < READINGS; k++) readings.push(await readDevice('caliper'))
      const settled = settle(readings, STEADY.caliper)!
      if (!settled.steady) {
        says.value = 'The reading moves too much. Hold the caliper still and press again.'
        return
      }
      emit('measured', Math.round(settled.value * 100) / 100)
    },
    (text) => {
      says.value = text
    },
  )
  busy.value = false
}
</script>

<template>
  <span class="caliper">
    <button
      type="button"
      class="button"
      :disabled="busy"
      :aria-label="`${props.label} from the caliper`"
      title="Take it from the caliper"
      @click="take"
    >
      Caliper
    </button>
    <span v-if="says" class="says" role="alert">{{ says }}</span>
  </span>
</template>

<style scoped>
.caliper {
  display: grid;
  gap: 4px;
}
.button {
  min-height: 48px;
  padding: 0 12px;
  font-size: 14px;
}
.says {
  font-size: 13px;
  color: var(--marigold);
  max-width: 220px;
}
</style>
