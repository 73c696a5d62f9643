import { isCounted } from '../piece/nature'
import { requireSpec } from '../bead/spec'
import { closureName } from '../wear/closure'
import { priceOf, roundMoney } from '../money/money'
import { techniqueOf, workOf, type Piece } from '../piece/piece'

import { tallyPart, tallyPiece, totalOf } from '../tally/tally'
import { beadsToBuy, timesMade, type Market } from './beads'
import { lengthsOf } from './thread'

/** One line of what a piece costs: materials that are used, not what is bought. */
interface CostLine {
  readonly id: 'beads' | 'thread' | 'closure' | 'findings' | 'work' | 'prepare'
  readonly name: string
  /** Least and most, in the smallest unit of the currency; the same where nothing varies. */
  readonly least: number
  readonly most: number
  /** Beads without a price are left out, and counted here. */
  readonly unknown: number
}

interface Costing {
  readonly currency: string
  readonly lines: readonly CostLine[]
  readonly least: number
  readonly most: number
  readonly materials: number
  /** Hours of beading, and minutes of preparing, for the whole order. */
  readonly hours: { readonly least: number; readonly most: number }
  readonly prepareMinutes: number
  /** What is asked for the whole order; 0 if undecided. */
  readonly asked: number
  /** What is asked less what it costs, worst and best. */
  readonly margin: { readonly least: number; readonly most: number } | null
  /** Prices that nobody knows. */
  readonly unknown: number
}

/**
 * Cost = materials used + findings + time × rate, for the whole order. Each line is rounded once (money.ts), so the
 * lines add up. Time is beads by the speed of the piece, a range; preparing is its own line, once for an order.
 */
export function costOf(piece: Piece, market: Market = {}): Costing {
  const { cost, supply } = piece
  const buys = beadsToBuy(piece, market)
  const times = timesMade(piece)
  const lines: CostLine[] = []
  const line = (id: CostLine['id'], name: string, least: number, most = least, unknown = 0) =>
    lines.push({ id, name, least, most, unknown })

  if (buys.length > 0)
    line(
      'beads',
      'Beads worked in',
      buys.reduce((sum, b) => sum + (b.usedPrice ?? 0), 0),
      undefined,
      buys.filter((b) => b.usedPrice === null).length,
    )
  const threadMm = lengthsOf(piece, times)
    .filter((l) => l.material === 'thread' || l.material === 'cord')
    .reduce((sum, l) => sum + l.totalMm, 0)
  line(
    'thread',
    'Thread and cord',
    priceOf(threadMm, cost.threadMm, cost.threadPrice),
    undefined,
    cost.threadPrice === 0 && threadMm > 0 ? 1 : 0,
  )
  if (piece.fit.closure.kind !== 'none')
    line('closure', closureName(piece.fit.closure), cost.closure * supply.batch, undefined, cost.closure === 0 ? 1 : 0)
  if (cost.findings.length > 0)
    line('findings', 'Other findings', cost.findings.reduce((sum, f) => sum + f.count * f.price, 0) * supply.batch)

  const beads = buys.reduce((sum, b) => sum + b.count, 0)
  const [slow, quick] = [
    Math.min(cost.beadsPerHourLeast, cost.beadsPerHourMost),
    Math.max(cost.beadsPerHourLeast, cost.beadsPerHourMost),
  ]
  // A crossing of plain cords takes about as long as a bead (from memory).
  const crossings =
    piece.parts.filter((p) => !isCounted(p)).reduce((sum, part) => sum + totalOf(tallyPart(part)), 0) * times
  const hours = { least: (beads + crossings) / quick, most: (beads + crossings) / slow }
  line(
    'work',
    beads === 0 && crossings > 0 ? 'Braiding' : 'Beading',
    roundMoney(hours.least * cost.hourly),
    roundMoney(hours.most * cost.hourly),
  )
  line('prepare', 'Preparing', roundMoney((cost.prepareMinutes / 60) * cost.hourly))

  const least = lines.reduce((sum, l) => sum + l.least, 0)
  const most = lines.reduce((sum, l) => sum + l.most, 0)
  const asked = cost.asked * supply.batch
  return {
    currency: cost.currency,
    lines,
    least,
    most,
    hours,
    prepareMinutes: cost.prepareMinutes,
    asked,
    materials: lines.filter((l) => l.id !== 'work' && l.id !== 'prepare').reduce((sum, l) => sum + l.least, 0),
    margin: asked === 0 ? null : { least: asked - most, most: asked - least },
    unknown: lines.reduce((sum, l) => sum + l.unknown, 0),
  }
}

/** Weight of the findings, pins and chains of a piece, g. */
export const findingGrams = (piece: Pick<Piece, 'parts'>): number =>
  piece.parts.reduce((sum, part) => sum + (techniqueOf(part).grams?.(workOf(part)) ?? 0), 0)

/** Weight of one piece, or of one earring, in grams: its beads and findings, without closure and thread. */
export function weightOf(piece: Piece): number {
  const counts = tallyPiece(piece)
  return (
    findingGrams(piece) +
    piece.tray.reduce((sum, bead) => sum + (counts.get(bead.number) ?? 0) / requireSpec(bead.spec).perGram, 0)
  )
}
