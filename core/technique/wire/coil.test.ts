import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Carrier } from '../drawing'
import { coil, twisted, type Coil } from './coil'

const anyCoil: fc.Arbitrary<Coil> = fc
  .record({
    from: fc.record({ x: fc.integer({ min: -20, max: 20 }), y: fc.integer({ min: -20, max: 20 }) }),
    way: fc.double({ min: 0, max: 6.28, noNaN: true }),
    long: fc.double({ min: 0.5, max: 30, noNaN: true }),
    turns: fc.integer({ min: 1, max: 9 }),
    radiusMm: fc.double({ min: 0.2, max: 3, noNaN: true }),
    begin: fc.constantFrom(0, 0.25, 0.5, 0.8),
  })
  .map(({ from, way, long, ...more }) => ({
    ...{ from, to: { x: from.x + long * Math.cos(way), y: from.y + long * Math.sin(way) } },
    ...{ ...more, thickMm: 0.3 },
  }))

/** Points of a half turn as they lie along the line of a coil and aside of it. */
const beside = ({ from, to }: Coil, { points }: Carrier) => {
  const long = Math.hypot(to.x - from.x, to.y - from.y)
  const [ux, uy] = [(to.x - from.x) / long, (to.y - from.y) / long]
  return points.map(({ x, y }) => ({
    along: (x - from.x) * ux + (y - from.y) * uy,
    aside: (y - from.y) * ux - (x - from.x) * uy,
  }))
}

describe('a wire wound about a line', () => {
  it('goes on without a break from end to end, as far aside as it is wound, each half on the other side', () => {
    fc.assert(
      fc.property(anyCoil, (one) => {
        const halves = coil(one)
        const long = Math.hypot(one.to.x - one.from.x, one.to.y - one.from.y)
        const all = halves.map((half) => beside(one, half))
        expect(all[0]![0]!.along).toBeCloseTo(0, 6)
        expect(all.at(-1)!.at(-1)!.along).toBeCloseTo(long, 6)
        for (const [k, half] of all.entries()) {
          for (const { aside } of half) expect(Math.abs(aside)).toBeLessThanOrEqual(one.radiusMm + 1e-9)
          const before = all[k - 1]?.at(-1)
          if (!before) continue
          expect(half[0]!.along).toBeCloseTo(before.along, 6)
          expect(half[0]!.aside).toBeCloseTo(before.aside, 6)
          // What goes over to the other side does so where it is furthest aside.
          expect(Math.abs(before.aside)).toBeCloseTo(one.radiusMm, 6)
          expect(halves[k]!.lies).not.toBe(halves[k - 1]!.lies)
        }
        // As much of it on one side as on the other.
        const on = (side: Carrier['lies']) =>
          all.reduce((sum, half, k) => sum + (halves[k]!.lies === side ? half.at(-1)!.along - half[0]!.along : 0), 0)
        expect(on('before')).toBeCloseTo(on('behind'), 6)
      }),
    )
  })
  it('is a screw: of one hand, whichever side it is seen from', () => {
    const one = { from: { x: 0, y: 0 }, to: { x: 10, y: 0 }, turns: 5, radiusMm: 1, thickMm: 0.3 }
    const halves = coil(one)
    expect(halves).toHaveLength(10)
    const slope = (half: Carrier) => {
      const points = beside(one, half)
      return Math.sign((points.at(-1)!.aside - points[0]!.aside) / (points.at(-1)!.along - points[0]!.along))
    }
    // From behind what was on the left is on the right.
    const seen = new Set(halves.map((half) => (half.lies === 'before' ? slope(half) : -slope(half))))
    expect(seen.size).toBe(1)
  })
  it('is none where there is no turn or no way', () => {
    const one = { from: { x: 1, y: 1 }, to: { x: 1, y: 4 }, turns: 2, radiusMm: 1, thickMm: 0.3 }
    expect(coil({ ...one, turns: 0 })).toEqual([])
    expect(coil({ ...one, to: one.from })).toEqual([])
  })
  it('twists two wires so that one is before wherever the other is behind', () => {
    const strands = twisted({ x: 0, y: 0 }, { x: 0, y: 8 }, 4, 0.4)
    expect(strands).toHaveLength(16)
    const [first, second] = [strands.slice(0, 8), strands.slice(8)]
    first.forEach(({ lies, points }, k) => {
      expect(lies).not.toBe(second[k]!.lies)
      points.forEach(({ x, y }, i) => {
        expect(second[k]!.points[i]!.x).toBeCloseTo(-x, 9)
        expect(second[k]!.points[i]!.y).toBeCloseTo(y, 9)
        // They touch in their middle and stay within two thicknesses.
        expect(Math.abs(x)).toBeLessThanOrEqual(0.2 + 1e-9)
      })
    })
  })
})
