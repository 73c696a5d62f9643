<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import {
  backward,
  beadsAt,
  bitesOf,
  boardKey,
  DONE,
  goneTo,
  keyOfTask,
  markOf,
  nextChore,
  onward,
  placeOf,
  taskAt,
  type CopyOrder,
  type Mark,
} from '#core/making/agenda'
import { boardOf, filledOf } from '#core/making/board'
import { courseOf, timersOf } from '#core/making/chore'
import type { MakingListing } from '#core/contract/making'
import { gaugeKeyOf, sameGauge, withoutSwatchFrom, withSwatch } from '#core/fit/gauge'
import type { MakingEvent, MakingRecord, MistakeWay } from '#core/making/event'
import { withKeptGauges } from '#core/making/learned'
import { swatchOf } from '#core/making/record'
import { setStep } from '#core/piece/edit'
import { fittedPart } from '#core/piece/piece'
import { leftOf } from '#core/making/left'
import { pauseOf, spokenBite, spokenTask, titleOf } from '#core/making/say'
import { discOf } from '#core/piece/nature'
import type { Step } from '#core/piece/step'
import { rowTitle } from '#core/tally/words'
import { showNumber } from '#core/units/length'
import BenchBegin from '../../../components/BenchBegin.vue'
import BenchBoard from '../../../components/BenchBoard.vue'
import BenchChanged from '../../../components/BenchChanged.vue'
import BendingGuide from '../../../components/BendingGuide.vue'
import BenchChore from '../../../components/BenchChore.vue'
import BenchMeasure from '../../../components/BenchMeasure.vue'
import BenchMistake from '../../../components/BenchMistake.vue'
import BenchMove from '../../../components/BenchMove.vue'
import BenchPicture from '../../../components/BenchPicture.vue'
import BenchRecord from '../../../components/BenchRecord.vue'
import BenchStep from '../../../components/BenchStep.vue'
import BenchTimers from '../../../components/BenchTimers.vue'
import BenchWays from '../../../components/BenchWays.vue'
import { useAloud, useAwake, useBenchWays, useBreaks, useClick, useHands } from '../../../composables/bench'
import { useChangedPlan } from '../../../composables/changed-plan'
import { momentWords, spanWords } from '../../../composables/days'
import { useKeptGauges } from '../../../composables/gauges'
import { useLengths } from '../../../composables/lengths'
import { saying } from '../../../composables/saying'
import { useBench } from '../../../stores/bench'
import { useLearned } from '../../../stores/learned'
import { usePiece } from '../../../stores/piece'
import { useShelf } from '../../../stores/shelf'

const store = usePiece()
const bench = useBench()
const learned = useLearned()
const shelf = useShelf()
const { keepGauge } = useKeptGauges()
const { unit } = useLengths()
const id = useRoute().params.id as string
const piece = computed(() => store.piece!)
const says = ref('')
const busy = ref(false)
const ways = useBenchWays()
onMounted(() => bench.open(id))
onBeforeUnmount(() => bench.close())

const making = computed(() => bench.shown)
/** The piece as this hand makes it: for time, thread and what to lay out. */
const reckoned = computed(() => learned.reckoned(piece.value))
// What it follows from, in words: presses alone do not ask for it anew.
const happened = computed(() => {
  const { joined, measures, ticks } = making.value?.state ?? { joined: [], measures: [], ticks: new Map() }
  return JSON.stringify([[...joined], measures.map((m) => m.task), [...filledOf(ticks)]])
})
const agenda = computed(() => {
  const head = making.value?.head
  if (!head) return null
  const [joined, measured, filled] = JSON.parse(happened.value) as [
    [string, boolean][],
    string[],
    [string, number[]][],
  ]
  const what = { joined: new Map(joined), measured, filled: new Map(filled) }
  return courseOf(reckoned.value, head, what, { unit: unit.value })
})
const mark = computed<Mark>(() => (agenda.value && making.value ? markOf(agenda.value, making.value.state) : DONE))
const place = computed(() => (agenda.value ? placeOf(agenda.value, mark.value) : { index: 0, bite: 0 }))
const task = computed(() => agenda.value && taskAt(agenda.value, place.value.index))
const rowTask = computed(() => (task.value?.words ? task.value : null))
const choreTask = computed(() => (task.value?.chore ? task.value : null))
/** What is ticked off, or bent by a drawing, is long: it is given room. */
const isLong = computed(
  () => choreTask.value !== null && (choreTask.value.chore.items.length > 4 || choreTask.value.chore.kind === 'bend'),
)
const next = computed(() => agenda.value && taskAt(agenda.value, place.value.index + 1))
const bites = computed(() => (task.value ? bitesOf(task.value) : []))
const byMove = computed(() => (task.value ? discOf(task.value.part) !== null : false))
const stride = computed(() => (byMove.value ? 'bite' : ways.value.stride))
const left = computed(() =>
  agenda.value && making.value
    ? leftOf(agenda.value, place.value, making.value.state.presses, reckoned.value.cost)
    : null,
)
const paceSays = computed(() =>
  left.value?.pace
    ? `at your pace, ${Math.round(left.value.pace)} beads an hour`
    : learned.speedOf(piece.value)
      ? 'at the pace of your other makings'
      : 'by the plan’s pace',
)
const share = computed(() => (left.value && left.value.of > 0 ? left.value.done / left.value.of : 0))
/** The last part that was worked on, to be shown when all is done. */
const shownPart = computed(() => task.value?.part ?? piece.value.parts.at(-1)!)
const pause = computed(() => (task.value ? pauseOf(task.value, bites.value, place.value.bite) : ''))

/** Where the thread in hand ends. */
const join = computed(() => (agenda.value && task.value ? nextChore(agenda.value, task.value, 'join') : null))
const setJoined = (which: boolean) => {
  if (task.value) bench.add({ do: 'joined', task: task.value.key.replace(/\/join$/, ''), joined: which })
  toHands()
}

// ---- chores
const NOTHING: ReadonlyMap<string, number> = new Map()
const ticked = computed(() => making.value?.state.ticks.get(mark.value.task) ?? NOTHING)
const tick = (items: string[], done: boolean) => {
  if (task.value && items.length > 0) bench.add({ do: 'ticked', task: task.value.key, items, done })
}
const timers = computed(() => (agenda.value && making.value ? timersOf(agenda.value, making.value.state.ticks) : []))
const measured = computed(() => making.value?.state.measures.find((m) => m.task === mark.value.task) ?? null)
const measure = (rows: number, mm: number) => {
  if (task.value) bench.add({ do: 'measured', task: task.value.key, part: task.value.part.id, rows, mm })
}
function change(label: string, steps: Step[]) {
  says.value = steps.length === 0 ? '' : (store.commit(label, steps) ?? '')
  toHands()
}

// ---- lines that are made in any order
const board = computed(() => (agenda.value && task.value ? boardOf(agenda.value, task.value) : null))
const fill = (rows: number[], done: boolean) => {
  if (!task.value) return
  const key = boardKey(task.value.part.id, task.value.copy)
  for (let from = 0; from < rows.length; from += 200)
    bench.add({ do: 'ticked', task: key, items: rows.slice(from, from + 200).map(String), done })
  toHands()
}
const takeAgain = (row: number) => {
  if (task.value) press({ task: keyOfTask(task.value.part.id, task.value.copy, row), bite: 0 })
}

function press(to: Mark) {
  const a = agenda.value
  if (!a || !making.value) return
  if (to.task === mark.value.task && to.bite === mark.value.bite) return
  const at = placeOf(a, to)
  const there = taskAt(a, at.index)
  const title = there ? titleOf(there) : 'All done'
  bench.add({ do: 'at', ...to, says: title.slice(0, 80), beads: beadsAt(a, at), of: a.beads })
  click()
}
const on = () => {
  if (!agenda.value || !task.value) return
  // A chore that is done is ticked off, whole.
  tick(choreTask.value?.chore.items.map((i) => i.id).filter((i) => !ticked.value.has(i)) ?? [], true)
  press(onward(agenda.value, mark.value, stride.value))
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
const isFinished = computed(() => ['made', 'given'].includes(making.value?.state.status ?? ''))

// ---- the record, and what is learned
const partKey = computed(() => {
  const { technique, spec } = fittedPart(piece.value)
  return { technique, spec, thread: piece.value.supply.thread }
})
async function keepRecord(record: MakingRecord) {
  bench.add({ do: 'record', record })
  const { lengthMm } = record
  const swatch = lengthMm === null || record.strange ? null : swatchOf(piece.value, lengthMm)
  if (swatch) {
    const without = withoutSwatchFrom(piece.value.gauges, partKey.value, piece.value.name)
    const gauges = withSwatch(without, partKey.value, swatch)
    change('Gauge', [setStep(piece.value, ['gauges'], gauges)])
    await told(() => keepGauge(gauges, partKey.value))
  }
  await told(async () => {
    await bench.sent()
    await learned.fetch()
  })
}
const keptGauges = computed(() =>
  shelf.gauges
    .map((g) => g.value.gauge)
    .filter((g) => piece.value.parts.some((p) => sameGauge(g, gaugeKeyOf(p, piece.value.supply.thread)))),
)
const taught = computed(() => {
  const said: string[] = []
  const speed = learned.speedOf(piece.value)
  if (speed) said.push(`${Math.round(speed.value)} beads an hour, from ${speed.makings}`)
  if (keptGauges.value.length > 0) said.push('your gauge for its stitch, bead and thread')
  const { culls, slack } = reckoned.value.supply
  if (culls) said.push('the share of beads that you put aside')
  if (slack) said.push('the thread that you take')
  return said
})
onMounted(() => {
  void learned.fetch()
  shelf.fetch().catch(() => {
    /* the bench works without what is kept for all pieces */
  })
})
function again({ copies, copyOrder }: MakingListing) {
  const gauges = withKeptGauges(piece.value, keptGauges.value)
  if (keptGauges.value.length > 0 && JSON.stringify(gauges) !== JSON.stringify(piece.value.gauges))
    change('Use my gauge', [setStep(piece.value, ['gauges'], gauges)])
  return begin(copies, copyOrder)
}

const hands = useTemplateRef<HTMLElement>('hands')
/** Space and Enter go on again, wherever one pressed last. */
function toHands() {
  hands.value?.querySelector<HTMLElement>('.on')?.focus({ preventScroll: true })
}
const { learning, pressed } = useHands(hands, ways, { on, back })
// The work comes into hand: keys are the bench’s from the first on.
watch(
  () => bench.atHand,
  async (now) => {
    if (!now) return
    await nextTick()
    toHands()
  },
)
const awake = useAwake()
const click = useClick(() => ways.value.click)
const { due: restDue, rested } = useBreaks(
  () => making.value?.state.at ?? 0,
  () => ways.value.breaks,
)
const speech = useAloud(
  () =>
    !task.value
      ? ''
      : choreTask.value || stride.value === 'row'
        ? spokenTask(task.value, piece.value.tray)
        : byMove.value
          ? (bites.value[place.value.bite]?.says ?? '')
          : spokenBite(bites.value[place.value.bite] ?? { count: 0, number: 0 }, piece.value.tray),
  () => ways.value.aloud,
  () => ways.value.rate,
)

// ---- the plan changes while it is made
const {
  changed,
  moved,
  see: seeChange,
  ours,
} = useChangedPlan(id, {
  piece: () => piece.value,
  revision: () => store.revision,
  making: () => making.value,
  mark: () => mark.value,
  add: bench.add,
})
function answerChange(to: Mark | null) {
  seeChange()
  if (to) press(to)
  toHands()
}

// ---- when it is wanted
const setDue = (day: string) => bench.add({ do: 'due', day: day || null })

// ---- a miscount
const mistaken = ref(false)
function settle(event: Omit<Extract<MakingEvent, { do: 'mistake' }>, 'do'>, backTo: Mark | null, steps: Step[]) {
  bench.add({ do: 'mistake', ...event })
  if (steps.length > 0) {
    ours.value = true
    change('Follow what was strung', steps)
  }
  if (backTo) press(backTo)
  mistaken.value = false
  toHands()
}
const MISTAKE_SAYS: Record<MistakeWay, string> = {
  'unpick': 'Unpicked',
  'carry on': 'The plan follows',
  'leave': 'Left as it is',
}
const mistakesHere = computed(() => making.value?.state.mistakes.filter((m) => m.task === mark.value.task) ?? [])

// ---- notes
const note = ref('')
const notesHere = computed(() => making.value?.state.notes.filter((n) => n.task === mark.value.task) ?? [])
function keepNote() {
  const text = note.value.trim()
  if (!text) return
  bench.add({ do: 'note', task: mark.value.task, text })
  note.value = ''
  toHands()
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
      :taught="taught"
      @begin="begin"
      @take="(which) => told(() => bench.take(which))"
      @remove="(which) => told(() => bench.remove(which))"
      @again="again"
    />
    <template v-else-if="making && agenda && left">
      <BenchChanged
        v-if="changed.length"
        :piece="piece"
        :changed="changed"
        :moved="moved"
        :copy="task?.copy ?? 1"
        @answer="answerChange"
      />
      <div class="bench" :class="{ moves: byMove, listed: isLong }">
        <h2 class="hidden">Bench</h2>
        <div class="now">
          <section aria-label="The step in hand" aria-live="polite">
            <BenchMistake
              v-if="mistaken && task"
              :piece="piece"
              :agenda="agenda"
              :task="task"
              :bite="place.bite"
              :per-hour="left.perHour"
              @done="mistaken = false"
              @settle="settle"
            />
            <BenchChore
              v-else-if="choreTask"
              :task="choreTask"
              :ticked="ticked"
              :next="next"
              :copies="making.head.copies"
              @tick="tick"
            >
              <BendingGuide v-if="choreTask.chore.kind === 'prepare'" :piece="piece" />
              <BendingGuide v-else-if="choreTask.chore.kind === 'bend'" :piece="piece" :part="choreTask.part.id" />
              <BenchMeasure
                v-if="choreTask.chore.kind === 'measure'"
                :piece="piece"
                :task="choreTask"
                :measured="measured"
                @measure="measure"
                @take="change"
              />
              <button
                v-else-if="choreTask.chore.kind === 'join'"
                type="button"
                class="button not-yet"
                @click="setJoined(false)"
              >
                Not yet: the thread still lasts
              </button>
            </BenchChore>
            <BenchMove v-else-if="rowTask && byMove" :piece="piece" :task="rowTask" :bite="place.bite" turning />
            <BenchStep
              v-else-if="rowTask"
              :piece="piece"
              :task="rowTask"
              :bites="bites"
              :bite="place.bite"
              :running="stride === 'bite'"
              :next="next"
              :copies="making.head.copies"
            />
            <div v-else-if="!isFinished" class="end">
              <h3>All is done</h3>
              <button type="button" class="button main" @click="made">It is made</button>
            </div>
            <BenchRecord
              v-else
              :piece="piece"
              :piece-id="id"
              :making="making"
              :busy="busy"
              @keep="keepRecord"
              @settle="(uses) => told(() => bench.settle(uses))"
              @given="bench.add({ do: 'state', state: 'given' })"
              @resume="bench.add({ do: 'state', state: 'on the bench' })"
              @clear="aside"
            />
          </section>
          <BenchTimers :timers="timers" />
        </div>
        <div v-show="!mistaken && !(isFinished && !task)" ref="hands" class="hands">
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
                ><b class="figure">{{ spanWords(left.hours) }}</b> {{ paceSays }}</span
              >
            </p>
          </div>
          <BenchBoard v-if="board" :piece="piece" :part="shownPart" :board="board" @tick="fill" @take="takeAgain" />
          <p v-if="restDue" class="rest" role="status">
            Twenty minutes: look at something six metres away for twenty seconds, and shake out the hands.
            <button type="button" class="link" @click="rested">Rested</button>
          </p>
          <p v-if="task" class="pause" data-test="pause"><b>If you stop here:</b> {{ pause }}</p>
          <p v-if="join && rowTask" class="join" data-test="join">
            Join thread before {{ join.before ? rowTitle(join.before).toLowerCase() : 'sewing up' }}, {{ join.rows }}
            {{ join.rows === 1 ? 'row' : 'rows' }} on.
            <button type="button" class="link" @click="setJoined(true)">I joined here</button>
          </p>
          <p v-if="making.state.at" class="quiet" data-test="last">
            Last press {{ momentWords(making.state.at)
            }}<template v-if="making.waiting"
              >; {{ making.waiting }} {{ making.waiting === 1 ? 'press waits' : 'presses wait' }} in this
              browser</template
            >.
          </p>
          <p v-if="making.says" class="warn" role="status">{{ making.says }}</p>
          <ul v-if="notesHere.length || mistakesHere.length" class="notes">
            <li v-for="n in notesHere" :key="n.id">{{ n.text }}</li>
            <li v-for="m in mistakesHere" :key="m.at">{{ MISTAKE_SAYS[m.way] }}: {{ m.says }}</li>
          </ul>
          <button v-if="task && !mistaken" type="button" class="button wrong" @click="mistaken = true">
            I found a mistake
          </button>
          <details>
            <summary>Note, place, ways to work</summary>
            <form class="note" @submit.prevent="keepNote">
              <label for="bench-note">A note at this step</label>
              <textarea id="bench-note" v-model="note" rows="2" maxlength="2000" />
              <button type="submit" class="button" :disabled="!note.trim()">Keep the note</button>
            </form>
            <label class="field"
              >Ready by
              <input
                type="date"
                :value="making.state.due ?? ''"
                @change="(e) => setDue((e.target as HTMLInputElement).value)"
              /><NuxtLink to="/ready">All that is to be ready</NuxtLink></label
            >
            <label class="field"
              >Go to step
              <input
                type="number"
                min="1"
                :max="agenda.count"
                :value="Math.min(agenda.count, place.index + 1)"
                @change="(e) => goTo(Number((e.target as HTMLInputElement).value))"
            /></label>
            <BenchWays
              v-model="ways"
              :by-move="byMove"
              :speaks="speech.isSupported.value"
              :learning="learning"
              :awake="awake.isActive.value"
              @learn="learning = true"
            />
            <button type="button" class="link" @click="aside">Lay this making aside</button>
          </details>
        </aside>
      </div>
    </template>
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
  grid-template:
    'now side' minmax(0, 1fr) 'hands side' clamp(170px, 34dvh, 300px) / minmax(0, 1.75fr)
    minmax(300px, 1fr);
  gap: 20px 28px;
  min-height: calc(100dvh - 110px);
}
/* A long list to tick off, seen whole. */
.listed {
  grid-template-rows: minmax(0, 1fr) 150px;
}
.moves {
  grid-template-columns: minmax(0, 2.6fr) minmax(260px, 1fr);
}
.now {
  grid-area: now;
  padding-top: 8px;
  display: grid;
  align-content: start;
  gap: 20px;
  min-width: 0;
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
  /* Always under the hand, however long the words above or the notes beside it are. */
  position: sticky;
  bottom: 20px;
  z-index: 5;
}
.hands::before {
  content: '';
  position: absolute;
  inset: -8px -12px;
  background: var(--ground);
  z-index: -1;
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
input[type='date'],
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
.not-yet {
  justify-self: start;
}
.wrong {
  align-self: flex-start;
}
.rest {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  padding: 10px 14px;
  border-radius: var(--round-in);
}
.field {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
@media (width <= 900px) {
  .page {
    padding: 4px 12px 12px;
  }
  .bench,
  .listed,
  .moves {
    grid-template: 'now' minmax(calc(66dvh - 150px), auto) 'hands' 34dvh 'side' auto / minmax(0, 1fr);
    gap: 12px;
    min-height: 0;
  }
  .listed {
    grid-template: 'now' minmax(calc(82dvh - 150px), auto) 'hands' 18dvh 'side' auto / minmax(0, 1fr);
  }
  .hands {
    bottom: 72px;
  }
  .picture {
    flex: none;
    height: 260px;
  }
}
</style>
