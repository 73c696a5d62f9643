import { fitBracelet } from '../fit/bracelet'
import type { Piece } from '../piece/piece'
import { holeChecks } from '../supply/thread'
import { tallyPart, tallyPiece, totalOf } from '../tally/tally'

/** The stages of a piece and how many things in each want a look. */
export interface Readiness { readonly fit: number, readonly mat: number, readonly tally: number, readonly supplies: number }

/** Numbers of beads on the tray that the pattern never uses. */
export function unusedBeads(piece: Piece): number[] {
  const counts = tallyPiece(piece)
  return piece.tray.filter(b => !counts.get(b.number)).map(b => b.number)
}

export function readinessOf(piece: Piece): Readiness {
  const band = piece.parts[0]!
  const { feel } = fitBracelet(piece.fit, band, undefined, piece.tray)
  const empty = piece.parts.filter(part => totalOf(tallyPart(part)) === 0).length
  return {
    fit: feel === 'will not close' || feel === 'tight' || feel === 'too loose' ? 1 : 0,
    mat: empty,
    tally: 0,
    supplies: piece.parts.flatMap(part => holeChecks(piece, part)).filter(check => check.verdict !== 'easy').length,
  }
}
