import type { Row } from '../../recipe/rows'
import { plainNumber } from '../../units/length'
import type { Point } from '../lattice'

/** Beads one after the other, as all work on threads, cords, pins and wire has them. */

/** How long they are together, mm. */
export const longOf = (row: Row): number => row.reduce((sum, bead) => sum + bead.l, 0)

/** How thick the thickest of them is, mm. */
export const thickOf = (row: Row): number => row.reduce((most, bead) => Math.max(most, bead.d), 0)

/** Length that a line brings at least, mm, so that one without any bead can be reckoned with. */
export const LEAST_STEP = 0.1

/** A bead of a line where it lies. */
export interface Lined extends Point {
  readonly turnDegrees: number
  readonly bead: Row[number]
}

/** Beads from one point towards another, each half its length on from the one before, about the middle of the way. */
export function lined(row: Row, from: Point, to: Point): Lined[] {
  const long = Math.hypot(to.x - from.x, to.y - from.y)
  const whole = longOf(row)
  const [ux, uy] = long > 0 ? [(to.x - from.x) / long, (to.y - from.y) / long] : [0, 1]
  // Beads lie about the middle of their way, whether they are shorter or longer than it.
  let along = (long - whole) / 2
  return row.map((bead) => {
    const here = along + bead.l / 2
    along += bead.l
    return {
      x: from.x + ux * here,
      y: from.y + uy * here,
      turnDegrees: (Math.atan2(uy, ux) * 180) / Math.PI,
      bead,
    }
  })
}

/** A list made so long: cut off at its end, or gone on with in one number. */
export const resized = (list: readonly number[], length: number, number: number): number[] =>
  Array.from({ length: Math.max(0, length) }, (_, k) => list[k] ?? number)

/** Middles of lines that lie against each other, each as thick as its thickest bead, mm; and where the last ends. */
export function stacked(thick: readonly number[]): { readonly at: readonly number[]; readonly lengthMm: number } {
  let y = 0
  const at = thick.map((t) => {
    y += t
    return y - t / 2
  })
  return { at, lengthMm: y }
}

/** A length in words, to a tenth of a mm. */
export const tenths = (mm: number): string => plainNumber(Math.round(mm * 10) / 10)
