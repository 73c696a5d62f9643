/**
 * The price list of a supplier as Weben reads it: what is sold, in which packs, at which price, and whether it is
 * there.
 */

/** How the sample supplier behaves: it is a stand-in, so that a list can be tried against every kind of day. */
export const SUPPLIER_WAYS = ['well', 'short', 'slow', 'down'] as const

export type SupplierWay = (typeof SUPPLIER_WAYS)[number]

/** What is asked for: a bead by size, colour and finish. */
export interface Wanted {
  readonly spec: string
  readonly colour: string
  readonly finish: string
}

export interface PackOffer {
  readonly grams: number
  /** Price in the smallest unit of the list's currency. */
  readonly price: number
  /** Packs on the shelf. */
  readonly stock: number
}

export interface Offer {
  readonly wanted: Wanted
  /** Name under which it is sold; empty if it is not. */
  readonly article: string
  readonly packs: readonly PackOffer[]
}

export interface PriceList {
  readonly currency: string
  readonly offers: readonly Offer[]
}

export const keyOfWanted = ({ spec, colour, finish }: Wanted): string => `${spec} ${colour} ${finish}`
