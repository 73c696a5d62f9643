<script setup lang="ts">
import { computed, ref } from 'vue'
import { chartSvg, wholeSvg } from '#core/format/chart-svg'
import { gridCsv, readGridCsv } from '#core/format/grid-csv'
import { writePieceFile } from '#core/format/piece-file'
import { strandListsCsv } from '#core/format/strand-lists-csv'
import { readWordChart, wordChart, type ReadChart } from '#core/format/word-chart'
import { partsWith } from '#core/piece/joint'
import { findPart, techniqueOf, type Part } from '#core/piece/piece'
import { replaceGridSteps } from '#core/piece/recast'
import { pictureOf } from '#core/picture/picture'
import { arrowNote, usualLying } from '#core/picture/view'
import { boxOfWhole, wholeOf } from '#core/picture/whole'
import { shortened } from '#core/units/text'
import { saveFile, slug } from '../composables/save-file'
import { usePiece } from '../stores/piece'

/** Files of a piece to take along, and grids and word charts that are brought in. */
const props = defineProps<{
  part: Part
  /** Parts among which to choose. */
  made: readonly Part[]
  /** Whether it is drawn as it hangs. */
  hangs: boolean
  ink: 'both' | 'colour' | 'glyphs'
  paper: 'A4' | 'Letter'
  /** Whether it is kept from the printer. */
  unproved: boolean
}>()
const emit = defineEmits<{ chosen: [id: string] }>()
const store = usePiece()
const piece = computed(() => store.piece!)
const hanging = computed(() => piece.value.parts.some((p) => p.on))

const name = computed(() => slug(piece.value.name))
const saveJson = () => saveFile(`${name.value}.weben.json`, writePieceFile(piece.value), 'application/json')
const saveSvg = () =>
  saveFile(
    `${name.value}-chart.svg`,
    chartSvg(props.part, piece.value.tray, {
      lie: props.hangs ? 'upright' : 'level',
      hanging: props.hangs,
      scale: 2,
      ink: props.ink,
      title: piece.value.name,
      note: arrowNote(props.part, { lie: 'level' }),
    }),
    'image/svg+xml',
  )
const saveWhole = () =>
  saveFile(
    `${name.value}-whole.svg`,
    wholeSvg(piece.value.parts, props.part, piece.value.tray, {
      scale: 2,
      ink: props.ink,
      title: piece.value.name,
      hanging: props.hangs,
    }),
    'image/svg+xml',
  )
function savePng() {
  const whole = wholeOf(partsWith(piece.value.parts, props.part))
  const lying = usualLying(piece.value.parts)
  const { width, height } = boxOfWhole(whole, props.part, { ...lying, scale: 1, x: 0, y: 0 })
  const scale = Math.max(1, Math.min(20, 16_000 / Math.max(1, width, height)))
  saveFile(
    `${name.value}-chart.png`,
    pictureOf(props.part, piece.value.tray, {
      ...lying,
      scale,
      ground: '#f4efe6',
      glyphs: props.ink !== 'colour',
      parts: piece.value.parts,
      margin: 24,
    }) as Uint8Array<ArrayBuffer>,
    'image/png',
  )
}
const says = ref('')
const busy = ref(false)
async function saveBooklet() {
  busy.value = true
  says.value = ''
  try {
    const { bookletPdf } = await import('#core/format/booklet-pdf')
    const booklet = await bookletPdf(piece.value, props.part, {
      paper: props.paper,
      ink: props.ink === 'glyphs' ? 'letters' : 'colour',
    })
    if (booklet.ok) saveFile(`${name.value}-booklet.pdf`, booklet.value as Uint8Array<ArrayBuffer>, 'application/pdf')
    else says.value = booklet.problems[0]!.says
  } catch {
    says.value = 'The booklet could not be made. Check the connection and try again.'
  } finally {
    busy.value = false
  }
}
const saveWords = () => saveFile(`${name.value}-words.txt`, wordChart(piece.value, props.part), 'text/plain')
const saveStrands = () => saveFile(`${name.value}-strands.csv`, strandListsCsv(piece.value, props.part), 'text/csv')
const saveGrid = () => saveFile(`${name.value}-grid.csv`, gridCsv(piece.value, props.part), 'text/csv')

/** A grid or a word chart from outside takes the place of the part; one step takes it back. */
async function readIn(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  says.value = ''
  const text = file.size > 40_000_000 ? '' : await file.text()
  const words = text.startsWith('Weben word chart') || text.startsWith('\uFEFFWeben word chart')
  const read = words ? readWordChart(text, piece.value.tray) : readGridCsv(text, piece.value.tray)
  if (!read.ok) {
    says.value = read.problems[0]!.says
    return
  }
  const { steps, id } = words
    ? replaceGridSteps(
        piece.value,
        props.part,
        read.value,
        (read.value as ReadChart).technique,
        (read.value as ReadChart).settings,
        (read.value as ReadChart).plan,
      )
    : replaceGridSteps(piece.value, props.part, read.value)
  const problem = store.commit(shortened(`Read ${file.name}`, 80), steps)
  const { name: now } = findPart(piece.value, id) ?? props.part
  says.value =
    problem ??
    `“${file.name}” is now ${now}: ${read.value.columns} across, ${read.value.rows} bead rows. ` +
      'Undo on the mat takes it back.'
  if (problem === null) emit('chosen', id)
}
</script>

<template>
  <div class="take">
    <h3>Take it with you</h3>
    <button type="button" class="button" @click="saveJson">Piece file (JSON)</button>
    <button type="button" class="button" @click="saveSvg">Chart as SVG</button>
    <button v-if="hanging" type="button" class="button" @click="saveWhole">The whole as SVG</button>
    <button type="button" class="button" @click="savePng">Chart as PNG</button>
    <VSelect
      v-if="made.length > 1"
      :model-value="part.id"
      :items="made.map((p) => ({ value: p.id, title: p.name }))"
      label="Part"
      @update:model-value="(v: string) => emit('chosen', v)"
    />
    <button type="button" class="button" :disabled="busy || unproved" @click="saveBooklet">Booklet as PDF</button>
    <button type="button" class="button" @click="saveWords">Word chart as text</button>
    <button type="button" class="button" @click="saveGrid">Grid as CSV</button>
    <button v-if="techniqueOf(part).strands" type="button" class="button" @click="saveStrands">
      Strand lists as CSV
    </button>
    <h3>Bring in</h3>
    <label class="button"
      >Grid or word chart<input
        type="file"
        accept=".csv,.txt,text/plain,text/csv"
        class="hidden"
        aria-label="Bring in a grid or word chart"
        @change="readIn"
    /></label>
    <p v-if="says" class="says" role="status">{{ says }}</p>
    <p class="quiet">A CSV grid of letters or a word chart takes the place of {{ part.name.toLowerCase() }}.</p>
    <p class="quiet">
      The piece file holds everything and opens in any Weben. Counts and rows as CSV are on the Tally page.
    </p>
  </div>
</template>

<style scoped>
.take {
  display: grid;
  gap: 12px;
}
.says {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  padding: 10px 12px;
  border-radius: 10px;
  font-size: 14.5px;
}
</style>
