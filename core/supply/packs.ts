/** What can be bought at once: a tube or bag by weight, or a hank. */
export interface Pack {
  readonly grams: number
  readonly kind: 'pack' | 'hank'
  /** In the smallest unit of the currency; null if nobody knows. */
  readonly price: number | null
  /** How many the seller has; null if nobody knows. */
  readonly stock: number | null
}

export interface Packs { readonly grams: number, readonly count: number, readonly kind: 'pack' | 'hank', readonly price: number | null }

export interface Buying {
  readonly packs: readonly Packs[]
  readonly grams: number
  /** Price of all; null if one of them has none. */
  readonly price: number | null
  /** Grams that cannot be had, because the seller has no more. */
  readonly shortGrams: number
}

export const pack = (grams: number): Pack => ({ grams, kind: 'pack', price: null, stock: null })

/** Packs by their sizes alone, for what is bought without a price list. */
export const packsFor = (grams: number, sizes: readonly number[]): readonly Packs[] => buying(grams, sizes.map(pack)).packs

/** Strands of a hank and their length, mm (common practice: twelve strands of 20 inches). */
export const HANK = { strands: 12, strandMm: 508 } as const

/** Weight of a hank of beads: as many as lie in its strands, each its length along the hole. */
export const hankGrams = ({ l, perGram }: { readonly l: number, readonly perGram: number }): number => Math.round(HANK.strands * HANK.strandMm / l / perGram * 10) / 10

const NOTHING: Buying = { packs: [], grams: 0, price: 0, shortGrams: 0 }

interface Way { readonly price: number, readonly units: number, readonly count: number, readonly from: number, readonly taken: number }

const better = (a: Way, b: Way | undefined): boolean => b === undefined || a.price < b.price || (a.price === b.price && (a.units < b.units || (a.units === b.units && a.count < b.count)))

/**
 * The packs to buy for `grams`: with prices for all, the cheapest; otherwise the least surplus; then the fewest packs. No more of
 * a pack than the seller has. Weights are searched in tenths of a gram; far beyond the largest pack whole ones are taken first.
 */
export function buying(grams: number, offered: readonly Pack[]): Buying {
  if (grams <= 1e-9) return NOTHING
  const there = offered.filter(p => p.stock === null || p.stock > 0)
  const priced = there.length > 0 && there.every(p => p.price !== null)
  const sizes = there.map(p => ({ pack: p, units: Math.max(1, Math.round(p.grams * 10)) })).sort((a, b) => b.units - a.units)
  if (sizes.length === 0) return { packs: [], grams: 0, price: null, shortGrams: grams }
  const need = Math.ceil(grams * 10 - 1e-9)
  const best = sizes[0]!
  const dear = priced ? [...sizes].sort((a, b) => a.pack.price! / a.units - b.pack.price! / b.units || b.units - a.units)[0]! : best
  const most = (s: (typeof sizes)[number]) => s.pack.stock ?? Infinity
  const whole = Math.min(most(dear), Math.max(0, Math.floor((need - 4 * best.units) / dear.units)))
  const rest = need - whole * dear.units
  const limit = rest + best.units
  let ways: (Way | undefined)[] = Array.from({ length: limit + 1 })
  ways[0] = { price: 0, units: 0, count: 0, from: 0, taken: 0 }
  const layers = [ways]
  for (const size of sizes) {
    const next: (Way | undefined)[] = Array.from({ length: limit + 1 })
    const bound = Math.min(most(size) - (size === dear ? whole : 0), Math.ceil(limit / size.units))
    for (let at = 0; at <= limit; at++) {
      const way = ways[at]
      if (!way) continue
      for (let n = 0; n <= bound && (n === 0 || at + (n - 1) * size.units < rest); n++) {
        const to = Math.min(limit, at + n * size.units)
        const found: Way = { price: way.price + (priced ? n * size.pack.price! : 0), units: way.units + n * size.units, count: way.count + n, from: at, taken: n }
        if (better(found, next[to])) next[to] = found
      }
    }
    ways = next
    layers.push(ways)
  }
  let end = -1
  for (let at = 0; at <= limit; at++) if (ways[at] && (at >= rest ? end < rest || better(ways[at]!, ways[end]) : at > end && end < rest)) end = at
  const packs: Packs[] = []
  for (let k = sizes.length, at = end; k > 0; k--) {
    const { taken, from } = layers[k]![at]!
    const count = taken + (sizes[k - 1] === dear ? whole : 0)
    const { pack: { grams: g, kind, price } } = sizes[k - 1]!
    if (count > 0) packs.unshift({ grams: g, count, kind, price })
    at = from
  }
  packs.sort((a, b) => b.grams - a.grams)
  const total = packs.reduce((s, p) => s + p.grams * p.count, 0)
  return { packs, grams: total, price: priced ? packs.reduce((s, p) => s + p.price! * p.count, 0) : null, shortGrams: Math.max(0, Math.round((grams - total) * 100) / 100) }
}
