import type { Piece } from '../piece/piece'
import { rowTitle, type RowWords } from '../tally/words'
import {
  agendaOf,
  keyOfTask,
  markOf,
  placeOf,
  rowListOf,
  placesDoneIn,
  type Filled,
  type Mark,
  type Order,
  type RowList,
} from './agenda'

/** What became, in one part, of rows that are made, since the plan that they were made by. */
export interface ChangedPart {
  readonly part: string
  readonly name: string
  /** Places among the rows of the part now, of those made rows that differ. */
  readonly rows: readonly number[]
  /** The rows in words: “rows 3–5, 9”. */
  readonly says: string
  /** Rows that were put in before what is made (negative: taken away), where all of that is the same but for them. */
  readonly shift: number
}

const sameRuns = (a: RowWords, b: RowWords): boolean =>
  a.runs.length === b.runs.length &&
  a.runs.every((run, i) => run.count === b.runs[i]!.count && run.number === b.runs[i]!.number)

/** Rows put in before the first `made`, if that alone tells one list from the other; 0 if not. */
function shiftOf(before: RowList, now: RowList, made: number): number {
  const shift = now.count - before.count
  if (shift === 0 || made === 0) return 0
  for (let k = Math.max(0, -shift); k < made; k++)
    if (k + shift >= now.count || !sameRuns(before.words(k), now.words(k + shift))) return 0
  return -shift >= made ? 0 : shift
}

/** Several rows of a list in words: “rows 3–5, 9”. */
function rowsWords(rows: RowList, places: readonly number[]): string {
  const spans: [number, number][] = []
  for (const k of places) {
    const last = spans.at(-1)
    if (last && last[1] === k - 1) last[1] = k
    else spans.push([k, k])
  }
  const title = (k: number) => rowTitle(rows.words(k)).toLowerCase()
  const number = (k: number) => title(k).replace(/^\D+/, '')
  const word = title(places[0]!).replace(/s? .*$/, '')
  const told = spans.map(([a, b]) =>
    a === b ? number(a) : `${number(a).split('–')[0]}–${number(b).split('–').at(-1)}`,
  )
  return `${word}${places.length > 1 ? 's' : ''} ${told.slice(0, 6).join(', ')}${told.length > 6 ? ' …' : ''}`
}

/**
 * Made rows that the plan has otherwise now than when they were made; empty where it has not. `mark`: where the hands
 * are, by the plan as it was; `filled`: lines that were made out of turn.
 */
export function changedMade(
  before: Piece,
  now: Piece,
  order: Order,
  mark: Mark,
  filled: Filled = new Map(),
): ChangedPart[] {
  const was = agendaOf(before, order, [], filled)
  const { index } = placeOf(was, markOf(was, { presses: [mark], moved: {} }))
  return before.parts.flatMap((part): ChangedPart[] => {
    const made = placesDoneIn(was, part, index)
    const there = now.parts.find((p) => p.id === part.id)
    if (made.length === 0 || !there) return []
    const [a, b] = [rowListOf(before, part), rowListOf(now, there)]
    const rows = made.filter((k) => k >= b.count || !sameRuns(a.words(k), b.words(k)))
    if (rows.length === 0) return []
    const kept = rows.filter((k) => k < b.count)
    return [
      {
        part: part.id,
        name: there.name,
        rows: kept,
        says: kept.length > 0 ? rowsWords(b, kept) : 'rows that are gone',
        // Rows that were made out of turn do not move together.
        shift: made.at(-1) === made.length - 1 ? shiftOf(a, b, made.length) : 0,
      },
    ]
  })
}

/** The mark in the plan as it is now, moved on by rows that were put in before it. */
export function shiftedMark(now: Piece, { part, shift }: ChangedPart, mark: Mark): Mark {
  const [id, copy, row] = mark.task.split('/')
  const there = now.parts.find((p) => p.id === part)
  if (id !== part || !there || !Number.isInteger(Number(row))) return mark
  const rows = rowListOf(now, there)
  const k = Math.max(0, rows.placeOf(Number(row)) + shift)
  return k < rows.count ? { task: keyOfTask(part, Number(copy), rows.rowOf(k)), bite: mark.bite } : mark
}
