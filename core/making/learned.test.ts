import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, part, piece } from '../../tests/fixture/piece'
import { beadsToBuy } from '../supply/beads'
import { costOf } from '../supply/cost'
import { costSchema, supplySchema, type Gauge } from '../piece/schema'
import type { Facts } from './event'
import { gaugeKey, learnedFrom, speedFor, withKeptGauges, withLearned, type Told } from './learned'

const ALL = { learnSpeed: 'on', learnCull: 'on', learnThread: 'on' } as const
let named = 0
const told = (over: Partial<Facts> = {}, strange = false): Told => ({
  making: `making-${++named}`,
  strange,
  facts: {
    technique: 'peyote',
    spec: 'cylinder-11',
    thread: 'gel-6',
    perHour: 150,
    hours: 4,
    along: null,
    culls: [],
    slack: null,
    ...over,
  },
})

describe('what makings teach', () => {
  it('of speed is the mean by hours, of each technique for itself, with its range', () => {
    const { speed } = learnedFrom([
      told({ perHour: 120, hours: 1 }),
      told({ perHour: 180, hours: 3 }),
      told({ perHour: null }),
      told({ technique: 'loom', perHour: 300, hours: 2 }),
    ])
    expect(speed.get('peyote')).toMatchObject({ value: 165, least: 120, makings: 2, questioned: [] })
    expect(speed.get('peyote')!.most).toBeCloseTo(181.5, 9)
    expect(speed.get('loom')).toMatchObject({ value: 300, least: 255, makings: 1 })
    expect(speed.get('loom')!.most).toBeCloseTo(345, 9)
  })
  it('questions one that is far from the others, and leaves out what its maker called strange', () => {
    const odd = told({ perHour: 600 })
    const { speed } = learnedFrom([
      told({ perHour: 150 }),
      told({ perHour: 160 }),
      told({ perHour: 155 }),
      odd,
      told({ perHour: 9 }, true),
    ])
    expect(speed.get('peyote')).toMatchObject({ makings: 3, questioned: [odd.making], value: 155 })
    // Two alone cannot say which of them is strange.
    expect(learnedFrom([told({ perHour: 150 }), told({ perHour: 600 })]).speed.get('peyote')!.questioned).toEqual([])
  })
  it('calls strange what is off by more than 30 % and by three times the usual, of three and more (by hand)', () => {
    const questioned = (...speeds: number[]) => {
      const all = speeds.map((perHour) => told({ perHour }))
      const { questioned: strange } = learnedFrom(all).speed.get('peyote')!
      return all.flatMap(({ making }, k) => (strange.includes(making) ? [speeds[k]] : []))
    }
    expect(questioned(100, 100, 131)).toEqual([131])
    expect(questioned(100, 100, 130)).toEqual([])
    expect(questioned(100, 100, 69)).toEqual([69])
    // Median 110; the others are off by 10, 10 and 30, usually by 10 to 30: 20. Three times that is 60.
    expect(questioned(100, 120, 80, 170)).toEqual([])
    expect(questioned(100, 120, 80, 180)).toEqual([180])
  })
  it('questions no bad bag, but a strange thread; leaves out what nobody measured', () => {
    const bag = (culled: number) => told({ culls: [{ spec: 'cylinder-11', used: 100 - culled, culled }] })
    expect(learnedFrom([bag(1), bag(1), bag(40)]).culls.get('cylinder-11')!.questioned).toEqual([])
    const odd = told({ slack: 1.9 })
    expect(learnedFrom([told({ slack: 1.1 }), told({ slack: 1.1 }), odd]).slack).toMatchObject({
      questioned: [odd.making],
      makings: 2,
    })
    const none = learnedFrom([told({ hours: 0, culls: [{ spec: 'cylinder-11', used: 0, culled: 0 }] })])
    expect([none.speed.size, none.culls.size, none.along.size]).toEqual([0, 0, 0])
    const keys = [{ spec: 'round-8' }, { technique: 'loom' }, { thread: 'nylon-D' }].map((over) =>
      gaugeKey({ ...told().facts, ...over }),
    )
    expect(new Set(keys).size).toBe(3)
  })
  it('of culls is the share of all beads that were looked at', () => {
    const { culls } = learnedFrom([
      told({ culls: [{ spec: 'cylinder-11', used: 960, culled: 40 }] }),
      told({ culls: [{ spec: 'cylinder-11', used: 90, culled: 10 }] }),
    ])
    expect(culls.get('cylinder-11')!.value).toBeCloseTo(50 / 1100, 12)
  })
  it('of gauge and thread comes from those that were measured', () => {
    const learned = learnedFrom([told({ along: 1.02, slack: 1.1 }), told({ along: 1.04 }), told()])
    expect(learned.along.get(gaugeKey(told().facts))).toMatchObject({ makings: 2 })
    expect(learned.along.get(gaugeKey(told().facts))!.value).toBeCloseTo(1.03, 12)
    expect(learned.slack).toMatchObject({ value: 1.1, makings: 1 })
    expect(learnedFrom([]).slack).toBeNull()
  })
  it('does not depend on the order in which it is told, and lies among what was found', () => {
    const one = fc.record({ perHour: fc.integer({ min: 20, max: 400 }), hours: fc.integer({ min: 1, max: 30 }) })
    fc.assert(
      fc.property(
        fc.array(one, { minLength: 1, maxLength: 12 }).chain((list) => {
          const all = list.map((facts) => told(facts))
          return fc.tuple(fc.constant(all), fc.shuffledSubarray(all, { minLength: all.length }))
        }),
        ([all, shuffled]) => {
          const [a, b] = [all, shuffled].map((x) => learnedFrom(x).speed.get('peyote')!)
          expect(b!.value).toBeCloseTo(a!.value, 9)
          expect(new Set(b!.questioned)).toEqual(new Set(a!.questioned))
          const speeds = all.map((t) => t.facts.perHour!)
          expect(a!.value).toBeGreaterThanOrEqual(Math.min(...speeds) - 1e-9)
          expect(a!.value).toBeLessThanOrEqual(Math.max(...speeds) + 1e-9)
          expect(a!.least).toBeLessThanOrEqual(a!.value)
          expect(a!.most).toBeGreaterThanOrEqual(a!.value)
          expect(a!.makings + a!.questioned.length).toBe(all.length)
        },
      ),
    )
  })
})

describe('a piece reckoned with it', () => {
  const p = piece({ tray: [bead(1), bead(2)], parts: [part({ times: 40 })] })
  const learned = learnedFrom([
    told({ perHour: 80, slack: 1.2, culls: [{ spec: 'cylinder-11', used: 800, culled: 200 }] }),
  ])
  it('takes the speed, the culls and the thread of the hand in place of the usual ones', () => {
    const own = withLearned(p, learned, ALL)
    expect([own.cost.beadsPerHourLeast, own.cost.beadsPerHourMost]).toEqual([68, 92])
    expect(costOf(own).hours.least / costOf(p).hours.least).toBeCloseTo(200 / 92, 9)
    const [usual, mine] = [p, own].map((x) => beadsToBuy(x)[0]!)
    expect(mine!.usedGrams / usual!.usedGrams).toBeCloseTo((1 - 0.05) / (1 - 0.2), 9)
    expect(mine!.need).toBeGreaterThan(usual!.need)
    expect(own.supply.slack).toBe(1.2)
    // What is kept is not touched.
    expect(p.supply).toEqual(supplySchema.parse({}))
  })
  it('keeps what its maker chose, and what is switched off', () => {
    const chosen = {
      ...p,
      cost: costSchema.parse({ beadsPerHourLeast: 60, beadsPerHourMost: 90 }),
      supply: supplySchema.parse({ cull: 0.01 }),
    }
    const own = withLearned(chosen, learned, ALL)
    expect(own.cost).toEqual(chosen.cost)
    expect(own.supply.culls).toBeUndefined()
    expect(withLearned(p, learned, { learnSpeed: 'off', learnCull: 'off', learnThread: 'off' })).toBe(p)
    expect(speedFor(p, learned, { learnSpeed: 'off' })).toBeNull()
    expect(speedFor(chosen, learned, ALL)).toBeNull()
    expect(speedFor(p, learned, ALL)!.makings).toBe(1)
    // One of the two figures was chosen.
    for (const own of [{ beadsPerHourLeast: 60 }, { beadsPerHourMost: 300 }])
      expect(speedFor({ ...p, cost: costSchema.parse(own) }, learned, ALL)).toBeNull()
    // One thing alone is used too.
    expect(withLearned(p, learned, { ...ALL, learnCull: 'off', learnThread: 'off' }).cost.beadsPerHourMost).toBe(92)
    expect(withLearned(p, learned, { ...ALL, learnSpeed: 'off', learnThread: 'off' }).supply.culls!.size).toBe(1)
    expect(withLearned(p, learned, { ...ALL, learnSpeed: 'off', learnCull: 'off' }).supply.slack).toBe(1.2)
    const other = learnedFrom([told({ technique: 'loom', spec: 'round-8' })])
    expect(withLearned(p, other, ALL)).toBe(p)
  })
  it('takes the gauges that are kept for its stitch, bead and thread', () => {
    const gauge = (over: Partial<Gauge>): Gauge => ({
      technique: 'peyote',
      spec: 'cylinder-11',
      thread: 'gel-6',
      swatches: [{ rows: 20, lengthMm: 30, columns: 0, widthMm: 0, from: '' }],
      ...over,
    })
    const older = gauge({ swatches: [{ rows: 20, lengthMm: 33, columns: 0, widthMm: 0, from: '' }] })
    const other = gauge({ technique: 'loom' })
    expect(withKeptGauges({ ...p, gauges: [older, other] }, [gauge({}), gauge({ spec: 'round-8' })])).toEqual([
      other,
      gauge({}),
    ])
  })
})
