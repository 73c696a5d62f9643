import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  inOrder,
  keptEventSchema,
  MAKING_STATES,
  MISTAKE_WAYS,
  recordSchema,
  stateOf,
  statusOf,
  timeHere,
  type KeptEvent,
} from './event'
import { paceOf, PAUSE_MS, sittingsOf, workedMs } from './sitting'

const id = fc.integer({ min: 0, max: 30 }).map((n) => `event-${String(n).padStart(4, '0')}`)
const what: fc.Arbitrary<KeptEvent['event']> = fc.oneof(
  fc.record({
    do: fc.constant('at' as const),
    task: fc.integer({ min: 0, max: 99 }).map((row) => `band/1/${row}`),
    bite: fc.integer({ min: 0, max: 3 }),
    says: fc.constant('Row'),
    beads: fc.integer({ min: 0, max: 500 }),
    of: fc.constant(500),
  }),
  fc.record({ do: fc.constant('moved' as const), part: fc.constantFrom('a', 'b'), moves: fc.nat(99) }),
  fc.record({
    do: fc.constant('joined' as const),
    task: fc.constantFrom('band/1/1', 'band/1/2'),
    joined: fc.boolean(),
  }),
  fc.record({ do: fc.constant('note' as const), task: fc.constant('band/1/1'), text: fc.constantFrom('one', 'two') }),
  fc.record({
    do: fc.constant('ticked' as const),
    task: fc.constantFrom('band/1/0/prepare', 'band/1/end/glue'),
    items: fc.subarray(['beads', 'done'], { minLength: 1 }),
    done: fc.boolean(),
  }),
  fc.record({
    do: fc.constant('measured' as const),
    task: fc.constantFrom('band/1/9/measure', 'band/1/20/measure'),
    part: fc.constant('band'),
    rows: fc.integer({ min: 1, max: 40 }),
    mm: fc.integer({ min: 1, max: 90 }),
  }),
  fc.record({
    do: fc.constant('mistake' as const),
    task: fc.constant('band/1/3'),
    says: fc.constant('one too many'),
    way: fc.constantFrom(...MISTAKE_WAYS),
    beads: fc.nat(90),
    minutes: fc.nat(90),
  }),
  fc.record({ do: fc.constant('due' as const), day: fc.constantFrom('2026-12-01', null) }),
  fc.record({ do: fc.constant('seen' as const), revision: fc.nat(9) }),
  fc.record({
    do: fc.constant('record' as const),
    record: fc.record({ lengthMm: fc.integer({ min: 1, max: 400 }) }).map((r) => recordSchema.parse(r)),
  }),
  fc.record({ do: fc.constant('state' as const), state: fc.constantFrom(...MAKING_STATES) }),
)
const anyEvents: fc.Arbitrary<KeptEvent[]> = fc.uniqueArray(
  fc.record({ id, at: fc.integer({ min: 0, max: 40 }), event: what }),
  { selector: (e) => e.id, maxLength: 24 },
)

describe('what follows from events', () => {
  it('is the same in whichever order they came, and however often each was sent', () => {
    fc.assert(
      fc.property(
        anyEvents.chain((events) =>
          fc.tuple(
            fc.constant(events),
            fc.shuffledSubarray(events, { minLength: events.length }),
            fc.subarray(events),
          ),
        ),
        ([events, shuffled, again]) => {
          expect(stateOf([...shuffled, ...again])).toEqual(stateOf(events))
        },
      ),
    )
  })
  it('can be said from the latest at the work and the latest state alone, as lists do', () => {
    fc.assert(
      fc.property(anyEvents, (events) => {
        const latest = (some: KeptEvent[]) =>
          some.reduce<KeptEvent | null>(
            (best, e) => (!best || e.at > best.at || (e.at === best.at && e.id > best.id) ? e : best),
            null,
          )
        const named = latest(events.filter((e) => e.event.do === 'state'))
        const worked = latest(events.filter((e) => e.event.do === 'at' || e.event.do === 'moved'))?.at ?? 0
        const state = named?.event.do === 'state' ? { at: named.at, state: named.event.state } : null
        expect(stateOf(events).status).toBe(statusOf(state, worked))
        expect(stateOf(events).at).toBe(worked)
      }),
    )
  })
  it('puts what is planned on the bench when hands are at it, and leaves what is made', () => {
    const at = (ms: number): KeptEvent => ({
      id: `at-at-at-${ms}`,
      at: ms,
      event: { do: 'at', task: 'band/1/1', bite: 0, says: '', beads: 4, of: 8 },
    })
    const state = (ms: number, now: (typeof MAKING_STATES)[number]): KeptEvent => ({
      id: `state-${ms}-${now.replaceAll(' ', '-')}`,
      at: ms,
      event: { do: 'state', state: now },
    })
    expect(stateOf([]).status).toBe('planned')
    expect(stateOf([at(5)]).status).toBe('on the bench')
    expect(stateOf([at(5), state(9, 'planned')]).status).toBe('planned')
    expect(stateOf([state(3, 'planned'), at(5)]).status).toBe('on the bench')
    expect(stateOf([state(6, 'made'), at(9)]).status).toBe('made')
    expect(stateOf([state(6, 'made'), state(7, 'given')]).status).toBe('given')
    expect(stateOf([state(7, 'made'), state(8, 'on the bench')]).status).toBe('on the bench')
  })
  it('keeps what was pressed and noted, and what went out of the box until it is put back', () => {
    const one = (k: number, event: KeptEvent['event'], at = k): KeptEvent => ({ id: `one-one-${k}`, at, event })
    const press = { do: 'at', task: 'band/1/1', bite: 2, says: '', beads: 4, of: 8 } as const
    const moves = [{ shelfId: 'tube', amount: 1.5 }]
    const state = stateOf([
      one(1, press),
      one(2, { do: 'note', task: 'band/1/1', text: 'soft thread' }),
      one(3, { do: 'settled', moves } as never),
    ])
    expect(stateOf([])).toMatchObject({ seen: -1, notes: [], presses: [], settled: null })
    expect(state.presses).toEqual([{ at: 1, task: 'band/1/1', bite: 2, beads: 4 }])
    expect(state.notes).toEqual([{ id: 'one-one-2', at: 2, task: 'band/1/1', text: 'soft thread' }])
    expect(state.settled).toEqual(moves)
    expect(
      stateOf([one(3, { do: 'settled', moves } as never), one(4, { do: 'settled', moves: [] })]).settled,
    ).toBeNull()
    // At one moment, the order of the ids decides, wherever it is asked.
    const due = (k: number, day: string) => one(k, { do: 'due', day }, 7)
    for (const order of [[1, 2] as const, [2, 1] as const])
      expect(stateOf(order.map((k) => due(k, `2026-12-0${k}`))).due).toBe('2026-12-02')
  })
  it('is read strictly: no other kinds, no halves of characters, no time before the press', () => {
    const note = (text: string) => ({ id: 'note-note-1', at: 1, event: { do: 'note', task: 'band/1/1', text } })
    expect(keptEventSchema.safeParse(note('Thread nearly out')).success).toBe(true)
    expect(keptEventSchema.safeParse(note('\ud800')).success).toBe(false)
    expect(keptEventSchema.safeParse(note('')).success).toBe(false)
    expect(keptEventSchema.safeParse({ id: 'x', at: 1, event: { do: 'state', state: 'made' } }).success).toBe(false)
    expect(keptEventSchema.safeParse({ id: 'other-kind', at: 1, event: { do: 'sold' } }).success).toBe(false)
    const kept = (at: number) => ({ id: 'state-made', at, event: { do: 'state', state: 'made' } })
    expect([0, 1e12, -1, 0.5].map((at) => keptEventSchema.safeParse(kept(at)).success)).toEqual([
      true,
      true,
      false,
      false,
    ])
  })
})

describe('what is one thing', () => {
  const kept = (at: number, event: KeptEvent['event']): KeptEvent => ({ id: `event-${at}-x`, at, event })
  it('is as it was said last: joins, ticks, measures of a stop, the day, the record', () => {
    const state = stateOf([
      kept(1, { do: 'joined', task: 'band/1/9', joined: true }),
      kept(2, { do: 'joined', task: 'band/1/9', joined: false }),
      kept(3, { do: 'ticked', task: 'band/1/0/prepare', items: ['beads', 'cull'], done: true }),
      kept(4, { do: 'ticked', task: 'band/1/0/prepare', items: ['cull'], done: false }),
      kept(5, { do: 'measured', task: 'band/1/9/measure', part: 'band', rows: 9, mm: 12 }),
      kept(6, { do: 'measured', task: 'band/1/9/measure', part: 'band', rows: 9, mm: 13 }),
      kept(7, { do: 'due', day: '2026-12-24' }),
      kept(8, { do: 'seen', revision: 4 }),
      kept(9, { do: 'record', record: recordSchema.parse({ lengthMm: 180 }) }),
      kept(10, { do: 'mistake', task: 'band/1/3', says: 'one too many', way: 'leave', beads: 0, minutes: 0 }),
    ])
    expect([...state.joined]).toEqual([['band/1/9', false]])
    expect([...state.ticks.get('band/1/0/prepare')!]).toEqual([['beads', 3]])
    expect(state.measures).toEqual([{ at: 6, task: 'band/1/9/measure', part: 'band', rows: 9, mm: 13 }])
    expect([state.due, state.seen, state.record?.lengthMm]).toEqual(['2026-12-24', 4, 180])
    expect(state.mistakes).toMatchObject([{ way: 'leave', says: 'one too many' }])
    // None of these is work at the beads.
    expect([state.at, state.status]).toEqual([0, 'planned'])
  })
})

describe('the clock of a browser', () => {
  const HERE = 1_000_000_000
  it('is believed where it differs by less than a request may take, else moved to the server’s', () => {
    expect(timeHere(HERE - 7000, HERE - 4999, HERE)).toBe(HERE - 7000)
    expect(timeHere(HERE - 7000, HERE - 5001, HERE)).toBe(HERE - 1999)
    expect(timeHere(HERE + 3_600_000 - 7000, HERE + 3_600_000, HERE)).toBe(HERE - 7000)
  })
  it('puts nothing into what is to come, nor before all time', () => {
    expect(timeHere(HERE + 90_000, HERE, HERE)).toBe(HERE + 5000)
    expect(timeHere(10, HERE + 3_600_000, HERE)).toBe(0)
  })
  it('keeps the order of what is sent together', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(2 * HERE), { minLength: 2 }), fc.nat(2 * HERE), (times, now) => {
        const sorted = times.sort((a, b) => a - b).map((at) => timeHere(at, now, HERE))
        expect(sorted).toEqual([...sorted].sort((a, b) => a - b))
      }),
    )
  })
})

describe('events that are sent together', () => {
  const press = (id: string, at: number, row = 0): KeptEvent => ({
    ...{ id, at },
    event: { do: 'at', task: `band/1/${row}`, bite: 0, says: 'Row', beads: row, of: 9 },
  })
  it('come after those that are there already, though a slow request moved these to later', () => {
    const sent = [press('a', 100), press('b', 400), press('c', 500)]
    const there = new Map([['a', 6100]])
    expect(inOrder(sent, there).map(({ id, at }) => [id, at])).toEqual([
      ['a', 6100],
      ['b', 6101],
      ['c', 6102],
    ])
    expect(inOrder(sent, new Map())).toEqual(sent)
  })
  it('of one moment stay as they are sent, whatever their names', () => {
    const both = inOrder([press('z', 7, 1), press('a', 7, 2)], new Map())
    expect(stateOf(both).presses.map((p) => p.beads)).toEqual([1, 2])
  })
  it('keep their order and are never earlier than they were (property)', () => {
    const some = fc.uniqueArray(fc.tuple(fc.nat(50), fc.nat(50)), { selector: ([name]) => name, maxLength: 12 })
    fc.assert(
      fc.property(some, fc.dictionary(fc.nat(50).map(String), fc.nat(90)), (sent, stored) => {
        const events = sent.map(([name, at]) => press(String(name), at)).sort((a, b) => a.at - b.at)
        const there = new Map(Object.entries(stored))
        const out = inOrder(events, there)
        expect(out.map(({ id }) => id)).toEqual(events.map(({ id }) => id))
        const fresh = out.filter(({ id }) => !there.has(id))
        for (const [k, { at }] of fresh.entries()) {
          expect(at).toBeGreaterThan(fresh[k - 1]?.at ?? -1)
          expect(at).toBeGreaterThanOrEqual(events.find(({ id }) => id === fresh[k]!.id)!.at)
        }
        for (const [k, { id, at }] of out.entries())
          if (there.has(id))
            for (const later of out.slice(k + 1)) expect(there.has(later.id) || later.at > at).toBe(true)
      }),
    )
  })
})

describe('sittings', () => {
  const press = (minutes: number, beads: number) => ({ at: minutes * 60_000, beads, task: 'band/1/1', bite: 0 })
  it('end where the hands were away for more than five minutes', () => {
    const sittings = sittingsOf([press(0, 10), press(4, 20), press(8, 35), press(60, 40), press(62, 50)])
    expect(sittings).toEqual([
      { from: 0, to: 480_000, atBeads: 480_000, beads: 25 },
      { from: 3_600_000, to: 3_720_000, atBeads: 120_000, beads: 10 },
    ])
    expect(workedMs(sittings)).toBe(600_000)
    expect(paceOf(sittings)).toBe(210)
    expect(sittingsOf([press(0, 0), { ...press(0, 5), at: PAUSE_MS }])).toHaveLength(1)
    expect(sittingsOf([press(0, 0), { ...press(0, 5), at: PAUSE_MS + 1 }])).toHaveLength(2)
  })
  it('go on through a long row: a minute a bead is slow, more is a pause', () => {
    expect(sittingsOf([press(0, 0), press(26, 26)])).toHaveLength(1)
    expect(sittingsOf([press(0, 0), press(26.1, 26)])).toHaveLength(2)
    expect(sittingsOf([press(0, 26), press(6, 0)])).toHaveLength(2)
  })
  it('tell time at the beads from time at what is done besides', () => {
    const sittings = sittingsOf([
      press(0, 0),
      { ...press(5, 50), task: 'band/1/9/join' },
      press(9, 50),
      press(14, 100),
    ])
    expect(sittings).toEqual([{ from: 0, to: 840_000, atBeads: 600_000, beads: 100 }])
    expect(paceOf(sittings)).toBe(600)
  })
  it('tell no pace while they are short, and take off what was taken back', () => {
    expect(paceOf(sittingsOf([press(0, 0), press(4, 100)]))).toBeNull()
    expect(paceOf(sittingsOf([press(0, 0), press(5, 60), press(10, 40)]))).toBe(240)
    expect(paceOf(sittingsOf([press(0, 60), press(5, 40), press(10, 60)]))).toBeNull()
    expect(paceOf([])).toBeNull()
  })
  it('never count more beads than were laid between the first press and the last', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 999 })), { maxLength: 30 }),
        (list) => {
          const presses = list.map(([m, n]) => press(m, n)).sort((a, b) => a.at - b.at)
          const sittings = sittingsOf(presses)
          for (const s of sittings) {
            const within = presses.filter((p) => p.at >= s.from && p.at <= s.to)
            expect(s.to - s.from).toBe(within.at(-1)!.at - within[0]!.at)
          }
          expect(workedMs(sittings)).toBeLessThanOrEqual(400 * 60_000)
        },
      ),
    )
  })
})
