import type { Lines } from '../../grid/lines'
import { bad, good, problem, type Problem, type Result } from '../../problem'
import { findPart, SECTIONS, withPart, type Part, type Piece, type SectionName } from '../piece'
import type { Step } from './schema'

/** A cell of one section: where a selection or a cursor stands. */
export interface CellPosition {
  readonly part: string
  readonly section: SectionName
  readonly c: number
  readonly r: number
}

/** Sizes of a part as steps change them, to count what steps cost before any is applied. */
export interface Size {
  /** Beads across a grid; 0 of lines of their own lengths. */
  columns: number
  rows: Record<SectionName, number>
  /** Places of lines of their own lengths, all lines of a section together; 0 of a grid. */
  slots: Record<SectionName, number>
}
export type Sizes = Map<string, Size>

/** What every kind of step answers. A new kind is one more file, a shape in schema.ts and a line in table.ts. */
export interface StepKind<S extends Step> {
  /** The piece after it; a misfit where what it says was there is not. */
  apply(piece: Piece, step: S): Result<Piece>
  /** What takes it back: apply, then apply the inverse, is identity. */
  invert(step: S): S
  /** Id of the part in which it changes something; null for the piece and its lists. */
  part(step: S): string | null
  /** Tells `add` each tray number that it brings into cells. */
  numbers?(step: S, add: (number: number) => void): void
  /** Where a cell of its part is after it; null if it was taken out. It stays if not said. */
  map?(step: S, position: CellPosition): CellPosition | null
  /** Cells that are read or written in applying it, in the largest case; `sizes` become those after it. */
  effort(step: S, sizes: Sizes): number
}

export const misfit = (at: string): Problem =>
  problem('step-misfit', at, 'The piece has changed since; this edit no longer fits where it was made.')

/** Whether two plain values are the same throughout. */
export const same = (a: unknown, b: unknown): boolean => {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  const keysA = Object.keys(a)
  return (
    keysA.length === Object.keys(b).length &&
    keysA.every((k) => same((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]))
  )
}

const FLIP = { insert: 'remove', remove: 'insert' } as const

type Doing = 'insert' | 'remove'

/** What was put in is taken out, and the other way round. */
export const flipped = <S extends { readonly do: Doing }>(step: S): S => ({ ...step, do: FLIP[step.do] })

/** So many things that are put in, or taken out, at a place of a list. */
export interface Span {
  readonly do: Doing
  readonly at: number
  readonly count: number
}

/** Where index i lies after `count` things were put in or taken out at `at`; null if it was taken out. */
export function shifted(i: number, { do: doing, at, count }: Span): number | null {
  if (i < at) return i
  if (doing === 'insert') return i + count
  return i < at + count ? null : i - count
}

/** A count after some came or went. What takes out more than there is will not fit, and makes nothing cheaper. */
export const counted = (now: number, { do: doing, count }: Span): number =>
  Math.max(0, doing === 'insert' ? now + count : now - count)

/** Places of a section. */
export const placesIn = ({ columns, rows, slots }: Size, name: SectionName): number =>
  columns * rows[name] + slots[name]

export const rowsIn = ({ rows }: Size): number => SECTIONS.reduce((sum, name) => sum + rows[name], 0)
export const cellsIn = (size: Size): number => SECTIONS.reduce((sum, name) => sum + placesIn(size, name), 0)

/** A row by itself, however narrow: it is cut into blocks, checked and told in words. */
export const PER_ROW = 200

/** A field is checked with all fields of what it stands in. */
export const FIELDS = 200

/** Tells `add` the numbers of run-length code. */
export function addNumbers(runs: readonly number[], add: (number: number) => void): void {
  for (let i = 1; i < runs.length; i += 2) add(runs[i]!)
}

/** Changes one part of a piece. */
export function inPart(piece: Piece, id: string, change: (part: Part) => Result<Part>): Result<Piece> {
  const part = findPart(piece, id)
  if (!part) return bad(misfit(id))
  const next = change(part)
  return next.ok ? good(withPart(piece, next.value)) : next
}

/** Changes what one section of a part keeps. */
export const inSection = (
  piece: Piece,
  { part: id, section }: { readonly part: string; readonly section: SectionName },
  change: (lines: Lines) => Result<Lines>,
): Result<Piece> =>
  inPart(piece, id, (part) => {
    const lines = change(part[section])
    return lines.ok ? good({ ...part, [section]: lines.value }) : lines
  })
