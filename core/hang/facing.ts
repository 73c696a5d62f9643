/**
 * Which way something faces that hangs by loops and rings: each link lies across the one before, a quarter turn on.
 * What is seen from the front shows its face; from the side, its edge.
 */
export type Facing = 'front' | 'side'

export const turnedBy = (facing: Facing, quarters: number): Facing =>
  quarters % 2 === 0 ? facing : facing === 'front' ? 'side' : 'front'

/** What hangs, link by link, from the hook down. */
export interface Hanging {
  /** How the hook’s own loop is seen: as a ring from the front, or on its edge. */
  readonly hook: Facing
  /** Rings and links between. */
  readonly rings: number
  /** Whether its own eye stands across its face; else it lies in it, as a hole drilled from front to back does. */
  readonly eyeAcross: boolean
}

/**
 * How what hangs faces: to the front where its quarter turns are even: one for a loop seen from the front,
 * one for each ring, one for an eye that stands across.
 */
export const facingOf = ({ hook, rings, eyeAcross }: Hanging): Facing =>
  turnedBy('front', (hook === 'front' ? 1 : 0) + rings + (eyeAcross ? 1 : 0))
