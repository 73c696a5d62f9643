/** A weight, g, where it pulls, mm from the point that all of it hangs by: x to the right, y down. */
export interface Pull {
  readonly grams: number
  readonly x: number
  readonly y: number
}

/**
 * How far something stiff on one loop hangs askew, degrees, positive where its right side hangs lower: it turns until
 * the middle of its mass lies below the loop, atan (Σ m x / Σ m y). What hangs freely from it pulls at its own loop.
 * 0 where nothing weighs.
 */
export function tiltDegrees(pulls: readonly Pull[]): number {
  const moment = (of: (p: Pull) => number) => pulls.reduce((sum, p) => sum + p.grams * of(p), 0)
  const [x, y] = [moment((p) => p.x), moment((p) => p.y)]
  return x === 0 ? 0 : (Math.atan2(x, Math.max(0, y)) * 180) / Math.PI
}

/** What nobody sees, degrees. */
export const SEEN_TILT_DEGREES = 2
