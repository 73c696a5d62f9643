import type { BeadSpec } from '../bead/spec'
import type { FitKind } from '../wear/kind'
import type { StrandRule } from '../hang/rule'
import type { Settings } from './setting'

/** Rings that a front hangs by when it is begun, mm (common practice: a small ring). */
export const RING_MM = 4

/** A part above the strands that work begins with: rows of tray beads by their place on the tray, 0 for none. */
export interface AbovePart {
  readonly technique: string
  readonly name: string
  readonly settings: Settings
  readonly rows: readonly (readonly number[])[]
  /** Places of the part above at which rings hold it, from 1; sewn on, middle to middle, if left out. */
  readonly ringsAt?: readonly number[]
}

export interface BeginsWish {
  /** How wide it should be, mm. */
  readonly widthMm: number
  /** Strands, about. */
  readonly count: number
  readonly bead: BeadSpec
}

/** What strands can hang from when they are begun. */
export interface Beginning {
  readonly id: string
  readonly label: string
  readonly says: string
  /** For what; for all that its technique makes if left out. */
  readonly kinds?: readonly FitKind[]
  /** Parts from the uppermost down, each hanging on the one before; and how many strands that makes. */
  above(wish: BeginsWish): {
    readonly parts: readonly AbovePart[]
    readonly strands: number
    /** Settings of the strands that follow from what they hang on. */
    readonly settings?: Settings
    /** What is between the measure’s beginning and the work, where these parts decide it. */
    readonly closure?: { readonly name: string; readonly lengthMm: number }
  }
}

/** A set in graded sizes, the largest in the middle, that hangs side by side on a chain. */
export interface Graded {
  readonly label: string
  readonly says: string
  readonly kinds: readonly FitKind[]
  /** How wide a front of them is usually, mm. */
  readonly usualWidthMm: number
  /** Settings of the one so many places from the middle; null where none so small is made. */
  smaller(settings: Settings, away: number): Settings | null
}

/** How work of strands is begun: what it hangs from, its tray beyond the first beads, and its rule for a length. */
export interface Begins {
  readonly from: readonly Beginning[]
  /** Strands for a width. */
  countFor(widthMm: number, bead: BeadSpec): number
  /** Sizes of beads that play a part of their own, by their place on the tray; those of others stay. */
  sizes(spec: string): Readonly<Record<number, string>>
  rule(wish: {
    readonly strands: number
    /** The longest strand, mm. */
    readonly longMm: number
    /** Tray numbers by their place. */
    readonly numbers: readonly number[]
    specOf(number: number): BeadSpec
  }): StrandRule
}
