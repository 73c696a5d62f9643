import { fadedTray } from '../picture/fade'
import type { TrayBead } from '../bead/bead'
import type { Rgb } from '../colour/colour'
import { cellsFrom } from '../grid/cells'
import { keyOf, placeOfKey } from '../grid/key'
import { raggedFrom } from '../grid/lines'
import { centreOf, freeOf, latticeOf } from '../piece/drawing'
import { columnsOf, isGrid, lengthOfLine, numberAt, rowsOf, techniqueOf, workOf, type Part } from '../piece/piece'
import type { Place, Point } from '../technique/lattice'
import { bitesOf, type Task } from './agenda'

/** The work as it lies on the bench at some moment. */
export interface SoFar {
  /** A part that holds what is made, near the needle; its numbers are those of `benchTray`. */
  readonly part: Part
  /** Middle of the bead that comes next, mm in that part. */
  readonly needle: Point
}

/** Bead rows before and behind the needle that are looked at. */
const ROWS_BEFORE = 44
const ROWS_BEHIND = 6

/**
 * The tray three times over: every bead as it lies in what is made, faded, as it comes now, bright, and as it is still
 * to come, a shade on the ground, which lines show whose places hang on all their beads.
 */
export const benchTray = (tray: readonly TrayBead[], ground: Rgb): TrayBead[] => {
  const faded = fadedTray(tray, ground)
  return [
    ...faded.map((bead, k) => ({ ...bead, number: madeNumber(k) })),
    ...tray.map((bead, k) => ({ ...bead, number: brightNumber(k) })),
    ...fadedTray(faded, ground).map((bead, k) => ({ ...bead, number: laterNumber(tray, k) })),
  ]
}
const madeNumber = (k: number): number => 1 + 2 * k
const brightNumber = (k: number): number => 2 + 2 * k
const laterNumber = (tray: readonly TrayBead[], k: number): number => 1 + 2 * tray.length + k

/** Sizes by those numbers, for lines that reckon with the beads that lie in them. */
const benchSizes = (tray: readonly TrayBead[]): Map<number, string> =>
  new Map(
    tray.flatMap(({ spec }, k) => [
      [madeNumber(k), spec] as const,
      [brightNumber(k), spec] as const,
      [laterNumber(tray, k), spec] as const,
    ]),
  )

/** Keys of a working row in the order in which they are picked up. */
const keysOf = (part: Part, row: number): Int32Array | null => {
  const { order } = techniqueOf(part)
  const work = workOf(part)
  return row < order.count(work) ? order.row(row, work).keys : null
}

/**
 * What is made of a part when so many bites of a task are done: earlier rows faded, the row in hand bright, the rest
 * not there; the needle is at the bead that comes next. Of a grid only the rows about the needle are given; what lies
 * freely is given whole, since its places follow from all lines.
 */
export function soFarOf(task: Task, bites: number, tray: readonly TrayBead[]): SoFar {
  const { part, row, chore } = task
  const { order } = techniqueOf(part)
  const columns = columnsOf(part)
  const rows = rowsOf(part)
  const places = new Map(tray.map((bead, k) => [bead.number, k]))
  const keys = keysOf(part, row) ?? new Int32Array()
  const told = bitesOf(task)
  // Places of the row that are passed: a bite is so many of them, gaps among them.
  const passed = told.slice(0, bites).reduce((sum, bite) => sum + bite.count, 0)
  const inHand = new Set(chore ? [] : keys)
  const near = keys.length > 0 ? placeOfKey(columns, keys[Math.min(passed, keys.length - 1)]!) : { c: 0, r: rows - 1 }
  const numberOf = (c: number, r: number): number => {
    const k = places.get(numberAt(part, c, r))
    if (k === undefined) return 0
    if (inHand.has(keyOf(columns, c, r))) return brightNumber(k)
    const own = order.rowOf({ c, r }, { columns, settings: part.settings })
    if (task.made ? task.made(own) : own < row) return madeNumber(k)
    return isGrid(part) ? 0 : laterNumber(tray, k)
  }
  return shownFrom(part, near, numberOf, tray)
}

/** The rows about a place, with other numbers; all of them where places follow from all lines. */
function shownFrom(
  part: Part,
  near: Place,
  numberOf: (c: number, r: number) => number,
  tray: readonly TrayBead[],
): SoFar {
  const rows = rowsOf(part)
  const columns = columnsOf(part)
  const windowed = isGrid(part) && freeOf(part) === null
  const period = windowed ? latticeOf(part).period.rows : 1
  const first = windowed ? Math.max(0, Math.floor((near.r - ROWS_BEFORE) / period) * period) : 0
  const last = windowed ? Math.min(rows, near.r + ROWS_BEHIND) : rows
  const lines = Array.from({ length: Math.max(0, last - first) }, (_, j) =>
    Array.from({ length: lengthOfLine(part, first + j) }, (_, c) => numberOf(c, first + j)),
  )
  const shown: Part = isGrid(part)
    ? {
        ...part,
        times: 1,
        start: cellsFrom(columns, 0, []),
        repeat: cellsFrom(columns, lines.length, lines.flat()),
        end: cellsFrom(columns, 0, []),
      }
    : {
        ...part,
        times: 1,
        sizes: benchSizes(tray),
        start: raggedFrom([]),
        repeat: raggedFrom(lines),
        end: raggedFrom([]),
      }
  return { part: shown, needle: lines.length > 0 ? centreOf(shown, near.c, near.r - first) : { x: 0, y: 0 } }
}

/** A part when all of it is done: its end, bright. */
export function doneOf(part: Part, tray: readonly TrayBead[]): SoFar {
  const places = new Map(tray.map((bead, k) => [bead.number, k]))
  const end = { c: 0, r: Math.max(0, rowsOf(part) - 1) }
  const bright = (c: number, r: number): number => {
    const k = places.get(numberAt(part, c, r))
    return k === undefined ? 0 : brightNumber(k)
  }
  return shownFrom(part, end, bright, tray)
}
