import { techniqueOf } from '../piece/piece'
import type { RowWords } from '../tally/words'
import type { Agenda, Filled, Task } from './agenda'

/** One line of a board: a pin, by its number, as it stands. */
export interface BoardLine {
  /** Working row, from 0. */
  readonly row: number
  readonly words: RowWords
  /** Whether it is made; `early` where it was ticked off out of turn. */
  readonly made: boolean
  readonly early: boolean
  /** Whether it is the one in hand. */
  readonly now: boolean
}

/** Lines that are made in any order, laid out to be ticked off; null for other work, and where copies take turns. */
export function boardOf(agenda: Agenda, task: Task): readonly BoardLine[] | null {
  const stretch = agenda.stretches.find((s) => s.part === task.part && s.copies.includes(task.copy))
  if (!stretch || stretch.copies.length > 1 || !techniqueOf(task.part).anyOrder) return null
  const { rows } = stretch
  const here = rows.placeOf(task.row)
  const lines = Array.from({ length: rows.count }, (_, k) => {
    const row = rows.rowOf(k)
    return {
      row,
      words: rows.words(k),
      made: k < here,
      early: rows.reordered?.early.has(row) ?? false,
      now: task.words !== undefined && k === here,
    }
  })
  return lines.sort((a, b) => a.row - b.row)
}

/** Rows of a board that hold the same as one of its lines, itself among them. */
export function alikeOn(board: readonly BoardLine[], line: BoardLine): number[] {
  // As they are strung, from the head of each.
  const text = ({ words }: BoardLine): string => words.runs.map((r) => `${r.count}:${r.number}`).join()
  return board.filter((other) => text(other) === text(line)).map(({ row }) => row)
}

/** What was ticked off on boards, by its key, in the order in which it was. */
export function filledOf(ticks: ReadonlyMap<string, ReadonlyMap<string, number>>): Filled {
  return new Map(
    [...ticks]
      .filter(([key]) => key.endsWith('/board'))
      .map(([key, items]) => [
        key,
        [...items].sort(([a, x], [b, y]) => x - y || Number(a) - Number(b)).map(([item]) => Number(item)),
      ]),
  )
}
