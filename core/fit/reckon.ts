import { fittedPart, type Part, type Piece } from '../piece/piece'
import type { Fit } from '../piece/schema'
import type { Extent, Range } from '../technique/technique'
import { HALF_US_SIZE_MM } from '../units/ring-size'
import { letOutMm, settingsOf } from '../wear/closure'
import { rowsForLength } from './extent'
import { feelFor, type Feel } from './feel'
import type { Ground } from './gauge'
import { ownLengthFor, wholeExtent } from './whole'
import { fitKindOf, PASSES_HEAD_MM, WIDE_RING_MM } from '../wear/kind'

/** What the fit is asked of. */
export type Fitted = Ground & Pick<Piece, 'fit' | 'parts'>

/** What it must pass where nothing opens, mm round; 0 where a closure opens, it stretches, or nobody measured. */
export function mustPassMm({ kind, closure, passMm }: Fit): number {
  if (closure.kind !== 'none' || !fitKindOf(kind).passes) return 0
  return passMm || (kind === 'necklace' ? PASSES_HEAD_MM : 0)
}

/** Half a size that a wide ring needs more, mm; 0 for all else. */
export const wideRingMm = ({ kind }: Pick<Fit, 'kind'>, widthMm: number): number =>
  kind === 'ring' && widthMm > WIDE_RING_MM ? HALF_US_SIZE_MM : 0

/**
 * The finished measure that is wanted, mm: inside circumference of what goes round, length of a necklace, drop of an
 * earring, band of a cuff. Without an opening it is at least what must be passed.
 */
export function wantedMm(fit: Fit, widthMm: number): number {
  if (fitKindOf(fit.kind).bend === 'open') return fit.bodyMm * fit.cuffShare
  return Math.max(fit.bodyMm + fit.easeMm + wideRingMm(fit, widthMm), mustPassMm(fit) / fit.wraps)
}

/**
 * Beadwork for a finished measure, mm. A band of thickness t bends about its middle: each time round, its centre line
 * is π t longer than the inside. The closure takes up its own length once; what overlaps is made besides. Straight and
 * open work does not close round.
 */
export function beadworkFor(
  finishedMm: number,
  thicknessMm: number,
  { kind, wraps, closure }: Pick<Fit, 'kind' | 'wraps' | 'closure'>,
): number {
  const { bend } = fitKindOf(kind)
  if (bend === 'open') return finishedMm
  const centre = bend === 'round' ? wraps * (finishedMm + Math.PI * thicknessMm) : finishedMm
  return centre - closure.lengthMm + closure.overlapMm
}

/** Finished measure of a length of beadwork, mm, the closure at its shortest: the way back from `beadworkFor`. */
export function finishedFor(
  beadworkMm: number,
  thicknessMm: number,
  { kind, wraps, closure }: Pick<Fit, 'kind' | 'wraps' | 'closure'>,
): number {
  const { bend } = fitKindOf(kind)
  if (bend === 'open') return beadworkMm
  const centre = beadworkMm + closure.lengthMm - closure.overlapMm
  return bend === 'round' ? centre / wraps - Math.PI * thicknessMm : centre
}

export interface FitResult {
  /** Finished measure wanted, mm. */
  readonly wantedMm: number
  readonly thicknessMm: number
  /** Beadwork that would be exactly right, mm. */
  readonly targetMm: number
  /** Beadwork of the part as planned, mm. */
  readonly beadworkMm: Range
  /** Finished measure with the closure at its shortest, mm. */
  readonly finishedMm: Range
  /** How much further the closure lets it out, each time round, mm. */
  readonly reachMm: number
  /** Finished measure at the setting of the closure that is nearest to the one wanted, mm. */
  readonly atMm: number
  /** Room between body and work at that setting, mm. */
  readonly roomMm: number
  /** `atMm` less what is wanted: 0 where the closure reaches it. */
  readonly differenceMm: number
  readonly feel: Feel
  readonly basis: Extent['basis']
}

/**
 * Beadwork for a piece whose closure can be let out: shortest where the measure wanted lies a third of the way along.
 */
const targetFor = (fit: Fit, wanted: number, t: number): number =>
  beadworkFor(wanted, t, fit) - letOutMm(fit.closure) / 3

/** What may be asked instead of what is planned. */
interface Instead {
  readonly part?: Part
  readonly fit?: Fit
}

/** The piece with another fit, and another part in place of the one that is fitted. */
const instead = (piece: Fitted, part: Part, fit: Fit): Fitted => {
  const here = fittedPart(piece)
  return part === here && fit === piece.fit
    ? piece
    : { ...piece, fit, parts: piece.parts.map((p) => (p.id === here.id ? part : p)) }
}

/** How a piece fits, or would with another part or another fit. */
export function fitOf(piece: Fitted, { part = fittedPart(piece), fit = piece.fit }: Instead = {}): FitResult {
  const extent = wholeExtent(instead(piece, part, fit), part)
  const { bend } = fitKindOf(fit.kind)
  const t = bend === 'round' ? extent.thicknessMm : 0
  const wanted = wantedMm(fit, extent.widthMm.nominal)
  const finish = (mm: number) => finishedFor(mm, t, fit)
  const { least, nominal, most } = extent.lengthMm
  const finishedMm = { least: finish(least), nominal: finish(nominal), most: finish(most) }
  const turns = bend === 'round' ? fit.wraps : 1
  const atMm = finishedMm.nominal + settingsOf(fit.closure, (wanted - finishedMm.nominal) * turns) / turns
  const roomMm = atMm - fit.bodyMm
  const differenceMm = atMm - wanted
  // What must pass a hand is loose on the wrist by nature: it sits well if it is no looser than it must be.
  const passes = finishedMm.nominal * turns >= mustPassMm(fit) - 1e-9
  return {
    wantedMm: wanted,
    thicknessMm: extent.thicknessMm,
    targetMm: targetFor(fit, wanted, t),
    beadworkMm: extent.lengthMm,
    finishedMm,
    reachMm: letOutMm(fit.closure) / turns,
    atMm,
    roomMm,
    differenceMm,
    basis: extent.basis,
    feel: feelFor(fit, {
      roomMm: roomMm - Math.max(0, wanted - fit.bodyMm - fit.easeMm),
      differenceMm,
      passes,
      beadworkMm: nominal,
    }),
  }
}

/** Rows (a real number) of the fitted part that come exactly to what is wanted. */
export function rowsWanted(piece: Fitted, { part = fittedPart(piece), fit = piece.fit }: Instead = {}): number {
  const on = instead(piece, part, fit)
  return rowsForLength(on, part, ownLengthFor(on, part, fitOf(piece, { part, fit }).targetMm))
}
