import { bundleDiameter } from '../bead/hole'
import { wireDiameterMm } from '../units/wire-gauge'

/** Wires and threads of different thickness in one hole. Wire does not flatten. Lengths in mm. */

/** A bead’s hole is planned with this share of what the catalogue says: beads of one bag differ by a tenth. */
export const HOLE_SHARE = 0.9
/** The largest holes of a bag: what goes through none of them will not go. */
const WIDEST_SHARE = 1.1

/**
 * The smallest hole that three wires go through, by their diameters: a thin third slips in beside the other two, a
 * thicker one takes the outer circle of Soddy (Descartes’ circle theorem).
 */
export function threeInHoleMm(diameters: readonly [number, number, number]): number {
  const [r1, r2, r3] = diameters.map((a) => a / 2).sort((a, b) => b - a) as [number, number, number]
  if (r3 <= 0) return 2 * (r1 + r2)
  if (r3 <= (r1 * r2 * (r1 + r2)) / (r1 * r1 + r1 * r2 + r2 * r2)) return 2 * (r1 + r2)
  const [k1, k2, k3] = [1 / r1, 1 / r2, 1 / r3]
  return 2 / (2 * Math.sqrt(k1 * k2 + k2 * k3 + k3 * k1) - (k1 + k2 + k3))
}

interface RoomMm {
  /** Less than this, and they do not go through together. */
  readonly least: number
  /** So much is surely enough. */
  readonly surely: number
}

/** Room that wires of any thickness need in one hole: exact for up to three, between two bounds for more. */
export function roomInHoleMm(diameters: readonly number[]): RoomMm {
  const sorted = diameters.filter((a) => a > 0).sort((a, b) => b - a)
  const [first = 0, second = 0, third = 0] = sorted
  if (sorted.length <= 3) {
    const mm = third > 0 ? threeInHoleMm([first, second, third]) : first + second
    return { least: mm, surely: mm }
  }
  const area = Math.sqrt(sorted.reduce((sum, a) => sum + a * a, 0))
  const bySize = new Map<number, number>()
  for (const a of sorted) bySize.set(a, (bySize.get(a) ?? 0) + 1)
  const nested = [...bySize].reduce((sum, [a, count]) => sum + bundleDiameter(count, a), 0)
  return {
    least: Math.max(area, threeInHoleMm([first, second, third])),
    surely: Math.min(bundleDiameter(sorted.length, first), nested),
  }
}

/**
 * Whether wires go through a hole of the catalogue: easily where they do through the smallest of a bag, not at all
 * where they do not through its largest, and tightly between.
 */
export function passTogether(holeMm: number, diameters: readonly number[]): 'easy' | 'tight' | 'no' {
  const { least, surely } = roomInHoleMm(diameters)
  return surely <= HOLE_SHARE * holeMm + 1e-9 ? 'easy' : least > WIDEST_SHARE * holeMm + 1e-9 ? 'no' : 'tight'
}

/** Gauges in which wire is mostly sold, thickest first (common practice). */
const SOLD_GAUGES = [16, 18, 20, 22, 24, 26, 28, 30, 32, 34] as const

/**
 * The thickest wire that is sold, no thicker than a gauge, that goes easily through every one of these holes: each
 * with how often it is passed by it and what else lies in it. The thinnest of all where none does.
 */
export function thickestThrough(
  noThicker: number,
  holes: readonly { readonly holeMm: number; readonly passes: number; readonly others?: readonly number[] }[],
): number {
  const thin = SOLD_GAUGES.filter((gauge) => gauge >= noThicker)
  return (
    thin.find((gauge) => {
      const a = wireDiameterMm(gauge)
      return holes.every(
        ({ holeMm, passes, others = [] }) =>
          passTogether(holeMm, [...Array.from({ length: passes }, () => a), ...others]) === 'easy',
      )
    }) ?? thin.at(-1)!
  )
}

/** The thickest wire that is sold and would go through easily, in place of all that are thicker; null if none. */
export function nextGauge(holeMm: number, wires: readonly number[]): number | null {
  const thickest = Math.max(...wires)
  return (
    SOLD_GAUGES.find((gauge) => {
      const a = wireDiameterMm(gauge)
      return (
        a < thickest - 1e-9 &&
        passTogether(
          holeMm,
          wires.map((wire) => Math.min(wire, a)),
        ) === 'easy'
      )
    }) ?? null
  )
}
