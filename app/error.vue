<script setup lang="ts">
import type { NuxtError } from '#app'
import { computed } from 'vue'

const props = defineProps<{ error: NuxtError }>()
const missing = computed(() => props.error.statusCode === 404)
</script>

<template>
  <main class="lost">
    <img src="/bead.svg" alt="" width="72" height="72" />
    <h1>{{ missing ? 'There is nothing here' : 'Something came undone' }}</h1>
    <p>
      {{
        missing
          ? 'The address leads nowhere in this workshop.'
          : 'This view could not be shown. What you did before is saved; unsent edits are kept in this browser.'
      }}
    </p>
    <a href="/" class="button main">Back to the workshop</a>
  </main>
</template>

<style scoped>
.lost {
  min-height: 100dvh;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 16px;
  padding: 24px;
  text-align: center;
}
p {
  max-width: 44ch;
}
</style>
