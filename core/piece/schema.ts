import { z } from 'zod'
import { FINISHES } from '../bead/bead'
import { GLYPH_IDS } from '../bead/glyph'
import { BEAD_SPECS, DEFAULT_SPEC, findSpec, OWN_SPEC } from '../bead/spec'
import { CLOSURE_KINDS } from '../fit/closure'
import { NEEDLE_IDS, THREAD_IDS } from '../supply/catalogue'
import { TECHNIQUES } from '../technique/registry'

/** Version of the piece file. A newer one is refused with words, never read in part. */
export const PIECE_VERSION = 1

/** Bounds that keep a document workable: a million cells fit with room. */
export const LIMITS = { columns: 500, rows: 20_000, cells: 4_000_000, times: 2000, tray: 200, parts: 20 } as const

/** A spec of the catalogue by its id, or a user's own written out (core/bead/spec.ts). */
export const specId = z.union([
  z.enum(BEAD_SPECS.map(s => s.id)),
  z.string().max(240).regex(OWN_SPEC).refine(id => findSpec(id) !== undefined, { error: 'is not a bead size that can be: check its figures' }),
])
const mm = (least: number, most: number) => z.number().min(least).max(most)
const text = (most: number) => z.string().max(most)

export const trayBeadSchema = z.strictObject({
  number: z.int().min(1).max(65534).describe('What stands for this bead in the cells'),
  letter: z.string().regex(/^[A-Z]{1,2}$/).describe('Letter in words and charts'),
  glyph: z.enum(GLYPH_IDS).describe('Mark in black-and-white charts'),
  name: text(60).min(1),
  spec: specId.describe('Shape and size'),
  colour: z.string().regex(/^#[0-9a-f]{6}$/).describe('sRGB, #rrggbb, lower case'),
  finish: z.enum(FINISHES),
})

export const fitSchema = z.strictObject({
  kind: z.literal('bracelet'),
  wearer: text(60).default('').describe('For whom'),
  wristMm: mm(80, 400).describe('Wrist, snug, at the bone'),
  easeMm: mm(0, 60).describe('Room between wrist and bracelet; common practice: close 6, easy 13, loose 19–25'),
  closure: z.strictObject({ kind: z.enum(CLOSURE_KINDS), lengthMm: mm(0, 80).describe('Length taken up, measured closed') }),
  widthMm: mm(1, 400).describe('Width wanted'),
})

export const supplySchema = z.strictObject({
  thread: z.enum(THREAD_IDS).default('gel-6'),
  needle: z.enum(NEEDLE_IDS).default('11'),
  doubled: z.boolean().default(false).describe('Worked with doubled thread'),
  workingLengthMm: mm(500, 6000).default(1800).describe('Longest thread that is handled at once'),
  tailMm: mm(50, 500).default(150),
  claspTailMm: mm(50, 500).default(200).describe('Tail where a closure is sewn on later'),
  reinforce: z.int().min(0).max(4).default(0).describe('Extra passes planned through any bead'),
  spare: z.number().min(0).max(1).default(0.1).describe('Share of beads bought beyond the count'),
  cull: z.number().min(0).max(0.5).default(0.05).describe('Share of a bag that is broken or misshapen'),
  packGrams: z.array(z.number().positive().max(1000)).min(1).max(8).default([5, 10, 28]),
})

const run = z.array(z.int().min(0).max(65535))
const section = z.array(run).max(LIMITS.rows)
  .describe('One entry for each row along the length: run-length code [count, number, count, number, …]; number 0 is no bead')

const setting = z.union([z.string().max(60), z.number(), z.boolean()])

export const partHeadSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9-]{1,40}$/),
  name: text(60).min(1),
  technique: z.enum(TECHNIQUES.map(t => t.id)),
  settings: z.record(z.string().max(40), setting).default({}).describe('The stitch’s own settings'),
  spec: specId.default(DEFAULT_SPEC).describe('The bead that the grid is drawn for'),
  times: z.int().min(0).max(LIMITS.times).describe('How often the repeat is worked'),
})

export const partFileSchema = partHeadSchema.extend({
  columns: z.int().min(1).max(LIMITS.columns).describe('Beads across'),
  start: section,
  repeat: section,
  end: section,
})

export const pieceHeadSchema = z.strictObject({
  name: text(80).min(1).describe('Name of the piece'),
  notes: text(4000).default(''),
  tray: z.array(trayBeadSchema).max(LIMITS.tray),
  fit: fitSchema,
  supply: supplySchema,
})

export const pieceBodySchema = pieceHeadSchema.extend({ parts: z.array(partFileSchema).min(1).max(LIMITS.parts) })

export const pieceFileSchema = z.strictObject({
  format: z.literal('weben-piece'),
  version: z.literal(PIECE_VERSION),
  piece: pieceBodySchema,
}).describe('A Weben piece: one thing to make of beads')

export type PieceFile = z.infer<typeof pieceFileSchema>
export type PartFile = z.infer<typeof partFileSchema>
export type PieceBody = z.infer<typeof pieceBodySchema>
export type PieceHead = Readonly<z.infer<typeof pieceHeadSchema>>
export type Fit = Readonly<z.infer<typeof fitSchema>>
export type Supply = Readonly<z.infer<typeof supplySchema>>
