import { describe, expect, it } from 'vitest'
import { DEMO_PIECES } from '../../demo/pieces'
import { fitOf } from '../fit/reckon'
import { checkPiece, strayNumbers } from '../piece/codec'
import { fittedPart, isGrid, numberAt, techniqueOf, type Piece } from '../piece/piece'
import { partFindings } from '../proof/finding'
import { tallyPiece } from '../tally/tally'
import { matching, MATCHES } from './matching'

describe('a matching set', () => {
  const all: readonly Piece[] = DEMO_PIECES
  it.each(MATCHES)('%s go with every piece of the workshop: sound, in its beads, hanging from its motif', (match) => {
    for (const piece of all) {
      const made = matching(piece, match)
      expect([piece.name, checkPiece(made), strayNumbers(made)]).toEqual([piece.name, [], []])
      expect(made.fit.kind).toBe(match)
      const inSource = new Set(tallyPiece(piece).keys())
      for (const number of tallyPiece(made).keys())
        if (inSource.size > 0 && made.parts.length > 1)
          expect([piece.name, inSource.has(number)]).toEqual([piece.name, true])
      expect(made.parts.flatMap((p) => partFindings(p, made)).filter((f) => f.weight === 'stops')).toEqual([])
      const source = fittedPart(piece)
      if (isGrid(source) && techniqueOf(source).family === 'weave' && !techniqueOf(source).round) {
        expect([piece.name, made.parts.length]).toEqual([piece.name, 2])
        expect(Math.abs(fitOf(made).differenceMm)).toBeLessThan(8)
        // A bead of the motif lies where it lay in the repeat.
        const panel = made.parts[0]!
        expect(numberAt(panel, 0, 0)).not.toBeUndefined()
      }
    }
  })
})
