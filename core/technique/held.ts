import type { BeadSpec } from '../bead/spec'
import type { Point } from './lattice'

/** Sides of a part: its first and its last row, its first and its last column. */
export const SIDES = ['start', 'end', 'left', 'right'] as const
export type Side = (typeof SIDES)[number]

/** A place that something may hang at, mm: from the middle of the side that holds it, x across and y down from it. */
export interface HeldPlace extends Point {
  /** The bead whose hole is gone through there; null for a hole of a finding. */
  readonly bead: BeadSpec | null
  /** Whether it is a link that is seen on its edge: what hangs there shows its side. */
  readonly onEdge?: boolean
}

/** What a part hangs on, as its own work must know it: it follows from the joints and is never kept with the piece. */
export interface Held {
  /** Places from left to right as it is seen hanging, so that their x falls. */
  readonly places: readonly HeldPlace[]
  /** Radius of the ring that it is laid round, mm; null where it is held straight. */
  readonly bentMm: number | null
}

/** What a finding holds parts by on one of its sides. */
export interface Holds {
  /** From the middle of the side, mm: x across the finding, y along it; and whether a link is seen on its edge. */
  readonly places: readonly (Point & Pick<HeldPlace, 'onEdge'>)[]
  readonly bentMm: number | null
  /** How many beads of a width go on it at most; null where its places say it. */
  readonly room: ((wideMm: number) => number) | null
}
