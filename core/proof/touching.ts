import { modulo } from '../modulo'
import { latticeOf, freeOf } from '../piece/drawing'
import { columnsOf, isGrid, lengthOfLine, partRow, rowsOf, type Part } from '../piece/piece'
import { neighbourOffsets } from '../technique/lattice'
import type { Place } from '../technique/lattice'
import { keptLines } from './spots'

/** Two beads that lie beside each other: how often, and where first. */
export interface Touch {
  readonly a: number
  readonly b: number
  count: number
  readonly at: Place
}

const pairKey = (a: number, b: number): number => (a < b ? a * 65536 + b : b * 65536 + a)

/**
 * Which beads of the tray lie beside which, over what is kept of a part: each pair once, with how often. In lines of
 * their own lengths, those that follow each other.
 */
export function touches(part: Part): Touch[] {
  const out = new Map<number, Touch>()
  const add = (a: number, b: number, at: Place) => {
    if (a === 0 || b === 0 || a === b) return
    const key = pairKey(a, b)
    const known = out.get(key)
    if (known) known.count++
    else out.set(key, { a: Math.min(a, b), b: Math.max(a, b), count: 1, at })
  }
  const rows = rowsOf(part)
  const onGrid = isGrid(part) && freeOf(part) === null
  if (!onGrid) {
    for (const { whole } of keptLines(part)) {
      const line = partRow(part, whole)
      for (let c = 1; c < line.length; c++) add(line[c - 1]!, line[c]!, { c, r: whole })
    }
    return [...out.values()]
  }
  const lattice = latticeOf(part)
  const columns = columnsOf(part)
  const { period } = lattice
  // Of each touching pair one of the two looks: the one before.
  const offsets = Array.from({ length: period.columns * period.rows }, (_, k) =>
    neighbourOffsets(lattice, k % period.columns, Math.floor(k / period.columns)).filter(
      (o) => o.r > 0 || (o.r === 0 && o.c > 0),
    ),
  )
  for (const { whole } of keptLines(part)) {
    const line = partRow(part, whole)
    for (let c = 0; c < line.length; c++) {
      if (line[c] === 0) continue
      for (const o of offsets[(whole % period.rows) * period.columns + (c % period.columns)]!) {
        const r = whole + o.r
        const at = lattice.round ? modulo(c + o.c, columns) : c + o.c
        if (r >= rows || at < 0 || at >= lengthOfLine(part, r)) continue
        add(line[c]!, partRow(part, r)[at]!, { c, r: whole })
      }
    }
  }
  return [...out.values()]
}
