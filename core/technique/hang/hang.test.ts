import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, piece } from '../../../tests/fixture/piece'
import { cellsFrom, emptyCells } from '../../grid/cells'
import { raggedFrom } from '../../grid/lines'
import { requireSpec } from '../../bead/spec'
import { wholeExtent } from '../../fit/whole'
import { strandRuleSchema } from '../../hang/rule'
import { centreOf, freeOf } from '../../piece/drawing'
import { drawnSize } from '../../piece/drawn-size'
import { hung } from '../../piece/held'
import { layOut } from '../../piece/joint'
import { rowsOf, techniqueOf, workOf, type Part, type Piece } from '../../piece/piece'
import { fitSchema, type Joint } from '../../piece/schema'
import { sized } from '../../piece/sizes'
import { applySteps } from '../../piece/step'
import { ruleSteps } from '../../piece/strands'
import { valueOf } from '../../problem'
import { pullsOf } from '../../proof/askew'
import { partFindings } from '../../proof/finding'
import { cutList, holeChecks, pathOf } from '../../supply/thread'
import { needsFor } from '../../supply/tools'
import { tallyPart, totalOf } from '../../tally/tally'
import { usualClosure } from '../../wear/closure'
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
const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0)
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
    // two on each second bead have as much room as one on each; three have not
    const shared = (each: number, strands: number) =>
      made(
        grid(9, 1, null),
        strandPart(
          Array.from({ length: strands }, () => run(6)),
          { settings: { each, every: 2 }, on: under('top') },
        ),
      )
    expect(codes(shared(2, 10))).not.toContain('fringe-fans')
    expect(codes(shared(3, 15))).toContain('fringe-fans')
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
    // a chain turns by a quarter with each of its links, where they are known
    const chained = (mm: number, linkMm?: number) =>
      made(
        finding({ kind: 'holes' }),
        finding(
          { kind: 'drop' },
          under('bar', { link: { kind: 'chain', mm, ...(linkMm === undefined ? {} : { linkMm }) } }),
          'drop',
        ),
      )
    expect([chained(20), chained(20, 4), chained(24, 4)].map((p) => codes(p).length)).toEqual([0, 1, 0])
  })
})

describe('a chain round the neck', () => {
  const chain = (settings: Settings = {}) =>
    finding({ kind: 'chain', pitch: 2.8, tall: 459.8, clasp: 9, across: 120, ...settings })
  const front = (settings: Settings, chained: Settings = {}, dangles = 9) =>
    made(
      chain(chained),
      strandPart(
        Array.from({ length: dangles }, () => [1, 5, 1]),
        { technique: 'dangles', settings, on: under('bar') },
      ),
    )
  const xs = (p: Piece) => {
    const part = fall(p)
    return Array.from({ length: rowsOf(part) }, (_, r) => centreOf(part, 0, r).x)
  }
  it('is cut to the links of the necklace without its clasp', () => {
    const p = front({ first: 0, every: 4 })
    // 450.8 / 2.8
    expect(pathOf(p.parts[0]!).runs).toMatchObject([{ id: 'chain', name: 'Chain of 161 links' }])
    expect(cutList(p).find((c) => c.material === 'chain')).toMatchObject({
      ...{ pieces: 1, cutMm: 161 * 2.8, spareMm: 0 },
      shopName: 'Chain, links of 2.8 mm',
    })
  })
  it('carries dangles in its middle, so many links apart, the same from both sides', () => {
    const p = front({ first: 0, every: 4 })
    const [lies] = [xs(p)]
    const middle = (lies[0]! + lies.at(-1)!) / 2
    expect(Math.abs(lies[1]! - lies[0]!)).toBeCloseTo(4 * 2.8, 6)
    const whole = layOut(p.parts, p.parts[0]!, drawnSize)
    const [above, below] = whole.placed
    expect(below!.x + middle).toBeCloseTo(above!.x + above!.width / 2, 6)
    expect(codes(p)).toEqual([])
    // 160 links have no middle for nine every four
    const even = front({ first: 0, every: 4 }, { tall: 457 })
    expect(codes(even)).toEqual(['strands-aside'])
    expect(partFindings(fall(even), even)[0]!.says).toContain('take 159 or 161 holes or links.')
    // the first link, said by number, asks for no middle
    expect(codes(front({ first: 3, every: 4 }, { tall: 457 }))).toEqual([])
  })
  it('of links that stand across each other turns every second dangle, unless they hang an even number apart', () => {
    expect(codes(front({ first: 0, every: 5 }, { links: 'turned' }))).toEqual(['dangles-turn'])
    const odd = front({ first: 0, every: 5 }, { links: 'turned' })
    expect(partFindings(fall(odd), odd)[0]!.says).toMatch(/^Strands 2, 4, 6 and 8 hang.* 6 links apart/)
    expect(codes(front({ first: 0, every: 4 }, { links: 'turned' }))).toEqual([])
    expect(codes(front({ first: 0, every: 5 }))).toEqual([])
  })
  it('shows its front only, and is no part of the measure', () => {
    const p = front({ first: 0, every: 4 })
    const size = drawnSize(p.parts[0]!)
    expect(size.width).toBe(120)
    const { carriers } = freeOf(p.parts[0]!)!
    // links whose ends lie within 60 mm of the middle: x + 1.4 + 0.25 ≤ 60
    expect(carriers.length).toBe(2 * 20 + 1)
    expect(wholeExtent(p, fall(p)).lengthMm.nominal).toBeCloseTo(drawnSize(fall(p)).length, 6)
  })
  it('a front between two cords leaves each half of the rest; links that slant are seen', () => {
    const p = (across: number) =>
      made(
        finding({ kind: 'strap', strap: 'two', tall: 460, clasp: 12, across, thick: 1.5 }),
        grid(15, 2, under('bar', { holes: [1, 2], link: { kind: 'ring', mm: 4 } })),
      )
    // fifteen of 2.1 and half a bead for the stagger: 32.55
    expect(codes(p(33))).toEqual([])
    expect(codes(p(50))).toEqual(['links-slant'])
    expect(partFindings(p(50).parts[1]!, p(50))[0]!.says).toContain('pull outward')
    const cut = cutList(p(33)).find((c) => c.material === 'cord')!
    // (460 − 12 − 33) / 2 + 50 = 257.5, cut in fifties
    expect(cut).toMatchObject({ pieces: 2, cutMm: 300 })
    expect(cut.formula).toContain('(460 mm of necklace − 12 mm of clasp − 33 mm of front) / 2')
    const slides = made(finding({ kind: 'strap', tall: 460 }), grid(15, 2, under('bar')))
    expect(cutList(slides).find((c) => c.material === 'cord')).toMatchObject({ pieces: 1, cutMm: 600 })
  })
})

describe('a piece on one loop', () => {
  const fit = fitSchema.parse({
    kind: 'earrings',
    part: 'fall',
    bodyMm: 50,
    closure: usualClosure('ear-wire'),
    widthMm: 20,
  })
  const hangs = (counts: readonly number[], more: readonly Part[] = []) => ({
    ...made(
      finding({ kind: 'bar', across: 12, tall: 6 }),
      grid(counts.length, 1, under('bar')),
      strandPart(
        counts.map((n) => run(n)),
        { plan: { alike: 'free' }, on: under('top') },
      ),
      ...more,
    ),
    fit,
  })
  const askew = (p: Piece) => partFindings(fall(p), p).find((f) => f.code === 'hangs-askew')?.says
  it('hangs askew where one side is heavier, by hand', () => {
    expect(askew(hangs([5, 9, 13, 9, 5]))).toBeUndefined()
    const p = hangs([20, 2, 2, 2, 2])
    const pulls = pullsOf(p, p.parts[0]!)!
    // places 4.2, 2.1, 0, −2.1, −4.2 (strand 1 left), each bead 1/110 g at the lower edge of the row: 6 + 1.4 below
    const gram = 1 / requireSpec('round-11').perGram
    const [x, y] = [-4.2 * 20 - 2.1 * 2 + 2.1 * 2 + 4.2 * 2, 0].map((v) => v * gram)
    const rows = 5 * (6 + 0.7) * gram + 28 * (6 + 1.4) * gram + 0.6 * 3
    expect(sum(pulls.map(({ grams, x: px }) => grams * px))).toBeCloseTo(x!, 3)
    expect(sum(pulls.map(({ grams, y: py }) => grams * py))).toBeCloseTo(y! + rows, 1)
    expect(askew(p)).toMatch(/^The left side is heavier: on one loop it hangs \d+(\.\d)?° askew\./)
    expect(askew(hangs([2, 2, 2, 2, 20]))).toMatch(/^The right side/)
    // what goes round a wrist does not hang
    expect(askew({ ...p, fit: fitSchema.parse({ ...fit, kind: 'bracelet', bodyMm: 170 }) })).toBeUndefined()
  })
  it('what hangs on a ring pulls at its ring, wherever its own weight lies', () => {
    const below = (tall: number) => {
      const drop = finding(
        { kind: 'drop', tall, across: 6, grams: 2 },
        { ...under('top', { holes: [1], link: { kind: 'ring', mm: 3 } }) },
        'drop',
      )
      const p = { ...made(finding({ kind: 'bar', across: 12, tall: 6 }), grid(5, 1, under('bar')), drop), fit }
      return pullsOf(p, p.parts[0]!)!.find(({ grams }) => grams === 2)!
    }
    expect(below(10).y).toBeCloseTo(below(40).y, 9)
    expect(Math.abs(below(10).x)).toBeCloseTo(4.2, 1)
  })
  it('slides on a cord, or hangs from two: only the first may hang askew', () => {
    const strap = (own: Settings, holes: number[]) => {
      const p = made(
        finding({ kind: 'strap', across: 12, ...own }, null, 'cord'),
        grid(5, 2, under('cord', { holes, link: { kind: 'ring', mm: 4 } }), (c, r) => (r === 1 && c > 2 ? 0 : 1)),
        strandPart([run(20), [1]], { plan: { alike: 'free' }, on: under('top') }),
      )
      return { ...p, fit: fitSchema.parse({ ...fit, kind: 'pendant', closure: usualClosure('bail') }) }
    }
    const codesOf = (p: Piece) => partFindings(fall(p), p).map((f) => f.code)
    expect(codesOf(strap({}, []))).toContain('hangs-askew')
    expect(codesOf(strap({ strap: 'two' }, [1, 2]))).not.toContain('hangs-askew')
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
