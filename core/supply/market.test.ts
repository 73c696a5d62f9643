import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../tests/fixture/piece'
import { requireSpec } from '../bead/spec'
import { difference } from '../colour/colour'
import { usualClosure } from '../wear/closure'
import { emptyCells } from '../grid/cells'
import type { Piece } from '../piece/piece'
import { costSchema, supplySchema } from '../piece/schema'
import { amountOf, shelfValueSchema, type ShelfInput, type Stock } from '../shelf/shelf'
import { requireTechnique } from '../technique/registry'
import { beadAsks, beadsToBuy } from './beads'
import {
  askOf,
  closureIn,
  contests,
  findingIn,
  freeFor,
  reservedBy,
  spoolOf,
  takenBy,
  tubeOf,
  type Box,
  type Holding,
} from './box'
import { costOf } from './cost'
import { lettersOf, makeable, SMALL_DESIGNS, smallFromBox, type SmallDesign } from './leftovers'
import { hankGrams } from './packs'
import { keyOfWanted, type Offer } from './price-list'
import { shoppingList } from './shopping'
import { cutList, lengthsOf } from './thread'

const stock = (value: ShelfInput): Stock => shelfValueSchema.parse(value) as Stock
const tube = (number: number, grams: number, over: object = {}, id = `tube-${number}`) => {
  const { name, spec, colour, finish } = bead(number)
  return { id, value: stock({ kind: 'bead', name, spec, colour, finish, grams, ...over } as ShelfInput) }
}
const finding = (id: string, name: string, count: number, kind?: 'toggle' | 'button') => ({
  id,
  value: stock({ kind: 'finding', name, count, ...(kind ? { closure: { kind, lengthMm: 14 } } : {}) }),
})
const box = (items: Box['items'], holdings: Holding[] = []): Box => ({ items, holdings })
const held = (pieceId: string, shelfId: string, kind: Holding['kind'], amount: number): Holding => ({
  pieceId,
  shelfId,
  kind,
  amount,
})
/** So many rows of two beads A: 2 × rows beads in all, no spare but five, no culls. */
const plain = (count: number, over: Partial<Piece> = {}) =>
  piece({
    supply: supplySchema.parse({ spare: 0, cull: 0 }),
    parts: [part({ start: emptyCells(2, 0), repeat: rows('AA'), end: emptyCells(2, 0), times: count / 2 })],
    ...over,
  })
const cords = (over: Partial<Piece> = {}): Piece =>
  piece({
    tray: [bead(1, { spec: 'cord-2', name: 'Moss' }), bead(2, { spec: 'cord-2', name: 'Sand' })],
    parts: [
      part({
        technique: 'braid-cord',
        settings: requireTechnique('braid-cord').settings.parse({ braid: '8' }) as Record<string, string>,
        spec: 'cord-2',
        start: emptyCells(8, 0),
        repeat: rows('ABABABAB'),
        end: emptyCells(8, 0),
        times: 40,
      }),
    ],
    ...over,
  })

describe('what pieces hold', () => {
  it('is told apart by thing, by kind and by piece, whatever else is held', () => {
    const [shelf, pieces, kinds] = [['x', 'y'], ['me', 'you', 'they'], ['reserved', 'taken'] as const]
    const holding = fc.record({
      pieceId: fc.constantFrom(...pieces),
      shelfId: fc.constantFrom(...shelf),
      kind: fc.constantFrom(...kinds),
      amount: fc.integer({ min: 1, max: 9 }),
    })
    fc.assert(
      fc.property(fc.array(holding, { maxLength: 12 }), fc.integer({ min: 0, max: 30 }), (holdings, grams) => {
        const [x, y] = shelf.map((id) => tube(1, grams, {}, id))
        const b = box([x!, y!], holdings)
        for (const item of b.items) {
          const sums = new Map<string, number>()
          for (const h of holdings)
            if (h.shelfId === item.id)
              sums.set(`${h.kind} ${h.pieceId}`, (sums.get(`${h.kind} ${h.pieceId}`) ?? 0) + h.amount)
          const of = (kind: string, who: string) => sums.get(`${kind} ${who}`) ?? 0
          expect(takenBy(b, item, 'me')).toBe(of('taken', 'me'))
          expect(reservedBy(b, item, 'me')).toBe(of('reserved', 'me'))
          expect(freeFor(b, item, 'me')).toBe(Math.max(0, grams - of('reserved', 'you') - of('reserved', 'they')))
          for (const asked of [0, 3, 25]) {
            const most = Math.max(0, grams - of('reserved', 'you') - of('reserved', 'they'))
            const [ask] = askOf(b, item, 'me', asked)
            expect(ask?.amount ?? 0).toBe(Math.max(0, Math.min(most, asked - of('taken', 'me'))))
            if (ask) expect(ask.shelfId).toBe(item.id)
          }
          expect(askOf(b, undefined, 'me', 3)).toEqual([])
          const wanted = pieces.reduce((sum, who) => sum + of('reserved', who), 0)
          const contest = contests(b).find((c) => c.item.id === item.id)
          expect(contest?.wanted).toBe(wanted > grams ? wanted : undefined)
        }
      }),
    )
  })
  it('of things that serve alike that one is taken which the piece holds, then the fullest', () => {
    const [full, mine] = [tube(1, 9, {}, 'full'), tube(1, 2, {}, 'mine')]
    for (const items of [
      [full, mine],
      [mine, full],
    ]) {
      expect(tubeOf(box(items), bead(1))!.id).toBe('full')
      for (const kind of ['reserved', 'taken'] as const)
        expect(tubeOf(box(items, [held('me', 'mine', kind, 1)]), bead(1), 'me')!.id).toBe('mine')
      expect(tubeOf(box(items, [held('you', 'full', 'reserved', 8)]), bead(1), 'me')!.id).toBe('mine')
    }
  })
  it('findings are found by name, in capitals or not; closures by kind, and by name where one is named', () => {
    const items = [
      tube(1, 900),
      { id: 'thread', value: stock({ kind: 'thread', name: 'Crimp', thread: 'gel-6', lengthMm: 1e6 }) },
      finding('crimp', 'CRIMP, brass', 5),
      finding('copper', 'Copper toggle', 2, 'toggle'),
      finding('silver', 'Silver toggle', 7, 'toggle'),
      finding('button', 'Horn button', 90, 'button'),
    ]
    const b = box(items)
    expect(findingIn(b, 'Crimp, Brass')?.id).toBe('crimp')
    expect(findingIn(b, 'crimp')).toBeUndefined()
    expect(spoolOf(b, 'gel-6')?.id).toBe('thread')
    expect(spoolOf(b, 'nylon-d')).toBeUndefined()
    const closing = (kind: 'toggle' | 'button' | 'ear-wire', name = '') => {
      const p = piece()
      return closureIn(b, { ...p, fit: { ...p.fit, closure: { ...usualClosure(kind), name } } })?.id
    }
    expect([closing('toggle'), closing('button'), closing('ear-wire')]).toEqual(['silver', 'button', undefined])
    expect([closing('toggle', 'Copper toggle'), closing('toggle', 'Gold toggle')]).toEqual(['copper', undefined])
  })
})

describe('beads of one kind', () => {
  const offers = (packs: Offer['packs']) =>
    new Map<string, Offer>([[keyOfWanted(bead(1)), { wanted: bead(1), article: 'x', packs }]])
  const priced = (price: number, number = 1) => costSchema.parse({ beads: [{ number, grams: 5, price }] })
  it('are priced by the maker, else by the supplier’s pack of ten grams or its first, else by the box', () => {
    const packs = [
      { grams: 4, price: 180, stock: 9 },
      { grams: 10, price: 330, stock: 9 },
    ]
    const inBox = box([tube(1, 1, { price: 250, packGrams: 8 })])
    const price = (p: Piece, market: object) => beadsToBuy(p, market)[0]!.unitPrice
    expect(price(plain(400, { cost: priced(200) }), { offers: offers(packs), box: inBox })).toEqual({
      grams: 5,
      price: 200,
      from: 'you',
    })
    expect(price(plain(400, { cost: priced(0) }), { offers: offers(packs), box: inBox })).toEqual({
      grams: 10,
      price: 330,
      from: 'supplier',
    })
    expect(price(plain(400, { cost: priced(200, 2) }), { offers: offers(packs.slice(0, 1)) })).toEqual({
      grams: 4,
      price: 180,
      from: 'supplier',
    })
    expect(price(plain(400), { offers: offers([]), box: inBox })).toEqual({ grams: 8, price: 250, from: 'box' })
    expect(price(plain(400), { box: box([tube(1, 1)]) })).toBeNull()
    // Prices in another currency than the piece's are no prices.
    expect(price(plain(400), { offers: offers(packs), box: inBox, currency: 'USD' })).toBeNull()
  })
  it('come in the maker’s packs at the maker’s price in proportion, in the supplier’s at his, and in hanks', () => {
    // 400 beads and 5 more: 405 / 195 = 2.08 g
    const mine = beadsToBuy(plain(400, { cost: priced(200) }), { offers: offers([{ grams: 3, price: 1, stock: 9 }]) })
    expect(mine[0]).toMatchObject({ packGrams: 5, price: 200 })
    const theirs = beadsToBuy(plain(400), { offers: offers([{ grams: 3, price: 120, stock: 9 }]) })
    expect(theirs[0]).toMatchObject({ packGrams: 3, price: 120 })
    expect(beadsToBuy(plain(400), { offers: offers([]) })[0]).toMatchObject({ packGrams: 5, price: null })
    const hank = hankGrams(requireSpec('cylinder-11'))
    const supply = { spare: 0, cull: 0, packGrams: [1000] }
    const inHanks = (hanks: boolean) =>
      beadsToBuy(plain(400, { supply: supplySchema.parse({ ...supply, hanks }) }))[0]!.packs
    expect(inHanks(true)).toMatchObject([{ grams: hank, kind: 'hank', count: 1 }])
    expect(inHanks(false)).toMatchObject([{ grams: 1000, kind: 'pack' }])
  })
  it('take from the box what is theirs and free, buy the rest, and say what is left', () => {
    // 780 beads at culls of a fifth: 785 / 0.8 = 981.25 → 982 in the bag, 975 worked in; 195 a gram
    const p = plain(780, { supply: supplySchema.parse({ spare: 0, cull: 0.2, packGrams: [1] }) })
    const [buy] = beadsToBuy(p, {
      pieceId: 'me',
      box: box([tube(1, 3)], [held('me', 'tube-1', 'taken', 1), held('you', 'tube-1', 'reserved', 1)]),
    })
    expect(buy!.need).toBe(982)
    expect([buy!.takenGrams, buy!.fromBoxGrams]).toEqual([1, 2])
    expect(buy!.buyGrams).toBeCloseTo(982 / 195 - 3, 9)
    expect(buy!.packGrams).toBe(3)
    expect(buy!.usedGrams).toBeCloseTo(5, 9)
    // 6 g hold 1170, a fifth of them bad: 936 sound ones less 780
    expect(buy!.left).toBe(936 - 780)
    // To take out: what is worked in, less what was taken already, as far as the box gives it.
    expect(beadAsks([buy!], 'reserve')).toEqual([{ shelfId: 'tube-1', amount: 2 }])
    expect(beadAsks([buy!], 'take')).toEqual([{ shelfId: 'tube-1', amount: 2 }])
    const plenty = beadsToBuy(p, { pieceId: 'me', box: box([tube(1, 30)], [held('me', 'tube-1', 'taken', 1)]) })
    expect(beadAsks(plenty, 'take')).toEqual([{ shelfId: 'tube-1', amount: 4 }])
    expect(beadAsks(beadsToBuy(p), 'reserve')).toEqual([])
    expect(plenty[0]).toMatchObject({ buyGrams: 0, packGrams: 0, packs: [] })
    expect(plenty[0]!.fromBoxGrams).toBeCloseTo(982 / 195 - 1, 9)
    const none = beadsToBuy(p, { offers: offers([{ grams: 1, price: 9, stock: 0 }]) })[0]!
    expect([none.packGrams, none.buyGrams, none.shortGrams]).toEqual([0, none.grams, none.grams])
  })
})

describe('what a piece costs', () => {
  const line = (p: Piece, id: string) => costOf(p).lines.find((l) => l.id === id)
  it('has only the lines that it has things for', () => {
    const ids = (p: Piece) => costOf(p).lines.map((l) => l.id)
    const open = { ...plain(400), fit: { ...piece().fit, closure: usualClosure('none') } }
    expect(ids(open)).toEqual(['beads', 'thread', 'work', 'prepare'])
    expect(ids(piece())).toContain('closure')
    expect(ids(cords())).not.toContain('beads')
    expect(ids(plain(400))).not.toContain('findings')
  })
  it('counts thread and cord by length, closures and findings for each of a batch, and what it does not know', () => {
    const cost = costSchema.parse({
      threadMm: 1000,
      threadPrice: 100,
      closure: 70,
      findings: [{ name: 'Crimp', count: 2, price: 5 }],
      asked: 900,
      prepareMinutes: 0,
      hourly: 0,
    })
    const p = plain(400, { cost, supply: supplySchema.parse({ batch: 3 }) })
    const thread = 3 * cutList(p).reduce((sum, c) => sum + c.totalMm, 0)
    expect(line(p, 'thread')).toMatchObject({ least: thread / 10, unknown: 0 })
    expect([line(p, 'closure')!.least, line(p, 'findings')!.least]).toEqual([210, 30])
    const costing = costOf(p)
    expect([costing.asked, costing.materials]).toEqual([2700, thread / 10 + 240])
    expect(costing.margin).toEqual({ least: 2700 - costing.most, most: 2700 - costing.least })
    expect(costOf(plain(400)).margin).toBeNull()
    // Elastic is no thread by the metre.
    const elastic = { ...p, fit: { ...p.fit, closure: usualClosure('elastic') } }
    expect(lengthsOf(elastic, 1).some((l) => l.material === 'elastic')).toBe(true)
    expect(line(elastic, 'thread')!.least).toBe(
      (3 *
        cutList(elastic)
          .filter((c) => c.material === 'thread')
          .reduce((sum, c) => sum + c.totalMm, 0)) /
        10,
    )
    const unlaid = plain(0, { cost: costSchema.parse({}) })
    expect(line(unlaid, 'thread')).toMatchObject({ least: 0, unknown: 0 })
    expect(line(plain(400), 'thread')!.unknown).toBe(1)
  })
  it('materials are all but the work and its preparation', () => {
    const p = plain(400, { cost: costSchema.parse({ hourly: 1000, prepareMinutes: 60, closure: 80 }) })
    const of = (id: string) => line(p, id)!.least
    expect([of('work'), of('prepare')]).toEqual([2000, 1000])
    expect(costOf(p).materials).toBe(costOf(p).least - 3000)
  })
  it('a crossing of plain cords takes as long as a bead, and is called by its name', () => {
    const p = cords({ cost: costSchema.parse({ hourly: 1000 }), supply: supplySchema.parse({ batch: 2 }) })
    // 40 rows of 8 crossings, two pieces: 640, at 200 to 100 an hour
    expect(costOf(p).hours).toEqual({ least: 3.2, most: 6.4 })
    expect(line(p, 'work')).toMatchObject({ name: 'Braiding', least: 3200, most: 6400 })
    expect(line(plain(400), 'work')!.name).toBe('Beading')
    expect(line(plain(0), 'work')!.name).toBe('Beading')
    const both = { ...p, tray: [...p.tray, bead(3)], parts: [...p.parts, part({ id: 'b', repeat: rows('CCCC') })] }
    expect(line(both, 'work')!.name).toBe('Beading')
    expect(costOf(both).hours.most).toBeCloseTo(6.4 + beadsToBuy(both).reduce((sum, b) => sum + b.count, 0) / 100, 9)
  })
})

describe('a shopping list', () => {
  const entry = (p: Piece, id = 'a') => ({ id, piece: p })
  it('adds two beads of a tray that are one bead, and keeps pieces apart in who wants it', () => {
    const twice = piece({
      name: 'Twice',
      tray: [bead(1), { ...bead(1), number: 2, letter: 'B' }, bead(3)],
      supply: supplySchema.parse({ batch: 2 }),
      parts: [part({ start: rows('AABB'), repeat: rows('AAAB'), end: rows('CCCC'), times: 2 })],
    })
    // A and B: 4 + 2 × 4 = 12, made twice
    const list = shoppingList([entry(twice), entry(plain(100, { name: 'Plain' }), 'b')])
    const [one] = list.beads.filter((b) => b.bead.colour === bead(1).colour)
    expect(one!.count).toBe(24 + 100)
    expect(one!.wantedBy).toEqual([
      { id: 'a', name: 'Twice', count: 24 },
      { id: 'b', name: 'Plain', count: 100 },
    ])
    expect(list.beads).toHaveLength(2)
  })
  it('is in order of size, then of name', () => {
    const tray = [
      bead(1, { spec: 'round-8', name: 'Zinc' }),
      bead(2, { spec: 'cylinder-11', name: 'Moss' }),
      bead(3, { spec: 'cylinder-11', name: 'Amber' }),
    ]
    const p = piece({ tray, parts: [part({ start: rows('ABCA'), repeat: rows('ABCA'), end: rows('ABCA') })] })
    const shown = shoppingList([entry(p)]).beads.map((b) => [requireSpec(b.bead.spec).name, b.bead.name])
    expect(shown).toEqual([...shown].sort(([a, b], [c, d]) => a!.localeCompare(c!) || b!.localeCompare(d!)))
    expect(shown.map(([, name]) => name).indexOf('Amber')).toBeLessThan(shown.map(([, name]) => name).indexOf('Moss'))
  })
  it('has a price for what is to buy, and none for what the box gives', () => {
    const p = plain(400)
    const rich = shoppingList([entry(p)], { box: box([tube(1, 50)]) })
    expect([rich.price, rich.unknown]).toEqual([0, 0])
    expect(shoppingList([entry(p)]).unknown).toBe(1)
    expect(shoppingList([], {}).currency).toBe('EUR')
    expect(shoppingList([entry(plain(2, { cost: costSchema.parse({ currency: 'GBP' }) }))]).currency).toBe('GBP')
    expect(shoppingList([entry(p)], { currency: 'USD' }).currency).toBe('USD')
  })
  const others = (p: Piece, b?: Box) =>
    Object.fromEntries(shoppingList([entry(p)], b ? { box: b } : {}).others.map((o) => [o.id, o]))
  it('names everything that is cut, for as many as are made', () => {
    const p = cords({ name: 'Rope', supply: supplySchema.parse({ batch: 2 }) })
    const list = others(p)
    const cut = (id: string) => cutList(p).find((c) => c.id === id)!.totalMm
    expect(list[`cord/${`Moss, ${requireSpec('cord-2').name}`.toLowerCase()}`]).toMatchObject({
      unit: 'mm',
      wanted: 2 * cut('cord-1'),
      fromBox: 0,
      buy: 2 * cut('cord-1'),
      wantedBy: ['Rope'],
    })
    expect(Object.keys(list).some((id) => id.startsWith('thread/'))).toBe(false)
    const band = others(plain(400))
    expect(Object.keys(band).filter((id) => id.startsWith('thread'))).toEqual(['thread/gel-6'])
  })
  it('asks for two end caps a rope, unless the piece names its own', () => {
    const caps = (p: Piece) => Object.entries(others(p)).filter(([id]) => id.startsWith('cap/'))
    const p = cords({ supply: supplySchema.parse({ batch: 3 }) })
    expect(caps(p)).toHaveLength(1)
    expect(caps(p)[0]![1]).toMatchObject({ unit: 'count', wanted: 6, fromBox: 0, buy: 6 })
    const naming = (...names: string[]) =>
      caps({ ...p, cost: costSchema.parse({ findings: names.map((name) => ({ name, count: 1, price: 0 })) }) })
    expect(naming('Crimp', 'END CAPS, brass')).toEqual([])
    expect(naming('Glue, not end caps')).toHaveLength(1)
  })
  it('wants a closure for each that is made and each place where it opens; no elastic, no bent wires', () => {
    const p = plain(400, { supply: supplySchema.parse({ batch: 2, earWireGauge: 0 }) })
    const closing = (kind: Parameters<typeof usualClosure>[0], over: object = {}, gauge = 0) => {
      const q = {
        ...p,
        supply: { ...p.supply, earWireGauge: gauge },
        fit: { ...p.fit, closure: { ...usualClosure(kind), ...over } },
      }
      return Object.entries(others(q)).find(([id]) => id.startsWith('closure/'))?.[1].wanted
    }
    expect([closing('toggle'), closing('button', { openings: 3 }), closing('toggle', { openings: 0 })]).toEqual([
      2, 6, 2,
    ])
    expect([closing('none'), closing('elastic')]).toEqual([undefined, undefined])
    expect([closing('ear-wire'), closing('ear-wire', {}, 20), closing('toggle', {}, 20)]).toEqual([2, undefined, 2])
  })
  it('takes findings and threads off that lie there free, or were taken out already', () => {
    const p = plain(400, {
      supply: supplySchema.parse({ batch: 2 }),
      cost: costSchema.parse({ findings: [{ name: 'Crimp', count: 4, price: 1 }] }),
    })
    const b = (holdings: Holding[]) => box([finding('crimp', 'crimp', 5)], holdings)
    const crimps = (holdings: Holding[]) => others(p, b(holdings))['finding/crimp']!
    expect(crimps([])).toMatchObject({ wanted: 8, fromBox: 5, buy: 3 })
    expect(crimps([held('you', 'crimp', 'reserved', 4)])).toMatchObject({ fromBox: 1, buy: 7 })
    expect(crimps([held('a', 'crimp', 'reserved', 4)])).toMatchObject({ fromBox: 5, buy: 3 })
    expect(crimps([held('a', 'crimp', 'taken', 2)])).toMatchObject({ fromBox: 7, buy: 1 })
    expect(crimps([held('a', 'crimp', 'taken', 9)])).toMatchObject({ fromBox: 8, buy: 0 })
    expect(others(p, box([]))['finding/crimp']).toMatchObject({ fromBox: 0, buy: 8 })
  })
})

describe('what leftovers make', () => {
  it('a pair of the tray that is one tube needs of it what both need, culls included', () => {
    const p = piece({
      tray: [bead(1), { ...bead(1), number: 2, letter: 'B' }],
      supply: supplySchema.parse({ cull: 0.5, batch: 7 }),
      parts: [part({ start: rows('AABB'), repeat: rows('AABB'), end: rows('AABB'), times: 3 })],
    })
    // 20 beads, half of them bad: 40 of 195 a gram; batches are no matter
    expect(makeable(p, box([tube(1, 40 / 195)])).times).toBe(1)
    expect(makeable(p, box([tube(1, 39.9 / 195)])).times).toBe(0)
    expect(makeable(p, box([tube(1, 121 / 195)]))).toMatchObject({ times: 3, limit: { needGrams: 40 / 195 } })
    const pair = { ...p, fit: { ...p.fit, kind: 'earrings' as const } }
    expect(makeable(pair, box([tube(1, 121 / 195)])).times).toBe(1)
  })
  it('counts letters for both of a pair, the most used first, then in order of the alphabet', () => {
    const design = (kind: SmallDesign['kind'], ...lines: string[]): SmallDesign => ({
      id: 'x',
      name: 'X',
      kind,
      parts: [{ name: 'Band', technique: 'square', rows: lines }],
    })
    expect(lettersOf(design('ring', 'cab.', 'ccb.', 'cba.'))).toEqual([
      { letter: 'c', count: 4 },
      { letter: 'b', count: 3 },
      { letter: 'a', count: 2 },
    ])
    expect(lettersOf(design('earrings', 'ba', 'ab'))).toEqual([
      { letter: 'a', count: 4 },
      { letter: 'b', count: 4 },
    ])
  })
  it('tubes are the fullest whose colours can be told apart; where these are too few, the next', () => {
    const design = SMALL_DESIGNS.find((d) => lettersOf(d).length === 3)!
    const greys = ['#808080', '#828282', '#101010', '#f8f8f8']
    expect(difference(greys[0]!, greys[1]!)).toBeLessThan(22)
    const grey = (k: number, grams: number) => tube(1, grams, { colour: greys[k] }, `grey-${k}`)
    const chosen = (items: Box['items']) => smallFromBox(box(items), [design])[0]?.tubes.map((t) => t.id)
    expect(chosen([grey(0, 40), grey(1, 30), grey(2, 20), grey(3, 10)])).toEqual(['grey-0', 'grey-2', 'grey-3'])
    expect(chosen([grey(0, 40), grey(1, 30), grey(2, 20)])).toEqual(['grey-0', 'grey-2', 'grey-1'])
    expect(chosen([grey(0, 40), grey(1, 30)])).toBeUndefined()
  })
  it('a design is made in the size that makes most of it, as often as its scarcest tube lets it', () => {
    const design = SMALL_DESIGNS.find((d) => lettersOf(d).length === 3)!
    const letters = lettersOf(design)
    const set = (spec: string, times: number) =>
      letters.map(({ count }, k) => {
        const colour = ['#b01010', '#10b010', '#1010b0'][k]!
        return tube(1, (times * count) / 0.95 / requireSpec(spec).perGram, { spec, colour }, `${spec} ${k}`)
      })
    const found = smallFromBox(box([...set('cylinder-11', 2), ...set('round-8', 5), ...set('round-15', 3)]), [design])
    expect(found).toMatchObject([{ spec: 'round-8', times: 5 }])
    const scarce = set('round-8', 4).map((t, k) =>
      k === 2 ? { ...t, value: { ...t.value, grams: amountOf(t.value) / 4 } as Stock } : t,
    )
    expect(smallFromBox(box(scarce), [design])).toMatchObject([{ times: 1, limit: { id: 'round-8 2' } }])
    const less = scarce.map((t, k) =>
      k === 2 ? { ...t, value: { ...t.value, grams: amountOf(t.value) * 0.98 } as Stock } : t,
    )
    expect(smallFromBox(box([...less, finding('f', 'Crimp', 99)]), [design])).toEqual([])
  })
})
