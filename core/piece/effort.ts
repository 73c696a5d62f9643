import { bad, good, problem, type Result } from '../problem'
import { slotCount } from '../grid/lines'
import { columnsOf, isGrid, type Piece, type SectionName } from './piece'
import { LIMITS } from './schema'
import type { Sizes } from './steps/kind'
import type { Step, Transaction } from './steps/schema'
import { kindOf } from './steps/table'

/**
 * What applying steps will cost, known before any is applied: cells that are read or written, in the largest case. A
 * short message can ask for much (one patch may name a million cells), so costs are counted, not bytes or calls.
 */

const bySection = (count: (name: SectionName) => number): Record<SectionName, number> => ({
  start: count('start'),
  repeat: count('repeat'),
  end: count('end'),
})

const sizesOf = (piece: Piece): Sizes =>
  new Map(
    piece.parts.map((part) => [
      part.id,
      {
        columns: isGrid(part) ? columnsOf(part) : 0,
        rows: bySection((name) => part[name].rows),
        slots: bySection((name) => (isGrid(part) ? 0 : slotCount(part[name]))),
      },
    ]),
  )

/** What applying lists of steps to a piece will cost, one after the other, cells; none is applied. */
export function effortsOf(piece: Piece, lists: readonly (readonly Step[])[]): number[] {
  const sizes = sizesOf(piece)
  return lists.map((steps) => steps.reduce((sum, step) => sum + kindOf(step).effort(step, sizes), 0))
}

export const effortOf = (piece: Piece, steps: readonly Step[]): number => effortsOf(piece, [steps])[0]!

/** More than any one gesture costs: the largest piece filled, or all its parts exchanged. */
export const MOST_EFFORT = 4 * LIMITS.cells

/** Refuses what no hand could have done in one gesture. */
export function checkEffort(effort: number): Result<number> {
  return effort <= MOST_EFFORT
    ? good(effort)
    : bad(problem('effort-large', 'steps', 'This changes more at once than a piece can hold. Do it in smaller steps.'))
}

/** How many of the first transactions may be sent together: as many as cost no more than `most`, one at least. */
export function sentTogether(piece: Piece, transactions: readonly Transaction[], most: number = LIMITS.cells): number {
  let left = most
  const efforts = effortsOf(
    piece,
    transactions.map((t) => t.steps),
  )
  const over = efforts.findIndex((effort) => (left -= effort) < 0)
  return over < 0 ? transactions.length : Math.max(1, over)
}
