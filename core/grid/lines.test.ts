import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BLOCK_ROWS, cellsFrom, emptyCells } from './cells'
import {
  indexOf,
  insertLines,
  insertSlots,
  isRagged,
  lineAt,
  lineLength,
  linesOf,
  numberAtIndex,
  numberIn,
  placeOfIndex,
  plainLines,
  raggedFrom,
  removeLines,
  removeSlots,
  slotCount,
  withNumbers,
  type Lines,
} from './lines'

const line = fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 7 })
/** Some of them longer than a block. */
const lists = fc.oneof(fc.array(line, { maxLength: 12 }), fc.array(line, { minLength: 60, maxLength: 140 }))
const plain = (lines: Lines): number[][] => linesOf(lines).map((l) => [...l])

describe('lines of their own lengths', () => {
  it('are read as they were written, by line, by place and by index', () => {
    fc.assert(
      fc.property(lists, (wanted) => {
        const lines = raggedFrom(wanted)
        expect(isRagged(lines)).toBe(true)
        expect(plain(lines)).toEqual(wanted)
        expect(lines.columns).toBe(Math.max(1, ...wanted.map((l) => l.length)))
        expect(lines.blocks.map((b) => b.length)).toEqual(
          Array.from({ length: Math.ceil(wanted.length / BLOCK_ROWS) }, (_, k) =>
            wanted.slice(k * BLOCK_ROWS, (k + 1) * BLOCK_ROWS).reduce((sum, l) => sum + l.length, 0),
          ),
        )
        let index = 0
        for (const [r, l] of wanted.entries()) {
          expect(lineLength(lines, r)).toBe(l.length)
          for (const [c, number] of l.entries()) {
            expect(indexOf(lines, c, r)).toBe(index)
            expect(placeOfIndex(lines, index)).toEqual({ c, r })
            expect(numberIn(lines, c, r)).toBe(number)
            expect(numberAtIndex(lines, index)).toBe(number)
            index++
          }
        }
        expect(slotCount(lines)).toBe(index)
      }),
    )
  })
  it('change where they are told to, and share what was not touched', () => {
    fc.assert(
      fc.property(lists, fc.array(fc.nat(), { maxLength: 6 }), (wanted, where) => {
        const lines = raggedFrom(wanted)
        const size = slotCount(lines)
        if (size === 0) return
        const twin = wanted.flat()
        const next = withNumbers(lines, (set) => {
          for (const at of where) {
            set(at % size, 99)
            twin[at % size] = 99
          }
        })
        expect(plain(next).flat()).toEqual(twin)
        expect(plain(lines)).toEqual(wanted)
        const touched = new Set(where.map((at) => Math.floor(placeOfIndex(lines, at % size).r / BLOCK_ROWS)))
        next.blocks.forEach((block, k) => expect(block === lines.blocks[k]).toBe(!touched.has(k)))
        expect(next.ends).toBe(lines.ends)
        if (where.length === 0) expect(next).toBe(lines)
      }),
    )
  })
  it('are refused a place that they have not', () => {
    expect(() => withNumbers(raggedFrom([[1, 2]]), (set) => set(2, 1))).toThrow(/outside 2 places/)
  })
  it('take lines and places in and let them out, as lists do', () => {
    fc.assert(
      fc.property(lists, lists, fc.nat(), fc.nat(), line, (wanted, more, at, place, numbers) => {
        const lines = raggedFrom(wanted)
        const r = at % (wanted.length + 1)
        const put = insertLines(lines, r, more)
        expect(plain(put)).toEqual(wanted.toSpliced(r, 0, ...more))
        expect(plain(removeLines(put, r, more.length))).toEqual(wanted)
        if (wanted.length === 0) return
        const own = r % wanted.length
        const c = place % (wanted[own]!.length + 1)
        const longer = insertSlots(lines, own, c, numbers)
        expect(plain(longer)).toEqual(wanted.with(own, wanted[own]!.toSpliced(c, 0, ...numbers)))
        expect(plain(removeSlots(longer, own, c, numbers.length))).toEqual(wanted)
      }),
    )
  })
  it('put in plain are as long as the line behind which they come, or before which, or as is usual', () => {
    const lines = raggedFrom([[1], [1, 2], [1, 2, 3]])
    expect(plainLines(lines, 2, 2, 7, 9).map((l) => [...l])).toEqual([
      [7, 7],
      [7, 7],
    ])
    expect(plainLines(lines, 0, 1, 7, 9)[0]).toHaveLength(1)
    expect(plainLines(lines, 3, 1, 7, 9)[0]).toHaveLength(3)
    expect(plainLines(raggedFrom([]), 0, 1, 7, 9)[0]).toHaveLength(9)
    expect(plainLines(emptyCells(4, 2), 1, 1, 7, 9)[0]).toHaveLength(4)
  })
})

describe('the same of a grid', () => {
  const grid = cellsFrom(3, 2, [1, 2, 3, 4, 5, 6])
  it('is what the grid says', () => {
    expect(plain(grid)).toEqual([
      [1, 2, 3],
      [4, 5, 6],
    ])
    expect([lineLength(grid, 1), slotCount(grid), indexOf(grid, 1, 1), numberAtIndex(grid, 4)]).toEqual([3, 6, 4, 5])
    expect(placeOfIndex(grid, 5)).toEqual({ c: 2, r: 1 })
    expect([...lineAt(grid, 1)]).toEqual([4, 5, 6])
    expect(plain(withNumbers(grid, (set) => set(4, 9)))[1]).toEqual([4, 9, 6])
    expect(isRagged(insertLines(grid, 1, [[7, 8, 9]]))).toBe(false)
    expect(plain(insertLines(grid, 1, [[7, 8, 9]]))[1]).toEqual([7, 8, 9])
    expect(plain(removeLines(grid, 0, 1))).toEqual([[4, 5, 6]])
  })
  it('takes no row of another width', () => {
    expect(() => insertLines(grid, 0, [[1, 2]])).toThrow(/3 numbers each/)
  })
})
