import type { TrayBead } from '../bead/bead'
import { requireSpec } from '../bead/spec'
import type { Piece } from '../piece/piece'
import type { Supply } from '../piece/schema'
import { tallyPiece } from '../tally/tally'

/** The fewest beads that are bought to spare, however few are used. */
export const LEAST_SPARE = 5

export interface Packs { readonly grams: number, readonly count: number }

export interface BeadToBuy {
  readonly bead: TrayBead
  readonly count: number
  /** Count with spare and culls: what must be in the bag. */
  readonly need: number
  readonly grams: number
  readonly packs: readonly Packs[]
  readonly packGrams: number
  /** Sound beads that will be left, once culls are out. */
  readonly left: number
}

/** count × (1 + spare), at least 5 more, and then as many as culling will take: what must be in the bag. */
export function needOf(count: number, { spare, cull }: Pick<Supply, 'spare' | 'cull'>): number {
  if (count === 0) return 0
  const wanted = Math.max(Math.ceil(count * (1 + spare) - 1e-9), count + LEAST_SPARE)
  return Math.ceil(wanted / (1 - cull) - 1e-9)
}

/**
 * The packs to buy for `grams`: least surplus first, then fewest packs. Sizes are small whole or half grams, so an exact search
 * over tenths of a gram is quick.
 */
export function packsFor(grams: number, sizes: readonly number[]): Packs[] {
  if (grams <= 0) return []
  const units = sizes.map(g => Math.max(1, Math.round(g * 10))).sort((a, b) => b - a)
  const need = Math.ceil(grams * 10 - 1e-9)
  const biggest = units[0]!
  // Far beyond the largest pack whole ones are taken first; the rest is searched.
  const whole = Math.max(0, Math.floor(need / biggest) - 3)
  const rest = need - whole * biggest
  const limit = rest + biggest
  const fewest = new Array<number>(limit + 1).fill(Infinity)
  const came = new Array<number>(limit + 1).fill(0)
  fewest[0] = 0
  for (let sum = 1; sum <= limit; sum++) {
    for (const unit of units) {
      if (unit <= sum && fewest[sum - unit]! + 1 < fewest[sum]!) { fewest[sum] = fewest[sum - unit]! + 1; came[sum] = unit }
    }
  }
  let sum = rest
  while (fewest[sum] === Infinity) sum++
  const counts = new Map<number, number>()
  if (whole > 0) counts.set(biggest, whole)
  for (let at = sum; at > 0; at -= came[at]!) counts.set(came[at]!, (counts.get(came[at]!) ?? 0) + 1)
  return [...counts].sort((a, b) => b[0] - a[0]).map(([unit, count]) => ({ grams: unit / 10, count }))
}

export function beadsToBuy(piece: Piece): BeadToBuy[] {
  const counts = tallyPiece(piece)
  return piece.tray.flatMap((bead) => {
    const count = counts.get(bead.number) ?? 0
    if (count === 0) return []
    const { perGram } = requireSpec(bead.spec)
    const need = needOf(count, piece.supply)
    const grams = need / perGram
    const packs = packsFor(grams, piece.supply.packGrams)
    const packGrams = packs.reduce((sum, p) => sum + p.grams * p.count, 0)
    return [{ bead, count, need, grams, packs, packGrams, left: Math.floor(packGrams * perGram * (1 - piece.supply.cull) + 1e-9) - count }]
  })
}
