import { modulo } from '../modulo'
import { keyOf, placeOfKey } from '../grid/key'
import { beadNear, beadsTouching, halfOf, type Drawing, type FreeDrawing } from '../technique/drawing'
import {
  beadCentre,
  halfBox,
  nearestPlace,
  neighbourOffsets,
  siteOf,
  transpose,
  type Lattice,
  type Place,
  type Point,
} from '../technique/lattice'
import { requireLattice } from '../technique/stitch'
import type { Settings } from '../technique/technique'
import { beadOf, columnsOf, isGrid, isInside, rowsOf, shapeOf, techniqueOf, workOf, type Part } from './piece'

/**
 * Lattices by the settings they follow from: edits of cells keep the settings, so a lattice is worked out once for a
 * part.
 */
const lattices = new WeakMap<Settings, Map<string, { readonly down: Lattice; readonly along: Lattice }>>()

function bothLattices(part: Part): { readonly down: Lattice; readonly along: Lattice } {
  let known = lattices.get(part.settings)
  if (!known) {
    known = new Map()
    lattices.set(part.settings, known)
  }
  const key = `${part.technique} ${part.spec} ${columnsOf(part)} ${part.chart ?? ''}`
  let both = known.get(key)
  if (!both) {
    const down = requireLattice(techniqueOf(part), {
      bead: beadOf(part),
      settings: part.settings,
      columns: columnsOf(part),
      ...(part.chart ? { chart: part.chart } : {}),
    })
    both = { down, along: transpose(down) }
    known.set(key, both)
  }
  return both
}

/** Drawings of lines by their shape: other colours leave them as they are. */
const drawings = new WeakMap<object, Drawing>()

/** Where the beads of lines of their own lengths lie. */
function drawnLines(part: Part): Drawing {
  const shape = shapeOf(part)
  let drawing = drawings.get(shape)
  if (!drawing) {
    drawing = techniqueOf(part).drawing(workOf(part))
    drawings.set(shape, drawing)
  }
  return drawing
}

/** Grids that are sewn round a ring, by the ring. */
const bent = new WeakMap<object, Map<string, Drawing>>()

/** Where the beads of a grid lie that is sewn round a ring; null of one that is held straight. */
function bentOf(part: Part): Drawing | null {
  const { held } = part
  if (!held || held.bentMm === null) return null
  const known = bent.get(held) ?? new Map<string, Drawing>()
  bent.set(held, known)
  const key = `${part.technique} ${part.spec} ${columnsOf(part)} ${rowsOf(part)} ${JSON.stringify(part.settings)}`
  let drawing = known.get(key)
  if (!drawing) {
    drawing = techniqueOf(part).drawing(workOf(part))
    known.set(key, drawing)
  }
  return drawing
}

/** Where the beads of a part lie freely; null where a lattice says it. */
export function freeOf(part: Part): FreeDrawing | null {
  const drawing = isGrid(part) ? bentOf(part) : drawnLines(part)
  return drawing?.kind === 'free' ? drawing : null
}

/** The lattice of a part that has one (`freeOf` says whether). */
export function latticeOf(part: Part): Lattice {
  if (isGrid(part)) return bothLattices(part).down
  const drawing = drawnLines(part)
  if (drawing.kind !== 'lattice') throw new Error(`“${part.name}” lies on no lattice`)
  return drawing.lattice
}

const exchanged = new WeakMap<Lattice, Lattice>()

/** The lattice with the length of the work along x. */
export function latticeAlong(part: Part): Lattice {
  if (isGrid(part)) return bothLattices(part).along
  const lattice = latticeOf(part)
  const along = exchanged.get(lattice) ?? transpose(lattice)
  exchanged.set(lattice, along)
  return along
}

/** Whether the beads of a part lie scattered, so that columns and rows are no lines on the screen. */
export const isScattered = (part: Part): boolean =>
  freeOf(part) !== null || (latticeOf(part).touching !== undefined && latticeOf(part).round === true)

/** Whether a part is a rope: round, its beads scattered over the unrolled surface. */
export const isRope = (part: Part): boolean => freeOf(part) === null && isScattered(part)

/** Whether lines hang side by side, as strands do, where rows or links would follow each other along the work. */
export function hangSideBySide(part: Part): boolean {
  if (freeOf(part) === null) return false
  const [first, last] = [centreOf(part, 0, 0), centreOf(part, 0, rowsOf(part) - 1)]
  return Math.abs(last.x - first.x) > Math.abs(last.y - first.y)
}

/** Middle of the bead at (c, r), mm: x across the work, y along it. */
export function centreOf(part: Part, c: number, r: number): Point {
  const free = freeOf(part)
  if (!free) return beadCentre(latticeOf(part), c, r)
  const k = free.indexOf(keyOf(columnsOf(part), c, r))
  return k < 0 ? { x: 0, y: 0 } : { x: free.xs[k]!, y: free.ys[k]! }
}

/** How the bead at (c, r) is turned, degrees. */
export function turnOf(part: Part, c: number, r: number): number {
  const free = freeOf(part)
  if (!free) return siteOf(latticeOf(part), c, r).turnDegrees
  const k = free.indexOf(keyOf(columnsOf(part), c, r))
  return k < 0 ? 0 : free.turns[k]!
}

/** Size of the usual bead as it lies at turn 0, mm, and which way its hole runs then. */
export const usualBead = (part: Part): Pick<Lattice, 'beadX' | 'beadY' | 'hole'> => freeOf(part) ?? latticeOf(part)

/** Half of the room that the bead at (c, r) takes on each axis, mm: in its own size where it lies freely. */
export function halfAt(part: Part, c: number, r: number): Point {
  const free = freeOf(part)
  const k = free?.indexOf(keyOf(columnsOf(part), c, r)) ?? -1
  return free && k >= 0 ? halfOf(free, k) : halfBox(usualBead(part), turnOf(part, c, r))
}

/** A place where nothing lies. */
const NOWHERE: Place = { c: -1, r: -1 }

/** The place whose bead is meant by a point of the work, mm; it may lie outside the work. */
export function placeNear(part: Part, p: Point): Place {
  const free = freeOf(part)
  if (!free) return nearestPlace(latticeOf(part), p)
  const k = beadNear(free, p)
  return k < 0 ? NOWHERE : placeOfKey(columnsOf(part), free.keys[k]!)
}

/** The beads that touch the one at a place, inside the work; round a tube the last column touches the first. */
export function neighboursOf(part: Part, { c, r }: Place): Place[] {
  const columns = columnsOf(part)
  const free = freeOf(part)
  if (free) {
    const k = free.indexOf(keyOf(columns, c, r))
    return k < 0 ? [] : beadsTouching(free, k).map((other) => placeOfKey(columns, free.keys[other]!))
  }
  const lattice = latticeOf(part)
  return neighbourOffsets(lattice, c, r)
    .map((o) => ({ c: lattice.round ? modulo(c + o.c, columns) : c + o.c, r: r + o.r }))
    .filter((place) => isInside(part, place))
}

/** Step between lines that lie next to each other, mm: how long a line is along the work. */
export function pitchOf(part: Part): Point {
  const free = freeOf(part)
  if (!free) return { x: latticeOf(part).pitchX, y: latticeOf(part).pitchY }
  return { x: free.widthMm / Math.max(1, columnsOf(part)), y: free.lengthMm / Math.max(1, rowsOf(part)) }
}
