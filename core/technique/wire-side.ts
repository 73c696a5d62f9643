import type { Point } from './lattice'
import type { Plan } from './plan'
import type { Settings } from './setting'
import type { Work } from './work'

/** A line of a bending guide: wire as it should lie, a tool that it is bent round, or a mark. */
export interface GuideLine {
  readonly kind: 'wire' | 'tool' | 'mark'
  readonly thickMm: number
  /** Points, mm; a single line from the first to the last. */
  readonly points: readonly Point[]
}

/** A drawing at true size by which wire is bent. */
export interface Guide {
  readonly title: string
  readonly widthMm: number
  readonly lengthMm: number
  readonly lines: readonly GuideLine[]
  readonly labels: readonly (Point & { readonly says: string })[]
  /** What to do with it, a sentence each. */
  readonly says: readonly string[]
}

/** Settings with which work has another size, and what that is called: “a frame 24 × 36 mm”. */
export interface Sizing {
  readonly settings: Settings
  readonly says: string
}

/** A wire across a frame. */
export interface Cross {
  /** Gap between two beads of the frame that it comes out of, counted from the top down its right side. */
  readonly gap: number
  /** The same down its left side, where it is another; null: the same. */
  readonly left: number | null
  /** Id of what fills it. */
  readonly filling: string
}

/** The same as it lies. */
export interface CrossView extends Cross {
  /** Room for its beads, mm, and how long they are. */
  readonly freeMm: number
  readonly longMm: number
}

/** Wires across a frame, one a line behind the first. */
export interface CrossSide {
  readonly fillings: readonly { readonly id: string; readonly name: string; readonly says: string }[]
  of(work: Work): readonly CrossView[]
  /** The last gap that a wire may come out of. */
  lastGap(work: Work): number
  plan(crosses: readonly Cross[]): Plan
  /** What a new one is filled with, as tray numbers, by those of a small and a large bead. */
  line(cross: Cross, work: Work, of: CrossBeads): number[]
}

/** Beads that a new cross wire is made of. */
export interface CrossBeads {
  readonly small: number
  readonly large: number
  specOf(number: number): Work['bead']
}

/** Figures of its lines, row by row. */
export interface WireTable {
  readonly title: string
  readonly head: readonly string[]
  readonly rows: readonly (readonly string[])[]
}

/** What is asked of work on wire beyond what is asked of all work. */
export interface WireSide {
  /** What is reckoned of its lines, to be looked at side by side; `wantedMm`: the measure that is wanted. */
  tables?(work: Work, wantedMm: number): readonly WireTable[]
  /** Whether it is looked at as it is worn, from its top down. */
  readonly upright?: boolean
  /** Whether what carries it stands before its beads: a frame, a stem. */
  readonly stands?: boolean
  /** Drawings at true size by which it is bent. */
  guides(work: Work): readonly Guide[]
  /**
   * Lines of tray numbers as they are when each is full, of a work with these lines; there may be more of them or
   * fewer. `from`: settings before, where these have changed: what does not depend on the change stays as it is.
   */
  full?(lines: readonly (readonly number[])[], work: Work, from?: Settings): readonly (readonly number[])[]
  /** Settings with which it comes nearest to a length, mm; left out by what grows with its lines. */
  sizedTo?(lengthMm: number, work: Work): readonly Sizing[]
  readonly crosses?: CrossSide
}
