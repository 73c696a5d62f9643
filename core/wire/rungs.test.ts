import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireSpec as spec } from '../bead/spec'
import { wireDiameterMm } from '../units/wire-gauge'
import {
  mixedRow,
  OUTLINES,
  outlineWidths,
  pitchMm,
  rowsFollowing,
  safePitchMm,
  sideOf,
  twistWireMm,
  widthOf,
} from './rungs'

const many = (count: number, id: string) => Array.from({ length: count }, () => spec(id))
const [SMALL, LARGE] = [spec('round-11'), spec('round-8')]
const beads = (row: readonly number[]) => row.map((k) => (k === 0 ? SMALL : LARGE))

describe('rows of a wire ladder', () => {
  it('nest by half a bead where counts differ by one; bicones do so by their slopes', () => {
    expect(pitchMm(many(4, 'round-11'), many(4, 'round-11'))).toBeCloseTo(2.1, 9)
    expect(pitchMm(many(4, 'round-11'), many(5, 'round-11'))).toBeCloseTo(1.82, 2)
    expect(pitchMm(many(1, 'bicone-4-mm'), many(2, 'bicone-4-mm'))).toBeCloseTo(2, 6)
    expect(pitchMm(many(3, 'cylinder-11'), many(4, 'cylinder-11'))).toBeCloseTo(spec('cylinder-11').d, 9)
    expect(safePitchMm(many(2, 'round-11'), many(2, 'round-8'))).toBeCloseTo(2.55, 9)
  })
  it('leave bare wire where one is wider than the next: √(D² + P²) − P', () => {
    const bare = (more: number) => sideOf(many(4, 'round-11'), many(4 + more, 'round-11')).bareMm
    expect([1, 2, 3].map((k) => Number(bare(k).toFixed(2)))).toEqual([0.11, 0.42, 0.87])
    expect(sideOf(many(4, 'round-8'), many(5, 'round-8')).bareMm).toBeCloseTo(0.18, 2)
    const side = sideOf(many(1, 'round-11'), many(2, 'round-11'))
    expect([side.bridgeMm, side.offMm].map((mm) => Number(mm.toFixed(3)))).toEqual([2.214, 0.7])
    expect(bare(0)).toBe(0)
  })
  it('a twist takes a helix each: six turns of 28 gauge over 8 mm take 10.03 mm', () => {
    expect(twistWireMm(6, wireDiameterMm(28), 8)).toBeCloseTo(10.03, 2)
  })
})

describe('rows that follow an outline', () => {
  it('are as worked by hand: petal and diamond of 11/0 and 8/0', () => {
    const of = (outline: (typeof OUTLINES)[number], rows: number, wide: number) =>
      rowsFollowing(outlineWidths(outline, rows, wide), SMALL, LARGE).map((row) =>
        Number(widthOf(beads(row)).toFixed(1)),
      )
    expect(of('petal', 11, 14).slice(0, 6)).toEqual([2.1, 5.6, 9.1, 11.9, 13.3, 14])
    expect(of('diamond', 13, 14).slice(0, 7)).toEqual([1.4, 2.8, 5.6, 7.7, 9.8, 11.9, 13.3])
    expect(of('triangle', 8, 16.8)).toEqual([2.1, 4.2, 6.3, 8.4, 10.5, 12.6, 14.7, 16.8])
    expect(outlineWidths('drop', 4, 10).map((mm) => Number(mm.toFixed(1)))).toEqual([1.4, 6.6, 10, 5.4])
  })
  it('cost no more than any other rows of the same kind: every choice of four rows tried', () => {
    const cost = (rows: readonly (readonly number[])[], widths: readonly number[]) =>
      rows.reduce((sum, row, i) => {
        const own = 0.5 * (widthOf(beads(row)) - widths[i]!) ** 2 + 0.01 * row.length
        return sum + own + (i === 0 ? 0 : 2 * sideOf(beads(rows[i - 1]!), beads(row)).bareMm)
      }, 0)
    for (const outline of OUTLINES) {
      const widths = outlineWidths(outline, 4, 8)
      const choices = widths.map((want) =>
        Array.from({ length: 8 }, (_, a) => Array.from({ length: 6 }, (__, b) => ({ a, b })))
          .flat()
          .filter(({ a, b }) => a + b > 0 && (a % 2 === 0 || b % 2 === 0))
          .map(mixedRow)
          .filter((row) => Math.abs(widthOf(beads(row)) - want) <= 0.75 * LARGE.l + 1e-9),
      )
      let best = Infinity
      for (const a of choices[0]!)
        for (const b of choices[1]!)
          for (const c of choices[2]!) for (const d of choices[3]!) best = Math.min(best, cost([a, b, c, d], widths))
      expect(cost(rowsFollowing(widths, SMALL, LARGE), widths)).toBeCloseTo(best, 9)
    }
  })
  it('are their own mirrors, never empty, and near their outline (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...OUTLINES),
        fc.integer({ min: 2, max: 24 }),
        fc.double({ min: 3, max: 30, noNaN: true }),
        (outline, count, wide) => {
          const widths = outlineWidths(outline, count, wide)
          const rows = rowsFollowing(widths, SMALL, LARGE)
          expect(rows).toHaveLength(count)
          rows.forEach((row, i) => {
            expect(row.toReversed()).toEqual(row)
            expect(row.length).toBeGreaterThan(0)
            expect(Math.abs(widthOf(beads(row)) - widths[i]!)).toBeLessThanOrEqual(Math.max(1.6, SMALL.l))
          })
        },
      ),
      { numRuns: 60 },
    )
  })
})
