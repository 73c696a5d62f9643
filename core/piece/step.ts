import { z } from 'zod'
import type { TrayBead } from '../bead/bead'
import {
  cellAt,
  copyBox,
  insertColumns,
  insertRows,
  removeColumns,
  removeRows,
  withCells,
  type Cells,
} from '../grid/cells'
import { numbersOf, runsLength, runsOf } from '../grid/runs'
import { bad, good, problem, type Problem, type Result } from '../problem'
import { isSound } from '../units/text'
import { checkPart, checkPiece, checkSize, partFromFile, partToFile, problemsOf, settledSettings } from './codec'
import { columnsOf, findPart, SECTIONS, withPart, type Part, type Piece, type SectionName } from './piece'
import {
  partFileSchema,
  partHeadSchema,
  pieceHeadSchema,
  trayBeadSchema,
  type PartFile,
  type PieceHead,
} from './schema'

/**
 * Every change of a piece is a step: it can be applied, inverted, merged, carried over other steps (rebase.ts) and
 * sent as JSON. A step names what was there before, so it applies only where it fits. Laws: apply then invert is
 * identity; to and from JSON is identity.
 */
const sectionName = z.enum(['start', 'repeat', 'end'])
const runsSchema = z.array(z.int().min(0)).max(4_000_000)
/** Sparse patch: [index, length, before, after], indices row-major in the section, ascending and apart. */
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
export type CellsStep = Extract<Step, { type: 'cells' }>
export type RowsStep = Extract<Step, { type: 'rows' }>
export type ColumnsStep = Extract<Step, { type: 'columns' }>
export type SetStep = Extract<Step, { type: 'set' }>
export type Patch = CellsStep['patches'][number]

/** One gesture. The id is made by whoever makes the change, so that sending it twice changes nothing twice. */
export const transactionSchema = z.strictObject({
  id: z.string().regex(/^[A-Za-z0-9_-]{8,40}$/),
  label: z.string().max(80).refine(isSound),
  steps: z.array(stepSchema).min(1).max(500),
})

export type Transaction = z.infer<typeof transactionSchema>

const misfit = (at: string): Problem =>
  problem('step-misfit', at, 'The piece has changed since; this edit no longer fits where it was made.')

const same = (a: unknown, b: unknown): boolean => {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  const keysA = Object.keys(a)
  return (
    keysA.length === Object.keys(b).length &&
    keysA.every((k) => same((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]))
  )
}

const FLIP = { insert: 'remove', remove: 'insert' } as const

function invertStep(step: Step): Step {
  switch (step.type) {
    case 'cells':
      return { ...step, patches: step.patches.map(([index, length, before, after]) => [index, length, after, before]) }
    case 'set':
      return { ...step, before: step.after, after: step.before }
    case 'rows':
      return { ...step, do: FLIP[step.do] }
    case 'columns':
      return { ...step, do: FLIP[step.do] }
    case 'tray':
      return { ...step, do: FLIP[step.do] }
    case 'part':
      return { ...step, do: FLIP[step.do] }
  }
}

export const invertSteps = (steps: readonly Step[]): Step[] => steps.map(invertStep).reverse()

function applyCells(cells: Cells, patches: readonly Patch[], at: string): Result<Cells> {
  const size = cells.columns * cells.rows
  let last = 0
  for (const [index, length, before] of patches) {
    if (index < last || index + length > size) return bad(misfit(at))
    last = index + length
    for (let i = index; i < last; i++)
      if (cellAt(cells, i % cells.columns, Math.floor(i / cells.columns)) !== before) return bad(misfit(at))
  }
  return good(
    withCells(cells, (set) => {
      for (const [index, length, , after] of patches) for (let i = index; i < index + length; i++) set(i, after)
    }),
  )
}

function applyRows(cells: Cells, step: RowsStep): Result<Cells> {
  const inserted = step.count * cells.columns
  if (runsLength(step.cells) !== inserted) return bad(misfit('rows'))
  if (step.do === 'insert')
    return step.at > cells.rows ? bad(misfit('rows')) : good(insertRows(cells, step.at, numbersOf(step.cells)))
  if (step.at + step.count > cells.rows) return bad(misfit('rows'))
  if (!same(runsOf(copyBox(cells, 0, step.at, cells.columns, step.count)), step.cells)) return bad(misfit('rows'))
  return good(removeRows(cells, step.at, step.count))
}

function applyColumns(part: Part, step: ColumnsStep): Result<Part> {
  const columns = columnsOf(part)
  if (step.do === 'insert' ? step.at > columns : step.at + step.count > columns || step.count >= columns)
    return bad(misfit('columns'))
  const next: Partial<Record<SectionName, Cells>> = {}
  for (const name of SECTIONS) {
    const cells = part[name]
    const runs = step.cells[name]
    if (runsLength(runs) !== step.count * cells.rows) return bad(misfit('columns'))
    if (step.do === 'insert') next[name] = insertColumns(cells, step.at, step.count, numbersOf(runs))
    else {
      if (!same(runsOf(copyBox(cells, step.at, 0, step.count, cells.rows)), runs)) return bad(misfit('columns'))
      next[name] = removeColumns(cells, step.at, step.count)
    }
  }
  return good({ ...part, ...next })
}

/**
 * Where a field lives: lists are entered by the id of the thing, not its place, so that an edit elsewhere does not
 * move it.
 */
const LIST_ID: Record<string, string> = { tray: 'number', parts: 'id' }

function replaced(value: unknown, path: readonly (string | number)[], step: SetStep, list?: string): unknown {
  if (path.length === 0) return same(value ?? null, step.before ?? null) ? step.after : undefined
  if (typeof value !== 'object' || value === null) return undefined
  const [head, ...rest] = path
  if (Array.isArray(value) && list) {
    const at = value.findIndex((item) => (item as Record<string, unknown>)[list] === head)
    if (at < 0) return undefined
    const next = replaced(value[at], rest, step)
    return next === undefined ? undefined : value.map((item, i) => (i === at ? next : item))
  }
  if (!Object.hasOwn(value, head!)) return undefined
  const next = replaced((value as Record<string, unknown>)[head!], rest, step, LIST_ID[String(head)])
  return next === undefined ? undefined : { ...value, [head!]: next }
}

/**
 * A step on all settings of a part, with what it says was there brought to what is there, where the two mean the same:
 * a step that was kept from before a stitch got one more setting leaves it out.
 */
function whole(piece: Piece, step: SetStep): SetStep {
  const part =
    step.path[0] === 'parts' && step.path[2] === 'settings' && step.path.length === 3
      ? findPart(piece, String(step.path[1]))
      : undefined
  if (!part || !same(settledSettings(part.technique, step.before), settledSettings(part.technique, part.settings)))
    return step
  return { ...step, before: part.settings }
}

const FORBIDDEN = new Set(['start', 'repeat', 'end', 'columns', 'id', 'number', 'version'])

/** Each field of a piece by itself: only the one that a step changes needs to be looked at. */
const HEAD_FIELDS = Object.fromEntries(
  Object.entries(pieceHeadSchema.shape).map(([field, schema]) => [field, z.strictObject({ [field]: schema })]),
) as unknown as Record<keyof PieceHead, z.ZodType<Partial<PieceHead>>>

function applySet(piece: Piece, step: SetStep): Result<Piece> {
  const where = step.path.join('/')
  const inLists = step.path[0] === 'tray' || step.path[0] === 'parts'
  if (inLists ? step.path.length < 3 || FORBIDDEN.has(String(step.path[2])) : false) return bad(misfit(where))
  const next = replaced(piece, step.path, whole(piece, step)) as Piece | undefined
  if (next === undefined) return bad(misfit(where))
  if (step.path[0] !== 'parts') {
    const field = step.path[0] as keyof PieceHead
    const checked = HEAD_FIELDS[field].safeParse({ [field]: next[field] })
    return checked.success ? good({ ...next, ...checked.data }) : bad(...problemsOf(checked.error))
  }
  const part = findPart(next, String(step.path[1]))!
  const { start: _s, repeat: _r, end: _e, ...own } = part
  const checked = partHeadSchema.safeParse(own)
  return checked.success ? good(next) : bad(...problemsOf(checked.error))
}

const settledFile = (file: PartFile): PartFile => ({
  ...file,
  settings: settledSettings(file.technique, file.settings) as PartFile['settings'],
})

export function applyStep(piece: Piece, step: Step): Result<Piece> {
  switch (step.type) {
    case 'set':
      return applySet(piece, step)
    case 'tray': {
      if (step.do === 'insert') {
        if (step.at > piece.tray.length) return bad(misfit('tray'))
        return good({ ...piece, tray: piece.tray.toSpliced(step.at, 0, step.bead as TrayBead) })
      }
      return same(piece.tray[step.at], step.bead)
        ? good({ ...piece, tray: piece.tray.toSpliced(step.at, 1) })
        : bad(misfit('tray'))
    }
    case 'part': {
      if (step.do === 'insert') {
        const part = partFromFile(step.value)
        if (!part.ok) return part
        return step.at > piece.parts.length
          ? bad(misfit('parts'))
          : good({ ...piece, parts: piece.parts.toSpliced(step.at, 0, part.value) })
      }
      const there = piece.parts[step.at]
      if (!there || piece.parts.length === 1 || !same(settledFile(partToFile(there)), settledFile(step.value)))
        return bad(misfit('parts'))
      return good({ ...piece, parts: piece.parts.toSpliced(step.at, 1) })
    }
    default: {
      const part = findPart(piece, step.part)
      if (!part) return bad(misfit(step.part))
      if (step.type === 'columns') {
        const next = applyColumns(part, step)
        return next.ok ? good(withPart(piece, next.value)) : next
      }
      const cells =
        step.type === 'cells'
          ? applyCells(part[step.section], step.patches, `${step.part}/${step.section}`)
          : applyRows(part[step.section], step)
      return cells.ok ? good(withPart(piece, { ...part, [step.section]: cells.value })) : cells
    }
  }
}

/** Numbers that a list of steps brings into cells: only these need to be looked up on the tray. */
function broughtIn(steps: readonly Step[]): Set<number> {
  const numbers = new Set<number>()
  const add = (runs: readonly number[]) => {
    for (let i = 1; i < runs.length; i += 2) numbers.add(runs[i]!)
  }
  for (const step of steps) {
    if (step.type === 'cells') for (const patch of step.patches) numbers.add(patch[3])
    else if (step.type === 'rows' && step.do === 'insert') add(step.cells)
    else if (step.type === 'columns' && step.do === 'insert') for (const name of SECTIONS) add(step.cells[name])
    else if (step.type === 'part' && step.do === 'insert')
      for (const name of SECTIONS) for (const row of step.value[name]) add(row)
  }
  numbers.delete(0)
  return numbers
}

/** Whether any cell holds a number, also where the stitch has no bead. */
export function usesNumber(piece: Piece, number: number): boolean {
  return piece.parts.some((part) => SECTIONS.some((name) => part[name].blocks.some((block) => block.includes(number))))
}

/** Applies steps in order and checks that what comes out is a sound piece. Either all apply or none. */
export function applySteps(piece: Piece, steps: readonly Step[]): Result<Piece> {
  let next = piece
  for (const step of steps) {
    const result = applyStep(next, step)
    if (!result.ok) return result
    next = result.value
  }
  const onTray = new Set(next.tray.map((b) => b.number))
  for (const number of broughtIn(steps)) {
    // What was laid and taken up again within the list is nowhere.
    if (!onTray.has(number) && usesNumber(next, number))
      return bad(problem('stray-number', 'tray', `Bead number ${number} is not on the tray. Add it first.`))
  }
  for (const step of steps) {
    if (
      step.type === 'tray' &&
      step.do === 'remove' &&
      !onTray.has(step.bead.number) &&
      usesNumber(next, step.bead.number)
    ) {
      return bad(
        problem(
          'bead-used',
          'tray',
          `${step.bead.letter} ${step.bead.name} is still in the pattern. Swap it for another bead first.`,
        ),
      )
    }
  }
  const touched = new Set(next.parts.filter((p) => p !== findPart(piece, p.id)))
  const problems =
    next.tray === piece.tray && next.parts.length === piece.parts.length
      ? [...[...touched].flatMap(checkPart), ...checkSize(next)]
      : checkPiece(next)
  return problems.length > 0 ? bad(...problems) : good(next)
}
