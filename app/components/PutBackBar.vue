<script setup lang="ts">
import { ref } from 'vue'
import type { ShelfItem, ShelfValue } from '#core/shelf/shelf'
import { saying } from '../composables/saying'
import { useShelf } from '../stores/shelf'

/** Takes a thing off the shelf and offers to put it back: a slip of the finger costs nothing. */
const shelf = useShelf()
const gone = ref<ShelfValue | null>(null)
const says = ref('')
const nameOf = (value: ShelfValue) => ('name' in value ? value.name : 'The gauge')

async function takeOff(item: ShelfItem): Promise<void> {
  await shelf.takeOff(item.id)
  gone.value = item.value
  says.value = ''
}
async function putBack() {
  const value = gone.value
  if (!value) return
  await saying(
    async () => {
      await shelf.keep([value])
      gone.value = null
    },
    (text) => {
      says.value = text
    },
  )
}
defineExpose({ takeOff })
</script>

<template>
  <VSnackbar
    :model-value="gone !== null"
    :timeout="12000"
    @update:model-value="
      (v) => {
        if (!v) gone = null
      }
    "
  >
    {{ says || `${gone ? nameOf(gone) : ''} was taken out.` }}
    <template #actions><button type="button" class="undo" @click="putBack">Put it back</button></template>
  </VSnackbar>
</template>

<style scoped>
.undo {
  all: unset;
  cursor: pointer;
  font-weight: 700;
  text-decoration: underline;
  padding: 12px;
}
.undo:focus-visible {
  outline: 2px solid currentColor;
  border-radius: 6px;
}
</style>
