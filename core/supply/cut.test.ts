import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, anyPieceOf, bead, part, piece, rows } from '../../tests/fixture/piece'
import { closureOf, usualClosure } from '../wear/closure'
import { emptyCells } from '../grid/cells'
import { joinOf } from '../piece/join'
import { withPart, type Piece } from '../piece/piece'
import { supplySchema } from '../piece/schema'
import { requireTechnique } from '../technique/registry'
import { NEEDLES, requireNeedle, requireThread, THREADS } from '../thread/catalogue'
import { cutList, cutThread, holeChecks, lengthsOf, pathOf, threadCuts } from './thread'

const supply = supplySchema.parse({})
const closed = (p: Piece, kind: Parameters<typeof usualClosure>[0]): Piece => ({
  ...p,
  fit: { ...p.fit, closure: usualClosure(kind) },
})
const other = part({ id: 'tail', name: 'Tail' })

describe('thread', () => {
  it('of nothing is nothing, and of a hair’s breadth has its tails', () => {
    expect(cutThread({ pathMm: 0, sewingMm: 120, supply })).toEqual({ joins: 0, totalMm: 0, spareMm: 0 })
    // 0.1 × 1.05 + 2 × 200 = 400.1 → 500
    expect(cutThread({ pathMm: 0.1, sewingMm: 0, supply }).totalMm).toBe(500)
  })
  it('that comes out at the handled length is not joined; a millimetre more is', () => {
    // (1800 − 400) / 1.05 = 1333.33 mm of path fill 1800 mm
    const path = (1800 - 400) / 1.05
    expect(cutThread({ pathMm: path, sewingMm: 0, supply }).joins).toBe(0)
    expect(cutThread({ pathMm: path + 1, sewingMm: 0, supply }).joins).toBe(1)
    // and so with two lengths: 2 × 1800 less the tails of one join
    const two = (2 * 1800 - 400 - 2 * supply.tailMm) / 1.05
    expect(cutThread({ pathMm: two, sewingMm: 0, supply }).joins).toBe(1)
    expect(cutThread({ pathMm: two + 1, sewingMm: 0, supply }).joins).toBe(2)
  })
  it('to spare is what path, sewing and tails leave of the total, twice over where it is doubled', () => {
    const doubled = { ...supply, doubled: true, workingLengthMm: 1000, tailMm: 100, claspTailMm: 150 }
    // need 1000 × 1.05 + 60 + 300 = 1410; joins ⌈410 / 800⌉ = 1; exact (1410 + 200) × 2 = 3220 → 3300
    expect(cutThread({ pathMm: 1000, sewingMm: 60, supply: doubled })).toEqual({
      joins: 1,
      totalMm: 3300,
      spareMm: 3300 - 2 * (1000 + 60 + 300 + 200),
    })
  })
  it('is cut in working lengths, the last as it comes; folded ones are twice as long', () => {
    const long = withPart(piece(), { ...piece().parts[0]!, times: 300 })
    const one = threadCuts(long, long.parts[0]!)[0]!
    expect(one.joins).toBeGreaterThan(0)
    expect([one.pieces, one.cutMm]).toEqual([one.joins + 1, 1800])
    const folded = { ...long, supply: { ...supply, doubled: true } }
    expect(threadCuts(folded, folded.parts[0]!)[0]!.cutMm).toBe(3600)
    const short = threadCuts(piece(), piece().parts[0]!)[0]!
    expect([short.pieces, short.cutMm, short.joins]).toEqual([1, short.totalMm, 0])
    const empty = part({ start: emptyCells(4, 0), end: emptyCells(4, 0), times: 0 })
    expect(threadCuts(withPart(piece(), empty), empty)[0]).toMatchObject({
      pieces: 0,
      cutMm: 0,
      totalMm: 0,
      spareMm: 0,
    })
  })
  it('sews the closure to the part that is fitted, and to no other', () => {
    const p = closed({ ...piece(), parts: [part(), other] }, 'toggle')
    const sewing = closureOf('toggle').sewingMm
    expect(sewing).toBeGreaterThan(0)
    const [main, tail] = p.parts.map((one) => threadCuts(p, one)[0]!)
    expect(main!.pathMm).toBeCloseTo(tail!.pathMm, 9)
    const tails = 2 * supply.claspTailMm
    expect(main!.totalMm).toBe(Math.ceil((main!.pathMm * 1.05 + sewing + tails) / 100 - 1e-9) * 100)
    expect(tail!.totalMm).toBe(Math.ceil((tail!.pathMm * 1.05 + tails) / 100 - 1e-9) * 100)
    expect(main!.spareMm).toBeCloseTo(main!.totalMm - main!.pathMm - sewing - tails, 9)
  })
  it('joining the ends of a ring takes more of it, in the part that goes round', () => {
    let seen = 0
    fc.assert(
      fc.property(anyPieceOf(['right-angle', 'square', 'brick', 'peyote']), (any) => {
        const ring = closed({ ...any, parts: [any.parts[0]!, other] }, 'none')
        const more = joinOf(ring, ring.parts[0]!)?.threadMm ?? 0
        const [plain, joined] = [pathOf(ring.parts[0]!), pathOf(ring.parts[0]!, ring)]
        expect(joined.runs.map((r) => r.lengthMm)).toEqual(
          plain.runs.map((r) => (r.joined ? r.lengthMm + more : r.lengthMm)),
        )
        expect(joined.runs.every((r) => r.formula.endsWith('mm to join the ends') === more > 0)).toBe(true)
        expect(pathOf(other, ring)).toEqual(pathOf(other))
        if (more > 0) seen++
      }),
    )
    expect(seen).toBeGreaterThan(5)
  })
  it('is longer by the openings that the work makes for a button, or for several to choose from', () => {
    const warp = part({
      technique: 'ladder',
      settings: requireTechnique('ladder').settings.parse({ cordMm: 1.5 }) as Record<string, number>,
    })
    const at = (kind: 'toggle' | 'button', openings: number) => {
      const p = closed(withPart(piece(), warp), kind)
      return pathOf(warp, { ...p, fit: { ...p.fit, closure: { ...p.fit.closure, openings } } })
    }
    const hanging = { ...warp, id: 'tail' }
    const buttoned = closed({ ...withPart(piece(), warp), parts: [warp, hanging] }, 'button')
    expect(pathOf(hanging, buttoned)).toEqual(pathOf(hanging))
    expect(at('toggle', 2)).not.toEqual(at('toggle', 1))
    expect(at('toggle', 1)).toEqual(pathOf(warp))
    expect(at('button', 1)).not.toEqual(pathOf(warp))
  })
})

describe('what is not joined', () => {
  const coil = requireTechnique('coil')
  const settings = coil.settings.parse({}) as Record<string, number>
  const rope = part({ technique: 'coil', settings, start: rows('A'), repeat: rows('A'), end: rows('A'), times: 40 })
  const braid = part({
    technique: 'braid-8',
    settings: requireTechnique('braid-8').settings.parse({}) as Record<string, string>,
    spec: 'round-8',
    start: rows('AAAAAAAA'),
    repeat: rows('AAAAAAAA'),
    end: rows('AAAAAAAA'),
  })
  it('is cut as often as there are runs of it, each rounded up by itself', () => {
    const p = withPart(piece(), braid)
    const [run] = pathOf(braid, p).runs
    const [cut] = threadCuts(p, braid)
    expect(run!.count).toBe(8)
    const each = Math.ceil(run!.lengthMm / 100 - 1e-9) * 100
    expect(cut).toMatchObject({ pieces: 8, cutMm: each, totalMm: 8 * each, joins: 0 })
    expect([cut!.pathMm, cut!.spareMm]).toEqual([8 * run!.lengthMm, 8 * (each - run!.lengthMm)])
  })
  it('is named for the shop by what it is and how thick', () => {
    const names = (one: typeof rope) =>
      cutList(withPart(piece(), one))
        .filter((c) => c.part !== '')
        .map((c) => [c.id, c.material, c.shopName])
    expect(names(rope)).toEqual([
      ['wire', 'wire', `Wire ${settings.wireMm} mm`],
      ['core', 'cord', `Core cord ${settings.coreMm} mm`],
    ])
    expect(names(braid)).toEqual([['cord', 'cord', 'Cord 0.5 mm']])
    expect(names(part())).toEqual([['thread', 'thread', undefined]])
  })
  it('lengths in all keep materials apart, and what is to spare of each', () => {
    fc.assert(
      fc.property(fc.oneof(anyPiece, fc.constant(withPart(piece(), rope))), fc.integer({ min: 1, max: 5 }), (p, n) => {
        const cuts = cutList(p)
        for (const length of lengthsOf(p, n)) {
          const of = cuts.filter((c) => c.material === length.material)
          expect(length.spareMm).toBeCloseTo(n * of.reduce((sum, c) => sum + c.spareMm, 0), 6)
          expect(length.totalMm).toBeCloseTo(n * of.reduce((sum, c) => sum + c.totalMm, 0), 6)
        }
        expect(new Set(lengthsOf(p, n).map((l) => l.material))).toEqual(new Set(cuts.map((c) => c.material)))
      }),
    )
  })
  it('a cord goes through its beads without a needle; what is too thick for them asks for a larger hole', () => {
    const thick = { ...braid, settings: { ...braid.settings, cordMm: 2 } }
    const check = (one: typeof braid) =>
      holeChecks(withPart(piece({ tray: [bead(1, { spec: 'round-8' })] }), one), one)
    expect(check(braid)).toMatchObject([{ spec: 'round-8', where: 'work', verdict: 'easy', helps: [], passes: 1 }])
    expect(check(thick)).toMatchObject([
      { spec: 'round-8', where: 'work', verdict: 'no', helps: [{ kind: 'larger hole', verdict: 'easy' }] },
    ])
  })
})

describe('closures', () => {
  it('elastic goes round as often as it is worn, and its formula says so only then', () => {
    const p = closed(piece(), 'elastic')
    const elastic = (wraps: number) =>
      cutList({ ...p, fit: { ...p.fit, bodyMm: 165, wraps } }).find((c) => c.material === 'elastic')!
    // 2 × 165 × 2 = 660 → 700
    expect(elastic(2)).toMatchObject({ cutMm: 700, formula: '2 × 165 mm × 2 turns' })
    expect(elastic(1)).toMatchObject({ cutMm: 400, formula: '2 × 165 mm' })
  })
  it('an ear wire is bent of wire as thick as its gauge (American wire gauge: 20 is 0.81 mm)', () => {
    const p = closed(piece({ supply: supplySchema.parse({ earWireGauge: 20 }) }), 'ear-wire')
    expect(cutList(p).find((c) => c.id === 'ear-wire')!.formula).toMatch(/^50 mm of wire 0\.81 mm thick;/)
    expect(cutList(closed(p, 'toggle')).some((c) => c.id === 'ear-wire')).toBe(false)
  })
})

describe('what helps a needle through', () => {
  const wide = (over: object, spec = 'round-15') => {
    const p = piece({
      tray: [bead(1, { spec })],
      supply: supplySchema.parse({ sewPasses: 0, ...over }),
      parts: [part({ spec, start: rows('AAAA'), repeat: rows('AAAA'), end: rows('AAAA') })],
    })
    return holeChecks(p, p.parts[0]!)[0]!
  }
  const RANK = { no: 0, tight: 1, easy: 2 }
  it('is, over all that one may choose, better than what there was, best first, no finer than need be', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...THREADS),
        fc.constantFrom(...NEEDLES),
        fc.constantFrom('cylinder-15', 'round-15', 'round-11', 'ball-2-mm'),
        fc.integer({ min: 0, max: 4 }),
        fc.boolean(),
        (thread, needle, spec, reinforce, doubled) => {
          const now = { thread: thread.id, needle: needle.id, reinforce, doubled }
          const check = wide(now, spec)
          if (check.verdict === 'easy') return
          const helps = check.helps
          const ranks = helps.map((h) => RANK[h.verdict])
          expect(ranks).toEqual([...ranks].sort((a, b) => b - a))
          expect(new Set(helps.map((h) => h.kind)).size).toBe(helps.length)
          const with_ = (over: object) => RANK[wide({ ...now, ...over }, spec).verdict]
          /** What one would choose by trying all: the first that goes easily, else the first that is better. */
          const tried = <T extends { id: string }>(list: readonly T[], as: 'needle' | 'thread') => {
            const found = list.map((one) => ({ id: one.id, rank: with_({ [as]: one.id }) }))
            return found.find((f) => f.rank === 2) ?? found.find((f) => f.rank > RANK[check.verdict])
          }
          const finer = NEEDLES.filter((n) => n.eyeMm < needle.eyeMm).sort((a, b) => b.eyeMm - a.eyeMm)
          const thinner = THREADS.filter(
            (t) => t.flattens === thread.flattens && t.diameterMm < thread.diameterMm,
          ).sort((a, b) => b.diameterMm - a.diameterMm)
          const said = (kind: 'needle' | 'thread') => {
            const help = helps.find((h) => h.kind === kind)
            return help && 'id' in help ? { id: help.id, rank: RANK[help.verdict] } : undefined
          }
          expect(said('needle')).toEqual(tried(finer, 'needle'))
          expect(said('thread')).toEqual(tried(thinner, 'thread'))
          const single = doubled && with_({ doubled: false }) > RANK[check.verdict]
          const fewer = reinforce > 0 && with_({ reinforce: 0 }) > RANK[check.verdict]
          expect(helps.some((h) => h.kind === 'single')).toBe(single)
          expect(helps.some((h) => h.kind === 'fewer passes')).toBe(fewer)
          if (helps.length === 0 || helps.some((h) => h.kind === 'larger hole'))
            expect(helps).toEqual([{ kind: 'larger hole', verdict: 'easy' }])
        },
      ),
      { numRuns: 300 },
    )
  })
  it('counts the bead of the part where none is laid yet, and only laid ones otherwise', () => {
    const none = part({ spec: 'cylinder-11', start: rows('....'), repeat: rows('....'), end: rows('....') })
    const p = piece({ tray: [bead(1, { spec: 'round-8' })], parts: [none] })
    expect(holeChecks(p, none).map((c) => c.spec)).toEqual(['cylinder-11'])
    const laid = part({ spec: 'cylinder-11' })
    const q = piece({ tray: [1, 2, 3].map((n) => bead(n, { spec: 'round-8' })), parts: [laid] })
    expect(new Set(holeChecks(q, laid).map((c) => c.spec))).toEqual(new Set(['round-8']))
  })
  it('looks at the ends only where a closure is sewn on, to the beads of the first and the last row', () => {
    const tray = [bead(1), bead(2, { spec: 'round-11' }), bead(3, { spec: 'round-8' })]
    const band = part({ technique: 'square', settings: { start: 'left' }, start: rows('AAAA'), end: rows('CCCC') })
    const p = closed(piece({ tray, parts: [band, other], supply: supplySchema.parse({ sewPasses: 2 }) }), 'toggle')
    const ends = (q: Piece, k = 0) =>
      holeChecks(q, q.parts[k]!)
        .filter((c) => c.where === 'ends')
        .map((c) => c.spec)
    expect(new Set(ends(p))).toEqual(new Set(['cylinder-11', 'round-8']))
    expect(ends(p, 1)).toEqual([])
    expect(ends({ ...p, supply: { ...p.supply, sewPasses: 0 } })).toEqual([])
    expect(ends(closed(p, 'none'))).toEqual([])
    const hollow = { ...band, start: rows('A..A') }
    expect(new Set(ends(withPart(p, hollow)))).toEqual(new Set(['cylinder-11', 'round-8']))
  })
  it('a needle passes with one thread fewer beside it than there are passes', () => {
    const check = wide({ thread: 'gel-6', needle: '12', reinforce: 0 }, 'round-11')
    const a = requireThread('gel-6').diameterMm * 0.9
    expect(check.leastMm).toBeCloseTo(requireNeedle('12').eyeMm + a, 9)
  })
})
