import { z } from 'zod'
import { isSound } from '../units/text'
import { COPY_ORDERS, type Mark } from './agenda'

/**
 * What happens at the bench, press by press. Events are added and never changed; each has an id of its own, so that
 * one which is sent twice is one, and a time. What follows from them does not depend on the order in which they came:
 * of what is one thing (where the hands are, whether something is ticked off) the latest counts, the rest is kept.
 */
const text = (most: number) =>
  z.string().max(most).refine(isSound, { error: 'holds a character that cannot be kept: type it anew' })

/** Name of a task (agenda.ts). */
const task = z.string().regex(/^[a-z0-9/ -]{1,80}$/)

export const MAKING_STATES = ['planned', 'on the bench', 'made', 'given'] as const
export type MakingStatus = (typeof MAKING_STATES)[number]

export const BENCH_LIMITS = {
  /** Makings of a piece. */
  makings: 200,
  /** Events of a making. */
  events: 100_000,
  /** Events that are sent together. */
  together: 500,
  copies: 100,
} as const

const MOST_BEADS = 1_000_000_000

/** Name of a thing of a chore. */
const item = z.string().regex(/^[a-z0-9-]{1,80}$/)

/** What can be done about a mistake: undo it, let the plan follow it, or leave it. */
export const MISTAKE_WAYS = ['unpick', 'carry on', 'leave'] as const
export type MistakeWay = (typeof MISTAKE_WAYS)[number]

/** What a making says of the hand that made it. */
const factsSchema = z.strictObject({
  technique: z.string().max(40),
  spec: z.string().max(60),
  thread: z.string().max(40),
  /** Beads an hour; null where too little was pressed. */
  perHour: z.number().positive().max(100_000).nullable(),
  /** Time at the bench. */
  hours: z.number().min(0).max(100_000),
  /** Measured length over the nominal one; null if nobody measured. */
  along: z.number().positive().max(100).nullable(),
  /** Beads looked at and put aside, by size. */
  culls: z.array(z.strictObject({ spec: z.string().max(60), used: z.int().min(0), culled: z.int().min(0) })).max(200),
  /** Thread used over the length of its path, as it was reckoned with `slack`; null if nobody measured. */
  slack: z.number().positive().max(100).nullable(),
})
export type Facts = z.infer<typeof factsSchema>

/** What is written down when a making is finished; what is left out is as planned, or not known. */
export const recordSchema = z.strictObject({
  /** Beads used more (or fewer) than the plan counts, by tray number. */
  beads: z
    .array(z.strictObject({ number: z.int().min(1).max(65534), more: z.int().min(-MOST_BEADS).max(MOST_BEADS) }))
    .max(200)
    .default([]),
  /** Beads put aside as broken or crooked, by tray number. */
  culls: z
    .array(z.strictObject({ number: z.int().min(1).max(65534), count: z.int().min(0).max(MOST_BEADS) }))
    .max(200)
    .default([]),
  /** Thread really used, mm; null if nobody measured. */
  threadMm: z.number().min(0).max(100_000_000).nullable().default(null),
  /** Length of the beadwork when finished, mm; null if nobody measured. */
  lengthMm: z.number().positive().max(100_000).nullable().default(null),
  changed: text(2000).default(''),
  wearer: text(60).default(''),
  notes: text(2000).default(''),
  /** Left out of what is learned. */
  strange: z.boolean().default(false),
  /** What it says of the hand, as the piece was then; null where nothing was reckoned. */
  facts: factsSchema.nullable().default(null),
})
export type MakingRecord = z.infer<typeof recordSchema>

const event = z.discriminatedUnion('do', [
  /** The hands are here: all before is done. */
  z.strictObject({
    do: z.literal('at'),
    task,
    bite: z.int().min(0).max(10_000_000),
    /** The task in words, for lists: “Row 41”. */
    says: text(80).default(''),
    /** Beads (crossings of cords) laid so far, and of how many. */
    beads: z.int().min(0).max(MOST_BEADS).default(0),
    of: z.int().min(0).max(MOST_BEADS).default(0),
  }),
  /** So many moves of a part are done: how it was kept before makings were. */
  z.strictObject({ do: z.literal('moved'), part: z.string().max(40), moves: z.int().min(0).max(10_000_000) }),
  /** New thread was joined before a row; or was not, after all. */
  z.strictObject({ do: z.literal('joined'), task, joined: z.boolean() }),
  z.strictObject({ do: z.literal('note'), task, text: text(2000).min(1) }),
  /** Things of a chore were ticked off; or not, after all. */
  z.strictObject({ do: z.literal('ticked'), task, items: z.array(item).min(1).max(200), done: z.boolean() }),
  /** The work was measured at a stop: so many bead rows from its beginning came to so much. */
  z.strictObject({
    do: z.literal('measured'),
    task,
    part: z.string().max(40),
    rows: z.int().min(1).max(10_000_000),
    mm: z.number().positive().max(100_000),
  }),
  /** Something else was strung than was planned, and what was done about it. */
  z.strictObject({
    do: z.literal('mistake'),
    task,
    says: text(400).min(1),
    way: z.enum(MISTAKE_WAYS),
    /** What that cost. */
    beads: z.int().min(0).max(MOST_BEADS),
    minutes: z.number().min(0).max(1_000_000),
  }),
  /** It is wanted by a day (ISO 8601), or by none. */
  z.strictObject({ do: z.literal('due'), day: z.iso.date().nullable() }),
  /** The plan was changed at rows that were made already: it was seen, at this revision of the piece. */
  z.strictObject({ do: z.literal('seen'), revision: z.int().min(0) }),
  z.strictObject({ do: z.literal('record'), record: recordSchema }),
  /** The box was settled: of each thing so much had been taken before, and so much more went out; empty: undone. */
  z.strictObject({
    do: z.literal('settled'),
    moves: z.array(z.strictObject({ shelfId: z.uuid(), taken: z.number().min(0), more: z.number() })).max(300),
  }),
  z.strictObject({ do: z.literal('state'), state: z.enum(MAKING_STATES) }),
])
export type MakingEvent = z.infer<typeof event>

export const eventId = z.string().regex(/^[A-Za-z0-9-]{8,40}$/)

/** An event as it is kept: when it was, ms since 1970. */
export const keptEventSchema = z.strictObject({ id: eventId, at: z.int().min(0), event })
export type KeptEvent = z.infer<typeof keptEventSchema>

/** Clocks that differ by less are taken to agree, ms: a request takes its time, and the order of presses must stay. */
const CLOCK_SLACK_MS = 5000

/**
 * When an event was, by the server's clock. `at`: by a browser's, which said that it was `now` when the server's was
 * `here`. Nothing happened later than now.
 */
export function timeHere(at: number, now: number, here: number): number {
  const ahead = here - now
  return Math.max(0, Math.min(Math.abs(ahead) <= CLOCK_SLACK_MS ? at : at + ahead, here + CLOCK_SLACK_MS))
}

/**
 * Events as a browser sends them, with times under which they stay in its order. `there`: when those were that have
 * come before. A request that took long may have moved them to later than the browser knows: what was pressed after
 * them comes after them.
 */
export function inOrder(events: readonly KeptEvent[], there: ReadonlyMap<string, number>): KeptEvent[] {
  let latest = -1
  return events
    .toSorted((a, b) => a.at - b.at)
    .map((event) => {
      const at = there.get(event.id) ?? Math.max(event.at, latest + 1)
      latest = Math.max(latest, at)
      return at === event.at ? event : { ...event, at }
    })
}

/** What a making is begun with. */
export const makingSchema = z.strictObject({
  copies: z.int().min(1).max(BENCH_LIMITS.copies).default(1),
  copyOrder: z.enum(COPY_ORDERS).default('in turn'),
  name: text(80).default(''),
})
export type MakingHead = z.infer<typeof makingSchema>

export interface Note {
  readonly id: string
  readonly at: number
  readonly task: string
  readonly text: string
}

export type SettledMove = Extract<MakingEvent, { do: 'settled' }>['moves'][number]

/** A measure taken at a stop. */
export interface Measured {
  readonly at: number
  readonly task: string
  readonly part: string
  readonly rows: number
  readonly mm: number
}

export interface Mistake {
  readonly at: number
  readonly task: string
  readonly says: string
  readonly way: MistakeWay
  readonly beads: number
  readonly minutes: number
}

/** Where the hands were at some moment, and how many beads were laid by then. */
export interface Press extends Mark {
  readonly at: number
  readonly beads: number
}

/** What follows from the events of a making. */
export interface MakingState {
  readonly status: MakingStatus
  /** When the hands were last at it; 0 for never. */
  readonly at: number
  /** Moves by part, of what was kept so. */
  readonly moved: Readonly<Record<string, number>>
  /** Tasks before which new thread was joined (true), or was not though it was foretold (false). */
  readonly joined: ReadonlyMap<string, boolean>
  readonly notes: readonly Note[]
  /** When things of chores were ticked off: by task, by thing. */
  readonly ticks: ReadonlyMap<string, ReadonlyMap<string, number>>
  readonly measures: readonly Measured[]
  readonly mistakes: readonly Mistake[]
  /** Day by which it is wanted, ISO 8601. */
  readonly due: string | null
  /** The last revision of the piece whose changes at made rows were seen; −1 for none. */
  readonly seen: number
  readonly record: MakingRecord | null
  /** What went out of the box; null while it is not settled. */
  readonly settled: readonly SettledMove[] | null
  /** Every press, in the order of time. */
  readonly presses: readonly Press[]
}

/** Earlier first; what came at one moment in the order of its ids, the same everywhere. */
const byTime = (a: KeptEvent, b: KeptEvent): number => a.at - b.at || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)

/** What follows from events, in whichever order they came. */
export function stateOf(events: Iterable<KeptEvent>): MakingState {
  let named: { at: number; state: MakingStatus } | null = null
  const moved: Record<string, number> = {}
  const joined = new Map<string, boolean>()
  const notes: Note[] = []
  const ticks = new Map<string, Map<string, number>>()
  const measures = new Map<string, Measured>()
  const mistakes: Mistake[] = []
  let due: string | null = null
  let seenRevision = -1
  let record: MakingRecord | null = null
  let settled: readonly SettledMove[] | null = null
  const presses: Press[] = []
  const seen = new Set<string>()
  let workedAt = 0
  for (const { id, at, event: e } of [...events].sort(byTime)) {
    if (seen.has(id)) continue
    seen.add(id)
    switch (e.do) {
      case 'at':
        presses.push({ at, task: e.task, bite: e.bite, beads: e.beads })
        workedAt = at
        break
      case 'moved':
        moved[e.part] = e.moves
        workedAt = at
        break
      case 'joined':
        joined.set(e.task, e.joined)
        break
      case 'note':
        notes.push({ id, at, task: e.task, text: e.text })
        break
      case 'ticked': {
        const own = ticks.get(e.task) ?? new Map<string, number>()
        ticks.set(e.task, own)
        for (const name of e.items) {
          if (e.done) own.set(name, at)
          else own.delete(name)
        }
        break
      }
      case 'measured':
        // Measured again at one stop, the last counts.
        measures.set(e.task, { at, task: e.task, part: e.part, rows: e.rows, mm: e.mm })
        break
      case 'mistake':
        mistakes.push({ at, task: e.task, says: e.says, way: e.way, beads: e.beads, minutes: e.minutes })
        break
      case 'due':
        ;({ day: due } = e)
        break
      case 'seen':
        seenRevision = e.revision
        break
      case 'record':
        ;({ record } = e)
        break
      case 'settled':
        settled = e.moves.length > 0 ? e.moves : null
        break
      case 'state':
        named = { at, state: e.state }
    }
  }
  return {
    status: statusOf(named, workedAt),
    at: workedAt,
    moved,
    joined,
    notes,
    ticks,
    measures: [...measures.values()],
    mistakes,
    due,
    seen: seenRevision,
    record,
    settled,
    presses,
  }
}

/**
 * The state of a making by the latest event that names one and the latest at the work: what is planned is on the bench
 * once hands are at it.
 */
export function statusOf(
  named: { readonly at: number; readonly state: MakingStatus } | null,
  workedAt: number,
): MakingStatus {
  if (named && named.state !== 'planned') return named.state
  return workedAt > (named?.at ?? 0) ? 'on the bench' : 'planned'
}
