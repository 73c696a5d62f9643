import { z } from 'zod'
import { FINISHES } from '../bead/bead'
import { OWN_SPEC } from '../bead/spec'
import { CLOSURE_KINDS } from '../wear/closure'
import { MOST_MONEY } from '../money/money'
import { specId } from '../bead/schema'
import { paramsField, recipeField } from '../recipe/check'
import { gaugeSchema } from '../piece/schema'
import { THREAD_IDS } from '../thread/catalogue'

/**
 * What a person keeps across pieces: the box (beads, threads, findings), sizes written by hand, stamps, people and
 * gauges.
 */
const colour = z.string().regex(/^#[0-9a-f]{6}$/)
const name = z.string().trim().min(1).max(60)

const look = { name, spec: specId, colour, finish: z.enum(FINISHES) }

const price = z.int().min(0).max(MOST_MONEY).default(0)

/** Largest stamp, cells on a side. */
export const STAMP_SIDE = 200

/** Most of one thing that a box holds: 100 kg, 100 km, 100 000 pieces. */
const BOX_LIMITS = { grams: 100_000, mm: 100_000_000, count: 100_000 } as const

const mm = (least: number, most: number) => z.number().min(least).max(most).nullable().default(null)

/** Measures of a body, mm; null where nobody measured. */
export const measuresSchema = z.strictObject({
  wrist: mm(80, 400),
  hand: mm(100, 500),
  ankle: mm(120, 500),
  heel: mm(150, 700),
  neck: mm(200, 600),
  head: mm(400, 800),
  finger: mm(30, 90),
  necklace: mm(250, 2000),
  drop: mm(5, 200),
  hoop: mm(30, 500),
  pendant: mm(10, 400),
})

export const shelfBeadSchema = z.strictObject({
  kind: z.literal('bead'),
  ...look,
  /** Beads there, without their tube. */
  grams: z.number().min(0).max(BOX_LIMITS.grams).default(0),
  tubeGrams: z.number().min(0).max(10_000).default(0),
  /** What `packGrams` of it cost, in the account's currency; 0 if unknown. */
  packGrams: z.number().positive().max(10_000).default(10),
  price,
})

export const shelfThreadSchema = z.strictObject({
  kind: z.literal('thread'),
  name,
  thread: z.enum(THREAD_IDS),
  lengthMm: z.number().min(0).max(BOX_LIMITS.mm),
  spoolMm: z.number().positive().max(BOX_LIMITS.mm).default(50_000),
  price,
})

export const shelfFindingSchema = z.strictObject({
  kind: z.literal('finding'),
  name,
  count: z.int().min(0).max(BOX_LIMITS.count),
  price,
  /** A closure can be chosen for a piece, at its own length; null for other findings. */
  closure: z
    .strictObject({ kind: z.enum(CLOSURE_KINDS), lengthMm: z.number().min(0).max(200) })
    .nullable()
    .default(null),
})

export const shelfValueSchema = z.discriminatedUnion('kind', [
  shelfBeadSchema,
  shelfThreadSchema,
  shelfFindingSchema,
  z.strictObject({ kind: z.literal('spec'), name, spec: z.string().regex(OWN_SPEC).pipe(specId) }),
  z
    .strictObject({
      kind: z.literal('stamp'),
      name,
      technique: z.string().max(40),
      columns: z.int().min(1).max(STAMP_SIDE),
      rows: z.int().min(1).max(STAMP_SIDE),
      /** Row-major numbers into `beads` from 1; 0 leaves what lies there. */
      cells: z.array(z.int().min(0).max(200)).max(STAMP_SIDE * STAMP_SIDE),
      beads: z.array(z.strictObject(look)).max(200),
    })
    .refine((s) => s.cells.length === s.columns * s.rows && s.cells.every((n) => n <= s.beads.length), {
      error: 'its cells do not fit its size or its beads',
    }),
  z.strictObject({
    kind: z.literal('person'),
    name,
    measures: measuresSchema,
    ear: z.enum(['', 'ear-wire', 'post', 'clip']).default(''),
    notes: z.string().max(1000).default(''),
    /** Room they like at the wrist, mm; null if they have not said. */
    easeMm: z.number().min(-15).max(60).nullable().default(null),
  }),
  z.strictObject({ kind: z.literal('gauge'), gauge: gaugeSchema }),
  /** How a motif is worked, kept for other pieces, with the values of its fields. */
  z.strictObject({ kind: z.literal('recipe'), name, recipe: recipeField(), params: paramsField.default({}) }),
])

export type ShelfValue = z.infer<typeof shelfValueSchema>
/** The same as it may be sent: what has a usual value may be left out. */
export type ShelfInput = z.input<typeof shelfValueSchema>
export type ShelfKind = ShelfValue['kind']
export type ShelfOf<K extends ShelfKind> = Extract<ShelfValue, { kind: K }>
export type ShelfBead = ShelfOf<'bead'>
export type ShelfThread = ShelfOf<'thread'>
export type ShelfFinding = ShelfOf<'finding'>
export type Person = ShelfOf<'person'>
export type Stamp = ShelfOf<'stamp'>
export type KeptRecipe = ShelfOf<'recipe'>
export type Measures = Person['measures']

/** Something on the shelf, with the name that the server gave it. */
export interface ShelfItem {
  readonly id: string
  readonly value: ShelfValue
}

/** What lies in the box and can be used up: its amount in the unit of its kind. */
export type Stock = ShelfBead | ShelfThread | ShelfFinding

export const isStock = (value: ShelfValue): value is Stock =>
  value.kind === 'bead' || value.kind === 'thread' || value.kind === 'finding'

/** How much there is: grams of beads, mm of thread, count of findings. */
export const amountOf = (value: Stock): number =>
  value.kind === 'bead' ? value.grams : value.kind === 'thread' ? value.lengthMm : value.count

export function withAmount<V extends Stock>(value: V, amount: number): V {
  return { ...value, [value.kind === 'bead' ? 'grams' : value.kind === 'thread' ? 'lengthMm' : 'count']: amount }
}
