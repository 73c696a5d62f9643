import { z } from 'zod'
import { BENCH_LIMITS, keptEventSchema, makingSchema } from '../making/event'
import { settingsSchema } from './settings'
import { shelfValueSchema } from '../shelf/shelf'

/**
 * Everything that one person owns, as text: one JSON value to a line, so that it can be written and read while it
 * passes, however much it is. The first line says what this is; a piece is a line of its own (its piece file) after
 * the line that says what else is known of it, and its makings follow it; the last line counts, so that a file which
 * was cut off is noticed.
 */
export const ARCHIVE_VERSION = 2

/** Longest line of an archive, in bytes: a piece file. */
export const LONGEST_LINE = 64_000_000

const id = z.string().min(1).max(40)

export const archiveHead = z.strictObject({
  format: z.literal('weben-archive'),
  /** Version 1 held no makings, only how far each had come. */
  version: z.union([z.literal(1), z.literal(ARCHIVE_VERSION)]),
  /** When it was made, ISO 8601. */
  madeAt: z.string().max(40),
})

/** Everything but the pieces themselves. Ids hold within one archive: whoever reads it gives new ones. */
export const archiveLine = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('settings'), settings: settingsSchema }),
  z.strictObject({ is: z.literal('shelf'), id, value: shelfValueSchema }),
  z.strictObject({
    is: z.literal('piece'),
    /** Put away, not in the workshop. */
    away: z.boolean(),
    updatedAt: z.iso.datetime(),
    /** How far the making has come, moves by part; in version 1 only. */
    places: z.record(z.string().min(1).max(40), z.int().min(0).max(10_000_000)).default({}),
    /** What it holds of the box. */
    holdings: z
      .array(
        z.strictObject({ shelf: id, kind: z.enum(['reserved', 'taken']), amount: z.number().positive().max(1e8) }),
      )
      .max(2000),
  }),
  /** A making of the piece before it. */
  z.strictObject({
    is: z.literal('making'),
    head: makingSchema,
    begunAt: z.int().min(0).max(Number.MAX_SAFE_INTEGER),
    events: z.array(keptEventSchema).max(BENCH_LIMITS.events),
  }),
  z.strictObject({ is: z.literal('end'), pieces: z.int().min(0), shelf: z.int().min(0) }),
])
export type ArchiveLine = z.infer<typeof archiveLine>
export type ArchiveHead = z.infer<typeof archiveHead>
