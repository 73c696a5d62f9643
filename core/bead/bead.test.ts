import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bundleDiameter, checkHole } from './hole'
import { valueOf } from '../problem'
import { readPalette, writePalette } from '../format/palette'
import { FINISHES } from './bead'
import {
  BEAD_SHAPES,
  BEAD_SPECS,
  findSpec,
  gramsOf,
  ownSpecId,
  ownSpecProblems,
  perGramFromGeometry,
  requireSpec,
} from './spec'
import { nearestInColour, runsInsteadOf } from './substitute'

describe('the catalogue', () => {
  it.each(BEAD_SPECS.map((s) => [s.name, s] as const))(
    '%s weighs what its glass weighs, to 20 %% (glass about 2.5 g/cm³, handbook figure)',
    (_, bead) => {
      const ratio = bead.perGram / perGramFromGeometry(bead)
      expect(ratio).toBeGreaterThan(0.8)
      expect(ratio).toBeLessThan(1.2)
    },
  )
  it('has one id for each spec, and every hole is smaller than its bead', () => {
    expect(new Set(BEAD_SPECS.map((s) => s.id)).size).toBe(BEAD_SPECS.length)
    for (const s of BEAD_SPECS) {
      expect(s.h).toBeLessThan(s.d)
      // Both holes lie inside.
      if (s.spacing !== undefined) expect(s.spacing + s.h).toBeLessThan(s.d)
    }
  })
  it('finds or requires', () => {
    expect(findSpec('cylinder-11')?.l).toBe(1.3)
    expect(findSpec('pebble')).toBeUndefined()
    expect(() => requireSpec('pebble')).toThrow(/pebble/)
  })
  it('28 g of round 8/0 are about 96 inches strung (common practice)', () => {
    const bead = requireSpec('round-8')
    const inches = (28 * bead.perGram * bead.l) / 25.4
    expect(inches).toBeGreaterThan(96 * 0.9)
    expect(inches).toBeLessThan(96 * 1.1)
    expect(gramsOf(39, bead)).toBe(1)
  })
})

describe('own sizes', () => {
  const mm = (least: number, most: number) => fc.integer({ min: least * 1000, max: most * 1000 }).map((n) => n / 1000)
  it('are written out in their id and read back the same', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...BEAD_SHAPES),
        mm(0.6, 39),
        mm(0.6, 59),
        mm(0.01, 900),
        fc.string({ minLength: 1, maxLength: 12, unit: 'grapheme' }),
        (shape, d, l, perGram, name) => {
          const own = { shape, d, l, h: Math.round(d * 500) / 1000, perGram, name }
          if (ownSpecProblems(own).length > 0) return
          expect(requireSpec(ownSpecId(own))).toMatchObject(own)
        },
      ),
    )
  })
  it('with figures that no bead has are refused, each with what to do', () => {
    expect(ownSpecProblems({ name: ' ', d: 50, l: 0, h: 60, perGram: 0 }).map((p) => p.field)).toEqual([
      'name',
      'd',
      'l',
      'h',
      'perGram',
    ])
    for (const id of [
      'own/round/2/1.5/3/100/x',
      'own/pebble/2/1.5/0.8/100/x',
      'own/round/2/1.5/0.8/100/%',
      'own/round/2/1.5/0.8/100/',
      'own/round/2/1e9/0.8/100/x',
    ])
      expect(findSpec(id)).toBeUndefined()
    expect(findSpec('own/round/2/1.5/0.8/100/My%20rounds')?.name).toBe('My rounds')
  })
})

describe('what stands in', () => {
  it('a 7 mm bugle is five 11/0 (common practice)', () => {
    expect(runsInsteadOf('bugle-7-mm')).toContainEqual(
      expect.objectContaining({
        spec: requireSpec('round-11'),
        count: 5,
        forCount: 1,
        lengthErrorMm: expect.closeTo(0, 9) as number,
      }),
    )
  })
  it('keeps the length to 6 %, and says by how much it errs', () => {
    for (const wanted of BEAD_SPECS) {
      for (const run of runsInsteadOf(wanted.id)) {
        expect(run.count * run.spec.l - run.forCount * wanted.l).toBeCloseTo(run.lengthErrorMm, 9)
        expect(Math.abs(run.lengthErrorMm)).toBeLessThanOrEqual(0.06 * run.forCount * wanted.l)
        expect(run.spec.spacing).toBeUndefined()
      }
    }
  })
  it('is of the same size, nearest in colour, a like finish before an unlike', () => {
    const bead = (name: string, colour: string, finish: 'matte' | 'opaque', spec = 'round-11') => ({
      name,
      colour,
      finish,
      spec,
    })
    const near = nearestInColour(bead('lacking', '#b03030', 'matte'), [
      bead('far', '#3030b0', 'matte'),
      bead('other size', '#b03030', 'matte', 'round-8'),
      bead('near, opaque', '#b03232', 'opaque'),
      bead('near, matte', '#b43434', 'matte'),
    ])
    expect(near.map((n) => n.bead.name)).toEqual(['near, matte', 'near, opaque', 'far'])
  })
})

describe('palettes', () => {
  const anyBead = fc.record({
    name: fc.string({ minLength: 1, maxLength: 20 }).map((n) => n.replaceAll(/[\s[\]]/g, '-')),
    spec: fc.constantFrom(...BEAD_SPECS.map((s) => s.id)),
    finish: fc.constantFrom(...FINISHES),
    colour: fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`),
  })
  it('come back as they went', () => {
    fc.assert(
      fc.property(fc.array(anyBead, { minLength: 1, maxLength: 20 }), (beads) => {
        expect(valueOf(readPalette(writePalette('Mine', beads), 'cube-3-mm'))).toEqual({ name: 'Mine', beads })
      }),
    )
  })
  it('of other programs are read, and bad lines are named', () => {
    expect(
      valueOf(
        readPalette('GIMP Palette\r\nName: Garden\r\n# a note\r\n255   0  10\tPoppy\r\n  0   0   0\r\n', 'round-8'),
      ).beads,
    ).toEqual([
      { name: 'Poppy', spec: 'round-8', colour: '#ff000a', finish: 'opaque' },
      { name: 'Colour 2', spec: 'round-8', colour: '#000000', finish: 'opaque' },
    ])
    for (const [text, code] of [
      ['nothing', 'palette-format'],
      ['GIMP Palette\n1 2', 'palette-line'],
      ['GIMP Palette\n1 2 300 x', 'palette-line'],
      ['GIMP Palette\n#', 'palette-empty'],
      [`GIMP Palette\n${'1 2 3\n'.repeat(201)}`, 'palette-long'],
    ] as const) {
      const read = readPalette(text, 'round-8')
      expect(read.ok ? '' : read.problems[0]!.code).toBe(code)
    }
  })
})

describe('threads in a hole', () => {
  // Graham et al. 1998, Dense packings of congruent circles in a circle
  it.each([
    [1, 1],
    [2, 2],
    [3, 2.1547],
    [4, 2.4142],
    [5, 2.7013],
    [6, 3],
    [7, 3],
    [8, 3.3048],
    [9, 3.6131],
    [10, 3.813],
    [11, 3.9238],
    [12, 4.0296],
  ])('%i equal circles lie in a circle %f times as wide', (n, ratio) =>
    expect(bundleDiameter(n, 1)).toBeCloseTo(ratio, 3),
  )

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
    const mm = fc.integer({ min: 5, max: 150 }).map((n) => n / 100)
    fc.assert(
      fc.property(mm, fc.integer({ min: 1, max: 12 }), mm, mm, mm, (hole, passes, thread, eye, less) => {
        const now = rank[checkHole(hole, passes, stiff(thread), eye).verdict]
        expect(rank[checkHole(hole + less, passes, stiff(thread), eye).verdict]).toBeGreaterThanOrEqual(now)
        expect(rank[checkHole(hole, passes, stiff(thread * 0.8), eye).verdict]).toBeGreaterThanOrEqual(now)
        expect(rank[checkHole(hole, passes, stiff(thread), eye * 0.8).verdict]).toBeGreaterThanOrEqual(now)
        expect(
          rank[checkHole(hole, passes, { diameterMm: thread, flattens: true }, eye).verdict],
        ).toBeGreaterThanOrEqual(now)
      }),
    )
  })
})
