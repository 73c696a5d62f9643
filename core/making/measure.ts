import type { Choice } from '../fit/choices'
import { choicesFor } from '../fit/hang-choices'
import { extentOf, plainEndsMm } from '../fit/extent'
import {
  endToEnd,
  gaugeFor,
  gaugeKeyOf,
  questionedSwatches,
  withoutSwatchFrom,
  withSwatch,
  workedOf,
} from '../fit/gauge'
import { fitOf, type FitResult } from '../fit/reckon'
import { laidOf } from '../piece/laid'
import { rowOfKey } from '../grid/key'
import { basisOf, columnsOf, rowsOf, techniqueOf, workOf, type Part, type Piece } from '../piece/piece'
import type { Gauge } from '../piece/schema'
import { MM_PER_INCH } from '../units/length'
import type { RowList } from './agenda'

/**
 * Measuring while one works: how long it should be by now, what a measure means for the end, and what may still be
 * changed.
 */

const reached = new WeakMap<Part, Int32Array>()

/** Bead rows that are begun when the first so many working rows are done, for each count of them. */
function reachOf(part: Part): Int32Array {
  const known = reached.get(part)
  if (known) return known
  const { order } = techniqueOf(part)
  const work = workOf(part)
  const columns = columnsOf(part)
  const count = order.count(work)
  const out = new Int32Array(count + 1)
  for (let i = 0; i < count; i++) {
    const { keys } = order.row(i, work)
    let most = out[i]!
    for (let k = 0; k < keys.length; k++) most = Math.max(most, rowOfKey(columns, keys[k]!) + 1)
    out[i + 1] = most
  }
  reached.set(part, out)
  return out
}

/** Bead rows along the length that are begun when the first k rows of a list are worked. */
export function beadRowsAt(part: Part, rows: Pick<RowList, 'count' | 'rowOf'>, k: number): number {
  if (k <= 0) return 0
  const reach = reachOf(part)
  // A row that joins the ends lies behind the last; it adds none.
  return reach[Math.min(rows.rowOf(Math.min(k, rows.count) - 1) + 1, reach.length - 1)]!
}

/** Length of the first so many bead rows, mm, as the whole is reckoned: its gauge, its sizes; plain ends left out. */
export function madeMm(piece: Pick<Piece, 'tray' | 'gauges' | 'supply'>, part: Part, beadRows: number): number {
  if (beadRows <= 0) return 0
  const { growth } = techniqueOf(part)
  const work = basisOf(part)
  const all = growth.lengthOf({ ...work, rows: rowsOf(laidOf(part).part) })
  const { tray, gauges, supply } = piece
  const wholeMm = extentOf({ tray, gauges, supply }, part).lengthMm.nominal - plainEndsMm(part)
  return all <= 0 ? 0 : (wholeMm * growth.lengthOf({ ...work, rows: beadRows })) / all
}

/** A place among the rows where it is measured. */
export interface MeasureStop {
  readonly k: number
  readonly why: string
}

/** Shorter work than this is measured once, mm: by its first inch it is nearly done. */
const SHORT_MM = 4 * MM_PER_INCH
/** Shorter than this it is not measured on the way. */
const TINY_MM = 30
/** Where most is laid and something can still be changed, as a share of the length. */
const NEAR_THE_END = 0.85

/** A stop is the same as one that was measured so near to it, as a share of all rows. */
const SAME_STOP = 0.1

/**
 * Where it is measured: after the first inch, at a third, near the end; once where it is short. By nominal sizes, so
 * that what is measured moves no stop; `measured` are places where it was measured already: those stay.
 */
export function measureRows(
  { tray, supply }: Pick<Piece, 'tray' | 'supply'>,
  part: Part,
  rows: Pick<RowList, 'count' | 'rowOf'>,
  measured: readonly number[] = [],
): MeasureStop[] {
  // What is bent to a size has it before its first bead: no measure on the way says more.
  if (techniqueOf(part).wire?.sizedTo) return []
  const piece = { tray, supply, gauges: [] }
  const whole = madeMm(piece, part, beadRowsAt(part, rows, rows.count))
  if (whole < TINY_MM) return []
  const wanted = [
    ...(whole < SHORT_MM
      ? []
      : [
          { mm: MM_PER_INCH, why: 'The first inch says how your hand works in these beads.' },
          { mm: whole / 3, why: 'A third is made: enough to trust the measure.' },
        ]),
    { mm: whole * NEAR_THE_END, why: 'Near the end: what is left can still be changed.' },
  ]
  const out: MeasureStop[] = []
  for (const { mm, why } of wanted) {
    // The first place at which it is so long.
    let [low, high] = [1, rows.count]
    while (low < high) {
      const middle = (low + high) >> 1
      if (madeMm(piece, part, beadRowsAt(part, rows, middle)) >= mm) high = middle
      else low = middle + 1
    }
    if (low < rows.count && low > (out.at(-1)?.k ?? 0)) out.push({ k: low, why })
  }
  for (const k of measured) {
    if (k < 1 || k >= rows.count || out.some((stop) => stop.k === k)) continue
    const near = out
      .filter((stop) => !measured.includes(stop.k) && Math.abs(stop.k - k) <= SAME_STOP * rows.count)
      .sort((a, b) => Math.abs(a.k - k) - Math.abs(b.k - k))[0]
    if (near) out.splice(out.indexOf(near), 1)
    out.push({ k, why: near?.why ?? 'You measured here.' })
  }
  return out.sort((a, b) => a.k - b.k)
}

/** A measure taken at the bench. */
export interface Measure {
  /** Bead rows that were there, and how long they were, mm. */
  readonly rows: number
  readonly mm: number
  /** Where it was taken, for the gauge: one of a place is instead of an earlier one of it. */
  readonly at: string
}

/** What a measure says. */
export interface Meaning {
  /** The piece's gauges with it. */
  readonly gauges: Gauge[]
  /** How the piece comes out at this rate, and how it came out by the plan. */
  readonly fit: FitResult
  readonly planned: FitResult
  /** Measured ÷ foreseen at that place. */
  readonly rate: number
  /** Whether it looks like a slip of the tape or the count. */
  readonly strange: boolean
  /** What may be done, the best first; all of it leaves what is made as it is. */
  readonly choices: readonly Choice[]
}

/** What a measure of the fitted part means: at this rate it will fit so, and these ways are left. */
export function meaningOf(piece: Piece, part: Part, { rows, mm, at }: Measure): Meaning {
  const key = gaugeKeyOf(part, piece.supply.thread)
  const foreseen = madeMm(piece, part, rows)
  const without = withoutSwatchFrom(piece.gauges, key, at)
  const swatch = endToEnd(part, { rows, mm, from: at })
  const gauges = swatch ? withSwatch(without, key, swatch) : without
  const now = { ...piece, gauges }
  const gauge = swatch ? gaugeFor(now, part) : undefined
  return {
    gauges,
    fit: fitOf(now),
    planned: fitOf(piece),
    rate: foreseen > 0 ? mm / foreseen : 1,
    strange:
      gauge === undefined ||
      questionedSwatches(gauge, workedOf(part)).some((q) => q.index === gauge.swatches.length - 1),
    choices: choicesFor(now, rows),
  }
}
