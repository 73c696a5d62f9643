import { lineAt, type Lines } from '../grid/lines'
import type { Part } from '../piece/piece'
import { techniqueOf } from '../piece/piece'

const known = new WeakMap<Lines, Map<number, number>>()

/**
 * Rows after which the colours of the repeat begin again: the smallest count that divides the repeat, joins on without
 * a slip and repeats every row. The repeat's own height where it holds no smaller cycle; 0 for an empty repeat.
 */
export function colourCycle(part: Part): number {
  const { repeat } = part
  if (repeat.rows === 0) return 0
  const step = techniqueOf(part).growth.repeatRows
  const seen = known.get(repeat) ?? new Map<number, number>()
  known.set(repeat, seen)
  let cycle = seen.get(step)
  if (cycle === undefined) {
    cycle = repeat.rows
    for (let p = step; p <= repeat.rows / 2; p += step) {
      if (repeat.rows % p === 0 && repeatsEvery(repeat, p)) {
        cycle = p
        break
      }
    }
    seen.set(step, cycle)
  }
  return cycle
}

function repeatsEvery(cells: Lines, p: number): boolean {
  for (let r = p; r < cells.rows; r++) {
    const [here, before] = [lineAt(cells, r), lineAt(cells, r - p)]
    if (here.length !== before.length) return false
    for (let c = 0; c < here.length; c++) if (here[c] !== before[c]) return false
  }
  return true
}
