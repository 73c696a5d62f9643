/** What can be bought at once: a tube or bag by weight, or a hank. */
export interface Pack {
  readonly grams: number
  readonly kind: 'pack' | 'hank'
  /** In the smallest unit of the currency; null if nobody knows. */
  readonly price: number | null
  /** How many the seller has; null if nobody knows. */
  readonly stock: number | null
}

export interface Packs {
  readonly grams: number
  readonly count: number
  readonly kind: 'pack' | 'hank'
  readonly price: number | null
}

interface Buying {
  readonly packs: readonly Packs[]
  readonly grams: number
  /** Price of all; null if one of them has none. */
  readonly price: number | null
  /** Grams that cannot be had, because the seller has no more. */
  readonly shortGrams: number
}

export const pack = (grams: number): Pack => ({ grams, kind: 'pack', price: null, stock: null })

/** Packs by their sizes alone, for what is bought without a price list. */
export const packsFor = (grams: number, sizes: readonly number[]): readonly Packs[] =>
  buying(grams, sizes.map(pack)).packs

/** Strands of a hank and their length, mm (common practice: twelve strands of 20 inches). */
const HANK = { strands: 12, strandMm: 508 } as const

/** Weight of a hank of beads: as many as lie in its strands, each its length along the hole. */
export const hankGrams = ({ l, perGram }: { readonly l: number; readonly perGram: number }): number =>
  Math.round(((HANK.strands * HANK.strandMm) / l / perGram) * 10) / 10

const NOTHING: Buying = { packs: [], grams: 0, price: 0, shortGrams: 0 }

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))

/** A pack in whole units of weight, and how many of it may be bought at most. */
interface Size {
  readonly pack: Pack
  readonly units: number
  readonly most: number
}

/** So many packs of one size, taken together or not at all: any count is a sum of such bundles. */
interface Bundle {
  readonly size: number
  readonly count: number
}

function bundlesOf(sizes: readonly Size[], room: number): Bundle[] {
  return sizes.flatMap(({ units, most }, size) => {
    const out: Bundle[] = []
    let left = Math.min(most, Math.ceil(room / units))
    for (let count = 1; left > 0; count *= 2) {
      out.push({ size, count: Math.min(count, left) })
      left -= count
    }
    return out
  })
}

/**
 * The pack that any surplus of others can be changed into without loss: of unlimited stock, with prices the cheapest
 * by weight, else the largest. Among as many other packs as it has units there are always some that weigh a multiple
 * of it together (by their sums, modulo its weight), so no more of them than that need to be looked at.
 */
function currencyOf(sizes: readonly Size[], priced: boolean): Size | undefined {
  const better = (a: Size, b: Size) =>
    (priced ? a.pack.price! / a.units - b.pack.price! / b.units : 0) || b.units - a.units
  return sizes.filter((s) => s.most === Infinity).sort(better)[0]
}

/**
 * The packs to buy for `grams`: with prices for all, the cheapest; otherwise the least surplus; then the fewest packs.
 * No more of a pack than the seller has. Weights count in tenths of a gram; the answer is exact.
 */
export function buying(grams: number, offered: readonly Pack[]): Buying {
  if (grams <= 1e-9) return NOTHING
  const there = offered.filter((p) => p.stock === null || p.stock > 0)
  if (there.length === 0) return { packs: [], grams: 0, price: null, shortGrams: grams }
  const priced = there.every((p) => p.price !== null)
  const tenths = there.map((p) => Math.max(1, Math.round(p.grams * 10)))
  const unit = tenths.reduce(gcd)
  const sizes: Size[] = there
    .map((pack, k) => ({ pack, units: tenths[k]! / unit, most: pack.stock ?? Infinity }))
    .sort((a, b) => b.units - a.units)
  const need = Math.ceil((grams * 10 - 1e-9) / unit)
  const largest = sizes[0]!.units
  const ground = currencyOf(sizes, priced)
  const others = ground
    ? Math.max(0, ...sizes.filter((s) => s !== ground).map((s) => s.units)) * (ground.units - 1)
    : Infinity
  const whole = ground && Number.isFinite(others) ? Math.max(0, Math.floor((need - others) / ground.units)) : 0
  const rest = need - whole * (ground?.units ?? 0)
  const all = sizes.reduce((sum, s) => sum + s.units * s.most, 0)
  const limit = Math.min(rest + largest, all)
  // Cheapest way to every total, and the fewest packs for it: bundle after bundle.
  const price = new Float64Array(limit + 1).fill(Infinity)
  const count = new Float64Array(limit + 1).fill(Infinity)
  price[0] = 0
  count[0] = 0
  const bundles = bundlesOf(sizes, limit)
  const taken = bundles.map(({ size, count: many }) => {
    const { pack, units } = sizes[size]!
    const used = new Uint8Array(limit + 1)
    const costs = priced ? many * pack.price! : 0
    for (let at = limit, weight = many * units; at >= weight; at--) {
      const [p, n] = [price[at - weight]! + costs, count[at - weight]! + many]
      if (p < price[at]! || (p === price[at] && n < count[at]!)) {
        price[at] = p
        count[at] = n
        used[at] = 1
      }
    }
    return used
  })
  let end = 0
  for (let at = 1; at <= limit; at++) {
    if (count[at] === Infinity) continue
    if (end < rest ? at > end : priced && price[at]! < price[end]!) end = at
  }
  const counts = sizes.map((s) => (s === ground ? whole : 0))
  for (let k = bundles.length - 1, at = end; k >= 0; k--) {
    if (taken[k]![at] === 0) continue
    const { size, count: many } = bundles[k]!
    counts[size]! += many
    at -= many * sizes[size]!.units
  }
  const packs = sizes.flatMap(({ pack: { grams: g, kind, price: each } }, k): Packs[] =>
    counts[k]! > 0 ? [{ grams: g, count: counts[k]!, kind, price: each }] : [],
  )
  const total = packs.reduce((s, p) => s + p.grams * p.count, 0)
  return {
    packs,
    grams: total,
    price: priced ? packs.reduce((s, p) => s + p.price! * p.count, 0) : null,
    shortGrams: Math.max(0, Math.round((grams - total) * 100) / 100),
  }
}
