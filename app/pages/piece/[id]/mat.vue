<script setup lang="ts">
import { discOf, isCounted, linesWord } from '#core/piece/nature'
import { isRope } from '#core/piece/drawing'
import { titled } from '#core/technique/technique'
import { useMediaQuery } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { clampBox, copyClip, mirrorBox } from '#core/pattern/clip'
import { wholeBox } from '#core/pattern/plan'
import { SYMMETRIES, symmetryOf } from '#core/pattern/symmetry'
import { layingSteps } from '#core/piece/edit'
import { laidCounted } from '#core/piece/laid'
import {
  columnsOf,
  fittedPart,
  numberAt,
  rowsOf,
  techniqueOf,
  type Part,
  type Piece,
  lengthOfLine,
  workOf,
} from '#core/piece/piece'
import { followBox, followed, followPlace } from '#core/piece/follow'
import { applyStep, type Step } from '#core/piece/step'
import { asSeen } from '#core/colour/vision'
import { feelQuestion } from '#core/fit/feel'
import { partFindings } from '#core/proof/finding'
import { markedLines } from '#core/proof/marks'
import { wanting } from '#core/proof/proof'

import { beadCounts, tallyPiece } from '#core/tally/tally'
import { rowWords } from '#core/tally/words'
import { showNumber } from '#core/units/length'
import { boxSteps, TOOLS, toolOf, type Outcome, type ToolId } from '../../../mat/tool/tool'
import { useDayOrEvening } from '../../../composables/theme'
import { belongsElsewhere, hasSelectedText, isCommand } from '../../../composables/keys'
import { useAccount } from '../../../stores/account'
import { useMat, type Panel } from '../../../stores/mat'
import { usePiece } from '../../../stores/piece'
import { useProof } from '../../../stores/proof'
import BentView from '../../../mat/BentView.vue'
import RopeView from '../../../mat/RopeView.vue'
import MatCanvas from '../../../mat/MatCanvas.vue'
import PartsPanel from '../../../mat/panel/PartsPanel.vue'
import PicturePanel from '../../../mat/panel/PicturePanel.vue'
import PatternPanel from '../../../mat/panel/PatternPanel.vue'
import RopePanel from '../../../mat/panel/RopePanel.vue'
import RowsPanel from '../../../mat/panel/RowsPanel.vue'
import SelectionPanel from '../../../mat/panel/SelectionPanel.vue'
import SlotsPanel from '../../../mat/panel/SlotsPanel.vue'
import StrandsPanel from '../../../mat/panel/StrandsPanel.vue'
import StampsPanel from '../../../mat/panel/StampsPanel.vue'
import RecipeBoard from '../../../mat/recipe/RecipeBoard.vue'
import RecipePanel from '../../../mat/recipe/RecipePanel.vue'
import { recipeWork } from '../../../mat/recipe/work'
import TrayPanel from '../../../mat/panel/TrayPanel.vue'
import ViewsPanel from '../../../mat/panel/ViewsPanel.vue'
import BeadDialog from '../../../components/BeadDialog.vue'
import CordList from '../../../components/CordList.vue'
import BeadDishes from '../../../components/BeadDishes.vue'
import FitAnswer from '../../../components/FitAnswer.vue'
import LitFinding from '../../../components/LitFinding.vue'
import RowWords from '../../../components/RowWords.vue'

const store = usePiece()
const account = useAccount()
const mat = useMat()
const canvas = ref<InstanceType<typeof MatCanvas>>()
const toast = ref('')
const editing = ref<number | 'new' | null>(null)

mat.begin(store.id)
const piece = computed(() => store.piece!)
const part = computed<Part>(() => {
  const found = piece.value.parts.find((p) => p.id === mat.part) ?? fittedPart(piece.value)
  return mat.chart && techniqueOf(found).charts?.some((c) => c.id === mat.chart)
    ? { ...found, chart: mat.chart }
    : found
})
watch(
  () => piece.value.tray,
  (tray) => {
    if (!tray.some((b) => b.number === mat.number)) mat.number = tray[0]?.number ?? 0
  },
  { immediate: true },
)

function commit(label: string, steps: readonly Step[]): boolean {
  const before = piece.value
  const problem = store.commit(label, steps)
  if (problem) toast.value = problem
  else if (steps.some((s) => s.type === 'rows' || s.type === 'columns')) moveAlong(before, steps)
  return problem === null && steps.length > 0
}

/** The cursor and the selection move along with the rows and columns that they lie on. */
function moveAlong(before: Piece, steps: readonly Step[]) {
  const apply = (p: Piece, step: Step) => {
    const next = applyStep(p, step)
    return next.ok ? next.value : null
  }
  if (mat.cursor) mat.cursor = followed(before, part.value.id, steps, apply, mat.cursor, followPlace)
  if (mat.selection) mat.selection = followed(before, part.value.id, steps, apply, mat.selection, followBox)
}

// ---- tools
let before: ToolId = 'lay'
function choose(tool: ToolId) {
  if (tool === 'move' && !box.value) {
    toast.value = 'Select a box of beads first, then drag it.'
    mat.tool = 'select'
    return
  }
  if (tool === 'paste' && !mat.clip) {
    toast.value = 'Nothing is copied yet: select a box and copy it first.'
    return
  }
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
    if (result.steps.length === 0) return
  }
  commit(result.label, result.steps)
}

// ---- selection
const box = computed(() => mat.selection && clampBox(part.value, mat.selection))

function copy(cut = false) {
  if (!box.value) {
    toast.value = 'Select a box of beads first.'
    return
  }
  mat.clip = copyClip(part.value, box.value)
  if (cut) commit('Cut', boxSteps(part.value, box.value, 0))
  toast.value = cut
    ? 'Cut. Choose “Set down” and press where it belongs.'
    : 'Copied. Choose “Set down” and press where it belongs.'
}
const mirror = (way: 'across' | 'along') => {
  if (box.value) commit('Mirror', layingSteps(part.value, mirrorBox(part.value, box.value, way)))
}
const selectAll = () => {
  mat.selection = wholeBox(part.value)
}

// ---- panels
const here = computed(
  () =>
    mat.cursor ??
    (mat.selection
      ? { c: mat.selection.c, r: mat.selection.r }
      : { c: 0, r: Math.max(0, Math.min(rowsOf(part.value) - 1, part.value.start.rows)) }),
)
const PANELS: readonly { readonly id: Panel; readonly label: string; readonly key: string; readonly says: string }[] =
  [
    { id: 'tray', label: 'Tray', key: 'Z', says: 'Order of the beads, unused ones, palettes' },
    {
      id: 'pattern',
      label: 'Patterns',
      key: 'P',
      says: 'Stripes, chevrons, diamonds, blends, borders, letters; on a rope, loadings and graduations',
    },
    { id: 'picture', label: 'Picture', key: 'O', says: 'A photograph or drawing becomes beads' },
    { id: 'stamps', label: 'Stamps', key: 'H', says: 'Small motifs kept for every piece' },
    { id: 'rows', label: 'Rows', key: 'U', says: 'Repeats, rows and columns' },
    { id: 'parts', label: 'Parts', key: 'J', says: 'Parts of the piece' },
    { id: 'slots', label: 'Colours', key: '', says: 'What plays a part: sizes, and colours in sequence' },
    { id: 'strands', label: 'Strands', key: '', says: 'Strands as lists, and the rule that makes them' },
    { id: 'recipe', label: 'Steps', key: '', says: 'The recipe, step by step: change it on the drawing' },
    { id: 'views', label: 'Views', key: 'Y', says: 'Wrong side, as it is worn, chart, colour vision' },
  ]
const answers = ref<HTMLElement>()
/** The recipe as it is worked on. */
const recipe = recipeWork({
  piece: () => piece.value,
  part: () => part.value,
  isOpen: () => mat.panel === 'recipe',
  isLaying: () => store.laying,
  take(label, steps, show) {
    const problem = store.commit(label, steps)
    if (problem === null && show) mat.part = show
    return problem
  },
})
const panels = computed(() =>
  PANELS.filter(
    ({ id }) =>
      (id !== 'recipe' || recipe.side !== null) &&
      (id !== 'strands' || techniqueOf(part.value).strands !== undefined) &&
      (id !== 'slots' || techniqueOf(part.value).picks !== undefined),
  ),
)
const isTold = computed(() => mat.panel === 'recipe' && recipe.side !== null)
async function open(panel: Panel) {
  mat.panel = mat.panel === panel ? null : panel
  await nextTick()
  // On a phone the panel opens further down: bring it into sight.
  if (mat.panel && window.innerWidth <= 900)
    answers.value?.querySelector('.panels')?.scrollIntoView({ block: 'center' })
}
function fromPanel(label: string, steps: readonly Step[], show?: string) {
  if (commit(label, steps) && show) mat.part = show
}

/** The next live symmetry that the stitch has, from the one that is on. */
function nextSymmetry() {
  const missing: string[] = []
  for (let k = 1; k <= SYMMETRIES.length; k++) {
    const kind = SYMMETRIES[(SYMMETRIES.indexOf(mat.symmetry) + k) % SYMMETRIES.length]!
    const found = symmetryOf(part.value, kind, Math.max(0, Math.min(here.value.r, rowsOf(part.value) - 1)))
    if (found.ok) {
      mat.symmetry = kind
      break
    }
    missing.push(kind)
  }
  if (missing.length > 0)
    toast.value = `This stitch has no symmetry ${missing.join(' or ')}: its beads would fall into gaps.`
}

function dishKeys(event: KeyboardEvent): boolean {
  const tray = piece.value.tray
  const digit = Number(event.key)
  const at = tray.findIndex((b) => b.number === mat.number)
  if (digit >= 1 && digit <= 9 && tray[digit - 1]) {
    mat.number = tray[digit - 1]!.number
    return true
  }
  if (event.key === '.' || event.key === ',') {
    mat.number = tray[(at + (event.key === '.' ? 1 : tray.length - 1)) % tray.length]!.number
    return true
  }
  return false
}

const COMMANDS: Record<string, () => void> = {
  c: () => copy(),
  x: () => copy(true),
  v: () => choose('paste'),
  a: selectAll,
}
const PLAIN: Record<string, () => void> = {
  '+': () => canvas.value?.zoom(1.25),
  '-': () => canvas.value?.zoom(0.8),
  'a': () => canvas.value?.showAll(),
  'e': () => canvas.value?.showTrue(),
  'q': () => canvas.value?.showBead(),
  'g': () => {
    mat.glyphs = !mat.glyphs
  },
  'm': () => mirror('across'),
  'k': () => mirror('along'),
  'x': nextSymmetry,
  'Delete': () => {
    if (box.value) commit('Clear box', boxSteps(part.value, box.value, 0))
  },
  'Escape': () => {
    mat.selection = null
  },
}
/**
 * Keys act while the work has the focus: the mat and its tools, the dishes, the names of the panels (WCAG 2.1.4). From
 * beside it Escape leads back.
 */
function keys(event: KeyboardEvent) {
  const from = event.target as HTMLElement
  if (belongsElsewhere(event)) return
  if (!from.closest('.work, .dishes, .panels, .turns')) {
    if (event.key !== 'Escape' || !from.closest('.desk')) return
    mat.selection = null
    canvas.value?.focus()
    return
  }
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  if (isCommand(event)) {
    if (!COMMANDS[key] || (key === 'c' && hasSelectedText())) return
    event.preventDefault()
    COMMANDS[key]()
    return
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key.length === 1 && account.account?.settings.letters === 'off') return
  const tool = TOOLS.find((t) => t.key.toLowerCase() === key)
  if (tool) choose(tool.id)
  else if (PLAIN[key]) PLAIN[key]()
  else if (PANELS.some((p) => p.key.toLowerCase() === key)) open(PANELS.find((p) => p.key.toLowerCase() === key)!.id)
  else if (!dishKeys(event)) return
  event.preventDefault()
}
onMounted(() => {
  window.addEventListener('keydown', keys)
  canvas.value?.focus()
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', keys)
  mat.hover = null
  mat.ghost = null
})
watch(
  () => part.value.id,
  () => {
    mat.cursor = null
    mat.selection = null
    mat.hover = null
  },
)
const theme = useDayOrEvening()
const seenTray = computed(() => piece.value.tray.map((b) => ({ ...b, colour: asSeen(b.colour, mat.vision) })))

// ---- said to those who listen: after a change, what it has changed
const spoken = (...parts: (string | undefined)[]) => mat.say(parts.filter(Boolean).join('. '))
watch(
  piece,
  () => {
    spoken(store.did, mat.cursor ? canvas.value?.placeWords(mat.cursor) : undefined)
  },
  { flush: 'post' },
)
watch(
  () => mat.tool,
  () => {
    spoken(toolOf(mat.tool).label, toolOf(mat.tool).hint)
  },
)
watch(
  () => mat.symmetry,
  () => {
    spoken(mat.symmetry === 'none' ? 'No symmetry' : `Symmetry: ${mat.symmetry}`)
  },
)
watch(
  () => mat.number,
  () => {
    const bead = piece.value.tray.find((b) => b.number === mat.number)
    spoken(bead && `${bead.letter} ${bead.name} in hand`)
  },
)

// ---- the proofreader
const proof = useProof()
const marked = computed(() => markedLines(part.value, wanting({ open: proof.open })))
/** Beside the figures; where the page is narrow right below the mat. */
const narrow = useMediaQuery('(width <= 900px)')
const lit = computed(() => mat.lit?.part === part.value.id)
// What is lit may have moved.
watch(piece, () => {
  mat.lit = null
})

// ---- answers
const findings = computed(() => partFindings(part.value, piece.value))
const counts = computed(() => beadCounts(piece.value.tray, tallyPiece(piece.value)))
const beads = computed(() => counts.value.reduce((sum, b) => sum + b.count, 0))
const words = computed(() => {
  const at = mat.hover ?? mat.cursor ?? { c: 0, r: 0 }
  if (rowsOf(part.value) === 0) return null
  const r = Math.max(0, Math.min(at.r, rowsOf(part.value) - 1))
  const inside = { c: Math.max(0, Math.min(at.c, lengthOfLine(part.value, r) - 1)), r }
  return rowWords(part.value, techniqueOf(part.value).order.rowOf(inside, workOf(part.value)))
})
const underHand = computed(() => {
  const at = mat.hover
  if (!at) return ''
  const bead = piece.value.tray.find((b) => b.number === numberAt(part.value, at.c, at.r))
  return bead ? `${bead.letter} ${bead.name}` : 'empty'
})
</script>

<template>
  <main class="desk" :class="{ paneled: mat.panel !== null, told: isTold }">
    <h2 class="hidden">Mat</h2>
    <div class="work">
      <RecipeBoard v-if="isTold" class="canvas" :work="recipe" />
      <div v-if="!mat.bent && !isTold" class="tools" role="toolbar" aria-label="Tools">
        <button
          v-for="t in TOOLS"
          :key="t.id"
          type="button"
          class="tool"
          :class="{ on: mat.tool === t.id }"
          :aria-pressed="mat.tool === t.id"
          :aria-keyshortcuts="t.key"
          :title="t.hint"
          @click="choose(t.id)"
        >
          {{ t.label }} <kbd aria-hidden="true">{{ t.key }}</kbd>
        </button>
        <button
          type="button"
          class="tool"
          :class="{ on: mat.symmetry !== 'none' }"
          :aria-pressed="mat.symmetry !== 'none'"
          aria-keyshortcuts="X"
          title="Live symmetry: what you lay is laid again across, along, both ways, or turned"
          @click="nextSymmetry"
        >
          Symmetry{{ mat.symmetry === 'none' ? '' : `: ${mat.symmetry}` }} <kbd aria-hidden="true">X</kbd>
        </button>
      </div>
      <RopeView
        v-if="!isTold && mat.bent && isRope(part)"
        class="canvas"
        :part="part"
        :tray="seenTray"
        :tone="mat.tone === 'theme' ? theme : mat.tone"
      />
      <BentView
        v-else-if="!isTold && mat.bent"
        class="canvas"
        :piece="piece"
        :part="part"
        :tray="seenTray"
        :tone="mat.tone === 'theme' ? theme : mat.tone"
      />
      <MatCanvas
        v-else-if="!isTold"
        ref="canvas"
        class="canvas"
        :piece="piece"
        :part="part"
        :marked="marked"
        @outcome="outcome"
      />
      <div v-if="!isTold" class="turns" role="toolbar" aria-label="View">
        <template v-if="!mat.bent">
          <button type="button" class="tool" aria-label="Closer" title="Closer (+)" @click="canvas?.zoom(1.25)">
            +
          </button>
          <button type="button" class="tool" aria-label="Further" title="Further (−)" @click="canvas?.zoom(0.8)">
            −
          </button>
          <button type="button" class="tool" title="The whole piece (A)" @click="canvas?.showAll()">All</button>
          <button type="button" class="tool" title="One bead, close (Q)" @click="canvas?.showBead()">Bead</button>
          <button type="button" class="tool" title="True size on the screen (E)" @click="canvas?.showTrue()">
            True size
          </button>
          <button
            type="button"
            class="tool"
            :class="{ on: mat.glyphs }"
            :aria-pressed="mat.glyphs"
            title="Glyphs on the beads (G)"
            @click="mat.glyphs = !mat.glyphs"
          >
            Glyphs
          </button>
        </template>
        <button v-else type="button" class="tool" @click="mat.bent = false">Lay it flat</button>
      </div>
      <p v-if="!mat.bent && !isTold" class="hint quiet">
        {{ toolOf(mat.tool).hint }} <b v-if="underHand">Here: {{ underHand }}</b>
      </p>
      <p class="hidden" role="status" aria-live="polite">{{ mat.says }}</p>
    </div>

    <aside ref="answers" class="answers" aria-label="Answers">
      <div class="panels" role="toolbar" aria-label="Panels">
        <button
          v-for="p in panels"
          :key="p.id"
          type="button"
          class="tool"
          :class="{ on: mat.panel === p.id }"
          :aria-expanded="mat.panel === p.id"
          :aria-keyshortcuts="p.key || undefined"
          :title="p.key ? `${p.says} (${p.key})` : p.says"
          @click="open(p.id)"
        >
          {{ p.label }}
        </button>
      </div>
      <TrayPanel
        v-if="mat.panel === 'tray'"
        :piece="piece"
        :part="part"
        @steps="fromPanel"
        @says="(t) => (toast = t)"
        @edit="(n) => (editing = n)"
      />
      <RopePanel
        v-else-if="mat.panel === 'pattern' && discOf(part)"
        :piece="piece"
        :part="part"
        @steps="fromPanel"
        @says="(t) => (toast = t)"
      />
      <PatternPanel v-else-if="mat.panel === 'pattern'" :piece="piece" :part="part" @steps="fromPanel" />
      <PicturePanel v-else-if="mat.panel === 'picture'" :piece="piece" :part="part" @steps="fromPanel" />
      <StampsPanel
        v-else-if="mat.panel === 'stamps'"
        :piece="piece"
        :part="part"
        :box="box"
        @steps="fromPanel"
        @says="(t) => (toast = t)"
      />
      <RowsPanel
        v-else-if="mat.panel === 'rows'"
        :piece="piece"
        :part="part"
        :here="here"
        @steps="fromPanel"
        @says="(t) => (toast = t)"
      />
      <PartsPanel
        v-else-if="mat.panel === 'parts'"
        :piece="piece"
        :part="part"
        @steps="fromPanel"
        @says="(t) => (toast = t)"
      />
      <SlotsPanel
        v-else-if="mat.panel === 'slots' && techniqueOf(part).picks"
        :piece="piece"
        :part="part"
        @steps="fromPanel"
        @says="(t) => (toast = t)"
        @close="mat.panel = null"
      />
      <StrandsPanel
        v-else-if="mat.panel === 'strands' && techniqueOf(part).strands"
        :piece="piece"
        :part="part"
        @steps="fromPanel"
        @says="(t) => (toast = t)"
      />
      <RecipePanel
        v-else-if="isTold"
        :work="recipe"
        :piece="piece"
        :part="part"
        @steps="fromPanel"
        @close="mat.panel = null"
      />
      <ViewsPanel v-else-if="mat.panel === 'views'" :part="part" :kind="piece.fit.kind" />
      <h3 class="ask">{{ feelQuestion(piece.fit.kind) }}</h3>
      <FitAnswer :piece="piece" />
      <div class="figures">
        <div v-if="!isCounted(part)">
          <span class="quiet">Strands</span><span class="figure big">{{ columnsOf(part) }}</span>
        </div>
        <div v-else>
          <span class="quiet">Beads</span><span class="figure big" data-test="beads">{{ showNumber(beads) }}</span>
        </div>
        <div>
          <span class="quiet">{{ titled(linesWord(part)) }}</span><span class="figure big">{{
            showNumber(laidCounted(part))
          }}</span>
        </div>
      </div>
      <LitFinding v-if="lit && !narrow" :piece-id="store.id" />
      <p v-for="f in findings" :key="f.says" class="found" :class="{ stops: f.weight === 'stops' }">{{ f.says }}</p>
      <h3 class="ask">Of what</h3>
      <CordList v-if="!isCounted(part)" :piece="piece" :part="part" />
      <table v-else class="list">
        <caption class="hidden">
          Beads by tray, with grams
        </caption>
        <tbody>
          <tr v-for="row in counts" :key="row.bead.number" :class="{ none: row.count === 0 }">
            <th scope="row">
              <span class="swatch" :style="{ '--bead': row.bead.colour }" /> <b>{{ row.bead.letter }}</b>
              {{ row.bead.name }}
            </th>
            <td class="number">{{ row.count ? showNumber(row.count) : 'unused' }}</td>
            <td class="number soft">{{ row.count ? `${showNumber(row.grams, 1)} g` : '' }}</td>
          </tr>
        </tbody>
      </table>
      <SelectionPanel
        v-if="box"
        :piece="piece"
        :part="part"
        :box="box"
        @steps="fromPanel"
        @says="(t) => (toast = t)"
        @copy="copy"
      />
    </aside>

    <div class="below">
      <LitFinding v-if="lit && narrow" :piece-id="store.id" />
      <BeadDishes
        class="dishes"
        :piece="piece"
        :chosen="mat.number"
        :glyphs="mat.glyphs"
        @choose="(n) => (mat.number = n)"
        @edit="(n) => (editing = n)"
        @add="editing = 'new'"
      />
      <div v-if="words" class="spoken" aria-label="Words of the row" tabindex="0" role="group">
        <RowWords :words="words" :piece="piece" brief />
      </div>
    </div>

    <BeadDialog
      :piece="piece"
      :number="editing"
      :spec="part.spec"
      @close="editing = null"
      @steps="
        (label, steps, pick) => {
          if (commit(label, steps) && pick) mat.number = pick
        }
      "
    />
    <VSnackbar
      class="passing"
      :model-value="toast !== ''"
      :timeout="4000"
      location="bottom"
      @update:model-value="
        (v) => {
          if (!v) toast = ''
        }
      "
      >{{ toast }}</VSnackbar
    >
  </main>
</template>

<style scoped>
.desk {
  flex: none;
  height: calc(100dvh - 70px);
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 288px;
  gap: 10px 20px;
  padding: 0 16px 10px;
}
.told {
  grid-template-columns: minmax(0, 1fr) 376px;
}
.work {
  position: relative;
  min-height: 320px;
  grid-area: 1 / 1;
  min-width: 0;
}
.canvas {
  position: absolute;
  inset: 0;
}
.tools,
.turns {
  position: absolute;
  z-index: 2;
  left: 12px;
  top: 12px;
  display: flex;
  gap: 2px;
  padding: 4px;
  background: var(--paper);
  border-radius: 14px;
  box-shadow: var(--shadow);
  max-width: calc(100% - 24px);
  overflow-x: auto;
  scrollbar-width: none;
}
.turns {
  top: auto;
  bottom: 10px;
}
.panels {
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  background: var(--ground);
  padding-bottom: 4px;
}
.tool {
  flex: none;
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 38px;
  min-width: 32px;
  padding: 0 11px;
  border: 0;
  border-radius: 10px;
  background: none;
  color: var(--ink);
  font: 500 14.5px/1 var(--text);
  cursor: pointer;
  justify-content: center;
}
.tool:hover {
  background: color-mix(in srgb, var(--ink) 8%, transparent);
}
.tool:disabled {
  color: var(--soft);
  opacity: 0.55;
  cursor: default;
}
.tool kbd {
  font: 12px/1 var(--text);
  color: var(--soft);
}
.on,
.on:hover {
  background: var(--dark);
  color: var(--dark-ink);
}
.on kbd {
  color: inherit;
  opacity: 0.75;
}
.turns .tool,
.panels .tool {
  min-height: 34px;
  padding: 0 9px;
  font-size: 13.5px;
}
.hint {
  position: absolute;
  left: 14px;
  top: 60px;
  padding: 3px 8px;
  border-radius: 8px;
  background: color-mix(in srgb, var(--mat) 80%, transparent);
  pointer-events: none;
  color: var(--ink);
  max-width: calc(100% - 40px);
}
.answers {
  grid-area: 1 / 2;
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: 2px 2px 2px 0;
  scrollbar-width: thin;
}
.ask {
  font: 400 14px/1.2 var(--text);
  color: var(--soft);
}
.figures {
  display: flex;
  gap: 28px;
  padding: 4px 0;
}
.figures > div {
  display: grid;
  gap: 4px;
}
.big {
  font-size: 40px;
}
.found {
  padding: 8px 12px;
  border-radius: 10px;
  background: var(--paper);
  font-size: 14px;
  line-height: 1.4;
}
.stops {
  background: var(--marigold-wash);
  color: var(--marigold);
}
.list {
  width: 100%;
  font-size: 14.5px;
}
.list td,
.list th {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.list th {
  color: var(--ink);
}
.list td {
  padding-inline-start: 8px;
  white-space: nowrap;
}
.none td {
  color: var(--soft);
}
.below {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: minmax(0, auto) minmax(280px, 1fr);
  gap: 16px;
  align-items: stretch;
  min-width: 0;
}
.spoken {
  background: var(--paper);
  border-radius: var(--round);
  padding: 8px 18px;
  display: flex;
  align-items: safe center;
  min-width: 0;
  max-height: 84px;
  overflow-y: auto;
}

@media (width <= 900px) {
  .desk {
    height: auto;
    grid-template: auto / minmax(0, 1fr);
    padding: 0 10px 10px;
  }
  .work {
    height: max(360px, 58dvh);
    grid-area: auto;
  }
  /* What a panel would lay stays in sight while one chooses. */
  .paneled .work {
    position: sticky;
    top: 0;
    z-index: 3;
    height: 40dvh;
    min-height: 260px;
  }
  .paneled .panels {
    position: static;
  }
  .tool kbd {
    display: none;
  }
  .hint {
    display: none;
  }
  .tool {
    min-height: 44px;
  }
  .turns .tool,
  .panels .tool {
    min-height: 44px;
  }
  .answers {
    order: 3;
    grid-area: auto;
  }
  .below {
    order: 2;
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
  .spoken {
    min-height: 62px;
    max-height: 108px;
  }
}
</style>
