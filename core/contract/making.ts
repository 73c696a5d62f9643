import { z } from 'zod'
import { BENCH_LIMITS, eventId, keptEventSchema, MAKING_STATES, makingSchema, recordSchema } from '../making/event'
import { revision } from './answer'

/** What server and browser say to each other of the making of a piece. */

const making = makingSchema.extend({
  id: z.string(),
  /** Of the piece, as the making began with it. */
  revision,
  /** Ms since 1970. */
  begunAt: z.number(),
})
export type MakingAnswer = z.infer<typeof making>

const listed = making.extend({
  /** Id of the piece that is made. */
  piece: z.string(),
  status: z.enum(MAKING_STATES),
  /** When the hands were last at it, ms since 1970; 0 for never. */
  at: z.number(),
  /** Where, in words: “Row 41”. */
  says: z.string(),
  beads: z.number(),
  of: z.number(),
  /** Day by which it is wanted, ISO 8601. */
  due: z.string().nullable(),
})
export type MakingListing = z.infer<typeof listed>

export const makingsAnswer = z.object({ makings: z.array(listed) })
export const begunAnswer = z.object({ making })

export const beginBody = z.strictObject({
  as: z.string().regex(/^[A-Za-z0-9-]{8,40}$/),
  revision,
  head: makingSchema,
})

/** Makings that are finished, with what was written down of each. */
export const recordsAnswer = z.object({
  records: z.array(z.object({ making: z.string(), piece: z.string(), at: z.number(), record: recordSchema })),
})
export type RecordListing = z.infer<typeof recordsAnswer>['records'][number]

/** What a making took out of the box, in the unit of each thing; nothing undoes it. */
export const settleBody = z.strictObject({
  /** Of the event that says so: sent twice it is done once. */
  as: eventId,
  uses: z.array(z.strictObject({ shelfId: z.uuid(), amount: z.number().positive().max(100_000_000) })).max(300),
})

/** Events of this browser, and the last event of the server's that it knows. */
export const syncBody = z.strictObject({
  after: z.int().min(0).max(Number.MAX_SAFE_INTEGER),
  /** The browser's clock, by which its events are, ms since 1970. */
  now: z.int().min(0),
  events: z
    .array(
      // What moves the box is written by the server alone.
      keptEventSchema.refine((kept) => kept.event.do !== 'settled', { error: 'settles the box: ask for that itself' }),
    )
    .max(BENCH_LIMITS.together),
})

export const syncedAnswer = z.object({
  making,
  /** Number of the last event that is told here. */
  seq: z.number(),
  /** Whether there are more behind it. */
  more: z.boolean(),
  events: z.array(keptEventSchema),
  /** The server's clock, ms since 1970. */
  now: z.number(),
})
export type SyncedMaking = z.infer<typeof syncedAnswer>
