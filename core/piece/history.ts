import { rebaseSteps } from './rebase'
import { shortened } from '../units/text'
import type { Piece } from './piece'
import { applySteps, invertSteps, type Step, type Transaction } from './step'

/**
 * What this tab can undo and redo. It keeps steps, never copies of a grid. Each entry holds the steps that would take
 * the change back (or bring it again), fitting the document as it is now; changes made elsewhere are carried through.
 */
export interface HistoryEntry {
  readonly label: string
  readonly steps: readonly Step[]
}

export interface History {
  readonly undo: readonly HistoryEntry[]
  readonly redo: readonly HistoryEntry[]
}

export const EMPTY_HISTORY: History = { undo: [], redo: [] }

export function recorded(history: History, made: Pick<Transaction, 'label' | 'steps'>): History {
  return { undo: [...history.undo, { label: made.label, steps: invertSteps(made.steps) }], redo: [] }
}

/** The label of a transaction that takes back, or brings again, what was labelled so. */
export const takenBackLabel = (way: 'undo' | 'redo', label: string): string => shortened(`${way}: ${label}`, 80)

/**
 * What can be undone and redone after a piece's last transactions, oldest first, on top of what could before: what a
 * tab has in hand that made them all itself. A transaction that took another back than the newest (another tab did)
 * ends what can be undone before it.
 */
export function historyOf(
  made: readonly Pick<Transaction, 'label' | 'steps'>[],
  before: History = EMPTY_HISTORY,
): History {
  let history = before
  for (const transaction of made) {
    const way = /^(undo|redo): /.exec(transaction.label)?.[1] as 'undo' | 'redo' | undefined
    if (!way) {
      history = recorded(history, transaction)
      continue
    }
    const entry = history[way].at(-1)
    const back: HistoryEntry = {
      label: entry?.label ?? transaction.label.slice(6),
      steps: invertSteps(transaction.steps),
    }
    const fits = entry !== undefined && takenBackLabel(way, entry.label) === transaction.label
    const rest = fits ? history[way].slice(0, -1) : []
    const other = way === 'undo' ? 'redo' : 'undo'
    history = { ...EMPTY_HISTORY, [way]: rest, [other]: [...(fits ? history[other] : []), back] }
  }
  return history
}

/** The newest undo (or redo) entry and the history once it has been applied. */
export function takeBack(history: History, way: 'undo' | 'redo'): { entry: HistoryEntry; history: History } | null {
  const entry = history[way].at(-1)
  if (!entry) return null
  const back: HistoryEntry = { label: entry.label, steps: invertSteps(entry.steps) }
  const rest = history[way].slice(0, -1)
  return {
    entry,
    history:
      way === 'undo' ? { undo: rest, redo: [...history.redo, back] } : { undo: [...history.undo, back], redo: rest },
  }
}

/**
 * The history after someone else's steps, made on `base`, came in. Entries are carried over them from the newest down;
 * at the first that clashes, it and all older ones are given up: they no longer fit this piece.
 */
export function carriedOver(history: History, theirs: readonly Step[], base: Piece): History {
  const one = (entries: readonly HistoryEntry[]): HistoryEntry[] => {
    const kept: HistoryEntry[] = []
    let piece = base
    let over = theirs
    let there = applySteps(base, theirs)
    for (const entry of entries.toReversed()) {
      const mine = rebaseSteps(entry.steps, over, piece)
      const other = rebaseSteps(over, entry.steps, piece, false)
      const next = applySteps(piece, entry.steps)
      if (!mine.ok || !other.ok || !next.ok || !there.ok) break
      // What can be carried over need not stand: two edits may together take more columns than there are.
      there = mine.value.length > 0 ? applySteps(there.value, mine.value) : there
      if (!there.ok) break
      if (mine.value.length > 0) kept.push({ label: entry.label, steps: mine.value })
      piece = next.value
      over = other.value
    }
    return kept.reverse()
  }
  return { undo: one(history.undo), redo: one(history.redo) }
}
