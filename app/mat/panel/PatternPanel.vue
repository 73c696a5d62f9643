<script setup lang="ts">
import { computed, onBeforeUnmount, reactive, ref, watchEffect } from 'vue'
import { patternSteps, type PatternWish } from '#core/pattern/plan'
import type { Part, Piece } from '#core/piece/piece'
import { applySteps, type Step } from '#core/piece/step'
import { useMat } from '../../stores/mat'
import BeadSequence from './BeadSequence.vue'
import ChoiceRow from './ChoiceRow.vue'
import MatPanel from './MatPanel.vue'

/** Patterns by rule: chosen, seen on the mat at once, laid with one press. */
const props = defineProps<{ piece: Piece; part: Part }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly Step[]] }>()
const mat = useMat()

const KINDS = [
  { value: 'stripes', title: 'Stripes' },
  { value: 'slant', title: 'Slant' },
  { value: 'chevron', title: 'Chevron' },
  { value: 'diamond', title: 'Diamond' },
  { value: 'wave', title: 'Wave' },
  { value: 'checks', title: 'Checks' },
  { value: 'blend', title: 'Blend' },
  { value: 'border', title: 'Border' },
  { value: 'letters', title: 'Letters' },
] as const
type Kind = (typeof KINDS)[number]['value']

const tray = props.piece.tray.map((b) => b.number)
const kind = ref<Kind>('diamond')
const where = ref<'repeat' | 'selection'>(mat.selection ? 'selection' : 'repeat')
const sequence = ref<number[]>(tray.slice(0, 4))
const own = reactive({
  swing: 3,
  along: 12,
  across: 4,
  way: 'along' as 'along' | 'across' | 'outward',
  blend: 'ordered' as 'steps' | 'ordered' | 'random',
  seed: 1,
  rings: 1,
  text: 'HELLO',
  size: 1,
  line: 'along' as 'along' | 'across',
})

const wish = computed<PatternWish>(() => {
  const beads = sequence.value
  switch (kind.value) {
    case 'blend':
      return { kind: 'gradient', wish: { sequence: beads, way: own.way, blend: own.blend, seed: own.seed } }
    case 'border':
      return { kind: 'border', wish: { sequence: beads, rings: own.rings, corner: null } }
    case 'letters':
      return { kind: 'lettering', wish: { text: own.text, size: own.size, way: own.line, number: mat.number } }
    default:
      return {
        kind: 'figure',
        wish: { figure: kind.value, sequence: beads, swing: own.swing, along: own.along, across: own.across },
      }
  }
})
const ready = computed(
  () =>
    (kind.value === 'letters' ? own.text.trim() !== '' : sequence.value.length > 0) &&
    (where.value === 'repeat' || mat.selection !== null),
)
const plan = computed(() =>
  ready.value
    ? patternSteps(props.piece, props.part, where.value === 'repeat' ? null : mat.selection, wish.value)
    : { steps: [], notes: [] },
)
const after = computed(() => {
  const next = plan.value.steps.length > 0 ? applySteps(props.piece, plan.value.steps) : null
  return next?.ok ? (next.value.parts.find((p) => p.id === props.part.id) ?? null) : null
})
watchEffect(() => {
  mat.ghost = after.value
})
onBeforeUnmount(() => {
  mat.ghost = null
})

function lay() {
  emit('steps', KINDS.find((k) => k.value === kind.value)!.title, plan.value.steps)
}
const step = (field: 'swing' | 'along' | 'across' | 'rings' | 'size', by: number, most = 60) => {
  own[field] = Math.max(1, Math.min(most, own[field] + by))
}
</script>

<template>
  <MatPanel title="Lay a pattern" @close="mat.panel = null">
    <ChoiceRow v-model="kind" label="Kind" :items="KINDS" />
    <ChoiceRow
      v-model="where"
      label="Where"
      :items="[
        { value: 'repeat', title: 'The whole repeat' },
        {
          value: 'selection',
          title: 'The selection',
          off: mat.selection === null,
          says: mat.selection ? '' : 'Select a box on the mat first',
        },
      ]"
    />
    <BeadSequence
      v-if="kind !== 'letters'"
      v-model="sequence"
      :piece="piece"
      :label="kind === 'diamond' ? 'Beads from the edge inward; the turning row is single' : 'Beads in order'"
    />
    <template v-if="kind === 'wave'">
      <div class="step">
        <span>Swing</span
        ><span
          ><button type="button" aria-label="Less swing" @click="step('swing', -1)">−</button><b>{{ own.swing }}</b
          ><button type="button" aria-label="More swing" @click="step('swing', 1)">+</button></span
        >
      </div>
      <div class="step">
        <span>From crest to crest</span
        ><span
          ><button type="button" aria-label="Shorter wave" @click="step('along', -2)">−</button><b>{{ own.along }}</b
          ><button type="button" aria-label="Longer wave" @click="step('along', 2)">+</button></span
        >
      </div>
    </template>
    <template v-if="kind === 'checks'">
      <div class="step">
        <span>Check across</span
        ><span
          ><button type="button" aria-label="Narrower check" @click="step('across', -1)">−</button
          ><b>{{ own.across }}</b
          ><button type="button" aria-label="Wider check" @click="step('across', 1)">+</button></span
        >
      </div>
      <div class="step">
        <span>Check along</span
        ><span
          ><button type="button" aria-label="Shorter check" @click="step('along', -1)">−</button><b>{{ own.along }}</b
          ><button type="button" aria-label="Longer check" @click="step('along', 1)">+</button></span
        >
      </div>
    </template>
    <template v-if="kind === 'blend'">
      <ChoiceRow
        v-model="own.way"
        label="Runs"
        :items="[
          { value: 'along', title: 'along' },
          { value: 'across', title: 'across' },
          { value: 'outward', title: 'outward' },
        ]"
      />
      <ChoiceRow
        v-model="own.blend"
        label="Mixed"
        :items="[
          { value: 'steps', title: 'in bands' },
          { value: 'ordered', title: 'evenly' },
          { value: 'random', title: 'by chance' },
        ]"
      />
      <button v-if="own.blend === 'random'" type="button" class="link" @click="own.seed++">
        Throw again ({{ own.seed }})
      </button>
    </template>
    <div v-if="kind === 'border'" class="step">
      <span>Rings</span
      ><span
        ><button type="button" aria-label="One ring fewer" @click="step('rings', -1)">−</button><b>{{ own.rings }}</b
        ><button type="button" aria-label="One ring more" @click="step('rings', 1, 8)">+</button></span
      >
    </div>
    <template v-if="kind === 'letters'">
      <VTextField v-model="own.text" label="Text, in the chosen bead" maxlength="80" />
      <ChoiceRow
        v-model="own.line"
        label="Runs"
        :items="[
          { value: 'along', title: 'along the band' },
          { value: 'across', title: 'across it' },
        ]"
      />
      <div class="step">
        <span>Beads a stroke</span
        ><span
          ><button type="button" aria-label="Thinner letters" @click="step('size', -1)">−</button><b>{{ own.size }}</b
          ><button type="button" aria-label="Thicker letters" @click="step('size', 1, 4)">+</button></span
        >
      </div>
    </template>
    <p v-for="note in plan.notes" :key="note" class="quiet" role="status">{{ note }}</p>
    <button type="button" class="button main" :disabled="plan.steps.length === 0" @click="lay">Lay it</button>
  </MatPanel>
</template>

<style scoped>
.step {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.step b {
  display: inline-block;
  min-width: 34px;
  text-align: center;
  font: 700 18px/1 var(--title);
}
.step button {
  width: 38px;
  height: 38px;
  border: 0;
  border-radius: 9px;
  background: var(--ground);
  color: var(--ink);
  font-size: 19px;
  cursor: pointer;
}
.link {
  justify-self: start;
  min-height: 32px;
}
</style>
