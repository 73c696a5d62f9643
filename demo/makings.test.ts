import { describe, expect, it } from 'vitest'
import { markOf, placeOf } from '../core/making/agenda'
import { courseOf } from '../core/making/chore'
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
    expect(index).toBe(Math.round(agenda.count * plan.done))
    expect(state.status).toBe(plan.state ?? 'on the bench')
    const sittings = sittingsOf(state.presses)
    expect(sittings).toHaveLength(plan.sittings.length)
    expect(paceOf(sittings)! / plan.pace).toBeCloseTo(1, 1)
    expect(begunAt).toBeLessThan(events[0]!.at)
    expect(events.at(-1)!.at).toBeLessThan(NOW)
  })
})
