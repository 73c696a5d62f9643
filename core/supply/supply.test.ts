import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { setStep } from '../piece/edit'
import { applySteps } from '../piece/step'
import { supplySchema } from '../piece/schema'
import { valueOf } from '../problem'
import { beadsToBuy, needOf, packsFor } from './beads'
import { NEEDLES, requireNeedle, requireThread, THREADS } from './catalogue'
import { cutThread, holeChecks, threadCuts } from './thread'

const supply = supplySchema.parse({})

describe('thread to cut', () => {
  it('is one length where one is enough, by hand', () => {
    // 1000 × 1.05 + 120 for the closure + 2 × 200 tails = 1570 → 1600 mm, no join, 1600 − 1000 − 120 − 400 = 80 to spare
    expect(cutThread({ pathMm: 1000, sewingMm: 120, supply })).toEqual({ joins: 0, totalMm: 1600, spareMm: 80 })
  })
  it('joins what is longer than one handles; each join costs two tails', () => {
    // 5000 × 1.05 + 400 = 5650; handled 1800: joins j with (j + 1) 1800 ≥ 5650 + 300 j → 1500 j ≥ 3850 → 3; total 5650 + 900 = 6550 → 6600
    expect(cutThread({ pathMm: 5000, sewingMm: 0, supply })).toEqual({ joins: 3, totalMm: 6600, spareMm: 6600 - 5000 - 400 - 900 })
  })
  it('doubled takes twice the length', () => {
    expect(cutThread({ pathMm: 1000, sewingMm: 0, supply: { ...supply, doubled: true } }).totalMm).toBe(2 * 1450 + 0)
  })
  it('is never shorter than the path with its slack and tails, and the lengths hold it', () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 200_000 }), fc.integer({ min: 500, max: 6000 }), fc.boolean(), (pathMm, workingLengthMm, doubled) => {
      const { joins, totalMm, spareMm } = cutThread({ pathMm, sewingMm: 0, supply: { ...supply, workingLengthMm, doubled, tailMm: 100 } })
      const fold = doubled ? 2 : 1
      expect(totalMm).toBeGreaterThanOrEqual(fold * (pathMm * 1.05 + 400 + joins * 200) - 1e-6)
      expect(totalMm % 100).toBe(0)
      expect(spareMm).toBeGreaterThanOrEqual(0)
      if (joins > 0) expect(joins * workingLengthMm).toBeLessThan(pathMm * 1.05 + 400 + (joins - 1) * 200 + 1e-6)
    }))
  })
  it('adding beads never shortens thread', () => {
    fc.assert(fc.property(anyPiece, fc.integer({ min: 1, max: 9 }), (p, more) => {
      const one = p.parts[0]!
      const longer = { ...one, times: one.times + more }
      const total = (q: typeof one) => threadCuts(p, q).reduce((sum, c) => sum + c.totalMm, 0)
      expect(total(longer)).toBeGreaterThanOrEqual(total(one))
    }))
  })
  it('lists warps apart, each in one piece', () => {
    const p = piece({ parts: [part({ technique: 'loom', settings: { start: 'left', warpMm: 0.2, doubleEdge: true, spareWarpMm: 200 }, start: rows('AAAA'), repeat: rows('ABBA'), end: rows('AAAA'), times: 98 })] })
    const warp = threadCuts(p, p.parts[0]!).find(c => c.id === 'warp')!
    // 4 beads: 5 warps and 2 more; 100 rows × 1.6 = 160 + 400 = 560 → 600 mm each
    expect(warp).toMatchObject({ pieces: 7, cutMm: 600, totalMm: 4200, joins: 0 })
  })
})

describe('will it go through', () => {
  it('checks every size that is used, and only those', () => {
    const p = piece({ tray: [bead(1), bead(2, { spec: 'round-15' }), bead(3, { spec: 'round-8' })], parts: [part({ start: rows('AAAA'), repeat: rows('ABBA'), end: rows('AAAA') })] })
    expect(holeChecks(p, p.parts[0]!).map(c => c.spec).sort()).toEqual(['cylinder-11', 'round-15'])
  })
  it('says what would help where it is tight', () => {
    const p = piece({ tray: [bead(1, { spec: 'round-15' })], supply: supplySchema.parse({ thread: 'mono-20', needle: '10', reinforce: 2 }), parts: [part({ start: rows('AAAA'), repeat: rows('AAAA'), end: rows('AAAA') })] })
    const [check] = holeChecks(p, p.parts[0]!)
    // hole 0.6; eye 0.55 + 0.20 = 0.75 at least: will not go
    expect(check).toMatchObject({ verdict: 'no', passes: 4 })
    expect(check!.leastMm).toBeCloseTo(0.75, 9)
    expect(check!.helps).toContain('fewer passes')
  })
  it('knows its threads and needles', () => {
    for (const t of THREADS) expect(requireThread(t.id)).toBe(t)
    for (const n of NEEDLES) expect(requireNeedle(n.id)).toBe(n)
    expect(() => requireThread('rope')).toThrow(/rope/)
    expect(() => requireNeedle('9')).toThrow(/9/)
  })
})

describe('beads to buy', () => {
  it('adds spare, at least five, then what culling takes', () => {
    // 1000 × 1.1 = 1100, 5 % culls: 1100 / 0.95 = 1157.9 → 1158
    expect(needOf(1000, { spare: 0.1, cull: 0.05 })).toBe(1158)
    expect(needOf(10, { spare: 0.1, cull: 0 })).toBe(15)
    expect(needOf(0, { spare: 0.1, cull: 0.05 })).toBe(0)
  })
  it('packs cover the weight with the least left over', () => {
    expect(packsFor(14, [5, 10, 28])).toEqual([{ grams: 10, count: 1 }, { grams: 5, count: 1 }])
    expect(packsFor(29, [5, 10, 28])).toEqual([{ grams: 10, count: 3 }])
    expect(packsFor(0, [5])).toEqual([])
    fc.assert(fc.property(fc.integer({ min: 1, max: 9000 }), fc.uniqueArray(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 4 }), (tenths, sizes) => {
      const packs = packsFor(tenths / 10, sizes)
      const grams = packs.reduce((sum, p) => sum + p.grams * p.count, 0)
      expect(grams * 10).toBeGreaterThanOrEqual(tenths - 1e-9)
      expect(grams - tenths / 10).toBeLessThan(Math.min(...sizes))
    }))
  })
  it('weighs 195 cylinders 11/0 as one gram and leaves out what is not used', () => {
    const p = piece({ supply: supplySchema.parse({ spare: 0, cull: 0 }), parts: [part({ start: rows('AAAAA'.slice(0, 4)), repeat: rows('AAAA'), end: rows('AAAA'), times: 193 })] })
    const [only, ...rest] = beadsToBuy(p)
    expect(rest).toEqual([])
    expect(only).toMatchObject({ count: 780, need: 785, packGrams: 5 })
    expect(only!.grams).toBeCloseTo(785 / 195, 9)
    expect(only!.left).toBe(975 - 780)
  })
  it('changes with the piece and not without it', () => {
    const p = piece()
    const renamed = valueOf(applySteps(p, [setStep(p, ['name'], 'Other')]))
    expect(beadsToBuy(renamed)).toEqual(beadsToBuy(p))
    const longer = valueOf(applySteps(p, [setStep(p, ['parts', 'band', 'times'], 30)]))
    expect(beadsToBuy(longer)[0]!.count).toBeGreaterThan(beadsToBuy(p)[0]!.count)
  })
})
