import { z } from 'zod'
import { FEELS } from '../fit/feel'
import { FIT_KINDS } from '../wear/kind'
import { deviceStateSchema } from '../device/state'
import { pieceFromBody } from '../piece/codec'
import type { Piece } from '../piece/piece'
import { PIECE_VERSION } from '../piece/schema'
import { stepSchema, type Step } from '../piece/step'
import { upgradeBody, upgradeStep } from '../piece/upgrade'
import { GROUPS } from '../proof/found'
import { shelfValueSchema } from '../shelf/shelf'
import { WEIGHTS } from '../technique/technique'
import { settingsSchema } from './settings'

/**
 * What the server answers, as the browser checks it before believing it. Fields that are not named here are passed
 * over, so that a newer server may say more.
 */

/**
 * Every answer says in this header which version of the piece document the server writes; an answer without it is not
 * Weben's.
 */
export const DOCUMENT_HEADER = 'weben-document'
export const DOCUMENT_VERSION = String(PIECE_VERSION)

/**
 * A request says in this header for whom it is made, so that a browser in which someone else signed in does not mix
 * two people's work.
 */
export const ACCOUNT_HEADER = 'weben-account'

/** The account that anyone may open where the demo workshop is on. */
export const DEMO_SIGN_IN = 'Demo workshop'

export const errorAnswer = z.object({
  error: z.object({
    code: z.string(),
    says: z.string(),
    data: z.unknown().optional(),
    problems: z.array(z.object({ code: z.string(), at: z.string(), says: z.string() })).optional(),
  }),
})

/** Revisions are counted in 32 bits. */
export const MOST_REVISION = 2_147_483_647
export const revision = z.int().min(0).max(MOST_REVISION)
/**
 * Id of the transaction that made the newest revision; empty for a piece as it was begun. It names the line that
 * revisions belong to.
 */
const head = z.string().max(40)

export const accountSchema = z.object({ id: z.string(), signIn: z.string(), settings: settingsSchema })
export type Account = z.infer<typeof accountSchema>
export const accountAnswer = z.object({ account: accountSchema })
/** A device on which a person is signed in. */
export const deviceSchema = z.object({
  id: z.string(),
  /** Browser and system in words; empty if they were not said. */
  agent: z.string(),
  since: z.string(),
  seen: z.string(),
  here: z.boolean(),
})
export type Device = z.infer<typeof deviceSchema>
export const devicesAnswer = z.object({ devices: z.array(deviceSchema) })
/** How much of its room an account fills, bytes. */
export const storageAnswer = z.object({ bytes: z.number(), most: z.number() })
export const archiveAnswer = z.object({ pieces: z.number(), shelf: z.number() })
export const sessionAnswer = z.object({ account: accountSchema.nullable(), demo: z.boolean() })

const document = z.unknown().transform((value, context): Piece => {
  const piece = pieceFromBody(upgradeBody(value))
  if (piece.ok) return piece.value
  for (const { says } of piece.problems) context.addIssue({ code: 'custom', message: says })
  return z.NEVER
})
export const openedAnswer = z.object({ id: z.string(), revision, head, piece: document })

const keptStep = z
  .unknown()
  .transform((step) => upgradeStep(step))
  .pipe(stepSchema) as z.ZodType<Step>
export const missingAnswer = z.object({
  revision,
  head,
  missing: z.array(z.object({ number: revision, id: head, label: z.string(), steps: z.array(keptStep) })),
})
export type Missing = z.infer<typeof missingAnswer>

export const createdAnswer = z.object({ id: z.string(), revision })
export const savedAnswer = z.object({ revision })

export const listingSchema = z.object({
  id: z.string(),
  name: z.string(),
  revision,
  head,
  updatedAt: z.string(),
  summary: z.object({
    technique: z.string(),
    spec: z.string(),
    columns: z.number(),
    rows: z.number(),
    beads: z.number(),
    lengthMm: z.number(),
    kind: z.enum(FIT_KINDS),
    finishedMm: z.number(),
    bodyMm: z.number(),
    feel: z.enum(FEELS),
  }),
})
export type Listing = z.infer<typeof listingSchema>
export const piecesAnswer = z.object({ pieces: z.array(listingSchema) })

export const holdingsAnswer = z.object({
  holdings: z.array(
    z.object({ pieceId: z.string(), shelfId: z.string(), kind: z.enum(['reserved', 'taken']), amount: z.number() }),
  ),
})
const shelfItem = z.object({ id: z.string(), value: shelfValueSchema })
export const shelfAnswer = z.object({ items: z.array(shelfItem) })
export const shelfItemAnswer = z.object({ item: shelfItem })

export const readingAnswer = z.object({ reading: z.object({ value: z.number(), steady: z.boolean() }) })
export const deviceAnswer = z.object({ state: deviceStateSchema })
export const offersAnswer = z.object({
  list: z.object({
    currency: z.string(),
    offers: z.array(
      z.object({
        wanted: z.object({ spec: z.string(), colour: z.string(), finish: z.string() }),
        article: z.string(),
        packs: z.array(z.object({ grams: z.number(), price: z.number(), stock: z.number() })),
      }),
    ),
  }),
})

const spotAnswer = z.object({ section: z.enum(['start', 'repeat', 'end']), r: z.number(), c: z.number().nullable() })
const findingAnswer = z.object({
  rule: z.string(),
  group: z.enum(GROUPS),
  weight: z.enum(WEIGHTS),
  part: z.string().nullable(),
  says: z.string(),
  why: z.string(),
  spots: z.array(spotAnswer),
  mends: z.array(z.object({ label: z.string(), steps: z.array(z.unknown()) })),
  sign: z.string(),
  meant: z.string().nullable(),
})
/** What the proofreader says of a piece at a revision. */
export const proofAnswer = z.object({
  id: z.string(),
  revision,
  proof: z.object({ open: z.array(findingAnswer), quiet: z.array(findingAnswer) }),
})

/** Whatever the server says, where nothing of it is used. */
export const anyAnswer = z.object({})
