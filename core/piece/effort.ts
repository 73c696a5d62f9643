import { bad, good, problem, type Result } from '../problem'
import { columnsOf, SECTIONS, type Piece, type SectionName } from './piece'
import { LIMITS } from './schema'
import type { Step, Transaction } from './step'

/**
 * What applying steps will cost, known before any is applied: cells that are read or written, in the largest case. A
 * short message can ask for much (one patch may name a million cells), so costs are counted, not bytes or calls.
 */

/** Sizes of a part as steps change them. */
interface Size {
  columns: number
  rows: Record<SectionName, number>
}

type Sizes = Map<string, Size>

const sizesOf = (piece: Piece): Sizes =>
  new Map(
    piece.parts.map((part) => [
      part.id,
      {
        columns: columnsOf(part),
        rows: { start: part.start.rows, repeat: part.repeat.rows, end: part.end.rows },
      },
    ]),
  )

const rowsIn = ({ rows }: Size): number => SECTIONS.reduce((sum, name) => sum + rows[name], 0)
const cellsIn = (size: Size): number => size.columns * rowsIn(size)

/** Values in a piece of JSON. */
function valuesIn(value: unknown): number {
  let count = 0
  const left = [value]
  while (left.length > 0) {
    const next = left.pop()
    count++
    if (typeof next === 'object' && next !== null) for (const each of Object.values(next)) left.push(each)
  }
  return count
}

/** A field is checked with all fields of what it stands in. */
const FIELDS = 200
/** Cells of a block that are copied for one that is changed: 64 rows of a band as wide as most. */
const COPIED = 640
/** A row by itself, however narrow: it is cut into blocks, checked and told in words. */
const PER_ROW = 200

/** A count after some came or went. What takes out more than there is will not fit, and makes nothing cheaper. */
const counted = (now: number, { do: way, count }: { readonly do: 'insert' | 'remove'; readonly count: number }) =>
  Math.max(0, way === 'insert' ? now + count : now - count)

function effortOfStep(step: Step, sizes: Sizes): number {
  switch (step.type) {
    case 'set':
      return FIELDS + valuesIn(step.before) + valuesIn(step.after)
    case 'tray':
      return step.do === 'insert' ? FIELDS : [...sizes.values()].reduce((sum, size) => sum + cellsIn(size), FIELDS)
    case 'part': {
      const { columns, start, repeat, end, id } = step.value
      const size = { columns, rows: { start: start.length, repeat: repeat.length, end: end.length } }
      if (step.do === 'insert') sizes.set(id, size)
      else sizes.delete(id)
      return FIELDS + cellsIn(size)
    }
    case 'cells': {
      const size = sizes.get(step.part)
      if (!size) return 0
      // What is patched is read and written; blocks that are touched are copied.
      const patched = step.patches.reduce((sum, patch) => sum + patch[1], 0)
      return 2 * patched + step.patches.length + Math.min(size.columns * size.rows[step.section], patched * COPIED)
    }
    case 'rows': {
      const size = sizes.get(step.part)
      if (!size) return 0
      const there = size.columns * size.rows[step.section]
      size.rows[step.section] = counted(size.rows[step.section], step)
      return there + step.count * (size.columns + PER_ROW)
    }
    case 'columns': {
      const size = sizes.get(step.part)
      if (!size) return 0
      const there = cellsIn(size)
      size.columns = counted(size.columns, step)
      return there + step.count * rowsIn(size)
    }
  }
}
/** What applying lists of steps to a piece will cost, one after the other, cells; none is applied. */
export function effortsOf(piece: Piece, lists: readonly (readonly Step[])[]): number[] {
  const sizes = sizesOf(piece)
  return lists.map((steps) => steps.reduce((sum, step) => sum + effortOfStep(step, sizes), 0))
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
