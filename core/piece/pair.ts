import { fitKindOf } from '../wear/kind'
import { partRow, rowsOf, techniqueOf, type Part, type Piece } from './piece'

/** Pairs: the second is a copy of the first, or its mirror image. */

/** Whether the lists of a part read the same from both sides. */
export function isOwnMirror(part: Part): boolean {
  const rows = rowsOf(part)
  for (let r = 0; r < rows / 2; r++) {
    const [a, b] = [partRow(part, r), partRow(part, rows - 1 - r)]
    if (a.length !== b.length || a.some((n, k) => n !== b[k])) return false
  }
  return true
}

/** Whether the second of a pair has lists of its own: it mirrors a first that is not alike from both sides. */
export const secondDiffers = (piece: Pick<Piece, 'fit' | 'parts'>): boolean =>
  fitKindOf(piece.fit.kind).pieces === 2 &&
  piece.fit.pair === 'mirror' &&
  piece.parts.some((part) => techniqueOf(part).strands !== undefined && !isOwnMirror(part))

/** Whether a copy of a part, from 1, is made from its last line to its first: the second of a mirrored pair. */
export const isTurnedCopy = (piece: Pick<Piece, 'fit'>, part: Part, copy: number): boolean =>
  copy % 2 === 0 &&
  piece.fit.pair === 'mirror' &&
  fitKindOf(piece.fit.kind).pieces === 2 &&
  techniqueOf(part).strands !== undefined &&
  !isOwnMirror(part)

/** How the second of a pair is made, in a sentence; empty where there is none. */
export function pairWords(piece: Pick<Piece, 'fit' | 'parts'>): string {
  if (fitKindOf(piece.fit.kind).pieces === 1) return ''
  if (piece.fit.pair === 'copy') return 'Make two alike.'
  const strands = piece.parts.filter((part) => techniqueOf(part).strands !== undefined)
  return strands.length > 0 && strands.every(isOwnMirror)
    ? 'Make two: both are alike.'
    : 'Make two; work the second as the mirror of the first.'
}
