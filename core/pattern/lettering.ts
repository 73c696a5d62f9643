import { keyOf } from '../grid/key'
import { columnsOf, isInside, type Part } from '../piece/piece'
import type { Place, Box } from '../technique/lattice'
import { letter } from './letters'

export interface LetteringWish {
  readonly text: string
  readonly size: number
  /** along: the line runs with the length of the band; across: with its width. */
  readonly way: 'along' | 'across'
  readonly number: number
}

interface Lettered {
  readonly laying: Map<number, number>
  /** Room that the line takes, beads. */
  readonly columns: number
  readonly rows: number
  readonly missing: readonly string[]
  /** Whether all of it lies in the work. */
  readonly fits: boolean
}

/**
 * Text laid in beads, its middle in the middle of a box. Along it reads in the level work; across, in the upright one,
 * where rows rise.
 */
export function letteringIn(part: Part, box: Box, { text, size, way, number }: LetteringWish): Lettered {
  const { width, height, ink, missing } = letter(text, size)
  const [columns, rows] = way === 'along' ? [height, width] : [width, height]
  const c0 = box.c + Math.floor((box.columns - columns) / 2)
  const r0 = box.r + Math.floor((box.rows - rows) / 2)
  const places: Place[] = ink.map(({ x, y }) =>
    way === 'along' ? { c: c0 + y, r: r0 + x } : { c: c0 + x, r: r0 + height - 1 - y },
  )
  const inside = places.filter((p) => isInside(part, p))
  return {
    laying: new Map(inside.map((p) => [keyOf(columnsOf(part), p.c, p.r), number])),
    columns,
    rows,
    missing,
    fits: inside.length === places.length,
  }
}
