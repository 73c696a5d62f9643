import { lineAt, lineLength } from '../grid/lines'
import { runsOf } from '../grid/runs'
import { layingSteps } from './edit'
import { keyOf } from '../grid/key'
import {
  columnsOf,
  findPart,
  isGrid,
  lengthOfLine,
  locateRow,
  partRow,
  rowsOf,
  techniqueOf,
  type Part,
  type Piece,
} from './piece'
import { applySteps, type Step } from './step'

/** Lines that stay alike: what is changed in one is changed in those that mirror or repeat it. */

const sameLine = (a: Uint16Array, b: Uint16Array): boolean => a.length === b.length && a.every((n, k) => n === b[k])

/** Steps that make line r of a part so: bead by bead where it keeps its length. */
export function lineSteps(part: Part, r: number, numbers: Uint16Array): Step[] {
  const { section, row } = locateRow(part, r)
  if (lineLength(part[section], row) === numbers.length) {
    const columns = columnsOf(part)
    return layingSteps(part, new Map(Array.from(numbers, (number, c) => [keyOf(columns, c, r), number])))
  }
  return [
    { type: 'lines', do: 'remove', part: part.id, section, at: row, lines: [runsOf(lineAt(part[section], row))] },
    { type: 'lines', do: 'insert', part: part.id, section, at: row, lines: [runsOf(numbers)] },
  ]
}

/** Lines of a part that steps made otherwise, where it kept its count of lines. */
function changedLines(before: Part, after: Part): number[] {
  if (rowsOf(before) !== rowsOf(after)) return []
  return Array.from({ length: rowsOf(after) }, (_, r) => r).filter(
    (r) => !sameLine(partRow(before, r), partRow(after, r)),
  )
}

/**
 * Steps with what follows from them: lines that are to stay alike with one that they change are changed as it is.
 * A line that the steps change themselves keeps what they make of it.
 */
export function alikeSteps(piece: Piece, steps: readonly Step[]): readonly Step[] {
  const parts = piece.parts.filter((p) => !isGrid(p) && p.times <= 1 && techniqueOf(p).alike)
  if (parts.length === 0) return steps
  const applied = applySteps(piece, steps)
  if (!applied.ok) return steps
  const more: Step[] = []
  let now = applied.value
  for (const before of parts) {
    let after = findPart(now, before.id)
    if (!after || after.technique !== before.technique) continue
    const changed = changedLines(before, after)
    const own = new Set(changed)
    for (const r of changed) {
      const { alike } = techniqueOf(after)
      for (const twin of alike!(r, { rows: rowsOf(after), ...(after.plan ? { plan: after.plan } : {}) })) {
        // Lists that were not alike before are each their own.
        if (own.has(twin) || twin >= rowsOf(before) || !sameLine(partRow(before, twin), partRow(before, r))) continue
        const made = lineSteps(after, twin, partRow(after, r))
        const next = applySteps(now, made)
        if (!next.ok) continue
        more.push(...made)
        own.add(twin)
        now = next.value
        after = findPart(now, before.id)!
      }
    }
  }
  return more.length === 0 ? steps : [...steps, ...more]
}

/** Lines before a line that hold the same beads in the same order; null where none does. */
export function sameAsEarlier(part: Part, r: number): number | null {
  for (let k = 0; k < r; k++) if (lengthOfLine(part, k) > 0 && sameLine(partRow(part, k), partRow(part, r))) return k
  return null
}
