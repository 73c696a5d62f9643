import { discOf } from '../piece/nature'
import { isTurnedCopy } from '../piece/pair'
import { columnsOf, techniqueOf, type Part, type Piece } from '../piece/piece'
import { joinWords, rowWords, wordedRows, workingRowCount, type RowWords } from '../tally/words'
import { discMove } from './disc'

/**
 * What the hands do from the first bead to the last, as one list that is never written out: tasks are counted through
 * the whole making and looked up by their number or their key. It follows from the piece as it is now; where the hands
 * are is kept by key (event.ts), so that a plan may change while it is made.
 */

/** In which order copies of a piece are made: one after the other, or a row of each in turn. */
export const COPY_ORDERS = ['in turn', 'side by side'] as const
export type CopyOrder = (typeof COPY_ORDERS)[number]

/** What a making asks for: how many are made, and in which order. */
export interface Order {
  readonly copies: number
  readonly copyOrder: CopyOrder
}

/** Working rows of one part that are made one after the other, by one or several copies, with what is done between. */
interface Stretch {
  readonly part: Part
  /** Copies, from 1, that take turns row by row. */
  readonly copies: readonly number[]
  readonly rows: RowList
  /** The rows of each of the copies, in their order: a mirrored one works them from the last to the first. */
  readonly each: readonly RowList[]
  /** What is done besides beads, by its place among the rows. */
  readonly chores: readonly PlacedChore[]
  /** Tasks before it. */
  readonly first: number
  readonly tasks: number
}

/** One thing of a chore, ticked off by itself. */
export interface ChoreItem {
  readonly id: string
  readonly text: string
  /** Minutes of work; left out: none to speak of. */
  readonly minutes?: number
}

export const CHORE_KINDS = [
  'prepare',
  'mirror',
  'bend',
  'load',
  'join',
  'measure',
  'pause',
  'attach',
  'close',
  'fasten',
  'clasp',
  'knot',
  'glue',
  'trim',
  'rest',
  'pair',
] as const
export type ChoreKind = (typeof CHORE_KINDS)[number]

/** A step that lays no beads. */
export interface Chore {
  readonly kind: ChoreKind
  readonly title: string
  /** What is done, a sentence each. */
  readonly says: readonly string[]
  readonly items: readonly ChoreItem[]
  /** Minutes of work. */
  readonly minutes: number
  readonly cautions: readonly string[]
  /** What must go by once it is done, minutes, and before what. */
  readonly waits: readonly Wait[]
}

interface Wait {
  readonly minutes: number
  /** “before it is moved”. */
  readonly says: string
}

/** A chore before place `k` of the rows of a part and copy; behind the last where `k` is their count. */
export interface PlacedChore {
  readonly part: string
  readonly copy: number
  readonly k: number
  readonly chore: Chore
}

/** The working rows of a part that hold a bead, in order; behind them a row that joins its ends, if there is one. */
export interface RowList {
  readonly count: number
  rowOf(k: number): number
  /** Place of a working row in the list, or of the next that is in it. */
  placeOf(row: number): number
  words(k: number): RowWords
  /** Beads of the first k rows. */
  beadsBefore(k: number): number
  /** Where they stand in another order than that of the part: the list in that order, and which came out of turn. */
  readonly reordered?: { readonly from: RowList; readonly early: ReadonlySet<number> }
}

export interface Agenda {
  readonly piece: Piece
  readonly order: Order
  readonly stretches: readonly Stretch[]
  /** How many tasks there are. */
  readonly count: number
  readonly beads: number
}

/** One thing within a task: beads that are picked up in one go, or one move. */
export interface Bite {
  readonly number: number
  readonly count: number
  /** Beads of the task before it. */
  readonly before: number
  /** Where the hands go with it, if picking up does not say it. */
  readonly says?: string
}

interface AnyTask {
  /** Names it as long as its part and its row are there. */
  readonly key: string
  /** Place in the agenda, from 0. */
  readonly index: number
  readonly part: Part
  /** Which copy, from 1. */
  readonly copy: number
  /** Working row of the part, from 0; of a chore the one that follows, their count behind the last. */
  readonly row: number
  /** Whether a row is made before it, where rows are made in any order; every earlier one is if left out. */
  made?(row: number): boolean
}

/** A row, strand, round, rung or motif of one copy. */
export interface RowTask extends AnyTask {
  readonly words: RowWords
  readonly chore?: undefined
}

/** What is done besides beads. */
export interface ChoreTask extends AnyTask {
  readonly chore: Chore
  readonly words?: undefined
}

export type Task = RowTask | ChoreTask

/** Where the hands are: everything before this is done, and so many bites of the task itself. */
export interface Mark {
  readonly task: string
  readonly bite: number
}

export const DONE: Mark = { task: 'done', bite: 0 }

/** Name of a working row of a copy of a part. */
export const keyOfTask = (part: string, copy: number, row: number): string => `${part}/${copy}/${row}`

/** What follows the key of a chore behind the last row. */
const END = 'end'

const KEY = /^([a-z0-9-]{1,40})\/(\d{1,3})\/(\d{1,9}|end)(?:\/([a-z]{1,12}))?$/

/** Whether a key names a chore. */
export const isChoreKey = (key: string): boolean => readKey(key)?.chore !== undefined

interface ReadKey {
  readonly part: string
  readonly copy: number
  /** Infinity behind the last row. */
  readonly row: number
  readonly chore: string | undefined
}

function readKey(key: string): ReadKey | null {
  const found = KEY.exec(key)
  if (!found) return null
  const row = found[3] === END ? Infinity : Number(found[3])
  return { part: found[1]!, copy: Number(found[2]), row, chore: found[4] }
}

const lists = new WeakMap<Part, RowList>()

function plainRows(part: Part): RowList {
  let list = lists.get(part)
  if (!list) {
    const worded = wordedRows(part)
    const count = worded ? worded.length : workingRowCount(part)
    const rowOf = (k: number): number => (worded ? worded[k]! : k)
    let sums: Float64Array | null = null
    list = {
      count,
      rowOf,
      placeOf: (row) => {
        if (!worded) return Math.min(row, count)
        const at = worded.findIndex((r) => r >= row)
        return at < 0 ? count : at
      },
      words: (k) => rowWords(part, rowOf(k)),
      beadsBefore(k) {
        if (!sums) {
          sums = new Float64Array(count + 1)
          for (let i = 0; i < count; i++) sums[i + 1] = sums[i]! + rowWords(part, rowOf(i)).beads
        }
        return sums[k]!
      },
    }
    lists.set(part, list)
  }
  return list
}

/** The working rows of a part in its piece. */
export function rowListOf(piece: Pick<Piece, 'fit' | 'parts'>, part: Part): RowList {
  const plain = plainRows(part)
  const joining = joinWords(piece, part)
  if (!joining) return plain
  const { count } = plain
  return {
    count: count + 1,
    rowOf: (k) => (k < count ? plain.rowOf(k) : joining.index),
    placeOf: (row) => (row > joining.index ? count + 1 : plain.placeOf(row)),
    words: (k) => (k < count ? plain.words(k) : joining),
    beadsBefore: (k) => plain.beadsBefore(Math.min(k, count)) + (k > count ? joining.beads : 0),
  }
}

/** What a part’s lines that are made in any order are ticked off under, for one copy. */
export const boardKey = (part: string, copy: number): string => `${part}/${copy}/0/board`

/** Lines that are made already, by what they are ticked off under, in the order in which they were. */
export type Filled = ReadonlyMap<string, readonly number[]>

/** Rows with those that were made out of turn first. */
function filledFirst(rows: RowList, filled: readonly number[]): RowList {
  const places = [...new Set(filled.map((row) => rows.placeOf(row)).filter((k) => k < rows.count))]
  if (places.length === 0) return rows
  const early = new Set(places)
  const order = [...places, ...Array.from({ length: rows.count }, (_, k) => k).filter((k) => !early.has(k))]
  const placeIn = new Map(order.map((k, at) => [k, at]))
  const sums = [0]
  for (const k of order) sums.push(sums.at(-1)! + rows.beadsBefore(k + 1) - rows.beadsBefore(k))
  return {
    count: rows.count,
    rowOf: (at) => rows.rowOf(order[at]!),
    placeOf: (row) => placeIn.get(rows.placeOf(row)) ?? rows.count,
    words: (at) => rows.words(order[at]!),
    beadsBefore: (at) => sums[at]!,
    reordered: { from: rows, early: new Set(places.map((k) => rows.rowOf(k))) },
  }
}

/** Rows from the last to the first: the second of a pair that mirrors the first. */
function turnedRows(rows: RowList): RowList {
  const { count } = rows
  const all = rows.beadsBefore(count)
  return {
    count,
    rowOf: (k) => rows.rowOf(count - 1 - k),
    placeOf: (row) => (rows.placeOf(row) >= count ? count : count - 1 - rows.placeOf(row)),
    words: (k) => rows.words(count - 1 - k),
    beadsBefore: (k) => all - rows.beadsBefore(count - k),
    reordered: { from: rows, early: new Set() },
  }
}

/** By place; at one place copy by copy, each in the order in which it is given. */
const byPlace = (a: PlacedChore, b: PlacedChore): number => a.k - b.k || a.copy - b.copy

/** The agenda of a piece as it is now, with what is done besides beads. */
export function agendaOf(
  piece: Piece,
  order: Order,
  chores: readonly PlacedChore[] = [],
  filled: Filled = new Map(),
): Agenda {
  const copies = Array.from({ length: order.copies }, (_, k) => k + 1)
  const turns = order.copyOrder === 'in turn' ? copies.map((copy) => [copy]) : [copies]
  const stretches: Stretch[] = []
  let first = 0
  let beads = 0
  for (const turn of turns)
    for (const part of piece.parts) {
      const forward = rowListOf(piece, part)
      const turned = turn.some((copy) => isTurnedCopy(piece, part, copy)) ? turnedRows(forward) : forward
      const each = turn.map((copy) => {
        const plain = isTurnedCopy(piece, part, copy) ? turned : forward
        // Copies that take turns go row by row: their order stays.
        const early = turn.length === 1 ? filled.get(boardKey(part.id, copy)) : undefined
        return early && techniqueOf(part).anyOrder ? filledFirst(plain, early) : plain
      })
      const rows = each[0]!
      const own = chores.filter((c) => c.part === part.id && turn.includes(c.copy)).sort(byPlace)
      const tasks = rows.count * turn.length + own.length
      stretches.push({ part, copies: turn, rows, each, chores: own, first, tasks })
      first += tasks
      beads += rows.beadsBefore(rows.count) * turn.length
    }
  return { piece, order, stretches, count: first, beads }
}

/** The rows of one of the copies of a stretch, in the order in which it works them. */
const rowsFor = ({ copies, each, rows }: Stretch, copy: number): RowList => each[copies.indexOf(copy)] ?? rows

const stretchAt = ({ stretches }: Agenda, index: number): Stretch | undefined =>
  stretches.find((s) => index >= s.first && index < s.first + s.tasks)

/** How many of the first n whole numbers hold, of those that hold up to some one and not beyond. */
function countWhile(n: number, holds: (i: number) => boolean): number {
  let [low, high] = [0, n]
  while (low < high) {
    const middle = (low + high) >> 1
    if (holds(middle)) low = middle + 1
    else high = middle
  }
  return low
}

/** Place of the j-th chore of a stretch within it. */
const placeOfChore = ({ chores, copies }: Stretch, j: number): number => chores[j]!.k * copies.length + j

/** Chores of a stretch that come before row k, all of its own place among them. */
const choresUpTo = ({ chores }: Stretch, k: number): number => countWhile(chores.length, (j) => chores[j]!.k <= k)

const placeOfRow = (stretch: Stretch, k: number, turn: number): number =>
  k * stretch.copies.length + turn + choresUpTo(stretch, k)

/** What lies at a place of a stretch: its j-th chore, or row k of a copy. */
function within(
  stretch: Stretch,
  at: number,
): { readonly chore: number } | { readonly chore: null; readonly k: number; readonly turn: number } {
  const before = countWhile(stretch.chores.length, (j) => placeOfChore(stretch, j) < at)
  if (before < stretch.chores.length && placeOfChore(stretch, before) === at) return { chore: before }
  const many = stretch.copies.length
  return { chore: null, k: Math.floor((at - before) / many), turn: (at - before) % many }
}

/** Rows in the order of the part: by them chores are named, so that their names stay when others are made first. */
const namingRows = (rows: RowList): RowList => rows.reordered?.from ?? rows

const keyOfChore = ({ rows }: Stretch, { part, copy, k, chore }: PlacedChore): string =>
  `${part}/${copy}/${k < rows.count ? namingRows(rows).rowOf(k) : END}/${chore.kind}`

/** The task at a place of the agenda; null before its beginning and behind its end. */
export function taskAt(agenda: Agenda, index: number): Task | null {
  const stretch = stretchAt(agenda, index)
  if (!stretch) return null
  const { part, copies, first } = stretch
  const at = within(stretch, index - first)
  if (at.chore !== null) {
    const placed = stretch.chores[at.chore]!
    const rows = rowsFor(stretch, placed.copy)
    const row = placed.k < rows.count ? rows.rowOf(placed.k) : rowsBehind(rows)
    const key = keyOfChore(stretch, placed)
    return { key, index, part, copy: placed.copy, row, chore: placed.chore, ...madeBefore(rows, placed.k) }
  }
  const copy = copies[at.turn]!
  const rows = rowsFor(stretch, copy)
  const row = rows.rowOf(at.k)
  const key = keyOfTask(part.id, copy, row)
  return { key, index, part, copy, row, words: rows.words(at.k), ...madeBefore(rows, at.k) }
}

/** Which rows are made before the k-th, where they stand in another order. */
const madeBefore = (rows: RowList, k: number): Pick<AnyTask, 'made'> =>
  rows.reordered ? { made: (row) => rows.placeOf(row) < k } : {}

/** The working row behind the last. */
const rowsBehind = (rows: RowList): number => (rows.count > 0 ? namingRows(rows).rowOf(rows.count - 1) + 1 : 0)

/**
 * Place of a task in the agenda; −1 if its part or its copy is not there any more. A row that is not there gives the
 * next of its part, a chore the row before which it was.
 */
function indexOf(agenda: Agenda, key: string): number {
  if (key === DONE.task) return agenda.count
  const read = readKey(key)
  if (!read) return -1
  const stretch = agenda.stretches.find((s) => s.part.id === read.part && s.copies.includes(read.copy))
  if (!stretch) return -1
  const { copies, first } = stretch
  const rows = rowsFor(stretch, read.copy)
  const k = rows.placeOf(read.row)
  if (read.chore !== undefined) {
    const named = Math.min(namingRows(rows).placeOf(read.row), rows.count)
    const j = stretch.chores.findIndex((c) => c.copy === read.copy && c.k === named && c.chore.kind === read.chore)
    if (j >= 0) return first + placeOfChore(stretch, j)
  }
  if (k < rows.count) return first + placeOfRow(stretch, k, copies.indexOf(read.copy))
  const end = choresUpTo(stretch, rows.count - 1)
  return first + rows.count * copies.length + end
}

/** Bites with the beads before each; a place without a bead is none. */
function told(bites: readonly Omit<Bite, 'before'>[]): Bite[] {
  let before = 0
  return bites.map((bite) => {
    const one = { ...bite, before }
    if (bite.number !== 0) before += bite.count
    return one
  })
}

/** The bites of a task: moves where it is worked move by move, runs of equal beads elsewhere; a chore has none. */
export function bitesOf({ part, row, words }: Task): Bite[] {
  if (!words) return []
  if (discOf(part)) {
    const moves = words.runs.flatMap((run) => Array<number>(run.count).fill(run.number))
    return told(
      moves.map((number, k) => ({
        number,
        count: 1,
        says: discMove(part, row * moves.length + k)?.words ?? '',
      })),
    )
  }
  return told(words.runs)
}

/** A mark as a place: the task by its number, and the bites done in it; never beyond either. */
export function placeOf(agenda: Agenda, mark: Mark): { readonly index: number; readonly bite: number } {
  const index = Math.max(0, indexOf(agenda, mark.task))
  const task = taskAt(agenda, index)
  if (!task || task.key !== mark.task) return { index, bite: 0 }
  return { index, bite: Math.min(mark.bite, Math.max(0, bitesOf(task).length - 1)) }
}

const markAt = (agenda: Agenda, index: number, bite = 0): Mark => {
  const task = taskAt(agenda, index)
  return task ? { task: task.key, bite } : DONE
}

/**
 * Where the hands are by what was pressed, the latest last: of what is still in the agenda. Else by moves of a part,
 * as they were counted before presses were; else nothing is done yet.
 */
export function markOf(
  agenda: Agenda,
  { presses, moved }: { readonly presses: readonly Mark[]; readonly moved: Readonly<Record<string, number>> },
): Mark {
  const known = presses.findLast((mark) => indexOf(agenda, mark.task) >= 0)
  if (known) return known
  const part = agenda.piece.parts.find((p) => discOf(p) && (moved[p.id] ?? 0) > 0)
  if (!part) return markAt(agenda, 0)
  const [moves, strands] = [moved[part.id]!, columnsOf(part)]
  return { task: keyOfTask(part.id, 1, Math.floor(moves / strands)), bite: moves % strands }
}

/** How far one press goes: a whole row, or a run (a move) of it. */
export type Stride = 'row' | 'bite'

/** The mark after one press on; the last press ends the work. */
export function onward(agenda: Agenda, mark: Mark, stride: Stride): Mark {
  const { index, bite } = placeOf(agenda, mark)
  const task = taskAt(agenda, index)
  if (!task) return DONE
  return stride === 'bite' && bite + 1 < bitesOf(task).length
    ? { task: task.key, bite: bite + 1 }
    : markAt(agenda, index + 1)
}

/** The mark before it: the beginning of the row where the hands are within one, or what was before. */
export function backward(agenda: Agenda, mark: Mark, stride: Stride): Mark {
  const { index, bite } = placeOf(agenda, mark)
  if (bite > 0) return markAt(agenda, index, stride === 'bite' ? bite - 1 : 0)
  const before = taskAt(agenda, index - 1)
  if (!before) return markAt(agenda, index)
  return markAt(agenda, index - 1, stride === 'bite' ? Math.max(0, bitesOf(before).length - 1) : 0)
}

/** The mark at the beginning of a task by its place, as a person goes there. */
export const goneTo = (agenda: Agenda, index: number): Mark =>
  markAt(agenda, Math.max(0, Math.min(agenda.count, index)))

/** Beads of a stretch before row k, and of that row in the first `turn` copies. */
const sumOf = ({ each }: Stretch, k: number, turn: number): number =>
  each.reduce((sum, rows, copy) => sum + rows.beadsBefore(copy < turn ? k + 1 : k), 0)

/** Beads (crossings of cords) laid at a place of the agenda. */
export function beadsAt(agenda: Agenda, { index, bite }: { readonly index: number; readonly bite: number }): number {
  let beads = 0
  for (const stretch of agenda.stretches) {
    const { first, tasks, copies, rows } = stretch
    if (index >= first + tasks) {
      beads += rows.beadsBefore(rows.count) * copies.length
      continue
    }
    const at = within(stretch, index - first)
    if (at.chore !== null) return beads + sumOf(stretch, stretch.chores[at.chore]!.k, 0)
    beads += sumOf(stretch, at.k, at.turn)
    const task = bite > 0 ? taskAt(agenda, index) : null
    return beads + (task ? (bitesOf(task)[bite]?.before ?? 0) : 0)
  }
  return beads
}

/**
 * Places among the rows of a part, in its own order, that are done in any copy when the hands are at a place: the
 * first so many, but where rows are made in any order.
 */
export function placesDoneIn(agenda: Agenda, part: Part, index: number): number[] {
  const done = new Set<number>()
  for (const stretch of agenda.stretches) {
    if (stretch.part.id !== part.id || index < stretch.first) continue
    const { rows, each } = stretch
    let [made, turn] = [rows.count, 0]
    if (index < stretch.first + stretch.tasks) {
      const at = within(stretch, index - stretch.first)
      made = at.chore === null ? at.k : stretch.chores[at.chore]!.k
      turn = at.chore === null ? at.turn : 0
    }
    for (const list of new Set(each)) {
      const through = made + (turn > 0 && each.indexOf(list) < turn ? 1 : 0)
      for (let k = 0; k < through; k++) done.add(list.reordered ? namingRows(list).placeOf(list.rowOf(k)) : k)
    }
  }
  return [...done].sort((x, y) => x - y)
}

/** Minutes of the chores from a place of the agenda on, what must go by between them not counted. */
export function choreMinutesFrom(agenda: Agenda, index: number): number {
  let minutes = 0
  for (const stretch of agenda.stretches) {
    if (index >= stretch.first + stretch.tasks) continue
    const { chores } = stretch
    const from = countWhile(chores.length, (j) => placeOfChore(stretch, j) < index - stretch.first)
    for (let j = from; j < chores.length; j++) minutes += chores[j]!.chore.minutes
  }
  return minutes
}

/** The next chore of a kind at a place or after it, of the same part and copy, and the rows of the copy until then. */
export function nextChore(
  agenda: Agenda,
  { index, part, copy, row }: Pick<Task, 'index' | 'part' | 'copy' | 'row'>,
  kind: ChoreKind,
): { readonly index: number; readonly rows: number; readonly before: RowWords | null } | null {
  const stretch = agenda.stretches.find((s) => s.part === part && s.copies.includes(copy))
  if (!stretch) return null
  const { chores, first } = stretch
  const rows = rowsFor(stretch, copy)
  for (let j = countWhile(chores.length, (i) => placeOfChore(stretch, i) < index - first); j < chores.length; j++) {
    const { copy: whose, k, chore } = chores[j]!
    if (whose !== copy || chore.kind !== kind) continue
    const at = first + placeOfChore(stretch, j)
    return { index: at, rows: k - rows.placeOf(row), before: k < rows.count ? rows.words(k) : null }
  }
  return null
}
