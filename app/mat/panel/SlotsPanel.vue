<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { requireSpec } from '#core/bead/spec'
import type { Part, Piece } from '#core/piece/piece'
import {
  laidSlots,
  SEQUENCE_WAYS,
  sequenceSteps,
  slotSizeSteps,
  type LaidSlot,
  type SequenceWay,
} from '#core/piece/slot-colours'
import type { Step } from '#core/piece/step'
import { showNumber } from '#core/units/length'
import { useSpecs } from '../../composables/specs'
import BeadSequence from './BeadSequence.vue'
import ChoiceRow from './ChoiceRow.vue'
import MatPanel from './MatPanel.vue'

/** Parts that beads play: size, and the colours along them and from motif to motif. */
const props = defineProps<{ piece: Piece; part: Part }>()
const emit = defineEmits<{
  steps: [label: string, steps: readonly Step[]]
  says: [text: string]
  close: []
}>()
const sizes = useSpecs(() => props.piece.tray.map((b) => b.spec))
const slots = computed(() => laidSlots(props.piece, props.part))
const open = ref('')
const way = ref<SequenceWay>('anew')
const numbers = ref<number[]>([])
const WAY_WORDS: Record<SequenceWay, { title: string; says: string }> = {
  anew: { title: 'Anew in each motif', says: 'Every motif begins with the first bead' },
  shifted: { title: 'One further each time', says: 'Every motif begins one bead later than the one before' },
  on: { title: 'On and on', says: 'The sequence goes on from motif to motif' },
  motif: { title: 'One for each motif', says: 'All beads of a motif are of one colour, the next of the next' },
}
const bead = (number: number) => props.piece.tray.find((b) => b.number === number)
function choose(slot: LaidSlot) {
  open.value = open.value === slot.slot ? '' : slot.slot
  way.value = slot.sequence?.way ?? 'anew'
  numbers.value = [...(slot.sequence?.numbers ?? slot.numbers.slice(0, 1))]
}
/** As it lies now: what was chosen follows when it is undone. */
watch(slots, (now) => {
  const own = now.find(({ slot }) => slot === open.value)
  if (!own) open.value = ''
  else if (own.sequence) {
    way.value = own.sequence.way
    numbers.value = [...own.sequence.numbers]
  }
})
function lay() {
  const steps = sequenceSteps(props.piece, props.part, open.value, { way: way.value, numbers: numbers.value })
  if (!steps.ok) emit('says', steps.problems[0]!.says)
  else if (steps.value.length > 0) emit('steps', 'Sequence of beads', steps.value)
  else emit('says', 'They lie so already.')
}
/** Sizes with as many holes. */
const holesOf = (spec: string) => (requireSpec(spec).spacing === undefined ? 1 : 2)
const sizesFor = (slot: LaidSlot) => sizes.value.filter(({ value }) => holesOf(value) === holesOf(slot.spec))
const resize = (slot: LaidSlot, spec: string) =>
  emit('steps', 'Size of beads', slotSizeSteps(props.piece, props.part, slot.slot, spec))
/** Whether beads of another size were chosen for a part: it is played in one size. */
const misfits = computed(() => {
  const own = slots.value.find(({ slot }) => slot === open.value)
  return own ? numbers.value.filter((n) => bead(n)?.spec !== own.spec).map((n) => bead(n)?.letter ?? '') : []
})
</script>

<template>
  <MatPanel title="What plays a part" @close="emit('close')">
    <ul class="slots">
      <li v-for="s in slots" :key="s.slot">
        <button type="button" class="slot" :aria-expanded="open === s.slot" @click="choose(s)">
          <b>{{ s.called }}</b>
          <span class="quiet">{{ requireSpec(s.spec).name }} · {{ s.each }} a motif · {{ showNumber(s.count) }}</span>
          <span class="order">
            <template v-for="(n, k) in (s.sequence?.numbers ?? s.numbers).slice(0, 12)" :key="k">
              <span class="swatch" :style="{ '--bead': bead(n)?.colour }" aria-hidden="true" />{{ bead(n)?.letter }}
            </template>
            <span v-if="s.sequence && s.sequence.numbers.length > 1" class="quiet">{{
              WAY_WORDS[s.sequence.way].title.toLowerCase()
            }}</span>
            <span v-else-if="!s.sequence" class="quiet">bead by bead</span>
          </span>
        </button>
        <div v-if="open === s.slot" class="edit">
          <VSelect
            :model-value="s.spec"
            :items="sizesFor(s)"
            label="Size"
            @update:model-value="(v: string) => resize(s, v)"
          />
          <BeadSequence v-model="numbers" :piece="piece" :label="`Beads of the ${s.called}, in order`" />
          <ChoiceRow
            v-model="way"
            label="From motif to motif"
            :items="SEQUENCE_WAYS.map((w) => ({ value: w, ...WAY_WORDS[w] }))"
          />
          <p v-if="misfits.length" class="quiet">
            {{ misfits.join(', ') }}: another size than {{ requireSpec(s.spec).name }}. Choose beads of one size, or
            change the size first.
          </p>
          <button
            type="button"
            class="button main"
            :disabled="numbers.length === 0 || misfits.length > 0"
            @click="lay"
          >
            Lay them so
          </button>
        </div>
      </li>
    </ul>
  </MatPanel>
</template>

<style scoped>
.slots {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-bottom: 1px solid var(--line);
}
.slot {
  display: grid;
  gap: 3px;
  width: 100%;
  padding: 10px 2px;
  border: 0;
  background: none;
  color: var(--ink);
  font: 400 15px/1.35 var(--text);
  text-align: start;
  cursor: pointer;
}
.order {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 5px;
}
.swatch {
  width: 13px;
  height: 16px;
}
.edit {
  display: grid;
  gap: 12px;
  padding: 4px 0 14px;
}
</style>
