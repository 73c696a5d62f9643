<script setup lang="ts">
import type { useBenchWays } from '../composables/bench'

/** How a person works at the bench on this device. */
defineProps<{
  byMove: boolean
  speaks: boolean
  learning: boolean
  awake: boolean
}>()
const emit = defineEmits<{ learn: [] }>()
const ways = defineModel<ReturnType<typeof useBenchWays>['value']>({ required: true })
const set = (change: Partial<(typeof ways)['value']>) => {
  ways.value = { ...ways.value, ...change }
}
const isOn = (e: Event) => (e.target as HTMLInputElement).checked
</script>

<template>
  <div class="ways">
    <label v-if="!byMove" class="field"
      ><input
        type="checkbox"
        :checked="ways.stride === 'bite'"
        @change="(e) => set({ stride: isOn(e) ? 'bite' : 'row' })"
      />
      run by run within a row</label
    >
    <label v-if="speaks" class="field"
      ><input type="checkbox" :checked="ways.aloud" @change="(e) => set({ aloud: isOn(e) })" /> read the words
      aloud</label
    >
    <label v-if="speaks && ways.aloud" class="field"
      >how fast
      <input
        type="range"
        min="0.6"
        max="1.6"
        step="0.1"
        :value="ways.rate"
        @change="(e) => set({ rate: Number((e.target as HTMLInputElement).value) })"
    /></label>
    <label class="field"
      ><input type="checkbox" :checked="ways.click" @change="(e) => set({ click: isOn(e) })" /> a click with each
      press</label
    >
    <label class="field"
      ><input type="checkbox" :checked="ways.breaks" @change="(e) => set({ breaks: isOn(e) })" /> remind me to rest
      eyes and hands every 20 minutes</label
    >
    <p class="field">
      <button type="button" class="button" @click="emit('learn')">
        {{ learning ? 'Press the pedal or key now' : 'Teach a pedal or key' }}</button><template v-if="ways.pedal"
        >“{{ ways.pedal === ' ' ? 'Space' : ways.pedal }}” goes on
        <button type="button" class="link" @click="set({ pedal: '' })">Forget it</button></template
      >
    </p>
    <p class="quiet">
      {{
        awake
          ? 'The screen stays awake while the bench is open.'
          : 'This browser lets the screen sleep: set a longer time in the device, if it dims.'
      }}
      Space, Enter and → go on; Backspace and ← go back; so does a swipe.
    </p>
  </div>
</template>

<style scoped>
.field {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
input[type='checkbox'] {
  width: 20px;
  height: 20px;
}
input {
  accent-color: var(--madder);
}
</style>
