import { parse } from 'csv-parse/sync'
import { describe, expect, it } from 'vitest'
import { beginPiece } from '#core/begin/begin'
import { rowsCsv } from '#core/format/tally-csv'
import { withCells, type Cells } from '#core/grid/cells'
import { usualClosure } from '#core/wear/closure'
import { asWritten, LISTED, TWO_BEADS, WRITTEN, writtenFor } from '../fixture/written'

const piece = beginPiece({
  ...{ kind: 'bracelet', name: 'Small', wearer: '', bodyMm: 160, easeMm: 13, widthMm: 9, technique: 'loom' },
  ...{ spec: 'cylinder-11', motif: 'plain', start: 'left', closure: usualClosure('toggle') },
})

describe('what a person would write down', () => {
  it('is known for every stitch on a grid', () => expect([...LISTED].sort()).toEqual([...WRITTEN].sort()))

  it.each(WRITTEN)('of %s is what the rows say', (technique) => {
    const { part, columns, words } = writtenFor(technique, piece.parts[0]!)
    const repeat = withCells(part.repeat as Cells, (set) => {
      for (const { c, r } of TWO_BEADS) set(r * columns + c, 2)
    })
    const rows = parse(rowsCsv({ ...piece, parts: [{ ...part, repeat }] }), { columns: true })
    expect(asWritten(rows as Record<string, string>[])).toEqual(words)
  })
})
