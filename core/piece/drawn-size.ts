import { keyOf, placeOfKey } from '../grid/key'
import { halfBox, type Lattice, type Point } from '../technique/lattice'
import { freeOf, latticeOf } from './drawing'
import { columnsOf, rowsOf, techniqueOf, type Part } from './piece'

/** First and last place of the beads of one site on one axis; none if it has no place in the work. */
interface Ends {
  readonly first: number
  readonly last: number
  readonly at: number
  readonly half: number
}

const endsOf = (first: number, period: number, count: number, at: number, half: number): Ends[] =>
  first >= count ? [] : [{ first, last: first + period * Math.floor((count - 1 - first) / period), at, half }]

/**
 * Room that the beads of a lattice take on one axis, mm, from the work's corner; as much is kept free behind the last
 * as before the first.
 */
function reach(origin: number, pitch: number, ends: readonly Ends[]): number {
  const before = Math.max(0, Math.min(Infinity, ...ends.map((e) => origin + e.first * pitch + e.at - e.half)))
  return ends.length === 0 ? 0 : before + Math.max(0, ...ends.map((e) => origin + e.last * pitch + e.at + e.half))
}

const sizes = new WeakMap<Lattice, Map<string, { readonly width: number; readonly length: number }>>()

/** Size of a part as it is drawn, mm: across and along. */
export interface DrawnSize {
  readonly width: number
  readonly length: number
  /** Where the middle of what it hangs on lies in it, where that is not the middle of its first edge. */
  readonly hungAt?: Point
}

export function drawnSize(part: Part): DrawnSize {
  const free = freeOf(part)
  if (free) return { width: free.widthMm, length: free.lengthMm, ...(free.hungAt ? { hungAt: free.hungAt } : {}) }
  const lattice = latticeOf(part)
  const columns = columnsOf(part)
  const rows = rowsOf(part)
  let known = sizes.get(lattice)
  if (!known) {
    known = new Map()
    sizes.set(lattice, known)
  }
  const key = `${columns} ${rows}`
  let size = known.get(key)
  if (!size) {
    const last = new Set(techniqueOf(part).voids?.({ columns, rows, settings: part.settings }))
    const { period } = lattice
    const across: Ends[] = []
    const along: Ends[] = []
    for (const [k, site] of lattice.sites.entries()) {
      const half = halfBox(lattice, site.turnDegrees)
      const { c: i, r: j } = placeOfKey(period.columns, k)
      // A single row does not lie to both sides.
      if (j >= Math.max(1, rows)) continue
      const shorter = last.has(keyOf(columns, i, rows - 1)) ? 1 : 0
      across.push(...endsOf(i, period.columns, columns, site.dx, half.x))
      along.push(...endsOf(j, period.rows, rows - shorter, site.dy, half.y))
    }
    size = {
      width: reach(lattice.originX, lattice.pitchX, across),
      length: rows === 0 ? 0 : reach(lattice.originY, lattice.pitchY, along),
    }
    known.set(key, size)
  }
  return size
}
