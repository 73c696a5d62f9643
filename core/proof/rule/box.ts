import { shoppingList } from '../../supply/shopping'
import { showNumber } from '../../units/length'
import type { Found, Rule } from '../found'

/** What of the plan the box does not hold. Asked only where something lies in the box. */
export const boxShort: Rule = {
  id: 'box-short',
  group: 'size',
  looksFor: 'Thread and beads of which the box holds some, and less than the plan takes.',
  ofPiece(piece, { box }): Found[] {
    if (!box || box.stock.items.length === 0) return []
    const { beads, others } = shoppingList([{ id: box.pieceId ?? 'piece', piece }], { box: box.stock })
    return [
      ...beads
        .filter((line) => line.fromBoxGrams > 0 && line.buyGrams > 0)
        .map(({ bead, fromBoxGrams, buyGrams }): Found => ({
          weight: 'note',
          says:
            `${bead.letter} ${bead.name}: the box gives ${showNumber(fromBoxGrams, 1)} g, and ` +
            `${showNumber(buyGrams, 1)} g more are needed. Buy them before you begin, if possible from the same lot.`,
          why: 'Two lots of one colour differ, and the change shows where one ends.',
        })),
      ...others
        .filter((line) => line.fromBox > 0 && line.buy > 0)
        .map(({ name, unit, fromBox, buy }): Found => {
          const amount = (n: number) => (unit === 'mm' ? `${showNumber(n / 1000, 1)} m` : String(n))
          return {
            weight: 'note',
            says: `${name}: the box gives ${amount(fromBox)}, and ${amount(buy)} more are needed.`,
            why: 'Thread that ends in the middle of a row is a knot that was not planned.',
          }
        }),
    ]
  },
}
