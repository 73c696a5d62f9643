import type { TrayBead } from '../bead/bead'
import { requireSpec } from '../bead/spec'
import { fitKindOf } from '../wear/kind'
import { priceOf } from '../money/money'
import type { Piece } from '../piece/piece'
import type { Supply } from '../piece/schema'
import { tallyPiece } from '../tally/tally'
import { EMPTY_BOX, freeFor, takenBy, tubeOf, type Box, type BoxItem, type PieceId } from './box'
import { buying, hankGrams, pack, type Pack, type Packs } from './packs'
import { keyOfWanted, type Offer } from './price-list'

/** The fewest beads that are bought to spare, however few are used. */
const LEAST_SPARE = 5

/** What is known when beads are bought: the box, which piece asks, and what a supplier offers by `keyOfWanted`. */
export interface Market {
  readonly box?: Box
  readonly pieceId?: PieceId
  readonly offers?: ReadonlyMap<string, Offer>
  /** Currency of the prices in box and offers; prices in another than the piece's are left out. */
  readonly currency?: string
}

/** A price for so many grams, and who says so. */
export interface UnitPrice {
  readonly grams: number
  readonly price: number
  readonly from: 'you' | 'supplier' | 'box'
}

export interface BeadToBuy {
  readonly bead: TrayBead
  /** Beads in all that are made: the piece, both of a pair, the whole batch. */
  readonly count: number
  /** Count with spare and culls: what must be in the bag. */
  readonly need: number
  /** Weight of `need`. */
  readonly grams: number
  /** Weight that is worked in, culls included: what the piece takes out of the box. */
  readonly usedGrams: number
  /** The tube in the box, what it gives, and what was taken from it for this piece already. */
  readonly tube: BoxItem | null
  readonly fromBoxGrams: number
  readonly takenGrams: number
  /** Weight still to buy. */
  readonly buyGrams: number
  readonly packs: readonly Packs[]
  readonly packGrams: number
  /** Grams that the supplier cannot give. */
  readonly shortGrams: number
  /** What the packs cost; null if unknown. */
  readonly price: number | null
  /** What the beads worked in are worth; null if unknown. */
  readonly usedPrice: number | null
  readonly unitPrice: UnitPrice | null
  /** Sound beads that will be left, once culls are out, of what is bought and what the box gives. */
  readonly left: number
}

/** How many times the counts of the piece are made: both of a pair, and the batch. */
export const timesMade = ({ fit, supply }: Pick<Piece, 'fit' | 'supply'>): number =>
  fitKindOf(fit.kind).pieces * supply.batch

/** Share of a bead that is broken or crooked: what the hand that makes it found, or what the piece says. */
export const cullOf = (supply: Pick<Supply, 'cull' | 'culls'>, spec: string): number =>
  supply.culls?.get(spec) ?? supply.cull

/** count × (1 + spare), at least 5 more, and then as many as culling will take: what must be in the bag. */
export function needOf(count: number, { spare, cull }: Pick<Supply, 'spare' | 'cull'>): number {
  if (count === 0) return 0
  const wanted = Math.max(Math.ceil(count * (1 + spare) - 1e-9), count + LEAST_SPARE)
  return Math.ceil(wanted / (1 - cull) - 1e-9)
}

/** Packs that a bead can be bought in: the supplier's, or the sizes of the piece; hanks where these are bought. */
function packsOf(
  piece: Pick<Piece, 'supply'>,
  spec: string,
  offer: Offer | undefined,
  unit: UnitPrice | null,
): Pack[] {
  if (offer && offer.packs.length > 0)
    return offer.packs.map((p) => ({ grams: p.grams, kind: 'pack', price: p.price, stock: p.stock }))
  const sizes = piece.supply.packGrams.map((grams) => pack(grams))
  if (piece.supply.hanks) sizes.push({ ...pack(hankGrams(requireSpec(spec))), kind: 'hank' })
  // One price for so many grams stands for every size in proportion.
  return unit ? sizes.map((p) => ({ ...p, price: priceOf(p.grams, unit.grams, unit.price) })) : sizes
}

function unitPriceOf(
  piece: Pick<Piece, 'cost'>,
  bead: TrayBead,
  offer: Offer | undefined,
  tube: BoxItem | undefined,
): UnitPrice | null {
  const own = piece.cost.beads.find((b) => b.number === bead.number)
  if (own && own.price > 0) return { grams: own.grams, price: own.price, from: 'you' }
  const offered = offer?.packs.find((p) => p.grams === 10) ?? offer?.packs[0]
  if (offered) return { grams: offered.grams, price: offered.price, from: 'supplier' }
  return tube?.value.kind === 'bead' && tube.value.price > 0
    ? { grams: tube.value.packGrams, price: tube.value.price, from: 'box' }
    : null
}

/** What is bought of one bead, `count` of which are made; without its packs where `packed` is false. */
export function beadToBuy(
  piece: Pick<Piece, 'supply' | 'cost'>,
  bead: TrayBead,
  count: number,
  { box = EMPTY_BOX, pieceId, offers, currency = piece.cost.currency }: Market = {},
): BeadToBuy {
  const { perGram } = requireSpec(bead.spec)
  const { supply } = piece
  const cull = cullOf(supply, bead.spec)
  const need = needOf(count, { spare: supply.spare, cull })
  const grams = need / perGram
  const tube = tubeOf(box, bead, pieceId)
  const takenGrams = tube ? Math.min(grams, takenBy(box, tube, pieceId)) : 0
  const fromBoxGrams = tube ? Math.min(grams - takenGrams, freeFor(box, tube, pieceId)) : 0
  const buyGrams = Math.max(0, grams - takenGrams - fromBoxGrams)
  const comparable = currency === piece.cost.currency
  const offer = comparable ? offers?.get(keyOfWanted(bead)) : undefined
  const unitPrice = unitPriceOf(piece, bead, offer, comparable ? tube : undefined)
  const bought = buying(
    buyGrams < 0.005 ? 0 : buyGrams,
    packsOf(piece, bead.spec, unitPrice?.from === 'you' ? undefined : offer, unitPrice),
  )
  const usedGrams = count / (1 - cull) / perGram
  return {
    bead,
    count,
    need,
    grams,
    usedGrams,
    tube: tube ?? null,
    fromBoxGrams,
    takenGrams,
    buyGrams: bought.grams === 0 && bought.shortGrams === 0 ? 0 : buyGrams,
    packs: bought.packs,
    packGrams: bought.grams,
    shortGrams: bought.shortGrams,
    price: bought.price,
    unitPrice,
    usedPrice: unitPrice ? priceOf(usedGrams, unitPrice.grams, unitPrice.price) : null,
    left: Math.max(0, Math.floor((bought.grams + fromBoxGrams + takenGrams) * perGram * (1 - cull) + 1e-9) - count),
  }
}

/**
 * What to buy for a piece, bead by bead, in the order of the tray: pairs and batches multiply before rounding, the box
 * is taken off.
 */
export function beadsToBuy(piece: Piece, market: Market = {}): BeadToBuy[] {
  const counts = tallyPiece(piece)
  const times = timesMade(piece)
  return piece.tray.flatMap((bead) => {
    const count = (counts.get(bead.number) ?? 0) * times
    return count === 0 ? [] : [beadToBuy(piece, bead, count, market)]
  })
}

/** What a piece asks of the box for its beads: all with spare to set aside, what is worked in to take out. */
export function beadAsks(buys: readonly BeadToBuy[], what: 'reserve' | 'take'): { shelfId: string; amount: number }[] {
  return buys.flatMap((b) => {
    if (!b.tube) return []
    const amount =
      what === 'reserve' ? b.fromBoxGrams : Math.min(b.fromBoxGrams, Math.max(0, b.usedGrams - b.takenGrams))
    return amount >= 0.005 ? [{ shelfId: b.tube.id, amount: Math.round(amount * 1000) / 1000 }] : []
  })
}
