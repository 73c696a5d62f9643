import { parse } from 'csv-parse/sync'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { piece } from '../../tests/fixture/piece'
import { FINISHES } from '../bead/bead'
import { BEAD_SPECS, ownSpecId } from '../bead/spec'
import { CLOSURES } from '../wear/closure'
import { shelfValueSchema, type Stock } from '../shelf/shelf'
import { THREADS } from '../thread/catalogue'
import { shoppingList } from '../supply/shopping'
import { readBoxCsv, writeBoxCsv } from './box-csv'
import { shoppingCsv } from './shopping-csv'

const name = fc
  .string({ minLength: 1, maxLength: 20 })
  .map((s) => s.replace(/[\p{C}]/gu, '').trim())
  .filter((s) => s !== '' && !s.startsWith("'"))
const anyStock: fc.Arbitrary<Stock> = fc
  .oneof(
    fc.record({
      kind: fc.constant('bead'),
      name,
      spec: fc.constantFrom(
        ...BEAD_SPECS.map((s) => s.id),
        ownSpecId({ shape: 'round', name: 'mine', d: 2, l: 1.5, h: 0.8, perGram: 100 }),
      ),
      colour: fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`),
      finish: fc.constantFrom(...FINISHES),
      grams: fc.integer({ min: 0, max: 99_999 }).map((n) => n / 100),
      tubeGrams: fc.integer({ min: 0, max: 900 }).map((n) => n / 100),
      packGrams: fc.constantFrom(5, 10, 28),
      price: fc.integer({ min: 0, max: 9999 }),
    }),
    fc.record({
      kind: fc.constant('thread'),
      name,
      thread: fc.constantFrom(...THREADS.map((t) => t.id)),
      lengthMm: fc.integer({ min: 0, max: 500_000 }),
      spoolMm: fc.constantFrom(10_000, 50_000),
      price: fc.integer({ min: 0, max: 9999 }),
    }),
    fc.record({
      kind: fc.constant('finding'),
      name,
      count: fc.integer({ min: 0, max: 500 }),
      price: fc.integer({ min: 0, max: 9999 }),
      closure: fc.option(
        fc.record({
          kind: fc.constantFrom(...CLOSURES.map((c) => c.kind)),
          lengthMm: fc.integer({ min: 0, max: 60 }),
        }),
      ),
    }),
  )
  .map((v) => shelfValueSchema.parse(v) as Stock)

describe('the box as CSV', () => {
  it('goes out and comes back', () => {
    fc.assert(
      fc.property(fc.array(anyStock, { maxLength: 12 }), fc.constantFrom('EUR', 'JPY'), (stock, currency) => {
        const back = readBoxCsv(writeBoxCsv(stock, currency), currency)
        expect(back.bad).toEqual([])
        expect(back.stock).toEqual(stock)
      }),
    )
  })
  it('is read by an independent parser (RFC 4180)', () => {
    fc.assert(
      fc.property(fc.array(anyStock, { minLength: 1, maxLength: 6 }), (stock) => {
        const read = parse(writeBoxCsv(stock, 'EUR'), { columns: true, bom: true }) as Record<string, string>[]
        expect(read.map((r) => r.what)).toEqual(stock.map((s) => s.kind))
        expect(read.map((r) => Number(r.amount))).toEqual(
          stock.map((s) => (s.kind === 'bead' ? s.grams : s.kind === 'thread' ? s.lengthMm / 1000 : s.count)),
        )
      }),
    )
  })
  it('reports each bad line with its number and what to do, and reads the others', () => {
    const text = [
      'name;what;amount;size;colour;finish;price',
      'Moss;bead;12,5;cylinder 11/0;#446622;matte;3,40',
      'Fern;bead;some;cylinder 11/0;#446622;matte;',
      'Stone;pebble;3;;;;',
      ';bead;3;cylinder 11/0;#446622;;',
      'Rope;thread;50;rope;;;',
      'Sky;bead;3;cylinder 99/0;#446622;;',
      'Sky;bead;3;cylinder 11/0;blue;;',
      'Sky;bead;3;cylinder 11/0;#446622;shiny;',
      'Hook;finding;2.5;;;;',
      'Ring;finding;4;;;;9.999',
      '',
      'Ring;finding;4;;;;',
    ].join('\r\n')
    const { stock, bad } = readBoxCsv(text, 'EUR')
    expect(stock).toMatchObject([
      { kind: 'bead', name: 'Moss', grams: 12.5, price: 340 },
      { kind: 'finding', name: 'Ring', count: 4 },
    ])
    expect(bad.map((b) => b.line)).toEqual([3, 4, 5, 6, 7, 8, 9, 10, 11])
    for (const b of bad) expect(b.says).toMatch(/[A-Z“].*\.$/)
  })
  it('says which columns are missing', () =>
    expect(readBoxCsv('a,b\n1,2', 'EUR').bad[0]!.says).toContain('what, name, size, amount'))
})

describe('the shopping list as CSV', () => {
  it('holds beads, lengths and findings, and is read by an independent parser', () => {
    const list = shoppingList([{ id: 'a', piece: piece() }])
    const read = parse(shoppingCsv(list), { columns: true }) as Record<string, string>[]
    expect(read.map((r) => r.what)).toEqual(['bead', 'bead', 'length', 'finding'])
    expect(Number(read[0]!['to buy'])).toBeCloseTo(list.beads[0]!.buyGrams, 2)
    expect(read[0]!.packs).toBe('1 × 5 g')
    expect(read[0]!.for).toBe('Test band')
  })
})
