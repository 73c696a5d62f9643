<script setup lang="ts">
import { useElementSize, useRafFn } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import { placeOfKey } from '#core/grid/key'
import { layingSteps } from '#core/piece/edit'
import {
  columnsOf,
  countedRows,
  isGrid,
  isInside,
  numberAt,
  rowsOf,
  trayByNumber,
  type Part,
  type Piece,
} from '#core/piece/piece'
import { GLYPH_PX } from '#core/picture/sprite'
import { placedOf, viewBeside, wholeOf } from '#core/picture/whole'
import { arrowNote, axesOf, flipOf, sizeOnScreen, usualLying, type Flip, type View } from '#core/picture/view'
import { asSeen } from '#core/colour/vision'
import { applySteps } from '#core/piece/step'
import { beside } from '#core/pattern/place'
import { rowTitle, rowWords } from '#core/tally/words'
import { techniqueOf, workOf } from '#core/piece/piece'
import { acrossWords } from '#core/technique/technique'
import type { Place } from '#core/technique/lattice'
import { useDayOrEvening } from '../composables/theme'
import { useLengths } from '../composables/lengths'
import { useMat } from '../stores/mat'
import { MARKS, matGround } from './ground'
import { drawOverlay } from './overlay'
import { makePainter } from './painter'
import { toolOf, type Gesture, type Outcome } from './tool/tool'
import { handFor } from '#core/fit/gauge'
import { useScreen } from '../composables/screen'
import { moved, placeAt, showing, viewOfAll, viewToBegin, centred, zoomed, type Seen } from './view'

/** The bead grid itself: draws the part, follows pointer, touch and keys, and hands finished gestures up. */
const props = defineProps<{ piece: Piece; part: Part; marked: readonly number[] }>()
const emit = defineEmits<{ outcome: [outcome: Outcome] }>()

const mat = useMat()
const { pxPerMm } = useScreen()
/** How much longer the hand makes it than nominal beads say. */
const stretch = computed(() => handFor(props.piece, props.part)?.along ?? 1)
const theme = useDayOrEvening()
const { unit } = useLengths()
const frame = ref<HTMLElement>()
const beads = ref<HTMLCanvasElement>()
const marks = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(frame)
const size = computed(() => ({ width: width.value, height: height.value }))

const view = shallowRef<View | null>(null)
/** All parts as they lie; null where there is but one. */
const whole = computed(() =>
  props.piece.parts.length === 1
    ? null
    : wholeOf(props.piece.parts.map((p) => (p.id === props.part.id ? props.part : p))),
)
const seen = computed<Seen>(() => ({ part: props.part, whole: whole.value }))
const gesture = shallowRef<Gesture | null>(null)
const focused = ref(false)
/** A part that is not in hand, under the pointer. */
const otherHovered = shallowRef<Part | null>(null)

/** The part as it would be if the gesture ended now. */
const shown = computed<Part>(() => {
  if (mat.ghost && !gesture.value) return props.part.chart ? { ...mat.ghost, chart: props.part.chart } : mat.ghost
  if (!gesture.value || gesture.value.laying.size === 0) return props.part
  const next = applySteps(props.piece, layingSteps(props.part, gesture.value.laying))
  return next.ok
    ? {
        ...next.value.parts.find((p) => p.id === props.part.id)!,
        ...(props.part.chart ? { chart: props.part.chart } : {}),
      }
    : props.part
})

/** Beads that the proofreader points at. */
const lit = computed(() =>
  mat.lit?.part === props.part.id ? mat.lit.keys.map((key) => placeOfKey(columnsOf(props.part), key)) : [],
)
const ground = computed(() => ({
  part: props.part,
  number: mat.number,
  clip: mat.clip,
  selection: mat.selection,
  symmetry: mat.symmetry,
}))
/** The tray as it is looked at: in colours as some eyes see them, or as paper for a chart in black and white. */
const tray = computed(() =>
  (mat.ghostTray ?? props.piece.tray).map((b) => ({
    ...b,
    ...(mat.look === 'chart'
      ? { colour: '#fbf9f4', finish: 'matte' as const }
      : { colour: asSeen(b.colour, mat.vision) }),
  })),
)
const under = computed(() => matGround(mat.tone === 'theme' ? theme.value : mat.tone))
const glyphs = computed(() => mat.glyphs || mat.look === 'chart')
const flip = computed<Flip | undefined>(() => (mat.wrongSide || mat.turned ? flipOf(mat) : undefined))
const tool = computed(() => toolOf(mat.tool))

// ---- drawing: once a frame at most, and only what changed
const painter = makePainter()
let stale = true
const wake = () => {
  stale = true
}

function token(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(name).trim()
}

function draw() {
  const base = beads.value?.getContext('2d', { alpha: false })
  const over = marks.value?.getContext('2d')
  if (!stale || !base || !over || !view.value || width.value < 2) return
  stale = false
  const dpr = window.devicePixelRatio || 1
  const w = Math.round(width.value * dpr)
  const h = Math.round(height.value * dpr)
  if (beads.value!.width !== w || beads.value!.height !== h) {
    for (const canvas of [beads.value!, marks.value!]) {
      canvas.width = w
      canvas.height = h
    }
  }
  painter.resize(w, h)
  const { lie, scale, x, y } = view.value
  painter.show(base, {
    part: shown.value,
    whole: whole.value,
    tray: tray.value,
    view: {
      lie,
      scale: scale * dpr,
      x: Math.round(x * dpr),
      y: Math.round(y * dpr),
      ...(flip.value ? { flip: flip.value } : {}),
    },
    options: { ground: under.value, glyphs: glyphs.value, nap: 4 },
  })
  over.setTransform(dpr, 0, 0, dpr, 0, 0)
  const box =
    mat.tool === 'select' && gesture.value
      ? (tool.value.up(ground.value, gesture.value).select ?? null)
      : mat.selection
  drawOverlay(over, {
    part: shown.value,
    view: view.value,
    size: size.value,
    unit: unit.value,
    stretch: stretch.value,
    hover: mat.hover,
    cursor: focused.value ? mat.cursor : null,
    selection: box,
    symmetry: mat.symmetry,
    lit: lit.value,
    marked: props.marked,
    colours:
      mat.tone === 'theme' || mat.tone === theme.value
        ? {
            ink: token('--ink'),
            soft: token('--soft'),
            madder: token('--madder'),
            paper: token('--paper'),
            mark: token('--marigold'),
          }
        : MARKS[mat.tone],
  })
}
useRafFn(draw)
watch(
  [
    shown,
    whole,
    otherHovered,
    tray,
    view,
    width,
    height,
    glyphs,
    under,
    () => mat.symmetry,
    () => mat.hover,
    () => mat.cursor,
    () => mat.selection,
    lit,
    () => props.marked,
    gesture,
    focused,
    unit,
    theme,
  ],
  wake,
)
watch(theme, () => nextTick(wake))
onMounted(() => {
  void document.fonts?.ready.then(wake)
})

// ---- view
const lying = () => ({ lie: mat.lie, ...(flip.value ? { flip: flip.value } : {}) })
watch(
  [width, height, () => mat.lie],
  ([w, h], [oldW, oldH]) => {
    if (w < 2 || h < 2) return
    if (!view.value || view.value.lie !== mat.lie) {
      if (!view.value) {
        const usual = usualLying(props.piece.parts)
        mat.lie = usual.flip ? usual.lie : w < h * 0.9 ? 'upright' : 'level'
        if (usual.flip) mat.turned = true
      }
      view.value = viewToBegin(seen.value, lying(), size.value)
    } else if (oldW && oldH) view.value = moved(seen.value, view.value, (w - oldW) / 2, (h - oldH) / 2, size.value)
  },
  { flush: 'post' },
)

/** What is pointed at comes into sight. */
watch(
  [lit, () => view.value === null],
  ([places]) => {
    const first = places[0]
    if (first && view.value) view.value = showing(props.part, view.value, first, size.value)
  },
  { flush: 'post' },
)

/** Another part is taken in hand: nothing moves on the screen, it is only seen by that part now. */
watch(
  () => props.part.id,
  (id, old) => {
    gesture.value = null
    otherHovered.value = null
    if (!view.value) return
    const [from, to] = [old, id].map((each) => whole.value?.placed.find((p) => p.part.id === each))
    const next = from && to ? viewBeside(from, view.value, to) : viewToBegin(seen.value, lying(), size.value)
    view.value = next
    mat.lie = next.lie
    const { across, along } = next.flip ?? { across: false, along: false }
    mat.turned = along
    mat.wrongSide = across !== along
  },
)

watch(flip, (now) => {
  if (!view.value) return
  const { flip: _, ...rest } = view.value
  view.value = now ? { ...rest, flip: now } : rest
})

const middle = () => ({ x: width.value / 2, y: height.value / 2 })
const zoom = (factor: number, at = middle()) => {
  if (view.value) view.value = zoomed(view.value, factor, at)
}
const showAll = () => {
  view.value = viewOfAll(seen.value, lying(), size.value)
}
const showTrue = () => {
  if (view.value) view.value = centred(seen.value, lying(), pxPerMm.value * stretch.value, size.value)
}
function showBead() {
  if (!view.value) return
  const at = mat.cursor ?? mat.hover ?? { c: 0, r: 0 }
  view.value = showing(props.part, zoomed(view.value, 26 / view.value.scale, middle()), at, size.value)
}
defineExpose({
  zoom,
  showAll,
  showTrue,
  showBead,
  focus: () => frame.value?.focus({ preventScroll: true }),
  placeWords,
  scale: computed(() => view.value?.scale ?? 0),
})

// ---- pointer and touch: one finger draws, two move and zoom
const fingers = new Map<number, { x: number; y: number }>()
/** A press that moves further than this is none. */
const PRESS_PX = 8
/** The part that is not in hand, on which a press began: it is taken when the press ends where it began. */
let aimed: { part: Part; x: number; y: number } | null = null
let pressed: number | null = null
let dragging = false
let spaceDown = false

const at = (event: MouseEvent) => {
  const box = frame.value!.getBoundingClientRect()
  return { x: event.clientX - box.left, y: event.clientY - box.top }
}
const placeOf = (event: MouseEvent): Place => {
  const { x, y } = at(event)
  return placeAt(props.part, view.value!, x, y)
}

/** The part that is not in hand, under a point of the screen. */
function otherAt({ x, y }: { x: number; y: number }): Part | null {
  if (!whole.value || !view.value || isInside(props.part, placeAt(props.part, view.value, x, y))) return null
  const own = placedOf(whole.value, props.part)
  for (const p of whole.value.placed) {
    if (p === own) continue
    const there = viewBeside(own, view.value, p)
    const { width: w, height: h } = sizeOnScreen(p.part, there)
    if (x >= there.x && y >= there.y && x < there.x + w && y < there.y + h) return p.part
  }
  return null
}

/** Takes another part in hand. */
function take(part: Part) {
  mat.part = part.id
  mat.say(`${part.name} in hand`)
}

function begin(place: Place) {
  gesture.value = tool.value.down(ground.value, place)
}

function finish() {
  const ended = gesture.value
  gesture.value = null
  if (ended) emit('outcome', tool.value.up(ground.value, ended))
}

function down(event: PointerEvent) {
  if (!view.value) return
  frame.value!.setPointerCapture(event.pointerId)
  fingers.set(event.pointerId, at(event))
  aimed = null
  if (fingers.size > 1) {
    gesture.value = null
    pressed = null
    return
  }
  dragging = event.button === 1 || event.button === 2 || spaceDown
  if (dragging || event.button !== 0) return
  const other = otherAt(at(event))
  if (other) {
    aimed = { part: other, ...at(event) }
    return
  }
  pressed = event.pointerId
  mat.cursor = null
  begin(placeOf(event))
}

function move(event: PointerEvent) {
  if (!view.value) return
  const now = at(event)
  const before = fingers.get(event.pointerId)
  if (fingers.size === 2 && before) {
    const [other] = [...fingers].filter(([id]) => id !== event.pointerId).map(([, p]) => p)
    const grew =
      Math.hypot(now.x - other!.x, now.y - other!.y) /
      Math.max(1, Math.hypot(before.x - other!.x, before.y - other!.y))
    const centre = { x: (now.x + other!.x) / 2, y: (now.y + other!.y) / 2 }
    view.value = moved(
      seen.value,
      zoomed(view.value, grew, centre),
      (now.x - before.x) / 2,
      (now.y - before.y) / 2,
      size.value,
    )
  } else if (dragging && before)
    view.value = moved(seen.value, view.value, now.x - before.x, now.y - before.y, size.value)
  else {
    const place = placeOf(event)
    const inside = isInside(props.part, place)
    otherHovered.value = pressed === null ? otherAt(now) : null
    if (event.pointerType !== 'touch' || pressed !== null) {
      const old = mat.hover
      if (!inside) mat.hover = null
      else if (!old || old.c !== place.c || old.r !== place.r) mat.hover = place
    }
    if (
      pressed === event.pointerId &&
      gesture.value &&
      (gesture.value.to.c !== place.c || gesture.value.to.r !== place.r)
    )
      gesture.value = tool.value.move(ground.value, gesture.value, place)
  }
  if (before) fingers.set(event.pointerId, now)
}

function up(event: PointerEvent) {
  fingers.delete(event.pointerId)
  dragging = false
  if (aimed) {
    const { x, y } = at(event)
    if (Math.hypot(x - aimed.x, y - aimed.y) < PRESS_PX) take(aimed.part)
    aimed = null
  }
  if (pressed === event.pointerId) {
    pressed = null
    finish()
  }
}

function cancel(event: PointerEvent) {
  fingers.delete(event.pointerId)
  pressed = aimed = null
  gesture.value = null
}

function wheel(event: WheelEvent) {
  if (!view.value) return
  if (event.ctrlKey || event.metaKey) zoom(Math.exp(-event.deltaY * 0.004), at(event))
  else {
    const unitPx = event.deltaMode === 1 ? 18 : 1
    const [dx, dy] = event.shiftKey && event.deltaX === 0 ? [event.deltaY, 0] : [event.deltaX, event.deltaY]
    view.value = moved(seen.value, view.value, -dx * unitPx, -dy * unitPx, size.value)
  }
}

// ---- keys: a cursor walks over the beads; Space or Enter uses the tool there
function walk(dx: number, dy: number) {
  const start = mat.cursor ?? { c: 0, r: 0 }
  if (!mat.cursor) {
    mat.cursor = start
  } else {
    const [dc, dr] = mat.lie === 'level' ? [dy, dx] : [dx, dy]
    const step = Math.max(1, Math.abs(dc), Math.abs(dr))
    mat.cursor = start
    for (let k = 0; k < step; k++) mat.cursor = beside(props.part, mat.cursor, Math.sign(dc), Math.sign(dr))
  }
  mat.hover = null
  if (view.value) view.value = showing(props.part, view.value, mat.cursor, size.value)
  if (gesture.value) gesture.value = tool.value.move(ground.value, gesture.value, mat.cursor)
  mat.say(placeWords(mat.cursor))
}

function placeWords(place: Place): string {
  const technique = techniqueOf(props.part)
  const work = workOf(props.part)
  const words = rowWords(props.part, technique.order.rowOf(place, work))
  const number = numberAt(props.part, place.c, place.r)
  const bead = trayByNumber(props.piece.tray).get(number)
  return (
    `${rowTitle(words)}, ${technique.words.place} ${place.c + 1}: ` +
    `${bead ? `${bead.letter} ${bead.name}` : 'empty'}`
  )
}

const matName = computed(() => {
  const { part } = props
  const across = isGrid(part) ? `${columnsOf(part)} beads across` : acrossWords(techniqueOf(part), columnsOf(part))
  const lines = isGrid(part) ? 'row' : techniqueOf(part).words.line
  return `Mat: ${part.name}, ${across}, ${countedRows(part)} ${lines}s`
})

const ARROWS: Record<string, [number, number]> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowDown: [0, 1],
  ArrowUp: [0, -1],
}

function keydown(event: KeyboardEvent) {
  const arrow = ARROWS[event.key]
  if (arrow && view.value && !event.ctrlKey && !event.metaKey && !event.altKey) {
    event.preventDefault()
    const far =
      event.key.startsWith('Arrow') && event.shiftKey && !tool.value.spans && mat.tool !== 'lay' && mat.tool !== 'lift'
        ? 5
        : 1
    // The cursor follows the screen, however the work lies on it.
    const { sx, sy } = axesOf(props.part, view.value!)
    walk(arrow[0] * far * Math.sign(sx), arrow[1] * far * Math.sign(sy))
    if (event.shiftKey && mat.cursor && (mat.tool === 'lay' || mat.tool === 'lift')) use()
    return
  }
  if ((event.key === 'PageUp' || event.key === 'PageDown') && whole.value) {
    event.preventDefault()
    const { parts } = props.piece
    const here = parts.findIndex((p) => p.id === props.part.id)
    take(parts[(here + (event.key === 'PageDown' ? 1 : parts.length - 1)) % parts.length]!)
    return
  }
  if (event.key === 'Home' || event.key === 'End') {
    event.preventDefault()
    mat.cursor = { c: mat.cursor?.c ?? 0, r: event.key === 'Home' ? 0 : rowsOf(props.part) - 1 }
    walk(0, 0)
    return
  }
  if (event.key === ' ' || event.key === 'Enter') {
    event.preventDefault()
    if (event.key === ' ' && event.repeat) {
      spaceDown = true
      return
    }
    if (!mat.cursor) walk(0, 0)
    if (tool.value.spans && !gesture.value) {
      begin(mat.cursor!)
      mat.say(`Begins at ${placeWords(mat.cursor!)}`)
    } else use()
  }
  if (event.key === 'Escape' && gesture.value) {
    event.preventDefault()
    event.stopPropagation()
    gesture.value = null
    pressed = null
  }
}

function use() {
  if (!mat.cursor) return
  if (!gesture.value) begin(mat.cursor)
  finish()
}

watch([() => mat.tool, () => mat.symmetry], () => {
  gesture.value = null
})

const scaleSays = computed(() => {
  const scale = view.value?.scale ?? 0
  const times = scale / (pxPerMm.value * stretch.value)
  return Math.abs(times - 1) < 0.01 ? 'true size' : `true size × ${times >= 10 ? Math.round(times) : times.toFixed(1)}`
})
const arrow = computed(() => (view.value ? arrowNote(props.part, view.value) : ''))
const glyphsHidden = computed(
  () => glyphs.value && view.value !== null && view.value.scale * 1.3 * (globalThis.devicePixelRatio ?? 1) < GLYPH_PX,
)
</script>

<template>
  <div
    ref="frame"
    class="mat-canvas"
    :class="[`tool-${mat.tool}`, { other: otherHovered }]"
    tabindex="0"
    role="application"
    aria-roledescription="bead mat"
    aria-describedby="mat-keys"
    :aria-label="matName"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="cancel"
    @pointerleave="mat.hover = otherHovered = null"
    @contextmenu.prevent
    @wheel.prevent="wheel"
    @keydown="keydown"
    @keyup.space="spaceDown = false"
    @focus="focused = true"
    @blur="focused = false"
  >
    <canvas ref="beads" />
    <canvas ref="marks" />
    <p id="mat-keys" class="hidden">
      Arrow keys walk over the beads. Space uses the tool there; run, line and select take one press to begin and one
      to end. Escape lets go.<template v-if="whole"> Page up and page down take another part in hand.</template>
    </p>
    <p class="scale">
      <template v-if="whole"
        ><b>{{ otherHovered ? `${otherHovered.name}: press to take it in hand` : part.name }}</b> · </template
      >{{ scaleSays }}<span v-if="glyphsHidden"> · zoom in for glyphs</span><span v-if="arrow"> · {{ arrow }}</span>
    </p>
  </div>
</template>

<style scoped>
.mat-canvas {
  position: relative;
  overflow: hidden;
  background: var(--mat);
  border-radius: var(--round);
  touch-action: none;
  user-select: none;
  cursor: crosshair;
  outline-offset: -4px;
}
.mat-canvas:focus-visible {
  border-radius: var(--round);
  outline: 3px solid var(--madder);
}
.mat-canvas.other {
  cursor: pointer;
}
.tool-select {
  cursor: cell;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.scale {
  position: absolute;
  inset: auto 12px 10px auto;
  padding: 4px 10px;
  border-radius: 8px;
  background: var(--paper);
  font-size: 13px;
  color: var(--soft);
  pointer-events: none;
}
/* Under the tools: on a phone those of the view take the whole foot. */
@media (width <= 600px) {
  .scale {
    inset: 68px 12px auto auto;
  }
}
</style>
