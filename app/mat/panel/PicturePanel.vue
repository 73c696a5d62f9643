<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, reactive, ref, shallowRef, watch } from 'vue'
import { FINISHES, type Finish } from '#core/bead/bead'
import { pictureSteps, type PictureBeads, type PictureTarget, type PictureWish } from '#core/image/picture-plan'
import { middleCrop, proportionOf, type Crop } from '#core/image/sample'
import { latticeOf } from '#core/piece/drawing'
import { columnsOf, rowsOf, sectionStart, type Part, type Piece, isGrid } from '#core/piece/piece'
import { unrollSteps } from '#core/piece/recast'
import { applySteps, type Step } from '#core/piece/step'
import { showNumber } from '#core/units/length'
import { useMat } from '../../stores/mat'
import { useShelf } from '../../stores/shelf'
import type { Answer, Ask } from '../worker/picture.worker'
import ChoiceRow from './ChoiceRow.vue'
import MatPanel from './MatPanel.vue'

/**
 * A picture becomes beads: chosen, dropped or pasted; cut, turned, matched to beads in a worker; seen on the mat
 * before it is taken.
 */
const props = defineProps<{ piece: Piece; part: Part }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly Step[]] }>()
const mat = useMat()
const shelf = useShelf()

const picture = shallowRef<{ readonly width: number; readonly height: number; readonly preview: ImageBitmap } | null>(
  null,
)
const trouble = ref('')
const progress = ref<number | null>(null)
const made = shallowRef<{
  readonly beads: PictureBeads
  readonly piece: Piece
  readonly part: Part
  readonly before: readonly Step[]
  readonly target: PictureTarget
} | null>(null)
const over = ref(false)
const wish = reactive({
  where: (mat.selection ? 'selection' : 'repeat') as 'selection' | 'repeat' | 'whole',
  to: 'tray' as 'tray' | 'box' | 'choose',
  count: 8,
  finish: 'matte' as Finish,
  dither: 'off' as PictureWish['dither'],
  tidy: true,
  brightness: 0,
  contrast: 0,
  quarters: 0,
})
const crop = shallowRef<Crop | null>(null)

// ---- the worker: made when first needed, ended to give up
let worker: Worker | null = null
let file: Blob | null = null
let asked = 0
function theWorker(): Worker {
  if (worker) return worker
  worker = new Worker(new URL('../worker/picture.worker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = ({ data }: MessageEvent<Answer>) => {
    if (data.did === 'trouble') {
      trouble.value = data.says
      progress.value = null
    } else if (data.did === 'open') {
      picture.value = data
      crop.value = null
      progress.value = null
    } else if (data.did === 'progress') {
      if (data.id === asked) progress.value = data.share
    } else if (data.id === asked && waiting) {
      progress.value = null
      made.value = { ...waiting, beads: data.beads }
    }
  }
  worker.onerror = () => {
    trouble.value = 'The picture could not be worked on. Try a smaller one.'
    giveUp()
  }
  return worker
}
const send = (ask: Ask) => theWorker().postMessage(ask)
function giveUp() {
  worker?.terminate()
  worker = null
  asked++
  progress.value = null
  if (file && picture.value) send({ do: 'open', file })
}

function take(chosen: Blob | null | undefined) {
  if (!chosen) return
  trouble.value = ''
  picture.value = null
  made.value = null
  file = chosen
  progress.value = 0
  send({ do: 'open', file: chosen })
}
const dropped = (event: DragEvent) => {
  over.value = false
  take(event.dataTransfer?.files[0])
}
function pasted(event: ClipboardEvent) {
  const found = [...(event.clipboardData?.items ?? [])].find((i) => i.type.startsWith('image/'))
  if (found) {
    event.preventDefault()
    take(found.getAsFile())
  }
}
onMounted(() => {
  window.addEventListener('paste', pasted)
  shelf.fetch().catch(() => {})
})
onBeforeUnmount(() => {
  window.removeEventListener('paste', pasted)
  worker?.terminate()
  mat.ghost = null
})

/** A message to a worker must be plain data, not what Vue watches. */
function plain<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T
}

// ---- where it goes: the repeat, a box, or the whole part with its repeats written out
const ground = computed(() => {
  if (wish.where !== 'whole') return { piece: props.piece, part: props.part, before: [] as Step[] }
  const before = unrollSteps(props.piece, props.part)
  const next = applySteps(props.piece, before)
  return next.ok
    ? { piece: next.value, part: next.value.parts.find((p) => p.id === props.part.id)!, before }
    : { piece: props.piece, part: props.part, before: [] as Step[] }
})
const box = computed(() => {
  const { part } = ground.value
  if (!isGrid(part)) return null
  if (wish.where === 'selection') return mat.selection
  if (wish.where === 'repeat')
    return part.repeat.rows === 0 || part.times === 0
      ? null
      : { c: 0, r: sectionStart(part, 'repeat'), columns: columnsOf(part), rows: part.repeat.rows }
  return { c: 0, r: 0, columns: columnsOf(part), rows: rowsOf(part) }
})
const turnedSize = computed(
  () =>
    picture.value &&
    (wish.quarters % 2 === 0
      ? { width: picture.value.width, height: picture.value.height }
      : { width: picture.value.height, height: picture.value.width }),
)
const proportion = computed(() =>
  box.value && isGrid(ground.value.part) ? proportionOf(latticeOf(ground.value.part), box.value, mat.lie) : 1,
)
const used = computed<Crop | null>(
  () => crop.value ?? (turnedSize.value && middleCrop(turnedSize.value, proportion.value)),
)
watch([proportion, () => wish.quarters], () => {
  crop.value = null
})

const own = computed(() => props.piece.tray.filter((b) => b.spec === props.part.spec))
const target = computed<PictureTarget>(() =>
  wish.to === 'tray'
    ? { kind: 'tray', numbers: own.value.map((b) => b.number) }
    : wish.to === 'box'
      ? { kind: 'box', beads: shelf.beads.map((b) => b.value) }
      : { kind: 'choose', finish: wish.finish },
)

let waiting: {
  readonly piece: Piece
  readonly part: Part
  readonly before: readonly Step[]
  readonly target: PictureTarget
} | null = null
function make() {
  if (!picture.value || !box.value || !used.value) return
  const colours = wish.to === 'tray' ? own.value.map((b) => b.colour) : shelf.beads.map((b) => b.value.colour)
  waiting = { ...ground.value, target: target.value }
  asked++
  progress.value = 0
  send({
    do: 'beads',
    id: asked,
    quarters: wish.quarters,
    lattice: plain(latticeOf(ground.value.part)),
    wish: plain({
      sample: { box: box.value, lie: mat.lie, crop: used.value, brightness: wish.brightness, contrast: wish.contrast },
      to: wish.to === 'choose' ? { kind: 'choose', count: wish.count } : { kind: 'colours', colours },
      dither: wish.dither,
      tidy: wish.tidy,
    }),
  })
}
let soon: ReturnType<typeof setTimeout> | undefined
watch([picture, wish, used, box, () => mat.lie, () => shelf.beads.length], () => {
  clearTimeout(soon)
  made.value = null
  soon = setTimeout(make, 180)
})

const steps = computed<readonly Step[]>(() =>
  made.value && box.value
    ? [
        ...made.value.before,
        ...pictureSteps(made.value.piece, made.value.part, box.value, made.value.beads, made.value.target),
      ]
    : [],
)
const seen = computed(() => {
  const next = steps.value.length > 0 ? applySteps(props.piece, steps.value) : null
  return next?.ok ? next.value : null
})
watch(seen, (now) => {
  mat.ghost = now?.parts.find((p) => p.id === props.part.id) ?? null
  mat.ghostTray = now?.tray ?? null
})
onBeforeUnmount(() => {
  mat.ghostTray = null
})

const counts = computed(() => {
  if (!made.value) return []
  const { beads } = made.value
  const names =
    wish.to === 'tray'
      ? own.value.map((b) => `${b.letter} ${b.name}`)
      : wish.to === 'box'
        ? shelf.beads.map((b) => b.value.name)
        : beads.colours.map((_, i) => `Picture ${i + 1}`)
  return beads.counts
    .map((count, i) => ({ count, colour: beads.colours[i]!, name: names[i] ?? '' }))
    .filter((c) => c.count > 0)
    .sort((a, b) => b.count - a.count)
})
const likeness = computed(() => (made.value ? made.value.beads.meanDeltaE : 0))
const says = computed(() =>
  likeness.value < 5
    ? 'very close'
    : likeness.value < 10
      ? 'close'
      : likeness.value < 18
        ? 'rough'
        : 'far off: other beads would serve it better',
)

function accept() {
  emit('steps', 'Picture', steps.value)
  made.value = null
  mat.panel = null
}

// ---- the preview: what is used is bright, the rest is dimmed; dragging moves it
const canvas = ref<HTMLCanvasElement>()
const VIEW = 244
watch(
  [canvas, picture, used, () => wish.quarters],
  () => {
    const at = canvas.value
    if (!at || !picture.value || !turnedSize.value || !used.value) return
    const { width, height } = turnedSize.value
    const k = Math.min(VIEW / width, 200 / height)
    at.width = Math.max(1, Math.round(width * k))
    at.height = Math.max(1, Math.round(height * k))
    const ctx = at.getContext('2d')!
    ctx.save()
    ctx.translate(at.width / 2, at.height / 2)
    ctx.rotate((wish.quarters * Math.PI) / 2)
    ctx.drawImage(
      picture.value.preview,
      (-picture.value.width * k) / 2,
      (-picture.value.height * k) / 2,
      picture.value.width * k,
      picture.value.height * k,
    )
    ctx.restore()
    const c = used.value
    ctx.fillStyle = 'rgb(20 16 14 / 62%)'
    ctx.fillRect(0, 0, at.width, c.y * k)
    ctx.fillRect(0, (c.y + c.height) * k, at.width, at.height)
    ctx.fillRect(0, c.y * k, c.x * k, c.height * k)
    ctx.fillRect((c.x + c.width) * k, c.y * k, at.width, c.height * k)
    ctx.strokeStyle = '#fff'
    ctx.strokeRect(c.x * k + 0.5, c.y * k + 0.5, c.width * k - 1, c.height * k - 1)
  },
  { flush: 'post' },
)
function moveCrop(dx: number, dy: number, grow = 1) {
  const full = turnedSize.value
  if (!used.value || !full) return
  const most = middleCrop(full, proportion.value)
  const width = Math.max(4, Math.min(most.width, used.value.width * grow))
  const height = width / proportion.value
  const x = used.value.x + dx + (used.value.width - width) / 2
  const y = used.value.y + dy + (used.value.height - height) / 2
  crop.value = {
    x: Math.max(0, Math.min(full.width - width, x)),
    y: Math.max(0, Math.min(full.height - height, y)),
    width,
    height,
  }
}
let held: { x: number; y: number } | null = null
function drag(event: PointerEvent) {
  if (!held || !turnedSize.value || !canvas.value) return
  const k = canvas.value.getBoundingClientRect().width / turnedSize.value.width
  moveCrop((event.clientX - held.x) / k, (event.clientY - held.y) / k)
  held = { x: event.clientX, y: event.clientY }
}
function keys(event: KeyboardEvent) {
  const step = (turnedSize.value?.width ?? 0) / 40
  const move = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key]
  if (!move) return
  event.preventDefault()
  moveCrop(move[0]!, move[1]!)
}
</script>

<template>
  <MatPanel title="A picture becomes beads" @close="mat.panel = null">
    <p v-if="!isGrid(part)" class="quiet" role="status">
      A picture needs a grid, whose beads lie side by side. Take a part in hand that is worked on one.
    </p>
    <label
      class="drop"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="dropped"
    >
      <input
        type="file"
        accept="image/png,image/jpeg,image/webp"
        class="hidden"
        aria-label="Choose a picture"
        @change="(e) => take((e.target as HTMLInputElement).files?.[0])"
      />
      <b>{{ picture ? 'Another picture' : 'Choose a picture' }}</b><span class="quiet"
        >or drop it here, or paste it: PNG, JPEG, WebP</span
      >
    </label>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <template v-if="picture">
      <canvas
        ref="canvas"
        class="preview"
        tabindex="0"
        role="img"
        aria-label="The picture; what is used is bright. Arrow keys move it."
        @keydown="keys"
        @pointerdown="
          (e) => {
            held = { x: e.clientX, y: e.clientY }
            ;(e.target as HTMLElement).setPointerCapture(e.pointerId)
          }
        "
        @pointermove="drag"
        @pointerup="held = null"
        @wheel.prevent="(e) => moveCrop(0, 0, e.deltaY > 0 ? 1.06 : 1 / 1.06)"
      />
      <div class="acts">
        <button type="button" class="link" @click="moveCrop(0, 0, 1 / 1.2)">Cut closer</button
        ><button type="button" class="link" @click="moveCrop(0, 0, 1.2)">Take more</button
        ><button type="button" class="link" @click="wish.quarters = (wish.quarters + 1) % 4">Turn</button>
      </div>
      <label class="slide"
        ><span>Brightness</span><input v-model.number="wish.brightness" type="range" min="-0.6" max="0.6" step="0.05"
      /></label>
      <label class="slide"
        ><span>Contrast</span><input v-model.number="wish.contrast" type="range" min="-0.6" max="0.8" step="0.05"
      /></label>
      <ChoiceRow
        v-model="wish.where"
        label="Goes over"
        :items="[
          { value: 'repeat', title: 'the repeat' },
          { value: 'whole', title: 'the whole part', says: 'Its repeats are written out' },
          { value: 'selection', title: 'the selection', off: !mat.selection },
        ]"
      />
      <ChoiceRow
        v-model="wish.to"
        label="In beads"
        :items="[
          { value: 'tray', title: 'of the tray' },
          {
            value: 'box',
            title: 'of my box',
            off: shelf.beads.length === 0,
            says: shelf.beads.length ? '' : 'Keep beads in your box first',
          },
          { value: 'choose', title: 'chosen for it' },
        ]"
      />
      <template v-if="wish.to === 'choose'">
        <label class="slide"
          ><span>{{ wish.count }} beads</span
          ><input v-model.number="wish.count" type="range" min="2" max="40" step="1" aria-label="How many beads"
        /></label>
        <VSelect v-model="wish.finish" :items="[...FINISHES]" label="Their finish" density="compact" />
      </template>
      <ChoiceRow
        v-model="wish.dither"
        label="Mixed"
        :items="[
          { value: 'off', title: 'not' },
          { value: 'ordered', title: 'evenly' },
          { value: 'diffused', title: 'finely' },
        ]"
      />
      <label class="flag"><input v-model="wish.tidy" type="checkbox" /> Tidy single stray beads</label>
    </template>
    <div v-if="progress !== null" class="going" role="status">
      <progress :value="progress" max="1">{{ Math.round(progress * 100) }} %</progress
      ><button type="button" class="link" @click="giveUp">Give up</button>
    </div>
    <template v-if="made">
      <p class="likeness">
        <span class="figure">{{ showNumber(counts.reduce((s, c) => s + c.count, 0)) }}</span> beads in
        {{ counts.length }} kinds. Likeness: <b>{{ says }}</b> (mean ΔE {{ showNumber(likeness, 1) }}).
      </p>
      <ul class="counts">
        <li v-for="c in counts" :key="c.name">
          <span class="swatch" :style="{ '--bead': c.colour }" /> {{ c.name }} <b>{{ showNumber(c.count) }}</b>
        </li>
      </ul>
      <button type="button" class="button main" @click="accept">Lay these beads</button>
    </template>
    <p v-if="picture && !box" class="quiet">There is no room for it: the part has no rows there.</p>
  </MatPanel>
</template>

<style scoped>
.drop {
  display: grid;
  gap: 2px;
  padding: 14px;
  border-radius: 12px;
  border: 1.5px dashed var(--edge);
  cursor: pointer;
}
.drop:focus-within {
  outline: 2px solid var(--madder);
}
.over {
  background: var(--verdigris-wash);
}
.preview {
  justify-self: center;
  max-width: 100%;
  border-radius: 8px;
  cursor: move;
  touch-action: none;
}
.acts {
  display: flex;
  gap: 16px;
}
.acts .link {
  min-height: 32px;
}
.slide {
  display: grid;
  grid-template-columns: 84px 1fr;
  align-items: center;
  gap: 8px;
  font-size: 14.5px;
}
input[type='range'] {
  accent-color: var(--madder);
  min-height: 32px;
  width: 100%;
}
.flag {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 36px;
  cursor: pointer;
}
.flag input {
  width: 20px;
  height: 20px;
  accent-color: var(--madder);
}
.going {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 12px;
  align-items: center;
}
progress {
  width: 100%;
  accent-color: var(--verdigris);
}
.trouble {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 10px 12px;
  border-radius: 10px;
  font-size: 14.5px;
}
.likeness .figure {
  font-size: 24px;
}
.counts {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
  font-size: 14px;
  max-height: 180px;
  overflow-y: auto;
}
.counts li {
  display: flex;
  gap: 8px;
  align-items: center;
}
.counts b {
  margin-inline-start: auto;
  font-variant-numeric: tabular-nums;
}
</style>
