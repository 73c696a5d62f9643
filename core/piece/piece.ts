import { requireSpec, type BeadSpec } from '../bead/spec'
import type { TrayBead } from '../bead/bead'
import { rowAt, type Cells } from '../grid/cells'
import { requireTechnique } from '../technique/registry'
import type { Settings, Technique, Work } from '../technique/technique'
import type { Fit, PieceHead, Supply } from './schema'

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
  readonly start: Cells
  readonly repeat: Cells
  readonly end: Cells
}

/** The document in memory: immutable; every change is a step (step.ts). */
export interface Piece extends Omit<PieceHead, 'tray' | 'fit' | 'supply'> {
  readonly tray: readonly TrayBead[]
  readonly fit: Fit
  readonly supply: Supply
  readonly parts: readonly Part[]
}

export const columnsOf = (part: Part): number => part.repeat.columns

/** Bead rows of the whole part. */
export const rowsOf = (part: Part): number => part.start.rows + part.times * part.repeat.rows + part.end.rows

export const techniqueOf = (part: Part): Technique => requireTechnique(part.technique)

export const beadOf = (part: Part): BeadSpec => requireSpec(part.spec)

export function workOf(part: Part, rows = rowsOf(part)): Work {
  return { columns: columnsOf(part), rows, bead: beadOf(part), settings: part.settings }
}

export function findPart(piece: Piece, id: string): Part | undefined {
  return piece.parts.find(p => p.id === id)
}

export const withPart = (piece: Piece, part: Part): Piece => ({ ...piece, parts: piece.parts.map(p => (p.id === part.id ? part : p)) })

export interface SectionRow {
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
  if (inside < middle) return { section: 'repeat', row: inside % part.repeat.rows, copy: Math.floor(inside / part.repeat.rows) }
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
  return rowAt(part[section], row)
}

/** The tray number at (c, r) of the whole part, 0 outside. */
export function numberAt(part: Part, c: number, r: number): number {
  return c < 0 || r < 0 || c >= columnsOf(part) || r >= rowsOf(part) ? 0 : partRow(part, r)[c]!
}

export const trayByNumber = (tray: readonly TrayBead[]): ReadonlyMap<number, TrayBead> => new Map(tray.map(b => [b.number, b]))
