import { modulo } from '../modulo'
import { keyOf } from '../grid/key'
import { columnsOf, isGrid, isInside, type Part } from '../piece/piece'
import { beadCentre, type Lattice, type Box } from '../technique/lattice'
import { latticeOf } from '../piece/drawing'

/**
 * Patterns made by rule. Each works in the natural steps of the lattice: X counts the smallest steps across, Y those
 * along, so that a diagonal runs from bead to touching bead in straight and staggered stitches alike.
 */
export const FIGURES = ['stripes', 'slant', 'chevron', 'diamond', 'wave', 'checks'] as const

export type Figure = (typeof FIGURES)[number]

export interface FigureWish {
  readonly figure: Figure
  /** Tray numbers in order, each as often as its band is wide: [A, A, B] is two of A, one of B. */
  readonly sequence: readonly number[]
  /** Waves: steps to one side. */
  readonly swing?: number
  /** Waves: steps along from crest to crest. Checks: the sides of a check. */
  readonly along?: number
  readonly across?: number
}

/** Steps of a lattice: half a pitch where beads are staggered on that axis. */
function stepsOf(lattice: Lattice): { readonly x: number; readonly y: number } {
  const staggered = (offsets: readonly number[], pitch: number) =>
    Math.max(...offsets) - Math.min(...offsets) > pitch / 4
  return {
    x: staggered(
      lattice.sites.map((s) => s.dx),
      lattice.pitchX,
    )
      ? lattice.pitchX / 2
      : lattice.pitchX,
    y: staggered(
      lattice.sites.map((s) => s.dy),
      lattice.pitchY,
    )
      ? lattice.pitchY / 2
      : lattice.pitchY,
  }
}

/**
 * Whether beads lie on every other of the steps only, like the dark squares of a board (peyote, brick, right-angle
 * weave). A diagonal to the touching bead then moves two of them, so what is counted along it is halved.
 */
function isBoard(lattice: Lattice): boolean {
  const steps = stepsOf(lattice)
  const parity = (c: number, r: number) => {
    const { x, y } = beadCentre(lattice, c, r)
    return modulo(Math.round((x - lattice.originX) / steps.x) + Math.round((y - lattice.originY) / steps.y), 2)
  }
  for (let c = 0; c < lattice.period.columns; c++)
    for (let r = 0; r < lattice.period.rows; r++)
      if (parity(c, r) !== parity(0, 0) || parity(c + 1, r) !== parity(0, 0) || parity(c, r + 1) !== parity(0, 0))
        return false
  return true
}

/**
 * Columns that lie side by side at one height: more than one in two-drop and n-drop peyote, where they count as one
 * step across.
 */
function groupOf({ period, sites }: Lattice): number {
  let group = 1
  while (group < period.columns && sites[group]!.dy === sites[0]!.dy) group++
  return group > 1 && period.columns === 2 * group ? group : 1
}

/** 0, 1, … k − 1, k − 2, … 1, and again: the turning places are single. Its period is 2 k − 2. */
export function turning(n: number, k: number): number {
  if (k < 2) return 0
  const period = 2 * k - 2
  const at = modulo(n, period)
  return at < k ? at : period - at
}

/** Steps along after which a figure comes again. */
export function figurePeriod({ figure, sequence, along = 8 }: FigureWish, board = false): number {
  switch (figure) {
    case 'stripes':
      return sequence.length
    case 'slant':
    case 'chevron':
      return sequence.length * (board ? 2 : 1)
    case 'diamond':
      return Math.max(1, 2 * sequence.length - 2) * (board ? 2 : 1)
    case 'wave':
      return along
    case 'checks':
      return along * new Set(sequence).size
  }
}

/** Least bead rows that hold a whole number of periods and that the lattice lets repeat. */
export function figureRows(lattice: Lattice, wish: FigureWish): number {
  const perRow = Math.round(lattice.pitchY / stepsOf(lattice).y)
  const period = figurePeriod(wish, isBoard(lattice) || groupOf(lattice) > 1)
  for (let rows = lattice.period.rows; rows <= 4 * period * lattice.period.rows; rows += lattice.period.rows)
    if ((rows * perRow) % period === 0) return rows
  return period * lattice.period.rows
}

/** Place in the sequence at steps (X, Y) of a work whose steps across run from 0 to `last`. */
function placeIn(
  { figure, sequence, swing = 3, along = 8, across = 4 }: FigureWish,
  X: number,
  Y: number,
  last: number,
  board: boolean,
): number {
  const k = sequence.length
  // On a board the middle is a column of beads; else it may lie between two.
  const middle = board ? Math.floor(last / 2) : last / 2
  const fromEdge = middle - Math.abs(X - middle)
  const diagonal = (n: number) => Math.floor(board ? n / 2 : n)
  switch (figure) {
    case 'stripes':
      return modulo(Y, k)
    case 'slant':
      return modulo(diagonal(Y + X), k)
    case 'chevron':
      return modulo(diagonal(Y + fromEdge), k)
    case 'diamond':
      return turning(diagonal(Y + fromEdge), k)
    case 'wave': {
      const off = Math.abs(X - last / 2 - swing * Math.sin((2 * Math.PI * Y) / along))
      // A sine of whole turns is not quite the same every time.
      return Math.min(k - 1, Math.floor(off + 1e-9))
    }
    case 'checks': {
      const kinds = [...new Set(sequence)]
      return sequence.indexOf(kinds[modulo(Math.floor(X / across) + Math.floor(Y / along), kinds.length)]!)
    }
  }
}

/** The same on lines whose places lie side by side: a step across for each place, a step along for each line. */
function figureOnLines(part: Part, box: Box, wish: FigureWish): Map<number, number> {
  const out = new Map<number, number>()
  const columns = columnsOf(part)
  for (let r = box.r; r < box.r + box.rows; r++)
    for (let c = box.c; c < box.c + box.columns; c++)
      if (isInside(part, { c, r }))
        out.set(keyOf(columns, c, r), wish.sequence[placeIn(wish, c - box.c, r - box.r, box.columns - 1, false)]!)
  return out
}

/** Numbers that a figure lays in a box; it begins at the box's first row and is centred on its width. */
export function figureIn(part: Part, box: Box, wish: FigureWish): Map<number, number> {
  const out = new Map<number, number>()
  if (wish.sequence.length === 0) return out
  if (!isGrid(part)) return figureOnLines(part, box, wish)
  const lattice = latticeOf(part)
  const steps = stepsOf(lattice)
  const columns = columnsOf(part)
  const group = groupOf(lattice)
  const board = isBoard(lattice) || group > 1
  const stepOf = (c: number, r: number) => {
    const { x, y } = beadCentre(lattice, c, r)
    return {
      X: group > 1 ? Math.floor(c / group) : Math.round((x - lattice.originX) / steps.x),
      Y: Math.round((y - lattice.originY) / steps.y),
    }
  }
  const left = stepOf(box.c, box.r)
  const last =
    Math.max(
      stepOf(box.c + box.columns - 1, box.r).X,
      stepOf(box.c + box.columns - 1, box.r + Math.min(1, box.rows - 1)).X,
    ) - Math.min(left.X, stepOf(box.c, box.r + Math.min(1, box.rows - 1)).X)
  const x0 = Math.min(left.X, stepOf(box.c, box.r + Math.min(1, box.rows - 1)).X)
  const y0 = Math.round((box.r * lattice.pitchY) / steps.y)
  for (let r = box.r; r < box.r + box.rows; r++) {
    for (let c = box.c; c < box.c + box.columns; c++) {
      const { X, Y } = stepOf(c, r)
      out.set(keyOf(columns, c, r), wish.sequence[placeIn(wish, X - x0, Y - y0, last, board)]!)
    }
  }
  return out
}
