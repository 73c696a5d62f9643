import type { Point } from '../lattice'
import type { Carrier } from '../drawing'

/** A wire that winds about a straight line from one point to another, all in mm. */
export interface Coil {
  readonly from: Point
  readonly to: Point
  readonly turns: number
  /** From the line to the middle of the wire. */
  readonly radiusMm: number
  readonly thickMm: number
  /** Where round the line it begins, in turns: at 0 on the right of the way. */
  readonly begin?: number
}

/** Points of a half turn. */
const FINE = 6

/**
 * A coil as it is seen: every half turn by itself, before what it is wound about or behind it, so that the two sides
 * of the work show the two halves. An orthographic view of a helix: across the line r·cos θ, toward the eye r·sin θ.
 */
export function coil({ from, to, turns, radiusMm, thickMm, begin = 0 }: Coil): Carrier[] {
  const long = Math.hypot(to.x - from.x, to.y - from.y)
  if (!(turns > 0) || long === 0) return []
  const across = { x: -(to.y - from.y) / long, y: (to.x - from.x) / long }
  const at = (half: number): Point => {
    const share = (half / 2 - begin) / turns
    const aside = radiusMm * Math.cos(half * Math.PI)
    return {
      x: from.x + share * (to.x - from.x) + aside * across.x,
      y: from.y + share * (to.y - from.y) + aside * across.y,
    }
  }
  // In half turns: those that are whole lie on one side each.
  const [first, last] = [2 * begin, 2 * (begin + turns)]
  const cuts = [first]
  for (let half = Math.floor(first) + 1; half < last; half++) cuts.push(half)
  cuts.push(last)
  return cuts.slice(1).map((end, k): Carrier => {
    const start = cuts[k]!
    return {
      kind: 'wire',
      thickMm,
      lies: Math.sin(((start + end) / 2) * Math.PI) > 0 ? 'before' : 'behind',
      points: Array.from({ length: FINE + 1 }, (_, i) => at(start + ((end - start) * i) / FINE)),
    }
  })
}

/** Two wires twisted together from one point to another. */
export const twisted = (from: Point, to: Point, turns: number, thickMm: number): Carrier[] =>
  [0, 0.5].flatMap((begin) => coil({ ...{ from, to, turns, thickMm, begin }, radiusMm: thickMm / 2 }))
