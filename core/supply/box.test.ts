import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { requireSpec } from '../bead/spec'
import { usualClosure } from '../wear/closure'
import { checkPiece } from '../piece/codec'
import { beginSmall } from '../begin/begin-small'
import { fitOf } from '../fit/reckon'
import { partFindings } from '../proof/finding'
import type { Piece } from '../piece/piece'
import { costSchema, supplySchema } from '../piece/schema'
import { shelfValueSchema, type ShelfBead, type ShelfInput, type Stock } from '../shelf/shelf'
import { tallyPiece, totalOf } from '../tally/tally'
import { beadAsks, beadsToBuy, timesMade } from './beads'
import { closureIn, contests, freeFor, spoolOf, tubeOf, type Box, type Holding } from './box'
import { costOf, weightOf } from './cost'
import { lettersOf, makeable, SMALL_DESIGNS, smallFromBox } from './leftovers'
import { keyOfWanted, type Offer } from './price-list'
import { shoppingList } from './shopping'

const stock = (value: ShelfInput): Stock => shelfValueSchema.parse(value) as Stock
const tube = (number: number, grams: number, over: Partial<ShelfBead> = {}) => {
  const { name, spec, colour, finish } = bead(number)
  return { id: `tube-${number}`, value: stock({ kind: 'bead', name, spec, colour, finish, grams, ...over }) }
}
const box = (items: Box['items'], holdings: Holding[] = []): Box => ({ items, holdings })
/** 1950 beads of A and nothing else: 10 g of cylinder 11/0, no spare and no culls beyond five beads. */
const tenGrams = (over: Partial<Piece> = {}) =>
  piece({
    supply: supplySchema.parse({ spare: 0, cull: 0 }),
    parts: [part({ columns: 4, start: rows('AA'), repeat: rows('AA'), end: rows('AA'), times: 973 } as never)],
    ...over,
  })

describe('the box', () => {
  it('is taken off what is to buy, without what another piece has set aside', () => {
    const p = tenGrams()
    const whole = beadsToBuy(p)[0]!
    expect(whole.count).toBe(1950)
    expect(whole.buyGrams).toBeCloseTo(1955 / 195, 9)
    const some = beadsToBuy(p, {
      box: box([tube(1, 8)], [{ pieceId: 'other', shelfId: 'tube-1', kind: 'reserved', amount: 3 }]),
      pieceId: 'me',
    })[0]!
    expect(some.fromBoxGrams).toBe(5)
    expect(some.buyGrams).toBeCloseTo(whole.grams - 5, 9)
    const mine = beadsToBuy(p, {
      box: box([tube(1, 8)], [{ pieceId: 'me', shelfId: 'tube-1', kind: 'reserved', amount: 8 }]),
      pieceId: 'me',
    })[0]!
    expect(mine.fromBoxGrams).toBe(8)
  })
  it('counts what was taken out for a piece as had', () => {
    const taken = beadsToBuy(tenGrams(), {
      box: box([tube(1, 0)], [{ pieceId: 'me', shelfId: 'tube-1', kind: 'taken', amount: 10 }]),
      pieceId: 'me',
    })[0]!
    expect(taken.takenGrams).toBe(10)
    expect(taken.buyGrams).toBeCloseTo(5 / 195, 9)
    expect(beadAsks([taken], 'take')).toEqual([])
  })
  it('asks for all with spare to set aside, and for what is worked in to take out', () => {
    const p = tenGrams({ supply: supplySchema.parse({ spare: 0.2, cull: 0 }) })
    const buys = beadsToBuy(p, { box: box([tube(1, 100)]), pieceId: 'me' })
    expect(beadAsks(buys, 'reserve')).toEqual([{ shelfId: 'tube-1', amount: 12 }])
    expect(beadAsks(buys, 'take')).toEqual([{ shelfId: 'tube-1', amount: 10 }])
  })
  it('more in the box never asks to buy more', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.double({ min: 0, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 5, noNaN: true }),
        (p, grams, more) => {
          const buy = (g: number) =>
            beadsToBuy(
              { ...p, tray: p.tray.map((b) => ({ ...bead(b.number) })) },
              { box: box([1, 2, 3].map((n) => tube(n, g))) },
            ).reduce((sum, b) => sum + b.buyGrams, 0)
          expect(buy(grams + more)).toBeLessThanOrEqual(buy(grams) + 1e-9)
        },
      ),
    )
  })
  it('finds the tube by size, colour and finish; of two the one that the piece holds, then the fuller', () => {
    const two = box([tube(1, 3), { ...tube(1, 9), id: 'fuller' }, tube(2, 50)])
    expect(tubeOf(two, bead(1))!.id).toBe('fuller')
    expect(
      tubeOf(box(two.items, [{ pieceId: 'me', shelfId: 'tube-1', kind: 'reserved', amount: 1 }]), bead(1), 'me')!.id,
    ).toBe('tube-1')
    expect(tubeOf(two, bead(3))).toBeUndefined()
  })
  it('finds spools by thread and closures by kind and name', () => {
    const items = [
      { id: 's', value: stock({ kind: 'thread', name: 'Grey', thread: 'gel-6', lengthMm: 20_000 }) },
      {
        id: 'c',
        value: stock({ kind: 'finding', name: 'Copper toggle', count: 3, closure: { kind: 'toggle', lengthMm: 16 } }),
      },
    ]
    expect(spoolOf(box(items), 'gel-6')!.id).toBe('s')
    expect(spoolOf(box(items), 'nylon-d')).toBeUndefined()
    const p = piece()
    expect(closureIn(box(items), p)!.id).toBe('c')
    expect(
      closureIn(box(items), { fit: { ...p.fit, closure: { ...p.fit.closure, name: 'Silver toggle' } } }),
    ).toBeUndefined()
    expect(freeFor(box(items), items[1]!, 'me')).toBe(3)
  })
  it('names what two pieces want more of together than is there', () => {
    const holdings: Holding[] = [
      { pieceId: 'a', shelfId: 'tube-1', kind: 'reserved', amount: 4 },
      { pieceId: 'b', shelfId: 'tube-1', kind: 'reserved', amount: 5 },
    ]
    expect(contests(box([tube(1, 10), tube(2, 1)], holdings))).toEqual([])
    expect(contests(box([tube(1, 8)], holdings))).toMatchObject([{ pieceIds: ['a', 'b'], wanted: 9, there: 8 }])
  })
})

describe('pairs and batches', () => {
  it('multiply before anything is rounded', () => {
    const p = piece({ supply: supplySchema.parse({ spare: 0, cull: 0, batch: 3 }) })
    const pair = { ...p, fit: { ...p.fit, kind: 'earrings' as const, closure: usualClosure('ear-wire') } }
    expect(timesMade(pair)).toBe(6)
    expect(beadsToBuy(pair)[0]!.count).toBe(20 * 6)
    // one by one five spare beads would be added each time
    expect(beadsToBuy(pair)[0]!.need).toBe(125)
  })
  it('a batch never needs more than so many single ones', () => {
    fc.assert(
      fc.property(anyPiece, fc.integer({ min: 1, max: 20 }), (p, batch) => {
        const need = (n: number) =>
          beadsToBuy({ ...p, supply: { ...p.supply, batch: n } }).reduce((sum, b) => sum + b.need, 0)
        expect(need(batch)).toBeLessThanOrEqual(need(1) * batch)
      }),
    )
  })
})

describe('what it costs', () => {
  it('is materials used, findings and time, by hand', () => {
    const p = tenGrams({
      cost: costSchema.parse({
        beads: [{ number: 1, grams: 5, price: 200 }],
        hourly: 1200,
        prepareMinutes: 30,
        closure: 150,
        threadMm: 10_000,
        threadPrice: 400,
        findings: [{ name: 'Crimp', count: 2, price: 5 }],
        asked: 30_000,
      }),
    })
    const cost = costOf(p)
    const of = (id: string) => {
      const l = cost.lines.find((x) => x.id === id)!
      return [l.least, l.most]
    }
    expect(of('beads')).toEqual([400, 400]) // 10 g at 2.00 for 5 g
    expect(of('closure')).toEqual([150, 150])
    expect(of('findings')).toEqual([10, 10])
    expect(of('work')).toEqual([11_700, 23_400]) // 1950 beads at 200 to 100 an hour, 12.00 an hour
    expect(of('prepare')).toEqual([600, 600])
    expect(cost.hours).toEqual({ least: 9.75, most: 19.5 })
    expect(cost.margin).toEqual({ least: 30_000 - cost.most, most: 30_000 - cost.least })
    expect(cost.unknown).toBe(0)
  })
  it('its lines add up to the totals, in whole smallest units', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.integer({ min: 0, max: 5000 }),
        fc.integer({ min: 1, max: 999 }),
        fc.integer({ min: 1, max: 9 }),
        (p, hourly, price, batch) => {
          const cost = costOf({
            ...p,
            supply: { ...p.supply, batch },
            cost: costSchema.parse({ hourly, beads: p.tray.map((b) => ({ number: b.number, grams: 7, price })) }),
          })
          expect(cost.lines.reduce((sum, l) => sum + l.least, 0)).toBe(cost.least)
          expect(cost.lines.reduce((sum, l) => sum + l.most, 0)).toBe(cost.most)
          for (const l of cost.lines) {
            expect(Number.isInteger(l.least) && Number.isInteger(l.most)).toBe(true)
            expect(l.least).toBeLessThanOrEqual(l.most)
          }
        },
      ),
    )
  })
  it('says how many prices nobody knows', () => expect(costOf(piece()).unknown).toBe(2 + 1 + 1))
  it('one earring weighs its own beads: 780 cylinders 11/0 are 4 g', () => {
    const p = piece({ parts: [part({ start: rows('AAAA'), repeat: rows('AAAA'), end: rows('AAAA'), times: 193 })] })
    expect(weightOf(p)).toBeCloseTo(780 / 195, 9)
    expect(
      weightOf({
        ...p,
        fit: { ...p.fit, kind: 'earrings', closure: usualClosure('post') },
        supply: { ...p.supply, batch: 4 },
      }),
    ).toBeCloseTo(780 / 195, 9)
  })
})

describe('one list for several pieces', () => {
  const p = tenGrams({ name: 'One' })
  it('adds the same bead up before rounding, and shares the box', () => {
    const list = shoppingList(
      [
        { id: 'a', piece: p },
        { id: 'b', piece: { ...p, name: 'Two' } },
      ],
      { box: box([tube(1, 12)], [{ pieceId: 'a', shelfId: 'tube-1', kind: 'reserved', amount: 10 }]) },
    )
    expect(list.beads).toHaveLength(1)
    expect(list.beads[0]).toMatchObject({
      count: 3900,
      need: 3905,
      fromBoxGrams: 12,
      wantedBy: [
        { name: 'One', count: 1950 },
        { name: 'Two', count: 1950 },
      ],
    })
    expect(list.beads[0]!.buyGrams).toBeCloseTo(3905 / 195 - 12, 9)
  })
  it('counts closures and lengths, less what is there', () => {
    const items = [
      { id: 's', value: stock({ kind: 'thread', name: 'Grey', thread: 'gel-6', lengthMm: 2000 }) },
      {
        id: 'c',
        value: stock({ kind: 'finding', name: 'Copper toggle', count: 1, closure: { kind: 'toggle', lengthMm: 16 } }),
      },
    ]
    const list = shoppingList(
      [
        { id: 'a', piece: p },
        { id: 'b', piece: p },
      ],
      { box: box(items) },
    )
    expect(list.others.find((o) => o.unit === 'count')).toMatchObject({ wanted: 2, fromBox: 1, buy: 1 })
    const thread = list.others.find((o) => o.id === 'thread/gel-6')!
    expect(thread.buy).toBe(thread.wanted - 2000)
  })
  it('never asks for more than the pieces one by one', () => {
    fc.assert(
      fc.property(anyPiece, anyPiece, (a, b) => {
        const alone = [a, b]
          .flatMap((q) => shoppingList([{ id: 'x', piece: q }]).beads)
          .reduce((sum, l) => sum + l.need, 0)
        const together = shoppingList([
          { id: 'a', piece: a },
          { id: 'b', piece: b },
        ]).beads.reduce((sum, l) => sum + l.need, 0)
        expect(together).toBeLessThanOrEqual(alone)
      }),
    )
  })
  it('takes the supplier’s packs and prices, says what has none, and works without them', () => {
    const offers = new Map<string, Offer>([
      [
        keyOfWanted(bead(1)),
        {
          wanted: bead(1),
          article: 'x',
          packs: [
            { grams: 5, price: 190, stock: 9 },
            { grams: 10, price: 330, stock: 9 },
          ],
        },
      ],
    ])
    const list = shoppingList([{ id: 'a', piece: p }], { offers })
    // 10.03 g: 10 + 5 for 5.20 is less than 3 × 5 for 5.70 and 2 × 10 for 6.60
    expect(list.beads[0]).toMatchObject({ price: 520, packGrams: 15 })
    expect([list.price, list.unknown]).toEqual([520, 0])
    expect(shoppingList([{ id: 'a', piece: p }])).toMatchObject({ price: 0, unknown: 1 })
  })
})

describe('leftovers', () => {
  it('say how many whole ones, and which bead ends it', () => {
    const p = piece({ supply: supplySchema.parse({ cull: 0 }) }) // 20 A and 12 B
    const found = makeable(p, box([tube(1, 100 / 195), tube(2, 30 / 195)]))
    expect(found.times).toBe(2)
    expect(found.limit!.name).toBe('Bead 2')
    expect(makeable(p, box([tube(1, 50)]))).toMatchObject({ times: 0, limit: { name: 'Bead 2', haveGrams: 0 } })
    expect(
      makeable(piece({ parts: [part({ start: rows('....'), repeat: rows('....'), end: rows('....') })] }), box([])),
    ).toEqual({ times: 0, limit: null })
  })
  it('what is set aside for a piece is not left over', () => {
    const p = piece({ supply: supplySchema.parse({ cull: 0 }) })
    const items = [tube(1, 100 / 195), tube(2, 30 / 195)]
    expect(
      makeable(p, box(items, [{ pieceId: 'x', shelfId: 'tube-2', kind: 'reserved', amount: 20 / 195 }])).times,
    ).toBe(0)
  })
  it('the box really holds what it is said to make, and not one more', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.array(fc.double({ min: 0, max: 2, noNaN: true }), { minLength: 3, maxLength: 3 }),
        (p, grams) => {
          const q = { ...p, tray: [1, 2, 3].map((n) => bead(n)) }
          const b = box(grams.map((g, k) => tube(k + 1, g)))
          const { times } = makeable(q, b)
          const counts = tallyPiece(q)
          if (totalOf(counts) === 0) {
            expect(times).toBe(0)
            return
          }
          const enough = (n: number) =>
            [...counts].every(
              ([number, count]) =>
                (n * count) / 0.95 / requireSpec(bead(number).spec).perGram <= grams[number - 1]! + 1e-9,
            )
          expect(enough(times)).toBe(true)
          expect(enough(times + 1)).toBe(false)
        },
      ),
    )
  })
  it('small designs are our own, earrings first, and each is a sound piece that fits', () => {
    expect(SMALL_DESIGNS[0]!.kind).toBe('earrings')
    for (const design of SMALL_DESIGNS) {
      const tubes = lettersOf(design).map(
        (_, k) => tube(k + 1, 50) as ReturnType<typeof smallFromBox>[number]['limit'],
      )
      const p = beginSmall({ design, spec: 'cylinder-11', tubes })
      expect(checkPiece(p)).toEqual([])
      expect(
        p.parts.flatMap((q) =>
          partFindings(q, p).filter(({ code, says }) => code !== 'edge-empty' && !says.includes('hangs well')),
        ),
      ).toEqual([])
      // It is as long as it says, through all of its parts, and each hangs on the one before.
      expect(Math.abs(fitOf(p).differenceMm)).toBeLessThan(0.1)
      expect(p.parts.map((q) => q.on?.part ?? null)).toEqual([null, ...p.parts.slice(0, -1).map((q) => q.id)])
      expect(p.parts.map((q) => q.technique)).toEqual(design.parts.map((q) => q.technique))
      expect(totalOf(tallyPiece(p)) * (design.kind === 'earrings' ? 2 : 1)).toBe(
        lettersOf(design).reduce((sum, l) => sum + l.count, 0),
      )
    }
  })
  it('some hang: strands alike from both sides, below a top with as many beads', () => {
    const hangs = SMALL_DESIGNS.filter((d) => d.parts.length > 1)
    expect(new Set(hangs.map((d) => d.kind))).toEqual(new Set(['earrings', 'pendant']))
    for (const design of hangs) {
      const { rows } = design.parts.at(-1)!
      expect(rows.toReversed()).toEqual(rows)
      const top = design.parts.at(-2)!.rows.at(-1)!
      expect([...top].filter((ch) => ch !== '.')).toHaveLength(rows.length)
    }
    // Rain: tops of 3, 4 and 5, strands of 4 7 10 7 4 with three at the foot of each; both of a pair.
    const rain = SMALL_DESIGNS.find((d) => d.id === 'rain')!
    expect(lettersOf(rain).reduce((sum, l) => sum + l.count, 0)).toBe(2 * (12 + 32 + 15))
  })
  it('give the most used letter the fullest tube of one size', () => {
    const found = smallFromBox(box([tube(1, 0.2), tube(2, 9), tube(3, 4), tube(4, 30, { spec: 'round-8' })]))
    const leaf = found.find((f) => f.design.id === 'leaf')!
    expect(leaf.tubes.map((t) => t.id)).toEqual(['tube-2', 'tube-3', 'tube-1'])
    expect(leaf.spec).toBe('cylinder-11')
    expect(leaf.times).toBeGreaterThanOrEqual(1)
    expect(smallFromBox(box([tube(1, 5)]))).toEqual([])
  })
})
