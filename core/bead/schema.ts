import { z } from 'zod'
import { CATALOGUE, findSpec, OWN_SPEC } from './spec'

/** A spec of the catalogue by its id, or a user's own written out (spec.ts). */
export const specId = z.union([
  z.enum(CATALOGUE.map((s) => s.id)),
  z
    .string()
    .max(240)
    .regex(OWN_SPEC)
    .refine((id) => findSpec(id) !== undefined, { error: 'is not a bead size that can be: check its figures' }),
])
