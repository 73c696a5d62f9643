import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { setStep } from '../piece/edit'
import { applySteps } from '../piece/step'
import { supplySchema } from '../piece/schema'
import { valueOf } from '../problem'
import { usualClosure } from '../wear/closure'
import { beadsToBuy, needOf } from './beads'
import { NEEDLES, requireNeedle, requireThread, THREADS } from '../thread/catalogue'
import { buying, hankGrams, packsFor } from './packs'
import { cutList, cutThread, holeChecks, lengthsOf, threadCuts } from './thread'
import { loopWireMm } from '../hang/pin'
import { coilTurnMm, coilWire, helixTurnMm, wireThatPasses } from './wire'

const supply = supplySchema.parse({})

describe('thread to cut', () => {
  it('is one length where one is enough, by hand', () => {
    // 1000 × 1.05 + 120 for the closure + 2 × 200 tails = 1570 → 1600 mm, no join, 1600 − 1000 − 120 − 400 = 80 to
    // spare
    expect(cutThread({ pathMm: 1000, sewingMm: 120, supply })).toEqual({ joins: 0, totalMm: 1600, spareMm: 80 })
  })
  it('joins what is longer than one handles; each join costs two tails', () => {
    // 5000 × 1.05 + 400 = 5650; handled 1800: joins j with (j + 1) 1800 ≥ 5650 + 300 j → 1500 j ≥ 3850 → 3; total 5650
    // + 900 = 6550 → 6600
    expect(cutThread({ pathMm: 5000, sewingMm: 0, supply })).toEqual({
      joins: 3,
      totalMm: 6600,
      spareMm: 6600 - 5000 - 400 - 900,
    })
  })
  it('doubled takes twice the length', () => {
    expect(cutThread({ pathMm: 1000, sewingMm: 0, supply: { ...supply, doubled: true } }).totalMm).toBe(2 * 1450 + 0)
  })
  it('is never shorter than the path with its slack and tails, and the lengths hold it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 200_000 }),
        fc.integer({ min: 500, max: 6000 }),
        fc.boolean(),
        (pathMm, workingLengthMm, doubled) => {
          const { joins, totalMm, spareMm } = cutThread({
            pathMm,
            sewingMm: 0,
            supply: { ...supply, workingLengthMm, doubled, tailMm: 100 },
          })
          const fold = doubled ? 2 : 1
          expect(totalMm).toBeGreaterThanOrEqual(fold * (pathMm * 1.05 + 400 + joins * 200) - 1e-6)
          expect(totalMm % 100).toBe(0)
          expect(spareMm).toBeGreaterThanOrEqual(0)
          if (joins > 0) expect(joins * workingLengthMm).toBeLessThan(pathMm * 1.05 + 400 + (joins - 1) * 200 + 1e-6)
        },
      ),
    )
  })
  it('adding beads never shortens thread', () => {
    fc.assert(
      fc.property(anyPiece, fc.integer({ min: 1, max: 9 }), (p, more) => {
        const one = p.parts[0]!
        const longer = { ...one, times: one.times + more }
        const total = (q: typeof one) => threadCuts(p, q).reduce((sum, c) => sum + c.totalMm, 0)
        expect(total(longer)).toBeGreaterThanOrEqual(total(one))
      }),
    )
  })
  it('lists warps apart, each in one piece', () => {
    const p = piece({
      parts: [
        part({
          technique: 'loom',
          settings: { start: 'left', warpMm: 0.2, doubleEdge: true, spareWarpMm: 200 },
          start: rows('AAAA'),
          repeat: rows('ABBA'),
          end: rows('AAAA'),
          times: 98,
        }),
      ],
    })
    const warp = threadCuts(p, p.parts[0]!).find((c) => c.id === 'warp')!
    // 4 beads: 5 warps and 2 more; 100 rows × 1.6 = 160 + 400 = 560 → 600 mm each
    expect(warp).toMatchObject({ pieces: 7, cutMm: 600, totalMm: 4200, joins: 0 })
  })
})

describe('will it go through', () => {
  it('checks every size that is used, and only those', () => {
    const p = piece({
      tray: [bead(1), bead(2, { spec: 'round-15' }), bead(3, { spec: 'round-8' })],
      parts: [part({ start: rows('AAAA'), repeat: rows('ABBA'), end: rows('AAAA') })],
    })
    const checks = holeChecks(p, p.parts[0]!)
    expect(
      checks
        .filter((c) => c.where === 'work')
        .map((c) => c.spec)
        .sort(),
    ).toEqual(['cylinder-11', 'round-15'])
    // The closure is sewn to the ends, which are all of bead A: passed twice more.
    expect(checks.filter((c) => c.where === 'ends').map((c) => [c.spec, c.passes])).toEqual([['cylinder-11', 4]])
    expect(
      holeChecks({ ...p, fit: { ...p.fit, closure: usualClosure('none') } }, p.parts[0]!).every(
        (c) => c.where === 'work',
      ),
    ).toBe(true)
  })
  it('says what would help where it is tight', () => {
    const p = piece({
      tray: [bead(1, { spec: 'round-15' })],
      supply: supplySchema.parse({ thread: 'mono-20', needle: '10', reinforce: 2 }),
      parts: [part({ start: rows('AAAA'), repeat: rows('AAAA'), end: rows('AAAA') })],
    })
    const [check] = holeChecks(p, p.parts[0]!)
    // hole 0.6; eye 0.55 + 0.20 = 0.75 at least: will not go
    expect(check).toMatchObject({ verdict: 'no', passes: 4 })
    expect(check!.leastMm).toBeCloseTo(0.75, 9)
    // no needle is thin enough for a hole of 0.6 with monofilament 0.20 four times; monofilament 0.15 passes with
    // needle 13 at best
    expect(check!.helps.length).toBeGreaterThan(0)
    for (const h of check!.helps) expect(h.verdict).not.toBe('no')
  })
  it('knows its threads and needles', () => {
    for (const t of THREADS) expect(requireThread(t.id)).toBe(t)
    for (const n of NEEDLES) expect(requireNeedle(n.id)).toBe(n)
    expect(() => requireThread('rope')).toThrow(/rope/)
    expect(() => requireNeedle('9')).toThrow(/9/)
  })
})

describe('what would help', () => {
  it('is the largest needle and the thickest thread that change the answer', () => {
    // cylinder 15/0, hole 0.65; size 10 eye 0.55 + 2 × monofilament 0.15 = 0.85: tight at best; least is 0.55 + 0.15 =
    // 0.70: no
    const p = piece({
      tray: [bead(1, { spec: 'cylinder-15' })],
      supply: supplySchema.parse({ thread: 'mono-15', needle: '10', sewPasses: 0 }),
      parts: [part({ spec: 'cylinder-15', start: rows('AAAA'), repeat: rows('AAAA'), end: rows('AAAA') })],
    })
    const [check] = holeChecks(p, p.parts[0]!)
    expect(check!.verdict).toBe('no')
    // size 11: 0.50 + 0.15 = 0.65, goes for certain, since two passes leave one thread beside the eye
    expect(check!.helps[0]).toEqual({ kind: 'needle', id: '11', verdict: 'easy' })
  })
})

describe('what else is cut', () => {
  it('elastic is twice the wrist, so often as it is laid', () => {
    const p = piece({ supply: supplySchema.parse({ elastics: 2 }) })
    const elastic = cutList({ ...p, fit: { ...p.fit, bodyMm: 165, closure: usualClosure('elastic') } }).find(
      (c) => c.material === 'elastic',
    )!
    // 2 × 165 = 330 → 400 mm each
    expect(elastic).toMatchObject({ pieces: 2, cutMm: 400, totalMm: 800, spareMm: 140 })
  })
  it('a chain is as long as it lets out', () => {
    const p = piece()
    expect(
      cutList({ ...p, fit: { ...p.fit, closure: { ...p.fit.closure, extenderMm: 50 } } }).find(
        (c) => c.material === 'chain',
      ),
    ).toMatchObject({ totalMm: 50 })
    expect(cutList(p).some((c) => c.material === 'chain')).toBe(false)
  })
  it('sums to the lengths of each material, for as many as are made', () => {
    fc.assert(
      fc.property(anyPiece, fc.integer({ min: 1, max: 8 }), (p, made) => {
        const total = lengthsOf(p, made).reduce((sum, l) => sum + l.totalMm, 0)
        expect(total).toBeCloseTo(cutList(p).reduce((sum, c) => sum + c.totalMm, 0) * made, 6)
      }),
    )
  })
})

describe('ear wires', () => {
  it('bent by hand are cut of wire, one for each earring, and not bought', () => {
    const p = piece({ supply: supplySchema.parse({ earWireGauge: 20 }) })
    const drops = { ...p, fit: { ...p.fit, kind: 'earrings' as const, closure: usualClosure('ear-wire') } }
    expect(cutList(drops).find((c) => c.material === 'wire')).toMatchObject({ pieces: 1, cutMm: 50, totalMm: 50 })
    expect(lengthsOf(drops, 2).find((l) => l.material === 'wire')!.totalMm).toBe(100)
    expect(
      cutList({ ...drops, supply: { ...drops.supply, earWireGauge: 0 } }).some((c) => c.material === 'wire'),
    ).toBe(false)
  })
})

describe('wire', () => {
  it('a loop takes the pliers’ round and 2 mm, a coil turn the round through its middle (common practice)', () => {
    expect(loopWireMm(3)).toBeCloseTo(11.42, 2)
    expect(coilTurnMm(1, 0.4)).toBeCloseTo(4.398, 3)
    // 26 gauge is 0.4049 mm: 10 mm are 25 turns of √((π × 1.4049)² + 0.4049²)
    expect(coilWire(10, 1, 26)).toMatchObject({ turns: 25 })
    expect(coilWire(10, 1, 26).wireMm).toBeCloseTo(25 * Math.hypot(Math.PI * 1.4049, 0.4049), 1)
    // opened to 2 mm: 5 turns
    expect(coilWire(10, 1, 26, 2).turns).toBe(5)
  })
  it('a helix is as long as the path walked along it in small steps (arc length of a helix)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 10, noNaN: true }),
        (core, d, pitch) => {
          const r = (core + d) / 2
          const n = 4000
          let walked = 0
          for (let k = 0; k < n; k++)
            walked += Math.hypot(
              r * (Math.cos((2 * Math.PI * (k + 1)) / n) - Math.cos((2 * Math.PI * k) / n)),
              r * (Math.sin((2 * Math.PI * (k + 1)) / n) - Math.sin((2 * Math.PI * k) / n)),
              pitch / n,
            )
          expect(helixTurnMm(core, d, pitch)).toBeCloseTo(walked, 4)
        },
      ),
    )
  })
  it('passes a hole as often as the circle of so many wires is no larger', () => {
    // a hole of 0.8: 22 gauge (0.644) once; twice needs 2 d ≤ 0.8, 0.40 or thinner: 27 gauge (0.361), 26 is 0.405
    expect(wireThatPasses(0.8, 1)).toBe(21)
    expect(wireThatPasses(0.8, 2)).toBe(27)
    expect(wireThatPasses(0.05, 1)).toBeNull()
  })
})

describe('packs with prices', () => {
  const offer = (grams: number, price: number, stock: number | null = null) => ({
    grams,
    kind: 'pack' as const,
    price,
    stock,
  })
  it('are bought so that all is had for least', () => {
    // 27 g: 3 × 10 for 9.00, or one of 28 for 7.40
    expect(buying(27, [offer(5, 170), offer(10, 300), offer(28, 740)])).toMatchObject({
      packs: [{ grams: 28, count: 1 }],
      price: 740,
    })
    // 6 g: one of 10 for 3.00 is less than two of 5 for 3.40
    expect(buying(6, [offer(5, 170), offer(10, 300)])).toMatchObject({ packs: [{ grams: 10, count: 1 }], price: 300 })
  })
  it('are no more than the seller has, and what is lacking is said', () => {
    const bought = buying(40, [offer(10, 300, 1), offer(28, 740, 1)])
    expect(bought).toMatchObject({ grams: 38, shortGrams: 2, price: 1040 })
    expect(buying(3, [offer(10, 300, 0)])).toEqual({ packs: [], grams: 0, price: null, shortGrams: 3 })
  })
  it('cost no more than any other way of buying (from scratch, over all ways)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }),
        fc.array(
          fc.record({
            grams: fc.integer({ min: 2, max: 20 }),
            price: fc.integer({ min: 50, max: 900 }),
            stock: fc.integer({ min: 0, max: 4 }),
          }),
          { minLength: 1, maxLength: 3 },
        ),
        (grams, raw) => {
          const packs = raw.map((p) => offer(p.grams, p.price, p.stock))
          let least = Infinity
          const walk = (k: number, g: number, price: number) => {
            if (k === packs.length) {
              if (g >= grams) least = Math.min(least, price)
              return
            }
            for (let n = 0; n <= packs[k]!.stock!; n++)
              walk(k + 1, g + n * packs[k]!.grams, price + n * packs[k]!.price)
          }
          walk(0, 0, 0)
          const bought = buying(grams, packs)
          if (least === Infinity) expect(bought.shortGrams).toBeGreaterThan(0)
          else expect([bought.shortGrams, bought.price]).toEqual([0, least])
        },
      ),
    )
  })
  it('a hank is twelve strands of 20 inches (common practice): about 40 g of round 11/0', () => {
    // 12 × 508 / 1.4 = 4354 beads; 110 a gram
    expect(hankGrams({ l: 1.4, perGram: 110 })).toBeCloseTo(39.6, 1)
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
    const plain = (grams: number) => packsFor(grams, [5, 10, 28]).map((p) => `${p.count} × ${p.grams}`)
    expect(plain(14)).toEqual(['1 × 10', '1 × 5'])
    expect(plain(29)).toEqual(['3 × 10'])
    expect(packsFor(0, [5])).toEqual([])
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9000 }),
        fc.uniqueArray(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 4 }),
        (tenths, sizes) => {
          const packs = packsFor(tenths / 10, sizes)
          const grams = packs.reduce((sum, p) => sum + p.grams * p.count, 0)
          expect(grams * 10).toBeGreaterThanOrEqual(tenths - 1e-9)
          expect(grams - tenths / 10).toBeLessThan(Math.min(...sizes))
        },
      ),
    )
  })
  it('packs without prices leave the least over that any packs can (from scratch, over all totals)', () => {
    // once 148: a pack of 28 g was always taken first
    expect(packsFor(142.46, [24, 28])).toEqual([{ grams: 24, count: 6, kind: 'pack', price: null }])
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6000 }),
        fc.uniqueArray(fc.integer({ min: 3, max: 300 }), { minLength: 1, maxLength: 4 }),
        (need, sizes) => {
          // Totals in tenths of a gram that packs of these sizes can come to, each with the fewest packs for it.
          const fewest = new Map<number, number>([[0, 0]])
          for (let total = 1; total <= need + 300; total++)
            for (const s of sizes) {
              const n = fewest.get(total - s)
              if (n !== undefined && n + 1 < (fewest.get(total) ?? Infinity)) fewest.set(total, n + 1)
            }
          const least = Math.min(...[...fewest.keys()].filter((t) => t >= need))
          const packs = packsFor(
            need / 10,
            sizes.map((s) => s / 10),
          )
          expect(packs.reduce((sum, p) => sum + p.grams * p.count, 0)).toBeCloseTo(least / 10, 6)
          expect(packs.reduce((sum, p) => sum + p.count, 0)).toBe(fewest.get(least))
        },
      ),
      { numRuns: 60 },
    )
  })
  it('weighs 195 cylinders 11/0 as one gram and leaves out what is not used', () => {
    const p = piece({
      supply: supplySchema.parse({ spare: 0, cull: 0 }),
      parts: [part({ start: rows('AAAAA'.slice(0, 4)), repeat: rows('AAAA'), end: rows('AAAA'), times: 193 })],
    })
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
