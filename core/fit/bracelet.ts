import type { TrayBead } from '../bead/bead'
import { beadOf, rowsOf, techniqueOf, type Part } from '../piece/piece'
import type { Fit } from '../piece/schema'
import type { Range } from '../technique/technique'
import { extentOf, mixedSizes } from './extent'

/** Names for how much room a bracelet leaves (common practice: close 6 mm, easy 13 mm, loose 19–25 mm). */
export const EASES = [
  { id: 'close', name: 'close', mm: 6 },
  { id: 'easy', name: 'easy', mm: 13 },
  { id: 'loose', name: 'loose', mm: 22 },
] as const

export type Feel = 'will not close' | 'tight' | 'close' | 'easy' | 'loose' | 'too loose'

/** How a bracelet with that much room sits; bounds lie halfway between the common figures. */
export function feelOf(easeMm: number): Feel {
  if (easeMm < 0) return 'will not close'
  if (easeMm < 3) return 'tight'
  if (easeMm < 9.5) return 'close'
  if (easeMm < 16) return 'easy'
  return easeMm <= 30 ? 'loose' : 'too loose'
}

/** Inside circumference that the wrist takes, mm. */
export const insideWanted = ({ wristMm, easeMm }: Pick<Fit, 'wristMm' | 'easeMm'>): number => wristMm + easeMm

/**
 * Length of beadwork for an inside circumference, mm. A band of thickness t bends about its middle, so its centre line is
 * π t longer than the inside; the closure takes up its own length of that.
 */
export const beadworkFor = (insideMm: number, thicknessMm: number, closureMm: number): number => insideMm + Math.PI * thicknessMm - closureMm

/** Inside circumference that a length of beadwork closes at, mm: the way back from `beadworkFor`. */
export const closesAt = (beadworkMm: number, thicknessMm: number, closureMm: number): number => beadworkMm + closureMm - Math.PI * thicknessMm

export interface BraceletFit {
  readonly wantedMm: number
  readonly thicknessMm: number
  /** Beadwork that would be exactly right, mm. */
  readonly targetMm: number
  /** Beadwork of the part as planned, mm. */
  readonly beadworkMm: Range
  /** Inside circumference it closes at, mm. */
  readonly insideMm: Range
  /** Room round the wrist at the nominal figure, mm. */
  readonly easeMm: number
  readonly feel: Feel
  /** Nominal inside less wanted, mm. */
  readonly differenceMm: number
}

/** How the part as planned fits; `rows` may be given to ask what another length would do. With the tray, beads of other sizes are reckoned in. */
export function fitBracelet(fit: Fit, part: Part, rows = rowsOf(part), tray: readonly TrayBead[] = []): BraceletFit {
  const extent = extentOf(part, tray, rows)
  const t = extent.thicknessMm
  const inside = (mm: number) => closesAt(mm, t, fit.closure.lengthMm)
  const wantedMm = insideWanted(fit)
  const insideMm = { least: inside(extent.lengthMm.least), nominal: inside(extent.lengthMm.nominal), most: inside(extent.lengthMm.most) }
  const easeMm = insideMm.nominal - fit.wristMm
  return {
    wantedMm, thicknessMm: t, targetMm: beadworkFor(wantedMm, t, fit.closure.lengthMm),
    beadworkMm: extent.lengthMm, insideMm, easeMm, feel: feelOf(easeMm), differenceMm: insideMm.nominal - wantedMm,
  }
}

/** Rows (a real number) whose beadwork is exactly `lengthMm`. With the tray, each row counts with what beads of other sizes add to it. */
export function rowsForLength(part: Part, lengthMm: number, tray: readonly TrayBead[] = []): number {
  const technique = techniqueOf(part)
  const work = { columns: part.repeat.columns, bead: beadOf(part), settings: part.settings }
  const rows = technique.rowsFor(lengthMm, work)
  const added = mixedSizes(part, tray).longerMm
  if (added === 0) return rows
  const perRow = technique.lengthOf({ ...work, rows: 101 }) - technique.lengthOf({ ...work, rows: 100 })
  return rows * perRow / (perRow + added / rowsOf(part))
}
