import type { Part, Piece } from '../piece/piece'
import { holeChecks, type SpecHoleCheck } from './thread'

/** What thread, needle or wire find in a hole, and the parts where it is so. */
export interface HoleOfPiece {
  readonly part: Part
  /** Names of other parts where it is the same. */
  readonly others: readonly string[]
  readonly check: SpecHoleCheck
}

/** Holes of a whole piece, as `holeChecks` says of its parts: what is the same in several parts once. */
export function holesOf(piece: Piece): HoleOfPiece[] {
  const out = new Map<string, HoleOfPiece & { others: string[] }>()
  for (const part of piece.parts)
    for (const check of holeChecks(piece, part)) {
      const { spec, where, passes, verdict } = check
      const key = `${spec} ${where} ${passes} ${verdict}`
      const known = out.get(key)
      if (known) known.others.push(part.name)
      else out.set(key, { part, others: [], check })
    }
  return [...out.values()]
}
