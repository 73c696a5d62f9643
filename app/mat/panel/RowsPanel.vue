<script setup lang="ts">
import { lineLength } from '#core/grid/lines'
import { computed } from 'vue'
import { shiftBox } from '#core/pattern/clip'
import {
  insertColumnsStep,
  insertLinesStep,
  layingSteps,
  removeColumnsStep,
  removeLinesStep,
  setStep,
  insertSlotsStep,
  removeSlotsStep,
} from '#core/piece/edit'
import { columnsOf, locateRow, rowsOf, type Part, type Piece, isGrid, techniqueOf } from '#core/piece/piece'
import { columnStepOf } from '#core/piece/recast'
import { LIMITS } from '#core/piece/schema'
import type { Step } from '#core/piece/step'
import type { Place } from '#core/technique/lattice'
import { useMat } from '../../stores/mat'
import StepCount from '../../components/StepCount.vue'
import MatPanel from './MatPanel.vue'

/** Repeats, rows and columns: put in, taken out, shifted; everything that lies behind moves along. */
const props = defineProps<{ piece: Piece; part: Part; here: Place }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly Step[]]; says: [text: string] }>()
const mat = useMat()
const at = computed(() =>
  rowsOf(props.part) > 0
    ? locateRow(props.part, Math.min(props.here.r, rowsOf(props.part) - 1))
    : { section: 'repeat' as const, row: 0, copy: 0 },
)
const grid = computed(() => isGrid(props.part))
const by = computed(() => (grid.value ? columnStepOf(props.part) : 1))
const line = computed(() => techniqueOf(props.part).words.line)
const ownLength = computed(() => lineLength(props.part[at.value.section], at.value.row))

function repeats(change: number) {
  const times = Math.max(0, Math.min(LIMITS.times, props.part.times + change))
  if (times !== props.part.times)
    emit('steps', 'Repeats', [setStep(props.piece, ['parts', props.part.id, 'times'], times)])
}
function rows(doing: 'insert' | 'remove') {
  const { section, row } = at.value
  if (doing === 'insert')
    emit('steps', `Add a ${line.value}`, [insertLinesStep(props.part, section, row, 1, mat.number)])
  else if (section === 'repeat' && props.part.repeat.rows === 1)
    emit('says', `The repeat needs at least one ${line.value}.`)
  else emit('steps', `Take a ${line.value} out`, [removeLinesStep(props.part, section, row, 1)])
}
/** One bead more in the line under the cursor, before the bead there (or behind the last), or one fewer. */
function beadsOfLine(doing: 'insert' | 'remove', where: 'here' | 'end') {
  const { section, row } = at.value
  const length = lineLength(props.part[section], row)
  if (doing === 'insert') {
    if (length >= LIMITS.columns) emit('says', `A ${line.value} holds at most ${LIMITS.columns} beads.`)
    else {
      const c = where === 'end' ? length : Math.min(props.here.c, length)
      emit('steps', 'Longer', [insertSlotsStep(props.part, section, row, c, 1, mat.number)])
    }
  } else if (length === 0) emit('says', `This ${line.value} has no bead to take out.`)
  else {
    const c = where === 'end' ? length - 1 : Math.min(props.here.c, length - 1)
    emit('steps', 'Shorter', [removeSlotsStep(props.part, section, row, c, 1)])
  }
}
function columns(doing: 'insert' | 'remove', where: 'edge' | 'here') {
  const wide = columnsOf(props.part)
  const c = where === 'edge' ? wide : Math.min(props.here.c, wide - by.value)
  if (doing === 'insert')
    emit('steps', 'Widen', [
      insertColumnsStep(props.part, where === 'edge' ? wide : props.here.c, by.value, mat.number),
    ])
  else if (wide > by.value)
    emit('steps', 'Narrow', [
      removeColumnsStep(props.part, where === 'edge' ? wide - by.value : Math.max(0, c), by.value),
    ])
  else emit('says', 'It cannot get narrower in this stitch.')
}
/** The row under the cursor, or the selection, shifted by one; what goes out at one edge comes in at the other. */
function shift(c: number, r: number) {
  const box =
    mat.selection ??
    (c !== 0
      ? { c: 0, r: props.here.r, columns: columnsOf(props.part), rows: 1 }
      : { c: props.here.c, r: 0, columns: 1, rows: rowsOf(props.part) })
  emit('steps', 'Shift', layingSteps(props.part, shiftBox(props.part, box, c, r)))
}
const plural = (n: number, word: string) => (n === 1 ? `a ${word}` : `${n} ${word}s`)
</script>

<template>
  <MatPanel title="Rows and repeats" @close="mat.panel = null">
    <StepCount label="Repeats" :value="part.times" fewer="One repeat fewer" more="One repeat more" @change="repeats" />
    <StepCount
      v-if="grid"
      label="Beads across"
      :value="columnsOf(part)"
      fewer="Narrower"
      more="Wider"
      @change="(by) => columns(by > 0 ? 'insert' : 'remove', 'edge')"
    />
    <StepCount
      v-else
      :label="`Beads in ${line} ${here.r + 1}`"
      :value="ownLength"
      :fewer="`Shorter ${line}`"
      :more="`Longer ${line}`"
      @change="(by) => beadsOfLine(by > 0 ? 'insert' : 'remove', 'end')"
    />
    <p class="quiet">
      At {{ grid ? 'bead row' : line }} {{ here.r + 1 }}, {{ grid ? 'column' : 'bead' }} {{ here.c + 1 }}, in the
      {{ at.section }} section:
    </p>
    <div class="pair">
      <button type="button" class="button" @click="rows('insert')">Add a {{ grid ? 'row' : line }}</button
      ><button type="button" class="button" @click="rows('remove')">Take it out</button>
    </div>
    <div v-if="!grid" class="pair">
      <button type="button" class="button" @click="beadsOfLine('insert', 'here')">Add a bead</button
      ><button type="button" class="button" @click="beadsOfLine('remove', 'here')">Take it out</button>
    </div>
    <div v-else class="pair">
      <button type="button" class="button" @click="columns('insert', 'here')">Add {{ plural(by, 'column') }}</button
      ><button type="button" class="button" @click="columns('remove', 'here')">
        Take {{ by === 1 ? 'it' : 'them' }} out
      </button>
    </div>
    <p class="quiet">
      Shift {{ mat.selection ? 'the selection' : grid ? 'this row or column' : `this ${line}` }} by one:
    </p>
    <div class="shift">
      <button type="button" class="button" @click="shift(-1, 0)">across −</button
      ><button type="button" class="button" @click="shift(1, 0)">across +</button
      ><button type="button" class="button" @click="shift(0, -1)">along −</button
      ><button type="button" class="button" @click="shift(0, 1)">along +</button>
    </div>
    <p v-if="by > 1" class="quiet">This stitch is widened by {{ by }} columns at a time.</p>
  </MatPanel>
</template>

<style scoped>
.pair,
.shift {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.pair .button,
.shift .button {
  padding: 0 8px;
  font-size: 14px;
}
</style>
