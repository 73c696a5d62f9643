import { z } from 'zod'
import { isSound } from '../../units/text'
import { LIMITS, partFileSchema, trayBeadSchema } from '../schema'

/** What steps look like as JSON. What each kind does stands in the file of its name beside this one. */
const sectionName = z.enum(['start', 'repeat', 'end'])
const runsSchema = z.array(z.int().min(0)).max(4_000_000)
/** Sparse patch: [index, length, before, after], indices line after line in the section, ascending and apart. */
const patchSchema = z.tuple([z.int().min(0), z.int().min(1), z.int().min(0).max(65535), z.int().min(0).max(65535)])
const key = z.union([z.string().max(60), z.number()])

export const stepSchema = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('cells'),
    part: z.string(),
    section: sectionName,
    patches: z.array(patchSchema).max(2_000_000),
  }),
  z.strictObject({
    type: z.literal('rows'),
    do: z.enum(['insert', 'remove']),
    part: z.string(),
    section: sectionName,
    at: z.int().min(0),
    count: z.int().min(1),
    cells: runsSchema,
  }),
  z.strictObject({
    type: z.literal('columns'),
    do: z.enum(['insert', 'remove']),
    part: z.string(),
    at: z.int().min(0),
    count: z.int().min(1),
    cells: z.strictObject({ start: runsSchema, repeat: runsSchema, end: runsSchema }),
  }),
  z.strictObject({
    type: z.literal('lines'),
    do: z.enum(['insert', 'remove']),
    part: z.string(),
    section: sectionName,
    at: z.int().min(0),
    lines: z.array(runsSchema).min(1).max(LIMITS.rows),
  }),
  z.strictObject({
    type: z.literal('slots'),
    do: z.enum(['insert', 'remove']),
    part: z.string(),
    section: sectionName,
    line: z.int().min(0),
    at: z.int().min(0),
    cells: runsSchema.min(2),
  }),
  z.strictObject({ type: z.literal('set'), path: z.array(key).min(1).max(5), before: z.json(), after: z.json() }),
  z.strictObject({
    type: z.literal('tray'),
    do: z.enum(['insert', 'remove']),
    at: z.int().min(0),
    bead: trayBeadSchema,
  }),
  z.strictObject({
    type: z.literal('part'),
    do: z.enum(['insert', 'remove']),
    at: z.int().min(0),
    value: partFileSchema,
  }),
])

export type Step = z.infer<typeof stepSchema>
/** A step of one kind. */
export type StepOf<T extends Step['type']> = Extract<Step, { type: T }>
export type CellsStep = StepOf<'cells'>
export type RowsStep = StepOf<'rows'>
export type ColumnsStep = StepOf<'columns'>
export type LinesStep = StepOf<'lines'>
export type SlotsStep = StepOf<'slots'>
export type SetStep = StepOf<'set'>
export type Patch = CellsStep['patches'][number]

/** One gesture. The id is made by whoever makes the change, so that sending it twice changes nothing twice. */
export const transactionSchema = z.strictObject({
  id: z.string().regex(/^[A-Za-z0-9_-]{8,40}$/),
  label: z.string().max(80).refine(isSound),
  steps: z.array(stepSchema).min(1).max(500),
})

export type Transaction = z.infer<typeof transactionSchema>
