import type { TrayBead } from '../bead/bead'
import { columnsOf, partRow, rowsOf, techniqueOf, trayByNumber, type Part } from '../piece/piece'

/** A run of equal beads in the order in which they are picked up; number 0 is a gap where no bead lies. */
export interface WordRun { readonly count: number, readonly number: number }

export interface RowWords {
  /** Index of the working row, from 0. */
  readonly index: number
  /** Rows it makes, counted from 1. */
  readonly from: number
  readonly to: number
  readonly direction: '→' | '←'
  readonly runs: readonly WordRun[]
  /** Beads in it, gaps not counted. */
  readonly beads: number
}

export const workingRowCount = (part: Part): number => techniqueOf(part).workingRows({ rows: rowsOf(part) })

/** The i-th thing to do, as runs. */
export function rowWords(part: Part, i: number): RowWords {
  const { from, to, direction, places } = techniqueOf(part).workingRow(i, { rows: rowsOf(part), columns: columnsOf(part), settings: part.settings })
  const runs: { count: number, number: number }[] = []
  let beads = 0
  let r = -1
  let cells: Uint16Array = new Uint16Array(0)
  for (const place of places) {
    if (place.r !== r) { r = place.r; cells = partRow(part, r) }
    const number = cells[place.c]!
    if (number !== 0) beads++
    const last = runs.at(-1)
    if (last?.number === number) last.count++
    else runs.push({ count: 1, number })
  }
  return { index: i, from, to, direction, runs, beads }
}

export const rowTitle = ({ from, to }: Pick<RowWords, 'from' | 'to'>): string => (from === to ? `Row ${from}` : `Rows ${from}–${to}`)

/** Sign for a gap in words and charts. */
export const GAP = '–'

export function runText(run: WordRun, letters: ReadonlyMap<number, TrayBead>): string {
  return `${run.count}${run.number === 0 ? GAP : letters.get(run.number)?.letter ?? '?'}`
}

/** `Row 7 ← 3A 1B 2C (6)`: what is picked up, in order, and how many beads in all. */
export function wordsLine(words: RowWords, tray: readonly TrayBead[]): string {
  const letters = trayByNumber(tray)
  return `${rowTitle(words)} ${words.direction} ${words.runs.map(run => runText(run, letters)).join(' ')} (${words.beads})`
}

/** All working rows of a part, first to last. */
export function* allRowWords(part: Part): Generator<RowWords> {
  const count = workingRowCount(part)
  for (let i = 0; i < count; i++) yield rowWords(part, i)
}
