import { z } from 'zod'
import { isSound } from '../units/text'
import { FINISHES } from '../bead/bead'
import { GLYPH_IDS } from '../bead/glyph'
import { specId } from '../bead/schema'
import { DEFAULT_SPEC } from '../bead/spec'
import { CLOSURE_KINDS } from '../wear/closure'
import { FIT_KINDS } from '../wear/kind'
import { CURRENCY_CODES, MOST_MONEY } from '../money/money'
import { NEEDLE_IDS, THREAD_IDS } from '../thread/catalogue'
import { SIDES } from '../technique/held'
import { TECHNIQUES } from '../technique/registry'
import { PIECE_VERSION } from './version'

/** Bounds that keep a document workable: a million cells fit with room. */
export const LIMITS = {
  columns: 500,
  rows: 20_000,
  cells: 4_000_000,
  times: 2000,
  tray: 200,
  parts: 200,
  holes: 40,
} as const

const mm = (least: number, most: number) => z.number().min(least).max(most)
const text = (most: number) =>
  z.string().max(most).refine(isSound, { error: 'holds a character that cannot be kept: type it anew' })

export const trayBeadSchema = z.strictObject({
  number: z.int().min(1).max(65534).describe('What stands for this bead in the cells'),
  letter: z
    .string()
    .regex(/^[A-Z]{1,2}$/)
    .describe('Letter in words and charts'),
  glyph: z.enum(GLYPH_IDS).describe('Mark in black-and-white charts'),
  name: text(60).min(1),
  spec: specId.describe('Shape and size'),
  colour: z
    .string()
    .regex(/^#[0-9a-f]{6}$/)
    .describe('sRGB, #rrggbb, lower case'),
  finish: z.enum(FINISHES),
})

export const closureSchema = z.strictObject({
  kind: z.enum(CLOSURE_KINDS),
  name: text(60).default('').describe('Name of one’s own closure; empty for the catalogue’s'),
  lengthMm: mm(0, 200).describe('Length taken up, measured closed'),
  overlapMm: mm(0, 100).default(0).describe('Beadwork that lies over beadwork when closed'),
  extenderMm: mm(0, 200).default(0).describe('Chain that lets it out'),
  openings: z.int().min(1).max(8).default(1).describe('Buttons or rings to choose from'),
  openingStepMm: mm(0, 60).default(8).describe('Distance from one opening to the next'),
  loop: z
    .enum(['side', 'front'])
    .default('side')
    .describe('How the loop that something hangs by is seen: on its edge, or round from the front'),
})

export const fitSchema = z.strictObject({
  kind: z.enum(FIT_KINDS),
  part: text(40).default('').describe('Id of the part that is fitted; empty for the first'),
  wearer: text(60).default('').describe('For whom'),
  bodyMm: mm(5, 2000).describe(
    'The measure it is made to: wrist, ankle, neck or finger round; of a necklace the finished length, of an ' +
      'earring the drop',
  ),
  easeMm: mm(-15, 150)
    .default(0)
    .describe('Room between body and work; common practice for a bracelet: close 6, easy 13, loose 19–25'),
  passMm: mm(0, 900)
    .default(0)
    .describe('What it must pass where nothing opens (hand, heel, head), round; 0 if not measured'),
  wraps: z.int().min(1).max(12).default(1).describe('How often it goes round'),
  cuffShare: z.number().min(0.6).max(0.95).default(0.78).describe('Share of the wrist that a rigid cuff covers'),
  closure: closureSchema,
  widthMm: mm(1, 400).describe('Width wanted'),
  pair: z.enum(['mirror', 'copy']).default('mirror').describe('What the second of a pair is to the first'),
})

export const swatchSchema = z.strictObject({
  rows: z.int().min(1).max(2000).describe('Bead rows along the length that were measured'),
  lengthMm: mm(1, 4000),
  columns: z.int().min(0).max(500).default(0).describe('Beads across that were measured; 0 if only the length was'),
  widthMm: mm(0, 1000).default(0),
  from: text(80)
    .default('')
    .describe('Name of the finished piece that was measured from end to end; empty for rows measured within a swatch'),
})

/** Swatches that a gauge holds. */
export const MOST_SWATCHES = 20

export const gaugeSchema = z
  .strictObject({
    technique: z.enum(TECHNIQUES.map((t) => t.id)),
    spec: specId,
    thread: z.enum(THREAD_IDS),
    plan: z
      .string()
      .regex(/^[0-9a-f]{8}$/)
      .optional()
      .describe('Which recipe was measured, where a technique follows any: a number made from its steps and sizes'),
    swatches: z.array(swatchSchema).min(1).max(MOST_SWATCHES),
  })
  .describe('What one hand measured in one stitch, bead and thread')

const money = z.int().min(0).max(MOST_MONEY)

export const findingSchema = z.strictObject({
  name: text(60).min(1),
  count: z.int().min(1).max(999),
  price: money.describe('For each'),
})

export const costSchema = z.strictObject({
  currency: z.enum(CURRENCY_CODES).default('EUR'),
  hourly: money.default(1500).describe('Rate for an hour of work, in the currency’s smallest unit'),
  beadsPerHourLeast: z.int().min(1).max(5000).default(100),
  beadsPerHourMost: z.int().min(1).max(5000).default(200),
  prepareMinutes: z.int().min(0).max(1000).default(20).describe('Winding warps, loading strands, laying out'),
  beads: z
    .array(z.strictObject({ number: z.int().min(1).max(65534), grams: z.number().positive().max(1000), price: money }))
    .max(200)
    .default([])
    .describe('What the user pays for so many grams of a bead of the tray'),
  threadMm: mm(1, 1_000_000).default(50_000),
  threadPrice: money.default(0).describe('Price of threadMm of thread'),
  closure: money.default(0).describe('Price of the closure, or of one pair of ear wires'),
  findings: z.array(findingSchema).max(40).default([]),
  asked: money.default(0).describe('The price that the maker asks for one piece or pair; 0 if undecided'),
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
  hanks: z.boolean().default(false).describe('Hanks can be bought too'),
  batch: z.int().min(1).max(999).default(1).describe('How many are made; of earrings, pairs'),
  sewPasses: z.int().min(0).max(6).default(2).describe('Extra passes through the beads that a closure is sewn to'),
  earWireGauge: z
    .int()
    .min(0)
    .max(26)
    .default(0)
    .describe('Ear wires bent by hand of this gauge; 0 if they are bought'),
  elastics: z.int().min(1).max(4).default(2).describe('Elastics side by side, where elastic closes it'),
})

const run = z.array(z.int().min(0).max(65535))
const section = z
  .array(run)
  .max(LIMITS.rows)
  .describe(
    'One entry for each row along the length, or for each line: run-length code [count, number, count, number, …]; ' +
      'number 0 is no bead',
  )

const setting = z.union([z.string().max(600), z.number(), z.boolean()])

const partId = z.string().regex(/^[a-z0-9-]{1,40}$/)

const side = z.enum(SIDES)

/** What joins two parts where they are not sewn edge to edge. */
const LINK_KINDS = ['ring', 'chain'] as const

export const linkSchema = z.strictObject({
  kind: z.enum(LINK_KINDS),
  mm: mm(0, 300).describe('Distance that it keeps'),
  linkMm: mm(0.01, 50).optional().describe('From link to link of a chain, where that is known'),
})

const jointSchema = z
  .strictObject({
    part: partId.describe('Id of the part that it hangs on'),
    at: side.describe('Side of that part: its first row, its last row, its first column, its last column'),
    by: side.describe('Side of its own that is joined to it'),
    holes: z
      .array(
        z
          .int()
          .min(1)
          .max(LIMITS.rows * LIMITS.times),
      )
      .max(LIMITS.holes)
      .describe('Beads of that side, counted from 1, at which it is joined; none: side to side, middle to middle'),
    link: linkSchema.nullable().describe('What joins them, one for each hole; null: sewn on'),
  })
  .describe('How a part hangs on another')

export const partHeadSchema = z.strictObject({
  id: partId,
  name: text(60).min(1),
  technique: z.enum(TECHNIQUES.map((t) => t.id)),
  settings: z.record(z.string().max(40), setting).default({}).describe('The stitch’s own settings'),
  spec: specId.default(DEFAULT_SPEC).describe('The bead that the grid is drawn for'),
  times: z.int().min(0).max(LIMITS.times).describe('How often the repeat is worked'),
  on: jointSchema.nullable().default(null).describe('What it hangs on; null: nothing'),
  plan: z
    .record(z.string().max(40), z.unknown())
    .optional()
    .describe('What its lines mean, where the stitch keeps a plan; its shape is the stitch’s own'),
})

export const partFileSchema = partHeadSchema.extend({
  kind: z
    .enum(['grid', 'lines'])
    .optional()
    .describe('A grid, whose rows are all equally long (if left out), or lines of their own lengths'),
  columns: z.int().min(1).max(LIMITS.columns).optional().describe('Beads across a grid; lines of their own have none'),
  start: section,
  repeat: section,
  end: section,
})

/** Things said to be meant so that a piece holds. */
const MOST_MEANT = 500

const meantSchema = z
  .strictObject({
    rule: text(40).min(1).describe('What the proofreader calls it'),
    part: z.string().max(40).describe('Id of the part; empty for the piece as a whole'),
    section: z.enum(['start', 'repeat', 'end']),
    r: z.int().min(0).max(LIMITS.rows).describe('Line of the section, from 0'),
    c: z.int().min(0).max(LIMITS.columns).nullable().describe('Bead of the line, from 0; null for the whole line'),
    sign: z
      .string()
      .regex(/^[0-9a-f]{8}$/)
      .describe('A number made from what lies there: it speaks again when that changes'),
    reason: text(200).describe('Why it is meant so'),
  })
  .describe('Something that the proofreader found and that is meant so')

export const pieceHeadSchema = z.strictObject({
  name: text(80).min(1).describe('Name of the piece'),
  notes: text(4000).default(''),
  tray: z.array(trayBeadSchema).max(LIMITS.tray),
  fit: fitSchema,
  gauges: z.array(gaugeSchema).max(20).default([]),
  meant: z.array(meantSchema).max(MOST_MEANT).default([]),
  supply: supplySchema,
  cost: costSchema.default(() => costSchema.parse({})),
})

export const pieceBodySchema = pieceHeadSchema.extend({ parts: z.array(partFileSchema).min(1).max(LIMITS.parts) })

export const pieceFileSchema = z
  .strictObject({
    format: z.literal('weben-piece'),
    version: z.literal(PIECE_VERSION),
    piece: pieceBodySchema,
  })
  .describe('A Weben piece: one thing to make of beads')

export type PieceFile = z.infer<typeof pieceFileSchema>
export type PartFile = z.infer<typeof partFileSchema>
export type PieceBody = z.infer<typeof pieceBodySchema>
export type Joint = Readonly<z.infer<typeof jointSchema>>
export { SIDES, type Side } from '../technique/held'
export type PieceHead = Readonly<z.infer<typeof pieceHeadSchema>>
export type Fit = Readonly<z.infer<typeof fitSchema>>

/** What a hand's own makings taught, where it is reckoned with; never part of a document. */
interface Learnt {
  /** Thread really used over the length of its path; left out: the usual. */
  readonly slack?: number
  /** Share of a bead that was put aside, by size; left out: that of the piece. */
  readonly culls?: ReadonlyMap<string, number>
}
export type Supply = Readonly<z.infer<typeof supplySchema>> & Learnt
export type Gauge = Readonly<z.infer<typeof gaugeSchema>>
export type Swatch = Readonly<z.infer<typeof swatchSchema>>
export type Cost = Readonly<z.infer<typeof costSchema>>
export type Meant = Readonly<z.infer<typeof meantSchema>>
