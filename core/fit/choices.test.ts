import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, part, piece } from '../../tests/fixture/piece'
import { emptyCells } from '../grid/cells'
import { columnsOf, type Part, type Piece } from '../piece/piece'
import { fitSchema, type Fit } from '../piece/schema'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { fitChoices, PRICE, type Choice } from './choices'
import { usualClosure, type Closure } from './closure'
import { fitOf } from './reckon'

/** A whole grid of a stitch: plain ends of so many rows, and a repeat worked so many times. */
const grid = (
  technique: string,
  {
    columns,
    start,
    repeat,
    end,
    times,
    spec,
  }: { columns: number; start: number; repeat: number; end: number; times: number; spec: string },
): Part => {
  const settings = requireTechnique(technique).settings.parse({})
  const across = requireTechnique(technique).nearestColumns(columns, settings)
  return part({
    technique,
    spec,
    settings,
    start: emptyCells(across, start, 1),
    repeat: emptyCells(across, repeat, 1),
    end: emptyCells(across, end, 1),
    times,
  })
}

const anyClosure: fc.Arbitrary<Closure> = fc
  .record({
    kind: fc.constantFrom('toggle' as const, 'button' as const, 'hook' as const),
    chain: fc.constantFrom(0, 0, 0, 40),
    openings: fc.constantFrom(1, 1, 1, 2, 3),
    step: fc.constantFrom(6, 8),
  })
  .map(({ kind, chain, openings, step }) => ({
    ...usualClosure(kind),
    extenderMm: chain,
    openings,
    openingStepMm: step,
  }))

const fitted = (bodyMm: number, closure: Closure, over: Partial<Fit> = {}): Fit =>
  fitSchema.parse({ kind: 'bracelet', bodyMm, easeMm: 13, closure, widthMm: 10, ...over })

const anyBand: fc.Arbitrary<Piece> = fc
  .record({
    technique: fc.constantFrom(...TECHNIQUES.filter((t) => t.material === undefined).map((t) => t.id)),
    columns: fc.integer({ min: 2, max: 9 }),
    start: fc.integer({ min: 0, max: 5 }),
    end: fc.integer({ min: 0, max: 5 }),
    repeat: fc.integer({ min: 1, max: 30 }),
    times: fc.integer({ min: 1, max: 12 }),
    spec: fc.constantFrom('cylinder-11', 'round-8', 'cube-4-mm'),
    closure: anyClosure,
  })
  .map(({ closure, technique, repeat, ...g }) => {
    // One colour throughout has a cycle of its own in every row, which is a whole choice too.
    const one = grid(technique, { ...g, repeat })
    return piece({
      tray: [bead(1, { spec: g.spec }), bead(2, { spec: g.spec })],
      fit: fitted(170, closure),
      parts: [one],
    })
  })

const atBody = (p: Piece, bodyMm: number): Piece => ({ ...p, fit: { ...p.fit, bodyMm } })

describe('choices, in order', () => {
  it('with the same closure and bead a longer body never takes fewer beads', () => {
    fc.assert(
      fc.property(anyBand, fc.integer({ min: 140, max: 215 }), (p, from) => {
        let before: Choice | null = null
        for (let bodyMm = from; bodyMm < from + 14; bodyMm += 0.5) {
          const first = fitChoices(atBody(p, bodyMm)).find(
            (c) => c.spec === p.parts[0]!.spec && c.way !== 'chain' && c.way !== 'closure',
          )!
          if (before)
            expect(
              first.beads,
              `${bodyMm} mm: ${before.id} ${before.way} then ${first.id} ${first.way}`,
            ).toBeGreaterThanOrEqual(before.beads)
          before = first
        }
      }),
      { numRuns: 80 },
    )
  })
  it('the nearest row that can be reached is always among them', () => {
    fc.assert(
      fc.property(
        anyBand.filter((p) => p.fit.closure.openings === 1 && p.fit.closure.extenderMm === 0),
        fc.integer({ min: 80, max: 260 }),
        (p, bodyMm) => {
          const q = atBody(p, bodyMm)
          const one = q.parts[0]!
          const own = fitChoices(q).filter(
            (c) => c.spec === one.spec && c.closure.kind === q.fit.closure.kind && c.closure.extenderMm === 0,
          )
          const best = Math.min(...own.map((c) => Math.abs(c.fit.differenceMm)))
          // Any count of rows, from one repeat without ends upward, as one section.
          const rows = (count: number) =>
            Math.abs(
              fitOf({
                ...q,
                parts: [
                  {
                    ...one,
                    start: emptyCells(columnsOf(one), 0),
                    repeat: emptyCells(columnsOf(one), count, 1),
                    end: emptyCells(columnsOf(one), 0),
                    times: 1,
                  },
                ],
              }).differenceMm,
            )
          let least = Infinity
          for (let count = one.repeat.rows; count < one.repeat.rows + 400; count++)
            least = Math.min(least, rows(count))
          expect(best).toBeLessThanOrEqual(least + 1e-6)
        },
      ),
      { numRuns: 80 },
    )
  })
  it('the nearest whole repeat is always among them, of several openings too', () => {
    fc.assert(
      fc.property(anyBand, fc.integer({ min: 140, max: 230 }), (p, bodyMm) => {
        const q = atBody(p, bodyMm)
        const one = q.parts[0]!
        const whole = fitChoices(q).filter((c) => c.way === 'whole')
        const off = (times: number) => Math.abs(fitOf({ ...q, parts: [{ ...one, times }] }).differenceMm)
        const least = Math.min(...Array.from({ length: 400 }, (_, k) => off(k + 1)))
        // Where repeats are so short that many of them lie within reach, one within half a repeat is near enough.
        const per = off(1) - off(2)
        expect(Math.min(...whole.map((c) => Math.abs(c.fit.differenceMm)))).toBeLessThanOrEqual(
          Math.max(least, q.fit.closure.openings > 1 ? per / 2 : 0) + 1e-6,
        )
      }),
      { numRuns: 80 },
    )
  })
  it('a chain does not come before a plain change that is within a millimetre (once it did)', () => {
    const p = piece({
      fit: fitted(172, usualClosure('toggle')),
      parts: [grid('loom', { columns: 6, start: 2, repeat: 30, end: 2, times: 3, spec: 'cylinder-11' })],
    })
    const choices = fitChoices(p)
    const [chain, ends] = [choices.findIndex((c) => c.way === 'chain'), choices.findIndex((c) => c.way === 'ends')]
    expect(chain).toBeGreaterThan(-1)
    expect(Math.abs(choices[ends]!.fit.differenceMm)).toBeLessThan(1)
    expect(ends).toBeLessThan(chain)
    expect(choices[0]!.way).not.toBe('chain')
  })
  it('ends are made shorter where start, one repeat and end are already too long (once they were not)', () => {
    const p = piece({
      fit: fitted(40, usualClosure('toggle'), { easeMm: 0 }),
      parts: [grid('loom', { columns: 6, start: 8, repeat: 20, end: 6, times: 1, spec: 'cylinder-11' })],
    })
    // 40 + π 1.6 − 14 = 31.03 mm: 19 rows; one repeat alone has 20.
    const ends = fitChoices(p).find((c) => c.way === 'ends')!
    expect([ends.times, ends.startRows, ends.endRows]).toEqual([1, -8, -6])
    // 46 mm: 37.03 ÷ 1.6 = 23.1, three rows are left, and each end keeps one as long as the other can give
    const near = fitChoices(atBody(p, 46)).find((c) => c.way === 'ends')!
    expect([near.startRows + near.endRows, near.startRows > -8 && near.endRows > -6]).toEqual([-11, true])
  })
  it('follow a fixed price for each way, never a class', () => {
    // whole repeats are free; plain ends cost less at their most (12 mm longer each) than rows laid besides
    expect(PRICE.whole).toBe(0)
    expect(PRICE.plain + 0.02 * 24).toBeLessThan(PRICE.cycle)
    expect(PRICE.cycle).toBeLessThan(PRICE.ends)
    expect(PRICE.ends).toBeLessThan(PRICE.part)
    for (const way of ['closure', 'bead', 'chain'] as const) expect(PRICE[way]).toBeGreaterThan(PRICE.part)
    fc.assert(
      fc.property(
        anyBand.filter((p) => p.fit.closure.openings === 1 && p.fit.closure.extenderMm === 0),
        fc.integer({ min: 150, max: 200 }),
        (p, bodyMm) => {
          const choices = fitChoices(atBody(p, bodyMm)).filter((c) => c.way !== 'plain' && c.way !== 'chain')
          const rank = (c: Choice) => Math.abs(c.fit.differenceMm) * 1.05 + PRICE[c.way]
          for (let i = 1; i < choices.length; i++)
            expect(rank(choices[i]!)).toBeGreaterThanOrEqual(rank(choices[i - 1]!) - 1e-6)
        },
      ),
      { numRuns: 60 },
    )
  })
})
