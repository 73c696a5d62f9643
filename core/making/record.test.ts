import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../tests/fixture/piece'
import { requireSpec } from '../bead/spec'
import { extentOf } from '../fit/extent'
import { basisOf } from '../piece/piece'
import { shelfValueSchema } from '../shelf/shelf'
import { supplySchema } from '../piece/schema'
import { requireTechnique } from '../technique/registry'
import type { Box, BoxItem } from '../supply/box'
import { cutThread, USUAL_SLACK } from '../supply/thread'
import { recordSchema, type MakingRecord } from './event'
import { factsOf, plannedOf, swatchOf, usedFromBox, usedOf } from './record'

const p = piece({
  tray: [bead(1), bead(2)],
  parts: [part({ technique: 'loom', settings: requireTechnique('loom').settings.parse({}), times: 20 })],
})
const TWO = { copies: 2 }
const record = (over: Partial<MakingRecord> = {}) => recordSchema.parse({ ...over })
const press = (minutes: number, beads: number) => ({ at: minutes * 60_000, beads, task: 'band/1/1', bite: 0 })

describe('what a making took, as planned', () => {
  it('is the tally of every copy, its thread and the length of one', () => {
    const planned = plannedOf(p, TWO)
    // AAAA, twenty times ABBA BAAB, AAAA.
    expect(planned.beads.map((b) => [b.bead.letter, b.count])).toEqual([
      ['A', 2 * (8 + 80)],
      ['B', 2 * 80],
    ])
    expect(planned.threadMm).toBeCloseTo(2 * plannedOf(p, { copies: 1 }).threadMm, 9)
    expect(planned.lengthMm).toBe(extentOf(p, p.parts[0]!).lengthMm.nominal)
  })
  it('is corrected by what was really used and put aside', () => {
    const planned = plannedOf(p, TWO)
    const own = record({ beads: [{ number: 1, more: 12 }], culls: [{ number: 2, count: 5 }] })
    expect(usedOf(planned, own, 1)).toEqual({ used: 188, culled: 0 })
    expect(usedOf(planned, own, 2)).toEqual({ used: 160, culled: 5 })
    expect(usedOf(planned, record({ beads: [{ number: 2, more: -900 }] }), 2)).toEqual({ used: 0, culled: 0 })
    expect(usedOf(planned, own, 77)).toEqual({ used: 0, culled: 0 })
  })
})

describe('what goes out of the box', () => {
  const item = (id: string, value: object): BoxItem => ({
    id,
    value: shelfValueSchema.parse(value) as BoxItem['value'],
  })
  const tube = (n: number) => {
    const { name, spec, colour, finish } = bead(n)
    return { kind: 'bead', name, spec, colour, finish, grams: 40 }
  }
  const box: Box = {
    items: [
      item('a', tube(1)),
      item('spool', { kind: 'thread', name: 'Spool', thread: 'gel-6', lengthMm: 50_000 }),
      item('clasp', {
        kind: 'finding',
        name: 'Toggle',
        count: 4,
        price: 0,
        closure: { kind: 'toggle', lengthMm: 14 },
      }),
    ],
    holdings: [],
  }
  it('is beads by weight, culls among them, thread and a closure for each; of what the box has', () => {
    const used = usedFromBox(p, TWO, record({ culls: [{ number: 1, count: 24 }], threadMm: 9000 }), box, 'x')
    const { perGram } = requireSpec(p.tray[0]!.spec)
    expect(used).toEqual([
      { shelfId: 'a', amount: Math.round((200 / perGram) * 1000) / 1000 },
      { shelfId: 'spool', amount: 9000 },
      { shelfId: 'clasp', amount: 2 },
    ])
    const [, spool] = usedFromBox(p, TWO, record(), box, 'x')
    expect(spool!.amount).toBeCloseTo(plannedOf(p, TWO).threadMm, 3)
  })
})

describe('what a making says of the hand', () => {
  const state = { presses: [press(0, 0), press(5, 20), press(10, 40), press(15, 60)] }
  it('is nothing where nothing was measured or counted', () => {
    expect(factsOf(p, TWO, { presses: [] }, record())).toEqual({
      technique: 'loom',
      spec: 'cylinder-11',
      thread: 'gel-6',
      perHour: null,
      hours: 0,
      along: null,
      culls: [],
      slack: null,
    })
  })
  it('is its speed, its gauge and its culls', () => {
    const { lengthMm } = plannedOf(p, TWO)
    const facts = factsOf(p, TWO, state, record({ lengthMm: lengthMm * 1.03, culls: [{ number: 1, count: 24 }] }))
    expect([facts.perHour, facts.hours]).toEqual([240, 0.25])
    const { plain } = requireTechnique('loom').growth
    const ends = plain ? plain.ofMm(p.parts[0]!.settings) : 0
    expect(facts.along).toBeCloseTo((lengthMm * 1.03 - ends) / (lengthMm - ends), 9)
    expect(facts.culls).toEqual([{ spec: 'cylinder-11', used: 336, culled: 24 }])
    expect(swatchOf(p, lengthMm)).toMatchObject({ rows: 42, from: 'Test band' })
    expect(swatchOf(p, ends)).toBeNull()
    // More rows than a swatch holds: as many as it does, at the same rate.
    const long = piece({ parts: [{ ...p.parts[0]!, times: 1500 }] })
    const swatch = swatchOf(long, 2000 + ends)!
    expect(swatch.rows).toBe(2000)
    const { growth } = requireTechnique('loom')
    const of = (rows: number) => growth.lengthOf({ ...basisOf(long.parts[0]!), rows })
    expect(swatch.lengthMm).toBeCloseTo((2000 * of(2000)) / of(3002), 9)
  })
  it('is its thread over the path: what was used as planned is the usual 1.05', () => {
    const flat = piece({
      parts: [part({ times: 40 })],
      supply: supplySchema.parse({ doubled: true }),
    })
    for (const copies of [1, 3]) {
      const planned = plannedOf(flat, { copies })
      const used = (threadMm: number) => factsOf(flat, { copies }, state, record({ threadMm })).slack!
      expect(used(planned.threadMm)).toBeCloseTo(USUAL_SLACK, 9)
      expect(used(planned.threadMm + 0.1 * planned.pathMm)).toBeCloseTo(USUAL_SLACK + 0.1, 9)
    }
    // Reckoned with it, as much more is cut.
    const need = (supply: typeof flat.supply & { slack?: number }) =>
      cutThread({ pathMm: 100_000, sewingMm: 0, supply: { ...supply, doubled: false } }).totalMm
    expect(need({ ...flat.supply, slack: 1.15 }) / need(flat.supply)).toBeCloseTo(1.15 / 1.05, 2)
  })
  it('of a braid without thread says nothing of thread', () => {
    const settings = requireTechnique('braid-8').settings.parse({})
    const round = rows('AAAAAAAA')
    const braid = piece({
      parts: [part({ technique: 'braid-8', settings, spec: 'round-8', start: round, repeat: round, end: round })],
      tray: [bead(1, { spec: 'round-8' })],
    })
    expect(factsOf(braid, TWO, state, record({ threadMm: 1000 })).slack).toBeNull()
  })
})
