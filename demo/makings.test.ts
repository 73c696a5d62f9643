import { describe, expect, it } from 'vitest'
import { markOf, placeOf, taskAt } from '../core/making/agenda'
import { courseOf, timersOf } from '../core/making/chore'
import { learnedFrom } from '../core/making/learned'
import { keptEventSchema, stateOf } from '../core/making/event'
import { paceOf, sittingsOf } from '../core/making/sitting'
import { SAMPLE_MAKINGS, sampleEvents } from './makings'
import { DEMO_PIECES } from './pieces'

const NOW = Date.parse('2026-11-20T09:00:00Z')

describe('makings of the sample workshop', () => {
  it.each(SAMPLE_MAKINGS.map((m) => [m.piece, m] as const))('%s is as it says', (name, plan) => {
    const piece = DEMO_PIECES.find((p) => p.name === name)!
    const { head, begunAt, events } = sampleEvents(piece, plan, NOW)
    for (const event of events) expect(keptEventSchema.safeParse(event).success).toBe(true)
    const state = stateOf(events)
    const agenda = courseOf(piece, head)
    const { index } = placeOf(agenda, markOf(agenda, state))
    const title = taskAt(agenda, index)?.chore?.kind
    if (plan.done === 'glued') expect([title, timersOf(agenda, state.ticks).length]).toEqual(['trim', 2])
    else expect(index).toBe(Math.round(agenda.count * plan.done))
    expect(state.status).toBe(plan.state ?? (plan.done === 0 ? 'planned' : 'on the bench'))
    expect(state.due).toBe(plan.dueInDays === undefined ? null : '2026-12-10')
    const sittings = sittingsOf(state.presses)
    expect(sittings).toHaveLength(plan.sittings.length)
    if (sittings.length > 0) expect(paceOf(sittings)! / plan.pace).toBeCloseTo(1, 1)
    expect(begunAt).toBeLessThan(events[0]!.at)
    expect(events.at(-1)!.at).toBeLessThan(NOW)
  })
  it('teach a speed of two stitches, from two makings each, culls, thread and gauge', () => {
    const told = SAMPLE_MAKINGS.flatMap((plan, k) => {
      const piece = DEMO_PIECES.find((p) => p.name === plan.piece)!
      const { facts, strange } = stateOf(sampleEvents(piece, plan, NOW).events).record ?? {}
      return facts ? [{ making: String(k), facts, strange: strange! }] : []
    })
    const { speed, culls, slack, along } = learnedFrom(told)
    expect([...speed].map(([technique, { makings }]) => [technique, makings])).toEqual([
      ['peyote', 2],
      ['loom', 2],
    ])
    expect(Math.round(speed.get('loom')!.value)).toBeGreaterThan(190)
    expect(culls.size).toBeGreaterThan(0)
    expect([slack!.makings, along.size > 0]).toEqual([3, true])
  })
})
