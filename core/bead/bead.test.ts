import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bundleDiameter, checkHole } from './hole'
import { BEAD_SPECS, findSpec, gramsOf, perGramFromGeometry, requireSpec } from './spec'

describe('the catalogue', () => {
  it.each(BEAD_SPECS.map(s => [s.name, s] as const))('%s weighs what its glass weighs, to 20 %% (glass about 2.5 g/cm³, handbook figure)', (_, bead) => {
    const ratio = bead.perGram / perGramFromGeometry(bead)
    expect(ratio).toBeGreaterThan(0.8)
    expect(ratio).toBeLessThan(1.2)
  })
  it('has one id for each spec, and every hole is smaller than its bead', () => {
    expect(new Set(BEAD_SPECS.map(s => s.id)).size).toBe(BEAD_SPECS.length)
    for (const s of BEAD_SPECS) expect(s.h).toBeLessThan(s.d)
  })
  it('finds or requires', () => {
    expect(findSpec('cylinder-11')?.l).toBe(1.3)
    expect(findSpec('pebble')).toBeUndefined()
    expect(() => requireSpec('pebble')).toThrow(/pebble/)
  })
  it('28 g of round 8/0 are about 96 inches strung (common practice)', () => {
    const bead = requireSpec('round-8')
    const inches = 28 * bead.perGram * bead.l / 25.4
    expect(inches).toBeGreaterThan(96 * 0.9)
    expect(inches).toBeLessThan(96 * 1.1)
    expect(gramsOf(39, bead)).toBe(1)
  })
})

describe('threads in a hole', () => {
  // Graham et al. 1998, Dense packings of congruent circles in a circle
  it.each([[1, 1], [2, 2], [3, 2.1547], [4, 2.4142], [5, 2.7013], [6, 3], [7, 3], [8, 3.3048], [9, 3.6131], [10, 3.813], [11, 3.9238], [12, 4.0296]])(
    '%i equal circles lie in a circle %f times as wide', (n, ratio) => expect(bundleDiameter(n, 1)).toBeCloseTo(ratio, 3))

  it('agrees with the exact ratios where a triangle, square or hexagon gives them', () => {
    expect(bundleDiameter(3, 1)).toBeCloseTo(1 + 2 / Math.sqrt(3), 3)
    expect(bundleDiameter(4, 1)).toBeCloseTo(1 + Math.SQRT2, 3)
    expect(bundleDiameter(5, 1)).toBeCloseTo(1 + 1 / Math.sin(Math.PI / 5), 3)
  })
  it('never shrinks when a thread is added', () => {
    for (let n = 0; n < 40; n++) expect(bundleDiameter(n + 1, 1)).toBeGreaterThanOrEqual(bundleDiameter(n, 1))
    expect(() => bundleDiameter(1.5, 1)).toThrow(/1.5/)
  })

  const stiff = (diameterMm: number) => ({ diameterMm, flattens: false })
  it('says easy, tight and no with the figures by hand', () => {
    // 0.8 hole, 0.15 thread, eye 0.5, two passes: 0.5 + 0.15 = 0.65 either way
    expect(checkHole(0.8, 2, stiff(0.15), 0.5)).toMatchObject({ verdict: 'easy', leastMm: 0.65, surelyMm: 0.65 })
    // four passes: surely 0.5 + 2.1547 × 0.15 = 0.823 > 0.8, at least 0.65
    expect(checkHole(0.8, 4, stiff(0.15), 0.5).verdict).toBe('tight')
    // a first pass needs only the eye, with no thread beside it yet
    expect(checkHole(0.5, 1, stiff(0.15), 0.5).verdict).toBe('easy')
    expect(checkHole(0.6, 2, stiff(0.15), 0.5).verdict).toBe('no')
  })
  it('a larger hole, thinner thread or smaller eye never makes it worse', () => {
    const rank = { no: 0, tight: 1, easy: 2 }
    const mm = fc.integer({ min: 5, max: 150 }).map(n => n / 100)
    fc.assert(fc.property(mm, fc.integer({ min: 1, max: 12 }), mm, mm, mm, (hole, passes, thread, eye, less) => {
      const now = rank[checkHole(hole, passes, stiff(thread), eye).verdict]
      expect(rank[checkHole(hole + less, passes, stiff(thread), eye).verdict]).toBeGreaterThanOrEqual(now)
      expect(rank[checkHole(hole, passes, stiff(thread * 0.8), eye).verdict]).toBeGreaterThanOrEqual(now)
      expect(rank[checkHole(hole, passes, stiff(thread), eye * 0.8).verdict]).toBeGreaterThanOrEqual(now)
      expect(rank[checkHole(hole, passes, { diameterMm: thread, flattens: true }, eye).verdict]).toBeGreaterThanOrEqual(now)
    }))
  })
})
