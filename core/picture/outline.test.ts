import { describe, expect, it } from 'vitest'
import { BEAD_SPECS } from '../bead/spec'
import { beadOutline, beadTransform, boxOutline } from './outline'

/** Corners and ends of arcs of a path, one after the other; a curve by its middle and its end. */
function pointsOf(path: string): (readonly [number, number])[] {
  const out: [number, number][] = []
  let [x, y] = [0, 0]
  for (const [, sign, rest] of path.matchAll(/([MLHVAQZ])([^MLHVAQZ]*)/g)) {
    const n = rest!.trim().split(/[ ,]+/).filter(Boolean).map(Number)
    if (sign === 'H') x = n[0]!
    else if (sign === 'V') y = n[0]!
    else if (sign === 'Z') continue
    else [x, y] = [n.at(-2)!, n.at(-1)!]
    out.push([x, y])
  }
  return out
}

describe('the outline of a bead', () => {
  it.each(BEAD_SPECS.map((spec) => [spec.id, spec] as const))(
    '%s is as large as its bead, and closed',
    (_id, spec) => {
      const path = beadOutline(spec)
      expect(path).toMatch(/^M.*Z$/)
      expect(path).not.toMatch(/NaN|Infinity|--/)
      const points = pointsOf(path)
      const most = (of: (p: readonly [number, number]) => number) => points.reduce((m, p) => Math.max(m, of(p)), 0)
      const drop = spec.shape === 'drop' || spec.shape === 'long-drop'
      // Along the hole as long as the bead, across it as wide; what hangs is wider than its hole is long.
      const [along, across] = [most(([x]) => Math.abs(x)), most(([, y]) => Math.abs(y))]
      if (!drop) {
        expect(along).toBeLessThanOrEqual(spec.l / 2 + 0.26)
        expect(across).toBeLessThanOrEqual(spec.d / 2 + 0.26)
        expect(Math.max(along / spec.l, across / spec.d)).toBeGreaterThan(0.4)
      } else {
        expect(along).toBeCloseTo(spec.d / 2, 2)
        // The ball hangs below the hole, which lies near the other end.
        const lowest = most(([, y]) => y) + spec.d / 2
        expect(lowest).toBeCloseTo(Math.max(spec.d / 2, (spec.hangs ?? spec.d) - spec.l / 2), 2)
      }
      // Every outline is the same seen from its other end.
      const mirrored = points.map(([x, y]) => `${(-x).toFixed(2)},${y.toFixed(2)}`.replace('-0.00', '0.00')).sort()
      expect(
        new Set(points.map(([x, y]) => `${x.toFixed(2)},${y.toFixed(2)}`.replace('-0.00', '0.00')).sort()),
      ).toEqual(new Set(mirrored))
    },
  )
  it('is moved, turned, and turned over', () => {
    expect(beadTransform({ x: 1.23456, y: -2, turnDegrees: 30, flip: 1 })).toBe('translate(1.235 -2) rotate(30)')
    expect(beadTransform({ x: 0, y: 0, turnDegrees: 0, flip: -1 })).toBe('translate(0 0) rotate(0) scale(1 -1)')
    expect(pointsOf(boxOutline(4, 2)).every(([x, y]) => Math.abs(x) === 2 && Math.abs(y) === 1)).toBe(true)
  })
})
