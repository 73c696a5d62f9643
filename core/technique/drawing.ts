import { keyOf } from '../grid/key'
import { halfBox, type Lattice, type Point } from './lattice'

/** Where the beads of a part lie: on a lattice that goes on without end, or each where it is. */
export type Drawing = LatticeDrawing | FreeDrawing

export interface LatticeDrawing {
  readonly kind: 'lattice'
  readonly lattice: Lattice
}

/** One bead that lies where no lattice says it. */
export interface PlacedBead {
  /** Key of its slot in the written-out part (grid/key.ts). */
  readonly key: number
  /** Its middle, mm: across the work and along it. */
  readonly x: number
  readonly y: number
  /** How it is turned; at 0 its hole runs as `hole` of the drawing says. */
  readonly turnDegrees: number
  /** Its size along its hole and across it, mm, where beads differ. */
  readonly bead?: { readonly l: number; readonly d: number }
}

/** Something that beads are carried by, as it is seen: a thread, cord or wire, or a finding that they hang on. */
export interface Carrier {
  readonly kind: 'thread' | 'cord' | 'wire' | 'bar'
  readonly thickMm: number
  /** Its middle line, mm, from point to point. */
  readonly points: readonly Point[]
  /**
   * On which side of the beads it passes, the work seen from its right side; where nothing is said it goes through
   * them or lies beside them, and they hide it from both sides.
   */
  readonly lies?: 'before' | 'behind'
}

/** A carrier with the box that its middle line lies in, mm: what is not in sight is not drawn. */
export interface BoxedCarrier extends Carrier {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

/** What carries the beads, by how deep it lies, the work seen from its right side. */
interface Layers {
  readonly behind: readonly BoxedCarrier[]
  readonly through: readonly BoxedCarrier[]
  readonly before: readonly BoxedCarrier[]
}

/** What is to be drawn under the beads, the furthest first, and what over them. */
export const seenCarriers = (
  { layers: { behind, through, before } }: Pick<FreeDrawing, 'layers'>,
  wrongSide: boolean,
): { readonly under: readonly (readonly BoxedCarrier[])[]; readonly over: readonly BoxedCarrier[] } =>
  wrongSide ? { under: [before, through], over: behind } : { under: [behind, through], over: before }

/** Beads that lie anywhere, found by where they are. Made by `freeDrawing`. */
export interface FreeDrawing {
  readonly kind: 'free'
  readonly widthMm: number
  readonly lengthMm: number
  /** Size of the usual bead as it lies at turn 0, mm; a bead of another size is drawn at its own about its middle. */
  readonly beadX: number
  readonly beadY: number
  readonly hole: Lattice['hole']
  /** Slots, middles and turns of all beads, in ascending order of their keys. */
  readonly keys: Int32Array
  readonly xs: Float64Array
  readonly ys: Float64Array
  readonly turns: Float32Array
  /** Sizes of single beads as they lie at turn 0, mm, where they differ: across and along, in turn. */
  readonly sizes: Float32Array | null
  readonly carriers: readonly BoxedCarrier[]
  readonly layers: Layers
  /** Where the middle of what it hangs on lies in it, mm, where that is not the middle of its first edge. */
  readonly hungAt?: Point
  /** Place in these lists by key; −1 where no bead lies. */
  indexOf(key: number): number
  readonly index: SpatialIndex
}

/** Squares of a plane, each with the beads whose middles lie in it: `items[starts[s] … starts[s + 1]]`. */
interface SpatialIndex {
  readonly sideMm: number
  readonly columns: number
  readonly rows: number
  readonly starts: Int32Array
  readonly items: Int32Array
}

const clampTo = (value: number, count: number): number => Math.max(0, Math.min(count - 1, value))

const squareOf = ({ sideMm, columns, rows }: SpatialIndex, x: number, y: number): { i: number; j: number } => ({
  i: clampTo(Math.floor(x / sideMm), columns),
  j: clampTo(Math.floor(y / sideMm), rows),
})

/** Squares for about two beads each; never many more squares than beads, however far these lie apart. */
function indexed(xs: Float64Array, ys: Float64Array, width: number, length: number, bead: number): SpatialIndex {
  const sideMm = Math.max(bead * 1.5, Math.sqrt((width * length) / Math.max(1, xs.length)))
  const columns = Math.max(1, Math.ceil(width / sideMm))
  const rows = Math.max(1, Math.ceil(length / sideMm))
  const starts = new Int32Array(columns * rows + 1)
  const empty: SpatialIndex = { sideMm, columns, rows, starts, items: new Int32Array(xs.length) }
  const squares = Int32Array.from(xs, (x, k) => {
    const { i, j } = squareOf(empty, x, ys[k]!)
    return keyOf(columns, i, j)
  })
  for (const s of squares) starts[s + 1]!++
  for (let s = 0; s < columns * rows; s++) starts[s + 1]! += starts[s]!
  const next = starts.slice()
  squares.forEach((s, k) => {
    empty.items[next[s]!++] = k
  })
  return empty
}

interface FreeWish {
  readonly placed: readonly PlacedBead[]
  readonly carriers?: readonly Carrier[]
  readonly widthMm: number
  readonly lengthMm: number
  /** The usual bead: along its hole and across it, mm. */
  readonly bead: { readonly l: number; readonly d: number }
  readonly hole?: Lattice['hole']
  readonly hungAt?: Point
}

function boxed(carrier: Carrier): BoxedCarrier {
  const box = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  for (const { x, y } of carrier.points) {
    box.left = Math.min(box.left, x)
    box.top = Math.min(box.top, y)
    box.right = Math.max(box.right, x)
    box.bottom = Math.max(box.bottom, y)
  }
  return { ...carrier, ...box }
}

/** A drawing of beads that lie anywhere, with what finds them again. */
export function freeDrawing({
  placed,
  carriers = [],
  widthMm,
  lengthMm,
  bead,
  hole = 'across',
  hungAt,
}: FreeWish): FreeDrawing {
  const inOrder = [...placed].sort((a, b) => a.key - b.key)
  const keys = Int32Array.from(inOrder, (p) => p.key)
  const xs = Float64Array.from(inOrder, (p) => p.x)
  const ys = Float64Array.from(inOrder, (p) => p.y)
  const turns = Float32Array.from(inOrder, (p) => p.turnDegrees)
  const asLies = ({ l, d }: { readonly l: number; readonly d: number }): Point =>
    hole === 'across' ? { x: l, y: d } : { x: d, y: l }
  const usual = asLies(bead)
  const sizes = inOrder.some((p) => p.bead && (p.bead.l !== bead.l || p.bead.d !== bead.d))
    ? Float32Array.from(
        inOrder.flatMap((p) => {
          const { x, y } = p.bead ? asLies(p.bead) : usual
          return [x, y]
        }),
      )
    : null
  const where = new Int32Array((keys.at(-1) ?? -1) + 1).fill(-1)
  keys.forEach((key, k) => {
    where[key] = k
  })
  const all = carriers.map(boxed)
  return {
    kind: 'free',
    widthMm,
    lengthMm,
    beadX: usual.x,
    beadY: usual.y,
    hole,
    keys,
    xs,
    ys,
    turns,
    sizes,
    carriers: all,
    layers: {
      behind: all.filter(({ lies }) => lies === 'behind'),
      through: all.filter(({ lies }) => lies === undefined),
      before: all.filter(({ lies }) => lies === 'before'),
    },
    ...(hungAt ? { hungAt } : {}),
    indexOf: (key) => where[key] ?? -1,
    index: indexed(xs, ys, widthMm, lengthMm, Math.max(bead.l, bead.d)),
  }
}

/** Smallest measure of any of its beads, mm, as it lies: what a letter on paper must have room on. */
export const leastOf = ({ beadX, beadY, sizes }: FreeDrawing): number =>
  sizes === null || sizes.length === 0
    ? Math.min(beadX, beadY)
    : sizes.reduce((least, size) => Math.min(least, size), Infinity)

/**
 * Places (in the lists of the drawing) of the beads whose middles lie in a rectangle, mm; in the order of their keys.
 */
export function beadsWithin(drawing: FreeDrawing, x0: number, y0: number, x1: number, y1: number): Int32Array {
  const { index, xs, ys } = drawing
  const [from, to] = [squareOf(index, x0, y0), squareOf(index, x1, y1)]
  const out = new Int32Array(xs.length)
  let count = 0
  // All of them stand in order already.
  if (x0 <= 0 && y0 <= 0 && x1 >= drawing.widthMm && y1 >= drawing.lengthMm) return out.map((_, k) => k)
  for (let j = from.j; j <= to.j; j++)
    for (let s = keyOf(index.columns, from.i, j); s <= keyOf(index.columns, to.i, j); s++)
      for (let at = index.starts[s]!; at < index.starts[s + 1]!; at++) {
        const k = index.items[at]!
        if (xs[k]! >= x0 && xs[k]! <= x1 && ys[k]! >= y0 && ys[k]! <= y1) out[count++] = k
      }
  return out.slice(0, count).sort()
}

/** Size of a bead as it lies at turn 0, mm. */
export const sizeOf = ({ sizes, beadX, beadY }: FreeDrawing, k: number): Point =>
  sizes ? { x: sizes[2 * k]!, y: sizes[2 * k + 1]! } : { x: beadX, y: beadY }

/** The largest of all beads along any axis, mm. */
const largestOf = ({ sizes, beadX, beadY }: FreeDrawing): number =>
  sizes ? sizes.reduce((most, mm) => Math.max(most, mm), 0) : Math.max(beadX, beadY)

/** How far a point lies from the middle of a bead, in a size as the bead is turned: half of it is its edge. */
function farFrom({ xs, ys, turns }: FreeDrawing, k: number, { x, y }: Point, size: Point): { u: number; v: number } {
  const turn = (turns[k]! * Math.PI) / 180
  const [dx, dy] = [x - xs[k]!, y - ys[k]!]
  return {
    u: (dx * Math.cos(turn) + dy * Math.sin(turn)) / size.x,
    v: (dy * Math.cos(turn) - dx * Math.sin(turn)) / size.y,
  }
}

/** A bead is hit as far from its middle as it is long: half a bead beside its edge still means it. */
const HIT = 1

/** The bead that is meant by a point, mm: its place in the lists; −1 where none lies near. */
export function beadNear(drawing: FreeDrawing, p: Point): number {
  const reach = HIT * Math.SQRT2 * largestOf(drawing)
  let best = -1
  let least = HIT
  for (const k of beadsWithin(drawing, p.x - reach, p.y - reach, p.x + reach, p.y + reach)) {
    const { u, v } = farFrom(drawing, k, p, sizeOf(drawing, k))
    const far = Math.max(Math.abs(u), Math.abs(v))
    if (far < least - 1e-9) {
      least = far
      best = k
    }
  }
  return best
}

/** Beads whose middles lie no further apart than this touch, measured in beads: a third more than side by side. */
const TOUCH = 1.34

/** The beads that touch one, by their places in the lists; touching counts both ways. */
export function beadsTouching(drawing: FreeDrawing, k: number): number[] {
  const { xs, ys } = drawing
  const here = { x: xs[k]!, y: ys[k]! }
  const reach = TOUCH * largestOf(drawing)
  const own = sizeOf(drawing, k)
  const near = beadsWithin(drawing, here.x - reach, here.y - reach, here.x + reach, here.y + reach)
  return Array.from(near).filter((other) => {
    if (other === k) return false
    const theirs = sizeOf(drawing, other)
    const between = { x: (own.x + theirs.x) / 2, y: (own.y + theirs.y) / 2 }
    const far = (at: number, p: Point) => {
      const { u, v } = farFrom(drawing, at, p, between)
      return Math.hypot(u, v)
    }
    return Math.min(far(k, { x: xs[other]!, y: ys[other]! }), far(other, here)) <= TOUCH
  })
}

/** Half of the room that a bead takes on each axis, mm. */
export const halfOf = (drawing: FreeDrawing, k: number): Point => {
  const { x, y } = sizeOf(drawing, k)
  return halfBox({ beadX: x, beadY: y }, drawing.turns[k]!)
}
