import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, piece } from '../../../tests/fixture/piece'
import { cellsFrom, emptyCells } from '../../grid/cells'
import { raggedFrom } from '../../grid/lines'
import { requireSpec } from '../../bead/spec'
import { wholeExtent } from '../../fit/whole'
import { strandRuleSchema } from '../../hang/rule'
import { centreOf, freeOf } from '../../piece/drawing'
import { hung } from '../../piece/held'
import { rowsOf, techniqueOf, workOf, type Part, type Piece } from '../../piece/piece'
import type { Joint } from '../../piece/schema'
import { sized } from '../../piece/sizes'
import { applySteps } from '../../piece/step'
import { ruleSteps } from '../../piece/strands'
import { valueOf } from '../../problem'
import { partFindings } from '../../proof/finding'
import { holeChecks, pathOf } from '../../supply/thread'
import { needsFor } from '../../supply/tools'
import { tallyPart, totalOf } from '../../tally/tally'
import { requireTechnique } from '../registry'
import type { Settings } from '../technique'
import { pinNeedMm } from './dangles'
import { threadOf } from './fringe'
import { turnMm } from './strand'

const TRAY = [
  bead(1, { spec: 'round-11' }),
  bead(2, { spec: 'round-8' }),
  bead(3, { spec: 'drop-3-4-mm' }),
  bead(4, { spec: 'round-15' }),
  bead(5, { spec: 'ball-4-mm' }),
]
const under = (part: string, more: Partial<Joint> = {}): Joint => ({
  ...{ part, at: 'end', by: 'start', holes: [], link: null },
  ...more,
})
const lines = (rows: readonly (readonly number[])[]) => ({
  start: raggedFrom([]),
  repeat: raggedFrom(rows),
  end: raggedFrom([]),
})
const strandPart = (
  rows: readonly (readonly number[])[],
  { technique = 'fringe', settings = {} as Settings, plan = {}, on = null as Joint | null } = {},
): Part => ({
  ...{ id: 'fall', name: 'Fall', technique, spec: 'round-11', times: 1, on },
  settings: requireTechnique(technique).settings.parse(settings),
  plan: requireTechnique(technique).plan!.parse(plan),
  ...lines(rows),
})
const finding = (settings: Settings, on: Joint | null = null, id = 'bar'): Part => ({
  ...{ id, name: 'Bar', technique: 'finding', spec: 'round-11', times: 0, on, plan: {} },
  settings: requireTechnique('finding').settings.parse(settings),
  ...lines([]),
})
const grid = (
  columns: number,
  rows: number,
  on: Joint | null,
  number: (c: number, r: number) => number = () => 1,
  technique = 'brick',
): Part => ({
  ...{ id: 'top', name: 'Top', technique, spec: 'round-11', times: 1, on },
  settings: requireTechnique(technique).settings.parse({}),
  start: emptyCells(columns, 0),
  repeat: cellsFrom(
    columns,
    rows,
    Array.from({ length: columns * rows }, (_, k) => number(k % columns, Math.floor(k / columns))),
  ),
  end: emptyCells(columns, 0),
})
const made = (...parts: Part[]): Piece => hung(sized(piece({ tray: TRAY, parts })))
const fall = (p: Piece): Part => p.parts.find((q) => q.id === 'fall')!
const run = (count: number, number = 1): number[] => Array<number>(count).fill(number)
const codes = (p: Piece): string[] => p.parts.flatMap((q) => partFindings(q, p).map((f) => f.code))

describe('a fringe', () => {
  // Lists 3 5 7 9 11 13 and back, each with a drop (by hand: 83 beads, 347.0 mm of thread).
  const eleven = Array.from({ length: 11 }, (_, i) => [...run(3 + 2 * Math.min(i, 10 - i)), 3])
  it('of eleven strands under eleven beads takes the thread that the closed formula says', () => {
    const p = made(grid(11, 1, null), strandPart(eleven, { on: under('top') }))
    const parts = threadOf(workOf(fall(p)))
    expect(parts.strandsMm).toBeCloseTo(2 * 83 * 1.4, 9)
    expect(parts.turnsMm).toBeCloseTo(11 * 5.71, 1)
    expect(parts.topsMm).toBeCloseTo(11 * 2.8, 9)
    expect(parts.betweenMm).toBeCloseTo(10 * 2.1, 9)
    expect(pathOf(fall(p)).runs[0]!.lengthMm).toBeCloseTo(347, 0)
    expect(turnMm(requireSpec('round-15'))).toBeCloseTo(2.88, 2)
    expect(turnMm(requireSpec('round-11'))).toBeCloseTo(3.92, 2)
  })
  it('takes as much thread step by step as by the formula, whatever its strands (property)', () => {
    const strand = fc.array(fc.constantFrom(1, 2, 3, 4), { minLength: 1, maxLength: 9 })
    fc.assert(
      fc.property(
        fc.array(strand, { minLength: 1, maxLength: 9 }),
        fc.boolean(),
        fc.nat(2),
        fc.nat(4),
        (rows, hitch, top, turning) => {
          const own = strandPart(rows, { settings: { hitch, turning }, on: top === 0 ? null : under('top') })
          const p = top === 0 ? made(own) : made(grid(10, top, null), own)
          const sum = Object.values(threadOf(workOf(fall(p)))).reduce((a, b) => a + b, 0)
          expect(pathOf(fall(p)).runs[0]!.lengthMm).toBeCloseTo(sum, 6)
        },
      ),
    )
  })
  it('passes every bead twice but what it turns round; its top beads twice more for each strand', () => {
    const p = made(grid(11, 1, null), strandPart(eleven, { on: under('top') }))
    const path = pathOf(fall(p))
    expect([0, 1, 2, 3].map((c) => path.passesAt!(c, 0, 'a'))).toEqual([2, 2, 2, 1])
    const strands = holeChecks(p, p.parts[0]!).find((c) => c.where === 'strands')!
    const work = holeChecks(p, p.parts[0]!).find((c) => c.where === 'work')!
    expect(strands.passes - work.passes).toBe(2)
    const two = made(grid(6, 1, null), strandPart(eleven, { settings: { each: 2 }, on: under('top') }))
    const shared = holeChecks(two, two.parts[0]!).find((c) => c.where === 'strands')!
    expect(shared.passes - work.passes).toBe(4)
  })
  it('hangs where its top beads are, straight down, as long as its beads and its drop', () => {
    const p = made(grid(11, 1, null), strandPart(eleven, { on: under('top') }))
    const part = fall(p)
    const strands = techniqueOf(part).strands!.strands(workOf(part))
    expect(strands.map((s) => s.longMm)[0]).toBeCloseTo(3 * 1.4 + 3.4, 9)
    expect(Math.max(...strands.map((s) => s.endMm))).toBeCloseTo(13 * 1.4 + 3.4, 9)
    // Strand 1 is at the left as it is seen hanging, so that its x is largest; its beads lie one below the other.
    const xs = Array.from({ length: 11 }, (_, r) => centreOf(part, 0, r).x)
    xs.slice(1).forEach((x, k) => expect(xs[k]! - x).toBeCloseTo(2.1, 6))
    for (let c = 1; c < 3; c++) expect(centreOf(part, c, 0).y - centreOf(part, c - 1, 0).y).toBeCloseTo(1.4, 6)
  })
  it('mirrored, its places are the reflection of its places (property)', () => {
    const half = fc.array(fc.array(fc.constantFrom(1, 2, 4), { minLength: 1, maxLength: 7 }), {
      minLength: 1,
      maxLength: 5,
    })
    fc.assert(
      fc.property(half, (rows) => {
        const part = fall(made(strandPart([...rows, ...[...rows].reverse()])))
        const { widthMm } = freeOf(part)!
        const all = Array.from({ length: rowsOf(part) }, (_, r) => rows[Math.min(r, rowsOf(part) - 1 - r)]!)
        all.forEach((row, r) =>
          row.forEach((_, c) => {
            const [a, b] = [centreOf(part, c, r), centreOf(part, c, rowsOf(part) - 1 - r)]
            expect(a.x + b.x).toBeCloseTo(widthMm, 6)
            expect(a.y).toBeCloseTo(b.y, 6)
          }),
        )
      }),
    )
  })
  it('a swag hangs between its places and is passed once; too short, it does not reach', () => {
    const plan = { alike: 'free', own: [{ strand: 0, at: 0, to: 7 }] }
    const p = made(grid(11, 1, null), strandPart([run(21), [1, 3]], { plan, on: under('top') }))
    const path = pathOf(fall(p))
    expect(Array.from({ length: 21 }, (_, c) => path.passesAt!(c, 0, 'a'))).toEqual(run(21))
    const [swag] = techniqueOf(fall(p)).strands!.strands(workOf(fall(p)))
    // Over 7 top beads, 14.7 mm, 21 × 1.4 = 29.4 mm sag by 11.71 (catenary), and half a bead more.
    expect(swag!.longMm).toBeGreaterThan(11.6)
    expect(swag!.longMm).toBeLessThan(11.71 + 1.1)
    const short = made(grid(11, 1, null), strandPart([run(9), [1, 3]], { plan, on: under('top') }))
    expect(codes(short)).toContain('swag-short')
  })
  it('on a hoop begins on the curve and hangs straight; its drop is from the loop to the lowest bead', () => {
    const p = made(
      finding({ kind: 'hoop', across: 25, thick: 1 }),
      grid(15, 1, under('bar')),
      strandPart(
        Array.from({ length: 15 }, () => run(10)),
        { on: under('top') },
      ),
    )
    const part = fall(p)
    const ys = Array.from({ length: 15 }, (_, r) => centreOf(part, 0, r).y)
    expect(ys[7]!).toBeGreaterThan(ys[0]! + 5)
    // Loop and hoop 27 mm, a bead of 1.4 below it, nine beads down and one across.
    expect(wholeExtent(p, part).lengthMm.nominal).toBeCloseTo(27 + 1.4 + 9 * 1.4 + 2.1, 1)
    // The row lies on a circle of its own about the middle of the hoop.
    const top = p.parts[1]!
    const points = Array.from({ length: 15 }, (_, c) => centreOf(top, c, 0))
    const { hungAt } = freeOf(top)!
    const far = points.map((q) => Math.hypot(q.x - hungAt!.x, q.y - (hungAt!.y - 12.5)))
    for (const mm of far) expect(mm).toBeCloseTo(12.5 + 0.7, 6)
  })
})

describe('findings of what hangs', () => {
  const point = (counts: readonly number[]) => counts.map((n) => [...run(n), 1])
  const of = (rows: readonly (readonly number[])[], more: Parameters<typeof strandPart>[1] = {}) =>
    made(grid(rows.length, 1, null), strandPart(rows, { ...more, on: under('top') }))
  it('nothing is wrong with a fringe that comes to a point', () => {
    expect(codes(of(point([3, 5, 7, 9, 7, 5, 3])))).toEqual([])
  })
  it('drops wider than their places touch, and are told the stagger that clears them', () => {
    const level = of(Array.from({ length: 5 }, () => [...run(6), 3]))
    expect(codes(level)).toContain('drops-touch')
    const says = partFindings(fall(level), level).find((f) => f.code === 'drops-touch')!.says
    expect(says).toContain('strands 2, 3, 4 and 5')
    expect(says).toContain('2 beads longer')
    const staggered = of(Array.from({ length: 5 }, (_, i) => [...run(6 + (i % 2) * 2), 3]))
    expect(codes(staggered)).not.toContain('drops-touch')
  })
  it('strands thicker than their top fan out', () => {
    expect(codes(of(Array.from({ length: 5 }, () => run(6, 2))))).toContain('fringe-fans')
    expect(codes(of(Array.from({ length: 5 }, () => run(6))))).not.toContain('fringe-fans')
  })
  it('a list that differs from its mirror, one that breaks the step, one that does not end level', () => {
    expect(codes(of(point([3, 5, 7, 9, 7, 6, 3])))).toEqual(['strands-differ'])
    const broken = of(point([3, 5, 7, 10, 11, 13, 11, 10, 7, 5, 3]))
    const found = partFindings(fall(broken), broken)
    expect(found.map((f) => f.code)).toEqual(['step-breaks'])
    expect(found[0]!.says).toBe('Strand 4 holds 11 beads; its neighbours hold 8 and 12. 10 would keep the step of 2.')
    const level = of([...point([10, 10, 10, 10, 10]), ...point([11])], { plan: { alike: 'free' } })
    expect(codes(level)).toEqual(['not-level'])
    expect(partFindings(fall(level), level)[0]!.says).toContain('1 round 11/0 less')
  })
  it('strands beyond the edge have no place; two may share one', () => {
    const p = made(grid(4, 1, null), strandPart(point([2, 2, 2, 2, 2]), { on: under('top') }))
    expect(partFindings(fall(p), p).map((f) => [f.code, f.weight])).toContainEqual(['strand-place', 'stops'])
    const shared = made(
      grid(4, 1, null),
      strandPart(point([2, 2, 2, 2, 2]), { settings: { each: 2 }, on: under('top') }),
    )
    expect(codes(shared)).not.toContain('strand-place')
  })
  it('tells which holes take two beads, which counts can be spread, and what has no room', () => {
    const holes = (columns: number, count: number, pitch = 3) => {
      const p = made(finding({ kind: 'holes', holes: count, pitch }), grid(columns, 1, under('bar')))
      return partFindings(p.parts[1]!, p).map((f) => f.says)
    }
    expect(holes(15, 11)).toEqual(['15 beads over 11 holes: holes 2, 5, 7 and 10 take two beads.'])
    expect(holes(13, 10)[0]).toContain('take 12 or 14')
    expect(holes(7, 9)[0]).toContain('use holes')
    expect(holes(11, 11, 2.1)).toEqual([])
    expect(holes(11, 11, 1.5)[0]).toContain('rides up')
    const hoop = made(finding({ kind: 'hoop', across: 10 }), grid(15, 1, under('bar')))
    expect(codes(hoop)).toEqual(['finding-full'])
    // π × 10 / 2.1 = 14.96.
    expect(partFindings(hoop.parts[1]!, hoop)[0]!.says).toContain('room for 14')
  })
  it('says what shows its edge', () => {
    const drop = (rings: 0 | 1, eye: string) =>
      made(
        finding({ kind: 'holes', eye: 'flat' }),
        finding({ kind: 'drop', eye }, under('bar', { link: rings ? { kind: 'ring', mm: 3 } : null }), 'drop'),
      )
    expect(codes(drop(1, 'flat'))).toEqual(['faces-side'])
    expect(codes(drop(1, 'across'))).toEqual([])
    expect(codes(drop(0, 'flat'))).toEqual([])
  })
})

describe('dangles on pins', () => {
  const row = [1, 5, 5, 1]
  it('are bought by the shortest pin that is long enough, and say what is cut off', () => {
    const p = made(
      finding({ kind: 'holes', holes: 3 }),
      strandPart([row, [1, 5, 5, 5, 1], row], { technique: 'dangles', on: under('bar') }),
    )
    const needs = needsFor(p)
    const need = pinNeedMm(
      [1, 5, 5, 1].map((n) => requireSpec(TRAY[n - 1]!.spec)),
      fall(p).settings,
    )
    expect(need).toBeCloseTo(2 * 1.4 + 8 + Math.PI * 2.5 + 2, 6)
    expect(needs.map((n) => [n.name, n.count])).toEqual(
      [
        ['Bar with 9 holes, 2.6 mm apart', 1],
        ['Headpins 25 mm, 0.6 mm thick', 3],
      ].map(([name, count]) => [
        name === 'Bar with 9 holes, 2.6 mm apart' ? 'Bar with 3 holes, 2.6 mm apart' : name,
        count,
      ]),
    )
  })
  it('hang by their loops, one pass each; thick wire and wide holes are found', () => {
    const thick = made(strandPart([row], { technique: 'dangles', settings: { wire: 0.9 } }))
    expect(codes(thick)).toContain('pin-thick')
    const slips = made(strandPart([[1, 5]], { technique: 'dangles', settings: { pin: 'head' } }))
    expect(codes(slips)).not.toContain('pin-head')
    const long = made(strandPart([run(20, 5)], { technique: 'dangles' }))
    expect(codes(long)).toContain('pin-long')
    expect(pathOf(fall(thick)).passesAt!(1, 0, 'a')).toBe(1)
  })
})

describe('a longer zone', () => {
  it('never shortens the drop, and totals are the sum of the strands (property)', () => {
    const zone = fc.record({
      beads: fc.constantFrom([1], [2, 1], [4]),
      grow: fc.constantFrom('keep' as const, 'step' as const, 'to' as const),
      from: fc.integer({ min: 0, max: 9 }),
      step: fc.integer({ min: 0, max: 3 }),
      to: fc.integer({ min: 0, max: 12 }),
    })
    fc.assert(
      fc.property(
        fc.array(zone, { minLength: 1, maxLength: 3 }),
        fc.integer({ min: 1, max: 13 }),
        fc.constantFrom('point', 'arc', 'slope', 'straight', 'wave'),
        fc.nat(2),
        (zones, strands, edge, at) => {
          const p = made(grid(15, 2, null), strandPart([[1, 3]], { on: under('top') }))
          const rule = strandRuleSchema.parse({ strands, edge, zones, end: [3] })
          const first = valueOf(applySteps(p, ruleSteps(p, fall(p), rule)))
          const z = at % zones.length
          const longer = {
            ...rule,
            zones: rule.zones.map((one, k) => (k === z ? { ...one, from: one.from + 2, to: one.to + 2 } : one)),
          }
          const second = valueOf(applySteps(first, ruleSteps(first, fall(first), longer)))
          const drop = (q: Piece) => wholeExtent(q, fall(q)).lengthMm.nominal
          expect(drop(second)).toBeGreaterThanOrEqual(drop(first) - 1e-9)
          const lengths = Array.from({ length: strands }, (_, r) => workOf(fall(second)).lineLength!(r))
          expect(totalOf(tallyPart(fall(second)))).toBe(lengths.reduce((a, b) => a + b, 0))
        },
      ),
      { numRuns: 60 },
    )
  })
})
