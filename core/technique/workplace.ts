/** Something that is bought or fetched by number: pins, rings, a cuff, a button. */
export interface Need {
  readonly name: string
  readonly count: number
  /** Why so many, or which: shown beside it; empty where the name says it. */
  readonly says: string
}

/** Something to be done that lays no beads. */
export interface Handling {
  readonly title: string
  /** A sentence each. */
  readonly says: readonly string[]
  readonly minutes: number
  /** What can hurt in it. */
  readonly cautions?: readonly string[]
}

/**
 * What work asks for besides beads and what carries them: tools, findings by number, what is made ready, how it is
 * begun and taken off. Left out by techniques of which carriers and closure say it all.
 */
export interface Workplace {
  readonly tools: readonly string[]
  readonly needs: readonly Need[]
  /** Things to make ready before the first bead, minutes each. */
  readonly ready: readonly { readonly id: string; readonly text: string; readonly minutes: number }[]
  /** What is bent by its guides before the first line; what else is done before it, and behind the last. */
  readonly bend?: Handling
  readonly begin?: Handling
  readonly fasten?: Handling
  /** How the second of a pair is read where it mirrors the first; and what is looked at when both are made. */
  readonly mirror?: string
  readonly pair?: Handling
  /** How its ends meet a closure of that name, in place of being sewn to it. */
  clasp?(name: string): Handling
  /** What can hurt, said once before the work begins. */
  readonly cautions?: readonly string[]
  /** Whether its ends or knots are glued. */
  readonly glued: boolean
}
