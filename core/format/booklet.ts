import { centreOf, freeOf, latticeOf } from '../piece/drawing'
import { columnsOf, lengthOfLine, rowsOf, type Part } from '../piece/piece'
import { leastOf, seenCarriers, type Carrier, type FreeDrawing } from '../technique/drawing'
import { drawnSize } from '../piece/drawn-size'
import type { Point } from '../technique/lattice'

/** A chart laid out over pages: which cells each page shows, and which of them its neighbours show too. */
export interface Tile {
  /** Number of the page in the booklet, from 1; the index sheet of its part is the page before the first. */
  readonly page: number
  readonly across: number
  readonly up: number
  readonly c: number
  readonly r: number
  readonly columns: number
  readonly rows: number
  /** Cells at the beginning that the page before (on the left, below) shows as well. */
  readonly overlapColumns: number
  readonly overlapRows: number
}

export interface Layout {
  readonly tiles: readonly Tile[]
  readonly pagesAcross: number
  readonly pagesUp: number
  /** How much larger than life. */
  readonly scale: number
}

interface Room {
  readonly widthMm: number
  readonly heightMm: number
}

/** Columns and rows that neighbouring pages share, so that the place is found again when a page is turned. */
export const OVERLAP = 2

/** Smallest bead on paper, mm: large enough for a letter. */
const LEAST_BEAD_MM = 3.4

/** [first, count, overlap] of each page along one axis. */
function spans(total: number, room: number): readonly (readonly [number, number, number])[] {
  if (total <= room) return [[0, total, 0]]
  const out: [number, number, number][] = []
  for (let at = 0; ;) {
    const count = Math.min(room, total - at)
    out.push([at, count, at === 0 ? 0 : OVERLAP])
    if (at + count >= total) return out
    at += count - OVERLAP
  }
}

/**
 * Lays the chart of a part over pages with so much room for beads on each, the work standing upright: the first pages
 * hold its first rows. `index`: the page before the first.
 */
export function bookletLayout(part: Part, room: Room, index = 1): Layout {
  const free = freeOf(part)
  if (free) return freeLayout(part, free, room, index)
  const lattice = latticeOf(part)
  const scale = LEAST_BEAD_MM / Math.min(lattice.beadX, lattice.beadY, lattice.pitchX * 1.4, lattice.pitchY * 1.4)
  const size = drawnSize(part)
  // What the outermost beads need beyond their pitch is taken off the room of every page.
  const spareX = Math.max(0, size.width - columnsOf(part) * lattice.pitchX) * scale
  const spareY = Math.max(0, size.length - rowsOf(part) * lattice.pitchY) * scale
  const perAcross = Math.max(OVERLAP + 1, Math.floor((room.widthMm - spareX) / (lattice.pitchX * scale)))
  const perUp = Math.max(OVERLAP + 1, Math.floor((room.heightMm - spareY) / (lattice.pitchY * scale)))
  const across = spans(columnsOf(part), perAcross)
  const up = spans(rowsOf(part), perUp)
  const tiles = up.flatMap(([r, rows, overlapRows], j) =>
    across.map(([c, columns, overlapColumns], i) => ({
      page: index + 1 + j * across.length + i,
      across: i,
      up: j,
      c,
      r,
      columns,
      rows,
      overlapColumns,
      overlapRows,
    })),
  )
  return { tiles, pagesAcross: across.length, pagesUp: up.length, scale }
}

/**
 * Lines that lie freely: all of their beads on one page across, as large as lets the widest lie on it, and as many
 * lines on a page as it holds.
 */
function freeLayout(part: Part, free: FreeDrawing, room: Room, index: number): Layout {
  const scale = Math.min(LEAST_BEAD_MM / leastOf(free), room.widthMm / Math.max(1, free.widthMm))
  const pages: { r: number; rows: number; overlapRows: number }[] = []
  const rows = rowsOf(part)
  for (let r = 0; r < rows;) {
    let count = 1
    while (r + count < rows && reachOf(part, r, r + count + 1, free).long * scale <= room.heightMm) count++
    const before = pages.at(-1)
    pages.push({ r, rows: count, overlapRows: before ? before.r + before.rows - r : 0 })
    if (r + count >= rows) break
    // Where hardly a line fits, pages share fewer, and every one brings a new line.
    r += Math.max(1, count - OVERLAP)
  }
  return {
    scale,
    pagesAcross: 1,
    pagesUp: pages.length,
    tiles: pages.map((page, j) => ({
      ...page,
      page: index + 1 + j,
      across: 0,
      up: j,
      c: 0,
      columns: columnsOf(part),
      overlapColumns: 0,
    })),
  }
}

/** Where the beads of the lines from … to begin along the work, and how long they reach, mm. */
function reachOf(part: Part, from: number, to: number, { beadX, beadY }: FreeDrawing): { top: number; long: number } {
  let [y0, y1] = [Infinity, -Infinity]
  for (let r = from; r < to; r++)
    for (let c = 0; c < lengthOfLine(part, r); c++) {
      const { y } = centreOf(part, c, r)
      y0 = Math.min(y0, y)
      y1 = Math.max(y1, y)
    }
  const bead = Math.max(beadX, beadY)
  return y1 < y0 ? { top: 0, long: bead } : { top: y1 + bead / 2, long: y1 - y0 + bead }
}

/** A straight stretch of what carries beads, mm on its page. */
export interface Stretch {
  readonly kind: Carrier['kind']
  readonly thick: number
  readonly from: Point
  readonly to: Point
}

/**
 * What carries the beads of lines that lie freely, under them and over them, as far as it lies beside those of a page:
 * each stretch is cut off above its last line and below its first. Nothing of a grid. Paper shows the right side.
 */
export function carriersOnPage(
  part: Part,
  { scale }: Pick<Layout, 'scale'>,
  tile: Tile,
): { readonly under: Stretch[]; readonly over: Stretch[] } {
  const free = freeOf(part)
  if (!free) return { under: [], over: [] }
  const { top, long } = reachOf(part, tile.r, tile.r + tile.rows, free)
  const low = top - long
  const at = ({ x, y }: Point): Point => ({ x: x * scale, y: (top - y) * scale })
  const stretches = ({ kind, thickMm, points }: Carrier): Stretch[] =>
    points.slice(1).flatMap((b, k): Stretch[] => {
      const a = points[k]!
      // Shares of the stretch between which it lies on the page.
      const shareAt = (y: number): number => (y - a.y) / (b.y - a.y)
      const cuts = a.y === b.y ? [0, 1] : [shareAt(low), shareAt(top)].sort((x, y) => x - y)
      const [s, e] = [Math.max(0, cuts[0]!), Math.min(1, cuts[1]!)]
      if (s > e || (a.y === b.y && (a.y < low || a.y > top))) return []
      const on = (t: number): Point => at({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) })
      return [{ kind, thick: thickMm * scale, from: on(s), to: on(e) }]
    })
  const { under, over } = seenCarriers(free, false)
  return { under: under.flat().flatMap(stretches), over: over.flatMap(stretches) }
}

/**
 * Where a bead lies on its page, mm from the upper left corner of the chart: upright as on the mat, so that rows rise.
 * Beads that reach beyond their pitch have their room at the top.
 */
export function placeOnPage(
  part: Part,
  { scale }: Pick<Layout, 'scale'>,
  tile: Tile,
): (c: number, r: number) => Point {
  const free = freeOf(part)
  if (free) {
    const { top } = reachOf(part, tile.r, tile.r + tile.rows, free)
    return (c, r) => {
      const { x, y } = centreOf(part, c, r)
      return { x: x * scale, y: (top - y) * scale }
    }
  }
  const lattice = latticeOf(part)
  const top =
    (tile.r + tile.rows) * lattice.pitchY + Math.max(0, drawnSize(part).length - rowsOf(part) * lattice.pitchY)
  return (c, r) => {
    const { x, y } = centreOf(part, c, r)
    return { x: (x - tile.c * lattice.pitchX) * scale, y: (top - y) * scale }
  }
}
