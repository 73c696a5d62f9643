import { tallyPart } from '../../tally/tally'
import type { Piece } from '../../piece/piece'
import { usesNumber } from '../../piece/step'
import type { Rule } from '../found'

/** Numbers of beads on the tray that the pattern never uses. */
export function unusedBeads(piece: Piece): number[] {
  const counts = piece.parts.map(tallyPart)
  return piece.tray.filter((b) => !counts.some((c) => c.get(b.number))).map((b) => b.number)
}

/** Beads on the tray that nobody uses. */
export const unused: Rule = {
  id: 'tray-unused',
  group: 'telling',
  looksFor: 'Beads on the tray that the pattern never uses.',
  ofPiece: (piece) =>
    unusedBeads(piece).map((number) => {
      const at = piece.tray.findIndex((b) => b.number === number)
      const bead = piece.tray[at]!
      return {
        weight: 'note',
        says: `${bead.letter} ${bead.name} lies on the tray and nowhere in the work: take it off, or lay it.`,
        why: 'What is on the tray is bought, or looked for in vain.',
        mends:
          piece.tray.length > 1 && !usesNumber(piece, number)
            ? [{ label: `Take ${bead.letter} off the tray`, steps: [{ type: 'tray', do: 'remove', at, bead }] }]
            : [],
      }
    }),
}
