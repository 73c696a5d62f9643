<script setup lang="ts">
import { acrossWords } from '#core/technique/technique'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { columnsOf, techniqueOf, beadOf } from '#core/piece/piece'
import { setStep } from '#core/piece/edit'
import { ApiError } from '../../composables/api'
import { usePiece } from '../../stores/piece'
import PieceThread from '../../components/PieceThread.vue'
import SaveNote from '../../components/SaveNote.vue'

const store = usePiece()
const route = useRoute()
const id = computed(() => String(route.params.id))
const problem = ref('')
const renaming = ref(false)
const name = ref('')

watch(id, async (now) => {
  problem.value = ''
  try {
    await store.open(now)
  }
  catch (error) {
    problem.value = error instanceof ApiError ? error.says : 'This piece could not be opened. Go back to the workshop and try again.'
  }
}, { immediate: true })
onBeforeUnmount(() => { if (store.state === 'saved') store.close() })

const part = computed(() => store.piece?.parts[0])
useHead({ title: () => (store.piece ? `${store.piece.name} · Weben` : 'Weben') })

function rename() {
  if (store.piece && name.value.trim() && name.value.trim() !== store.piece.name) store.commit('Rename', [setStep(store.piece, ['name'], name.value.trim().slice(0, 80))])
  renaming.value = false
}
</script>

<template>
  <div class="frame">
    <header class="head">
      <NuxtLink to="/" class="home" aria-label="Back to the workshop" title="Workshop"><svg viewBox="0 0 24 24" width="26" height="26" aria-hidden="true"><path d="M15 5l-7 7 7 7" fill="none" stroke="currentColor" stroke-width="2.4" stroke-linecap="round" stroke-linejoin="round" /></svg></NuxtLink>
      <div v-if="store.piece && part" class="title">
        <form v-if="renaming" @submit.prevent="rename"><input v-model="name" class="rename" aria-label="Name of the piece" maxlength="80" autofocus @blur="rename" @keydown.esc="renaming = false"></form>
        <h1 v-else><button type="button" class="name" title="Rename" @click="name = store.piece.name; renaming = true">{{ store.piece.name }}</button></h1>
        <p class="quiet line"><span class="what">{{ techniqueOf(part).name.toLowerCase() }} · {{ beadOf(part).name }} · {{ acrossWords(techniqueOf(part), columnsOf(part)) }} · </span><SaveNote /></p>
      </div>
      <PieceThread v-if="store.piece" :id="id" :piece="store.piece" class="way" />
    </header>
    <p v-if="problem" class="sheet trouble" role="alert">{{ problem }} <NuxtLink to="/">Back to the workshop</NuxtLink></p>
    <NuxtPage v-else-if="store.piece" />
    <p v-else class="trouble soft" role="status">Opening…</p>
  </div>
</template>

<style scoped>
.frame { min-height: 100dvh; display: flex; flex-direction: column; }
.head { display: flex; align-items: center; gap: 12px; padding: 8px 20px 6px 12px; }
.home { display: grid; place-items: center; width: 40px; height: 44px; color: var(--soft); text-decoration: none; border-radius: 10px; }
.home:hover { color: var(--ink); background: var(--paper); }
.title { min-width: 0; flex: 1; }
.title h1 { font-size: 23px; }
.name { all: unset; cursor: text; display: block; max-width: 100%; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.name:focus-visible { outline: 2px solid var(--madder); border-radius: 6px; }
.rename { font: 650 23px/1.15 var(--title); color: var(--ink); background: var(--paper); border: 1.5px solid var(--edge); border-radius: 8px; padding: 0 8px; width: min(100%, 360px); }
.line { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.way { flex: 0 1 520px; }
.trouble { margin: 24px; }
@media (width <= 720px) {
  .frame { padding-bottom: 66px; }
  .head { padding: 8px 12px 6px 6px; gap: 4px; }
  .title h1 { font-size: 20px; }
  .what { display: none; }
  .way { flex: none; }
}
@media print { .head { display: none; } .frame { padding: 0; display: block; } }
</style>
