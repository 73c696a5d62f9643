<script setup lang="ts">
import { acrossWords } from '#core/technique/technique'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { shortened } from '#core/units/text'
import { beadOf, columnsOf, fittedPart, techniqueOf } from '#core/piece/piece'
import { setStep } from '#core/piece/edit'
import { ApiError, reach } from '../../composables/api'
import { belongsElsewhere, isCommand } from '../../composables/keys'
import { usePiece } from '../../stores/piece'
import PieceThread from '../../components/PieceThread.vue'
import SaveNote from '../../components/SaveNote.vue'

const store = usePiece()
const route = useRoute()
const id = computed(() => String(route.params.id))
const problem = ref('')
const renaming = ref(false)
const name = ref('')
const nameField = ref<HTMLInputElement>()
const toast = ref('')

async function open() {
  problem.value = ''
  try {
    await store.open(id.value)
  } catch (error) {
    problem.value =
      error instanceof ApiError ? error.says : 'This piece could not be opened. Go back to the workshop and try again.'
  }
}
watch(id, open, { immediate: true })
// The server is back, or the person signed in again.
watch([() => reach.away, () => reach.signedOut], () => {
  if (!reach.away && !reach.signedOut && !store.piece) void open()
})
const own = id.value
onBeforeUnmount(() => store.leave(own))

const part = computed(() => store.piece && fittedPart(store.piece))
useHead({ title: () => (store.piece ? `${store.piece.name} · Weben` : 'Weben') })

// ---- undo and redo, on every stage
function back(way: 'undo' | 'redo') {
  if (way === 'undo' ? !store.canUndo : !store.canRedo) return
  const trouble = way === 'undo' ? store.undo() : store.redo()
  toast.value = trouble ?? store.did
}
function keys(event: KeyboardEvent) {
  const key = event.key.toLowerCase()
  if (!isCommand(event) || (key !== 'z' && key !== 'y') || belongsElsewhere(event)) return
  event.preventDefault()
  back(key === 'y' || event.shiftKey ? 'redo' : 'undo')
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
const turns = computed(
  () =>
    [
      {
        way: 'undo',
        name: 'Undo',
        key: 'Ctrl Z',
        label: store.canUndo,
        path: 'M9 6L4 11l5 5M4.5 11H14a5.5 5.5 0 0 1 0 11h-3',
      },
      {
        way: 'redo',
        name: 'Redo',
        key: 'Ctrl Y',
        label: store.canRedo,
        path: 'M15 6l5 5-5 5M19.5 11H10a5.5 5.5 0 0 0 0 11h3',
      },
    ] as const,
)

async function beginRename() {
  name.value = store.piece!.name
  renaming.value = true
  await nextTick()
  nameField.value?.focus()
  nameField.value?.select()
}
function rename() {
  if (store.piece && name.value.trim() && name.value.trim() !== store.piece.name)
    store.commit('Rename', [setStep(store.piece, ['name'], shortened(name.value.trim(), 80))])
  renaming.value = false
}
</script>

<template>
  <div class="frame">
    <header class="head">
      <NuxtLink to="/" class="home" aria-label="Back to the workshop" title="Workshop"
        ><svg viewBox="0 0 24 24" width="26" height="26" aria-hidden="true">
          <path
            d="M15 5l-7 7 7 7"
            fill="none"
            stroke="currentColor"
            stroke-width="2.4"
            stroke-linecap="round"
            stroke-linejoin="round"
          /></svg
      ></NuxtLink>
      <div v-if="store.piece && part" class="title">
        <form v-if="renaming" @submit.prevent="rename">
          <input
            ref="nameField"
            v-model="name"
            class="rename"
            aria-label="Name of the piece"
            maxlength="80"
            @blur="rename"
            @keydown.esc="renaming = false"
          />
        </form>
        <h1 v-else>
          <button type="button" class="name" title="Rename" @click="beginRename">{{ store.piece.name }}</button>
        </h1>
        <p class="quiet line">
          <span class="what"
            >{{ techniqueOf(part).name.toLowerCase() }} · {{ beadOf(part).name }} ·
            {{ acrossWords(techniqueOf(part), columnsOf(part)) }} · </span
          ><SaveNote />
        </p>
      </div>
      <div v-if="store.piece" class="turns" role="toolbar" aria-label="Undo and redo">
        <button
          v-for="t in turns"
          :key="t.way"
          type="button"
          class="turn"
          :aria-label="t.name"
          :aria-disabled="!t.label"
          :title="t.label ? `${t.name}: ${t.label} (${t.key})` : `Nothing to ${t.way}`"
          @click="back(t.way)"
        >
          <svg viewBox="0 0 24 24" width="22" height="22" aria-hidden="true">
            <path
              :d="t.path"
              fill="none"
              stroke="currentColor"
              stroke-width="2"
              stroke-linecap="round"
              stroke-linejoin="round"
            />
          </svg>
        </button>
      </div>
      <PieceThread v-if="store.piece" :id="id" :piece="store.piece" class="way" />
    </header>
    <p v-if="problem" class="sheet trouble" role="alert">
      {{ problem }} <NuxtLink to="/">Back to the workshop</NuxtLink>
    </p>
    <NuxtPage v-else-if="store.piece" />
    <p v-else class="trouble soft" role="status">Opening…</p>
    <VSnackbar
      class="passing"
      :model-value="toast !== ''"
      :timeout="2500"
      location="bottom"
      @update:model-value="
        (v) => {
          if (!v) toast = ''
        }
      "
      >{{ toast }}</VSnackbar
    >
  </div>
</template>

<style scoped>
.frame {
  min-height: 100dvh;
  display: flex;
  flex-direction: column;
}
.head {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 20px 6px 12px;
}
.home {
  display: grid;
  place-items: center;
  width: 40px;
  height: 44px;
  color: var(--soft);
  text-decoration: none;
  border-radius: 10px;
}
.home:hover {
  color: var(--ink);
  background: var(--paper);
}
.title {
  min-width: 0;
  flex: 1;
}
.title h1 {
  font-size: 23px;
}
.name {
  all: unset;
  cursor: text;
  display: block;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name:focus-visible {
  outline: 2px solid var(--madder);
  border-radius: 6px;
}
.rename {
  font: 650 23px/1.15 var(--title);
  color: var(--ink);
  background: var(--paper);
  border: 1.5px solid var(--edge);
  border-radius: 8px;
  padding: 0 8px;
  width: min(100%, 360px);
}
.line {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.way {
  flex: 0 1 520px;
}
.turns {
  display: flex;
}
.turn {
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  border: 0;
  border-radius: 10px;
  background: none;
  color: var(--ink);
  cursor: pointer;
}
.turn:hover {
  background: var(--paper);
}
.turn[aria-disabled='true'] {
  color: var(--soft);
  opacity: 0.45;
  cursor: default;
}
.trouble {
  margin: 24px;
}
@media (width <= 720px) {
  .frame {
    padding-bottom: 66px;
  }
  .head {
    padding: 8px 12px 6px 6px;
    gap: 4px;
  }
  .title h1 {
    font-size: 20px;
  }
  .what {
    display: none;
  }
  .way {
    flex: none;
  }
}
@media print {
  .head {
    display: none;
  }
  .frame {
    padding: 0;
    display: block;
  }
}
</style>
