<script setup lang="ts">
import { useSwipe } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import {
  agendaOf,
  backward,
  beadsAt,
  bitesOf,
  DONE,
  goneTo,
  markOf,
  onward,
  placeOf,
  taskAt,
  type CopyOrder,
  type Mark,
} from '#core/making/agenda'
import { nextJoin } from '#core/making/join'
import { leftOf } from '#core/making/left'
import { pauseOf, spokenBite, spokenTask } from '#core/making/say'
import { discOf } from '#core/piece/nature'
import { rowTitle } from '#core/tally/words'
import { showNumber } from '#core/units/length'
import BenchBegin from '../../../components/BenchBegin.vue'
import BenchMove from '../../../components/BenchMove.vue'
import BenchPicture from '../../../components/BenchPicture.vue'
import BenchStep from '../../../components/BenchStep.vue'
import { useAloud, useAwake, useBenchWays, useClick } from '../../../composables/bench'
import { momentWords, spanWords } from '../../../composables/days'
import { saying } from '../../../composables/saying'
import { useBench } from '../../../stores/bench'
import { usePiece } from '../../../stores/piece'

const store = usePiece()
const bench = useBench()
const id = useRoute().params.id as string
const piece = computed(() => store.piece!)
const says = ref('')
const busy = ref(false)
const ways = useBenchWays()
onMounted(() => bench.open(id))
onBeforeUnmount(() => bench.close())

const making = computed(() => bench.shown)
const agenda = computed(() => (making.value ? agendaOf(piece.value, making.value.head) : null))
const mark = computed<Mark>(() => (agenda.value && making.value ? markOf(agenda.value, making.value.state) : DONE))
const place = computed(() => (agenda.value ? placeOf(agenda.value, mark.value) : { index: 0, bite: 0 }))
const task = computed(() => agenda.value && taskAt(agenda.value, place.value.index))
const next = computed(() => agenda.value && taskAt(agenda.value, place.value.index + 1))
const bites = computed(() => (task.value ? bitesOf(task.value) : []))
const byMove = computed(() => (task.value ? discOf(task.value.part) !== null : false))
const stride = computed(() => (byMove.value ? 'bite' : ways.value.stride))
const left = computed(() =>
  agenda.value && making.value
    ? leftOf(agenda.value, place.value, making.value.state.presses, piece.value.cost)
    : null,
)
const share = computed(() => (left.value && left.value.of > 0 ? left.value.done / left.value.of : 0))
/** The last part that was worked on, to be shown when all is done. */
const shownPart = computed(() => task.value?.part ?? piece.value.parts.at(-1)!)
const pause = computed(() => (task.value ? pauseOf(task.value, bites.value, place.value.bite) : ''))

/** Where the thread in hand ends. */
const join = computed(() =>
  agenda.value && task.value && making.value ? nextJoin(agenda.value, task.value, making.value.state.joined) : null,
)
const joinedHere = computed(() => task.value !== null && (making.value?.state.joined.has(task.value.key) ?? false))
const setJoined = (joined: boolean) => {
  if (task.value) bench.add({ do: 'joined', task: task.value.key, joined })
}

function press(to: Mark) {
  const a = agenda.value
  if (!a || !making.value) return
  if (to.task === mark.value.task && to.bite === mark.value.bite) return
  const at = placeOf(a, to)
  const there = taskAt(a, at.index)
  const title = there ? rowTitle(there.words) : 'All laid'
  bench.add({ do: 'at', ...to, says: title, beads: beadsAt(a, at), of: a.beads })
  click()
}
const on = () => {
  if (agenda.value && task.value) press(onward(agenda.value, mark.value, stride.value))
}
const back = () => {
  if (agenda.value) press(backward(agenda.value, mark.value, stride.value))
}
/** To a step by its number, from 1, as it is counted here. */
const goTo = (number: number) => {
  if (agenda.value && Number.isInteger(number)) press(goneTo(agenda.value, number - 1))
}

/** Does what may fail at the server, and says so if it does. */
async function told(work: () => Promise<void>) {
  busy.value = true
  says.value = ''
  await saying(work, (text) => {
    says.value = text
  })
  busy.value = false
}
const begin = (copies: number, copyOrder: CopyOrder) =>
  told(() => bench.begin(store.revision, { copies, copyOrder, name: '' }))
const aside = () => told(bench.layAside)
const made = () => bench.add({ do: 'state', state: 'made' })

// ---- hands: keys, pedal, press, swipe
const learning = ref(false)
function keys(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (learning.value) {
    event.preventDefault()
    learning.value = false
    if (event.key !== 'Escape') ways.value.pedal = event.key
    return
  }
  const target = event.target as HTMLElement
  if (target.closest('input, textarea, select, summary, [role=combobox], [role=dialog], .v-overlay')) return
  // Space and Enter on another button are that button's; the pedal is the bench's wherever one is.
  const pedal = ways.value.pedal !== '' && event.key === ways.value.pedal
  const other = target.closest(event.key === ' ' ? 'button:not(.on)' : 'button:not(.on), a') !== null
  if (pedal || (!other && [' ', 'Enter'].includes(event.key)) || ['ArrowRight', 'PageDown'].includes(event.key)) {
    event.preventDefault()
    if (!event.repeat) on()
  } else if (['Backspace', 'ArrowLeft', 'PageUp'].includes(event.key)) {
    event.preventDefault()
    back()
  }
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
const hands = useTemplateRef<HTMLElement>('hands')
// The work comes into hand: keys are the bench’s from the first on.
watch(
  () => bench.atHand,
  async (now) => {
    if (!now) return
    await nextTick()
    hands.value?.querySelector<HTMLElement>('.on')?.focus({ preventScroll: true })
  },
)
let swiped = 0
useSwipe(hands, {
  threshold: 40,
  onSwipeEnd(_, direction) {
    if (direction !== 'left' && direction !== 'right') return
    swiped = performance.now()
    if (direction === 'left') on()
    else back()
  },
})
/** A finger that swiped has not pressed as well. */
const pressed = () => {
  if (performance.now() - swiped > 400) on()
}

const awake = useAwake()
const click = useClick(() => ways.value.click)
const speech = useAloud(
  () =>
    !task.value
      ? ''
      : stride.value === 'row'
        ? spokenTask(task.value, piece.value.tray)
        : byMove.value
          ? (bites.value[place.value.bite]?.says ?? '')
          : spokenBite(bites.value[place.value.bite] ?? { count: 0, number: 0 }, piece.value.tray),
  () => ways.value.aloud,
  () => ways.value.rate,
)

// ---- notes
const note = ref('')
const notesHere = computed(() => making.value?.state.notes.filter((n) => n.task === mark.value.task) ?? [])
function keepNote() {
  const text = note.value.trim()
  if (!text) return
  bench.add({ do: 'note', task: mark.value.task, text })
  note.value = ''
}
</script>

<template>
  <main class="page">
    <p v-for="text in [bench.problem, says].filter(Boolean)" :key="text" class="warn" role="alert">{{ text }}</p>
    <p v-if="!bench.known" class="soft" role="status">Opening the bench…</p>
    <BenchBegin
      v-else-if="!making && !bench.problem"
      :piece="piece"
      :makings="bench.makings"
      :busy="busy"
      @begin="begin"
      @take="(which) => told(() => bench.take(which))"
      @remove="(which) => told(() => bench.remove(which))"
    />
    <div v-else-if="making && agenda && left" class="bench" :class="{ moves: byMove }">
      <h2 class="hidden">Bench</h2>
      <section class="now" aria-label="The step in hand" aria-live="polite">
        <BenchMove v-if="task && byMove" :piece="piece" :task="task" :bite="place.bite" turning />
        <BenchStep
          v-else-if="task"
          :piece="piece"
          :task="task"
          :bites="bites"
          :bite="place.bite"
          :running="stride === 'bite'"
          :next="next"
          :copies="making.head.copies"
          :before="join?.now ? 'Join new thread before this row' : ''"
        />
        <div v-else class="end">
          <h3>All beads are laid</h3>
          <template v-if="making.state.status === 'made'"
            ><p>It is made. Its record stays with the piece.</p>
            <button type="button" class="button main" @click="aside">Clear the bench</button></template
          ><button v-else type="button" class="button main" @click="made">It is made</button>
        </div>
      </section>
      <div ref="hands" class="hands">
        <button type="button" class="back" :disabled="place.index === 0 && place.bite === 0" @click="back">
          <span aria-hidden="true">←</span> Back
        </button>
        <button type="button" class="on" :disabled="!task" @click="pressed">
          <span class="big">{{ task ? 'Done, next' : 'Finished' }}</span>
          <span class="small">press here, Space, or a pedal</span>
        </button>
      </div>
      <aside class="side">
        <BenchPicture :part="shownPart" :task="task" :bites="place.bite" :tray="piece.tray" class="picture" />
        <div class="left">
          <div class="bar" role="img" :aria-label="`${Math.round(share * 100)} percent of the beads are laid`">
            <span :style="{ width: `${share * 100}%` }" />
          </div>
          <p class="facts">
            <span
              ><b class="figure" data-test="done">{{ showNumber(left.done) }}</b> of
              {{ showNumber(left.of) }} beads</span
            >
            <span
              ><b class="figure">{{ showNumber(left.tasks) }}</b> steps left</span
            >
            <span v-if="task"
              ><b class="figure">{{ spanWords(left.hours) }}</b>
              {{ left.pace ? `at your pace, ${Math.round(left.pace)} beads an hour` : 'by the plan’s pace' }}</span
            >
          </p>
        </div>
        <p v-if="task" class="pause" data-test="pause"><b>If you stop here:</b> {{ pause }}</p>
        <p v-if="join || joinedHere" class="join" data-test="join">
          <template v-if="joinedHere">Thread was joined before this row. </template
          ><template v-if="join?.now">The thread in hand ends here: join before this row.</template
          ><template v-else-if="join"
            >Join thread before {{ join.before }}, {{ join.rows }} {{ join.rows === 1 ? 'row' : 'rows' }} on.</template
          >
          <button type="button" class="link" @click="setJoined(!joinedHere)">
            {{ joinedHere ? 'Not joined after all' : 'I joined here' }}
          </button>
        </p>
        <p v-if="making.state.at" class="quiet" data-test="last">
          Last press {{ momentWords(making.state.at)
          }}<template v-if="making.waiting"
            >; {{ making.waiting }} {{ making.waiting === 1 ? 'press waits' : 'presses wait' }} in this
            browser</template
          >.
        </p>
        <p v-if="making.says" class="warn" role="status">{{ making.says }}</p>
        <ul v-if="notesHere.length" class="notes">
          <li v-for="n in notesHere" :key="n.id">{{ n.text }}</li>
        </ul>
        <details>
          <summary>Note, place, ways to work</summary>
          <form class="note" @submit.prevent="keepNote">
            <label for="bench-note">A note at this step</label>
            <textarea id="bench-note" v-model="note" rows="2" maxlength="2000" />
            <button type="submit" class="button" :disabled="!note.trim()">Keep the note</button>
          </form>
          <label class="field"
            >Go to step
            <input
              type="number"
              min="1"
              :max="agenda.count"
              :value="Math.min(agenda.count, place.index + 1)"
              @change="(e) => goTo(Number((e.target as HTMLInputElement).value))"
          /></label>
          <label v-if="!byMove" class="field"
            ><input
              type="checkbox"
              :checked="ways.stride === 'bite'"
              @change="(e) => (ways.stride = (e.target as HTMLInputElement).checked ? 'bite' : 'row')"
            />
            run by run within a row</label
          >
          <label v-if="speech.isSupported.value" class="field"
            ><input v-model="ways.aloud" type="checkbox" /> read the words aloud</label
          >
          <label v-if="speech.isSupported.value && ways.aloud" class="field"
            >how fast <input v-model.number="ways.rate" type="range" min="0.6" max="1.6" step="0.1"
          /></label>
          <label class="field"><input v-model="ways.click" type="checkbox" /> a click with each press</label>
          <p class="field">
            <button type="button" class="button" @click="learning = true">
              {{ learning ? 'Press the pedal or key now' : 'Teach a pedal or key' }}</button><template
              v-if="ways.pedal"
              >“{{ ways.pedal === ' ' ? 'Space' : ways.pedal }}” goes on
              <button type="button" class="link" @click="ways.pedal = ''">Forget it</button></template
            >
          </p>
          <p class="quiet">
            {{
              awake.isActive.value
                ? 'The screen stays awake while the bench is open.'
                : 'This browser lets the screen sleep: set a longer time in the device, if it dims.'
            }}
            Space, Enter and → go on; Backspace and ← go back; so does a swipe.
          </p>
          <button type="button" class="link" @click="aside">Lay this making aside</button>
        </details>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.page {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: stretch;
  padding: 10px 24px 20px;
  max-width: 1560px;
  width: 100%;
  margin: 0 auto;
}
.bench {
  display: grid;
  grid-template: 'now side' minmax(0, 1fr) 'hands side' clamp(170px, 34dvh, 300px) / minmax(0, 1.75fr) minmax(
      300px,
      1fr
    );
  gap: 20px 28px;
  min-height: calc(100dvh - 110px);
}
.moves {
  grid-template-columns: minmax(0, 2.6fr) minmax(260px, 1fr);
}
.now {
  grid-area: now;
  padding-top: 8px;
}
.end {
  display: grid;
  gap: 18px;
  justify-items: start;
}
.end h3 {
  font-size: 44px;
}
.hands {
  grid-area: hands;
  display: grid;
  grid-template-columns: minmax(96px, 1fr) 4fr;
  gap: 12px;
  touch-action: pan-y;
}
.hands button {
  border: 0;
  border-radius: var(--round);
  font: 650 20px/1.2 var(--title);
  cursor: pointer;
}
.back {
  background: var(--paper);
  color: var(--ink);
  box-shadow: inset 0 0 0 1.5px var(--edge);
}
.on {
  background: var(--paper);
  color: var(--madder);
  box-shadow: inset 0 0 0 2.5px var(--madder);
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 6px;
}
.on .big {
  font-size: clamp(28px, 3vw, 42px);
}
.on .small {
  font: 500 15px/1.2 var(--text);
  color: var(--soft);
}
.on:active:not(:disabled) {
  background: var(--madder);
  color: var(--madder-ink);
}
.hands button:disabled {
  opacity: 0.45;
  cursor: default;
}
.side {
  grid-area: side;
  display: flex;
  flex-direction: column;
  gap: 14px;
  min-width: 0;
}
.picture {
  flex: 1;
  min-height: 240px;
}
.left {
  display: grid;
  gap: 10px;
}
.bar {
  height: 12px;
  border-radius: 6px;
  background: var(--mat);
  overflow: hidden;
}
.bar span {
  display: block;
  height: 100%;
  background: var(--verdigris);
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
}
.facts .figure {
  font-size: 22px;
}
.join {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  color: var(--verdigris);
}
.pause {
  background: var(--paper);
  border-radius: var(--round-in);
  padding: 10px 14px;
}
.warn {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 10px 14px;
  border-radius: var(--round-in);
  margin-bottom: 10px;
}
.notes {
  margin: 0;
  padding: 10px 14px 10px 30px;
  background: var(--verdigris-wash);
  color: var(--verdigris);
  border-radius: var(--round-in);
}
details {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
summary {
  cursor: pointer;
  color: var(--verdigris);
  min-height: 36px;
}
.note {
  display: grid;
  gap: 8px;
  margin-bottom: 10px;
}
textarea,
input[type='number'] {
  border: 1.5px solid var(--edge);
  border-radius: 9px;
  background: var(--paper);
  color: var(--ink);
  font: 500 16px/1.4 var(--text);
  padding: 8px 10px;
}
input[type='number'] {
  width: 110px;
  min-height: 44px;
}
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
@media (width <= 900px) {
  .page {
    padding: 4px 12px 12px;
  }
  .bench,
  .moves {
    grid-template: 'now' minmax(calc(66dvh - 150px), auto) 'hands' 34dvh 'side' auto / minmax(0, 1fr);
    gap: 12px;
    min-height: 0;
  }
  /* The lower half is for the hand, however long the words above are. */
  .hands {
    position: sticky;
    bottom: 72px;
    z-index: 5;
  }
  .hands::before {
    content: '';
    position: absolute;
    inset: -8px -12px;
    background: var(--ground);
    z-index: -1;
  }
  .picture {
    flex: none;
    height: 260px;
  }
}
</style>
