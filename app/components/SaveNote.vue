<script setup lang="ts">
import { computed, ref } from 'vue'
import { usePiece } from '../stores/piece'

/** Whether what was done is safe; and, when two edits clash, the choice between them. */
const store = usePiece()
const busy = ref(false)
const words = computed(() => ({
  'saved': 'Saved', 'saving': 'Saving…', 'waiting': 'Kept in this browser; sent when the server is back', 'clash': 'Changed elsewhere too', 'signed-out': 'Signed out; your work is kept here',
})[store.state])

async function copy() {
  busy.value = true
  try {
    const id = await store.keepMineAsCopy()
    if (id) await navigateTo(`/piece/${id}/mat`)
  }
  finally { busy.value = false }
}
async function theirs() {
  busy.value = true
  try { await store.takeTheirs() }
  finally { busy.value = false }
}
</script>

<template>
  <span class="note" :class="store.state" role="status">{{ words }}</span>
  <NuxtLink v-if="store.state === 'signed-out'" class="again" :to="{ path: '/enter', query: { back: $route.fullPath } }">Sign in</NuxtLink>
  <VDialog :model-value="store.state === 'clash'" persistent max-width="520" role="alertdialog" aria-label="Two changes want the same place">
    <div class="sheet choice">
      <h2>Two changes want the same place</h2>
      <p>{{ store.says }}</p>
      <p class="soft">Nothing is lost yet: your version is still in this browser, the other one is on the server.</p>
      <button class="button main" type="button" :disabled="busy" @click="copy">Keep mine as a piece of its own</button>
      <button class="button" type="button" :disabled="busy" @click="theirs">Let mine go, show the other</button>
    </div>
  </VDialog>
</template>

<style scoped>
.note { font-size: 13.5px; color: var(--soft); }
.waiting, .clash, .signed-out { color: var(--marigold); font-weight: 600; }
.again { margin-inline-start: 8px; }
.choice { display: grid; gap: 14px; box-shadow: var(--shadow); }
</style>
