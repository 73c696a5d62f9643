<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { anyAnswer } from '#core/contract/answer'
import { createdAnswer, piecesAnswer, type Listing } from '#core/contract/piece'
import { makingsAnswer, type MakingListing } from '#core/contract/making'
import { requireSpec } from '#core/bead/spec'
import { readPieceFile } from '#core/format/piece-file'
import { pieceToBody } from '#core/piece/codec'
import { byMaking } from '#core/technique/making'
import { requireTechnique } from '#core/technique/registry'
import { acrossWords } from '#core/technique/technique'
import { showNumber } from '#core/units/length'
import { feelShort, fitsWell } from '#core/fit/feel'
import { fitKindOf } from '#core/wear/kind'
import { api, ApiError, reach } from '../composables/api'
import { momentWords } from '../composables/days'
import { saying } from '../composables/saying'
import { useDayOrEvening } from '../composables/theme'
import { useLengths } from '../composables/lengths'
import { useOutbox } from '../stores/outbox'
import WorkshopHead from '../components/WorkshopHead.vue'
import WelcomeBand from '../components/WelcomeBand.vue'

useHead({ title: 'Workshop · Weben' })
const { length } = useLengths()
const theme = useDayOrEvening()
const pieces = ref<Listing[] | null>(null)
/** What is on the bench, the last worked on first. */
const makings = ref<readonly MakingListing[]>([])
const onBench = computed(() => makings.value.filter((m) => m.status === 'on the bench'))
const making = (piece: string) => makings.value.find((m) => m.piece === piece && m.status !== 'planned')
const nameOf = (piece: string) => pieces.value?.find((p) => p.id === piece)?.name ?? 'A piece'
const outbox = useOutbox()
/** What a person tried and could not; and why the list is not there, which goes away by itself. */
const problem = ref('')
const unopened = ref('')
const removed = ref<Listing | null>(null)
const file = ref<HTMLInputElement>()

async function load() {
  try {
    pieces.value = (await api(piecesAnswer, 'piece')).pieces
    makings.value = (await api(makingsAnswer, 'making')).makings
    unopened.value = ''
    await outbox.count()
  } catch (error) {
    unopened.value =
      error instanceof ApiError ? error.says : 'The workshop could not be opened. Try again in a moment.'
  }
}
onMounted(load)
// The server is back, or what waited has been sent: the list is true again.
watch([() => reach.away, () => reach.signedOut, () => outbox.waiting.size], () => {
  if (!reach.away && !reach.signedOut) void load()
})

async function read(event: Event) {
  problem.value = ''
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (!chosen) return
  const piece = readPieceFile(await chosen.text())
  if (!piece.ok) {
    problem.value = `${chosen.name}: ${piece.problems
      .slice(0, 4)
      .map((p) => p.says)
      .join(' ')}`
    return
  }
  try {
    const { id } = await api(createdAnswer, 'piece', { method: 'POST', body: pieceToBody(piece.value) })
    await navigateTo(`/piece/${id}/mat`)
  } catch (error) {
    problem.value = error instanceof ApiError ? error.says : 'The file could not be saved. Try again in a moment.'
  }
}
/** After a piece is put away the focus goes to the one that took its place. */
async function focusNear(at: number) {
  await nextTick()
  const names = document.querySelectorAll<HTMLElement>('.pieces .open, .large')
  names[Math.min(at, names.length - 1)]?.focus()
}
async function remove(piece: Listing) {
  const at = shownOrder().indexOf(piece)
  await saying(
    async () => {
      await api(anyAnswer, `piece/${piece.id}`, { method: 'DELETE' })
      removed.value = piece
      await load()
    },
    (text) => {
      problem.value = text
    },
  )
  await focusNear(at)
}
async function putBack() {
  const back = removed.value
  removed.value = null
  await saying(
    async () => {
      if (back) await api(anyAnswer, `piece/${back.id}/restore`, { method: 'POST', body: {} })
      await load()
    },
    (text) => {
      problem.value = text
    },
  )
  if (back) await focusNear(shownOrder().findIndex((p) => p.id === back.id))
}
const fitOfListing = ({ kind, feel, bodyMm, finishedMm }: Listing['summary']) =>
  `${fitKindOf(kind).bend === 'straight' ? `${length(finishedMm)} long` : `for ${length(bodyMm)}`}, ` +
  `${feelShort(feel, kind)}`
const groups = computed(() => byMaking(pieces.value ?? [], (p) => p.summary.technique))
const shownOrder = () => groups.value.flatMap((g) => g.things)
const empty = computed(() => pieces.value?.length === 0)
</script>

<template>
  <div>
    <WorkshopHead title="Workshop">
      <input
        ref="file"
        type="file"
        accept=".json,application/json"
        class="hidden"
        aria-label="Piece file"
        tabindex="-1"
        @change="read"
      />
      <button type="button" class="button" @click="file?.click()">Open a piece file</button>
      <NuxtLink to="/start" class="button main">Start a piece</NuxtLink>
    </WorkshopHead>
    <main class="page">
      <nav class="rooms" aria-label="Rooms of the workshop">
        <NuxtLink to="/box">Box</NuxtLink><NuxtLink to="/shop">Shopping</NuxtLink
        ><NuxtLink to="/ready">Ready by</NuxtLink><NuxtLink to="/made">Made</NuxtLink
        ><NuxtLink to="/leftovers">Leftovers</NuxtLink><NuxtLink to="/people">People</NuxtLink
        ><NuxtLink to="/reference">Reference</NuxtLink><NuxtLink to="/settings">Settings</NuxtLink
        ><NuxtLink to="/away">Put-away pieces</NuxtLink>
      </nav>
      <p v-for="says in [problem, unopened].filter(Boolean)" :key="says" class="problem" role="alert">{{ says }}</p>
      <section v-if="empty" class="first">
        <div class="band" aria-hidden="true"><WelcomeBand /></div>
        <div class="invite">
          <h2>Your first bracelet</h2>
          <p>
            Measure a wrist, choose a stitch and a bead. Weben lays out a band that closes, counts every bead and tells
            you what to buy. It takes about five minutes.
          </p>
          <NuxtLink to="/start" class="button main large">Start a piece</NuxtLink>
        </div>
      </section>
      <section v-if="onBench.length" class="bench" aria-labelledby="on-the-bench">
        <h2 id="on-the-bench" class="made">On the bench</h2>
        <ul>
          <li v-for="m in onBench.slice(0, 6)" :key="m.id">
            <NuxtLink :to="`/piece/${m.piece}/bench`"
              ><b>{{ nameOf(m.piece) }}</b
              ><span class="bar" aria-hidden="true"
                ><span :style="{ width: `${m.of > 0 ? (100 * m.beads) / m.of : 0}%` }" /></span
              ><span class="quiet"
                >last time you stopped<template v-if="m.says"> at {{ m.says.toLowerCase() }}</template
                >, {{ momentWords(m.at) }}</span
              ></NuxtLink
            >
          </li>
        </ul>
      </section>
      <template v-for="g in empty ? [] : groups" :key="g.making.id">
        <h2 v-if="groups.length > 1" :id="`made-${g.making.id}`" class="made">
          {{ g.making.title }} <span class="quiet">{{ g.things.length }}</span>
        </h2>
        <ul class="pieces" :aria-labelledby="groups.length > 1 ? `made-${g.making.id}` : undefined">
          <li v-for="p in g.things" :key="p.id">
            <NuxtLink :to="`/piece/${p.id}/mat`" class="open">
              <img
                :src="`/api/piece/${p.id}/picture/${p.revision}?ground=${theme}&of=${p.head.slice(0, 8)}`"
                alt=""
                loading="lazy"
                width="560"
                height="150"
              />
              <span class="name">{{ p.name }}</span>
            </NuxtLink>
            <p class="facts">
              <span v-if="p.summary.beads > 0 || requireTechnique(p.summary.technique).material.counted"
                ><b class="figure">{{ showNumber(p.summary.beads) }}</b> beads</span
              ><span v-else
                ><b class="figure">{{ p.summary.columns }}</b> cords</span
              ><span class="fit" :class="{ wants: !fitsWell(p.summary.feel) }">{{ fitOfListing(p.summary) }}</span>
            </p>
            <p v-if="making(p.id)" class="at-bench">
              <NuxtLink :to="`/piece/${p.id}/bench`"
                >{{ making(p.id)!.status
                }}<template v-if="making(p.id)!.status === 'on the bench' && making(p.id)!.of > 0"
                  >, {{ Math.floor((100 * making(p.id)!.beads) / making(p.id)!.of) }} %</template
                ></NuxtLink
              >
            </p>
            <p v-if="outbox.waiting.get(p.id)" class="unsent">
              {{ outbox.waiting.get(p.id) }} {{ outbox.waiting.get(p.id) === 1 ? 'edit is' : 'edits are' }} in this
              browser, not yet sent
            </p>
            <p class="quiet row">
              {{ requireTechnique(p.summary.technique).name.toLowerCase() }} · {{ requireSpec(p.summary.spec).name }} ·
              {{ acrossWords(requireTechnique(p.summary.technique), p.summary.columns)
              }}<button type="button" class="link" :aria-label="`Put ${p.name} away`" @click="remove(p)">
                Put away
              </button>
            </p>
          </li>
        </ul>
      </template>
      <p v-if="!pieces && !unopened" class="soft" role="status">Opening the workshop…</p>
    </main>
    <VSnackbar
      :model-value="removed !== null"
      :timeout="10000"
      @update:model-value="
        (v) => {
          if (!v) removed = null
        }
      "
    >
      {{ removed?.name }} was put away.
      <template #actions><button type="button" class="undo" @click="putBack">Bring it back</button></template>
    </VSnackbar>
  </div>
</template>

<style scoped>
.rooms {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
}
.rooms a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.page {
  max-width: 1280px;
  margin: 0 auto;
  padding: 12px 28px 48px;
}
.problem {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 12px 16px;
  border-radius: var(--round-in);
  margin-bottom: 16px;
}
.bench ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
  gap: 12px;
}
.bench a {
  display: grid;
  gap: 8px;
  padding: 14px 16px;
  border-radius: var(--round-in);
  background: var(--paper);
  color: var(--ink);
  text-decoration: none;
}
.bench a:hover b {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.bench .bar {
  height: 8px;
  border-radius: 4px;
  background: var(--mat);
  overflow: hidden;
}
.bench .bar span {
  display: block;
  height: 100%;
  background: var(--verdigris);
}
.at-bench a {
  display: inline-flex;
  align-items: center;
  min-height: 28px;
  color: var(--verdigris);
  font-weight: 700;
}
.made {
  display: flex;
  gap: 10px;
  align-items: baseline;
  margin: 30px 0 14px;
  font-size: 22px;
}
.pieces {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 380px), 1fr));
  gap: 28px 24px;
}
.pieces li {
  display: grid;
  gap: 4px;
  align-content: start;
}
.open {
  display: grid;
  gap: 10px;
  color: var(--ink);
  text-decoration: none;
  border-radius: var(--round);
}
.open img {
  width: 100%;
  height: 150px;
  object-fit: cover;
  object-position: left center;
  background: var(--mat);
  border-radius: var(--round);
  display: block;
}
.name {
  font: 650 20px/1.2 var(--title);
}
.open:hover .name {
  text-decoration: underline;
  text-decoration-thickness: 2px;
  text-underline-offset: 4px;
}
.facts {
  display: flex;
  gap: 18px;
  align-items: baseline;
}
.facts .figure {
  font-size: 21px;
}
.fit {
  color: var(--verdigris);
  font-weight: 600;
}
.fit.wants {
  color: var(--marigold);
}
.unsent {
  color: var(--marigold);
  font-weight: 600;
}
.row {
  display: flex;
  gap: 14px;
  align-items: center;
}
.row .link {
  margin-left: auto;
  min-height: 32px;
  color: var(--soft);
}
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
.first {
  display: grid;
  gap: 32px;
  grid-template-columns: 1.3fr 1fr;
  align-items: center;
}
.band {
  height: 380px;
  background: var(--mat);
  border-radius: var(--round);
  overflow: hidden;
}
.invite {
  display: grid;
  gap: 18px;
  justify-items: start;
  font-size: 17px;
}
.invite h2 {
  font-size: 32px;
}
.large {
  min-height: 56px;
  padding: 0 30px;
  font-size: 17px;
}
@media (width <= 760px) {
  .page {
    padding: 8px 14px 32px;
  }
  .first {
    grid-template-columns: 1fr;
    gap: 20px;
  }
  .band {
    height: 150px;
  }
}
</style>
