import type { StrandRule } from '../hang/rule'
import type { Plan } from './plan'
import type { Work } from './work'

/** Which lists of strands stay alike: about the middle, again after so many, or none. */
export const ALIKE = ['mirror', 'repeat', 'free'] as const
export type Alike = (typeof ALIKE)[number]

/** A strand as it hangs. */
export interface StrandAt {
  /** Place that it hangs from, from 0; place that it leads to, of a swag; null of one that comes back. */
  readonly at: number
  readonly to: number | null
  /** Beads at its end that the thread turns round. */
  readonly turning: number
  /** From its top to its lowest point, mm. */
  readonly longMm: number
  /** Its lowest point below the highest place of the top, mm. */
  readonly endMm: number
}

/** What of a single strand may differ from the rest; null: as the rest. */
export interface OwnStrand {
  readonly at: number | null
  readonly to: number | null
  readonly turning: number | null
}

/** How a plan says that its strands hang. */
export interface StrandPlan {
  readonly alike: Alike
  readonly period: number
  readonly rule: StrandRule | null
}

/** Work whose lines are strands: made by a rule that can be changed, alike from both sides or not. */
export interface StrandSide {
  plan(plan: Plan | undefined): StrandPlan
  withPlan(plan: Plan | undefined, change: Partial<StrandPlan>): Plan
  /** A single strand that hangs otherwise than the rest, or as the rest again. */
  withOwn(plan: Plan | undefined, strand: number, own: OwnStrand): Plan
  own(plan: Plan | undefined, strand: number): OwnStrand
  /** Where strands begin, mm below the highest, if there are so many. */
  starts(work: Work, count: number): number[]
  strands(work: Work): StrandAt[]
  /** From end to end of a swag, mm; null of a strand that comes back. */
  spanOf(work: Work, strand: number): number | null
  /** How many places there are to hang from; null where they hang on nothing. */
  places(work: Work): number | null
}
