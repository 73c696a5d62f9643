import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { beadNear, beadsTouching, beadsWithin, freeDrawing, halfOf, type FreeDrawing } from './drawing'

const BEAD = { l: 2, d: 3 }
const anyDrawing: fc.Arbitrary<FreeDrawing> = fc
  .uniqueArray(
    fc.record({
      key: fc.nat(500),
      x: fc.float({ min: 0, max: 60, noNaN: true }),
      y: fc.float({ min: 0, max: 40, noNaN: true }),
      turnDegrees: fc.integer({ min: -90, max: 90 }),
      bead: fc.constantFrom(BEAD, BEAD, { l: 5, d: 1.5 }),
    }),
    { selector: (p) => p.key, maxLength: 60 },
  )
  .map((placed) => freeDrawing({ placed, widthMm: 60, lengthMm: 40, bead: BEAD }))

/** Its size, along its hole and across: what was given, told from the drawing by nothing but the room it takes. */
const size = (d: FreeDrawing, k: number): [number, number] =>
  d.sizes ? [d.sizes[2 * k]!, d.sizes[2 * k + 1]!] : [BEAD.l, BEAD.d]
const between = (d: FreeDrawing, k: number, o: number): [number, number] => {
  const [[l, w], [m, v]] = [size(d, k), size(d, o)]
  return [(l + m) / 2, (w + v) / 2]
}

/** How far a point lies from a bead, in a size: written out anew as the twin of what finds it. */
function far(d: FreeDrawing, k: number, x: number, y: number, [l, w] = size(d, k)): [number, number] {
  const turn = (d.turns[k]! * Math.PI) / 180
  const [dx, dy] = [x - d.xs[k]!, y - d.ys[k]!]
  return [(dx * Math.cos(turn) + dy * Math.sin(turn)) / l, (dy * Math.cos(turn) - dx * Math.sin(turn)) / w]
}

describe('beads that lie freely', () => {
  it('stand in the order of their keys and are found by them', () => {
    fc.assert(
      fc.property(anyDrawing, (d) => {
        expect([...d.keys]).toEqual([...d.keys].sort((a, b) => a - b))
        d.keys.forEach((key, k) => expect(d.indexOf(key)).toBe(k))
        expect([d.indexOf(501), d.indexOf(-1)]).toEqual([-1, -1])
        const free = Array.from({ length: 501 }, (_, key) => key).find((key) => !d.keys.includes(key))!
        expect(d.indexOf(free)).toBe(-1)
      }),
    )
  })
  it('within a rectangle are those that a walk over all finds', () => {
    const mm = fc.float({ min: -10, max: 70, noNaN: true })
    fc.assert(
      fc.property(anyDrawing, mm, mm, mm, mm, (d, a, b, c, e) => {
        const [x0, x1] = [Math.min(a, b), Math.max(a, b)]
        const [y0, y1] = [Math.min(c, e), Math.max(c, e)]
        const walked = [...d.keys.keys()].filter(
          (k) => d.xs[k]! >= x0 && d.xs[k]! <= x1 && d.ys[k]! >= y0 && d.ys[k]! <= y1,
        )
        expect([...beadsWithin(d, x0, y0, x1, y1)]).toEqual(walked)
      }),
    )
  })
  it('near a point are the nearest in their own size, or none where none lies within a bead', () => {
    fc.assert(
      fc.property(
        anyDrawing,
        fc.float({ min: -3, max: 63, noNaN: true }),
        fc.float({ min: -3, max: 43, noNaN: true }),
        (d, x, y) => {
          const found = beadNear(d, { x, y })
          const least = Math.min(...[...d.keys.keys()].map((k) => Math.max(...far(d, k, x, y).map(Math.abs))))
          if (found < 0) expect(least).toBeGreaterThan(1 - 1e-6)
          else expect(Math.max(...far(d, found, x, y).map(Math.abs))).toBeLessThan(least + 1e-6)
        },
      ),
    )
  })
  it('touch each other both ways, and only where they lie within a third more than side by side', () => {
    fc.assert(
      fc.property(anyDrawing, (d) => {
        for (const k of d.keys.keys()) {
          const touching = beadsTouching(d, k)
          expect(touching).not.toContain(k)
          for (const other of d.keys.keys()) {
            if (other === k) continue
            const apart = Math.min(
              Math.hypot(...far(d, k, d.xs[other]!, d.ys[other]!, between(d, k, other))),
              Math.hypot(...far(d, other, d.xs[k]!, d.ys[k]!, between(d, k, other))),
            )
            if (Math.abs(apart - 1.34) > 1e-6) expect(touching.includes(other)).toBe(apart < 1.34)
            expect(beadsTouching(d, other).includes(k)).toBe(touching.includes(other))
          }
        }
      }),
      { numRuns: 40 },
    )
  })
  it('take the room of a bead as it is turned', () => {
    const d = freeDrawing({
      placed: [0, 90].map((turnDegrees, key) => ({ key, x: 5, y: 5, turnDegrees })),
      widthMm: 10,
      lengthMm: 10,
      bead: BEAD,
    })
    expect(halfOf(d, 0)).toEqual({ x: 1, y: 1.5 })
    expect(halfOf(d, 1).x).toBeCloseTo(1.5, 9)
    const mixed = freeDrawing({
      placed: [
        { key: 0, x: 5, y: 5, turnDegrees: 0 },
        { key: 1, x: 5, y: 9, turnDegrees: 90, bead: { l: 6, d: 4 } },
      ],
      widthMm: 10,
      lengthMm: 10,
      bead: BEAD,
    })
    expect([0, 1].map((k) => [halfOf(mixed, k).x, halfOf(mixed, k).y].map((mm) => Math.round(mm * 10) / 10))).toEqual([
      [1, 1.5],
      [2, 3],
    ])
    const along = freeDrawing({ placed: [], widthMm: 1, lengthMm: 1, bead: BEAD, hole: 'along' })
    expect([along.beadX, along.beadY]).toEqual([3, 2])
  })
  it('however far they lie apart, squares are not many more than beads', () => {
    const d = freeDrawing({
      placed: [
        { key: 0, x: 0, y: 0, turnDegrees: 0 },
        { key: 1, x: 1e5, y: 1e5, turnDegrees: 0 },
      ],
      widthMm: 1e5,
      lengthMm: 1e5,
      bead: BEAD,
    })
    expect(d.index.columns * d.index.rows).toBeLessThan(16)
    expect(beadNear(d, { x: 1e5, y: 1e5 })).toBe(1)
  })
})
