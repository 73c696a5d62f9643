import { placeOfKey } from '../grid/key'
import type { Rgb } from '../colour/colour'
import { columnsOf, partRow, type Part } from '../piece/piece'
import { beadsWithin, type Carrier, type FreeDrawing } from '../technique/drawing'
import { halfBox, type Point } from '../technique/lattice'
import { ownSize, turnedSprite, type Sprites } from './sprite'
import { strokeLine } from './stroke'
import { DETAIL_PX, lay, type Clip, type Surface } from './surface'
import { axesOf, type View } from './view'

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
 * Paints beads that lie freely, each at its own place and turn, over what carries them. Cost follows the pixels and
 * the visible beads. Returns how many beads were drawn.
 */
export function paintPlaced(surface: Surface, clip: Clip, { part, free, view, sprites }: Placed): number {
  const { width, pixels } = surface
  const { x0, y0, x1, y1 } = clip
  const axes = axesOf(part, view)
  const level = view.lie === 'level'
  const screen = (x: number, y: number): Point =>
    level
      ? { x: axes.x0 + axes.sx * y, y: axes.y0 + axes.sy * x }
      : { x: axes.x0 + axes.sx * x, y: axes.y0 + axes.sy * y }
  for (const { kind, thickMm, points } of free.carriers)
    strokeLine(
      surface,
      clip,
      points.map((p) => screen(p.x, p.y)),
      thickMm * axes.scale,
      CARRIER_COLOURS[kind],
    )
  const columns = columnsOf(part)
  const sizes = new Map(sprites.tray.map((bead) => [bead.number, ownSize(bead, free.hole)]))
  const usual = { x: free.beadX, y: free.beadY }
  const detailed = Math.min(free.beadX, free.beadY) * axes.scale >= DETAIL_PX
  const { from, to } = windowOf(part, view, clip, reachOf(free, sizes))
  // Seen level the lattice is exchanged, which turns a lean over; so does one flip, and two bring it back.
  const hand = (axes.sx < 0 !== axes.sy < 0) === level ? 1 : -1
  const across = (free.hole === 'across') !== level
  const way = across ? (axes.sy > 0 ? 1 : -1) : axes.sx > 0 ? 1 : -1
  let drawn = 0
  for (const k of beadsWithin(free, from.x, from.y, to.x, to.y)) {
    const place = placeOfKey(columns, free.keys[k]!)
    const number = partRow(part, place.r)[place.c]!
    if (number === 0 && (!detailed || sprites.options.bare)) continue
    const own = sizes.get(number) ?? usual
    const size = level ? { x: own.y, y: own.x } : own
    const turn = hand * free.turns[k]!
    const half = halfBox({ beadX: size.x, beadY: size.y }, turn)
    const w = Math.max(1, Math.round(2 * half.x * axes.scale))
    const h = Math.max(1, Math.round(2 * half.y * axes.scale))
    const middle = screen(free.xs[k]!, free.ys[k]!)
    const x = Math.round(middle.x - w / 2)
    const y = Math.round(middle.y - h / 2)
    if (x >= x1 || y >= y1 || x + w <= x0 || y + h <= y0) continue
    const [left, right] = [Math.max(x, x0), Math.min(x + w, x1)]
    const [top, bottom] = [Math.max(y, y0), Math.min(y + h, y1)]
    drawn++
    if (!detailed) {
      // From afar: its box in its mean colour.
      const colour = sprites.means[number]!
      for (let py = top; py < bottom; py++) pixels.fill(colour, py * width + left, py * width + right)
      continue
    }
    const sprite = turnedSprite(
      sprites,
      number,
      w,
      h,
      size.x * axes.scale,
      size.y * axes.scale,
      turn,
      across ? 'across' : 'down',
      way,
    )
    lay(pixels, width, sprite, w, x, y, left, right, top, bottom)
  }
  return drawn
}
