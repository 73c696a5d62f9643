import { createHash } from 'node:crypto'
import { requireSpec } from '../../core/bead/spec'
import { requireCurrency, roundMoney } from '../../core/money/money'
import { keyOfWanted, type Offer, type PriceList, type SupplierWay, type Wanted } from '../../core/supply/price-list'
import { Failure } from '../service/failure'

/** The port to a supplier: asks for prices of beads. Throws a Failure when it cannot be reached in time. */
interface Supplier {
  offers(wanted: readonly Wanted[]): Promise<PriceList>
}

const SLOW_MS = 2500

/** A number from 0 to 1 that is always the same for a text: the sample list needs no table and no clock. */
const fixed = (text: string): number => createHash('sha256').update(text).digest().readUInt32BE(0) / 0xffff_ffff

/** Made-up price of ten grams in hundredths, by shape, size and finish: small and plated beads are dear. */
function tenGrams({ spec, finish, colour }: Wanted): number {
  const { perGram, shape } = requireSpec(spec)
  const base = shape === 'cylinder' ? 340 : shape === 'round' ? 190 : 420
  const worked =
    { opaque: 1, transparent: 1, matte: 1.08, lustre: 1.15, lined: 1.25, rainbow: 1.35, metallic: 1.8 }[finish] ?? 1
  return base * worked * (0.85 + Math.min(1.2, perGram / 300)) * (0.94 + 0.12 * fixed(colour + spec))
}

const sleep = (ms: number) =>
  new Promise<void>((done) => {
    setTimeout(done, ms)
  })

/** The sample supplier that ships with Weben: an invented list, that can be short of stock, slow or down. */
export function sampleSupplier(way: SupplierWay, currency: string): Supplier {
  return {
    async offers(wanted) {
      if (way === 'slow') await sleep(SLOW_MS)
      if (way === 'down')
        throw new Failure(
          503,
          'supplier-down',
          'The supplier does not answer. The list below works without its prices; ask again later.',
        )
      // Prices are made in hundredths; a currency without them is counted in units of its own.
      const scale = requireCurrency(currency).decimals === 0 ? 1.5 : 1
      const offers = wanted.map((w): Offer => {
        const luck = fixed(`stock ${keyOfWanted(w)}`)
        const own = w.spec.startsWith('own/')
        if (own || luck < 0.06) return { wanted: w, article: '', packs: [] }
        const short = way === 'short' && luck < 0.6
        const per10 = tenGrams(w) * scale
        return {
          wanted: w,
          article: `${requireSpec(w.spec).name}, ${w.finish}`,
          packs: [
            [5, 0.58],
            [10, 1],
            [28, 2.45],
          ].map(([grams, times]) => ({
            grams: grams!,
            price: roundMoney((per10 * times!) / 5) * 5,
            stock: short ? (luck < 0.3 ? 0 : 1) : 40,
          })),
        }
      })
      return { currency, offers }
    },
  }
}
