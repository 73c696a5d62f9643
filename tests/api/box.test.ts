import { beforeAll, describe, expect, inject, it } from 'vitest'
import { pieceToBody } from '#core/piece/codec'
import { shelfValueSchema, type ShelfBead, type ShelfItem, type ShelfValue } from '#core/shelf/shelf'
import type { Holding } from '#core/supply/box'
import type { PriceList } from '#core/supply/price-list'
import { piece } from '../fixture/piece'
import { client, person } from './client'

const address = inject('address')
type Person = Awaited<ReturnType<typeof person>>
let weaver: Person
let other: Person
beforeAll(async () => {
  weaver = await person(address)
  other = await person(address)
})

const TUBE = shelfValueSchema.parse({
  kind: 'bead',
  name: 'Moss',
  spec: 'round-11',
  colour: '#446622',
  finish: 'matte',
  grams: 20,
}) as ShelfBead
const put = async (who: Person, ...values: ShelfValue[]) =>
  (await who.call<{ items: ShelfItem[] }>('POST', 'shelf', { values })).body.items
const list = async (who: Person) => (await who.call<{ items: ShelfItem[] }>('GET', 'shelf')).body.items
const created = async (who: Person) => (await who.call<{ id: string }>('POST', 'piece', pieceToBody(piece()))).body.id
const gramsOf = async (who: Person, id: string) => {
  const { value } = (await list(who)).find((i) => i.id === id)!
  return value.kind === 'bead' ? value.grams : Number.NaN
}
const hold = (who: Person, pieceId: string, what: string, asks: { shelfId: string; amount: number }[] = []) =>
  who.call<{ holdings: Holding[] }>('POST', `piece/${pieceId}/holding`, { what, asks })

describe('things of the box', () => {
  it('are changed where they stand; what was changed elsewhere is not written over', async () => {
    const [item] = await put(weaver, TUBE)
    const heavier = { ...TUBE, grams: 21 }
    expect((await weaver.call('PUT', `shelf/${item!.id}`, { before: TUBE, value: heavier })).status).toBe(200)
    const stale = await weaver.call<{ error: { data: ShelfItem } }>('PUT', `shelf/${item!.id}`, {
      before: TUBE,
      value: { ...TUBE, grams: 5 },
    })
    expect([stale.status, stale.body.error!.code]).toEqual([409, 'stale'])
    expect(await gramsOf(weaver, item!.id)).toBe(21)
    expect(
      (
        await weaver.call('PUT', `shelf/${item!.id}`, {
          before: heavier,
          value: { kind: 'finding', name: 'x', count: 1, price: 0, closure: null },
        })
      ).status,
    ).toBe(422)
  })
  it('of another are as if they were not there', async () => {
    const [item] = await put(weaver, TUBE)
    const theirs = await other.call('PUT', `shelf/${item!.id}`, { before: TUBE, value: { ...TUBE, grams: 0 } })
    const none = await other.call('PUT', 'shelf/00000000-0000-4000-8000-000000000000', { before: TUBE, value: TUBE })
    expect([
      theirs.status,
      none.status,
      (await other.call('PUT', 'shelf/nonsense', { before: TUBE, value: TUBE })).status,
    ]).toEqual([404, 404, 404])
    expect(theirs.body).toEqual(none.body)
    expect((await client(address).call('PUT', `shelf/${item!.id}`, { before: TUBE, value: TUBE })).status).toBe(401)
    expect(await gramsOf(weaver, item!.id)).toBe(20)
  })
})

describe('beads for a piece', () => {
  it('are set aside, taken out, and put back', async () => {
    const [item] = await put(weaver, TUBE)
    const id = await created(weaver)
    const ask = [{ shelfId: item!.id, amount: 6 }]
    const reserved = await hold(weaver, id, 'reserve', ask)
    expect(reserved.body.holdings).toContainEqual({ pieceId: id, shelfId: item!.id, kind: 'reserved', amount: 6 })
    expect(await gramsOf(weaver, item!.id)).toBe(20)
    const taken = await hold(weaver, id, 'take', [{ shelfId: item!.id, amount: 5.5 }])
    expect(taken.body.holdings.filter((h) => h.pieceId === id)).toEqual([
      { pieceId: id, shelfId: item!.id, kind: 'taken', amount: 5.5 },
    ])
    expect(await gramsOf(weaver, item!.id)).toBe(14.5)
    await hold(weaver, id, 'take', [{ shelfId: item!.id, amount: 1 }])
    expect(await gramsOf(weaver, item!.id)).toBe(13.5)
    const back = await hold(weaver, id, 'back')
    expect(back.body.holdings.filter((h) => h.pieceId === id)).toEqual([])
    expect(await gramsOf(weaver, item!.id)).toBe(20)
    await hold(weaver, id, 'reserve', ask)
    expect((await hold(weaver, id, 'release')).body.holdings.filter((h) => h.pieceId === id)).toEqual([])
  })
  it('more than there is cannot be taken, and then nothing is', async () => {
    const [first, second] = await put(weaver, TUBE, { ...TUBE, name: 'Fern', colour: '#335522', grams: 1 })
    const id = await created(weaver)
    const short = await hold(weaver, id, 'take', [
      { shelfId: first!.id, amount: 3 },
      { shelfId: second!.id, amount: 2 },
    ])
    expect([short.status, short.body.error!.code]).toEqual([409, 'box-short'])
    expect(short.body.error!.says).toContain('Fern')
    expect([await gramsOf(weaver, first!.id), await gramsOf(weaver, second!.id)]).toEqual([20, 1])
  })
  it('two at once cannot take the same beads', async () => {
    const [item] = await put(weaver, { ...TUBE, grams: 10 })
    const ids = await Promise.all([created(weaver), created(weaver), created(weaver)])
    const answers = await Promise.all(ids.map((id) => hold(weaver, id, 'take', [{ shelfId: item!.id, amount: 6 }])))
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409, 409])
    expect(await gramsOf(weaver, item!.id)).toBe(4)
  })
  it('nobody takes from another’s box, nor into another’s piece', async () => {
    const [mine] = await put(weaver, TUBE)
    const theirs = await created(other)
    expect((await hold(other, theirs, 'take', [{ shelfId: mine!.id, amount: 1 }])).status).toBe(404)
    expect((await hold(weaver, theirs, 'take', [{ shelfId: mine!.id, amount: 1 }])).status).toBe(404)
    expect(await gramsOf(weaver, mine!.id)).toBe(20)
    expect(JSON.stringify((await other.call('GET', 'holding')).body)).not.toContain(mine!.id)
  })
  it('are free again when the piece is put away, and go with a tube that is thrown away', async () => {
    const [item] = await put(weaver, TUBE)
    const id = await created(weaver)
    await hold(weaver, id, 'reserve', [{ shelfId: item!.id, amount: 6 }])
    await weaver.call('DELETE', `piece/${id}`)
    const holdings = async () =>
      (await weaver.call<{ holdings: Holding[] }>('GET', 'holding')).body.holdings.filter(
        (h) => h.shelfId === item!.id,
      )
    expect(await holdings()).toEqual([])
    await weaver.call('POST', `piece/${id}/restore`, {})
    expect(await holdings()).toHaveLength(1)
    await weaver.call('DELETE', `shelf/${item!.id}`)
    expect(await holdings()).toEqual([])
  })
})

describe('the devices', () => {
  it.each(['scale', 'caliper'])(
    'the %s reads what it is set to, misses a reading, is unplugged, and says so',
    async (kind) => {
      const set = (state: object) =>
        weaver.call('PUT', `device/${kind}`, { on: true, load: 12.34, jitter: 0, failNext: 0, ...state })
      await set({})
      const read = () =>
        weaver.call<{ reading: { value: number; steady: boolean } }>('POST', `device/${kind}/reading`, {})
      expect((await read()).body.reading).toEqual({ value: 12.34, steady: true })
      await set({ failNext: 1 })
      const silent = await read()
      expect([silent.status, silent.body.error!.code]).toEqual([503, 'device-silent'])
      expect((await read()).status).toBe(200)
      await set({ on: false })
      expect((await read()).status).toBe(503)
      await set({ jitter: 0.5 })
      const values = await Promise.all(Array.from({ length: 8 }, async () => (await read()).body.reading.value))
      expect(new Set(values).size).toBeGreaterThan(1)
      for (const v of values) expect(Math.abs(v - 12.34)).toBeLessThanOrEqual(0.51)
      expect((await other.call<{ state: { load: number } }>('GET', `device/${kind}`)).body.state.load).not.toBe(12.34)
    },
  )
  it('others do not exist', async () => {
    expect((await weaver.call('GET', 'device/anvil')).status).toBe(404)
    expect((await client(address).call('POST', 'device/scale/reading', {})).status).toBe(401)
    expect((await weaver.call('PUT', 'device/scale', { on: true, load: -4, jitter: 0, failNext: 0 })).status).toBe(422)
  })
})

describe('the sample supplier', () => {
  const wanted = Array.from({ length: 40 }, (_, k) => ({
    spec: 'cylinder-11',
    colour: `#${(k * 70_007).toString(16).padStart(6, '0')}`,
    finish: 'matte',
  }))
  const ask = (who: Person) => who.call<{ list: PriceList }>('POST', 'supplier/offers', { wanted })
  const settings = (who: Person, more: object) => who.call('PATCH', 'settings', more)
  it('gives whole prices in the account’s currency, the same each time', async () => {
    await settings(weaver, { currency: 'USD', supplier: 'well' })
    const { list } = (await ask(weaver)).body
    expect(list.currency).toBe('USD')
    expect(list.offers).toHaveLength(40)
    for (const o of list.offers)
      for (const p of o.packs) expect(Number.isInteger(p.price) && p.price > 0 && p.stock > 0).toBe(true)
    expect((await ask(weaver)).body.list).toEqual(list)
  })
  it('can be short, and down: then it says what to do', async () => {
    await settings(weaver, { supplier: 'short' })
    expect(
      (await ask(weaver)).body.list.offers.some((o) => o.packs.length > 0 && o.packs.every((p) => p.stock === 0)),
    ).toBe(true)
    await settings(weaver, { supplier: 'down' })
    const down = await ask(weaver)
    expect([down.status, down.body.error!.code]).toEqual([503, 'supplier-down'])
    expect(down.body.error!.says).toContain('works without')
  })
  it('asks who is there', async () =>
    expect((await client(address).call('POST', 'supplier/offers', { wanted })).status).toBe(401))
})
