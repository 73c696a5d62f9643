import { placeOfKey } from '../grid/key'
import { copyBox } from '../grid/cells'
import { indexOf, lineAt, lineLength, numberAtIndex, plainLines, type Lines } from '../grid/lines'
import { runsOf } from '../grid/runs'
import {
  asGrid,
  columnsOf,
  isGrid,
  locateRow,
  rowsOf,
  SECTIONS,
  voidsOf,
  type Part,
  type Piece,
  type SectionName,
} from './piece'
import type { Joint } from './schema'
import type { CellsStep, ColumnsStep, LinesStep, Patch, RowsStep, SetStep, SlotsStep } from './step'

/** Cells of a part to change: the key of a cell of the whole part → tray number. */
export type Laying = ReadonlyMap<number, number>

/** Patches from changes by index; indices whose number stays are left out. */
function patchesOf(cells: Lines, changes: ReadonlyMap<number, number>): Patch[] {
  const patches: Patch[] = []
  for (const index of [...changes.keys()].sort((a, b) => a - b)) {
    const before = numberAtIndex(cells, index)
    const after = changes.get(index)!
    if (before === after) continue
    const last = patches.at(-1)
    if (last && last[0] + last[1] === index && last[2] === before && last[3] === after) last[1]++
    else patches.push([index, 1, before, after])
  }
  return patches
}

/**
 * Steps that lay beads at places of the whole part. Places in any copy of the repeat change the repeat itself; where
 * two copies of one cell are given different numbers, the later one wins.
 */
export function layingSteps(part: Part, laying: Laying): CellsStep[] {
  const columns = columnsOf(part)
  const rows = rowsOf(part)
  const voids = new Set(isGrid(part) ? voidsOf(part) : [])
  const changes: Record<SectionName, Map<number, number>> = { start: new Map(), repeat: new Map(), end: new Map() }
  for (const [key, number] of laying) {
    const { c, r } = placeOfKey(columns, key)
    if (r < 0 || r >= rows || voids.has(key)) continue
    const at = locateRow(part, r)
    // Behind the end of a line nothing is laid.
    if (c >= lineLength(part[at.section], at.row)) continue
    changes[at.section].set(indexOf(part[at.section], c, at.row), number)
  }
  return SECTIONS.flatMap((section) => {
    const patches = patchesOf(part[section], changes[section])
    return patches.length === 0 ? [] : [{ type: 'cells' as const, part: part.id, section, patches }]
  })
}

/** Steps that replace one bead by another everywhere in a part. */
export function swapSteps(part: Part, from: number, to: number): CellsStep[] {
  return SECTIONS.flatMap((section) => {
    const cells = part[section]
    const patches: Patch[] = []
    let base = 0
    for (const block of cells.blocks) {
      for (let i = 0; i < block.length; i++) {
        if (block[i] !== from) continue
        const last = patches.at(-1)
        if (last && last[0] + last[1] === base + i) last[1]++
        else patches.push([base + i, 1, from, to])
      }
      base += block.length
    }
    return from === to || patches.length === 0 ? [] : [{ type: 'cells' as const, part: part.id, section, patches }]
  })
}

/** What puts lines into a part, or takes them out: rows of a grid, or lines of their own lengths. */
export type LineStep = RowsStep | LinesStep

/**
 * Puts `count` lines before line `at` of a section, filled with one number: rows of a grid, or lines as long as the
 * one beside them.
 */
export function insertLinesStep(
  part: Part,
  section: SectionName,
  at: number,
  count: number,
  number: number,
): LineStep {
  if (isGrid(part)) return insertRowsStep(part, section, at, count, number)
  const lines = plainLines(part[section], at, count, number, columnsOf(part)).map(runsOf)
  return { type: 'lines', do: 'insert', part: part.id, section, at, lines }
}

/** Puts a copy of lines of one section before line `at` of a section. */
export function copyLinesStep(
  part: Part,
  section: SectionName,
  at: number,
  from: SectionName,
  first: number,
  count: number,
): LineStep {
  if (isGrid(part))
    return insertRowsStep(part, section, at, count, copyBox(part[from], 0, first, columnsOf(part), count))
  const lines = Array.from({ length: count }, (_, k) => runsOf(lineAt(part[from], first + k)))
  return { type: 'lines', do: 'insert', part: part.id, section, at, lines }
}

export function removeLinesStep(part: Part, section: SectionName, at: number, count: number): LineStep {
  if (isGrid(part)) return removeRowsStep(part, section, at, count)
  const lines = Array.from({ length: count }, (_, k) => runsOf(lineAt(part[section], at + k)))
  return { type: 'lines', do: 'remove', part: part.id, section, at, lines }
}

/** Puts places into line `line` of a section before its place `at`, filled with one number. */
export const insertSlotsStep = (
  part: Part,
  section: SectionName,
  line: number,
  at: number,
  count: number,
  number: number,
): SlotsStep => ({ type: 'slots', do: 'insert', part: part.id, section, line, at, cells: [count, number] })

export const removeSlotsStep = (
  part: Part,
  section: SectionName,
  line: number,
  at: number,
  count: number,
): SlotsStep => ({
  type: 'slots',
  do: 'remove',
  part: part.id,
  section,
  line,
  at,
  cells: runsOf(lineAt(part[section], line).subarray(at, at + count)),
})

/**
 * Puts `count` rows before row `at` of a section of a grid, filled with `number` or with the given row-major cells.
 */
export function insertRowsStep(
  part: Part,
  section: SectionName,
  at: number,
  count: number,
  fill: number | Uint16Array,
): RowsStep {
  const size = count * columnsOf(part)
  return {
    type: 'rows',
    do: 'insert',
    part: part.id,
    section,
    at,
    count,
    cells: typeof fill === 'number' ? [size, fill] : runsOf(fill),
  }
}

export function removeRowsStep(part: Part, section: SectionName, at: number, count: number): RowsStep {
  return {
    type: 'rows',
    do: 'remove',
    part: part.id,
    section,
    at,
    count,
    cells: runsOf(copyBox(asGrid(part)[section], 0, at, columnsOf(part), count)),
  }
}

/** Puts `count` columns before column `at`, in all sections, filled with `number`. */
export function insertColumnsStep(part: Part, at: number, count: number, number: number): ColumnsStep {
  const runs = (name: SectionName) => (part[name].rows === 0 ? [] : [count * part[name].rows, number])
  return {
    type: 'columns',
    do: 'insert',
    part: part.id,
    at,
    count,
    cells: { start: runs('start'), repeat: runs('repeat'), end: runs('end') },
  }
}

export function removeColumnsStep(part: Part, at: number, count: number): ColumnsStep {
  const runs = (name: SectionName) => runsOf(copyBox(asGrid(part)[name], at, 0, count, part[name].rows))
  return {
    type: 'columns',
    do: 'remove',
    part: part.id,
    at,
    count,
    cells: { start: runs('start'), repeat: runs('repeat'), end: runs('end') },
  }
}

/** Sets a field; `path` enters the tray by bead number and the parts by id. */
export function setStep(piece: Piece, path: (string | number)[], after: SetStep['after']): SetStep {
  let value: unknown = piece
  for (const key of path) {
    if (Array.isArray(value))
      value = value.find(
        (item) => (item as { id?: string }).id === key || (item as { number?: number }).number === key,
      )
    else value = (value as Record<string, unknown> | undefined)?.[key]
  }
  return { type: 'set', path, before: (value ?? null) as SetStep['before'], after }
}

/** Hangs a part on another, or on nothing. */
export const hangStep = (piece: Piece, part: Part, on: Joint | null): SetStep =>
  setStep(piece, ['parts', part.id, 'on'], on && { ...on, link: on.link && { ...on.link }, holes: [...on.holes] })
