import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import type { MakingAnswer, MakingListing, RecordListing, SyncedMaking } from '#core/contract/making'
import { BENCH_LIMITS, recordSchema, stateOf, type KeptEvent } from '#core/making/event'
import { pieceToBody } from '#core/piece/codec'
import { setStep } from '#core/piece/edit'
import type { ShelfItem } from '#core/shelf/shelf'
import type { Holding } from '#core/supply/box'
import { connect, type Database } from '../../server/database/connection'
import { migrate } from '../../server/database/migrate'
import * as making from '../../server/database/migration/0010-making'
import { thin } from '../../server/service/thinning'
import { piece } from '../fixture/piece'
import { client, person } from './client'

const address = inject('address')
type Person = Awaited<ReturnType<typeof person>>
let weaver: Person
/** Somebody else, with nothing made. */
let neighbour: Person
let db: Database
beforeAll(async () => {
  weaver = await person(address)
  neighbour = await person(address)
  db = connect(inject('databaseUrl'))
})
afterAll(() => db.destroy())

const created = async (who: Person = weaver): Promise<string> =>
  (await who.call<{ id: string }>('POST', 'piece', pieceToBody(piece()))).body.id
const HEAD = { copies: 2, copyOrder: 'side by side', name: '' }
const begun = async (id: string, as = 'begin-one-1', revision = 0) =>
  (await weaver.call<{ making: MakingAnswer }>('POST', `piece/${id}/making`, { as, revision, head: HEAD })).body.making
const at = (row: number, beads = row * 2): KeptEvent['event'] => ({
  do: 'at',
  task: `band/1/${row}`,
  bite: 0,
  says: `Row ${row + 1}`,
  beads,
  of: 32,
})
const sent = (id: string, ago: number, event: KeptEvent['event']) => ({ id, at: Date.now() - ago, event })
const sync = async (id: string, which: string, events: readonly unknown[], after = 0) =>
  weaver.call<SyncedMaking>('POST', `piece/${id}/making/${which}/event`, { after, now: Date.now(), events })

describe('a making', () => {
  it('is begun once, however often that is sent, with what it was begun with', async () => {
    const id = await created()
    const [one, two] = await Promise.all([begun(id), begun(id)])
    expect(two).toEqual(one)
    expect(one).toMatchObject({ ...HEAD, revision: 0 })
    expect(Math.abs(one.begunAt - Date.now())).toBeLessThan(60_000)
    await begun(id, 'begin-two-2')
    const { makings } = (await weaver.call<{ makings: MakingListing[] }>('GET', `piece/${id}/making`)).body
    expect(makings.map((m) => [m.status, m.at, m.says])).toEqual([
      ['planned', 0, ''],
      ['planned', 0, ''],
    ])
    const far = await weaver.call('POST', `piece/${id}/making`, { as: 'begin-far-1', revision: 7, head: HEAD })
    expect(far.status).toBe(404)
    const none = await weaver.call('POST', `piece/${id}/making`, {
      as: 'begin-none-1',
      revision: 0,
      head: { ...HEAD, copies: 0 },
    })
    expect([none.status, none.body.error?.code]).toEqual([422, 'shape-too_small'])
  })
  it('keeps events once and in time, whenever they come, and tells each browser what it lacks', async () => {
    const id = await created()
    const { id: which } = await begun(id)
    const first = (await sync(id, which, [sent('press-0001', 0, at(1)), sent('press-0002', 0, at(2))])).body
    expect(first.events.map((e) => e.id)).toEqual(['press-0001', 'press-0002'])
    expect([first.more, Math.abs(first.now - Date.now()) < 60_000]).toEqual([false, true])
    // Sent again, the answer having been lost; with a press from an hour ago on another device, and a later one.
    const events = [sent('press-0002', 0, at(9)), sent('press-0000', 3_600_000, at(0)), sent('press-0003', 0, at(3))]
    const second = (await sync(id, which, events, first.seq)).body
    expect(second.events.map((e) => e.id)).toEqual(['press-0000', 'press-0003'])
    const all = (await weaver.call<SyncedMaking>('GET', `piece/${id}/making/${which}?after=0`)).body
    expect(all.events).toHaveLength(4)
    const state = stateOf(all.events)
    expect(state.presses.map((p) => p.task)).toEqual(['band/1/0', 'band/1/1', 'band/1/2', 'band/1/3'])
    expect(state.presses[1]!.at - state.presses[0]!.at).toBeGreaterThanOrEqual(3_599_000)
    expect(
      (await weaver.call<SyncedMaking>('GET', `piece/${id}/making/${which}?after=${all.seq}`)).body,
    ).toMatchObject({
      events: [],
      seq: all.seq,
      more: false,
    })
  })
  it('keeps presses in their order though the first took long to come, and its answer was lost', async () => {
    const id = await created()
    const { id: which } = await begun(id)
    const one = { id: 'slow-0001', at: Date.now() - 9000, event: at(1) }
    const two = { id: 'slow-0002', at: one.at + 300, event: at(2) }
    // On the way for eight seconds: taken for a clock that is behind.
    const path = `piece/${id}/making/${which}/event`
    await weaver.call('POST', path, { after: 0, now: Date.now() - 8000, events: [one] })
    const { events } = (await sync(id, which, [one, two])).body
    expect(events.find((e) => e.id === one.id)!.at).toBeGreaterThan(two.at)
    expect(stateOf(events).presses.map((p) => p.task)).toEqual(['band/1/1', 'band/1/2'])
  })
  it('is told page by page where it holds much', async () => {
    const id = await created()
    const { id: which } = await begun(id)
    const many = Array.from({ length: 5200 }, (_, k) => ({
      making_id: which,
      id: `many-${String(k).padStart(6, '0')}`,
      at: 1_000_000 + k,
      kind: 'at',
      event: JSON.stringify(at(k)),
    }))
    for (let k = 0; k < many.length; k += 1000) await db('making_event').insert(many.slice(k, k + 1000))
    const events: string[] = []
    for (let after = 0, more = true; more;) {
      const { body } = await weaver.call<SyncedMaking>('GET', `piece/${id}/making/${which}?after=${after}`)
      events.push(...body.events.map((e) => e.id))
      ;({ seq: after, more } = body)
    }
    expect(events).toEqual(many.map((m) => m.id))
  })
  it('says in the workshop where it stands, the last worked on first, without what was put away', async () => {
    const [one, two, away] = [await created(), await created(), await created()]
    const whichOf = async (id: string) => (await begun(id)).id
    const [a, b, c] = [await whichOf(one), await whichOf(two), await whichOf(away)]
    await sync(one, a, [sent('list-press-1', 60_000, at(40, 82)), sent('list-press-2', 120_000, at(39, 80))])
    await sync(two, b, [sent('list-press-1', 5000, at(3)), sent('list-made-01', 0, { do: 'state', state: 'made' })])
    await sync(away, c, [sent('list-press-1', 0, at(3))])
    await weaver.call('DELETE', `piece/${away}`)
    const { makings } = (await weaver.call<{ makings: MakingListing[] }>('GET', 'making')).body
    const listed = makings.filter((m) => [one, two, away].includes(m.piece))
    expect(listed.map((m) => [m.piece, m.status, m.says, m.beads, m.of])).toEqual([
      [two, 'made', 'Row 4', 6, 32],
      [one, 'on the bench', 'Row 41', 82, 32],
    ])
    expect((await neighbour.call('GET', 'making')).body).toEqual({ makings: [] })
    expect((await client(address).call('GET', 'making')).status).toBe(401)
    expect((await weaver.call('GET', `piece/${away}/making/${c}`)).status).toBe(410)
  })
  it('says by which day it is wanted, as it was said last', async () => {
    const id = await created()
    const { id: which } = await begun(id)
    const due = async () =>
      (await weaver.call<{ makings: MakingListing[] }>('GET', `piece/${id}/making`)).body.makings[0]!.due
    expect(await due()).toBeNull()
    await sync(id, which, [
      sent('due-due-01', 5000, { do: 'due', day: '2026-12-20' }),
      sent('due-due-02', 0, { do: 'due', day: '2026-12-24' }),
    ])
    expect(await due()).toBe('2026-12-24')
    await sync(id, which, [sent('due-due-03', -1000, { do: 'due', day: null })])
    expect(await due()).toBeNull()
    const odd = await sync(id, which, [sent('due-due-04', 0, { do: 'due', day: '2026-02-30' })])
    expect(odd.status).toBe(422)
  })
  it('goes with its events when it is removed, and belongs to its own piece only', async () => {
    const [id, other] = [await created(), await created()]
    const { id: which } = await begun(id)
    await sync(id, which, [sent('press-0001', 0, at(1))])
    for (const path of [`piece/${other}/making/${which}`, `piece/${id}/making/${other}`]) {
      expect((await weaver.call('GET', path)).status).toBe(404)
      expect((await weaver.call('POST', `${path}/event`, { after: 0, now: 0, events: [] })).status).toBe(404)
      expect((await weaver.call('DELETE', path)).status).toBe(404)
    }
    expect((await weaver.call('DELETE', `piece/${id}/making/${which}`)).status).toBe(200)
    expect((await weaver.call('GET', `piece/${id}/making/${which}`)).status).toBe(404)
    expect(await db('making_event').where({ making_id: which })).toEqual([])
  })
  it('is bounded: events sent together, events in all, makings of a piece', async () => {
    const id = await created()
    const { id: which } = await begun(id)
    const many = Array.from({ length: BENCH_LIMITS.together + 1 }, (_, k) => sent(`press-${10_000 + k}`, 0, at(k)))
    expect((await sync(id, which, many)).status).toBe(422)
    expect((await sync(id, which, many.slice(1))).body.events).toHaveLength(BENCH_LIMITS.together)
    await db.raw(
      `insert into making_event (making_id, id, at, kind, event)
        select ?, 'filled-' || n, n, 'at', '{"do":"at","task":"band/1/1","bite":0}' from generate_series(1, ?) as n`,
      [which, BENCH_LIMITS.events - BENCH_LIMITS.together],
    )
    const full = await sync(id, which, [sent('press-more-1', 0, at(1))], Number.MAX_SAFE_INTEGER)
    expect([full.status, full.body.error?.code]).toEqual([409, 'events-many'])
    await db.raw(
      `insert into making (piece_id, begun_as, revision, head)
        select ?, 'filled-' || n, 0, '{"copies":1}' from generate_series(1, ?) as n`,
      [id, BENCH_LIMITS.makings - 1],
    )
    const more = await weaver.call('POST', `piece/${id}/making`, { as: 'begin-more-1', revision: 0, head: HEAD })
    expect([more.status, more.body.error?.code]).toEqual([409, 'makings-many'])
  })
  it('counts to what the account keeps', async () => {
    const who = await person(address)
    const id = (await who.call<{ id: string }>('POST', 'piece', pieceToBody(piece()))).body.id
    const which = (
      await who.call<{ making: MakingAnswer }>('POST', `piece/${id}/making`, {
        as: 'begin-one-1',
        revision: 0,
        head: HEAD,
      })
    ).body.making.id
    const bytes = async () => (await who.call<{ bytes: number }>('GET', 'account/storage')).body.bytes
    const before = await bytes()
    const note = { do: 'note', task: 'band/1/1', text: 'x'.repeat(1500) }
    await who.call('POST', `piece/${id}/making/${which}/event`, {
      after: 0,
      now: 0,
      events: [{ id: 'note-note-1', at: 0, event: note }],
    })
    expect((await bytes()) - before).toBeGreaterThan(1500)
  })
  it('keeps the revisions that it began with and was last compared with from being thinned', async () => {
    const id = await created()
    let now = piece()
    for (let base = 0; base < 700; base += 50) {
      const transactions = Array.from({ length: 50 }, (_, k) => {
        const name = `Name ${base + k + 1}`
        const steps = [setStep(now, ['name'], name)]
        now = { ...now, name }
        return { id: `thinned-${base + k + 1}`, label: 'x', steps }
      })
      await weaver.call('POST', `piece/${id}/step`, { base, transactions })
    }
    await begun(id, 'begin-thin-1', 30)
    // And the last one that it was compared with at the bench.
    const which = await begun(id, 'begin-thin-2', 30)
    await sync(id, which.id, [sent('seen-seen-1', 0, { do: 'seen', revision: 130 })])
    await db('revision')
      .where({ piece_id: id })
      .update({ made_at: db.raw("now() - interval '91 days'") })
    await thin(db)
    const opened = await weaver.call<{ revision: number }>('GET', `piece/${id}/revision/130`)
    expect(opened.body.revision).toBe(130)
    expect(
      (
        (await db('revision')
          .where({ piece_id: id })
          .whereNotNull('steps')
          .orderBy('number')
          .pluck('number')) as number[]
      ).slice(0, 61),
    ).toEqual([1, 101].flatMap((first) => Array.from({ length: 30 }, (_, k) => first + k)).concat(201))
  })
})

describe('what a making took', () => {
  const tube = { kind: 'bead', name: 'Fog', spec: 'cylinder-11', colour: '#aabbcc', finish: 'matte', grams: 10 }
  const spool = { kind: 'thread', name: 'Spool', thread: 'gel-6', lengthMm: 5000 }
  async function ground(who = weaver) {
    const id = await created(who)
    const head = { as: 'begin-one-1', revision: 0, head: HEAD }
    const which = (await who.call<{ making: MakingAnswer }>('POST', `piece/${id}/making`, head)).body.making.id
    const { items } = (await who.call<{ items: ShelfItem[] }>('POST', 'shelf', { values: [tube, spool] })).body
    const [bead, thread] = items.map((i) => i.id) as [string, string]
    const there = async () => {
      const shelf = (await who.call<{ items: ShelfItem[] }>('GET', 'shelf')).body.items
      return [bead, thread].map((which) => {
        const { value } = shelf.find((i) => i.id === which)!
        return value.kind === 'bead' ? value.grams : value.kind === 'thread' ? value.lengthMm : 0
      })
    }
    const held = async () =>
      (await who.call<{ holdings: Holding[] }>('GET', 'holding')).body.holdings
        .filter((h) => h.pieceId === id)
        .map((h) => [h.kind, h.amount])
    const settle = (as: string, uses: readonly { shelfId: string; amount: number }[]) =>
      who.call('POST', `piece/${id}/making/${which}/settle`, { as, uses })
    const state = async () =>
      stateOf((await who.call<SyncedMaking>('GET', `piece/${id}/making/${which}?after=0`)).body.events)
    return { who, id, which, bead, thread, there, held, settle, state }
  }

  it('goes out of the box in one press, with what was taken before counted in, and back in one', async () => {
    const { who, id, bead, thread, there, held, settle, state } = await ground()
    await who.call('POST', `piece/${id}/holding`, { what: 'take', asks: [{ shelfId: bead, amount: 4 }] })
    expect(await there()).toEqual([6, 5000])
    const uses = [
      { shelfId: bead, amount: 3.5 },
      { shelfId: thread, amount: 1200 },
    ]
    expect((await settle('settle-one-1', uses)).status).toBe(200)
    // Sent again, its answer lost: nothing moves twice.
    expect((await settle('settle-one-1', uses)).status).toBe(200)
    expect([await there(), await held()]).toEqual([[6.5, 3800], []])
    expect((await state()).settled).toHaveLength(2)
    expect((await settle('settle-two-1', uses)).body.error?.code).toBe('settled')
    expect((await settle('settle-undo-1', [])).status).toBe(200)
    expect([await there(), await held()]).toEqual([[6, 5000], [['taken', 4]]])
    expect((await state()).settled).toBeNull()
    expect((await settle('settle-undo-2', [])).body.error?.code).toBe('not-settled')
  })
  it('is no more than lies there; what is gone meanwhile is passed over', async () => {
    const { who, bead, thread, there, settle } = await ground()
    const uses = [
      { shelfId: bead, amount: 99 },
      { shelfId: thread, amount: 100 },
    ]
    expect((await settle('settle-one-1', uses)).status).toBe(200)
    expect(await there()).toEqual([0, 4900])
    await who.call('DELETE', `shelf/${thread}`)
    expect((await settle('settle-undo-1', [])).status).toBe(200)
    const { items } = (await who.call<{ items: ShelfItem[] }>('GET', 'shelf')).body
    expect(items.find((i) => i.id === bead)!.value).toMatchObject({ grams: 10 })
    expect(items.some((i) => i.id === thread)).toBe(false)
  })
  it('touches nobody else’s box, and is said by the server alone', async () => {
    const [mine, theirs] = [await ground(), await ground(neighbour)]
    const stolen = await mine.settle('settle-one-1', [{ shelfId: theirs.bead, amount: 1 }])
    expect([stolen.status, await theirs.there()]).toEqual([404, [10, 5000]])
    const forged = await mine.who.call('POST', `piece/${mine.id}/making/${mine.which}/event`, {
      after: 0,
      now: Date.now(),
      events: [sent('settled-own', 0, { do: 'settled', moves: [{ shelfId: theirs.bead, taken: 9, more: 9 }] })],
    })
    expect(forged.status).toBe(422)
  })
  it('is told of all finished makings, the latest record of each', async () => {
    const { who, id, which } = await ground()
    const record = (lengthMm: number) => ({ do: 'record' as const, record: recordSchema.parse({ lengthMm }) })
    await who.call('POST', `piece/${id}/making/${which}/event`, {
      after: 0,
      now: Date.now(),
      events: [sent('record-00', 5000, record(170)), sent('record-01', 0, record(172))],
    })
    const { records } = (await who.call<{ records: RecordListing[] }>('GET', 'making/record')).body
    expect(records.map((r) => [r.making, r.piece, r.record.lengthMm])).toEqual([[which, id, 172]])
    expect((await neighbour.call('GET', 'making/record')).body).toEqual({ records: [] })
    expect((await client(address).call('GET', 'making/record')).status).toBe(401)
  })
})

it('where a person had stopped on a disc becomes a making, and can be carried back', async () => {
  const admin = connect(inject('databaseUrl'))
  const name = `carried_${process.pid}`
  await admin.raw(`create database ${name}`)
  const url = new URL(inject('databaseUrl'))
  url.pathname = `/${name}`
  const old = connect(url.href)
  try {
    await migrate(old)
    await making.down(old)
    const [account] = await old('account')
      .insert({ sign_in: 'Carried', password: 'x' })
      .returning<{ id: string }[]>('id')
    const ids = await Promise.all(
      ['One', 'Two'].map(
        async (title) =>
          (
            await old('piece')
              .insert({ account_id: account!.id, name: title, revision: 3, summary: '{}' })
              .returning<{ id: string }[]>('id')
          )[0]!.id,
      ),
    )
    await old('making_place').insert([
      { piece_id: ids[0], part: 'rope', move: 77, updated_at: '2026-03-01T10:00:00Z' },
      { piece_id: ids[0], part: 'tail', move: 5, updated_at: '2026-02-01T10:00:00Z' },
      { piece_id: ids[1], part: 'rope', move: 0 },
    ])
    await making.up(old)
    const makings = await old('making').select<{ id: string; piece_id: string; revision: number }[]>('*')
    expect(makings.map((m) => [m.piece_id, m.revision])).toEqual([[ids[0], 3]])
    const events = await old('making_event').select<{ id: string; at: string; event: KeptEvent['event'] }[]>('*')
    const state = stateOf(events.map((e) => ({ id: e.id, at: Number(e.at), event: e.event })))
    expect(state).toMatchObject({
      status: 'on the bench',
      moved: { rope: 77, tail: 5 },
      at: Date.parse('2026-03-01T10:00:00Z'),
    })
    await making.down(old)
    expect(await old('making_place').orderBy('part').select('piece_id', 'part', 'move')).toEqual([
      { piece_id: ids[0], part: 'rope', move: 77 },
      { piece_id: ids[0], part: 'tail', move: 5 },
    ])
  } finally {
    await old.destroy()
    await admin.raw(`drop database ${name}`)
    await admin.destroy()
  }
})
