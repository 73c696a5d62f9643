import { fitsWell } from '../fit/feel'
import { fitOf } from '../fit/reckon'
import { madeParts } from '../piece/nature'
import type { Piece } from '../piece/piece'
import { EARRING_GRAMS } from '../wear/kind'
import { weightOf } from '../supply/cost'
import { holesOf } from '../supply/holes'
import { strandCords } from '../tally/cords'
import { partFindings } from './finding'
import { tallyPart, totalOf } from '../tally/tally'

/** The stages of a piece and how many things in each want a look. */
interface Readiness {
  readonly fit: number
  readonly mat: number
  readonly tally: number
  readonly supplies: number
}

/** Earrings heavier than is comfortable to wear for long. */
const heavy = (piece: Piece): boolean => piece.fit.kind === 'earrings' && weightOf(piece) > EARRING_GRAMS.careful

export function readinessOf(piece: Piece): Readiness {
  const empty = madeParts(piece.parts).filter((part) => totalOf(tallyPart(part)) === 0).length
  return {
    fit: fitsWell(fitOf(piece).feel) ? 0 : 1,
    mat:
      empty +
      piece.parts.flatMap((part) => partFindings(part, piece)).filter((f) => f.weight === 'stops').length +
      piece.parts.filter((part) => strandCords(part, piece.tray).some((c) => c.changes)).length,
    tally: 0,
    supplies: holesOf(piece).filter(({ check }) => check.verdict !== 'easy').length + (heavy(piece) ? 1 : 0),
  }
}
