<script setup lang="ts">
import { computed, ref } from 'vue'
import { placeOf, rowListOf, taskAt, type Agenda, type Task } from '#core/making/agenda'
import type { MistakeWay } from '#core/making/event'
import type { Left } from '#core/making/left'
import {
  beadsWords,
  differenceWords,
  firstFound,
  followSteps,
  foundIn,
  markOfFound,
  plannedRow,
  plannedStrand,
  unpickCost,
  type Found,
  type Strung,
} from '#core/making/mistake'
import { discOf } from '#core/piece/nature'
import { columnsOf, type Piece } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import { readBeads } from '#core/tally/strand'
import { rowTitle } from '#core/tally/words'
import { showNumber } from '#core/units/length'
import { spanWords } from '../composables/days'

/** A miscount: what was really strung, where it differs from the plan, and the three ways out with what each costs. */
const props = defineProps<{
  piece: Piece
  agenda: Agenda
  task: Task
  bite: number
  perHour: Left['perHour']
}>()
const emit = defineEmits<{
  done: []
  settle: [
    event: { task: string; says: string; way: MistakeWay; beads: number; minutes: number },
    back: { task: string; bite: number } | null,
    steps: Step[],
  ]
}>()
const part = computed(() => props.task.part)
const list = computed(() => rowListOf(props.piece, part.value))
const strands = computed(() => (discOf(part.value) ? columnsOf(part.value) : 0))
/** Place of what is looked at: a row of the list, or a strand. At first the row that was worked last. */
const which = ref(strands.value > 0 ? 0 : Math.max(0, list.value.placeOf(props.task.row) - (props.bite > 0 ? 0 : 1)))
const last = computed(() => (strands.value > 0 ? strands.value : list.value.count) - 1)
const title = computed(() =>
  strands.value > 0 ? `Bobbin ${which.value + 1}` : rowTitle(list.value.words(which.value)),
)
const planned = computed(() =>
  strands.value > 0 ? plannedStrand(part.value, which.value) : plannedRow(part.value, list.value.rowOf(which.value)),
)
const texts = ref(new Map<number, string>())
const text = computed({
  get: () => texts.value.get(which.value) ?? '',
  set: (typed) => {
    texts.value = new Map(texts.value).set(which.value, typed)
  },
})
const read = computed(() =>
  [...texts.value]
    .filter(([, typed]) => typed.trim() !== '')
    .map(([k, typed]) => ({ k, result: readBeads(props.piece.tray, typed, 'strung') })),
)
const problem = computed(() => {
  const bad = read.value.find((r) => r.k === which.value)?.result
  return bad && !bad.ok ? bad.problems[0]!.says : ''
})
const strung = computed(() =>
  read.value.flatMap(({ k, result }): Strung[] => {
    if (!result.ok) return []
    const beads = result.value.filter((n) => n !== 0)
    return [strands.value > 0 ? { strand: k, beads } : { row: list.value.rowOf(k), beads }]
  }),
)
/** One bead more of a kind, as it is tapped. */
function tap(letter: string) {
  const words = text.value.trim().split(/\s+/).filter(Boolean)
  const same = new RegExp(`^(\\d*)${letter}$`, 'i').exec(words.at(-1) ?? '')
  if (same) words[words.length - 1] = `${Number(same[1] || 1) + 1}${letter}`
  else words.push(`1${letter}`)
  text.value = words.join(' ')
}
const found = computed(() => foundIn(part.value, strung.value))
const titleOf = ({ strung: one }: Found) =>
  'row' in one ? rowTitle(list.value.words(list.value.placeOf(one.row))) : `Bobbin ${one.strand + 1}`
/** By how many it differs, and how many beads it has against the plan. */
function countWords({ strung: one, differences }: Found): string {
  const off = differences.reduce((sum, d) => sum + d.count, 0)
  const wanted = 'row' in one ? plannedRow(part.value, one.row).length : null
  const all = wanted === null || wanted === one.beads.length ? '' : ` (${one.beads.length} strung, ${wanted} planned)`
  return `${off} ${off === 1 ? 'bead differs' : 'beads differ'}${all}`
}
const says = computed(() =>
  found.value
    .map((f) => `${titleOf(f)}: ${f.differences.map((d) => differenceWords(d, props.piece.tray)).join('; ')}`)
    .join('. '),
)
const first = computed(() => firstFound(part.value, found.value))
const backTo = computed(() => first.value && markOfFound(props.agenda, props.task, first.value))
const here = computed(() => placeOf(props.agenda, { task: props.task.key, bite: props.bite }))
const unpick = computed(() =>
  backTo.value ? unpickCost(props.agenda, here.value, placeOf(props.agenda, backTo.value), props.perHour) : null,
)
const backTitle = computed(() => {
  const there = backTo.value && taskAt(props.agenda, placeOf(props.agenda, backTo.value).index)
  return there?.words ? rowTitle(there.words).toLowerCase() : ''
})
const mirror = ref(false)
const follow = computed(() =>
  found.value.length > 0
    ? followSteps(
        props.piece,
        part.value,
        found.value.map((f) => f.strung),
        { mirror: mirror.value },
      )
    : null,
)
const minutes = computed(() => (unpick.value ? (unpick.value.minutes.least + unpick.value.minutes.most) / 2 : 0))

function settle(way: MistakeWay) {
  const back = backTo.value
  const went = way === 'unpick' && (unpick.value?.beads ?? 0) > 0
  emit(
    'settle',
    {
      task: back?.task ?? props.task.key,
      says: says.value.slice(0, 400),
      way,
      beads: way === 'unpick' ? (unpick.value?.beads ?? 0) : 0,
      minutes: way === 'unpick' ? minutes.value : 0,
    },
    went ? back : null,
    way === 'carry on' && follow.value?.ok ? follow.value.value : [],
  )
}
</script>

<template>
  <section class="mistake" aria-labelledby="mistake">
    <header>
      <h3 id="mistake">What is really strung?</h3>
      <button type="button" class="link" @click="emit('done')">Close</button>
    </header>
    <div class="which">
      <button type="button" class="button" :disabled="which <= 0" aria-label="The one before" @click="which--">
        ←
      </button>
      <b class="title" data-test="looked-at">{{ title }}</b>
      <button type="button" class="button" :disabled="which >= last" aria-label="The next one" @click="which++">
        →
      </button>
      <span class="planned">planned: {{ beadsWords(planned, piece.tray) }}</span>
    </div>
    <label class="typed"
      >Strung so
      <input v-model="text" type="text" autocapitalize="characters" autocomplete="off" placeholder="3A 1B 2A"
    /></label>
    <div class="taps" role="group" aria-label="Tap bead by bead">
      <button v-for="b in piece.tray" :key="b.number" type="button" class="button" @click="tap(b.letter)">
        <span class="bead" :style="{ '--bead': b.colour }" aria-hidden="true" />{{ b.letter }}
      </button>
      <button type="button" class="link" @click="text = ''">Empty it</button>
    </div>
    <p v-if="problem" class="warn" role="alert">{{ problem }}</p>
    <p v-else-if="strung.length > 0 && found.length === 0" class="fine" role="status">It is as planned.</p>
    <template v-else-if="found.length > 0">
      <ul class="found" role="status" data-test="found">
        <li v-for="(f, k) in found" :key="k">
          <b>{{ titleOf(f) }}</b>, {{ countWords(f) }}:
          {{ f.differences.map((d) => differenceWords(d, piece.tray)).join('; ') }}
        </li>
      </ul>
      <ul class="ways">
        <li>
          <p>
            <b>Unpick to {{ backTitle }}.</b>{{ ' ' }}
            <template v-if="unpick && unpick.beads > 0"
              >{{ showNumber(unpick.beads) }} beads off and on again, about
              {{ spanWords({ least: unpick.minutes.least / 60, most: unpick.minutes.most / 60 }) }}.</template
            ><template v-else>Nothing is worked over it yet: restring it from there.</template>
          </p>
          <button type="button" class="button" @click="settle('unpick')">Unpick</button>
        </li>
        <li>
          <p>
            <b>Carry on; the plan follows.</b>{{ ' ' }}
            <template v-if="follow?.ok"
              >No bead is lost{{ agenda.order.copies > 1 ? '; every copy is made so' : '' }}.</template
            ><template v-else>{{ follow?.problems[0]?.says }}</template>
          </p>
          <label class="mirror"><input v-model="mirror" type="checkbox" /> mirrored on the other half</label>
          <button type="button" class="button" :disabled="!follow?.ok" @click="settle('carry on')">Carry on</button>
        </li>
        <li>
          <p><b>Leave it.</b> A note is kept where it is; the plan stays.</p>
          <button type="button" class="button" @click="settle('leave')">Leave it</button>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.mistake {
  display: grid;
  gap: 14px;
  align-content: start;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 12px;
}
h3 {
  font: 700 clamp(28px, 3.4vw, 42px) / 1.1 var(--title);
}
.which,
.taps {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 10px;
}
.title {
  font: 700 22px/1 var(--title);
  min-width: 6em;
  text-align: center;
}
.planned {
  color: var(--soft);
  overflow-wrap: anywhere;
}
.typed {
  display: grid;
  gap: 4px;
  max-width: 34em;
}
.typed input {
  border: 1.5px solid var(--edge);
  border-radius: 9px;
  background: var(--paper);
  color: var(--ink);
  font: 650 24px/1.3 var(--title);
  padding: 8px 12px;
  min-height: 52px;
}
.taps .button {
  gap: 8px;
  font-size: 20px;
}
.bead {
  width: 18px;
  height: 24px;
  border-radius: 6px;
  background: linear-gradient(100deg, rgb(255 255 255 / 36%), transparent 45%, rgb(0 0 0 / 26%)), var(--bead);
}
.warn,
.fine,
.found {
  padding: 10px 16px;
  border-radius: var(--round-in);
  background: var(--marigold-wash);
  color: var(--marigold);
  margin: 0;
  list-style: none;
}
.fine {
  background: var(--verdigris-wash);
  color: var(--verdigris);
}
.found li {
  font-size: clamp(17px, 1.8vw, 22px);
}
.ways {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
.ways li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 6px 16px;
  padding: 10px 16px;
  border-radius: 14px;
  background: var(--paper);
}
.ways p {
  flex: 1 1 16em;
}
.mirror {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
.mirror input {
  width: 20px;
  height: 20px;
  accent-color: var(--madder);
}
</style>
