import { z } from 'zod'
import { FINISHES } from '../bead/bead'
import { OWN_SPEC } from '../bead/spec'
import { specId } from '../piece/schema'

/** What a person keeps across pieces: beads of the box, sizes written by hand, and stamps. */
const colour = z.string().regex(/^#[0-9a-f]{6}$/)
const name = z.string().trim().min(1).max(60)

const look = { name, spec: specId, colour, finish: z.enum(FINISHES) }

/** Largest stamp, cells on a side. */
export const STAMP_SIDE = 200

export const shelfValueSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('bead'), ...look }),
  z.strictObject({ kind: z.literal('spec'), name, spec: z.string().regex(OWN_SPEC).pipe(specId) }),
  z.strictObject({
    kind: z.literal('stamp'), name, technique: z.string().max(40), columns: z.int().min(1).max(STAMP_SIDE), rows: z.int().min(1).max(STAMP_SIDE),
    /** Row-major numbers into `beads` from 1; 0 leaves what lies there. */
    cells: z.array(z.int().min(0).max(200)).max(STAMP_SIDE * STAMP_SIDE), beads: z.array(z.strictObject(look)).max(200),
  }).refine(s => s.cells.length === s.columns * s.rows && s.cells.every(n => n <= s.beads.length), { error: 'its cells do not fit its size or its beads' }),
])

export type ShelfValue = z.infer<typeof shelfValueSchema>
export type ShelfBead = Extract<ShelfValue, { kind: 'bead' }>
export type Stamp = Extract<ShelfValue, { kind: 'stamp' }>

/** Something on the shelf, with the name that the server gave it. */
export interface ShelfItem { readonly id: string, readonly value: ShelfValue }
