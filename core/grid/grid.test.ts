import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  BLOCK_ROWS,
  cellAt,
  cellsFrom,
  copyBox,
  emptyCells,
  flatten,
  insertColumns,
  insertRows,
  removeColumns,
  removeRows,
  rowAt,
  sameCells,
  withCells,
} from './cells'
import { numbersOf, runsLength, runsOf } from './runs'

const anyCells = fc
  .tuple(
    fc.integer({ min: 1, max: 9 }),
    fc.integer({ min: 0, max: 3 * BLOCK_ROWS }),
    fc.integer({ min: 1, max: 1000 }),
  )
  .map(([columns, rows, seed]) =>
    cellsFrom(
      columns,
      rows,
      Array.from({ length: columns * rows }, (_, i) => (i * seed) % 7),
    ),
  )

describe('cells', () => {
  it('hold what they were made from, in blocks that no reader sees', () => {
    fc.assert(
      fc.property(anyCells, (cells) => {
        const flat = flatten(cells)
        for (let r = 0; r < cells.rows; r++) {
          expect([...rowAt(cells, r)]).toEqual([...flat.subarray(r * cells.columns, (r + 1) * cells.columns)])
          expect(cellAt(cells, 0, r)).toBe(flat[r * cells.columns])
        }
        expect(sameCells(cells, cellsFrom(cells.columns, cells.rows, flat))).toBe(true)
      }),
    )
  })
  it('change by copying only the touched blocks', () => {
    const before = emptyCells(4, 3 * BLOCK_ROWS, 1)
    const after = withCells(before, (set) => set(BLOCK_ROWS * 4 + 2, 9))
    expect(cellAt(before, 2, BLOCK_ROWS)).toBe(1)
    expect(cellAt(after, 2, BLOCK_ROWS)).toBe(9)
    expect(after.blocks.map((b, i) => b === before.blocks[i])).toEqual([true, false, true])
    expect(withCells(before, () => {})).toBe(before)
    expect(() => withCells(before, (set) => set(4 * 3 * BLOCK_ROWS, 1))).toThrow(/outside/)
  })
  it('rows put in and taken out again leave the same cells', () => {
    fc.assert(
      fc.property(anyCells, fc.nat(), fc.integer({ min: 1, max: 70 }), (cells, place, count) => {
        const at = place % (cells.rows + 1)
        const wider = insertRows(cells, at, new Uint16Array(count * cells.columns).fill(8))
        expect(wider.rows).toBe(cells.rows + count)
        expect([...copyBox(wider, 0, at, cells.columns, count)]).toEqual(Array(count * cells.columns).fill(8))
        expect(sameCells(removeRows(wider, at, count), cells)).toBe(true)
      }),
    )
  })
  it('columns put in and taken out again leave the same cells', () => {
    fc.assert(
      fc.property(anyCells, fc.nat(), fc.integer({ min: 1, max: 5 }), (cells, place, count) => {
        const at = place % (cells.columns + 1)
        const wider = insertColumns(cells, at, count, new Uint16Array(count * cells.rows).fill(8))
        if (cells.rows > 0) expect([...rowAt(wider, 0).subarray(at, at + count)]).toEqual(Array(count).fill(8))
        expect(sameCells(removeColumns(wider, at, count), cells)).toBe(true)
      }),
    )
  })
  it('refuse sizes that cannot be', () => {
    expect(() => emptyCells(0, 3)).toThrow(/columns/)
    expect(() => emptyCells(3, -1)).toThrow(/rows/)
    expect(() => cellsFrom(2, 2, [1, 2, 3])).toThrow(/4 numbers/)
  })
})

describe('run-length code', () => {
  it('turns any numbers into runs and back', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 3 })), (numbers) => {
        const runs = runsOf(numbers)
        expect([...numbersOf(runs)]).toEqual(numbers)
        expect(runsLength(runs)).toBe(numbers.length)
        for (let i = 3; i < runs.length; i += 2) expect(runs[i]).not.toBe(runs[i - 2])
      }),
    )
  })
})
