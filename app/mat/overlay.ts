import { symmetryOf, type SymmetryKind } from '#core/pattern/symmetry'
import { wholeRow } from '#core/pattern/place'
import { hangSideBySide, isScattered, pitchOf } from '#core/piece/drawing'
import {
  columnsOf,
  countedRows,
  locateRow,
  rowsOf,
  sectionStart,
  type Part,
  isGrid,
  lengthOfLine,
  isInside,
} from '#core/piece/piece'
import { axesOf, rectOfCell, screenOfWork, sizeOnScreen, type View } from '#core/picture/view'
import type { Place, Box } from '#core/technique/lattice'
import { MM_PER_INCH } from '#core/units/length'
import { pointOf, type Size } from './view'

/**
 * What is drawn over the beads: rulers, the repeat, the selection, where the hand and the cursor are. Lengths in CSS
 * px.
 */
interface Overlay {
  readonly part: Part
  readonly view: View
  readonly size: Size
  readonly unit: 'mm' | 'in'
  /** Real length of the work over its nominal one, by the gauge; 1 without. */
  readonly stretch: number
  readonly hover: Place | null
  readonly cursor: Place | null
  readonly selection: Box | null
  readonly symmetry: SymmetryKind
  /** Beads that are pointed at. */
  readonly lit: readonly Place[]
  /** Lines that want a look, marked beside them. */
  readonly marked: readonly number[]
  readonly colours: {
    readonly ink: string
    readonly soft: string
    readonly madder: string
    readonly paper: string
    readonly mark: string
  }
}

type Context = CanvasRenderingContext2D

/** Places of lines that are looked at one by one for an outline; of more, the ends of each line stand for it. */
const MOST_OUTLINED = 4000

/** Places of a box by which its outline is found: near its corners; of lines, which lie anyhow, every one. */
function outermost(part: Part, box: Box): readonly (readonly [c: number, r: number])[] {
  if (!isGrid(part)) {
    const step = box.rows * box.columns > MOST_OUTLINED ? Infinity : 1
    return Array.from({ length: box.rows }, (_, k) => box.r + k).flatMap((r) => {
      const last = Math.min(box.c + box.columns, lengthOfLine(part, r)) - 1
      const places: [number, number][] = []
      for (let c = box.c; c < last; c += step) places.push([c, r])
      return last < box.c ? places : [...places, [last, r] as [number, number]]
    })
  }
  return [
    [box.c, box.r],
    [box.c + box.columns - 1, box.r],
    [box.c, box.r + box.rows - 1],
    [box.c + box.columns - 1, box.r + box.rows - 1],
    [Math.min(box.c + 1, box.c + box.columns - 1), box.r],
    [Math.min(box.c + 1, box.c + box.columns - 1), box.r + box.rows - 1],
  ]
}

function rectOfBox(part: Part, view: View, box: Box): { x: number; y: number; width: number; height: number } {
  const rects = outermost(part, box).map(([c, r]) => rectOfCell(part, view, c, r))
  if (rects.length === 0) return { x: view.x, y: view.y, width: 0, height: 0 }
  const x = Math.min(...rects.map((r) => r.x))
  const y = Math.min(...rects.map((r) => r.y))
  return {
    x,
    y,
    width: Math.max(...rects.map((r) => r.x + r.width - 1)) - x,
    height: Math.max(...rects.map((r) => r.y + r.height - 1)) - y,
  }
}

function label(ctx: Context, { colours }: Overlay, text: string, x: number, y: number, colour: string): void {
  ctx.font = '600 13px "Atkinson Hyperlegible Next Variable", sans-serif'
  const width = ctx.measureText(text).width + 12
  ctx.fillStyle = colours.paper
  ctx.beginPath()
  ctx.roundRect(x, y - 20, width, 20, 6)
  ctx.fill()
  ctx.fillStyle = colour
  ctx.textBaseline = 'middle'
  ctx.fillText(text, x + 6, y - 9.5)
}

function drawRepeat(ctx: Context, overlay: Overlay): void {
  const { part, view, size, colours } = overlay
  // What is all in one says nothing by being framed.
  if (part.times === 0 || part.repeat.rows === 0 || part.repeat.rows === rowsOf(part)) return
  const at = overlay.hover ?? overlay.cursor
  const here = at && at.r >= 0 && at.r < rowsOf(part) ? locateRow(part, at.r) : null
  let copy = here?.section === 'repeat' ? here.copy : -1
  // Without a hand on the work, the copy in the middle of the screen is framed.
  const { sx, sy } = axesOf(part, view)
  for (let k = 0; copy < 0 && k < part.times; k++) {
    const first = sectionStart(part, 'repeat', k)
    if (lengthOfLine(part, first) === 0) continue
    const point = pointOf(part, view, { c: 0, r: first })
    const [at, room, way] = view.lie === 'level' ? [point.x, size.width, sx] : [point.y, size.height, sy]
    if (way > 0 ? at > room * 0.2 : at < room * 0.8) copy = k
  }
  if (copy < 0) copy = 0
  const box = rectOfBox(part, view, {
    c: 0,
    r: sectionStart(part, 'repeat', copy),
    columns: columnsOf(part),
    rows: part.repeat.rows,
  })
  ctx.strokeStyle = colours.madder
  ctx.lineWidth = 2
  ctx.setLineDash([7, 5])
  ctx.beginPath()
  ctx.roundRect(box.x - 1, box.y - 7, box.width + 2, box.height + 14, 8)
  ctx.stroke()
  ctx.setLineDash([])
  const x = Math.max(8, Math.min(size.width - 110, box.x))
  label(ctx, overlay, `repeat ${copy + 1} of ${part.times}`, x, Math.max(112, box.y - 10), colours.madder)
}

/** The lines about which what is laid is laid again, in the section where the hand is. */
function drawSymmetry(ctx: Context, overlay: Overlay): void {
  const { part, view, size, symmetry, colours } = overlay
  if (symmetry === 'none' || rowsOf(part) === 0) return
  const at = overlay.hover ?? overlay.cursor ?? { c: 0, r: Math.min(rowsOf(part) - 1, part.start.rows) }
  const found = symmetryOf(part, symmetry, Math.max(0, Math.min(rowsOf(part) - 1, at.r)))
  if (!found.ok) return
  ctx.strokeStyle = colours.madder
  ctx.fillStyle = colours.madder
  ctx.lineWidth = 1.5
  ctx.setLineDash([2, 5])
  for (const { x0, y0 } of found.value.lines) {
    const there = screenOfWork(part, view, x0 ?? 0, y0 ?? 0)
    const [sx, sy] = view.lie === 'level' ? [y0, x0] : [x0, y0]
    if (symmetry === 'turning') {
      ctx.beginPath()
      ctx.arc(there.x, there.y, 5, 0, 7)
      ctx.fill()
      continue
    }
    ctx.beginPath()
    if (sx !== null && sy === null) {
      ctx.moveTo(there.x, 0)
      ctx.lineTo(there.x, size.height)
    }
    if (sy !== null && sx === null) {
      ctx.moveTo(0, there.y)
      ctx.lineTo(size.width, there.y)
    }
    ctx.stroke()
  }
  ctx.setLineDash([])
}

function drawSelection(ctx: Context, overlay: Overlay): void {
  const { part, view, selection, colours } = overlay
  if (!selection) return
  if (isScattered(part)) {
    // Strands and rounds lie scattered on a rope: every chosen bead is marked by itself.
    for (let k = 0; k < Math.min(600, selection.columns * selection.rows); k++) {
      const place = { c: selection.c + (k % selection.columns), r: selection.r + Math.floor(k / selection.columns) }
      if (isInside(part, place)) ring(ctx, overlay, place, colours.ink, 1.5)
    }
    return
  }
  const box = rectOfBox(part, view, selection)
  ctx.lineWidth = 2
  ctx.strokeStyle = colours.paper
  ctx.strokeRect(box.x, box.y, box.width, box.height)
  ctx.strokeStyle = colours.ink
  ctx.setLineDash([5, 4])
  ctx.strokeRect(box.x, box.y, box.width, box.height)
  ctx.setLineDash([])
}

function ring(ctx: Context, overlay: Overlay, place: Place, colour: string, width: number): void {
  const { part, view } = overlay
  if (place.c < 0 || place.r < 0 || place.c >= columnsOf(part) || place.r >= rowsOf(part)) return
  const box = rectOfCell(part, view, place.c, place.r)
  ctx.lineWidth = width + 2
  ctx.strokeStyle = overlay.colours.paper
  ctx.beginPath()
  ctx.roundRect(box.x - 1, box.y - 1, box.width + 1, box.height + 1, 4)
  ctx.stroke()
  ctx.lineWidth = width
  ctx.strokeStyle = colour
  ctx.stroke()
}

/** Beads that are pointed at one by one at most. */
const MOST_LIT = 600

function drawLit(ctx: Context, overlay: Overlay): void {
  for (const place of overlay.lit.slice(0, MOST_LIT)) ring(ctx, overlay, place, overlay.colours.madder, 3)
}

/** Beyond the end of a line that hangs, so far off, px. */
function belowLine({ part, view }: Overlay, r: number, off: number): { x: number; y: number } {
  const [first, last] = [0, lengthOfLine(part, r) - 1].map((c) => rectOfCell(part, view, c, r))
  const [x, y] = [last!.x + last!.width / 2, last!.y + last!.height / 2]
  return view.lie === 'level'
    ? { x: Math.max(first!.x + first!.width, last!.x + last!.width) + off, y }
    : { x, y: Math.max(first!.y + first!.height, last!.y + last!.height) + off }
}

/** A small lozenge beside each line that wants a look. */
function drawMarked(ctx: Context, overlay: Overlay): void {
  const { part, view, size, colours } = overlay
  const along = view.lie === 'level'
  const hang = hangSideBySide(part)
  const work = sizeOnScreen(part, view)
  for (const r of overlay.marked) {
    if (r >= rowsOf(part) || lengthOfLine(part, r) === 0) continue
    const p = pointOf(part, view, { c: 0, r })
    const beside = along ? { x: p.x, y: view.y + work.height + 9 } : { x: view.x + work.width + 9, y: p.y }
    const { x, y } = hang ? belowLine(overlay, r, MARKED_OFF) : beside
    if (x < 0 || y < 60 || x > size.width || y > size.height) continue
    ctx.beginPath()
    ctx.moveTo(x, y - 6)
    ctx.lineTo(x + 6, y)
    ctx.lineTo(x, y + 6)
    ctx.lineTo(x - 6, y)
    ctx.closePath()
    ctx.fillStyle = colours.mark
    ctx.fill()
    ctx.lineWidth = 1.5
    ctx.strokeStyle = colours.paper
    ctx.stroke()
  }
}

/** Where a line hangs its number stands below it, and its mark below that, px. */
const COUNTED_OFF = 9
const MARKED_OFF = 26

/** The beads of the working row under the hand, marked at the edge of the work where it does not hide them. */
function drawRow(ctx: Context, overlay: Overlay): void {
  const { part, view, colours } = overlay
  const at = overlay.hover ?? overlay.cursor
  if (!at || at.r < 0 || at.r >= rowsOf(part) || at.c < 0 || at.c >= columnsOf(part)) return
  ctx.fillStyle = colours.madder
  for (const place of wholeRow(part, at)) {
    const { x, y } = pointOf(part, view, place)
    const r = Math.max(1.2, Math.min(2.4, view.scale * 0.2))
    ctx.beginPath()
    ctx.arc(x, y, r, 0, 7)
    ctx.fill()
  }
}

/** Counts along the work: weavers' rows every ten, beads across every five. */
function drawCounts(ctx: Context, overlay: Overlay): void {
  const { part, view, size, colours } = overlay
  ctx.font = '500 12px "Atkinson Hyperlegible Next Variable", sans-serif'
  ctx.fillStyle = colours.soft
  ctx.textBaseline = 'middle'
  const rows = rowsOf(part)
  const origin = pointOf(part, view, { c: 0, r: 0 })
  const pxPerRow = pitchOf(part).y * view.scale
  let every = 5
  while (every * pxPerRow < 46) every *= 2
  const along = view.lie === 'level'
  const hang = hangSideBySide(part)
  for (let r = every - 1; r < rows; r += every) {
    if (lengthOfLine(part, r) === 0) continue
    const p = pointOf(part, view, { c: 0, r })
    if (along ? p.x < 4 || p.x > size.width - 4 : p.y < 70 || p.y > size.height - 4) continue
    const text = String(countedRows(part, r + 1))
    if (hang) {
      const { x, y } = belowLine(overlay, r, COUNTED_OFF)
      ctx.textAlign = along ? 'left' : 'center'
      ctx.fillText(text, x, y)
      continue
    }
    ctx.textAlign = along ? 'center' : 'right'
    ctx.fillText(text, along ? p.x : view.x - 8, along ? view.y - 12 : p.y)
  }
  const columns = columnsOf(part)
  const next = pointOf(part, view, { c: Math.min(1, columns - 1), r: 0 })
  const pxPerColumn = along ? Math.abs(next.y - origin.y) : Math.abs(next.x - origin.x)
  let each = 5
  while (each * pxPerColumn < 22) each *= 2
  for (let c = each - 1; c < columns && !isScattered(part); c += each) {
    const p = pointOf(part, view, { c, r: 0 })
    ctx.textAlign = along ? 'right' : 'center'
    if (along) ctx.fillText(String(c + 1), Math.max(24, view.x - 8), p.y)
    // Upright, the counts stand beside row 1, where one begins.
    else
      ctx.fillText(
        String(c + 1),
        p.x,
        axesOf(part, view).sy < 0
          ? Math.min(size.height - 58, view.y + sizeOnScreen(part, view).height + 12)
          : Math.max(100, view.y - 12),
      )
  }
  ctx.textAlign = 'left'
}

/** A rule beside the work, in mm or sixteenths as the hand makes it. */
function drawRuler(ctx: Context, overlay: Overlay): void {
  const { part, view, size, unit, stretch, colours } = overlay
  const perMm = view.scale / stretch
  const along = view.lie === 'level'
  const work = sizeOnScreen(part, view)
  const length = (along ? work.width : work.height) / perMm
  // From the end where row 1 lies.
  const axes = axesOf(part, view)
  const [zero, way] = along ? [axes.x0, Math.sign(axes.sx)] : [axes.y0, Math.sign(axes.sy)]
  const base = Math.min(
    along ? view.y + work.height + 20 : view.x + work.width + 20,
    along ? size.height - 34 : size.width - 54,
  )
  const minor = unit === 'in' ? MM_PER_INCH / 8 : 1
  const major = unit === 'in' ? 8 : 10
  let stride = 1
  while (minor * stride * perMm < 5) stride *= unit === 'in' ? 2 : stride === 1 ? 5 : 2
  let labelled = major
  while (labelled * minor * perMm < 44) labelled *= 2
  ctx.strokeStyle = colours.soft
  ctx.fillStyle = colours.soft
  ctx.lineWidth = 1
  ctx.font = '500 12px "Atkinson Hyperlegible Next Variable", sans-serif'
  ctx.textBaseline = 'top'
  ctx.beginPath()
  for (let k = 0; k * minor <= length + minor; k += stride) {
    const at = Math.round(zero + way * k * minor * perMm) + 0.5
    if (at < -20 || at > (along ? size.width : size.height) + 20) continue
    const tall = k % labelled === 0 ? 14 : k % (major / 2) === 0 ? 9 : 5
    if (along) {
      ctx.moveTo(at, base)
      ctx.lineTo(at, base + tall)
    } else {
      ctx.moveTo(base, at)
      ctx.lineTo(base + tall, at)
    }
    if (k % labelled === 0) {
      const text = unit === 'in' ? `${k / 8}${k === 0 ? ' in' : ''}` : `${k}${k === 0 ? ' mm' : ''}`
      if (along) ctx.fillText(text, at + 4, base + 5)
      else ctx.fillText(text, base + 18, at - 6)
    }
  }
  ctx.stroke()
}

export function drawOverlay(ctx: Context, overlay: Overlay): void {
  ctx.clearRect(0, 0, overlay.size.width, overlay.size.height)
  if (rowsOf(overlay.part) === 0) return
  drawCounts(ctx, overlay)
  drawRuler(ctx, overlay)
  drawRow(ctx, overlay)
  drawRepeat(ctx, overlay)
  drawSymmetry(ctx, overlay)
  drawSelection(ctx, overlay)
  drawMarked(ctx, overlay)
  drawLit(ctx, overlay)
  if (overlay.hover) ring(ctx, overlay, overlay.hover, overlay.colours.ink, 1.5)
  if (overlay.cursor) ring(ctx, overlay, overlay.cursor, overlay.colours.madder, 2.5)
}
