import { placeKey } from '../piece/edit'
import { columnsOf, numberAt, rowsOf, type Part } from '../piece/piece'
import { siteOf, type Place } from '../technique/lattice'
import { latticeOf } from './place'

/** A box of cells, both corners included. */
export interface Box { readonly c: number, readonly r: number, readonly columns: number, readonly rows: number }

/** A copied piece of pattern: tray numbers row-major. (c, r) is where it was taken from. */
export interface Clip { readonly columns: number, readonly rows: number, readonly numbers: readonly number[], readonly c: number, readonly r: number }

export function boxBetween(a: Place, b: Place): Box {
  return { c: Math.min(a.c, b.c), r: Math.min(a.r, b.r), columns: Math.abs(a.c - b.c) + 1, rows: Math.abs(a.r - b.r) + 1 }
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
  for (let r = 0; r < box.rows; r++) for (let c = 0; c < box.columns; c++) numbers.push(numberAt(part, box.c + c, box.r + r))
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
      out.set(placeKey(columns, to.c, to.r), clip.numbers[r * clip.columns + c]!)
    }
  }
  return out
}

export type MirrorWay = 'across' | 'along'

/**
 * A box mirrored in place: `across` exchanges its edges, `along` its ends. On a staggered lattice a column that lies half a
 * bead further along is mirrored along about a point half a bead away, so that the picture, not the list of cells, is mirrored:
 * such columns turn within one row less, and their last bead stays.
 */
export function mirrorBox(part: Part, box: Box, way: MirrorWay): Map<number, number> {
  const out = new Map<number, number>()
  const columns = columnsOf(part)
  const lattice = latticeOf(part)
  const lowest = Math.min(...Array.from({ length: lattice.period.columns }, (_, c) => siteOf(lattice, c, 0).dy))
  for (let c = 0; c < box.columns; c++) {
    const staggered = siteOf(lattice, box.c + c, 0).dy > lowest + 1e-9
    const height = way === 'along' && staggered ? box.rows - 1 : box.rows
    for (let r = 0; r < height; r++) {
      const from = way === 'across' ? { c: box.columns - 1 - c, r } : { c, r: height - 1 - r }
      out.set(placeKey(columns, box.c + c, box.r + r), numberAt(part, box.c + from.c, box.r + from.r))
    }
  }
  return out
}

export function fillBox(part: Part, box: Box, number: number): Map<number, number> {
  const out = new Map<number, number>()
  for (let r = 0; r < box.rows; r++) for (let c = 0; c < box.columns; c++) out.set(placeKey(columnsOf(part), box.c + c, box.r + r), number)
  return out
}
