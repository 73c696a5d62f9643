import { requireSpec } from '../bead/spec'
import { plainMoney, requireCurrency } from '../money/money'
import type { BeadToBuy } from '../supply/beads'
import type { ShoppingList } from '../supply/shopping'
import { csv } from './tally-csv'

/** Packs in words: `2 × 10 g + 1 hank of 38.1 g`. */
export const packWords = (packs: BeadToBuy['packs']): string =>
  packs
    .map((p) =>
      p.kind === 'hank'
        ? `${p.count} ${p.count === 1 ? 'hank' : 'hanks'} of ${p.grams} g`
        : `${p.count} × ${p.grams} g`,
    )
    .join(' + ')

/** The shopping list as CSV (RFC 4180): beads first, then lengths and findings. */
export function shoppingCsv(list: ShoppingList): string {
  const { decimals } = requireCurrency(list.currency)
  const round = (n: number) => Math.round(n * 100) / 100
  return csv([
    [
      'what',
      'name',
      'size',
      'colour',
      'finish',
      'wanted',
      'from the box',
      'to buy',
      'unit',
      'packs',
      `price ${list.currency}`,
      'for',
    ],
    ...list.beads.map((b): (string | number)[] => [
      'bead',
      b.bead.name,
      requireSpec(b.bead.spec).name,
      b.bead.colour,
      b.bead.finish,
      round(b.grams),
      round(b.fromBoxGrams + b.takenGrams),
      round(b.buyGrams),
      'g',
      packWords(b.packs),
      b.price === null || b.buyGrams === 0 ? '' : plainMoney(b.price, decimals),
      b.wantedBy.map((w) => w.name).join('; '),
    ]),
    ...list.others.map((o): (string | number)[] => [
      o.unit === 'mm' ? 'length' : 'finding',
      o.name,
      '',
      '',
      '',
      ...(o.unit === 'mm' ? [o.wanted, o.fromBox, o.buy].map((mm) => round(mm / 1000)) : [o.wanted, o.fromBox, o.buy]),
      o.unit === 'mm' ? 'm' : 'pieces',
      '',
      '',
      o.wantedBy.join('; '),
    ]),
  ])
}
