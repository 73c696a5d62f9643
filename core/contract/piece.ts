import { z } from 'zod'
import { FEELS } from '../fit/feel'
import { FIT_KINDS } from '../wear/kind'
import { pieceFromBody } from '../piece/codec'
import type { Piece } from '../piece/piece'
import { stepSchema, type Step } from '../piece/step'
import { upgradeBody, upgradeStep } from '../piece/upgrade'
import { GROUPS } from '../proof/found'
import { WEIGHTS } from '../technique/technique'
import { head, revision } from './answer'

/** What the server answers of pieces. */

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
