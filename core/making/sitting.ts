import { isChoreKey } from './agenda'
import type { Press } from './event'

/** A pause of more than this between two presses is no work, ms (common practice: one is called away). */
export const PAUSE_MS = 5 * 60_000

/** But a long row takes longer: up to a minute for each bead is work (common practice: 60 beads an hour is slow). */
const SLOWEST_BEAD_MS = 60_000

const isPause = (before: Press, press: Press): boolean =>
  press.at - before.at > Math.max(PAUSE_MS, (press.beads - before.beads) * SLOWEST_BEAD_MS)

/** A stretch of work without a long pause. */
export interface Sitting {
  readonly from: number
  readonly to: number
  /** What of it went by at beads, not at joining thread, measuring and such, ms. */
  readonly atBeads: number
  /** Beads that came to it between its first press and its last. */
  readonly beads: number
}

/**
 * Sittings by what was pressed, in the order of time. How long the first press of a sitting took is not known, so
 * neither its time nor its beads count; beads that were taken back are taken off.
 */
export function sittingsOf(presses: readonly Press[]): Sitting[] {
  const out: { from: number; to: number; atBeads: number; beads: number }[] = []
  let before: Press | null = null
  for (const press of presses) {
    const last = out.at(-1)
    if (before && last && !isPause(before, press)) {
      last.to = press.at
      // Until a press one is at what the press before it led to.
      if (!isChoreKey(before.task)) last.atBeads += press.at - before.at
      last.beads += press.beads - before.beads
    } else out.push({ from: press.at, to: press.at, atBeads: 0, beads: 0 })
    before = press
  }
  return out
}

/** Time at the bench, ms. */
export const workedMs = (sittings: readonly Sitting[]): number => sittings.reduce((sum, s) => sum + s.to - s.from, 0)

/** Time at the beads, ms. */
export const atBeadsMs = (sittings: readonly Sitting[]): number => sittings.reduce((sum, s) => sum + s.atBeads, 0)

/** Less than this is too little to know a hand by, ms. */
const KNOWN_AFTER_MS = 10 * 60_000

/** Beads an hour by what was pressed; null while that is too little to tell. */
export function paceOf(sittings: readonly Sitting[]): number | null {
  const ms = atBeadsMs(sittings)
  const beads = sittings.reduce((sum, s) => sum + s.beads, 0)
  return ms < KNOWN_AFTER_MS || beads <= 0 ? null : (beads * 3_600_000) / ms
}
