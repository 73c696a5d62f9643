<script setup lang="ts">
import { computed } from 'vue'
import { cellsFrom } from '#core/grid/cells'
import { copyClip, mirrorBox, repeatBox, turnBox } from '#core/pattern/clip'
import type { Box } from '#core/technique/lattice'
import { copyLinesStep, layingSteps, removeLinesStep, type Laying } from '#core/piece/edit'
import { countedRows, locateRow, techniqueOf, workOf, type Part, type Piece } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import { beadCounts, countCells, totalOf } from '#core/tally/tally'
import { useLengths } from '../../composables/lengths'
import { useMat } from '../../stores/mat'
import { boxSteps } from '../tool/tool'

/** What is selected: how many, how long, and what can be done with it. */
const props = defineProps<{ piece: Piece; part: Part; box: Box }>()
const emit = defineEmits<{
  steps: [label: string, steps: readonly Step[]]
  says: [text: string]
  copy: [cut: boolean]
}>()
const mat = useMat()
const { length } = useLengths()

const found = computed(() => {
  const { box, part } = props
  const counts = countCells(cellsFrom(box.columns, box.rows, copyClip(part, box).numbers))
  return {
    beads: totalOf(counts),
    rows: countedRows(part, box.rows),
    counts: beadCounts(props.piece.tray, counts).filter((b) => b.count > 0),
    lengthMm: techniqueOf(part).growth.lengthOf(workOf(part, box.rows)),
  }
})
const lay = (label: string, laying: Laying) => emit('steps', label, layingSteps(props.part, laying))

/** Makes the selected rows the repeat: what comes before and after becomes start and end. */
function makeRepeat() {
  const { part, box } = props
  const first = locateRow(part, box.r)
  const last = locateRow(part, box.r + box.rows - 1)
  if (first.section !== last.section || first.section === 'repeat') {
    emit('says', 'Select rows inside the start or the end section to make them the repeat.')
    return
  }
  emit('steps', 'New repeat', [
    removeLinesStep(part, first.section, first.row, box.rows),
    copyLinesStep(part, 'repeat', part.repeat.rows, first.section, first.row, box.rows),
    removeLinesStep(part, 'repeat', 0, part.repeat.rows),
  ])
  mat.selection = null
}
</script>

<template>
  <section class="selected" aria-label="Selection">
    <h3 class="ask">Selected: {{ box.columns }} across, {{ found.rows }} rows</h3>
    <p>
      <span class="figure mid" data-test="selected">{{ found.beads }}</span> beads ·
      {{ length(found.lengthMm, 1) }} long
    </p>
    <p class="quiet">{{ found.counts.map((b) => `${b.count} ${b.bead.letter}`).join(' · ') }}</p>
    <div class="acts">
      <button type="button" class="link" @click="emit('copy', false)">Copy</button
      ><button type="button" class="link" @click="emit('copy', true)">Cut</button>
      <button type="button" class="link" title="M" @click="lay('Mirror', mirrorBox(part, box, 'across'))">
        Mirror across</button
      ><button type="button" class="link" title="K" @click="lay('Mirror', mirrorBox(part, box, 'along'))">
        Mirror along
      </button>
      <button type="button" class="link" @click="lay('Half turn', turnBox(part, box))">Half turn</button>
      <button type="button" class="link" @click="lay('Repeat across', repeatBox(part, box, 'across'))">
        Repeat across</button
      ><button type="button" class="link" @click="lay('Repeat along', repeatBox(part, box, 'along'))">
        Repeat along
      </button>
      <button type="button" class="link" @click="emit('steps', 'Fill box', boxSteps(part, box, mat.number))">
        Fill</button
      ><button type="button" class="link" title="Delete" @click="emit('steps', 'Clear box', boxSteps(part, box, 0))">
        Clear
      </button>
      <button type="button" class="link" @click="makeRepeat">Make it the repeat</button
      ><button type="button" class="link" @click="mat.panel = 'stamps'">Keep as a stamp</button
      ><button type="button" class="link" title="Escape" @click="mat.selection = null">Let go</button>
    </div>
  </section>
</template>

<style scoped>
.selected {
  border-top: 2px dashed var(--edge);
  padding-top: 10px;
  display: grid;
  gap: 6px;
}
.ask {
  font: 400 14px/1.2 var(--text);
  color: var(--soft);
}
.mid {
  font-size: 26px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
.acts .link {
  min-height: 32px;
}
</style>
