<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { boxBetween, clampBox, copyClip, mirrorBox } from '#core/pattern/clip'
import { insertColumnsStep, insertRowsStep, layingSteps, removeColumnsStep, removeRowsStep, setStep } from '#core/piece/edit'
import { columnsOf, countedRows, locateRow, numberAt, rowsOf, techniqueOf, workOf, type Part } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import { requireSpec } from '#core/bead/spec'
import { beadCounts, countCells, tallyPart, tallyPiece, totalOf } from '#core/tally/tally'
import { rowWords } from '#core/tally/words'
import { columnStepOf } from '#core/piece/recast'
import { cellsFrom } from '#core/grid/cells'
import { LIMITS } from '#core/piece/schema'
import { showNumber } from '#core/units/length'
import { useLengths } from '../../../composables/lengths'
import { boxSteps, TOOLS, toolOf, type Outcome, type ToolId } from '../../../mat/tool/tool'
import { useMat } from '../../../stores/mat'
import { usePiece } from '../../../stores/piece'
import MatCanvas from '../../../mat/MatCanvas.vue'
import BeadDialog from '../../../components/BeadDialog.vue'
import BeadDishes from '../../../components/BeadDishes.vue'
import FitAnswer from '../../../components/FitAnswer.vue'
import RowWords from '../../../components/RowWords.vue'

const store = usePiece()
const mat = useMat()
const { length } = useLengths()
const canvas = ref<InstanceType<typeof MatCanvas>>()
const toast = ref('')
const editing = ref<number | 'new' | null>(null)
const rowsOpen = ref(false)

const piece = computed(() => store.piece!)
const part = computed<Part>(() => piece.value.parts.find(p => p.id === mat.part) ?? piece.value.parts[0]!)
watch(() => piece.value.tray, (tray) => { if (!tray.some(b => b.number === mat.number)) mat.number = tray[0]?.number ?? 0 }, { immediate: true })

function commit(label: string, steps: readonly Step[]): boolean {
  const problem = store.commit(label, steps)
  if (problem) toast.value = problem
  return problem === null && steps.length > 0
}

// ---- tools
let before: ToolId = 'lay'
function choose(tool: ToolId) {
  if (tool === 'paste' && !mat.clip) { toast.value = 'Nothing is copied yet: select a box and copy it first.'; return }
  if (tool === 'take' && mat.tool !== 'take') before = mat.tool
  mat.tool = tool
}

function outcome(result: Outcome) {
  if (result.take !== undefined) {
    if (result.take !== 0) mat.number = result.take
    mat.tool = before
    return
  }
  if (result.select !== undefined) {
    mat.selection = result.select && clampBox(part.value, result.select)
    return
  }
  commit(result.label, result.steps)
}

// ---- selection
const selected = computed(() => {
  const box = mat.selection && clampBox(part.value, mat.selection)
  if (!box) return null
  const clip = copyClip(part.value, box)
  const counts = countCells(cellsFrom(box.columns, box.rows, clip.numbers))
  const technique = techniqueOf(part.value)
  return { box, beads: totalOf(counts), rows: countedRows(part.value, box.rows), counts: beadCounts(piece.value.tray, counts).filter(b => b.count > 0), lengthMm: technique.lengthOf(workOf(part.value, box.rows)) }
})

function copy(cut = false) {
  if (!selected.value) { toast.value = 'Select a box of beads first.'; return }
  mat.clip = copyClip(part.value, selected.value.box)
  if (cut) commit('Cut', boxSteps(part.value, selected.value.box, 0))
  toast.value = cut ? 'Cut. Choose “Set down” and press where it belongs.' : 'Copied. Choose “Set down” and press where it belongs.'
}
const mirror = (way: 'across' | 'along') => { if (selected.value) commit('Mirror', layingSteps(part.value, mirrorBox(part.value, selected.value.box, way))) }
const fill = (number: number) => { if (selected.value) commit(number ? 'Fill box' : 'Clear box', boxSteps(part.value, selected.value.box, number)) }
const selectAll = () => { mat.selection = boxBetween({ c: 0, r: 0 }, { c: columnsOf(part.value) - 1, r: rowsOf(part.value) - 1 }) }

// ---- rows, columns and repeats
const here = computed(() => mat.cursor ?? (mat.selection ? { c: mat.selection.c, r: mat.selection.r } : { c: 0, r: Math.min(rowsOf(part.value) - 1, part.value.start.rows) }))
function rows(doing: 'insert' | 'remove') {
  const p = part.value
  if (rowsOf(p) === 0) { commit('Add rows', [insertRowsStep(p, 'repeat', 0, 1, mat.number)]); return }
  const { section, row } = locateRow(p, here.value.r)
  if (doing === 'insert') commit('Add a row', [insertRowsStep(p, section, row, 1, mat.number)])
  else if (section === 'repeat' && p.repeat.rows === 1) toast.value = 'The repeat needs at least one row.'
  else commit('Take a row out', [removeRowsStep(p, section, row, 1)])
}
const columnStep = computed(() => columnStepOf(part.value))
function columns(doing: 'insert' | 'remove') {
  const p = part.value
  const n = columnStep.value
  if (doing === 'insert') commit('Widen', [insertColumnsStep(p, columnsOf(p), n, mat.number)])
  else if (columnsOf(p) > n) commit('Narrow', [removeColumnsStep(p, columnsOf(p) - n, n)])
  mat.selection = null
}
function repeats(change: number) {
  const times = Math.max(0, Math.min(LIMITS.times, part.value.times + change))
  if (times !== part.value.times) commit('Repeats', [setStep(piece.value, ['parts', part.value.id, 'times'], times)])
}
/** Makes the selected rows the repeat: what comes before and after becomes start and end. */
function repeatFromSelection() {
  const box = selected.value?.box
  if (!box) { toast.value = 'Select the rows that should repeat first.'; return }
  const p = part.value
  const first = locateRow(p, box.r)
  const last = locateRow(p, box.r + box.rows - 1)
  if (first.section !== last.section || first.section === 'repeat') { toast.value = 'Select rows inside the start or the end section to make them the repeat.'; return }
  const chosen = copyClip(p, { c: 0, r: box.r, columns: columnsOf(p), rows: box.rows })
  commit('New repeat', [
    removeRowsStep(p, first.section, first.row, box.rows),
    insertRowsStep(p, 'repeat', p.repeat.rows, box.rows, Uint16Array.from(chosen.numbers)),
    removeRowsStep(p, 'repeat', 0, p.repeat.rows),
  ])
  mat.selection = null
}

function dishKeys(event: KeyboardEvent): boolean {
  const tray = piece.value.tray
  const digit = Number(event.key)
  const at = tray.findIndex(b => b.number === mat.number)
  if (digit >= 1 && digit <= 9 && tray[digit - 1]) { mat.number = tray[digit - 1]!.number; return true }
  if (event.key === '.' || event.key === ',') { mat.number = tray[(at + (event.key === '.' ? 1 : tray.length - 1)) % tray.length]!.number; return true }
  return false
}

function undo(way: 'undo' | 'redo') {
  const problem = way === 'undo' ? store.undo() : store.redo()
  if (problem) toast.value = problem
}

const COMMANDS: Record<string, () => void> = {
  z: () => undo('undo'), y: () => undo('redo'), c: () => copy(), x: () => copy(true), v: () => choose('paste'), a: selectAll,
}
const PLAIN: Record<string, () => void> = {
  '+': () => canvas.value?.zoom(1.25), '-': () => canvas.value?.zoom(0.8), 'a': () => canvas.value?.showAll(), 'e': () => canvas.value?.showTrue(), 'q': () => canvas.value?.showBead(),
  'g': () => { mat.glyphs = !mat.glyphs }, 'm': () => mirror('across'), 'k': () => mirror('along'), 'Delete': () => fill(0), 'Escape': () => { mat.selection = null },
}
function keys(event: KeyboardEvent) {
  const target = event.target as HTMLElement
  if (target.closest('input, textarea, select, [role="dialog"], [role="listbox"], .v-overlay')) return
  const command = event.ctrlKey || event.metaKey
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  if (command && COMMANDS[key]) {
    event.preventDefault()
    if (key === 'z' && event.shiftKey) undo('redo')
    else COMMANDS[key]()
    return
  }
  if (command || event.altKey) return
  const tool = TOOLS.find(t => t.key.toLowerCase() === key)
  if (tool) choose(tool.id)
  else if (PLAIN[key]) PLAIN[key]()
  else if (!dishKeys(event)) return
  event.preventDefault()
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => { window.removeEventListener('keydown', keys); mat.hover = null })

// ---- answers
const counts = computed(() => beadCounts(piece.value.tray, tallyPiece(piece.value)))
const beads = computed(() => counts.value.reduce((sum, b) => sum + b.count, 0))
const words = computed(() => {
  const at = mat.hover ?? mat.cursor ?? { c: 0, r: 0 }
  if (rowsOf(part.value) === 0) return null
  const inside = { c: Math.min(at.c, columnsOf(part.value) - 1), r: Math.min(at.r, rowsOf(part.value) - 1) }
  const technique = techniqueOf(part.value)
  return rowWords(part.value, technique.workingRowOf(inside, { columns: columnsOf(part.value), settings: part.value.settings }))
})
const partBeads = (p: Part) => totalOf(tallyPart(p))
const underHand = computed(() => {
  const at = mat.hover
  if (!at) return ''
  const bead = piece.value.tray.find(b => b.number === numberAt(part.value, at.c, at.r))
  return bead ? `${bead.letter} ${bead.name}` : 'empty'
})
</script>

<template>
  <main class="desk">
    <h2 class="hidden">Mat</h2>
    <div class="work">
      <div class="tools" role="toolbar" aria-label="Tools">
        <button
          v-for="t in TOOLS" :key="t.id" type="button" class="tool" :class="{ on: mat.tool === t.id }" :aria-pressed="mat.tool === t.id" :aria-keyshortcuts="t.key" :title="t.hint"
          @click="choose(t.id)"
        >
          {{ t.label }} <kbd aria-hidden="true">{{ t.key }}</kbd>
        </button>
      </div>
      <MatCanvas ref="canvas" class="canvas" :piece="piece" :part="part" @outcome="outcome" />
      <div class="turns" role="toolbar" aria-label="Undo and view">
        <button type="button" class="tool" :disabled="!store.canUndo" :title="store.canUndo ? `Undo: ${store.canUndo} (Ctrl Z)` : 'Nothing to undo'" @click="undo('undo')">Undo</button>
        <button type="button" class="tool" :disabled="!store.canRedo" :title="store.canRedo ? `Redo: ${store.canRedo} (Ctrl Y)` : 'Nothing to redo'" @click="undo('redo')">Redo</button>
        <span class="gap" />
        <button type="button" class="tool" aria-label="Closer" title="Closer (+)" @click="canvas?.zoom(1.25)">+</button>
        <button type="button" class="tool" aria-label="Further" title="Further (−)" @click="canvas?.zoom(0.8)">−</button>
        <button type="button" class="tool" title="The whole piece (A)" @click="canvas?.showAll()">All</button>
        <button type="button" class="tool" title="One bead, close (Q)" @click="canvas?.showBead()">Bead</button>
        <button type="button" class="tool" title="True size on the screen (E)" @click="canvas?.showTrue()">True size</button>
        <button type="button" class="tool" title="Lay the band the other way on the screen" @click="mat.lie = mat.lie === 'along' ? 'down' : 'along'">Turn</button>
        <button type="button" class="tool" :class="{ on: mat.glyphs }" :aria-pressed="mat.glyphs" title="Glyphs on the beads (G)" @click="mat.glyphs = !mat.glyphs">Glyphs</button>
        <button type="button" class="tool" :class="{ on: rowsOpen }" :aria-expanded="rowsOpen" @click="rowsOpen = !rowsOpen">Rows</button>
      </div>
      <p class="hint quiet">{{ toolOf(mat.tool).hint }} <b v-if="underHand">Here: {{ underHand }}</b></p>
      <p class="hidden" role="status" aria-live="polite">{{ mat.says }}</p>
    </div>

    <aside class="answers" aria-label="Answers">
      <section v-if="rowsOpen" class="rows-panel" aria-label="Rows and repeats">
        <h3>Rows and repeats</h3>
        <div class="adjust"><span>Repeats</span><span class="set"><button type="button" aria-label="One repeat fewer" @click="repeats(-1)">−</button><b>{{ part.times }}</b><button type="button" aria-label="One repeat more" @click="repeats(1)">+</button></span></div>
        <div class="adjust"><span>Beads across</span><span class="set"><button type="button" aria-label="Narrower" @click="columns('remove')">−</button><b>{{ columnsOf(part) }}</b><button type="button" aria-label="Wider" @click="columns('insert')">+</button></span></div>
        <p class="quiet">At bead row {{ here.r + 1 }}, in the {{ rowsOf(part) ? locateRow(part, here.r).section : 'repeat' }} section:</p>
        <div class="pair"><button type="button" class="button" @click="rows('insert')">Add a row</button><button type="button" class="button" @click="rows('remove')">Take it out</button></div>
      </section>
      <h3 class="ask">Will it close?</h3>
      <FitAnswer :piece="piece" :part="piece.parts[0]!" />
      <div class="figures">
        <div><span class="quiet">Beads</span><span class="figure big" data-test="beads">{{ showNumber(beads) }}</span></div>
        <div><span class="quiet">Rows</span><span class="figure big">{{ showNumber(countedRows(part)) }}</span></div>
      </div>
      <h3 class="ask">Of what</h3>
      <table class="list">
        <caption class="hidden">Beads by tray, with grams</caption>
        <tbody>
          <tr v-for="row in counts" :key="row.bead.number" :class="{ none: row.count === 0 }">
            <th scope="row"><span class="swatch" :style="{ '--bead': row.bead.colour }" /> <b>{{ row.bead.letter }}</b> {{ row.bead.name }}</th>
            <td class="number">{{ row.count ? showNumber(row.count) : 'unused' }}</td>
            <td class="number soft">{{ row.count ? `${showNumber(row.grams, 1)} g` : '' }}</td>
          </tr>
        </tbody>
      </table>
      <section v-if="selected" class="selected" aria-label="Selection">
        <h3 class="ask">Selected: {{ selected.box.columns }} across, {{ selected.rows }} rows</h3>
        <p><span class="figure mid" data-test="selected">{{ showNumber(selected.beads) }}</span> beads · {{ length(selected.lengthMm, 1) }} long</p>
        <p class="quiet">{{ selected.counts.map(b => `${b.count} ${b.bead.letter}`).join(' · ') }}</p>
        <div class="acts">
          <button type="button" class="link" @click="copy()">Copy</button><button type="button" class="link" @click="copy(true)">Cut</button>
          <button type="button" class="link" title="M" @click="mirror('across')">Mirror across</button><button type="button" class="link" title="K" @click="mirror('along')">Mirror along</button>
          <button type="button" class="link" @click="fill(mat.number)">Fill</button><button type="button" class="link" title="Delete" @click="fill(0)">Clear</button>
          <button type="button" class="link" @click="repeatFromSelection">Make it the repeat</button><button type="button" class="link" title="Escape" @click="mat.selection = null">Let go</button>
        </div>
      </section>
      <p v-if="piece.parts.length > 1" class="quiet">
        Parts: <button v-for="p in piece.parts" :key="p.id" type="button" class="link part" :aria-pressed="p.id === part.id" @click="mat.part = p.id">{{ p.name }} ({{ partBeads(p) }} × {{ requireSpec(p.spec).name }})</button>
      </p>
    </aside>

    <div class="below">
      <BeadDishes class="dishes" :piece="piece" :chosen="mat.number" :glyphs="mat.glyphs" @choose="n => mat.number = n" @edit="n => editing = n" @add="editing = 'new'" />
      <div v-if="words" class="spoken" aria-label="Words of the row" tabindex="0" role="group"><RowWords :words="words" :piece="piece" /></div>
    </div>

    <BeadDialog :piece="piece" :number="editing" :spec="part.spec" @close="editing = null" @steps="(label, steps, pick) => { if (commit(label, steps) && pick) mat.number = pick }" />
    <VSnackbar :model-value="toast !== ''" :timeout="4000" location="top" @update:model-value="v => { if (!v) toast = '' }">{{ toast }}</VSnackbar>
  </main>
</template>

<style scoped>
.desk { flex: none; height: calc(100dvh - 70px); display: grid; grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 276px; gap: 10px 20px; padding: 0 16px 10px; }
.work { position: relative; min-height: 320px; grid-area: 1 / 1; min-width: 0; }
.canvas { position: absolute; inset: 0; }
.tools, .turns { position: absolute; z-index: 2; left: 12px; top: 12px; display: flex; gap: 2px; padding: 4px; background: var(--paper); border-radius: 14px; box-shadow: var(--shadow); max-width: calc(100% - 24px); overflow-x: auto; scrollbar-width: none; }
.turns { top: auto; bottom: 10px; }
.gap { width: 10px; flex: none; }
.tool { flex: none; display: inline-flex; align-items: center; gap: 6px; min-height: 38px; min-width: 32px; padding: 0 11px; border: 0; border-radius: 10px; background: none; color: var(--ink); font: 500 14.5px/1 var(--text); cursor: pointer; justify-content: center; }
.tool:hover { background: color-mix(in srgb, var(--ink) 8%, transparent); }
.tool:disabled { color: var(--soft); opacity: 0.55; cursor: default; }
.tool kbd { font: 12px/1 var(--text); color: var(--soft); }
.on, .on:hover { background: var(--dark); color: var(--dark-ink); }
.on kbd { color: inherit; opacity: 0.75; }
.turns .tool { min-height: 34px; padding: 0 9px; font-size: 13.5px; }
.hint { position: absolute; left: 20px; top: 64px; pointer-events: none; color: var(--ink); max-width: calc(100% - 40px); }
.answers { grid-area: 1 / 2; overflow-y: auto; display: flex; flex-direction: column; gap: 10px; padding: 2px 2px 2px 0; scrollbar-width: thin; }
.ask { font: 400 14px/1.2 var(--text); color: var(--soft); }
.figures { display: flex; gap: 28px; padding: 4px 0; }
.figures > div { display: grid; gap: 4px; }
.big { font-size: 40px; }
.mid { font-size: 26px; }
.list { width: 100%; font-size: 14.5px; }
.list td, .list th { padding: 6px 0; border-bottom: 1px solid var(--line); }
.list th { color: var(--ink); }
.list td { padding-inline-start: 8px; white-space: nowrap; }
.none td { color: var(--soft); }
.selected { border-top: 2px dashed var(--edge); padding-top: 10px; display: grid; gap: 6px; }
.acts { display: flex; flex-wrap: wrap; gap: 4px 16px; }
.acts .link { min-height: 32px; }
.part { margin-inline-end: 10px; }
.part[aria-pressed='true'] { font-weight: 700; }
.rows-panel { background: var(--paper); border-radius: var(--round); padding: 14px; display: grid; gap: 10px; }
.adjust { display: flex; justify-content: space-between; align-items: center; }
.set { display: inline-flex; align-items: center; gap: 4px; }
.set b { min-width: 44px; text-align: center; font: 700 20px/1 var(--title); }
.set button { width: 40px; height: 40px; border: 0; border-radius: 10px; background: var(--ground); color: var(--ink); font-size: 20px; cursor: pointer; }
.pair { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; }
.pair .button { padding: 0 8px; font-size: 14px; }
.below { grid-column: 1 / -1; display: grid; grid-template-columns: minmax(0, auto) minmax(280px, 1fr); gap: 16px; align-items: stretch; min-width: 0; }
.spoken { background: var(--paper); border-radius: var(--round); padding: 8px 18px; display: flex; align-items: center; min-width: 0; max-height: 84px; overflow-y: auto; }

@media (width <= 900px) {
  .desk { height: auto; grid-template: auto / minmax(0, 1fr); padding: 0 10px 10px; }
  .work { height: max(360px, 58dvh); grid-area: auto; }
  .tool kbd { display: none; }
  .hint { display: none; }
  .tool { min-height: 44px; }
  .turns .tool { min-height: 40px; }
  .answers { order: 3; grid-area: auto; }
  .below { order: 2; grid-template-columns: minmax(0, 1fr); gap: 8px; }
  .spoken { min-height: 62px; max-height: 108px; }
}
</style>
