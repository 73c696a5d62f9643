<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { requireSpec } from '#core/bead/spec'
import { readPieceFile } from '#core/format/piece-file'
import { pieceToBody } from '#core/piece/codec'
import { requireTechnique } from '#core/technique/registry'
import { acrossWords } from '#core/technique/technique'
import { showNumber } from '#core/units/length'
import { feelShort, fitsWell, type Feel } from '#core/fit/feel'
import { fitKindOf, type FitKind } from '#core/fit/kind'
import { api, ApiError } from '../composables/api'
import { useDayOrEvening } from '../composables/theme'
import { useLengths } from '../composables/lengths'
import WorkshopHead from '../components/WorkshopHead.vue'
import WelcomeBand from '../components/WelcomeBand.vue'

interface Listing { id: string, name: string, revision: number, updatedAt: string, summary: { technique: string, spec: string, columns: number, rows: number, beads: number, lengthMm: number, kind: FitKind, finishedMm: number, bodyMm: number, feel: Feel } }

useHead({ title: 'Workshop · Weben' })
const { length } = useLengths()
const theme = useDayOrEvening()
const pieces = ref<Listing[] | null>(null)
const problem = ref('')
const removed = ref<Listing | null>(null)
const file = ref<HTMLInputElement>()

async function load() {
  try {
    pieces.value = (await api<{ pieces: Listing[] }>('piece')).pieces
  }
  catch (error) {
    problem.value = error instanceof ApiError ? error.says : 'The workshop could not be opened. Try again in a moment.'
  }
}
onMounted(load)

async function read(event: Event) {
  problem.value = ''
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (!chosen) return
  const piece = readPieceFile(await chosen.text())
  if (!piece.ok) { problem.value = `${chosen.name}: ${piece.problems.slice(0, 4).map(p => p.says).join(' ')}`; return }
  try {
    const { id } = await api<{ id: string }>('piece', { method: 'POST', body: pieceToBody(piece.value) })
    await navigateTo(`/piece/${id}/mat`)
  }
  catch (error) { problem.value = error instanceof ApiError ? error.says : 'The file could not be saved. Try again in a moment.' }
}
async function remove(piece: Listing) {
  await api(`piece/${piece.id}`, { method: 'DELETE' })
  removed.value = piece
  await load()
}
async function putBack() {
  if (removed.value) await api(`piece/${removed.value.id}/restore`, { method: 'POST', body: {} })
  removed.value = null
  await load()
}
const fitOfListing = ({ kind, feel, bodyMm, finishedMm }: Listing['summary']) => `${fitKindOf(kind).bend === 'straight' ? `${length(finishedMm)} long` : `for ${length(bodyMm)}`}, ${feelShort(feel, kind)}`
const empty = computed(() => pieces.value?.length === 0)
</script>

<template>
  <div>
    <WorkshopHead title="Workshop">
      <input ref="file" type="file" accept=".json,application/json" class="hidden" aria-label="Piece file" tabindex="-1" @change="read">
      <button type="button" class="button" @click="file?.click()">Open a piece file</button>
      <NuxtLink to="/start" class="button main">Start a piece</NuxtLink>
    </WorkshopHead>
    <main class="page">
      <nav class="rooms" aria-label="Rooms of the workshop"><NuxtLink to="/box">Box</NuxtLink><NuxtLink to="/shop">Shopping</NuxtLink><NuxtLink to="/leftovers">Leftovers</NuxtLink><NuxtLink to="/people">People</NuxtLink><NuxtLink to="/reference">Reference</NuxtLink><NuxtLink to="/settings">Settings</NuxtLink></nav>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <section v-if="empty" class="first">
        <div class="band" aria-hidden="true"><WelcomeBand /></div>
        <div class="invite">
          <h2>Your first bracelet</h2>
          <p>Measure a wrist, choose a stitch and a bead. Weben lays out a band that closes, counts every bead and tells you what to buy. It takes about five minutes.</p>
          <NuxtLink to="/start" class="button main large">Start a piece</NuxtLink>
        </div>
      </section>
      <ul v-else-if="pieces" class="pieces">
        <li v-for="p in pieces" :key="p.id">
          <NuxtLink :to="`/piece/${p.id}/mat`" class="open">
            <img :src="`/api/piece/${p.id}/picture?ground=${theme}&revision=${p.revision}`" alt="" loading="lazy" width="560" height="150">
            <span class="name">{{ p.name }}</span>
          </NuxtLink>
          <p class="facts"><span v-if="p.summary.beads > 0 || requireTechnique(p.summary.technique).material !== 'cord'"><b class="figure">{{ showNumber(p.summary.beads) }}</b> beads</span><span v-else><b class="figure">{{ p.summary.columns }}</b> cords</span><span class="fit" :class="{ wants: !fitsWell(p.summary.feel) }">{{ fitOfListing(p.summary) }}</span></p>
          <p class="quiet row">{{ requireTechnique(p.summary.technique).name.toLowerCase() }} · {{ requireSpec(p.summary.spec).name }} · {{ acrossWords(requireTechnique(p.summary.technique), p.summary.columns) }}<button type="button" class="link" :aria-label="`Put ${p.name} away`" @click="remove(p)">Put away</button></p>
        </li>
      </ul>
      <p v-else-if="!problem" class="soft" role="status">Opening the workshop…</p>
    </main>
    <VSnackbar :model-value="removed !== null" :timeout="10000" @update:model-value="v => { if (!v) removed = null }">
      {{ removed?.name }} was put away. <template #actions><button type="button" class="undo" @click="putBack">Bring it back</button></template>
    </VSnackbar>
  </div>
</template>

<style scoped>
.rooms { display: flex; flex-wrap: wrap; gap: 4px 22px; }
.rooms a { display: inline-flex; align-items: center; min-height: 44px; }
.page { max-width: 1280px; margin: 0 auto; padding: 12px 28px 48px; }
.problem { background: var(--marigold-wash); color: var(--marigold); padding: 12px 16px; border-radius: var(--round-in); margin-bottom: 16px; }
.pieces { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(min(100%, 380px), 1fr)); gap: 28px 24px; }
.pieces li { display: grid; gap: 4px; align-content: start; }
.open { display: grid; gap: 10px; color: var(--ink); text-decoration: none; border-radius: var(--round); }
.open img { width: 100%; height: 150px; object-fit: cover; object-position: left center; background: var(--mat); border-radius: var(--round); display: block; }
.name { font: 650 20px/1.2 var(--title); }
.open:hover .name { text-decoration: underline; text-decoration-thickness: 2px; text-underline-offset: 4px; }
.facts { display: flex; gap: 18px; align-items: baseline; }
.facts .figure { font-size: 21px; }
.fit { color: var(--verdigris); font-weight: 600; }
.fit.wants { color: var(--marigold); }
.row { display: flex; gap: 14px; align-items: center; }
.row .link { margin-left: auto; min-height: 32px; color: var(--soft); }
.undo { all: unset; cursor: pointer; font-weight: 700; text-decoration: underline; padding: 12px; }
.undo:focus-visible { outline: 2px solid currentColor; border-radius: 6px; }
.first { display: grid; gap: 32px; grid-template-columns: 1.3fr 1fr; align-items: center; }
.band { height: 380px; background: var(--mat); border-radius: var(--round); overflow: hidden; }
.invite { display: grid; gap: 18px; justify-items: start; font-size: 17px; }
.invite h2 { font-size: 32px; }
.large { min-height: 56px; padding: 0 30px; font-size: 17px; }
@media (width <= 760px) { .page { padding: 8px 14px 32px; } .first { grid-template-columns: 1fr; gap: 20px; } .band { height: 150px; } }
</style>
