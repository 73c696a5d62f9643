import { techniqueOf, type Piece } from '../piece/piece'
import type { CarrierId } from '../technique/act'
import { closureOf } from '../wear/closure'
import { pathOf } from './thread'
import { workplaceOf } from './tools'

/** Cautions of a piece, each once: usual ones; local rules and trained people go first. */

const WIRE_CAUTION = 'Wire springs and its ends cut: wear eye protection when cutting, and tuck the ends in.'
const CHILD_CAUTION =
  'Small beads and cords are dangerous to small children: a child’s necklace needs a clasp that breaks away, and ' +
  'what is sold must follow the law of the place.'

/** What works its way through the beads of a piece. */
export const carriersOf = (piece: Piece): Set<CarrierId> =>
  new Set(piece.parts.flatMap((part) => pathOf(part, piece).runs.map((run) => run.id)))

/** What to mind before the work is begun. */
export const workCautions = (piece: Piece): string[] => [
  ...(['necklace', 'choker'].includes(piece.fit.kind) ? [CHILD_CAUTION] : []),
  // Work on wire brings cautions of its own.
  ...(carriersOf(piece).has('wire') && !piece.parts.some((part) => techniqueOf(part).wire) ? [WIRE_CAUTION] : []),
  ...new Set(piece.parts.flatMap((part) => workplaceOf(piece, part)?.cautions ?? [])),
]

/** The same with what its closure asks for in wear. */
export const allCautions = (piece: Piece): string[] => {
  const { caution } = closureOf(piece.fit.closure.kind)
  return [...new Set([...workCautions(piece), ...(caution ? [caution] : [])])]
}
