import { placeOfKey } from '../grid/key'
import { columnsOf, numberAt, techniqueOf, workOf, type Part } from '../piece/piece'
import type { StepPicture } from '../technique/step-picture'
import { rowWords, workingRowCount, type RowWords, type ToldRuns } from './words'

/** A step in words and as it looks. */
export interface ShownStep {
  readonly words: ToldRuns
  /** Null where nothing of it has a place. */
  readonly picture: StepPicture | null
}

/** A line that is told step by step, with its pictures. */
export interface ShownRow {
  readonly words: RowWords
  readonly steps: readonly ShownStep[]
  /** Whether lines behind it are worked in the same steps and not shown. */
  readonly others: boolean
}

/** Lines that are looked at, and shown, at most: those behind them repeat them. */
const LOOKED_AT = 26
const MOST_SHOWN = 6

/** The steps of the i-th line with their pictures; none where it is not told step by step. */
export function shownSteps(part: Part, i: number): ShownStep[] {
  const told = rowWords(part, i).told ?? []
  const pictures = techniqueOf(part).pictures?.(i, workOf(part)) ?? []
  return told.map((words, k) => ({ words, picture: pictures[k] ?? null }))
}

/** What is done in a line, whatever its colours. */
const stepsText = ({ told = [] }: RowWords): string =>
  told.map(({ who, says, note }) => `${who}|${says}|${note}`).join('\n')

/**
 * The lines of a part whose steps differ, each once: what begins it, a motif (the first where that differs, and each
 * kind where several follow each other), and what ends it. None for work that is not told step by step.
 */
export function shownRows(part: Part): ShownRow[] {
  if (!techniqueOf(part).pictures) return []
  const count = workingRowCount(part)
  const last = count - 1
  const looked = [...Array(Math.min(count, LOOKED_AT)).keys(), ...(count > LOOKED_AT ? [last] : [])]
  const known = new Map<string, { words: RowWords; others: boolean }>()
  for (const i of looked) {
    const words = rowWords(part, i)
    if (!words.told || words.told.length === 0) continue
    const text = stepsText(words)
    const same = known.get(text)
    if (same) same.others = true
    else known.set(text, { words, others: false })
  }
  const all = [...known.values()]
  const shown = all.length > MOST_SHOWN ? [...all.slice(0, MOST_SHOWN - 1), all.at(-1)!] : all
  return shown.map(({ words, others }) => ({ words, others, steps: shownSteps(part, words.index) }))
}

/** Tray numbers of the beads of a picture, in its order; 0 where one lies in no cell. */
export function numbersIn(part: Part, { beads }: StepPicture): number[] {
  const columns = columnsOf(part)
  return beads.map(({ key }) => {
    if (key < 0) return 0
    const { c, r } = placeOfKey(columns, key)
    return numberAt(part, c, r)
  })
}
