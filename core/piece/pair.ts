import { fitKindOf } from '../wear/kind'
import { placeOfKey } from '../grid/key'
import { freeOf } from './drawing'
import { columnsOf, partRow, rowsOf, techniqueOf, type Part, type Piece } from './piece'

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

/** Whether a copy, from 1, is the second of a pair. */
export const isSecond = (piece: Pick<Piece, 'fit'>, copy: number): boolean =>
  copy % 2 === 0 && fitKindOf(piece.fit.kind).pieces === 2

/** How near each other places lie that are taken for the same, mm. */
const SAME_MM = 0.1

/** Whether a part that is drawn free looks the same in a mirror: where it shows a bead, there lies one like it. */
function isOwnImage(part: Part): boolean {
  const drawn = freeOf(part)
  if (!drawn) return false
  const beads = Array.from(drawn.keys, (key, k) => {
    const { c, r } = placeOfKey(columnsOf(part), key)
    return { x: drawn.xs[k]!, y: drawn.ys[k]!, number: partRow(part, r)[c] }
  })
  const squares = new Map<string, typeof beads>()
  const square = (x: number, y: number) => `${Math.round(x)} ${Math.round(y)}`
  for (const bead of beads) squares.set(square(bead.x, bead.y), [...(squares.get(square(bead.x, bead.y)) ?? []), bead])
  const middle = (Math.min(...drawn.xs) + Math.max(...drawn.xs)) / 2
  return beads.every(({ x, y, number }) => {
    const [mx, near] = [2 * middle - x, [-1, 0, 1]]
    return near.some((i) =>
      near.some((j) =>
        squares
          .get(square(mx + i, y + j))
          ?.some((one) => one.number === number && Math.hypot(one.x - mx, one.y - y) < SAME_MM),
      ),
    )
  })
}

/** Whether a copy of work on wire, from 1, is the mirror of the first and looks different for it. */
export const isMirrorCopy = (piece: Pick<Piece, 'fit'>, part: Part, copy: number): boolean =>
  isSecond(piece, copy) && piece.fit.pair === 'mirror' && techniqueOf(part).wire !== undefined && !isOwnImage(part)

/** Whether a copy of a part, from 1, is made from its last line to its first: the second of a mirrored pair. */
export const isTurnedCopy = (piece: Pick<Piece, 'fit'>, part: Part, copy: number): boolean =>
  isSecond(piece, copy) && piece.fit.pair === 'mirror' && techniqueOf(part).strands !== undefined && !isOwnMirror(part)

/** How the second of a pair is made, in a sentence; empty where there is none. */
export function pairWords(piece: Pick<Piece, 'fit' | 'parts'>): string {
  if (fitKindOf(piece.fit.kind).pieces === 1) return ''
  if (piece.fit.pair === 'copy') return 'Make two alike.'
  const strands = piece.parts.filter((part) => techniqueOf(part).strands !== undefined)
  const alike =
    strands.length > 0
      ? strands.every(isOwnMirror)
      : piece.parts.every((part) => techniqueOf(part).wire !== undefined && isOwnImage(part))
  return alike ? 'Make two: both are alike.' : 'Make two; work the second as the mirror of the first.'
}
