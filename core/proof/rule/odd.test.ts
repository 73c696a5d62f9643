import { describe, expect, it } from 'vitest'
import { bead, part, piece } from '../../../tests/fixture/piece'
import { foundBy, mendedBy } from '../../../tests/fixture/proof'
import { beginPiece } from '../../begin/begin'
import { cellsFrom, emptyCells, flatten, type Cells } from '../../grid/cells'
import { columnsOf, type Piece } from '../../piece/piece'
import { usualClosure } from '../../wear/closure'
import { oddOnes } from './odd'

const COLUMNS = 12
const ROWS = 40

/** Diamonds on a loom: ten rows high, twelve beads wide. */
const diamonds = Array.from({ length: COLUMNS * ROWS }, (_, k) => {
  const [c, r] = [k % COLUMNS, Math.floor(k / COLUMNS)]
  return 1 + Math.floor((Math.abs(c - 5.5) + Math.abs((r % 10) - 4.5)) / 2.5)
})

function band(flat: readonly number[], technique = 'loom', columns = COLUMNS): Piece {
  const none = emptyCells(columns, 0)
  const repeat = cellsFrom(columns, flat.length / columns, [...flat])
  return piece({
    tray: [1, 2, 3, 4, 5].map((n) => bead(n)),
    parts: [part({ technique, settings: {}, times: 1, start: none, end: none, repeat })],
  })
}
const changed = (more: Readonly<Record<number, number>>) => band(diamonds.map((n, k) => more[k] ?? n))
const at = (c: number, r: number) => r * COLUMNS + c
const cellsOf = (p: Piece) => [...flatten(p.parts[0]!.repeat as Cells)]

/** The same cells with another bead at one of them. */
const withBead = (cells: Cells, k: number, number: number): Cells =>
  cellsFrom(
    cells.columns,
    cells.rows,
    [...flatten(cells)].map((n, at_) => (at_ === k ? number : n)),
  )

describe('odd ones', () => {
  it('are not found where all follow', () => {
    expect(foundBy(oddOnes, band(diamonds))).toEqual([])
  })

  it('are one bead, with its place, what is expected and how many say so; mended as it was', () => {
    const wrong = changed({ [at(6, 14)]: 4 })
    const [found, ...more] = foundBy(oddOnes, wrong)
    expect(more).toEqual([])
    expect(found).toMatchObject({ rule: 'odd', weight: 'looks', spots: [{ section: 'repeat', r: 14, c: 6 }] })
    expect(found!.says).toMatch(/^Row 15, \S+ 7 is D where A is expected \(\d+ places like it\)\. Lay A there\.$/)
    expect(cellsOf(mendedBy(wrong, found!))).toEqual(diamonds)
  })

  it('are a row that slipped by a bead, named as one', () => {
    const row = diamonds.slice(at(0, 23), at(0, 24))
    const slipped = Object.fromEntries(row.map((_, c) => [at(c, 23), row[(c + COLUMNS - 1) % COLUMNS]!]))
    const wrong = changed(slipped)
    const [found, ...more] = foundBy(oddOnes, wrong)
    expect(more).toEqual([])
    expect(found!.says).toContain('Row 24 breaks the pattern that')
    expect(cellsOf(mendedBy(wrong, found!))).toEqual(diamonds)
  })

  it('are a row that is missing: it is put in again', () => {
    const wrong = band([...diamonds.slice(0, at(0, 17)), ...diamonds.slice(at(0, 18))])
    const [found, ...more] = foundBy(oddOnes, wrong)
    expect(more).toEqual([])
    expect(found).toMatchObject({ rule: 'row-missing' })
    expect(found!.says).toContain('Between row 17 and row 18 a row seems to be missing')
    expect(cellsOf(mendedBy(wrong, found!))).toEqual(diamonds)
  })

  it('are a row that is there twice: one is taken out', () => {
    const wrong = band([...diamonds.slice(0, at(0, 24)), ...diamonds.slice(at(0, 23))])
    const [found, ...more] = foundBy(oddOnes, wrong)
    expect(more).toEqual([])
    expect(found).toMatchObject({ rule: 'row-doubled' })
    expect(cellsOf(mendedBy(wrong, found!))).toEqual(diamonds)
  })

  it('are found in what is staggered and round as well, each in its own lattice', () => {
    for (const [technique, columns, place] of [
      ['peyote', 12, (c: number, r: number) => [c, 2 * r + (c % 2)]],
      ['brick', 12, (c: number, r: number) => [2 * c + (r % 2), r]],
      ['peyote-tube', 12, (c: number, r: number) => [c, 2 * r + (c % 2)]],
    ] as const) {
      const flat = Array.from({ length: columns * 36 }, (_, k) => {
        const [x, y] = place(k % columns, Math.floor(k / columns)) as [number, number]
        return 1 + ((((x + 2 * y) % 12) + 12) % 12 < 5 ? 1 : 0) + (y % 6 === 0 ? 1 : 0)
      })
      expect(foundBy(oddOnes, band(flat, technique, columns))).toEqual([])
      const k = 15 * columns + 4
      const wrong = flat.map((n, i) => (i === k ? 4 : n))
      const [found] = foundBy(oddOnes, band(wrong, technique, columns))
      expect([technique, found?.spots]).toEqual([technique, [{ section: 'repeat', r: 15, c: 4 }]])
    }
  })

  it('are left alone where a motif of its own is meant', () => {
    // A square of another bead in the middle, alike from both sides.
    const own = Object.fromEntries(Array.from({ length: 36 }, (_, k) => [at(3 + (k % 6), 17 + Math.floor(k / 6)), 5]))
    expect(foundBy(oddOnes, changed(own))).toEqual([])
  })

  describe('in a bracelet as it is begun', () => {
    /** Diamonds of even-count peyote: alike up and down, and from neither side. */
    const begun = beginPiece({
      ...{ kind: 'bracelet', name: 'First', wearer: '', bodyMm: 170, easeMm: 13, widthMm: 20, start: 'left' },
      ...{ closure: usualClosure('toggle'), technique: 'peyote', spec: 'cylinder-11', motif: 'diamonds' },
    } as const)
    const [own] = begun.parts
    const laid = (c: number, r: number, number: number): Piece => ({
      ...begun,
      parts: [{ ...own!, repeat: withBead(own!.repeat as Cells, r * columnsOf(own!) + c, number) }],
    })
    it('nothing is found as it is', () => {
      expect(foundBy(oddOnes, begun)).toEqual([])
    })
    it('a stray bead is worth a look, though one place only says so', () => {
      const [found, ...more] = foundBy(oddOnes, laid(1, 2, 2))
      expect(more).toEqual([])
      expect(found).toMatchObject({ rule: 'odd-perhaps', weight: 'note', spots: [{ section: 'repeat', r: 2, c: 1 }] })
      expect(found!.says).toContain('is B where A is expected (1 place like it)')
      expect(foundBy(oddOnes, mendedBy(laid(1, 2, 2), found!))).toEqual([])
    })
    it('of two that differ it is not said which, where neither is alone', () => {
      const wrong = laid(7, 1, 1)
      const [found] = foundBy(oddOnes, wrong)
      expect(found!.says).toMatch(/should be alike; which is right\? Make both so\.$/)
      expect(found!.mends).toHaveLength(2)
      for (const k of [0, 1]) expect(foundBy(oddOnes, mendedBy(wrong, found!, k))).toEqual([])
    })
  })
})
