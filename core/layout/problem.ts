import type { Outline } from './body'

/**
 * What is asked of the layout, and what it answers: plain data, which can go to a worker and back and whose text is a
 * key to what is kept. Nothing of colours is in it.
 */

/** A bridge of thread from an end of one hole to an end of another one; end 0 is where a bead was first entered. */
export interface Tie {
  readonly a: number
  readonly aHole: number
  readonly aEnd: 0 | 1
  readonly b: number
  readonly bHole: number
  readonly bEnd: 0 | 1
  /** In which copy of the cell the second one lies: 0 the same, 1 the next. */
  readonly shift: number
  /** How often it is passed: each pass pulls. */
  readonly weight: number
}

/** Beads of one period of a chain, each copy of which is moved on by a pitch that is to be found. */
export interface CellProblem {
  readonly outlines: readonly Outline[]
  /** Which motif of the period each belongs to, from 0. */
  readonly motifs: readonly number[]
  /** Equal for beads that play the same part. */
  readonly kinds: readonly string[]
  readonly ties: readonly Tie[]
  /** Every second copy is turned over across the chain. */
  readonly glide: boolean
  /** Where a bead lies across the chain, where the recipe says so; NaN is written as null. */
  readonly lies: readonly (number | null)[]
  /** Pitch that is given, mm, with the beads that carry the others, which hang from them. */
  readonly hung: { readonly pitchMm: number; readonly carries: readonly boolean[] } | null
}

/** A bead of a cell that stays where it lies, in a copy so many on. */
export interface Fixed {
  readonly of: number
  readonly shift: number
}

/** Beads at an end of a chain, against the copy of the cell that they hang on. */
export interface EndProblem {
  readonly side: 'start' | 'end'
  /** Which of the cells it hangs on. */
  readonly on: number
  readonly outlines: readonly Outline[]
  /** Between beads of the end, and from them to the cell; none has a shift. */
  readonly ties: readonly Tie[]
  /** What of the cell each outline is; null of those that are loose. */
  readonly fixed: readonly (Fixed | null)[]
  /** Where a loose bead would lie if it were one of a motif that goes on there; null of those that no motif has. */
  readonly like: readonly (Fixed | null)[]
}

export interface ChainProblem {
  /** One for a chain that repeats; one for each kind of motif where they grow or shrink. */
  readonly cells: readonly CellProblem[]
  readonly start: EndProblem | null
  readonly end: EndProblem | null
}

/** Poses as numbers, four a bead: x, y (mm), turn (radians) and flip (1 or −1). */
export type Poses = readonly number[]

export interface CellAnswer {
  readonly poses: Poses
  readonly pitchMm: number
  /** Bead that lies where the mirror image of another one does; null if the cell is not symmetric. */
  readonly mirror: readonly number[] | null
  readonly rounds: number
  /** Greatest overlap that is left, mm, where beads do not ride on each other. */
  readonly overlapMm: number
  readonly settled: boolean
}

export interface ChainAnswer {
  readonly cells: readonly CellAnswer[]
  readonly start: Poses
  readonly end: Poses
}
