import { closureOf } from '../wear/closure'
import { coverOf, pathOf } from '../supply/thread'
import { fittedPart, type Piece, type Part } from '../piece/piece'
import type { RowList } from './agenda'

/** Where thread was joined (true), or was not though it was foretold (false), by place among the rows of a part. */
export type Joins = ReadonlyMap<number, boolean>

const NO_JOINS: Joins = new Map()

/**
 * Rows (places in the list of a part's rows) before which new thread is joined: where the thread in hand ends, by the
 * way that it takes; their count where the last thread is too short to sew the closure on. Where it was joined
 * already, that holds, and what is foretold goes on from there; where it was not, it is asked again a row later. The
 * way of the thread is shared out over the beads. None where no thread is joined.
 */
export function joinRows(
  piece: Pick<Piece, 'fit' | 'parts' | 'supply'>,
  part: Part,
  rows: Pick<RowList, 'count' | 'beadsBefore'>,
  joins: Joins = NO_JOINS,
): number[] {
  const lengthMm = Math.max(0, ...pathOf(part, piece).runs.map((run) => (run.joined ? run.lengthMm : 0)))
  const all = rows.beadsBefore(rows.count)
  if (lengthMm === 0 || all === 0) return []
  const perBead = lengthMm / all
  const pathTo = (k: number): number => rows.beadsBefore(k) * perBead
  const { first, next, sewing } = coverOf(
    piece.supply,
    part.id === fittedPart(piece).id ? closureOf(piece.fit.closure.kind).sewingMm : 0,
  )
  const made = [...joins].filter(([k, joined]) => joined && k > 0 && k <= rows.count).map(([k]) => k)
  made.sort((a, b) => a - b)
  const out: number[] = []
  let from = 0
  let cover = first
  for (;;) {
    // The last row whose end the thread still reaches; one row at least is tried with each thread.
    let [low, high] = [from + 1, rows.count + 1]
    while (low < high) {
      const middle = (low + high) >> 1
      const ends = middle > rows.count || pathTo(middle) - pathTo(from) > cover
      if (ends) high = middle
      else low = middle + 1
    }
    let before = Math.max(from + 1, low - 1)
    while (before < rows.count && joins.get(before) === false) before++
    const really = made.find((k) => k > from)
    if (really !== undefined && really <= before) before = really
    else if (before >= rows.count) {
      const short = cover - (pathTo(rows.count) - pathTo(from)) < sewing
      return short && joins.get(rows.count) !== false && from < rows.count ? [...out, rows.count] : out
    }
    out.push(before)
    if (before >= rows.count) return out
    from = before
    cover = next
  }
}
