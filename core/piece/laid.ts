import { isRound } from './nature'
import { requireLattice } from '../technique/stitch'
import { columnOfKey, keyOf, rowOfKey } from '../grid/key'
import { removeLines, type Lines } from '../grid/lines'
import { siteOf } from '../technique/lattice'
import type { LaidSums, Work } from '../technique/technique'
import {
  basisOf,
  columnsOf,
  isGrid,
  locateRow,
  numberAt,
  partRow,
  rowsOf,
  SECTIONS,
  sectionStart,
  techniqueOf,
  voidsOf,
  workOf,
  type Part,
  type SectionName,
} from './piece'

/**
 * What of a grid is really laid: length, width, thread and time follow from it, never from room that is left empty. An
 * empty bead row or column at an edge is no size; one between beads is none either, but a finding
 * (core/proof/finding.ts).
 */
interface Laid {
  /** The part without its empty bead rows: what is worked. The part itself where no row is empty. */
  readonly part: Part
  /** Columns that hold a bead; of a tube all of them, since its round does not close with fewer. */
  readonly columns: number
  /**
   * How much less the work measures along and across than whole rows and columns would, mm: its outermost beads lie
   * further in.
   */
  readonly shortMm: number
  readonly narrowMm: number
}

interface Seen {
  readonly columns: number
  readonly rows: Uint8Array
  readonly across: Uint8Array
}

const seenBlocks = new WeakMap<Uint16Array, Seen>()

/** Which rows and columns of a block hold a bead; blocks never change, so each is looked through once. */
function seenIn(block: Uint16Array, columns: number): Seen {
  let seen = seenBlocks.get(block)
  if (!seen || seen.columns !== columns) {
    const rows = new Uint8Array(block.length / columns)
    const across = new Uint8Array(columns)
    for (let r = 0, at = 0; r < rows.length; r++) {
      let any = 0
      for (let c = 0; c < columns; c++)
        if (block[at++] !== 0) {
          any = 1
          across[c] = 1
        }
      rows[r] = any
    }
    seen = { columns, rows, across }
    seenBlocks.set(block, seen)
  }
  return seen
}

const gapsInBlock = new WeakMap<Uint16Array, boolean>()

function blockHasGaps(block: Uint16Array): boolean {
  let found = gapsInBlock.get(block)
  if (found === undefined) {
    found = block.includes(0)
    gapsInBlock.set(block, found)
  }
  return found
}

/** Sections that are worked: those with rows, the repeat only if it is worked at all. */
const workedSections = (part: Part): SectionName[] =>
  SECTIONS.filter((name) => part[name].rows > 0 && (name !== 'repeat' || part.times > 0))

const gapsInPart = new WeakMap<Part, boolean>()

/**
 * Whether any place of a part is empty. Without, nothing of the grid is missing. Long lists of words ask it for every
 * row.
 */
export function hasGaps(part: Part): boolean {
  let found = gapsInPart.get(part)
  if (found === undefined) {
    const places = columnsOf(part) * rowsOf(part)
    found =
      workedSections(part).some((name) => part[name].blocks.some(blockHasGaps)) ||
      // Too few rows for any bead of the stitch: all of it is gap, whatever is kept there.
      (isGrid(part) && places > 0 && voidsOf(part).length === places)
    gapsInPart.set(part, found)
  }
  return found
}

/** Whether a column holds a bead in any row, places that the stitch has not left out. */
function columnHolds(part: Part, c: number, hidden: ReadonlySet<number>): boolean {
  const columns = columnsOf(part)
  for (let r = 0; r < rowsOf(part); r++)
    if (partRow(part, r)[c] !== 0 && !hidden.has(keyOf(columns, c, r))) return true
  return false
}

/** Which bead rows of each section hold a bead, and which columns do. */
function flagsOf(part: Part): { readonly rows: Record<SectionName, Uint8Array>; readonly across: Uint8Array } {
  const columns = columnsOf(part)
  const across = new Uint8Array(columns)
  const rows: Record<SectionName, Uint8Array> = {
    start: new Uint8Array(part.start.rows),
    repeat: new Uint8Array(part.repeat.rows),
    end: new Uint8Array(part.end.rows),
  }
  for (const name of workedSections(part)) {
    let at = 0
    for (const block of part[name].blocks) {
      const seen = seenIn(block, columns)
      rows[name].set(seen.rows, at)
      at += seen.rows.length
      for (let c = 0; c < columns; c++) across[c]! |= seen.across[c]!
    }
  }
  // What is kept in places that the stitch has not holds neither a row nor a column.
  const voids = voidsOf(part)
  if (voids.length > 0) {
    const hidden = new Set(voids)
    for (const r of new Set(voids.map((key) => rowOfKey(columns, key)))) {
      const { section, row } = locateRow(part, r)
      if (section === 'repeat' && part.times > 1) continue
      rows[section][row] = partRow(part, r).some((number, c) => number !== 0 && !hidden.has(keyOf(columns, c, r)))
        ? 1
        : 0
    }
    for (const c of new Set(voids.map((key) => columnOfKey(columns, key))))
      across[c] = columnHolds(part, c, hidden) ? 1 : 0
  }
  return { rows, across }
}

/** A section without the rows whose flag is 0. */
function without(cells: Lines, flags: Uint8Array): Lines {
  let out = cells
  for (let r = cells.rows - 1; r >= 0; r--) {
    if (flags[r] === 1) continue
    let first = r
    while (first > 0 && flags[first - 1] === 0) first--
    out = removeLines(out, first, r - first + 1)
    r = first
  }
  return out
}

/**
 * Rows or columns without a bead: how many before the first bead and behind the last, and which between; all at the
 * start where nothing is laid.
 */
interface Empty {
  readonly start: number
  readonly between: readonly number[]
  readonly end: number
}

function emptyAmong(flags: readonly number[]): Empty {
  const first = flags.indexOf(1)
  if (first < 0) return { start: flags.length, between: [], end: 0 }
  const last = flags.lastIndexOf(1)
  return {
    start: first,
    between: flags.flatMap((full, i) => (full === 0 && i > first && i < last ? [i] : [])),
    end: flags.length - 1 - last,
  }
}

/** Whether beads of the part would fall on places that the stitch has not, once its empty rows are out. */
function losesBeads(part: Part, compact: Part): boolean {
  const columns = columnsOf(compact)
  const kept = rowsOf(compact)
  if (kept === rowsOf(part)) return false
  return voidsOf(compact).some((key) => partRow(compact, rowOfKey(columns, key))[columnOfKey(columns, key)] !== 0)
}

/**
 * Outermost middles of the beads that are laid, and of all that the rows have room for, mm along (rows near the ends)
 * and across.
 */
function reachOf(part: Part, columns: readonly number[]): { readonly shortMm: number; readonly narrowMm: number } {
  const technique = techniqueOf(part)
  const lattice = requireLattice(technique, basisOf(part))
  const rows = rowsOf(part)
  const voids = new Set(voidsOf(part))
  const wide = columnsOf(part)
  const spread = (values: readonly number[]) => Math.max(...values) - Math.min(...values)
  const deep = Math.min(rows, 1 + Math.ceil(spread(lattice.sites.map((s) => s.dy)) / lattice.pitchY))
  const short = (rs: readonly number[], sign: 1 | -1): number => {
    let [laid, full] = [-Infinity, -Infinity]
    for (const r of rs) {
      const row = partRow(part, r)
      for (let c = 0; c < wide; c++) {
        if (voids.has(keyOf(wide, c, r))) continue
        const y = sign * (r * lattice.pitchY + siteOf(lattice, c, r).dy)
        full = Math.max(full, y)
        if (row[c] !== 0) laid = Math.max(laid, y)
      }
    }
    return laid === -Infinity ? 0 : full - laid
  }
  const edge = Array.from({ length: deep }, (_, k) => k)
  const shortMm =
    short(
      edge.map((k) => rows - 1 - k),
      1,
    ) + short(edge, -1)
  if (technique.round || columns.length === 0) return { shortMm, narrowMm: 0 }
  // Beads further in than the sites reach cannot lie outermost.
  const near = 1 + Math.ceil(spread(lattice.sites.map((s) => s.dx)) / lattice.pitchX)
  // Two copies of the repeat show every way in which its rows can lie.
  const middle = sectionStart(part, 'repeat', Math.min(part.times, 2))
  const looked = [...Array(middle).keys(), ...Array.from({ length: part.end.rows }, (_, k) => rows - 1 - k)]
  const narrow = (cs: readonly number[], sign: 1 | -1): number => {
    let [laid, full] = [-Infinity, -Infinity]
    for (const r of looked) {
      const row = partRow(part, r)
      for (const c of cs) {
        if (voids.has(keyOf(wide, c, r))) continue
        const x = sign * (c * lattice.pitchX + siteOf(lattice, c, r).dx)
        full = Math.max(full, x)
        if (row[c] !== 0) laid = Math.max(laid, x)
      }
    }
    return laid === -Infinity ? 0 : full - laid
  }
  return { shortMm, narrowMm: narrow(columns.slice(-near), 1) + narrow(columns.slice(0, near), -1) }
}

const known = new WeakMap<Part, Laid>()

/** What of a part is laid; worked out once for each part. */
export function laidOf(part: Part): Laid {
  let laid = known.get(part)
  if (!laid) {
    // What an empty line of its own length means, only its technique knows: it is kept.
    laid =
      isGrid(part) && hasGaps(part) ? lookedThrough(part) : { part, columns: columnsOf(part), shortMm: 0, narrowMm: 0 }
    known.set(part, laid)
  }
  return laid
}

/** Whether any row of all copies holds a bead, in order. */
const inOrder = (part: Part, flags: Record<SectionName, Uint8Array>): number[] =>
  SECTIONS.flatMap((name) => Array.from({ length: name === 'repeat' ? part.times : 1 }, () => [...flags[name]]).flat())

function lookedThrough(part: Part): Laid {
  const { rows: flags, across } = flagsOf(part)
  const compacted = (): Part => {
    const sections = {
      start: without(part.start, flags.start),
      repeat: without(part.repeat, flags.repeat),
      end: without(part.end, flags.end),
    }
    return SECTIONS.every((name) => sections[name] === part[name]) ? part : { ...part, ...sections }
  }
  let compact = compacted()
  if (losesBeads(part, compact)) {
    // Beads that only a row behind them makes beads of keep that row, although it is empty.
    const next = inOrder(part, flags).lastIndexOf(1) + 1
    if (next < rowsOf(part)) {
      const { section, row } = locateRow(part, next)
      flags[section][row] = 1
      compact = compacted()
    }
  }
  const columns = [...across.keys()].filter((c) => across[c] === 1)
  const all = isRound(part) || columns.length === 0
  return {
    part: compact,
    columns: all ? columnsOf(part) : columns.length,
    ...(columns.length === 0 || rowsOf(compact) === 0 ? { shortMm: 0, narrowMm: 0 } : reachOf(compact, columns)),
  }
}

const NONE: Empty = { start: 0, between: [], end: 0 }

/** Empty bead rows and columns of a part, as the grid counts them from 0; a tube has no edge columns. */
export function emptyOf(part: Part): { readonly rows: Empty; readonly columns: Empty } {
  if (!isGrid(part) || !hasGaps(part)) return { rows: NONE, columns: NONE }
  const { rows, across } = flagsOf(part)
  return {
    rows: emptyAmong(inOrder(part, rows)),
    columns: isRound(part) ? NONE : emptyAmong([...across]),
  }
}

/** Bead rows that are worked. */
export const laidRows = (part: Part): number => rowsOf(laidOf(part).part)

/** Rows as weavers count them, of what is laid. */
export const laidCounted = (part: Part): number => techniqueOf(part).growth.countedRows(laidRows(part), part.settings)

const sums = new WeakMap<Part, LaidSums>()

/** Beads and places of all working rows that hold any, walked row by row. */
function sumsOf(part: Part): LaidSums {
  let found = sums.get(part)
  if (!found) {
    const technique = techniqueOf(part)
    const columns = columnsOf(part)
    const work = workOf(part)
    // Behind the end of a line nothing is ever worked.
    const voids = new Set(isGrid(part) ? voidsOf(part) : [])
    let [beads, rows, places, firstPlaces] = [0, 0, 0, 0]
    const count = technique.order.count(work)
    for (let i = 0; i < count; i++) {
      const { keys } = technique.order.row(i, work)
      let [first, last] = [-1, -1]
      for (let k = 0; k < keys.length; k++) {
        const key = keys[k]!
        if (voids.has(key) || partRow(part, rowOfKey(columns, key))[columnOfKey(columns, key)] === 0) continue
        if (first < 0) first = k
        last = k
        beads++
      }
      if (first < 0) continue
      rows++
      places += last - first + 1
      if (i === 0) firstPlaces = last - first + 1
    }
    found = { beads, rows, places, firstPlaces }
    sums.set(part, found)
  }
  return found
}

/**
 * What the technique is asked about a part: the grid as far as it is laid. Sums are walked only when they are asked
 * for.
 */
export function laidWork(part: Part): Work {
  const { part: compact, columns } = laidOf(part)
  const work: Work = { ...workOf(compact), columns }
  if (!hasGaps(compact)) return work
  const across = columnsOf(compact)
  let voids: Set<number> | undefined
  return {
    ...work,
    laid: {
      across,
      holds: (c, r) =>
        isGrid(compact)
          ? c < across &&
            !(voids ??= new Set(voidsOf(compact))).has(keyOf(across, c, r)) &&
            partRow(compact, r)[c] !== 0
          : numberAt(compact, c, r) !== 0,
      get beads() {
        return sumsOf(compact).beads
      },
      get rows() {
        return sumsOf(compact).rows
      },
      get places() {
        return sumsOf(compact).places
      },
      get firstPlaces() {
        return sumsOf(compact).firstPlaces
      },
    },
  }
}
