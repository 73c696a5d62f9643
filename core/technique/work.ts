import type { BeadSpec } from '../bead/spec'
import type { Held } from './held'
import type { Plan } from './plan'
import type { Settings } from './setting'

/** What a technique needs to know of a part: counts, the bead it is drawn for and the stitch's own settings. */
export interface Work {
  readonly columns: number
  /** Bead rows along the length, all sections and repeats together. */
  readonly rows: number
  readonly bead: BeadSpec
  readonly settings: Settings
  /** What the lines mean, where the technique keeps a plan. */
  readonly plan?: Plan
  /** Places of bead row r, where they differ; `columns`, then the most, if it is not given. */
  lineLength?(r: number): number
  /** The bead at place c of line r, where lines hold beads of different sizes; `bead` if it is not given. */
  beadAt?(c: number, r: number): BeadSpec
  /** Beads of a line as they mostly are, where rows are asked about that are not there yet. */
  readonly usual?: readonly BeadSpec[]
  /** One value as long as the lines keep their lengths and their beads’ sizes: by it can be kept what follows. */
  readonly shape?: object
  /** What is really laid, where places are left empty; the whole grid if it is not given. */
  readonly laid?: LaidWork
  /** Buttons or loops to choose from that the closure has at its end; none if it is not given. */
  readonly openings?: number
  /** Whether elastic closes it, which is cut with the closure. */
  readonly stretches?: boolean
  /** What it hangs on, where it must know it; left out where it hangs on nothing, or that is all the same. */
  readonly held?: Held
}

/** Sums over the working rows that hold a bead: what the way of a thread follows from. */
export interface LaidSums {
  readonly beads: number
  /** Working rows that hold a bead. */
  readonly rows: number
  /** Places from the first bead of each row to its last: gaps inside a row are bridged by the thread. */
  readonly places: number
  /** Of these, places of the first working row. */
  readonly firstPlaces: number
}

export interface LaidWork extends LaidSums {
  /** Columns of the grid, empty ones included; `columns` of the work are those that hold a bead. */
  readonly across: number
  /** Whether a bead lies at column c of bead row r. */
  holds(c: number, r: number): boolean
}

/** Places of bead row r of a work. */
export const lengthOfRow = ({ lineLength, columns }: Pick<Work, 'lineLength' | 'columns'>, r: number): number =>
  lineLength?.(r) ?? columns
