import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hungPart, joint } from '../../tests/fixture/joint'
import { piece } from '../../tests/fixture/piece'
import { partsWith } from '../piece/joint'
import type { Part, Piece } from '../piece/piece'
import { SIDES, type Joint } from '../piece/schema'
import { extentOf } from './extent'
import { reasonLine, reasonsOf } from './reasoning'
import { fitOf, rowsWanted } from './reckon'
import { ownLengthFor, wholeExtent } from './whole'

const made = (id: string, on: Joint | null, columns: number, rows: number): Part =>
  hungPart(id, 'loom', on, { columns, rows })
const of = (...parts: Part[]): Piece => piece({ parts })

describe('the whole of joined parts', () => {
  const band = made('band', null, 10, 20)
  it('is one part where it stands alone', () => {
    const p = of(band, made('other', null, 6, 5))
    expect(wholeExtent(p, band)).toEqual(extentOf(p, band))
    expect(partsWith(p.parts, band).map((q) => q.id)).toEqual(['band'])
  })
  it('adds lengths along joints, links between them, and says so', () => {
    const drop = made('drop', joint({ link: { kind: 'ring', mm: 5 } }), 6, 12)
    const p = of(band, drop)
    const [b, d, w] = [extentOf(p, band), extentOf(p, drop), wholeExtent(p, band)]
    for (const bound of ['least', 'nominal', 'most'] as const)
      expect(w.lengthMm[bound]).toBeCloseTo(b.lengthMm[bound] + 5 + d.lengthMm[bound], 9)
    expect(w.widthMm.nominal).toBeCloseTo(b.widthMm.nominal, 9)
    expect(w.lengthFormula).toMatch(/ \+ [\d.]+ mm with drop$/)
    expect(w.widthFormula).toBe(b.widthFormula)
    // Told from the other end it is as long.
    expect(wholeExtent(p, drop).lengthMm.nominal).toBeCloseTo(w.lengthMm.nominal, 9)
  })
  it('grows wider by what lies along its edge, and not longer', () => {
    const edging = made('edging', joint({ at: 'right', by: 'left' }), 2, 20)
    const p = of(band, edging)
    const w = wholeExtent(p, band)
    expect(w.widthMm.nominal).toBeCloseTo(extentOf(p, band).widthMm.nominal + extentOf(p, edging).widthMm.nominal, 9)
    expect(w.lengthMm.nominal).toBeCloseTo(extentOf(p, band).lengthMm.nominal, 9)
  })
  it('lies along the part that is asked, also where it is turned by a quarter', () => {
    const tab = made('tab', joint({ at: 'right' }), 4, 9)
    const p = of(band, tab)
    const [b, t] = [extentOf(p, band), extentOf(p, tab)]
    expect(wholeExtent(p, tab).lengthMm.nominal).toBeCloseTo(t.lengthMm.nominal + b.widthMm.nominal, 9)
    expect(wholeExtent(p, tab).widthMm.nominal).toBeCloseTo(b.lengthMm.nominal, 9)
  })
  it('is what the fit is reckoned with, step by step', () => {
    const drop = made('drop', joint({ link: { kind: 'ring', mm: 5 } }), 6, 12)
    const alone = of(band)
    const p = of(band, drop)
    expect(fitOf(p).beadworkMm).toEqual(wholeExtent(p, band).lengthMm)
    const added = wholeExtent(p, band).lengthMm.nominal - extentOf(p, band).lengthMm.nominal
    expect(fitOf(p).finishedMm.nominal - fitOf(alone).finishedMm.nominal).toBeCloseTo(added, 6)
    expect(reasonsOf(p).map(reasonLine).join('\n')).toContain('with drop')
    // So much less is wanted of the band itself.
    const perRow = (extentOf(p, made('band', null, 10, 21)).lengthMm.nominal - extentOf(p, band).lengthMm.nominal) / 1
    expect(rowsWanted(alone) - rowsWanted(p)).toBeCloseTo(added / perRow, 3)
  })
  it('whatever hangs where: a part of the length that is asked for makes the whole so long', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            on: fc.nat({ max: 3 }),
            at: fc.constantFrom(...SIDES),
            by: fc.constantFrom(...SIDES),
            mm: fc.nat({ max: 9 }),
            rows: fc.integer({ min: 1, max: 12 }),
            columns: fc.integer({ min: 1, max: 12 }),
          }),
          { minLength: 1, maxLength: 4 },
        ),
        fc.integer({ min: 150, max: 400 }),
        (hung, wanted) => {
          const parts = [made('band', null, 6, 60)]
          hung.forEach(({ on, at, by, mm, rows, columns }, k) => {
            const link = mm === 0 ? null : ({ kind: 'chain', mm } as const)
            parts.push(made(`p${k}`, joint({ part: parts[on % parts.length]!.id, at, by, link }), columns, rows))
          })
          const p = of(...parts)
          const own = ownLengthFor(p, parts[0]!, wanted)
          const whole = wholeExtent(p, parts[0]!).lengthMm.nominal
          const now = extentOf(p, parts[0]!).lengthMm.nominal
          // From what it is to what it should be, the whole grows as the part does or less.
          expect(Math.abs(wanted - whole)).toBeLessThanOrEqual(Math.abs(own - now) + 1e-6)
          if (hung.every((h) => h.at === 'end' && h.by === 'start')) expect(own - now).toBeCloseTo(wanted - whole, 6)
        },
      ),
    )
  })
})
