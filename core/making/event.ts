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
  /** Tasks before which new thread was joined. */
  readonly joined: ReadonlySet<string>
  readonly notes: readonly Note[]
  /** Every press, in the order of time. */
  readonly presses: readonly Press[]
}

/** Earlier first; what came at one moment in the order of its ids, the same everywhere. */
const byTime = (a: KeptEvent, b: KeptEvent): number => a.at - b.at || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)

/** What follows from events, in whichever order they came. */
export function stateOf(events: Iterable<KeptEvent>): MakingState {
  let named: { at: number; state: MakingStatus } | null = null
  const moved: Record<string, number> = {}
  const joined = new Set<string>()
  const notes: Note[] = []
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
        if (e.joined) joined.add(e.task)
        else joined.delete(e.task)
        break
      case 'note':
        notes.push({ id, at, task: e.task, text: e.text })
        break
      case 'state':
        named = { at, state: e.state }
    }
  }
  return { status: statusOf(named, workedAt), at: workedAt, moved, joined, notes, presses }
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
