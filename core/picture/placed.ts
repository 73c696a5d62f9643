import { keyOf, rowOfKey } from '../grid/key'
import type { Rgb } from '../colour/colour'
import { columnsOf, partRow, type Part } from '../piece/piece'
import { beadsWithin, seenCarriers, type BoxedCarrier, type Carrier, type FreeDrawing } from '../technique/drawing'
import { halfBox, type Point } from '../technique/lattice'
import { freeSize, ownSize, turnedSprite, type Sprites } from './sprite'
import { strokeLine } from './stroke'
import { DETAIL_PX, lay, type Clip, type Surface } from './surface'
import { axesOf, isWrongSide, type View } from './view'

/** A part whose beads lie freely, and how it is seen. */
interface Placed {
  readonly part: Part
  readonly free: FreeDrawing
  readonly view: View
  readonly sprites: Sprites
}

/** Thread, cord, wire and findings as they are drawn. */
export const CARRIER_COLOURS: Record<Carrier['kind'], Rgb> = {
  thread: { r: 150, g: 138, b: 122 },
  cord: { r: 96, g: 78, b: 62 },
  wire: { r: 176, g: 166, b: 146 },
  bar: { r: 158, g: 148, b: 128 },
}

/** Largest bead of the tray along any axis, mm: how far a bead can reach beyond its middle. */
const reachOf = (free: FreeDrawing, sizes: ReadonlyMap<number, Point>): number =>
  Math.max(Math.hypot(free.beadX, free.beadY), ...[...sizes.values()].map((s) => Math.hypot(s.x, s.y))) / 2

/** The part of the work, mm across and along, that a rectangle of the screen shows, with a margin. */
function windowOf(part: Part, view: View, clip: Clip, margin: number): { from: Point; to: Point } {
  const axes = axesOf(part, view)
  const ends = [
    { x: (clip.x0 - axes.x0) / axes.sx, y: (clip.y0 - axes.y0) / axes.sy },
    { x: (clip.x1 - axes.x0) / axes.sx, y: (clip.y1 - axes.y0) / axes.sy },
  ].map(({ x, y }) => (view.lie === 'level' ? { x: y, y: x } : { x, y }))
  const low = (pick: (p: Point) => number) => Math.min(...ends.map(pick)) - margin
  const high = (pick: (p: Point) => number) => Math.max(...ends.map(pick)) + margin
  return { from: { x: low((p) => p.x), y: low((p) => p.y) }, to: { x: high((p) => p.x), y: high((p) => p.y) } }
}

/**
 * Paints beads that lie freely, each at its own place and turn, between what carries them behind and before them as
 * seen from this side. Cost follows the pixels and the visible beads. Returns how many beads were drawn.
 */
export function paintPlaced(surface: Surface, clip: Clip, { part, free, view, sprites }: Placed): number {
  const axes = axesOf(part, view)
  const level = view.lie === 'level'
  const screen = (x: number, y: number): Point =>
    level
      ? { x: axes.x0 + axes.sx * y, y: axes.y0 + axes.sy * x }
      : { x: axes.x0 + axes.sx * x, y: axes.y0 + axes.sy * y }
  const detailed = Math.min(free.beadX, free.beadY) * axes.scale >= DETAIL_PX
  const sizeIn = (size: typeof ownSize) => new Map(sprites.tray.map((bead) => [bead.number, size(bead, free.hole)]))
  // From afar a bead is a box about its middle; from near it is drawn about its hole.
  const sizes = sizeIn(detailed ? freeSize : ownSize)
  const { from, to } = windowOf(part, view, clip, reachOf(free, sizes))
  const isSeen = ({ left, top, right, bottom, thickMm }: BoxedCarrier): boolean =>
    left - thickMm <= to.x && right + thickMm >= from.x && top - thickMm <= to.y && bottom + thickMm >= from.y
  const paint = (carriers: readonly BoxedCarrier[]): void => {
    for (const carrier of carriers) {
      if (!isSeen(carrier)) continue
      const { kind, thickMm, points } = carrier
      // From afar a thread is thinner than what is seen.
      if (detailed || thickMm * axes.scale >= LEAST_THICK_PX)
        strokeLine(
          surface,
          clip,
          points.map((p) => screen(p.x, p.y)),
          thickMm * axes.scale,
          CARRIER_COLOURS[kind],
        )
    }
  }
  const { under, over } = seenCarriers(free, isWrongSide(view.flip))
  under.forEach(paint)
  const seen = beadsWithin(free, from.x, from.y, to.x, to.y)
  const work: Work = { part, free, level, x0: axes.x0, sx: axes.sx, y0: axes.y0, sy: axes.sy, sizes, sprites }
  const drawn = detailed ? paintNear(surface, clip, seen, work) : paintFar(surface, clip, seen, work)
  paint(over)
  return drawn
}

/** A carrier thinner than this, px, is left out from afar. */
const LEAST_THICK_PX = 0.75

/** What both ways of painting go through. */
interface Work {
  readonly part: Part
  readonly free: FreeDrawing
  readonly level: boolean
  readonly x0: number
  readonly sx: number
  readonly y0: number
  readonly sy: number
  readonly sizes: ReadonlyMap<number, Point>
  readonly sprites: Sprites
}

/**
 * Tray numbers of the beads that are seen, in their order: beads of one line follow each other, so that each line is
 * looked up once.
 */
function numbersOf(part: Part, { keys }: FreeDrawing, seen: Int32Array): Uint16Array {
  const columns = columnsOf(part)
  const out = new Uint16Array(seen.length)
  let row: Uint16Array | null = null
  let [low, high] = [0, 0]
  for (let n = 0; n < seen.length; n++) {
    const key = keys[seen[n]!]!
    if (row === null || key < low || key >= high) {
      const r = rowOfKey(columns, key)
      row = partRow(part, r)
      low = keyOf(columns, 0, r)
      high = low + columns
    }
    out[n] = row[key - low]!
  }
  return out
}

/** From afar: the box of each bead in its mean colour. */
function paintFar({ width, pixels }: Surface, clip: Clip, seen: Int32Array, work: Work): number {
  const { free, level, x0, sx, y0, sy, sizes, sprites } = work
  const { xs, ys, turns } = free
  const numbers = numbersOf(work.part, free, seen)
  const scale = Math.abs(sx)
  let drawn = 0
  // Beads of one number and one turn are boxes of one size: beads of a line mostly are.
  let [number, turn, halfW, halfH] = [-1, NaN, 0, 0]
  for (let n = 0; n < seen.length; n++) {
    if (numbers[n] === 0) continue
    const k = seen[n]!
    if (numbers[n] !== number || turns[k] !== turn) {
      number = numbers[n]!
      turn = turns[k]!
      const own = sizes.get(number) ?? { x: free.beadX, y: free.beadY }
      const half = halfBox({ beadX: own.x, beadY: own.y }, turn)
      halfW = (level ? half.y : half.x) * scale
      halfH = (level ? half.x : half.y) * scale
    }
    const cx = level ? x0 + sx * ys[k]! : x0 + sx * xs[k]!
    const cy = level ? y0 + sy * xs[k]! : y0 + sy * ys[k]!
    const left = Math.max(clip.x0, Math.round(cx - halfW))
    const right = Math.min(clip.x1, Math.max(Math.round(cx + halfW), Math.round(cx - halfW) + 1))
    const top = Math.max(clip.y0, Math.round(cy - halfH))
    const bottom = Math.min(clip.y1, Math.max(Math.round(cy + halfH), Math.round(cy - halfH) + 1))
    if (left >= right || top >= bottom) continue
    const colour = sprites.means[number]!
    for (let py = top; py < bottom; py++)
      for (let at = py * width + left, stop = py * width + right; at < stop; at++) pixels[at] = colour
    drawn++
  }
  return drawn
}

/** From near: each bead as itself, at its own size and turn. */
function paintNear({ width, pixels }: Surface, clip: Clip, seen: Int32Array, work: Work): number {
  const { free, level, x0, sx, y0, sy, sizes, sprites } = work
  const { xs, ys, turns } = free
  const numbers = numbersOf(work.part, free, seen)
  const scale = Math.abs(sx)
  // Seen level the lattice is exchanged, which turns a lean over; so does one flip, and two bring it back.
  const hand = (sx < 0 !== sy < 0) === level ? 1 : -1
  const across = (free.hole === 'across') !== level
  const way = across ? (sy > 0 ? 1 : -1) : sx > 0 ? 1 : -1
  let drawn = 0
  let [number, turn, w, h] = [-1, NaN, 0, 0]
  let sprite: Int32Array | null = null
  for (let n = 0; n < seen.length; n++) {
    if (numbers[n] === 0 && sprites.options.bare) continue
    const k = seen[n]!
    if (sprite === null || numbers[n] !== number || turns[k] !== turn) {
      number = numbers[n]!
      turn = turns[k]!
      const own = sizes.get(number) ?? { x: free.beadX, y: free.beadY }
      const [beadX, beadY] = level ? [own.y, own.x] : [own.x, own.y]
      const half = halfBox({ beadX, beadY }, turn)
      w = Math.max(1, Math.round(2 * half.x * scale))
      h = Math.max(1, Math.round(2 * half.y * scale))
      sprite = turnedSprite(
        sprites,
        number,
        w,
        h,
        beadX * scale,
        beadY * scale,
        hand * turn,
        across ? 'across' : 'down',
        way,
        true,
      )
    }
    const x = Math.round((level ? x0 + sx * ys[k]! : x0 + sx * xs[k]!) - w / 2)
    const y = Math.round((level ? y0 + sy * xs[k]! : y0 + sy * ys[k]!) - h / 2)
    if (x >= clip.x1 || y >= clip.y1 || x + w <= clip.x0 || y + h <= clip.y0) continue
    lay(
      pixels,
      width,
      sprite,
      w,
      x,
      y,
      x > clip.x0 ? x : clip.x0,
      x + w < clip.x1 ? x + w : clip.x1,
      y > clip.y0 ? y : clip.y0,
      y + h < clip.y1 ? y + h : clip.y1,
    )
    drawn++
  }
  return drawn
}
