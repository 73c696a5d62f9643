import { discOf } from '../piece/nature'
import { columnsOf, type Part, type Piece } from '../piece/piece'
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

/** Working rows of one part that are made one after the other, by one or several copies. */
interface Stretch {
  readonly part: Part
  /** Copies, from 1, that take turns row by row. */
  readonly copies: readonly number[]
  readonly rows: RowList
  /** Tasks before it. */
  readonly first: number
  readonly tasks: number
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

/** A row, strand, round, rung or motif of one copy. */
export interface Task {
  /** Names it as long as its part and its row are there. */
  readonly key: string
  /** Place in the agenda, from 0. */
  readonly index: number
  readonly part: Part
  /** Which copy, from 1. */
  readonly copy: number
  /** Working row of the part, from 0. */
  readonly row: number
  readonly words: RowWords
}

/** Where the hands are: everything before this is done, and so many bites of the task itself. */
export interface Mark {
  readonly task: string
  readonly bite: number
}

export const DONE: Mark = { task: 'done', bite: 0 }

const keyOfTask = (part: string, copy: number, row: number): string => `${part}/${copy}/${row}`

const KEY = /^([a-z0-9-]{1,40})\/(\d{1,3})\/(\d{1,9})$/

function readKey(key: string): { readonly part: string; readonly copy: number; readonly row: number } | null {
  const found = KEY.exec(key)
  return found && { part: found[1]!, copy: Number(found[2]), row: Number(found[3]) }
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

function rowsOfPart(piece: Piece, part: Part): RowList {
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

/** The agenda of a piece as it is now. */
export function agendaOf(piece: Piece, order: Order): Agenda {
  const copies = Array.from({ length: order.copies }, (_, k) => k + 1)
  const turns = order.copyOrder === 'in turn' ? copies.map((copy) => [copy]) : [copies]
  const stretches: Stretch[] = []
  let first = 0
  let beads = 0
  for (const turn of turns)
    for (const part of piece.parts) {
      const rows = rowsOfPart(piece, part)
      const tasks = rows.count * turn.length
      stretches.push({ part, copies: turn, rows, first, tasks })
      first += tasks
      beads += rows.beadsBefore(rows.count) * turn.length
    }
  return { piece, order, stretches, count: first, beads }
}

const stretchAt = ({ stretches }: Agenda, index: number): Stretch | undefined =>
  stretches.find((s) => index >= s.first && index < s.first + s.tasks)

/** The task at a place of the agenda; null before its beginning and behind its end. */
export function taskAt(agenda: Agenda, index: number): Task | null {
  const stretch = stretchAt(agenda, index)
  if (!stretch) return null
  const { part, copies, rows, first } = stretch
  const k = Math.floor((index - first) / copies.length)
  const copy = copies[(index - first) % copies.length]!
  const row = rows.rowOf(k)
  return { key: keyOfTask(part.id, copy, row), index, part, copy, row, words: rows.words(k) }
}

/**
 * Place of a task in the agenda; −1 if its part or its copy is not there any more. A row that is not there gives the
 * next of its part.
 */
function indexOf(agenda: Agenda, key: string): number {
  if (key === DONE.task) return agenda.count
  const read = readKey(key)
  if (!read) return -1
  const stretch = agenda.stretches.find((s) => s.part.id === read.part && s.copies.includes(read.copy))
  if (!stretch) return -1
  const { copies, rows, first } = stretch
  const k = rows.placeOf(read.row)
  return k >= rows.count ? first + stretch.tasks : first + k * copies.length + copies.indexOf(read.copy)
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

/** The working rows of a part. */
export const rowsIn = ({ piece }: Agenda, part: Part): RowList => rowsOfPart(piece, part)

/** Place, among the rows of a task's part and copy, of a task by its key; −1 for one of another part or copy. */
export function indexOfRow(agenda: Agenda, { part, copy }: Pick<Task, 'part' | 'copy'>, key: string): number {
  const read = readKey(key)
  return read?.part === part.id && read.copy === copy ? rowsIn(agenda, part).placeOf(read.row) : -1
}

/** The bites of a task: moves where it is worked move by move, runs of equal beads elsewhere. */
export function bitesOf({ part, row, words }: Task): Bite[] {
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

/** Beads (crossings of cords) laid at a place of the agenda. */
export function beadsAt(agenda: Agenda, { index, bite }: { readonly index: number; readonly bite: number }): number {
  let beads = 0
  for (const { first, tasks, copies, rows } of agenda.stretches) {
    if (index >= first + tasks) {
      beads += rows.beadsBefore(rows.count) * copies.length
      continue
    }
    const k = Math.floor((index - first) / copies.length)
    const turn = (index - first) % copies.length
    beads += rows.beadsBefore(k) * copies.length + (rows.beadsBefore(k + 1) - rows.beadsBefore(k)) * turn
    const task = bite > 0 ? taskAt(agenda, index) : null
    return beads + (task ? (bitesOf(task)[bite]?.before ?? 0) : 0)
  }
  return beads
}
