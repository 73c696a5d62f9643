import type { TrayBead } from '../bead/bead'
import { keyOf, placeOfKey } from '../grid/key'
import { cellsFrom } from '../grid/cells'
import { symmetryOf } from '../pattern/symmetry'
import { layingSteps, copyLinesStep, setStep, type Laying } from '../piece/edit'
import { linesWord } from '../piece/nature'
import {
  columnsOf,
  isGrid,
  locateRow,
  partRow,
  rowsOf,
  techniqueOf,
  trayByNumber,
  workOf,
  type Part,
  type Piece,
} from '../piece/piece'
import { LIMITS } from '../piece/schema'
import { applySteps, type Step } from '../piece/step'
import { bad, good, problem, type Result } from '../problem'
import { rowWords } from '../tally/words'
import { beadsAt, bitesOf, keyOfTask, placeOf, taskAt, type Agenda, type Mark, type Task } from './agenda'
import type { Left } from './left'

/**
 * What was really strung, against the plan: where it differs, what each way out costs, and how the plan follows where
 * one carries on.
 */

/** Beads that differ in one place. */
export interface Difference {
  readonly kind: 'other' | 'more' | 'fewer'
  /** Beads of the planned list before it. */
  readonly at: number
  readonly count: number
  /** What was planned there (of `more` nothing), and what was strung instead (of `fewer` nothing). */
  readonly planned: readonly number[]
  readonly strung: readonly number[]
}

/** Longer lists than this, as a product, are not aligned bead by bead: from where they differ on, all differs. */
const MOST_ALIGNED = 4_000_000

/**
 * Where two lists of beads differ, by the fewest beads put in, left out or exchanged (edit distance, Levenshtein
 * 1965). `open`: the strung list may end before the planned one does, for what was looked at only so far.
 */
export function differencesOf(
  planned: readonly number[],
  strung: readonly number[],
  { open = false }: { readonly open?: boolean } = {},
): Difference[] {
  let first = 0
  while (first < planned.length && first < strung.length && planned[first] === strung[first]) first++
  let [endA, endB] = [planned.length, strung.length]
  while (!open && endA > first && endB > first && planned[endA - 1] === strung[endB - 1]) {
    endA--
    endB--
  }
  const a = planned.slice(first, endA)
  const b = strung.slice(first, endB)
  if (b.length === 0 && open) return []
  const ops = a.length * b.length > MOST_ALIGNED ? plainOps(a.length, b.length) : alignedOps(a, b, open)
  return joined(ops, a, b, first)
}

type Op = 'same' | Difference['kind']

const plainOps = (a: number, b: number): Op[] => [
  ...Array<Op>(Math.min(a, b)).fill('other'),
  ...Array<Op>(Math.max(0, a - b)).fill('fewer'),
  ...Array<Op>(Math.max(0, b - a)).fill('more'),
]

/** What leads from one list to the other at the least cost, in order. */
function alignedOps(a: readonly number[], b: readonly number[], open: boolean): Op[] {
  const width = b.length + 1
  const cost = new Int32Array((a.length + 1) * width)
  for (let j = 1; j <= b.length; j++) cost[j] = j
  for (let i = 1; i <= a.length; i++) {
    cost[i * width] = i
    for (let j = 1; j <= b.length; j++)
      cost[i * width + j] = Math.min(
        cost[(i - 1) * width + j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1),
        cost[(i - 1) * width + j]! + 1,
        cost[i * width + j - 1]! + 1,
      )
  }
  let [i, j] = [a.length, b.length]
  if (open) {
    // What was not looked at is no difference: the end that costs least; of several the one that counts as many beads.
    i = Math.min(a.length, b.length)
    const better = (k: number) =>
      cost[k * width + j]! - cost[i * width + j]! || Math.abs(k - b.length) - Math.abs(i - b.length)
    for (let k = 0; k <= a.length; k++) if (better(k) < 0) i = k
  }
  const ops: Op[] = []
  while (i > 0 || j > 0) {
    const here = cost[i * width + j]!
    const across = i > 0 && j > 0 ? cost[(i - 1) * width + j - 1]! : Infinity
    if (i > 0 && j > 0 && here === across + (a[i - 1] === b[j - 1] ? 0 : 1)) {
      ops.push(a[i - 1] === b[j - 1] ? 'same' : 'other')
      i--
      j--
    } else if (j > 0 && here === cost[i * width + j - 1]! + 1) {
      ops.push('more')
      j--
    } else {
      ops.push('fewer')
      i--
    }
  }
  return ops.reverse()
}

function joined(ops: readonly Op[], a: readonly number[], b: readonly number[], first: number): Difference[] {
  const out: { kind: Difference['kind']; at: number; count: number; planned: number[]; strung: number[] }[] = []
  let [i, j] = [0, 0]
  let before: Op = 'same'
  for (const op of ops) {
    if (op !== 'same') {
      if (op !== before) out.push({ kind: op, at: first + i, count: 0, planned: [], strung: [] })
      const last = out.at(-1)!
      last.count++
      if (op !== 'more') last.planned.push(a[i]!)
      if (op !== 'fewer') last.strung.push(b[j]!)
    }
    if (op !== 'more') i++
    if (op !== 'fewer') j++
    before = op
  }
  return out
}

/** Beads in words: “2A 1B”. */
export function beadsWords(numbers: readonly number[], tray: readonly TrayBead[]): string {
  const letters = trayByNumber(tray)
  const out: string[] = []
  for (let k = 0; k < numbers.length;) {
    let n = k
    while (numbers[n] === numbers[k]) n++
    out.push(`${n - k}${letters.get(numbers[k]!)?.letter ?? '?'}`)
    k = n
  }
  return out.join(' ')
}

/** A difference in words: “bead 5: 1B instead of 1A”. */
export function differenceWords({ kind, at, planned, strung }: Difference, tray: readonly TrayBead[]): string {
  switch (kind) {
    case 'other':
      return (
        `${planned.length === 1 ? 'bead' : 'from bead'} ${at + 1}: ${beadsWords(strung, tray)} instead of ` +
        beadsWords(planned, tray)
      )
    case 'more':
      return `${at === 0 ? 'at the beginning' : `after bead ${at}`}: ${beadsWords(strung, tray)} too many`
    case 'fewer':
      return `from bead ${at + 1}: ${beadsWords(planned, tray)} missing`
  }
}

/** Beads of a working row in the order in which they are strung, empty places left out. */
export const plannedRow = (part: Part, row: number): number[] =>
  rowWords(part, row).runs.flatMap((run) => (run.number === 0 ? [] : Array<number>(run.count).fill(run.number)))

/** Beads of a strand of a braid, the first that is used first. */
export const plannedStrand = (part: Part, strand: number): number[] =>
  Array.from({ length: rowsOf(part) }, (_, r) => partRow(part, r)[strand]!).filter((n) => n !== 0)

/** What it costs to go back to a place and lay again what was laid since. */
export interface UnpickCost {
  readonly beads: number
  readonly minutes: { readonly least: number; readonly most: number }
}

/** Taking a bead off takes so much of the time that laying it takes (common practice). */
const UNPICK_SHARE = 0.5

/** Cost of unpicking from a place of the agenda back to an earlier one. */
export function unpickCost(
  agenda: Agenda,
  here: { readonly index: number; readonly bite: number },
  back: { readonly index: number; readonly bite: number },
  { least, most }: Left['perHour'],
): UnpickCost {
  const beads = Math.max(0, beadsAt(agenda, here) - beadsAt(agenda, back))
  const minutes = (perHour: number) => (beads * (1 + UNPICK_SHARE) * 60) / perHour
  return { beads, minutes: { least: minutes(most), most: minutes(least) } }
}

/** A working row as it was strung, or a strand of a braid from the middle of the disc on. */
export type Strung =
  | { readonly row: number; readonly beads: readonly number[] }
  | { readonly strand: number; readonly beads: readonly number[] }

/** Keys of a working row that hold a bead, in the order in which they are strung. */
function keysOfRow(part: Part, row: number): number[] {
  const { keys } = techniqueOf(part).order.row(row, workOf(part))
  const columns = columnsOf(part)
  return [...keys].filter((key) => {
    const { c, r } = placeOfKey(columns, key)
    return partRow(part, r)[c] !== 0
  })
}

/** Keys of a strand of a braid that hold a bead, from the middle of the disc on. */
function keysOfStrand(part: Part, strand: number): number[] {
  const columns = columnsOf(part)
  const out: number[] = []
  for (let r = 0; r < rowsOf(part); r++) if (partRow(part, r)[strand] !== 0) out.push(keyOf(columns, strand, r))
  return out
}

/** The part as one section, so that its middle is the middle of the whole. */
const asOne = (part: Part): Part =>
  isGrid(part)
    ? {
        ...part,
        times: 0,
        start: cellsFrom(columnsOf(part), rowsOf(part), new Array<number>(rowsOf(part) * columnsOf(part)).fill(0)),
        repeat: cellsFrom(columnsOf(part), 0, []),
        end: cellsFrom(columnsOf(part), 0, []),
      }
    : part

/** The mirror images along the length of what is laid, the laying itself left out. */
function mirrored(part: Part, laying: Laying): Result<Laying> {
  const symmetry = symmetryOf(asOne(part), 'along', 0)
  if (!symmetry.ok) return symmetry
  const columns = columnsOf(part)
  const out = new Map<number, number>()
  for (const [key, number] of laying)
    for (const { c, r } of symmetry.value.images(placeOfKey(columns, key))) {
      const image = keyOf(columns, c, r)
      if (!laying.has(image) && r >= 0 && r < rowsOf(part)) out.set(image, number)
    }
  return good(out)
}

/**
 * Steps that take copies of the repeat out of it where rows of them differ, so that one copy can be changed without
 * the others: leading copies go to the start, trailing ones to the end, at the widest gap between them.
 */
function loosened(piece: Piece, part: Part, touched: readonly number[]): Result<Step[]> {
  if (touched.length === 0 || part.times < 2) return good([])
  const copies = [-1, ...[...new Set(touched)].sort((a, b) => a - b), part.times]
  let widest = 0
  for (let k = 1; k + 1 < copies.length; k++)
    if (copies[k + 1]! - copies[k]! > copies[widest + 1]! - copies[widest]!) widest = k
  const [leading, trailing] = [copies[widest]! + 1, part.times - copies[widest + 1]!]
  const rows = part.repeat.rows
  if (Math.max(part.start.rows + leading * rows, part.end.rows + trailing * rows) > LIMITS.rows)
    return bad(
      problem('section-long', 'mistake', 'The plan would get too many rows that do not repeat. Keep a note instead.'),
    )
  return good([
    ...Array.from({ length: leading }, () => copyLinesStep(part, 'start', part.start.rows, 'repeat', 0, rows)),
    ...Array.from({ length: trailing }, () => copyLinesStep(part, 'end', 0, 'repeat', 0, rows)),
    setStep(piece, ['parts', part.id, 'times'], part.times - leading - trailing),
  ])
}

/**
 * Steps by which the plan follows what was strung, mirrored on the other half where that is wanted; a problem says why
 * it cannot.
 */
export function followSteps(
  piece: Piece,
  part: Part,
  strung: readonly Strung[],
  { mirror }: { readonly mirror: boolean },
): Result<Step[]> {
  const laying = new Map<number, number>()
  for (const { beads, ...where } of strung) {
    const keys = 'row' in where ? keysOfRow(part, where.row) : keysOfStrand(part, where.strand)
    // A strand may be strung so far only; its later beads are as planned.
    if ('row' in where ? keys.length !== beads.length : keys.length < beads.length)
      return bad(
        problem(
          'count-differs',
          'mistake',
          `The plan cannot follow: its ${linesWord(part)} keep their count. Unpick to there, or leave it with a note.`,
        ),
      )
    beads.forEach((number, k) => laying.set(keys[k]!, number))
  }
  const columns = columnsOf(part)
  const numberAt = (key: number): number => {
    const { c, r } = placeOfKey(columns, key)
    return partRow(part, r)[c]!
  }
  const changed = new Map([...laying].filter(([key, number]) => numberAt(key) !== number))
  const images = mirror ? mirrored(part, changed) : good(new Map<number, number>())
  if (!images.ok) return images
  // What was strung stands; where its image would fall on it, it is not changed again.
  const all = new Map([...[...images.value].filter(([key]) => numberAt(key) !== 0 && !laying.has(key)), ...changed])
  const touched = [...all.keys()]
    .map((key) => locateRow(part, placeOfKey(columns, key).r))
    .filter((at) => at.section === 'repeat')
    .map((at) => at.copy)
  const loose = loosened(piece, part, touched)
  if (!loose.ok) return loose
  const next = applySteps(piece, loose.value)
  if (!next.ok) return next
  const after = next.value.parts.find((p) => p.id === part.id)!
  return good([...loose.value, ...layingSteps(after, all)])
}

/** What is found wrong in one row or strand. */
export interface Found {
  readonly strung: Strung
  readonly differences: readonly Difference[]
}

/** What is looked at: rows of a part where it is worked row by row, strands where it is loaded before. */
export function foundIn(part: Part, strung: readonly Strung[]): Found[] {
  return strung.flatMap((one) => {
    const differences =
      'row' in one
        ? differencesOf(plannedRow(part, one.row), one.beads)
        : differencesOf(plannedStrand(part, one.strand), one.beads, { open: true })
    return differences.length > 0 ? [{ strung: one, differences }] : []
  })
}

/**
 * Place of the first thing found wrong: its working row, and beads of the row before it. A strand's bead lies in the
 * round of its number.
 */
export function firstFound(
  part: Part,
  found: readonly Found[],
): { readonly row: number; readonly bead: number } | null {
  const places = found.map(({ strung, differences }) => {
    const { at } = differences[0]!
    return 'row' in strung
      ? { row: strung.row, bead: at }
      : { row: placeOfKey(columnsOf(part), keysOfStrand(part, strung.strand)[at] ?? 0).r, bead: 0 }
  })
  return places.sort((a, b) => a.row - b.row || a.bead - b.bead)[0] ?? null
}

/** The mark of the copy in hand at which a bead of a row comes next. */
export function markOfFound(
  agenda: Agenda,
  { part, copy }: Pick<Task, 'part' | 'copy'>,
  { row, bead }: { readonly row: number; readonly bead: number },
): Mark {
  const key = keyOfTask(part.id, copy, row)
  const task = taskAt(agenda, placeOf(agenda, { task: key, bite: 0 }).index)
  const bites = task ? bitesOf(task) : []
  return {
    task: key,
    bite: Math.max(
      0,
      bites.findLastIndex((b) => b.number !== 0 && b.before <= bead),
    ),
  }
}
