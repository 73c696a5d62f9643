/**
 * Smallest circle that holds n equal circles, as the ratio of the radii R / r, n = 1 … 12
 * (Graham, Lubachevsky, Nurmela, Östergård 1998, Dense packings of congruent circles in a circle).
 */
export const CIRCLE_PACKING: readonly number[] = [
  0, 1, 2, 2.1547, 2.4142, 2.7013, 3, 3, 3.3048, 3.6131, 3.813, 3.9238, 4.0296,
]

/**
 * Diameter of the smallest circle round n threads of diameter a, in a's unit; beyond 12, at a density of 0.7 (a bound
 * on the safe side).
 */
export function bundleDiameter(n: number, a: number): number {
  if (!Number.isInteger(n) || n < 0) throw new RangeError(`a bundle has a whole number of threads, not ${n}`)
  return a * (CIRCLE_PACKING[n] ?? Math.sqrt(n / 0.7))
}

export type Passing = 'easy' | 'tight' | 'no'

export interface HoleCheck {
  readonly verdict: Passing
  /** Hole, in mm. */
  readonly holeMm: number
  /**
   * Least room that the last pass can need, in mm: the needle's eye with one thread beside it, or the bundle of all
   * passes.
   */
  readonly leastMm: number
  /** Room that is surely enough, in mm. */
  readonly surelyMm: number
  readonly passes: number
}

export interface ThreadGauge {
  /** Diameter in mm. */
  readonly diameterMm: number
  /** Gel-spun and nylon flatten a little in a full hole (10 %); monofilament and wire do not. */
  readonly flattens: boolean
}

/**
 * Will it go through? A hole is passed n times; the last time the needle's eye lies beside the n − 1 threads already
 * there. The need lies between eye + one thread and eye + the bundle of n − 1 threads, and never below the bundle of
 * n. Upper bound ≤ hole: easy; lower bound > hole: will not go; between them: tight.
 */
export function checkHole(holeMm: number, passes: number, thread: ThreadGauge, eyeMm: number): HoleCheck {
  const a = thread.diameterMm * (thread.flattens ? 0.9 : 1)
  const all = bundleDiameter(passes, a)
  const least = Math.max(all, eyeMm + (passes > 1 ? a : 0))
  const surely = Math.max(all, eyeMm + bundleDiameter(Math.max(0, passes - 1), a))
  const verdict = surely <= holeMm ? 'easy' : least > holeMm ? 'no' : 'tight'
  return { verdict, holeMm, leastMm: least, surelyMm: surely, passes }
}
