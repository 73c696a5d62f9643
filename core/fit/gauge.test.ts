import { valueOf } from '../problem'
import { ownRecipe } from '../../tests/fixture/own-recipe'
import { gaugeSchema } from '../piece/schema'
import { readRecipeText, recipeText } from '../recipe/shorthand'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANY_IDS, anyPieceOf, part, piece } from '../../tests/fixture/piece'
import { requireSpec } from '../bead/spec'
import { emptyCells } from '../grid/cells'
import { columnsOf } from '../piece/piece'
import type { Gauge, Swatch } from '../piece/schema'
import { requireTechnique } from '../technique/registry'
import { extentOf } from './extent'
import {
  gaugeFor,
  gaugeKeyOf,
  handFor,
  handOf,
  questionedSwatches,
  swatchFactors,
  withoutSwatch,
  withSwatch,
} from './gauge'
import { fitOf, rowsWanted } from './reckon'

const swatch = (rows: number, lengthMm: number, over: Partial<Swatch> = {}): Swatch => ({
  rows,
  lengthMm,
  columns: 0,
  widthMm: 0,
  from: '',
  ...over,
})
const KEY = { technique: 'peyote', spec: 'cylinder-11', thread: 'gel-6' } as const
const gauge = (...swatches: Swatch[]): Gauge => ({ ...KEY, swatches })

describe('a gauge', () => {
  it('is measured over nominal, by hand: 20 rows of cylinder 11/0 peyote are 32 mm; 33.6 is 5 % more', () => {
    expect(swatchFactors(KEY, swatch(20, 33.6))).toEqual({ along: expect.closeTo(1.05, 9) as number, across: null })
    // ten beads across are 13 mm; 12.74 is 2 % less
    expect(swatchFactors(KEY, swatch(20, 32, { columns: 10, widthMm: 12.74 })).across).toBeCloseTo(0.98, 9)
  })
  it('of one swatch is sure to 2.5 %, of several to twice their standard deviation, within 1 and 5 %', () => {
    expect(handOf(gauge(swatch(20, 32)))).toMatchObject({ along: 1, spread: 0.025, swatches: 1 })
    // 1.02 and 1.04: mean 1.03, deviation 0.01414 → twice is 0.0275
    const two = handOf(gauge(swatch(20, 32.64), swatch(20, 33.28)))!
    expect(two.along).toBeCloseTo(1.03, 9)
    expect(two.spread).toBeCloseTo((2 * 0.0141421) / 1.03, 5)
    expect(handOf(gauge(swatch(20, 32), swatch(20, 32)))!.spread).toBe(0.01)
    expect(handOf(gauge(swatch(20, 28), swatch(20, 36)))!.spread).toBe(0.05)
  })
  it('serves its own stitch, bead and thread only', () => {
    const p = piece({ gauges: [gauge(swatch(20, 33.6))] })
    expect(gaugeFor(p, p.parts[0]!)).toBeDefined()
    expect(gaugeFor({ ...p, supply: { ...p.supply, thread: 'nylon-d' } }, p.parts[0]!)).toBeUndefined()
    expect(gaugeFor(p, { ...p.parts[0]!, technique: 'loom' })).toBeUndefined()
    expect(handFor(p, { ...p.parts[0]!, spec: 'round-8' })).toBeNull()
  })
  it('changes every figure of the size at once, and narrows the range', () => {
    const p = piece()
    const q = { ...p, gauges: [gauge(swatch(20, 33.6))] }
    const [nominal, own] = [extentOf(p, p.parts[0]!), extentOf(q, q.parts[0]!)]
    expect(own.lengthMm.nominal).toBeCloseTo(nominal.lengthMm.nominal * 1.05, 9)
    expect(own.lengthMm.most / own.lengthMm.nominal).toBeCloseTo(1.025, 9)
    expect(own.basis).toEqual({ kind: 'gauge', spread: 0.025, swatches: 1 })
    expect(own.widthMm.nominal).toBe(nominal.widthMm.nominal)
    expect(fitOf(q).finishedMm.nominal - fitOf(p).finishedMm.nominal).toBeCloseTo(nominal.lengthMm.nominal * 0.05, 9)
    expect(rowsWanted(q) + 0.5).toBeCloseTo((rowsWanted(p) + 0.5) / 1.05, 9)
    expect(extentOf(p, p.parts[0]!)).toEqual(nominal)
  })
  it('taken from a swatch as long as the model says changes nothing but the range, in any stitch', () => {
    fc.assert(
      fc.property(anyPieceOf(ANY_IDS), fc.integer({ min: 5, max: 60 }), (p, n) => {
        const one = p.parts[0]!
        const base = { technique: one.technique as Gauge['technique'], spec: one.spec, thread: p.supply.thread }
        const perRow = 1 / swatchFactors(base, swatch(1, 1), { settings: one.settings, columns: columnsOf(one) }).along
        const q = { ...p, gauges: [{ ...base, swatches: [swatch(n, n * perRow)] }] }
        expect(extentOf(q, one).lengthMm.nominal).toBeCloseTo(extentOf(p, one).lengthMm.nominal, 6)
      }),
    )
  })
  it('of a finished piece compares its whole length with the model’s own of that count', () => {
    // 20 bead rows of peyote that measure just what the model says, 20.5 × 1.6 mm: 110 rows stay 176.8 mm (once 181.2)
    const of = (rows: number, lengthMm: number, from: string) => ({
      ...piece(),
      gauges: [gauge({ ...swatch(rows, lengthMm), from })],
    })
    const strip = part({ start: emptyCells(4, 0), repeat: emptyCells(4, 110, 1), end: emptyCells(4, 0), times: 1 })
    expect(extentOf(of(20, 32.8, 'Sampler'), strip).lengthMm.nominal).toBeCloseTo(110.5 * 1.6, 9)
    expect(extentOf(of(20, 32.8 * 1.03, 'Sampler'), strip).lengthMm.nominal).toBeCloseTo(110.5 * 1.6 * 1.03, 9)
    // rows measured within a swatch grow by a bead each
    expect(extentOf(of(20, 32, ''), strip).lengthMm.nominal).toBeCloseTo(110.5 * 1.6, 9)
    // in any stitch a finished piece as long as the model says changes nothing
    fc.assert(
      fc.property(anyPieceOf(ANY_IDS), fc.integer({ min: 5, max: 60 }), (p, n) => {
        const one = p.parts[0]!
        const own = requireTechnique(one.technique)
        const lengthMm = own.growth.lengthOf({
          columns: columnsOf(one),
          rows: n,
          bead: requireSpec(one.spec),
          settings: one.settings,
        })
        const base = { technique: one.technique as Gauge['technique'], spec: one.spec, thread: p.supply.thread }
        const q = { ...p, gauges: [{ ...base, swatches: [{ ...swatch(n, lengthMm), from: 'Another' }] }] }
        expect(extentOf(q, one).lengthMm.nominal).toBeCloseTo(extentOf(p, one).lengthMm.nominal, 6)
      }),
    )
  })
  it('questions a swatch that is strange', () => {
    expect(questionedSwatches(gauge(swatch(20, 32), swatch(20, 32.3), swatch(20, 31.8), swatch(20, 35)))).toEqual([
      { index: 3, why: 'far from the others' },
    ])
    expect(questionedSwatches(gauge(swatch(20, 40)))).toEqual([{ index: 0, why: 'far from the beads' }])
    expect(questionedSwatches(gauge(swatch(20, 32), swatch(20, 32.3), swatch(20, 31.8)))).toEqual([])
  })
  it('is as sure as its swatches are alike: twice their deviation, as a sample of n − 1', () => {
    // 1.00, 1.02, 1.04: mean 1.02, √((0.02² + 0.02²) ÷ 2) = 0.02
    expect(handOf(gauge(swatch(20, 32), swatch(20, 32.64), swatch(20, 33.28)))!.spread).toBeCloseTo(0.04 / 1.02, 9)
  })
  it('goes by the settings of the work that it is for, and says nothing of a width that was not measured', () => {
    const loom = { ...KEY, technique: 'loom' } as const
    const wide = swatch(20, 32, { columns: 10, widthMm: 18 })
    const across = (warpMm: number) => {
      const settings = requireTechnique('loom').settings.parse({ warpMm }) as Record<string, number>
      return swatchFactors(loom, wide, { settings, columns: 6 }).across!
    }
    // a column is a bead of 1.3 mm and a warp
    expect([across(0.2), across(0.5)]).toEqual([18 / 15, 18 / 18].map((f) => expect.closeTo(f, 9) as number))
    expect(swatchFactors(KEY, swatch(20, 32, { columns: 10 })).across).toBeNull()
    expect(swatchFactors(KEY, swatch(20, 32, { widthMm: 12 })).across).toBeNull()
  })
  it('questions what is over 4 % and over three times the usual distance from the others, of three or more', () => {
    const asked = (...mm: number[]) => questionedSwatches(gauge(...mm.map((m) => swatch(20, m)))).map((q) => q.index)
    expect(asked(32, 34)).toEqual([])
    expect(asked(32, 32.1, 33.6)).toEqual([2])
    expect(asked(33.6, 32, 32.1)).toEqual([0])
    expect(asked(32.1, 33.6, 32, 32.2)).toEqual([1])
    // 3.75 % off; 5 % off where 2.5 % is usual
    expect(asked(32, 32, 32, 33.2)).toEqual([])
    expect(asked(30.4, 31.2, 32, 32.8, 33.6)).toEqual([])
    // 4 % of what these measure, not of the beads
    expect(asked(28.8, 28.8, 28.8, 30.05)).toEqual([3])
    expect(questionedSwatches(gauge(swatch(20, 32 * 1.13)))).toEqual([{ index: 0, why: 'far from the beads' }])
    expect(asked(32 * 1.11)).toEqual([])
    expect(questionedSwatches({ ...KEY, swatches: [] })).toEqual([])
  })
  it('takes swatches in and out; one without swatches goes', () => {
    const one = withSwatch([], KEY, swatch(20, 32))
    const two = withSwatch(one, KEY, swatch(10, 16))
    expect(two).toEqual([gauge(swatch(20, 32), swatch(10, 16))])
    const other = { ...gauge(swatch(5, 9)), spec: 'round-8' }
    expect(withSwatch([other, ...one], KEY, swatch(10, 16))).toEqual([other, ...two])
    expect(withoutSwatch([other, ...two], KEY, 0)).toEqual([other, gauge(swatch(10, 16))])
    expect(withoutSwatch(two, KEY, 0)).toEqual([gauge(swatch(10, 16))])
    expect(withoutSwatch(one, KEY, 0)).toEqual([])
    expect(withSwatch(one, { ...KEY, thread: 'nylon-d' }, swatch(5, 8))).toHaveLength(2)
  })
  it('is that of the recipe which was measured, against what its own motifs come to', () => {
    const own = (text: string) => {
      const p = ownRecipe(valueOf(readRecipeText(text)), { motif: [1, 1, 1, 1] }, { times: 20 })
      return { p, part: p.parts[0]! }
    }
    const text = recipeText(
      valueOf(
        readRecipeText(`recipe links "Links"
bead link round-8 "link" "links"
carrier thread thread 0.15 "thread"
motif
  pick link*4
`),
      ),
    )
    const one = own(text)
    const key = gaugeKeyOf(one.part, one.p.supply.thread)
    expect(key.plan).toMatch(/^[0-9a-f]{8}$/)
    // Ten motifs of four round 8/0 are 84 mm by their beads (from memory: 2.1 mm along the hole); the hand made 88.
    const gauges = withSwatch([], key, { rows: 10, lengthMm: 88, columns: 0, widthMm: 0, from: '' })
    expect(handFor({ ...one.p, gauges }, one.part)!.along).toBeCloseTo(88 / 84, 2)
    expect(gaugeSchema.safeParse(gauges[0]).success).toBe(true)
    // What is said after a step changes nothing; another count, or another size, is another recipe.
    const said = own(text.replace('pick link*4', 'pick link*4 -- "draw it tight"'))
    expect(gaugeFor({ ...said.p, gauges }, said.part)).toBeDefined()
    for (const other of [
      text.replace('link*4', 'link*3 link'),
      text.replace('bead link round-8', 'bead link round-11'),
    ])
      expect(gaugeFor({ ...one.p, gauges }, own(other).part)).toBeUndefined()
    expect(gaugeKeyOf(piece().parts[0]!, 'nylon-d').plan).toBeUndefined()
  })
})
