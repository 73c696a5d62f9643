import { keyOf } from '../grid/key'
import { columnsOf, type Part } from '../piece/piece'
import type { Box } from '../technique/lattice'

export interface BorderWish {
  /** Tray numbers that follow each other along the rim, beginning at every corner. */
  readonly sequence: readonly number[]
  /** Rings of the rim; the second is shifted by one, and so on. */
  readonly rings: number
  /** Bead of the corners; the sequence's own if it is null. */
  readonly corner: number | null
}

/**
 * A border inside the rim of a box that turns its corners: every side is counted from both its corners to its middle,
 * so each corner is its own mirror image and opposite sides agree, whatever the counts are.
 */
export function borderIn(part: Part, box: Box, { sequence, rings, corner }: BorderWish): Map<number, number> {
  const out = new Map<number, number>()
  if (sequence.length === 0) return out
  const columns = columnsOf(part)
  for (let r = 0; r < box.rows; r++) {
    for (let c = 0; c < box.columns; c++) {
      const fromSide = Math.min(c, box.columns - 1 - c)
      const fromEnd = Math.min(r, box.rows - 1 - r)
      const ring = Math.min(fromSide, fromEnd)
      if (ring >= rings) continue
      const along = Math.max(fromSide, fromEnd) - ring
      const number = along === 0 && corner !== null ? corner : sequence[(along + ring) % sequence.length]!
      out.set(keyOf(columns, box.c + c, box.r + r), number)
    }
  }
  return out
}
