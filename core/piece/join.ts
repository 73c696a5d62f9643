import { placeOfKey } from '../grid/key'
import { fitKindOf } from '../wear/kind'
import { laidOf } from './laid'
import { beadOf, columnsOf, fittedPart, partRow, rowsOf, techniqueOf, type Part, type Piece } from './piece'
import type { Fit } from './schema'
import type { Join } from '../technique/technique'

/** Whether a piece is a ring of itself: nothing closes it, and it goes round, as a strand over the head does. */
export function isRing({ kind, closure }: Pick<Fit, 'kind' | 'closure'>): boolean {
  const { bend, hangs } = fitKindOf(kind)
  return closure.kind === 'none' && bend !== 'open' && !hangs
}

/**
 * How the ends of a part are joined, where the piece is a ring and the part is the one that goes round; null
 * otherwise. Ends that interlock ask for whole bead rows: with a row of half the beads they meet as they are, until
 * one row is added or taken.
 */
export function joinOf(piece: Pick<Piece, 'fit' | 'parts'>, part: Part): Join | null {
  if (!isRing(piece.fit) || fittedPart(piece).id !== part.id) return null
  const { part: laid, shortMm } = laidOf(part)
  const join = techniqueOf(part).join({
    columns: columnsOf(laid),
    rows: rowsOf(laid),
    bead: beadOf(laid),
    settings: laid.settings,
  })
  if (!join.zips || shortMm < 1e-6) return join
  return {
    ...join,
    says: 'Work one row more, or one less: ends that interlock ask for whole bead rows. Then zip them.',
    addsMm: 0,
    formula: '',
  }
}

/**
 * Tray numbers of the beads that only joining asks for, in the order in which they are picked up: those kept in their
 * cells, or the bead beside each.
 */
export function joinNumbers(piece: Pick<Piece, 'fit' | 'parts'>, part: Part): number[] {
  const join = joinOf(piece, part)
  if (!join?.keys || join.keys.length === 0) return []
  const { part: laid } = laidOf(part)
  const columns = columnsOf(laid)
  return join.keys.flatMap((key) => {
    const { c, r } = placeOfKey(columns, key)
    // A column without a bead has no unit to join.
    const before = r > 0 ? partRow(laid, r - 1)[c]! : 0
    return before === 0 ? [] : [partRow(laid, r)[c] || before]
  })
}
