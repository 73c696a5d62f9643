import type { Box as Stock } from '../supply/box'
import type { Part, Piece, SectionName } from '../piece/piece'
import type { Step } from '../piece/step'
import type { Weight } from '../technique/technique'

/** What the proofreader says of a piece, as data: nothing of it is kept but what was said to be meant so. */

/** Kinds of rules, in the order in which a list shows them. */
export const GROUPS = ['counting', 'odd', 'making', 'telling', 'size', 'safety'] as const
export type Group = (typeof GROUPS)[number]

export const GROUP_NAMES: Readonly<Record<Group, string>> = {
  counting: 'Counting',
  odd: 'Odd ones in a pattern',
  making: 'Making',
  telling: 'Telling apart',
  size: 'Size and wear',
  safety: 'Safety',
}

/** A bead as it is kept: once, however often the repeat is worked; `c` null: the whole line. */
export interface Spot {
  readonly section: SectionName
  readonly r: number
  readonly c: number | null
}

/** A change that takes a finding away. */
export interface Mend {
  /** What is pressed: “Lay these 4 beads”. */
  readonly label: string
  readonly steps: readonly Step[]
}

/** What a rule finds. */
export interface Found {
  readonly weight: Weight
  /** What is wrong, where, and what to do. */
  readonly says: string
  /** Why it matters, in a sentence. */
  readonly why: string
  readonly spots?: readonly Spot[]
  readonly mends?: readonly Mend[]
  /** The rule by a name of its own, where one file asks for several things. */
  readonly code?: string
  /** Id of the part that it is about, where a rule that is asked of the piece knows it. */
  readonly part?: string
}

export interface Finding extends Required<Omit<Found, 'code' | 'part'>> {
  /** Id of the rule, or the code of what it found. */
  readonly rule: string
  readonly group: Group
  /** Id of the part that it is about; null: the piece as a whole. */
  readonly part: string | null
  /** A number made from what is there: it changes when the place does. */
  readonly sign: string
  /** Why it was said to be meant so; null while nobody said so. */
  readonly meant: string | null
}

/** What rules may ask of beside the piece. */
export interface Surroundings {
  /** What lies in the box, and which piece asks. */
  readonly box?: { readonly stock: Stock; readonly pieceId?: string }
}

/**
 * A rule of the proofreader. It is asked only where it applies: of each part, or of the piece. Rules are data of a
 * table (rules.ts), one file each.
 */
export interface Rule {
  readonly id: string
  readonly group: Group
  /** What it looks for, in a few words, for the list of rules. */
  readonly looksFor: string
  /** Whether it asks the part, the tray and the gauges alone: its answer stands as long as these do. */
  readonly alone?: true
  /** What it needs of a piece to be asked at all. */
  applies?(piece: Piece): boolean
  /** What it needs of a part to be asked. */
  needs?(part: Part, piece: Piece): boolean
  ofPart?(part: Part, piece: Piece): readonly Found[]
  ofPiece?(piece: Piece, around: Surroundings): readonly Found[]
}
