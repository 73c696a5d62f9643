<script setup lang="ts">
import { nextTick, ref } from 'vue'

/**
 * A form whose button works only while every field of it can be read: otherwise the first that cannot is shown, with
 * its sentence. `calm`: Enter in a field does not press the button.
 */
const props = defineProps<{ calm?: boolean }>()
const emit = defineEmits<{ done: [] }>()
const form = ref<{ $el: HTMLElement }>()

async function submit() {
  await nextTick()
  const unread = form.value!.$el.querySelector<HTMLElement>('.v-input--error input, .v-input--error textarea')
  if (unread) unread.focus()
  else emit('done')
}
function enter(event: KeyboardEvent) {
  if (props.calm && event.target instanceof HTMLInputElement) event.preventDefault()
}
</script>

<template>
  <VForm ref="form" @submit.prevent="submit" @keydown.enter="enter"><slot /></VForm>
</template>
