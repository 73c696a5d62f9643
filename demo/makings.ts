import { beadsAt, goneTo, placeOf, taskAt, type CopyOrder } from '../core/making/agenda'
import { courseOf } from '../core/making/chore'
import { titleOf } from '../core/making/say'
import {
  makingSchema,
  recordSchema,
  stateOf,
  type KeptEvent,
  type MakingEvent,
  type MakingHead,
  type MakingRecord,
  type MakingState,
} from '../core/making/event'
import { factsOf, plannedOf } from '../core/making/record'
import { dayOf } from '../core/making/schedule'
import type { Piece } from '../core/piece/piece'

/** What is, was, or will be on the bench in the sample workshop: invented, like all of it. */
interface SampleMaking {
  readonly piece: string
  readonly copies?: number
  readonly copyOrder?: CopyOrder
  /** Share of its steps that are done; or up to the glue, which sets. */
  readonly done: number | 'glued'
  /** Days ago, of each sitting, the first first. */
  readonly sittings: readonly number[]
  /** Beads an hour. */
  readonly pace: number
  readonly notes?: readonly string[]
  readonly state?: 'made' | 'given'
  /** Wanted in so many days. */
  readonly dueInDays?: number
  readonly record?: {
    /** Against the plan. */
    readonly length: number
    readonly thread?: number
    /** Of a hundred beads of the first of the tray. */
    readonly culled: number
    readonly wearer: string
    readonly changed?: string
  }
}

export const SAMPLE_MAKINGS: readonly SampleMaking[] = [
  {
    piece: 'Reed bank cuff',
    done: 0.52,
    sittings: [9, 6, 2],
    pace: 168,
    notes: ['The reeds pull a little: mind the tension at the edge.'],
  },
  { piece: 'Evening tide rope', done: 'glued', sittings: [8, 7, 6, 5, 4, 3], pace: 240 },
  {
    piece: 'Garden trellis',
    done: 0,
    sittings: [],
    pace: 120,
    dueInDays: 20,
    notes: ['For the table at the water mill fair.'],
  },
  {
    piece: 'Gable ends',
    done: 0,
    sittings: [],
    pace: 120,
    dueInDays: 20,
    notes: ['For the table at the water mill fair, beside the trellis.'],
  },
  {
    piece: 'Tide line ring',
    done: 1,
    sittings: [40],
    pace: 150,
    state: 'given',
    record: { length: 1.01, culled: 4, wearer: 'Marit' },
  },
  {
    piece: 'Lantern drops',
    copies: 2,
    copyOrder: 'side by side',
    done: 1,
    sittings: [31, 30],
    pace: 172,
    state: 'made',
    record: { length: 1.02, thread: 1.01, culled: 6, wearer: '', changed: 'Longer ear wires: she has them already.' },
  },
  {
    piece: 'Courtyard tiles',
    done: 1,
    sittings: [66, 65, 63, 60],
    pace: 212,
    state: 'given',
    record: { length: 0.99, thread: 1.03, culled: 3, wearer: 'Jonna' },
  },
  {
    piece: 'Orchard choker',
    done: 1,
    sittings: [90, 89, 87, 84, 83],
    pace: 196,
    state: 'made',
    record: { length: 1.0, thread: 1.02, culled: 5, wearer: '', changed: 'A row more at each end, to sit lower.' },
  },
]

const HOUR = 3_600_000
const DAY = 24 * HOUR

/** The presses of a making, spread over its sittings by its pace; a sitting begins in the evening. */
export function sampleEvents(
  piece: Piece,
  { done, sittings, pace, notes = [], state, copies = 1, copyOrder = 'in turn', dueInDays, record }: SampleMaking,
  now: number,
): { readonly head: MakingHead; readonly begunAt: number; readonly events: KeptEvent[] } {
  const head = makingSchema.parse({ copies, copyOrder })
  const agenda = courseOf(piece, head)
  const glue = Array.from({ length: agenda.count }, (_, k) => taskAt(agenda, k)!).find((t) => t.chore?.kind === 'glue')
  const tasks = done === 'glued' ? glue!.index + 1 : Math.round(agenda.count * done)
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
  const begunAt = sittings.length > 0 ? evening(sittings[0]!) - 10 * 60_000 : now - 2 * DAY
  const after = last?.at ?? begunAt
  for (const text of notes) keep(after + 60_000, { do: 'note', task: goneTo(agenda, tasks).task, text })
  if (dueInDays !== undefined) keep(after + 2 * 60_000, { do: 'due', day: dayOf(Math.floor(now / DAY) + dueInDays) })
  if (done === 'glued')
    keep(now - GLUED_AGO, { do: 'ticked', task: glue!.key, items: glue!.chore!.items.map((i) => i.id), done: true })
  if (state) keep(after + 5 * 60_000, { do: 'state', state })
  if (record) keep(after + 6 * 60_000, { do: 'record', record: recordOf(piece, head, stateOf(events), record) })
  return { head, begunAt, events }
}

/** The glue was put on so long before the demo was opened, ms. */
const GLUED_AGO = 8 * 60_000

function recordOf(
  piece: Piece,
  head: MakingHead,
  state: MakingState,
  { length, thread, culled, wearer, changed = '' }: NonNullable<SampleMaking['record']>,
): MakingRecord {
  const planned = plannedOf(piece, head)
  const [first] = planned.beads
  const record = recordSchema.parse({
    lengthMm: Math.round(planned.lengthMm * length * 10) / 10,
    threadMm: thread === undefined ? null : Math.round(planned.threadMm * thread),
    culls: [{ number: first!.bead.number, count: Math.round((first!.count * culled) / 100) }],
    wearer,
    changed,
  })
  return { ...record, facts: factsOf(piece, head, state, record) }
}
