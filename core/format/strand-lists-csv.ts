import { requireSpec } from '../bead/spec'
import { runPairs } from '../grid/runs'
import { partRow, trayByNumber, type Part, type Piece } from '../piece/piece'
import { strandsOf } from '../piece/strands'
import { csv } from './tally-csv'

/**
 * Lists of strands as CSV (RFC 4180): a line for each run of each strand, from the top down, with what it hangs from
 * and how long it is (mm).
 */
export function strandListsCsv(piece: Piece, part: Part): string {
  const letters = trayByNumber(piece.tray)
  const head = ['strand', 'same as', 'place', 'leads to', 'beads', 'mm', 'run', 'count', 'letter', 'bead', 'size']
  return csv([
    head,
    ...strandsOf(piece, part).flatMap((strand) => {
      return runPairs(partRow(part, strand.r)).map(({ count, number }, k): (string | number)[] => {
        const bead = letters.get(number)
        return [
          strand.r + 1,
          strand.sameAs === null ? '' : strand.sameAs + 1,
          strand.at + 1,
          strand.to === null ? '' : strand.to + 1,
          strand.total,
          Math.round(strand.longMm * 10) / 10,
          k + 1,
          count,
          bead?.letter ?? '',
          bead?.name ?? 'none',
          bead ? requireSpec(bead.spec).name : '',
        ]
      })
    }),
  ])
}
