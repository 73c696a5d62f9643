import { swapSteps } from '../../piece/edit'
import { sameLook } from '../../piece/tray'
import type { Step } from '../../piece/step'
import type { Found, Rule } from '../found'

/** Two beads on the tray of the same colour, size and finish. */
export const twins: Rule = {
  id: 'tray-twins',
  group: 'telling',
  looksFor: 'Two beads on the tray that are one and the same.',
  ofPiece: (piece) =>
    piece.tray.flatMap((bead, at): Found[] => {
      const first = piece.tray.findIndex((other) => sameLook(other, bead))
      if (first === at) return []
      const keep = piece.tray[first]!
      const steps: Step[] = [
        ...piece.parts.flatMap((part) => swapSteps(part, bead.number, keep.number)),
        { type: 'tray', do: 'remove', at, bead },
      ]
      return [
        {
          weight: 'looks',
          says:
            `${keep.letter} ${keep.name} and ${bead.letter} ${bead.name} are of the same colour, size and finish: ` +
            'make one of them, or give one its own colour.',
          why: 'Two letters for one bead are counted, bought and threaded as two.',
          mends: [{ label: `Make all ${bead.letter} to ${keep.letter}`, steps }],
        },
      ]
    }),
}
