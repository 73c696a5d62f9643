<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import {
  EDGES,
  evenLongest,
  GROWTHS,
  levelsOf,
  RULE_LIMITS,
  type Edge,
  type Growth,
  type StrandRule,
  type Zone,
} from '#core/hang/rule'
import { rowsOf, techniqueOf, trayByNumber, workOf, type Part, type Piece } from '#core/piece/piece'
import {
  guessedRule,
  levelledRule,
  ownStrandSteps,
  ruleSteps,
  sagSteps,
  strandPlanSteps,
  strandSideOf,
  strandsOf,
  typedStrandSteps,
  type StrandView,
} from '#core/piece/strands'
import type { Step } from '#core/piece/step'
import { readBeads } from '#core/tally/strand'
import { rowWords, runText } from '#core/tally/words'
import { titled } from '#core/technique/technique'
import type { Alike } from '#core/technique/strand-side'
import { useLengths } from '../../composables/lengths'
import { useMat } from '../../stores/mat'
import NumberField from '../../components/NumberField.vue'
import StepCount from '../../components/StepCount.vue'
import BeadSequence from './BeadSequence.vue'
import ChoiceRow from './ChoiceRow.vue'
import MatPanel from './MatPanel.vue'

/** Strands: the rule that makes them, which stay alike, and each as a list with its length. */
const props = defineProps<{ piece: Piece; part: Part }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly Step[]]; says: [text: string] }>()
const mat = useMat()
const { length } = useLengths()
const side = computed(() => strandSideOf(props.part)!)
const plan = computed(() => side.value.plan(props.part.plan))
const rule = computed(() => plan.value.rule)
const line = computed(() => techniqueOf(props.part).words.line)
const strands = computed(() => strandsOf(props.piece, props.part))
const letters = computed(() => trayByNumber(props.piece.tray))
const textOf = (r: number) => {
  const words = rowWords(props.part, r)
  // In the order of the strand, from the top, however the hands string it.
  const runs = techniqueOf(props.part).anyOrder ? words.runs.toReversed() : words.runs
  return runs.map((run) => runText(run, letters.value)).join(' ')
}

// ---- the rule
function change(next: StrandRule) {
  const steps = ruleSteps(props.piece, props.part, next)
  if (steps.length > 0) emit('steps', 'Rule of the strands', steps)
}
const set = (over: Partial<StrandRule>) => {
  if (rule.value) change({ ...rule.value, ...over })
}
const begin = () => change(guessedRule(props.part))
/** Every strand as the rule makes it, those changed by hand too. */
const anew = () => {
  if (rule.value) emit('steps', 'All by the rule', ruleSteps(props.piece, props.part, rule.value, false))
}
const byHand = computed(() => strands.value.filter((s) => s.edited).length)
const held = (n: number, most: number, least = 0) => Math.max(least, Math.min(most, Math.round(n)))
const EDGE_WORDS: Record<Edge, string> = {
  point: 'point',
  arc: 'arc',
  slope: 'slope',
  straight: 'straight',
  wave: 'wave',
}
const GROW_WORDS: Record<Growth, { title: string; says: string }> = {
  keep: { title: 'keeps its count', says: 'The same in every strand' },
  step: { title: 'grows by steps', says: 'So many more from strand to strand' },
  to: { title: 'grows evenly', says: 'From the shortest strand to the longest' },
  level: { title: 'to a level line', says: 'Cut level at a depth below the top' },
}
const zoneSet = (k: number, over: Partial<Zone>) => {
  if (rule.value) set({ zones: rule.value.zones.map((zone, z) => (z === k ? { ...zone, ...over } : zone)) })
}
function grow(k: number, way: Growth) {
  const zone = rule.value!.zones[k]!
  if (zone.grow === way) return
  zoneSet(k, {
    grow: way,
    ...(way === 'step' && zone.step === 0 ? { step: 1 } : {}),
    ...(way === 'to' && zone.to <= zone.from ? { to: held(zone.from + 6, RULE_LIMITS.zone) } : {}),
    ...(way === 'level' && zone.levelMm === 0 ? { levelMm: 30 } : {}),
  })
}
function addZone() {
  if (!rule.value) return
  if (rule.value.zones.length >= RULE_LIMITS.zones) {
    emit('says', `A strand has at most ${RULE_LIMITS.zones} zones.`)
    return
  }
  const zone: Zone = {
    ...{ beads: [mat.number], along: 'strand', grow: 'keep', from: 2, step: 0, every: 1, to: 0, levelMm: 0, trim: 0 },
  }
  set({ zones: [...rule.value.zones, zone] })
}
const moveZone = (k: number) => {
  const zones = [...rule.value!.zones]
  ;[zones[k - 1], zones[k]] = [zones[k]!, zones[k - 1]!]
  set({ zones })
}
const dropZone = (k: number) => {
  set({ zones: rule.value!.zones.filter((_, z) => z !== k) })
}
/** Beads in order are changed one press at a time; an empty order is none yet. */
const beadsOf = (k: number, numbers: number[]) => {
  if (numbers.length > 0) zoneSet(k, { beads: numbers.slice(0, RULE_LIMITS.sequence) })
}

const trims = computed(() => [
  { value: 0, title: 'none' },
  ...props.piece.tray.map((b) => ({ value: b.number, title: `${b.letter} ${b.name}` })),
])
/** Longest counts that would make all steps of a zone equal, where they are not. */
function uneven(zone: Zone): number[] {
  const { edge, strands, waves } = rule.value!
  const found = evenLongest(zone, levelsOf(edge, strands, waves))
  return edge === 'point' && !found.includes(zone.to) ? found : []
}

// ---- which lists stay alike
const ALIKE_WORDS: Record<Alike, { title: string; says: string }> = {
  mirror: { title: 'mirrored', says: 'Left and right alike: change one, and the other follows' },
  repeat: { title: 'repeated', says: 'Again after so many' },
  free: { title: 'each its own', says: 'No other follows' },
}
const alike = (value: Alike) => emit('steps', 'Alike', strandPlanSteps(props.piece, props.part, { alike: value }))
const period = (value: number) =>
  emit('steps', 'Repeat of the strands', strandPlanSteps(props.piece, props.part, { period: value }))

// ---- single strands
const open = ref<number | null>(null)
const typed = ref('')
watch([open, () => props.part], () => {
  if (open.value !== null && open.value < rowsOf(props.part)) typed.value = textOf(open.value)
})
const read = computed(() => readBeads(props.piece.tray, typed.value, 'strand'))
function take() {
  if (open.value === null || !read.value.ok) return
  const steps = typedStrandSteps(props.piece, props.part, open.value, read.value.value)
  if (steps.length > 0) emit('steps', `${titled(line.value)} ${open.value + 1}`, steps)
}
const own = computed(() => (open.value === null ? null : side.value.own(props.part.plan, open.value)))
function setOwn(over: { at?: number | null; to?: number | null; turning?: number | null }) {
  if (open.value === null || !own.value) return
  emit(
    'steps',
    `${titled(line.value)} ${open.value + 1}`,
    ownStrandSteps(props.piece, props.part, open.value, { ...own.value, ...over }),
  )
}
function sag(strand: StrandView, mm: number) {
  if (Math.abs(mm - strand.longMm) < 0.06) return
  const steps = sagSteps(props.piece, props.part, strand.r, mm)
  if (steps.length > 0) emit('steps', 'Sag', steps)
}
/** A place is counted from 1, 0 is none. */
const place = (n: number) => (n <= 0 ? null : n - 1)
const many = computed(() => side.value.places(workOf(props.part)) ?? 2000)
</script>

<template>
  <MatPanel :title="`${titled(line)}s`" @close="mat.panel = null">
    <div v-if="!rule" class="rule">
      <p class="quiet">
        Let a rule make them: how many, how they grow, what they end in. It can be changed at any time.
      </p>
      <button type="button" class="button main" @click="begin">Make them by a rule</button>
    </div>
    <div v-else class="rule">
      <StepCount
        :label="`${titled(line)}s`"
        :value="rule.strands"
        :fewer="`One ${line} fewer`"
        :more="`One ${line} more`"
        @change="(by) => set({ strands: held(rule!.strands + by, RULE_LIMITS.strands, 1) })"
      />
      <ChoiceRow
        :model-value="rule.edge"
        label="Lower edge"
        :items="EDGES.map((value) => ({ value, title: EDGE_WORDS[value] }))"
        @update:model-value="(edge: Edge) => set({ edge })"
      />
      <StepCount
        v-if="rule.edge === 'wave'"
        label="Waves"
        :value="rule.waves"
        fewer="One wave fewer"
        more="One wave more"
        @change="(by) => set({ waves: held(rule!.waves + by, RULE_LIMITS.waves, 1) })"
      />
      <ol class="zones">
        <li v-for="(zone, k) in rule.zones" :key="k">
          <div class="head">
            <b>Zone {{ k + 1 }}</b>
            <span>
              <button
                v-if="k > 0"
                type="button"
                class="link"
                :aria-label="`Zone ${k + 1} higher`"
                @click="moveZone(k)"
              >
                Higher
              </button>
              <button
                v-if="rule.zones.length > 1"
                type="button"
                class="link"
                :aria-label="`Take zone ${k + 1} out`"
                @click="dropZone(k)"
              >
                Take out
              </button>
            </span>
          </div>
          <BeadSequence
            :model-value="[...zone.beads]"
            :piece="piece"
            :label="`Beads of zone ${k + 1}, in turn`"
            @update:model-value="(n) => beadsOf(k, n)"
          />
          <ChoiceRow
            :model-value="zone.grow"
            :label="`Zone ${k + 1}`"
            :items="GROWTHS.map((value) => ({ value, ...GROW_WORDS[value] }))"
            @update:model-value="(way: Growth) => grow(k, way)"
          />
          <StepCount
            v-if="zone.grow !== 'level'"
            :label="zone.grow === 'keep' ? 'Beads' : 'Shortest'"
            :value="zone.from"
            :fewer="`Zone ${k + 1}: one bead fewer`"
            :more="`Zone ${k + 1}: one bead more`"
            @change="(by) => zoneSet(k, { from: held(zone.from + by, RULE_LIMITS.zone) })"
          />
          <StepCount
            v-if="zone.grow === 'step'"
            label="Step"
            :value="zone.step"
            :fewer="`Zone ${k + 1}: step one less`"
            :more="`Zone ${k + 1}: step one more`"
            @change="(by) => zoneSet(k, { step: held(zone.step + by, RULE_LIMITS.step, -RULE_LIMITS.step) })"
          />
          <StepCount
            v-if="zone.grow === 'step'"
            label="Strands to a step"
            :value="zone.every"
            :fewer="`Zone ${k + 1}: a strand fewer to a step`"
            :more="`Zone ${k + 1}: a strand more to a step`"
            @change="(by) => zoneSet(k, { every: held(zone.every + by, RULE_LIMITS.step, 1) })"
          />
          <StepCount
            v-if="zone.grow === 'to'"
            label="Longest"
            :value="zone.to"
            :fewer="`Zone ${k + 1}: longest one fewer`"
            :more="`Zone ${k + 1}: longest one more`"
            @change="(by) => zoneSet(k, { to: held(zone.to + by, RULE_LIMITS.zone) })"
          />
          <NumberField
            v-if="zone.grow === 'level'"
            :model-value="zone.levelMm"
            :label="`Line of zone ${k + 1}, below the top`"
            :bounds="{ least: 0, most: 400, whole: false }"
            unit="mm"
            @update:model-value="(levelMm) => zoneSet(k, { levelMm })"
          />
          <template v-if="zone.grow === 'level'">
            <VSelect
              :model-value="zone.trim"
              :items="trims"
              :label="`Trim of zone ${k + 1}, to come nearer`"
              density="compact"
              hide-details
              @update:model-value="(trim: number) => zoneSet(k, { trim })"
            />
            <button type="button" class="link" @click="change(levelledRule(piece, part, rule, k))">
              To the line near it where they end most level
            </button>
          </template>
          <p v-if="zone.grow === 'to' && uneven(zone).length" class="quiet">
            Its steps differ by one; with {{ uneven(zone).join(' or ') }} at the longest they are equal.
          </p>
          <button
            v-if="zone.beads.length > 1"
            type="button"
            class="link"
            @click="zoneSet(k, { along: zone.along === 'strand' ? 'row' : 'strand' })"
          >
            {{
              zone.along === 'strand' ? 'Beads take turns down each strand' : 'Beads take turns from strand to strand'
            }}
          </button>
        </li>
      </ol>
      <button type="button" class="button" @click="addZone">Add a zone</button>
      <BeadSequence
        v-if="!techniqueOf(part).anyOrder"
        :model-value="[...rule.end]"
        :piece="piece"
        label="At the end of each strand"
        @update:model-value="(end) => set({ end: end.slice(0, RULE_LIMITS.end) })"
      />
      <p v-if="byHand > 0" class="quiet">
        {{ byHand }} {{ byHand === 1 ? 'was' : 'were' }} changed by hand and {{ byHand === 1 ? 'stays' : 'stay' }} so.
        <button type="button" class="link" @click="anew">All by the rule</button>
      </p>
    </div>
    <ChoiceRow
      :model-value="plan.alike"
      label="Lists are"
      :items="(['mirror', 'repeat', 'free'] as const).map((value) => ({ value, ...ALIKE_WORDS[value] }))"
      @update:model-value="alike"
    />
    <StepCount
      v-if="plan.alike === 'repeat'"
      label="Again after"
      :value="plan.period"
      fewer="Repeats sooner"
      more="Repeats later"
      @change="(by) => period(held(plan.period + by, 200, 1))"
    />
    <ol class="lists">
      <li v-for="s in strands" :key="s.r">
        <button type="button" class="strand" :aria-expanded="open === s.r" @click="open = open === s.r ? null : s.r">
          <b>{{ s.r + 1 }}</b>
          <span v-if="s.sameAs !== null && open !== s.r" class="quiet">as {{ line }} {{ s.sameAs + 1 }}</span>
          <span v-else class="beads">{{ textOf(s.r) }}</span>
          <span class="total"
            >{{ s.total }} · {{ length(s.longMm, 1) }}<span v-if="s.edited" class="hand"> by hand</span></span
          >
        </button>
        <div v-if="open === s.r" class="edit">
          <VTextField
            v-model="typed"
            :label="`${titled(line)} ${s.r + 1} from the top, like 3A 1B`"
            :error-messages="read.ok ? [] : [read.problems[0]!.says]"
            @blur="take"
            @keydown.enter="take"
          />
          <div class="two">
            <NumberField
              :model-value="(own?.at ?? s.at) + 1"
              label="Hangs from place"
              :bounds="{ least: 1, most: many, whole: true }"
              @update:model-value="(n) => setOwn({ at: n - 1 })"
            />
            <NumberField
              v-if="!techniqueOf(part).anyOrder"
              :model-value="own?.to === null || own?.to === undefined ? 0 : own.to + 1"
              label="Leads to place"
              optional
              :bounds="{ least: 0, most: 2000, whole: true }"
              hint="As a swag; empty: it comes back."
              @update:model-value="(n) => setOwn({ to: place(n) })"
            />
          </div>
          <NumberField
            v-if="s.to !== null"
            :model-value="Math.round(s.longMm * 10) / 10"
            label="It sags"
            :bounds="{ least: 1, most: 300, whole: false }"
            unit="mm"
            hint="As many of its beads as come nearest."
            @update:model-value="(mm) => sag(s, mm)"
          />
          <StepCount
            v-if="!techniqueOf(part).anyOrder && s.to === null"
            label="Turns round"
            :value="s.turning"
            fewer="Turns round one fewer"
            more="Turns round one more"
            @change="(by) => setOwn({ turning: held(s.turning + by, 24) })"
          />
        </div>
      </li>
    </ol>
  </MatPanel>
</template>

<style scoped>
.rule,
.zones,
.edit {
  display: grid;
  gap: 12px;
}
.zones,
.lists {
  list-style: none;
  margin: 0;
  padding: 0;
}
.zones li {
  display: grid;
  gap: 8px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.link {
  min-height: 32px;
}
.head .link {
  margin-inline-start: 14px;
}
.lists li {
  border-top: 1px solid var(--line);
}
.strand {
  display: grid;
  grid-template-columns: 28px 1fr auto;
  gap: 8px;
  align-items: baseline;
  width: 100%;
  min-height: 40px;
  padding: 8px 0;
  border: 0;
  background: none;
  color: var(--ink);
  font: 400 15px/1.35 var(--text);
  text-align: start;
  cursor: pointer;
}
.beads {
  font-weight: 550;
  word-spacing: 0.2em;
}
.total {
  color: var(--soft);
  white-space: nowrap;
}
.hand {
  color: var(--madder);
}
.edit {
  padding: 4px 0 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
</style>
