import { columnOfKey, keyOf, placeOfKey, rowOfKey } from '../grid/key'
import type { TrayBead } from '../bead/bead'
import type { Act } from '../technique/act'
import { sameAsEarlier } from '../piece/alike'
import { joinNumbers, joinOf } from '../piece/join'
import { hasGaps, laidCounted } from '../piece/laid'
import {
  columnsOf,
  isGrid,
  partRow,
  rowsOf,
  sectionStart,
  techniqueOf,
  trayByNumber,
  workOf,
  type Part,
  type Piece,
} from '../piece/piece'
import { titled, type TechniqueWords, type ToldStep, type WorkingRow } from '../technique/technique'

/** A run of equal beads in the order in which they are picked up; number 0 is a gap where no bead lies. */
export interface WordRun {
  readonly count: number
  readonly number: number
}

export interface RowWords {
  /** Index of the working row, from 0. */
  readonly index: number
  /** Rows it makes, counted from 1. */
  readonly from: number
  readonly to: number
  /** What it is called, where it is one of a kind. */
  readonly title?: string
  readonly direction: '→' | '←'
  readonly runs: readonly WordRun[]
  /** Beads in it, gaps not counted. */
  readonly beads: number
  /** What the hands do after the last bead. */
  readonly after?: WorkingRow['after']
  /**
   * Beads more (or fewer, negative) at the edge where the row starts and where it ends, against the row that it is
   * worked on.
   */
  /** What else the hands do, act by act, beyond picking beads up. */
  readonly acts?: readonly string[]
  /** All that the hands do, step by step, where it is told so; the runs are those of its steps, in order. */
  readonly told?: readonly ToldRuns[]
  readonly edges?: { readonly start: number; readonly end: number }
  /** What the technique calls it. */
  readonly line: TechniqueWords['line']
  /** An earlier line, from 1, that it is the same as, and whether that one mirrors it. */
  readonly as?: { readonly line: number; readonly mirrored: boolean }
}

/** A step of a row with the beads that it picks up, as runs. */
export interface ToldRuns extends Omit<ToldStep, 'keys'> {
  readonly runs: readonly WordRun[]
}

const NO_CELLS = new Uint16Array(0)

/** A step as one sentence, its beads only counted. */
const toldText = ({ who, says, note }: ToldRuns): string =>
  `${who ? `${who}: ` : ''}${says}${note ? ` — ${note}` : ''}`

const WAYS = { on: 'on', back: 'back' } as const

/** Acts in words: passes that follow each other in one way are counted together; beads picked up stand in the runs. */
function actWords(acts: readonly Act[]): string[] {
  const out: string[] = []
  let passed = 0
  acts.forEach((act, k) => {
    switch (act.do) {
      case 'pick':
        break
      case 'pass': {
        passed++
        const next = acts[k + 1]
        if (next?.do === 'pass' && next.way === act.way && next.by === act.by) break
        out.push(`${WAYS[act.way]} through ${passed} ${passed === 1 ? 'bead' : 'beads'}`)
        passed = 0
        break
      }
      case 'fix':
        out.push(`fix to ${act.to}`)
        break
      case 'wrap':
        out.push(`wrap ${act.turns === 1 ? 'once' : `${act.turns} times`} round ${act.round}`)
        break
      case 'knot':
        out.push('knot')
        break
      case 'join':
        out.push('join new thread')
    }
  })
  return out
}

export const workingRowCount = (part: Part): number => techniqueOf(part).order.count(workOf(part))

/** The i-th thing to do, as runs. */
export function rowWords(part: Part, i: number): RowWords {
  const columns = columnsOf(part)
  const row = techniqueOf(part).order.row(i, workOf(part))
  const told = row.told?.map(({ keys, ...step }) => ({
    ...step,
    runs: keyedRuns(part, columns, Int32Array.from(keys)).runs,
  }))
  const all = row.even ? evenRuns(part, columns, row.even) : keyedRuns(part, columns, row.keys)
  const { beads, places } = all
  const runs = told ? told.flatMap((step) => step.runs) : all.runs
  const edges =
    beads > 0 && i > 0 && (beads < places || hasGaps(part)) ? edgeSteps(part, i, row.keys, row.direction) : null
  return {
    index: i,
    from: row.from,
    to: row.to,
    ...(row.title ? { title: row.title } : {}),
    direction: row.direction,
    runs,
    beads,
    ...(row.after ? { after: row.after } : {}),
    ...(told ? { told, acts: told.map(toldText) } : row.acts ? { acts: actWords(row.acts) } : {}),
    ...(edges ? { edges } : {}),
    line: techniqueOf(part).words.line,
    ...sameAs(part, row.from - 1),
  }
}

/** Of work that is lists of strands, an earlier one that holds the same. */
function sameAs(part: Part, r: number): Pick<RowWords, 'as'> {
  if (!techniqueOf(part).strands) return {}
  const same = sameAsEarlier(part, r)
  return same === null ? {} : { as: { line: same + 1, mirrored: same === rowsOf(part) - 1 - r } }
}

/** That a line is as an earlier one: “as strand 3, from the other side”; empty where it is as none. */
export const asWords = ({ as, line }: Pick<RowWords, 'as' | 'line'>): string =>
  as ? `as ${line} ${as.line}${as.mirrored ? ', from the other side' : ''}` : ''

interface Runs {
  readonly runs: WordRun[]
  readonly beads: number
  readonly places: number
}

/** Runs of beads that follow each other evenly within one bead row. */
function evenRuns(
  part: Part,
  columns: number,
  { from, stride, count: places }: NonNullable<WorkingRow['even']>,
): Runs {
  const runs: WordRun[] = []
  const place = placeOfKey(columns, from)
  const cells = partRow(part, place.r)
  let at = place.c
  let number = cells[at]!
  let count = 0
  let empty = 0
  for (let k = 0; k < places; k++, at += stride) {
    const next = cells[at]!
    if (next === number) {
      count++
      continue
    }
    runs.push({ count, number })
    if (number === 0) empty += count
    number = next
    count = 1
  }
  if (count > 0) runs.push({ count, number })
  if (number === 0) empty += count
  return { runs, beads: places - empty, places }
}

/** Runs of beads in any order. */
function keyedRuns(part: Part, columns: number, keys: Int32Array): Runs {
  const runs: WordRun[] = []
  let beads = 0
  let low = 0
  let cells: Uint16Array = NO_CELLS
  let number = -1
  let count = 0
  for (let k = 0; k < keys.length; k++) {
    const key = keys[k]!
    if (key < low || key >= low + cells.length) {
      const r = rowOfKey(columns, key)
      cells = partRow(part, r)
      low = keyOf(columns, 0, r)
    }
    const next = cells[key - low]!
    if (next !== 0) beads++
    if (next === number) count++
    else {
      if (count > 0) runs.push({ count, number })
      number = next
      count = 1
    }
  }
  if (count > 0) runs.push({ count, number })
  return { runs, beads, places: keys.length }
}

/**
 * Empty places before the first bead and behind the last, from left to right, among the given columns; null if all are
 * empty.
 */
function gapsAtEdges(
  part: Part,
  keys: Int32Array,
  among: ReadonlySet<number> | null,
): readonly [number, number] | null {
  const columns = columnsOf(part)
  const filled = new Map<number, boolean>()
  for (const key of keys) {
    const { c, r } = placeOfKey(columns, key)
    if (among && !among.has(c)) continue
    filled.set(c, partRow(part, r)[c] !== 0)
  }
  const line = [...filled].sort(([a], [b]) => a - b).map(([, full]) => full)
  return line.includes(true) ? [line.indexOf(true), line.length - 1 - line.lastIndexOf(true)] : null
}

/**
 * Steps at the edges of the i-th working row, measured against the earlier row in the same columns: what widens or
 * narrows the straight edge of the stitch. Null where both edges run straight on, in rounds, and where the earlier row
 * is empty.
 */
function edgeSteps(part: Part, i: number, keys: Int32Array, direction: '→' | '←'): RowWords['edges'] | null {
  const technique = techniqueOf(part)
  if (technique.round || technique.voids || !isGrid(part)) return null
  const columns = columnsOf(part)
  const own = new Set<number>()
  for (const key of keys) own.add(columnOfKey(columns, key))
  const before = technique.order.row(Math.max(0, technique.order.before(i)), workOf(part))
  const [now, was] = [gapsAtEdges(part, keys, null), gapsAtEdges(part, before.keys, own)]
  if (!now || !was) return null
  const left = was[0] - now[0]
  const right = was[1] - now[1]
  if (left === 0 && right === 0) return null
  return direction === '→' ? { start: left, end: right } : { start: right, end: left }
}

const edgeText = (step: number, where: string): string[] =>
  step === 0 ? [] : [`${step > 0 ? 'increase' : 'decrease'} ${Math.abs(step)} at the ${where}`]

const AFTER: Record<NonNullable<WorkingRow['after']>, string> = {
  'step up': 'step up',
  'long turn': 'long turn',
  'join': 'join',
}

/** What else is to be done in a row, in words: steps at the edges, then what follows the last bead. */
export const asides = ({ edges, after, acts }: Pick<RowWords, 'edges' | 'after' | 'acts'>): string[] => [
  ...(acts ?? []),
  ...(edges ? [...edgeText(edges.start, 'start'), ...edgeText(edges.end, 'end')] : []),
  ...(after ? [AFTER[after]] : []),
]

/** A row by its number. */
export const rowNumbered = ({ from, to, line }: Pick<RowWords, 'from' | 'to' | 'line'>): string =>
  from === to ? `${titled(line)} ${from}` : `${titled(line)}s ${from}–${to}`

/** A row as it is called: by the name it has of its own, or by its number. */
export const rowTitle = ({ title, ...row }: Pick<RowWords, 'from' | 'to' | 'line' | 'title'>): string =>
  title ?? rowNumbered(row)

/** Sign for a gap in words and charts. */
export const GAP = '–'

export function runText(run: WordRun, letters: ReadonlyMap<number, TrayBead>): string {
  return `${run.count}${run.number === 0 ? GAP : (letters.get(run.number)?.letter ?? '?')}`
}

/**
 * `Row 7 ← 3A 1B 2C (6) · decrease 1 at the end`: what is picked up, in order, how many beads in all, and what else is
 * to be done.
 */
export function wordsLine(words: RowWords, tray: readonly TrayBead[]): string {
  const letters = trayByNumber(tray)
  const runs = words.runs.map((run) => runText(run, letters)).join(' ')
  const notes = [...asides(words), asWords(words)].filter(Boolean).map((text) => ` · ${text}`)
  return `${rowTitle(words)} ${words.direction} ${runs} (${words.beads})${notes.join('')}`
}

/** Indices of the working rows that hold a bead, where some do not; null where all do. */
export function wordedRows(part: Part): readonly number[] | null {
  if (!hasGaps(part)) return null
  const count = workingRowCount(part)
  const out: number[] = []
  for (let i = 0; i < count; i++) if (rowWords(part, i).beads > 0) out.push(i)
  return out.length === count ? null : out
}

/** All working rows of a part that hold a bead, first to last. */
export function* allRowWords(part: Part): Generator<RowWords> {
  const count = workingRowCount(part)
  for (let i = 0; i < count; i++) {
    const words = rowWords(part, i)
    if (words.beads > 0) yield words
  }
}

/** The beads that only joining the ends asks for, as a row of their own behind the last; null where there are none. */
export function joinWords(piece: Pick<Piece, 'fit' | 'parts'>, part: Part): RowWords | null {
  const numbers = joinNumbers(piece, part)
  if (numbers.length === 0) return null
  const runs: { count: number; number: number }[] = []
  for (const number of numbers) {
    const last = runs.at(-1)
    if (last?.number === number) last.count++
    else runs.push({ count: 1, number })
  }
  const counted = laidCounted(part) + 1
  return {
    index: workingRowCount(part),
    from: counted,
    to: counted,
    direction: '→',
    runs,
    beads: numbers.length,
    after: 'join',
    line: techniqueOf(part).words.line,
  }
}

/** All rows of a part as they are worked in its piece: what is laid, and what joins its ends. */
export function* piecedRowWords(piece: Pick<Piece, 'fit' | 'parts'>, part: Part): Generator<RowWords> {
  yield* allRowWords(part)
  const joining = joinWords(piece, part)
  if (joining) yield joining
}

/** How the ends of a part are joined, in a sentence; empty where a closure opens the piece. */
export const joinSays = (piece: Pick<Piece, 'fit' | 'parts'>, part: Part): string => joinOf(piece, part)?.says ?? ''

/** A line of the printed sheet: a row with its words, or rows that are the same as earlier ones. */
type SheetLine =
  | { readonly kind: 'row'; readonly words: RowWords }
  | {
      readonly kind: 'again'
      readonly from: number
      readonly to: number
      readonly asFrom: number
      readonly asTo: number
      readonly times: number
    }

const alike = (a: RowWords, b: RowWords): boolean =>
  a.direction === b.direction &&
  asides(a).join() === asides(b).join() &&
  a.to - a.from === b.to - b.from &&
  a.runs.length === b.runs.length &&
  a.runs.every((run, i) => run.count === b.runs[i]!.count && run.number === b.runs[i]!.number)

/** The working rows [first, end) that lay copy k of the repeat. */
function rowsOfCopy(part: Part, copy: number): readonly [number, number] {
  const technique = techniqueOf(part)
  const before = sectionStart(part, 'repeat', copy)
  return [technique.order.count(workOf(part, before)), technique.order.count(workOf(part, before + part.repeat.rows))]
}

/** All rows for paper: copies of the repeat that are worked as the one before are named, not written out again. */
export function sheetLines(piece: Pick<Piece, 'fit' | 'parts'>, part: Part): SheetLine[] {
  const rows = Array.from({ length: workingRowCount(part) }, (_, i) => rowWords(part, i))
  const lines: SheetLine[] = []
  const write = (from: number, to: number) => {
    for (const words of rows.slice(from, to)) if (words.beads > 0) lines.push({ kind: 'row', words })
  }
  let at = 0
  for (let copy = 1; copy < part.times; copy++) {
    const [was, first] = rowsOfCopy(part, copy - 1)
    const end = rowsOfCopy(part, copy)[1]
    const again =
      end - first === first - was &&
      end > first &&
      rows.slice(first, end).some((words) => words.beads > 0) &&
      rows.slice(first, end).every((words, i) => alike(words, rows[was + i]!))
    if (!again) continue
    write(at, first)
    at = end
    const last = lines.at(-1)
    if (last?.kind === 'again') lines[lines.length - 1] = { ...last, to: rows[end - 1]!.to, times: last.times + 1 }
    else
      lines.push({
        kind: 'again',
        from: rows[first]!.from,
        to: rows[end - 1]!.to,
        asFrom: rows[was]!.from,
        asTo: rows[first - 1]!.to,
        times: 1,
      })
  }
  write(at, rows.length)
  const joining = joinWords(piece, part)
  return joining ? [...lines, { kind: 'row', words: joining }] : lines
}
