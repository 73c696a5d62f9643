import type { Place, Box } from '../technique/lattice'
import { findPart, locateRow, rowsOf, sectionStart, type Part, type Piece } from './piece'
import { mapPosition } from './rebase'
import type { Step } from './steps/schema'

/**
 * Where a place of a part lies after a step: what refers to rows and columns moves along with them. Null if it was
 * taken out.
 */
export function followPlace(before: Part, after: Part, step: Step, place: Place): Place | null {
  if (place.r < 0 || place.r >= rowsOf(before)) return place
  const { section, row, copy } = locateRow(before, place.r)
  const to = mapPosition({ part: before.id, section, c: place.c, r: row }, step)
  return to && { c: to.c, r: sectionStart(after, section, copy) + to.r }
}

/** The same for a box; null if one of its corners was taken out. */
export function followBox(before: Part, after: Part, step: Step, box: Box): Box | null {
  const first = followPlace(before, after, step, { c: box.c, r: box.r })
  const last = followPlace(before, after, step, { c: box.c + box.columns - 1, r: box.r + box.rows - 1 })
  return first && last ? { c: first.c, r: first.r, columns: last.c - first.c + 1, rows: last.r - first.r + 1 } : null
}

/** A place and a box carried over a list of steps, each applied by `apply`. */
export function followed<T>(
  piece: Piece,
  part: string,
  steps: readonly Step[],
  apply: (piece: Piece, step: Step) => Piece | null,
  start: T,
  follow: (before: Part, after: Part, step: Step, value: T) => T | null,
): T | null {
  let now = piece
  let value: T | null = start
  for (const step of steps) {
    const next = apply(now, step)
    const [before, after] = [findPart(now, part), next && findPart(next, part)]
    if (!next || !before || !after || value === null) return null
    value = follow(before, after, step, value)
    now = next
  }
  return value
}
