import { modulo } from '../modulo'
import { keyOf } from '../grid/key'
import { columnsOf, isInside, numberAt, rowsOf, type Part } from '../piece/piece'
import { siteOf, type Box, type Place } from '../technique/lattice'
import { freeOf, latticeOf } from '../piece/drawing'

/** In a clip: whatever lies there stays. */
export const LEAVE = -1

/** A copied piece of pattern: tray numbers row-major. (c, r) is where it was taken from. */
export interface Clip {
  readonly columns: number
  readonly rows: number
  readonly numbers: readonly number[]
  readonly c: number
  readonly r: number
}

export function boxBetween(a: Place, b: Place): Box {
  return {
    c: Math.min(a.c, b.c),
    r: Math.min(a.r, b.r),
    columns: Math.abs(a.c - b.c) + 1,
    rows: Math.abs(a.r - b.r) + 1,
  }
}

/** The part of a box that lies in the work; null if none does. */
export function clampBox(part: Part, box: Box): Box | null {
  const c = Math.max(0, box.c)
  const r = Math.max(0, box.r)
  const columns = Math.min(columnsOf(part), box.c + box.columns) - c
  const rows = Math.min(rowsOf(part), box.r + box.rows) - r
  return columns > 0 && rows > 0 ? { c, r, columns, rows } : null
}

export function copyClip(part: Part, box: Box): Clip {
  const numbers: number[] = []
  for (let r = 0; r < box.rows; r++)
    for (let c = 0; c < box.columns; c++) numbers.push(numberAt(part, box.c + c, box.r + r))
  return { columns: box.columns, rows: box.rows, numbers, c: box.c, r: box.r }
}

/** What laying a clip with its first cell at a place changes; what falls outside is left out. */
export function pasteClip(part: Part, clip: Clip, at: Place): Map<number, number> {
  const out = new Map<number, number>()
  const columns = columnsOf(part)
  const rows = rowsOf(part)
  for (let r = 0; r < clip.rows; r++) {
    for (let c = 0; c < clip.columns; c++) {
      const to = { c: at.c + c, r: at.r + r }
      if (to.c < 0 || to.r < 0 || to.c >= columns || to.r >= rows) continue
      const number = clip.numbers[keyOf(clip.columns, c, r)]!
      if (number !== LEAVE) out.set(keyOf(columns, to.c, to.r), number)
    }
  }
  return out
}

type MirrorWay = 'across' | 'along'

/**
 * A box mirrored in place: `across` exchanges its edges, `along` its ends. On a staggered lattice a column that lies
 * half a bead further along is mirrored along about a point half a bead away, so that the picture, not the list of
 * cells, is mirrored: such columns turn within one row less, and their last bead stays.
 */
export function mirrorBox(part: Part, box: Box, way: MirrorWay): Map<number, number> {
  const out = new Map<number, number>()
  const columns = columnsOf(part)
  const lattice = freeOf(part) ? null : latticeOf(part)
  const lowest = lattice
    ? Math.min(...Array.from({ length: lattice.period.columns }, (_, c) => siteOf(lattice, c, 0).dy))
    : 0
  for (let c = 0; c < box.columns; c++) {
    const staggered = lattice !== null && siteOf(lattice, box.c + c, 0).dy > lowest + 1e-9
    const height = way === 'along' && staggered ? box.rows - 1 : box.rows
    for (let r = 0; r < height; r++) {
      const from = way === 'across' ? { c: box.columns - 1 - c, r } : { c, r: height - 1 - r }
      // Where the stitch has no bead, nothing can be exchanged.
      if (!isInside(part, { c: box.c + c, r: box.r + r }) || !isInside(part, { c: box.c + from.c, r: box.r + from.r }))
        continue
      out.set(keyOf(columns, box.c + c, box.r + r), numberAt(part, box.c + from.c, box.r + from.r))
    }
  }
  return out
}

/**
 * A box turned by half: the first cell becomes the last. On a staggered lattice each column keeps its own beads, as in
 * `mirrorBox`.
 */
export function turnBox(part: Part, box: Box): Map<number, number> {
  const out = new Map<number, number>()
  for (let c = 0; c < box.columns; c++) {
    for (let r = 0; r < box.rows; r++)
      out.set(
        keyOf(columnsOf(part), box.c + c, box.r + r),
        numberAt(part, box.c + box.columns - 1 - c, box.r + box.rows - 1 - r),
      )
  }
  return out
}

/** A box whose cells are shifted by so many columns and rows; what goes out at one side comes in at the other. */
export function shiftBox(part: Part, box: Box, columns: number, rows: number): Map<number, number> {
  const out = new Map<number, number>()
  for (let c = 0; c < box.columns; c++) {
    for (let r = 0; r < box.rows; r++)
      out.set(
        keyOf(columnsOf(part), box.c + c, box.r + r),
        numberAt(part, box.c + modulo(c - columns, box.columns), box.r + modulo(r - rows, box.rows)),
      )
  }
  return out
}

/** The pattern of a box repeated over the width, along its own rows, or over the length, within its own columns. */
export function repeatBox(part: Part, box: Box, way: 'across' | 'along'): Map<number, number> {
  const out = new Map<number, number>()
  const columns = columnsOf(part)
  const rows = rowsOf(part)
  const [c0, c1] = way === 'across' ? [0, columns] : [box.c, box.c + box.columns]
  const [r0, r1] = way === 'along' ? [0, rows] : [box.r, box.r + box.rows]
  for (let r = r0; r < r1; r++)
    for (let c = c0; c < c1; c++)
      out.set(
        keyOf(columns, c, r),
        numberAt(part, box.c + modulo(c - box.c, box.columns), box.r + modulo(r - box.r, box.rows)),
      )
  return out
}

/** Moves the beads of a box so that its first cell comes to a place; where they were, nothing is left. */
export function moveBox(part: Part, box: Box, to: Place): Map<number, number> {
  return new Map([...fillBox(part, box, 0), ...pasteClip(part, copyClip(part, box), to)])
}

export function fillBox(part: Part, box: Box, number: number): Map<number, number> {
  const out = new Map<number, number>()
  for (let r = 0; r < box.rows; r++)
    for (let c = 0; c < box.columns; c++) out.set(keyOf(columnsOf(part), box.c + c, box.r + r), number)
  return out
}
