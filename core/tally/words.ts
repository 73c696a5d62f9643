import type { TrayBead } from '../bead/bead'
import { columnsOf, partRow, rowsOf, sectionStart, techniqueOf, trayByNumber, type Part } from '../piece/piece'

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

/** A line of the printed sheet: a row with its words, or rows that are the same as earlier ones. */
export type SheetLine =
  | { readonly kind: 'row', readonly words: RowWords }
  | { readonly kind: 'again', readonly from: number, readonly to: number, readonly asFrom: number, readonly asTo: number, readonly times: number }

const alike = (a: RowWords, b: RowWords): boolean => a.direction === b.direction && a.to - a.from === b.to - b.from
  && a.runs.length === b.runs.length && a.runs.every((run, i) => run.count === b.runs[i]!.count && run.number === b.runs[i]!.number)

/** The working rows [first, end) that lay copy k of the repeat. */
function rowsOfCopy(part: Part, copy: number): readonly [number, number] {
  const technique = techniqueOf(part)
  const before = sectionStart(part, 'repeat', copy)
  return [technique.workingRows({ rows: before }), technique.workingRows({ rows: before + part.repeat.rows })]
}

/** All rows for paper: copies of the repeat that are worked as the one before are named, not written out again. */
export function sheetLines(part: Part): SheetLine[] {
  const rows = [...allRowWords(part)]
  const lines: SheetLine[] = []
  const write = (from: number, to: number) => { for (const words of rows.slice(from, to)) lines.push({ kind: 'row', words }) }
  let at = 0
  for (let copy = 1; copy < part.times; copy++) {
    const [was, first] = rowsOfCopy(part, copy - 1)
    const end = rowsOfCopy(part, copy)[1]
    const again = end - first === first - was && end > first && rows.slice(first, end).every((words, i) => alike(words, rows[was + i]!))
    if (!again) continue
    write(at, first)
    at = end
    const last = lines.at(-1)
    if (last?.kind === 'again') lines[lines.length - 1] = { ...last, to: rows[end - 1]!.to, times: last.times + 1 }
    else lines.push({ kind: 'again', from: rows[first]!.from, to: rows[end - 1]!.to, asFrom: rows[was]!.from, asTo: rows[first - 1]!.to, times: 1 })
  }
  write(at, rows.length)
  return lines
}
