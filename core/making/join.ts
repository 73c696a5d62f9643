import { rowTitle } from '../tally/words'
import { coverOf, pathOf } from '../supply/thread'
import type { Piece, Part } from '../piece/piece'
import { indexOfRow, rowsIn, type Agenda, type RowList, type Task } from './agenda'

/**
 * Rows (places in the list of a part's rows) before which new thread is joined: where the thread in hand ends, by the
 * way that it takes. `joined`: where it was joined already, in order; what is foretold comes after the last of them.
 * The way of the thread is shared out over the beads. None where no thread is joined.
 */
export function joinRows(
  piece: Pick<Piece, 'fit' | 'parts' | 'supply'>,
  part: Part,
  rows: Pick<RowList, 'count' | 'beadsBefore'>,
  joined: readonly number[],
): number[] {
  const lengthMm = Math.max(0, ...pathOf(part, piece).runs.map((run) => (run.joined ? run.lengthMm : 0)))
  const all = rows.beadsBefore(rows.count)
  if (lengthMm === 0 || all === 0) return []
  const perBead = lengthMm / all
  const { first, next } = coverOf(piece.supply)
  const out: number[] = []
  let from = joined.at(-1) ?? 0
  let cover = joined.length > 0 ? next : first
  for (;;) {
    // The last row whose end the thread still reaches; one row at least is tried with each thread.
    let [low, high] = [from + 1, rows.count + 1]
    while (low < high) {
      const middle = (low + high) >> 1
      const ends = middle > rows.count || (rows.beadsBefore(middle) - rows.beadsBefore(from)) * perBead > cover
      if (ends) high = middle
      else low = middle + 1
    }
    const before = Math.max(from + 1, low - 1)
    if (before >= rows.count) return out
    out.push(before)
    from = before
    cover = next
  }
}

/** The next join that the hands come to, at a task or after it. */
export interface NextJoin {
  /** Whether it is now, before the task in hand. */
  readonly now: boolean
  /** The row before which it comes: “row 84”. */
  readonly before: string
  /** Rows of this copy until then. */
  readonly rows: number
}

/** Where thread is joined next in the copy of a task; null where the thread in hand lasts. */
export function nextJoin(agenda: Agenda, task: Task, joined: ReadonlySet<string>): NextJoin | null {
  const rows = rowsIn(agenda, task.part)
  const places = [...joined]
    .map((key) => indexOfRow(agenda, task, key))
    .filter((k) => k > 0)
    .sort((a, b) => a - b)
  const here = rows.placeOf(task.row)
  const at = joinRows(
    agenda.piece,
    task.part,
    rows,
    places.filter((k) => k <= here),
  ).find((k) => k >= here)
  if (at === undefined) return null
  return { now: at === here, before: rowTitle(rows.words(at)).toLowerCase(), rows: at - here }
}
