import { beadsAt, goneTo, placeOf, taskAt, type CopyOrder } from '../core/making/agenda'
import { courseOf } from '../core/making/chore'
import { titleOf } from '../core/making/say'
import { makingSchema, type KeptEvent, type MakingEvent, type MakingHead } from '../core/making/event'
import type { Piece } from '../core/piece/piece'

/** What is, or was, on the bench in the sample workshop: invented, like all of it. */
interface SampleMaking {
  readonly piece: string
  readonly copies?: number
  readonly copyOrder?: CopyOrder
  /** Share of its steps that are done. */
  readonly done: number
  /** Days ago, of each sitting, the first first. */
  readonly sittings: readonly number[]
  /** Beads an hour. */
  readonly pace: number
  readonly notes?: readonly string[]
  readonly state?: 'made' | 'given'
}

export const SAMPLE_MAKINGS: readonly SampleMaking[] = [
  {
    piece: 'Reed bank cuff',
    done: 0.52,
    sittings: [9, 6, 2],
    pace: 168,
    notes: ['The reeds pull a little: mind the tension at the edge.'],
  },
  { piece: 'Evening tide rope', done: 0.22, sittings: [4], pace: 140 },
  { piece: 'Tide line ring', done: 1, sittings: [40], pace: 150, state: 'given' },
  {
    piece: 'Lantern drops',
    copies: 2,
    copyOrder: 'side by side',
    done: 1,
    sittings: [31, 30],
    pace: 172,
    state: 'made',
  },
]

const HOUR = 3_600_000
const DAY = 24 * HOUR

/** The presses of a making, spread over its sittings by its pace; a sitting begins in the evening. */
export function sampleEvents(
  piece: Piece,
  { done, sittings, pace, notes = [], state, copies = 1, copyOrder = 'in turn' }: SampleMaking,
  now: number,
): { readonly head: MakingHead; readonly begunAt: number; readonly events: KeptEvent[] } {
  const head = makingSchema.parse({ copies, copyOrder })
  const agenda = courseOf(piece, head)
  const tasks = Math.round(agenda.count * done)
  const events: KeptEvent[] = []
  const keep = (at: number, event: MakingEvent) =>
    events.push({ id: `sample-${String(events.length).padStart(6, '0')}`, at: Math.round(at), event })
  const evening = (daysAgo: number) => Math.floor((now - daysAgo * DAY) / DAY) * DAY + 18 * HOUR
  const each = Math.ceil(tasks / sittings.length)
  for (let k = 1; k <= tasks; k++) {
    const sitting = Math.floor((k - 1) / each)
    const before = beadsAt(agenda, { index: sitting * each, bite: 0 })
    const place = placeOf(agenda, goneTo(agenda, k))
    const beads = beadsAt(agenda, place)
    const at = evening(sittings[sitting]!) + ((beads - before) / pace) * HOUR
    const there = taskAt(agenda, place.index)
    keep(at, {
      do: 'at',
      ...goneTo(agenda, k),
      says: there ? titleOf(there) : 'All done',
      beads,
      of: agenda.beads,
    })
  }
  const last = events.at(-1)
  for (const text of notes) keep(last!.at + 60_000, { do: 'note', task: goneTo(agenda, tasks).task, text })
  if (state) keep(last!.at + 5 * 60_000, { do: 'state', state })
  return { head, begunAt: evening(sittings[0]!) - 10 * 60_000, events }
}
