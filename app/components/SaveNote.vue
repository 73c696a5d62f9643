<script setup lang="ts">
import { computed, ref } from 'vue'
import { saying } from '../composables/saying'
import { wantsChoice, type SaveState } from '../line/line'
import { usePiece } from '../stores/piece'

/** Whether what was done is safe; and, when a person must choose between two states of a piece, the choice. */
const store = usePiece()
const busy = ref(false)
const trouble = ref('')
const WORDS: Record<SaveState, string> = {
  'saved': 'Saved',
  'saving': 'Saving…',
  'waiting': 'Kept in this browser; sent when the server is back',
  'full': 'Account full; kept here',
  'signed-out': 'Signed out; your work is kept here',
  'renewed': 'Kept in this browser; reload the page',
  'clash': 'Changed elsewhere too',
  'apart': 'Changed too much elsewhere',
  'refused': 'Not taken by the server',
  'gone': 'Put away elsewhere',
  'astray': 'The server has an earlier state',
}
const TITLES: Partial<Record<SaveState, string>> = {
  clash: 'Two changes want the same place',
  apart: 'What changed elsewhere cannot be joined with yours',
  refused: 'The server does not take this change',
  gone: 'This piece was put away or removed elsewhere',
  astray: 'The server has an earlier state of this piece',
}
const STANDS: Partial<Record<SaveState, string>> = {
  clash: 'Nothing is lost yet: your version is still in this browser, the other one is on the server.',
  apart: 'Nothing is lost yet: your version is still in this browser, the other one is on the server.',
  refused: 'Nothing is lost yet: your version is still in this browser, the one before it is on the server.',
  gone: 'What you see is kept in this browser until you choose.',
  astray:
    'What you see is newer and kept in this browser until you choose. Sent again, it becomes the newest state ' +
    'on the server.',
}
const words = computed(() =>
  store.state === 'waiting' && store.pending === 0
    ? 'The server is away; this is what this browser holds'
    : WORDS[store.state],
)

interface Choice {
  readonly label: string
  readonly act: () => Promise<unknown>
  readonly for: readonly SaveState[]
}
async function copy() {
  const id = await store.keepMineAsCopy()
  if (id) await navigateTo(`/piece/${id}/mat`)
}
async function letGo() {
  await store.letMineGo()
  await navigateTo('/')
}
const CHOICES: readonly Choice[] = [
  { label: 'Send mine again', act: store.sendAgain, for: ['astray'] },
  { label: 'Bring it back', act: store.bringBack, for: ['gone'] },
  { label: 'Keep mine as a piece of its own', act: copy, for: ['clash', 'apart', 'refused', 'gone', 'astray'] },
  { label: 'Let mine go, show the other', act: store.takeTheirs, for: ['clash', 'apart', 'refused', 'astray'] },
  { label: 'Let it go, back to the workshop', act: letGo, for: ['gone'] },
]
const choices = computed(() => CHOICES.filter((c) => c.for.includes(store.state)))

async function choose({ act }: Choice) {
  busy.value = true
  trouble.value = ''
  await saying(act, (text) => {
    trouble.value = text
  })
  busy.value = false
}
</script>

<template>
  <span class="note" :class="store.state" role="status" :title="store.says || undefined">{{ words }}</span>
  <NuxtLink v-if="store.state === 'full'" class="room" to="/settings#keeps">Make room</NuxtLink>
  <VDialog
    :model-value="wantsChoice(store.state)"
    persistent
    max-width="520"
    role="alertdialog"
    :aria-label="TITLES[store.state]"
  >
    <div class="sheet choice">
      <h2>{{ TITLES[store.state] }}</h2>
      <p>{{ store.says }}</p>
      <p class="soft">{{ STANDS[store.state] }}</p>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <button
        v-for="(c, k) in choices"
        :key="c.label"
        class="button"
        :class="{ main: k === 0 }"
        type="button"
        :disabled="busy"
        @click="choose(c)"
      >
        {{ c.label }}
      </button>
    </div>
  </VDialog>
</template>

<style scoped>
.note {
  font-size: 13.5px;
  color: var(--soft);
}
.note:not(.saved, .saving) {
  color: var(--marigold);
  font-weight: 600;
}
.room {
  font-size: 13.5px;
  margin-left: 0.6em;
}
.choice {
  display: grid;
  gap: 14px;
  box-shadow: var(--shadow);
}
.trouble {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 10px 14px;
  border-radius: var(--round-in);
}
</style>
