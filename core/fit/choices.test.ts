import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../tests/fixture/piece'
import { neighbourSpecs, requireSpec } from '../bead/spec'
import { emptyCells } from '../grid/cells'
import { numberIn } from '../grid/lines'
import { columnsOf, type Part, type Piece } from '../piece/piece'
import { costSchema, fitSchema, LIMITS, type Fit } from '../piece/schema'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { tallyPart, totalOf } from '../tally/tally'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { choiceSteps, fitChoices, PRICE, widthChoices, widthChoiceSteps, type Choice } from './choices'
import { closureOf, usualClosure, type Closure } from '../wear/closure'
import { fitsWell } from './feel'
import { fitKindOf } from '../wear/kind'
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
  const across = requireTechnique(technique).growth.nearestColumns(columns, settings)
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
    technique: fc.constantFrom(
      ...TECHNIQUES.filter((t) => t.material.counted && t.store === 'cells').map((t) => t.id),
    ),
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

describe('what is offered, and nothing else', () => {
  const loom = (over: Partial<Parameters<typeof grid>[1]> = {}) =>
    grid('loom', { columns: 6, start: 4, repeat: 30, end: 4, times: 3, spec: 'cylinder-11', ...over })
  const band = (bodyMm: number, over: Partial<Fit> = {}, one = loom()): Piece =>
    piece({ fit: fitted(bodyMm, usualClosure('toggle'), over), parts: [one] })
  const ways = (p: Piece, way: Choice['way']) => fitChoices(p).filter((c) => c.way === way)
  const off = (p: Piece, times: number, closure = p.fit.closure) =>
    Math.abs(fitOf(p, { part: { ...p.parts[0]!, times }, fit: { ...p.fit, closure } }).differenceMm)
  /** Counts of whole repeats just under and over what is wanted. */
  const around = (p: Piece) => {
    const differs = (times: number) => fitOf(p, { part: { ...p.parts[0]!, times } }).differenceMm
    let n = 1
    while (differs(n + 1) <= 1e-9) n++
    return [n, n + 1]
  }

  it('rows more or fewer are shared by both ends, one more at the start, and end nearest to what is wanted', () => {
    let less = 0
    for (let bodyMm = 120; bodyMm < 200; bodyMm += 1.5) {
      for (const c of ways(band(bodyMm), 'ends')) {
        const sum = c.startRows + c.endRows
        if (sum > 0) expect([c.startRows, c.endRows]).toEqual([Math.ceil(sum / 2), Math.floor(sum / 2)])
        else {
          less++
          expect([c.startRows, c.endRows]).toEqual([0 - Math.ceil(-sum / 2), 0 - Math.floor(-sum / 2)])
        }
        // a row of the loom is a bead high, and half of one is the furthest that it is off
        if (sum > -8) expect(Math.abs(c.fit.differenceMm)).toBeLessThanOrEqual(0.8 + 1e-9)
        expect([c.whole, c.cycleWhole, c.current, c.cycleRows]).toEqual([false, true, false, 0])
      }
    }
    expect(less).toBeGreaterThan(5)
    // Where one repeat is too long already, the ends give evenly, each down to its last row while the other can.
    const short = (bodyMm: number, start: number, end: number) => {
      const [c] = ways(band(bodyMm, { easeMm: 0 }, loom({ start, end, times: 1 })), 'ends')
      return c && [c.startRows, c.endRows]
    }
    // 30 rows are 48 mm; (body + π 1.6 − 14) ÷ 1.6: 58 → 30.7, 59.6 → 31.7, 61.2 → 32.7 rows
    expect(short(58, 5, 5)).toEqual([-5, -4])
    expect(short(59.6, 5, 5)).toEqual([-4, -4])
    expect(short(59.6, 2, 9)).toEqual([-1, -8])
    expect(short(61.2, 2, 9)).toEqual([-1, -7])
    expect(short(61.2, 9, 2)).toEqual([-7, -1])
    expect(short(64.4, 6, 6)).toEqual([-4, -3])
    expect(short(40, 5, 4)).toEqual([-5, -4])
  })
  it('plain rows are laid in the bead at the outer corner of their end, or in the first of the tray', () => {
    const corner = (start: number, end: number) => {
      const one = { ...loom(), start: emptyCells(6, 2, start), end: emptyCells(6, 2, end) }
      const p = band(180, {}, one)
      const choice = ways(p, 'ends').find((c) => c.endRows > 0)!
      const next = valueOf(applySteps(p, choiceSteps(p, choice))).parts[0]!
      expect([next.start.rows, next.end.rows]).toEqual([2 + choice.startRows, 2 + choice.endRows])
      return [numberIn(next.start, 5, 0), numberIn(next.end, 5, next.end.rows - 1)]
    }
    expect(corner(2, 3)).toEqual([2, 3])
    expect(corner(0, 2)).toEqual([1, 2])
    const bare = band(180, {}, { ...loom(), start: emptyCells(6, 0), end: emptyCells(6, 0) })
    const choice = ways(bare, 'ends').find((c) => c.startRows > 0)!
    expect(numberIn(valueOf(applySteps(bare, choiceSteps(bare, choice))).parts[0]!.start, 0, 0)).toBe(1)
    // The corner is that of its own end: first row of the start, last row of the end.
    const graded = { ...loom(), start: rows('BBBBBB', 'AAAAAA'), end: rows('AAAAAA', 'CCCCCC') }
    const q = band(180, {}, graded)
    const taken = ways(q, 'ends').find((c) => c.endRows > 0)!
    const done = valueOf(applySteps(q, choiceSteps(q, taken))).parts[0]!
    expect([numberIn(done.start, 0, 0), numberIn(done.end, 0, done.end.rows - 1)]).toEqual([2, 3])
  })
  it('another closure is the one that brings that count nearest, within 12 mm and nearer than now', () => {
    let seen = 0
    for (let bodyMm = 130; bodyMm < 210; bodyMm += 2) {
      for (const kind of ['toggle', 'magnet', 'none', 'elastic', 'own'] as const) {
        const p = { ...band(bodyMm), fit: fitted(bodyMm, { ...usualClosure(kind), name: 'Mine' }) }
        const offered = ways(p, 'closure')
        if (kind === 'none' || kind === 'elastic' || kind === 'own') {
          expect(offered).toEqual([])
          continue
        }
        const expected = around(p).flatMap((times) => {
          const best = (['toggle', 'hook', 'bar', 'button', 'slide'] as const)
            .filter((k) => k !== kind)
            .map((k) => ({ times, kind: k, mm: off(p, times, usualClosure(k)) }))
            .sort((a, b) => a.mm - b.mm)[0]!
          return best.mm <= 12 && best.mm < off(p, times) ? [best] : []
        })
        expect(offered.map((c) => [c.times, c.closure.kind]).sort()).toEqual(
          expected.map((e) => [e.times, e.kind]).sort(),
        )
        for (const c of offered) {
          expect([c.closure.name, c.closure.lengthMm]).toEqual(['', closureOf(c.closure.kind).lengthMm])
          seen++
        }
      }
    }
    expect(seen).toBeGreaterThan(20)
  })
  it('a chain of 50 mm is offered where whole repeats end over 2 mm short, it opens, and has none', () => {
    let seen = 0
    for (let bodyMm = 130; bodyMm < 210; bodyMm += 2) {
      const p = band(bodyMm)
      const [n] = around(p)
      const short = fitOf(p, { part: { ...p.parts[0]!, times: n! } }).differenceMm
      const chains = ways(p, 'chain')
      expect(chains.map((c) => [c.times, c.closure.extenderMm, c.closure.kind])).toEqual(
        short < -2 ? [[n, 50, 'toggle']] : [],
      )
      seen += chains.length
      const with1 = (closure: Closure, over: Partial<Fit> = {}) => ways(band(bodyMm, { closure, ...over }), 'chain')
      expect(with1({ ...usualClosure('toggle'), extenderMm: 25 })).toEqual([])
      expect(with1(usualClosure('elastic'))).toEqual([])
      expect(with1(usualClosure('ear-wire'), { kind: 'earrings', easeMm: 0 })).toEqual([])
    }
    expect(seen).toBeGreaterThan(10)
  })
  it('of the sizes next to this one those that fit well and come over a millimetre nearer, two at most', () => {
    let seen = 0
    for (let bodyMm = 130; bodyMm < 230; bodyMm += 3) {
      const p = band(bodyMm)
      const least = Math.min(...ways(p, 'whole').map((c) => Math.abs(c.fit.differenceMm)))
      const near = neighbourSpecs('cylinder-11').flatMap((spec) => {
        const q = { ...p, tray: p.tray.map((b) => ({ ...b, spec })), parts: [{ ...p.parts[0]!, spec }] }
        const tried = [...Array(12).keys()].map((k) => ({
          spec,
          times: k + 1,
          fit: fitOf(q, { part: { ...q.parts[0]!, times: k + 1 } }),
        }))
        const best = tried.sort((a, b) => Math.abs(a.fit.differenceMm) - Math.abs(b.fit.differenceMm))[0]!
        return fitsWell(best.fit.feel) && Math.abs(best.fit.differenceMm) < least - 1 ? [best] : []
      })
      near.sort((a, b) => Math.abs(a.fit.differenceMm) - Math.abs(b.fit.differenceMm))
      const offered = ways(p, 'bead')
      expect(offered.map((c) => [c.spec, c.times]).sort()).toEqual(
        near
          .slice(0, 2)
          .map((b) => [b.spec, b.times])
          .sort(),
      )
      seen += offered.length
    }
    expect(seen).toBeGreaterThan(5)
  })
  it('of several openings all counts that one of them reaches, or nearly so, are whole choices', () => {
    let more = 0
    for (let bodyMm = 60; bodyMm < 190; bodyMm += 7) {
      const button = { ...usualClosure('button'), openings: 3, openingStepMm: 8 }
      const one = loom({ start: 0, end: 0, repeat: 3, times: 4 })
      const p = { ...band(bodyMm, {}, one), fit: fitted(bodyMm, button) }
      const reaches = (times: number) => {
        const { finishedMm, wantedMm } = fitOf(p, { part: { ...one, times } })
        return finishedMm.nominal <= wantedMm && wantedMm <= finishedMm.nominal + 16
      }
      // a third of the 16 mm it can be let out is left to spare
      const aim = (times: number) => fitOf(p, { part: { ...one, times } })
      let n = 1
      while (aim(n + 1).beadworkMm.nominal <= aim(n + 1).targetMm + 1e-9) n++
      const near = Array.from({ length: 13 }, (_, k) => n - 8 + k).filter(
        (times) => times >= 1 && [times - 1, times, times + 1].some(reaches),
      )
      const expected = [...new Set([4, n, n + 1, ...near])].sort((a, b) => a - b)
      const offered = ways(p, 'whole').map((c) => c.times)
      expect(offered.sort((a, b) => a - b)).toEqual(expected)
      more += near.length
    }
    expect(more).toBeGreaterThan(40)
  })
  it('cords keep their colours from end to end, so nothing is laid at their ends', () => {
    const cord = grid('braid-cord', { columns: 8, start: 0, repeat: 30, end: 0, times: 1, spec: 'cord-2' })
    for (let bodyMm = 130; bodyMm < 200; bodyMm += 5) {
      const p = piece({
        tray: [bead(1, { spec: 'cord-2' })],
        fit: fitted(bodyMm, usualClosure('toggle')),
        parts: [cord],
      })
      expect(fitChoices(p).filter((c) => ['ends', 'cycle', 'part'].includes(c.way))).toEqual([])
    }
  })
  it('say how many beads and hours, for both of a pair, and which of them stands', () => {
    const p = {
      ...band(170, { kind: 'earrings', easeMm: 0, closure: usualClosure('ear-wire') }),
      cost: costSchema.parse({ beadsPerHourLeast: 60, beadsPerHourMost: 240 }),
    }
    for (const many of [p, { ...p, fit: band(170).fit }]) {
      const pieces = fitKindOf(many.fit.kind).pieces
      const choices = fitChoices(many)
      for (const c of choices) {
        const next = valueOf(applySteps(many, choiceSteps(many, c)))
        expect(c.beads).toBe(totalOf(tallyPart(next.parts[0]!)))
        expect(c.beadsMore).toBe(c.beads - totalOf(tallyPart(many.parts[0]!)))
        expect(c.hours).toEqual({ least: (c.beads * pieces) / 240, most: (c.beads * pieces) / 60 })
        expect(c.current).toBe(next === many)
        expect(c.whole).toBe(c.startRows === 0 && c.endRows === 0 && c.cycleRows === 0)
      }
      expect(choices.filter((c) => c.current)).toHaveLength(1)
    }
  })
  it('a repeat is broken off where it fits, unless that ends a cycle of its colours', () => {
    const striped = (lines: string[]) => ({ ...loom(), repeat: rows(...lines) })
    const plainOnes = striped(Array<string>(30).fill('AAAAAA'))
    // one row is a cycle of its own: any count of them is
    expect(ways(band(160, {}, plainOnes), 'part')).toEqual([])
    const figure = striped(Array.from({ length: 30 }, (_, k) => (k % 10 === 9 ? 'BBBBBB' : 'AAAAAA')))
    const once = striped(Array.from({ length: 30 }, (_, k) => (k === 29 ? 'BBBBBB' : 'AAAAAA')))
    for (let bodyMm = 130; bodyMm < 200; bodyMm++) {
      for (const one of [figure, once]) {
        const p = band(bodyMm, {}, one)
        const [n] = around(p)
        const perMm = 1.6
        const rowsLeft = Math.round(-fitOf(p, { part: { ...one, times: n! } }).differenceMm / perMm)
        const cycle = one === figure ? 10 : 30
        expect(ways(p, 'part').map((c) => [c.times, c.cycleRows])).toEqual(
          rowsLeft > 0 && rowsLeft < 30 && rowsLeft % cycle !== 0 ? [[n, rowsLeft]] : [],
        )
        const cycles = Math.round(-fitOf(p, { part: { ...one, times: n! } }).differenceMm / (perMm * cycle))
        expect(ways(p, 'cycle').map((c) => [c.times, c.cycleRows])).toEqual(
          one === figure && cycles > 0 && cycles < 3 ? [[n, cycles * 10]] : [],
        )
      }
    }
  })
  it('nothing is offered of a part without a repeat, nor more copies than a part may have', () => {
    expect(fitChoices(band(170, {}, { ...loom(), repeat: emptyCells(6, 0) }))).toEqual([])
    const tiny = { ...loom(), start: emptyCells(6, 0), repeat: emptyCells(6, 1, 1), end: emptyCells(6, 0) }
    const p = band(2000, { kind: 'necklace', easeMm: 0, wraps: 1 }, { ...tiny, spec: 'cylinder-15' })
    for (const c of fitChoices(p)) expect(c.times).toBeLessThanOrEqual(LIMITS.times)
  })
})

describe('widths that are offered', () => {
  const one = grid('loom', { columns: 6, start: 2, repeat: 10, end: 2, times: 3, spec: 'cylinder-11' })
  const wide = (widthMm: number, of = one) =>
    piece({ fit: fitted(170, usualClosure('toggle'), { widthMm }), parts: [of] })
  it('are the counts at and beside the one that comes nearest, and the present one, narrowest first', () => {
    for (let widthMm = 1; widthMm < 60; widthMm += 0.7) {
      const p = wide(widthMm)
      const nominal = (columns: number) =>
        requireTechnique('loom').growth.widthOf({ columns, bead: requireSpec('cylinder-11'), settings: one.settings })
      const now = nominal(6)
      const nearest = Math.max(1, Math.round(6 + (widthMm - now) / (nominal(7) - now)))
      const counts = [...new Set([6, nearest - 1, nearest, nearest + 1])].filter((c) => c >= 1).sort((a, b) => a - b)
      const widths = widthChoices(p)
      expect(widths.map((w) => w.columns)).toEqual(counts)
      for (const w of widths) {
        expect(w.widthMm).toBeCloseTo(nominal(w.columns), 9)
        expect(w.differenceMm).toBeCloseTo(w.widthMm - widthMm, 9)
        expect(w.current).toBe(w.columns === 6)
        // 34 rows of beads
        expect(w.beads).toBe(34 * w.columns)
      }
    }
  })
  it('go as far as a part may be wide, and grow by the hand that makes it', () => {
    const p = wide(20)
    const columns = widthChoices({ ...p, fit: { ...p.fit, widthMm: 10_000 } }).map((w) => w.columns)
    expect(columns).toEqual([6])
    expect(columns.every((c) => c <= LIMITS.columns)).toBe(true)
    // a column is a bead and a warp, 1.5 mm
    const swatch = { rows: 20, lengthMm: 32, columns: 10, widthMm: 16.5, from: '' }
    const q = {
      ...p,
      gauges: [{ technique: 'loom', spec: 'cylinder-11', thread: 'gel-6', swatches: [swatch] }] as Piece['gauges'],
    }
    const perColumn = (of: Piece) => {
      const [a, b] = widthChoices(of).slice(-2)
      return b!.widthMm - a!.widthMm
    }
    expect(perColumn(q) / perColumn(p)).toBeCloseTo(1.1, 9)
  })
  it('are laid in the bead of the first corner, or the first of the tray', () => {
    const laid = (start: ReturnType<typeof rows>) => {
      const p = wide(20, { ...one, start })
      const next = valueOf(applySteps(p, widthChoiceSteps(p, 8))).parts[0]!
      expect(columnsOf(next)).toBe(8)
      return [
        ...new Set([next.start, next.repeat].flatMap((cells) => (cells.rows > 0 ? [numberIn(cells, 7, 0)] : []))),
      ]
    }
    expect(laid(rows('BAAAAA', 'AAAAAA'))).toEqual([2])
    expect(laid(rows('.AAAAA', 'AAAAAA'))).toEqual([1])
    expect(laid(emptyCells(6, 0))).toEqual([1])
  })
})

describe('choices, in order', () => {
  it('come near also where one line of the repeat is too little for a bead of the stitch', () => {
    // units of right-angle weave, a line each: the first alone has no row of beads behind it
    for (const { id } of TECHNIQUES.filter((t) => t.material.counted && t.store === 'cells')) {
      const one = grid(id, { columns: 3, start: 0, repeat: 1, end: 0, times: 1, spec: 'cylinder-11' })
      const p = piece({ fit: fitted(170, usualClosure('toggle')), parts: [one] })
      const [first] = fitChoices(p).filter((c) => c.way === 'whole')
      expect(Math.abs(first!.fit.differenceMm), id).toBeLessThan(4)
    }
  })
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
