import { keyOf } from '../grid/key'
import { requireSpec, type BeadSpec } from '../bead/spec'
import type { TrayBead } from '../bead/bead'
import type { Cells } from '../grid/cells'
import { isRagged, lineAt, lineLength, slotCount, type Lines } from '../grid/lines'
import type { Held } from '../technique/held'
import { requireTechnique } from '../technique/registry'
import type { Place } from '../technique/lattice'
import type { Plan, Settings, Technique, Work } from '../technique/technique'
import type { Cost, Fit, Gauge, Joint, Meant, PieceHead, Supply } from './schema'
import { beadOfNumber, sizesText, type Sizes } from './sizes'

/** The three sections of a weave: start + times × repeat + end. Editing any copy of the repeat edits them all. */
export type SectionName = 'start' | 'repeat' | 'end'

export const SECTIONS: readonly SectionName[] = ['start', 'repeat', 'end']

export interface Part {
  readonly id: string
  readonly name: string
  readonly technique: string
  readonly settings: Settings
  readonly spec: string
  readonly times: number
  /** What it hangs on; null if on nothing. */
  readonly on: Joint | null
  /** What its lines mean, as its technique has it; none for most. */
  readonly plan?: Plan
  /** Cells of a grid in all three, or lines of their own lengths in all three. */
  readonly start: Lines
  readonly repeat: Lines
  readonly end: Lines
  /** Sizes of the beads that its lines hold (sizes.ts), made from the tray; never kept with the piece. */
  readonly sizes?: Sizes
  /** What it hangs on, where its work must know it (held.ts), made from the joints; never kept with the piece. */
  readonly held?: Held
  /** By which chart a round surface is unrolled to be looked at; of the screen only, never kept with the piece. */
  readonly chart?: string
}

/** A part that is a grid: all its lines are equally long. */
export interface GridPart extends Part {
  readonly start: Cells
  readonly repeat: Cells
  readonly end: Cells
}

export const isGrid = (part: Part): part is GridPart => !isRagged(part.repeat)

/** The same for code that only grids reach: a technique with lines of their own lengths is led elsewhere before. */
export function asGrid(part: Part): GridPart {
  if (!isGrid(part)) throw new Error(`“${part.name}” is not a grid`)
  return part
}

/** The document in memory: immutable; every change is a step (step.ts). */
export interface Piece extends Omit<PieceHead, 'tray' | 'fit' | 'gauges' | 'supply' | 'cost' | 'meant'> {
  readonly tray: readonly TrayBead[]
  readonly fit: Fit
  readonly gauges: readonly Gauge[]
  readonly supply: Supply
  readonly cost: Cost
  /** What the proofreader found and is meant so. */
  readonly meant: readonly Meant[]
  readonly parts: readonly Part[]
}

/** Beads across: of lines of their own lengths, those of the longest. */
export const columnsOf = ({ start, repeat, end }: Part): number =>
  isRagged(repeat) ? Math.max(start.columns, repeat.columns, end.columns) : repeat.columns

/** Bead rows of the whole part. */
export const rowsOf = (part: Part): number => part.start.rows + part.times * part.repeat.rows + part.end.rows

/** Cells that a part keeps: of the repeat those of one working. */
export const storedCells = (part: Part): number => SECTIONS.reduce((sum, name) => sum + slotCount(part[name]), 0)

export const techniqueOf = (part: Part): Technique => requireTechnique(part.technique)

export const beadOf = (part: Part): BeadSpec => requireSpec(part.spec)

/** What its technique is asked about a part, or about so many rows of it. */
export function workOf(part: Part, rows = rowsOf(part)): Work {
  return {
    ...basisOf(part),
    rows,
    ...(isGrid(part)
      ? {}
      : {
          lineLength: (r: number) => lengthOfLine(part, r),
          beadAt: (c: number, r: number) => beadOfNumber(part, partRow(part, r)[c]!),
          shape: shapeOf(part),
        }),
  }
}

/** Shapes by the ends of the repeat: edits of beads keep them. */
const shapes = new WeakMap<object, { readonly of: readonly unknown[]; readonly shape: object }>()

/** One value as long as nothing changes that the places of beads follow from: their colours are not among it. */
export function shapeOf(part: Part): object {
  const { technique, spec, settings, plan, times, repeat } = part
  const of = [
    ...[technique, spec, settings, plan, times, part.held],
    ...SECTIONS.flatMap((name) => [part[name].ends, sizesText(part.sizes, part[name], spec)]),
  ]
  let known = shapes.get(repeat.ends!)
  if (!known?.of.every((value, i) => value === of[i])) {
    known = { of, shape: {} }
    shapes.set(repeat.ends!, known)
  }
  return known.shape
}

/** What its technique is asked about rows that are not there yet: their lengths are not known. */
export const basisOf = (part: Part): Omit<Work, 'rows'> => ({
  columns: columnsOf(part),
  bead: beadOf(part),
  settings: part.settings,
  ...(part.plan ? { plan: part.plan } : {}),
  ...(part.held ? { held: part.held } : {}),
  ...(!isGrid(part) && part.repeat.rows > 0
    ? { usual: Array.from(lineAt(part.repeat, 0), (number) => beadOfNumber(part, number)) }
    : {}),
})

export function findPart(piece: Piece, id: string): Part | undefined {
  return piece.parts.find((p) => p.id === id)
}

/** The part that the piece is fitted by: the one it names, or the first that is made of beads. */
export const fittedPart = (piece: Pick<Piece, 'fit' | 'parts'>): Part =>
  piece.parts.find((p) => p.id === piece.fit.part) ??
  piece.parts.find((p) => techniqueOf(p).holds === undefined) ??
  piece.parts[0]!

export const withPart = (piece: Piece, part: Part): Piece => ({
  ...piece,
  parts: piece.parts.map((p) => (p.id === part.id ? part : p)),
})

interface SectionRow {
  readonly section: SectionName
  /** Row inside the section. */
  readonly row: number
  /** Which copy of the repeat, from 0; 0 outside the repeat. */
  readonly copy: number
}

/** Where row r of the whole part is kept. r must lie inside the part. */
export function locateRow(part: Part, r: number): SectionRow {
  if (r < part.start.rows) return { section: 'start', row: r, copy: 0 }
  const inside = r - part.start.rows
  const middle = part.times * part.repeat.rows
  if (inside < middle)
    return { section: 'repeat', row: inside % part.repeat.rows, copy: Math.floor(inside / part.repeat.rows) }
  return { section: 'end', row: inside - middle, copy: 0 }
}

/** First row of a section (of one copy of the repeat) in the whole part. */
export function sectionStart(part: Part, section: SectionName, copy = 0): number {
  if (section === 'start') return 0
  if (section === 'repeat') return part.start.rows + copy * part.repeat.rows
  return part.start.rows + part.times * part.repeat.rows
}

/** One row of the whole part as a view: do not write to it. */
export function partRow(part: Part, r: number): Uint16Array {
  const { section, row } = locateRow(part, r)
  return lineAt(part[section], row)
}

/** Places that line r of the whole part has. */
export function lengthOfLine(part: Part, r: number): number {
  const { section, row } = locateRow(part, r)
  return lineLength(part[section], row)
}

/** By the ends of the repeat: edits of beads keep them. */
const roomBehind = new WeakMap<object, { readonly of: readonly unknown[]; readonly keys: readonly number[] }>()

/** Keys behind the last place of each line that is shorter than the longest. */
function keysBehind(part: Part): readonly number[] {
  const of = [...SECTIONS.map((name) => part[name].ends), part.times]
  const ends = part.repeat.ends!
  const known = roomBehind.get(ends)
  if (known?.of.every((value, i) => value === of[i])) return known.keys
  const columns = columnsOf(part)
  const keys: number[] = []
  for (let r = 0; r < rowsOf(part); r++)
    for (let c = lengthOfLine(part, r); c < columns; c++) keys.push(keyOf(columns, c, r))
  roomBehind.set(ends, { of, keys })
  return keys
}

/**
 * Keys of cells that the grid has room for but the stitch has not, and of those behind the ends of lines of their own
 * lengths.
 */
export const voidsOf = (part: Part): readonly number[] =>
  isGrid(part) ? (techniqueOf(part).voids?.(workOf(part)) ?? []) : keysBehind(part)

/** Whether the stitch has a bead at (c, r); false outside. */
export function isInside(part: Part, { c, r }: Place): boolean {
  const columns = columnsOf(part)
  return (
    c >= 0 &&
    r >= 0 &&
    c < columns &&
    r < rowsOf(part) &&
    (isGrid(part)
      ? techniqueOf(part).voids === undefined || !voidsOf(part).includes(keyOf(columns, c, r))
      : c < lengthOfLine(part, r))
  )
}

/** The tray number at (c, r) of the whole part, 0 outside and where the stitch has no bead. */
export function numberAt(part: Part, c: number, r: number): number {
  return isInside(part, { c, r }) ? partRow(part, r)[c]! : 0
}

/** All cells of the part in one row-major array, repeats written out; 0 where the stitch has no bead. */
export function wholePart(part: Part): Uint16Array {
  const columns = columnsOf(part)
  const out = new Uint16Array(columns * rowsOf(part))
  if (!isGrid(part)) {
    for (let r = 0; r < rowsOf(part); r++) out.set(partRow(part, r), keyOf(columns, 0, r))
    return out
  }
  let at = 0
  const lay = (cells: Cells) => {
    for (const block of cells.blocks) {
      out.set(block, at)
      at += block.length
    }
  }
  lay(part.start)
  for (let k = 0; k < part.times; k++) lay(part.repeat)
  lay(part.end)
  for (const key of voidsOf(part)) out[key] = 0
  return out
}

/** Rows as weavers count them, up to and with that many bead rows; of the whole part by default. */
export const countedRows = (part: Part, rows = rowsOf(part)): number =>
  techniqueOf(part).growth.countedRows(rows, part.settings)

export const trayByNumber = (tray: readonly TrayBead[]): ReadonlyMap<number, TrayBead> =>
  new Map(tray.map((b) => [b.number, b]))
