import { modulo } from '../modulo'
import { keyOf, placeOfKey, rowOfKey } from '../grid/key'
import { centreOf, freeOf, isScattered, latticeOf, neighboursOf, placeNear } from '../piece/drawing'
import {
  columnsOf,
  isInside,
  lengthOfLine,
  numberAt,
  rowsOf,
  techniqueOf,
  voidsOf,
  wholePart,
  workOf,
  type Part,
} from '../piece/piece'
import { beadsTouching, beadsWithin, type FreeDrawing } from '../technique/drawing'
import { beadCentre, neighbourOffsets, siteIndexOf, type Lattice, type Place, type Point } from '../technique/lattice'
import { placesOf } from '../technique/technique'

/** Which cells a tool touches. All of these obey how the beads of the work lie, on a lattice or freely. */

/**
 * The bead that lies next to one in a direction: x across the width, y along the length; the bead itself at an edge.
 * On a rope it goes round.
 */
export function beside(part: Part, { c, r }: Place, dx: number, dy: number): Place {
  const columns = columnsOf(part)
  const rows = rowsOf(part)
  if (!isScattered(part)) {
    const to = Math.min(rows - 1, Math.max(0, r + dy))
    const length = rows === 0 ? columns : lengthOfLine(part, to)
    // A line without a place is passed over by none: the cursor stays.
    return length === 0 ? { c, r } : { c: Math.min(length - 1, Math.max(0, c + dx)), r: to }
  }
  if (freeOf(part)) return dy === 0 ? besideInLine(part, { c, r }, dx) : besideAlong(part, { c, r }, Math.sign(dy))
  // Round a rope the way over the seam is as near.
  const round = columns * latticeOf(part).pitchX
  const wrapped = (x: number) => modulo(x + round / 2, round) - round / 2
  return nearestAhead(part, { c, r }, dx, dy, neighboursOf(part, { c, r }), wrapped) ?? { c, r }
}

/** Straight ahead and near: of some places the one that is meant by a step; null if none lies ahead. */
function nearestAhead(
  part: Part,
  from: Place,
  dx: number,
  dy: number,
  places: readonly Place[],
  wrapped: (x: number) => number = (x) => x,
): Place | null {
  const here = centreOf(part, from.c, from.r)
  let best: Place | null = null
  let least = Infinity
  for (const to of places) {
    const there = centreOf(part, to.c, to.r)
    const x = wrapped(there.x - here.x)
    const y = there.y - here.y
    const ahead = x * dx + y * dy
    if (ahead <= 1e-9) continue
    // What lies aside counts double.
    const far = ahead + 2 * Math.abs(x * dy - y * dx)
    if (far < least - 1e-9) {
      least = far
      best = to
    }
  }
  return best
}

const placesOfLine = (part: Part, r: number): Place[] =>
  r < 0 || r >= rowsOf(part) ? [] : Array.from({ length: lengthOfLine(part, r) }, (_, c) => ({ c, r }))

/** Where beads lie freely: the next one of the line as they lie across the work, so that each is reached. */
function besideInLine(part: Part, { c, r }: Place, dx: number): Place {
  const across = placesOfLine(part, r)
    .map((place) => ({ place, at: centreOf(part, place.c, place.r) }))
    .sort((a, b) => a.at.x - b.at.x || a.at.y - b.at.y || a.place.c - b.place.c)
  const here = across.findIndex(({ place }) => place.c === c)
  return across[Math.min(across.length - 1, Math.max(0, here + dx))]?.place ?? { c, r }
}

/**
 * Where beads lie freely: a bead ahead that touches, or of the next line ahead; lines may lie so far apart that no two
 * of their beads touch, or beside each other, and the way from one to the next is still wanted.
 */
function besideAlong(part: Part, from: Place, dy: number): Place {
  const next = placesOfLine(part, from.r + dy)
  const touching = neighboursOf(part, from).filter(({ r }) => r === from.r || r === from.r + dy)
  const ahead = nearestAhead(part, from, 0, dy, [...touching, ...next])
  if (ahead) return ahead
  const here = centreOf(part, from.c, from.r)
  const far = ({ c, r }: Place): number => {
    const { x, y } = centreOf(part, c, r)
    return Math.hypot(x - here.x, y - here.y)
  }
  return next.reduce<Place | null>((best, p) => (best && far(best) <= far(p) ? best : p), null) ?? from
}

/** All beads whose middles lie in the rectangle between two beads, as they lie on the screen. */
export function rectangleBetween(part: Part, from: Place, to: Place): Place[] {
  const [a, b] = [centreOf(part, from.c, from.r), centreOf(part, to.c, to.r)]
  const [x0, x1] = [Math.min(a.x, b.x) - 1e-6, Math.max(a.x, b.x) + 1e-6]
  const [y0, y1] = [Math.min(a.y, b.y) - 1e-6, Math.max(a.y, b.y) + 1e-6]
  const free = freeOf(part)
  if (free) return Array.from(beadsWithin(free, x0, y0, x1, y1), (k) => placeOfKey(columnsOf(part), free.keys[k]!))
  const lattice = latticeOf(part)
  const spread = Math.ceil(Math.max(...lattice.sites.map((s) => Math.abs(s.dy))) / lattice.pitchY)
  const out: Place[] = []
  for (
    let r = Math.max(0, Math.min(from.r, to.r) - spread);
    r <= Math.min(rowsOf(part) - 1, Math.max(from.r, to.r) + spread);
    r++
  ) {
    for (let c = 0; c < columnsOf(part); c++) {
      const { x, y } = beadCentre(lattice, c, r)
      if (x >= x0 && x <= x1 && y >= y0 && y <= y1) out.push({ c, r })
    }
  }
  return out
}

/** The cells that a straight line between the middles of two beads passes, each once, in order. */
export function lineBetween(part: Part, from: Place, to: Place): Place[] {
  const columns = columnsOf(part)
  const rows = rowsOf(part)
  const [a, b] = [centreOf(part, from.c, from.r), centreOf(part, to.c, to.r)]
  const step = stepOf(part)
  const steps = Math.max(1, Math.ceil(4 * Math.max(Math.abs(b.x - a.x) / step.x, Math.abs(b.y - a.y) / step.y)))
  const out: Place[] = []
  const seen = new Set<number>()
  for (let i = 0; i <= steps; i++) {
    const t = i / steps
    const near =
      i === 0 ? from : i === steps ? to : placeNear(part, { x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) })
    // At a staggered edge the nearest place may be a gap outside the work: the bead beside it is meant. On a rope that
    // would be another line's, and it is passed over.
    const place =
      !isScattered(part) && isInside(part, from) && isInside(part, to)
        ? { c: Math.min(columns - 1, Math.max(0, near.c)), r: Math.min(rows - 1, Math.max(0, near.r)) }
        : near
    const key = keyOf(columns, place.c, place.r)
    if (!isInside(part, place) || seen.has(key)) continue
    seen.add(key)
    out.push(place)
    // Where it lies, the line ends: beads of a rope may overlap a little, and the way on would leave it again.
    if (place.c === to.c && place.r === to.r) break
  }
  return freeOf(part) ? out : thinned(out)
}

/** How far a line goes in the step of one bead, mm. */
function stepOf(part: Part): Point {
  const free = freeOf(part)
  return free ? { x: free.beadX, y: free.beadY } : { x: latticeOf(part).pitchX, y: latticeOf(part).pitchY }
}

const besides = (a: Place, b: Place): boolean => Math.abs(a.c - b.c) <= 1 && Math.abs(a.r - b.r) <= 1

/** Without the beads that only fill a corner: one is left out where those before and after it lie side by side. */
function thinned(line: readonly Place[]): Place[] {
  const out: Place[] = []
  line.forEach((place, i) => {
    const before = out.at(-1)
    const next = line[i + 1]
    if (!before || !next || !besides(before, next)) out.push(place)
  })
  return out
}

const workingRowAt = (part: Part, at: Place) => {
  const { order } = techniqueOf(part)
  const work = workOf(part)
  return order.row(order.rowOf(at, work), work)
}

/** All cells of a working row, in the order in which they are picked up. */
export const wholeRow = (part: Part, at: Place): readonly Place[] => placesOf(workingRowAt(part, at), columnsOf(part))

/**
 * The beads strung between two places of one working row, as the thread takes them; `to` is brought onto the row of
 * `from`.
 */
export function runBetween(part: Part, from: Place, to: Place): readonly Place[] {
  const places = wholeRow(part, from)
  const b = centreOf(part, to.c, to.r)
  const first = places.findIndex((p) => p.c === from.c && p.r === from.r)
  let last = first
  let least = Infinity
  for (let i = 0; i < places.length; i++) {
    const p = centreOf(part, places[i]!.c, places[i]!.r)
    const far = Math.abs(p.x - b.x) + Math.abs(p.y - b.y) * 1e-6
    if (far < least - 1e-9) {
      least = far
      last = i
    }
  }
  return places.slice(Math.min(first, last), Math.max(first, last) + 1)
}

/**
 * What a flood works on: cells that may still be taken (1), and the offsets to touching cells by site, flat: column
 * step, row step.
 */
interface Flood {
  readonly columns: number
  readonly rows: number
  readonly open: Uint8Array
  readonly offsets: readonly Int32Array[]
  readonly period: Lattice['period']
  readonly round: boolean
  readonly out: Int32Array
}

/** The open cell that an offset leads to, or −1; round a tube the last column is followed by the first. */
function stepTo({ columns, rows, open, round }: Flood, c: number, r: number, dc: number, dr: number): number {
  const nr = r + dr
  let nc = c + dc
  if (nr < 0 || nr >= rows) return -1
  if (nc < 0 || nc >= columns) {
    if (!round) return -1
    nc += nc < 0 ? columns : -columns
  }
  const next = keyOf(columns, nc, nr)
  return open[next] === 1 ? next : -1
}

/** Cell by cell, for any lattice. Returns how many cells were taken. */
function floodCells(flood: Flood, first: number): number {
  const { columns, open, offsets, period, out } = flood
  out[0] = first
  open[first] = 0
  let length = 1
  for (let head = 0; head < length; head++) {
    const key = out[head]!
    const { c, r } = placeOfKey(columns, key)
    const around = offsets[siteIndexOf(period, c, r)]!
    for (let k = 0; k < around.length; k += 2) {
      const next = stepTo(flood, c, r, around[k]!, around[k + 1]!)
      if (next < 0) continue
      open[next] = 0
      out[length++] = next
    }
  }
  return length
}

/**
 * Whether every bead touches those beside, above and below it and none further than one cell away: then whole lines
 * can be taken at once.
 */
const touchesInLines = ({ offsets }: Flood): boolean =>
  offsets.every((list) => {
    const pairs = Array.from({ length: list.length / 2 }, (_, k) => `${list[2 * k]!},${list[2 * k + 1]!}`)
    return ['-1,0', '1,0', '0,-1', '0,1'].every((p) => pairs.includes(p)) && list.every((n) => Math.abs(n) <= 1)
  })

/** Line by line: several times as fast where a lattice allows it. */
function floodLines(flood: Flood, first: number): number {
  const { columns, rows, open, offsets, period, out, round } = flood
  const seeds: number[] = [first]
  let length = 0
  while (seeds.length > 0) {
    const seed = seeds.pop()!
    if (open[seed] === 0) continue
    const r = rowOfKey(columns, seed)
    const base = keyOf(columns, 0, r)
    let a = seed
    let b = seed
    while (a > base && open[a - 1] === 1) a--
    while (b < base + columns - 1 && open[b + 1] === 1) b++
    for (let key = a; key <= b; key++) {
      open[key] = 0
      out[length++] = key
    }
    for (let dr = -1; dr <= 1; dr += 2) {
      if (r + dr < 0 || r + dr >= rows) continue
      // Every bead of the line touches the one straight above and below it; one seed for each gapless stretch is
      // enough.
      const shift = dr * columns
      for (let key = a, running = false; key <= b; key++) {
        const is = open[key + shift] === 1
        if (is && !running) seeds.push(key + shift)
        running = is
      }
    }
    // Both ends may touch beads aslant, and over the seam of a tube.
    for (let end = a; ; end = b) {
      const c = end - base
      const around = offsets[siteIndexOf(period, c, r)]!
      for (let k = 0; k < around.length; k += 2) {
        const [dc, dr] = [around[k]!, around[k + 1]!]
        if (dc === 0 || (dr === 0 && !round)) continue
        const next = stepTo(flood, c, r, dc, dr)
        if (next >= 0) seeds.push(next)
      }
      if (end === b) break
    }
  }
  return length
}

/**
 * Keys of the patch of equal beads that touch each other, beginning at a place. Touching is along a
 * side, as the lattice has it; round a tube the last column touches the first.
 */
export function floodFrom(part: Part, at: Place): Int32Array {
  if (!isInside(part, at)) return new Int32Array(0)
  const free = freeOf(part)
  if (free) return floodFree(part, free, at)
  const columns = columnsOf(part)
  const lattice = latticeOf(part)
  const { period } = lattice
  const cells = wholePart(part)
  const first = keyOf(columns, at.c, at.r)
  const wanted = cells[first]!
  const open = new Uint8Array(cells.length)
  for (let i = 0; i < cells.length; i++) if (cells[i] === wanted) open[i] = 1
  for (const key of voidsOf(part)) open[key] = 0
  const flood: Flood = {
    columns,
    rows: rowsOf(part),
    open,
    period,
    round: lattice.round === true,
    out: new Int32Array(cells.length),
    offsets: Array.from({ length: period.columns * period.rows }, (_, i) => {
      const site = placeOfKey(period.columns, i)
      return Int32Array.from(neighbourOffsets(lattice, site.c, site.r).flatMap((o) => [o.c, o.r]))
    }),
  }
  return flood.out.slice(0, touchesInLines(flood) ? floodLines(flood, first) : floodCells(flood, first))
}

/** The same where beads lie freely: from bead to bead that touches it. */
function floodFree(part: Part, free: FreeDrawing, at: Place): Int32Array {
  const columns = columnsOf(part)
  const wanted = numberAt(part, at.c, at.r)
  const first = free.indexOf(keyOf(columns, at.c, at.r))
  const taken = new Uint8Array(free.keys.length)
  taken[first] = 1
  const out = [first]
  for (let head = 0; head < out.length; head++)
    for (const next of beadsTouching(free, out[head]!)) {
      const { c, r } = placeOfKey(columns, free.keys[next]!)
      if (taken[next] === 1 || numberAt(part, c, r) !== wanted) continue
      taken[next] = 1
      out.push(next)
    }
  return Int32Array.from(out, (k) => free.keys[k]!)
}
