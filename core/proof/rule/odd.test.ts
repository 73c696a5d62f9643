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

/** A sentence, without how many say so. */
const told = ({ says }: { readonly says: string }): string => says.replace(/\d+ ((other )?places|rows)/, 'N $1')

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

  it('are several in one row, or over several, said with all that is expected', () => {
    const two = changed({ [at(6, 14)]: 4, [at(8, 14)]: 5 })
    const [found, ...more] = foundBy(oddOnes, two)
    expect(more).toEqual([])
    expect(found!.says).toMatch(
      /^Row 15 breaks the pattern that \d+ other places follow: columns 7 and 9 are D E, expected A B\. Lay these\.$/,
    )
    expect(found!.mends.map((m) => m.label)).toEqual(['Lay these 2 beads'])
    expect(cellsOf(mendedBy(two, found!))).toEqual(diamonds)
    const patch = changed({ [at(3, 14)]: 5, [at(4, 14)]: 5, [at(3, 15)]: 5, [at(4, 15)]: 5 })
    const [over, ...others] = foundBy(oddOnes, patch)
    expect(others).toEqual([])
    expect(told(over!)).toBe(
      '4 beads from row 15, column 4 to row 16, column 5 break the pattern round about (N places like it): ' +
        'E E E E where B A B A are expected. Lay these.',
    )
    expect(over!.spots.map(({ r, c }) => [r, c])).toEqual([
      [14, 3],
      [14, 4],
      [15, 3],
      [15, 4],
    ])
    expect(cellsOf(mendedBy(patch, over!))).toEqual(diamonds)
    const run = foundBy(oddOnes, changed({ [at(3, 14)]: 5, [at(4, 14)]: 5, [at(5, 14)]: 5, [at(6, 14)]: 5 }))
    expect(run[0]!.says).toContain('columns 4–7 are E E E E')
  })

  it('lie where they are kept, in start, repeat and end', () => {
    const cut = (from: number, to: number) => cellsFrom(COLUMNS, to - from, diamonds.slice(at(0, from), at(0, to)))
    const whole = (k: number) => {
      const sections = { start: cut(0, 10), repeat: cut(10, 30), end: cut(30, 40) }
      const name = (['start', 'repeat', 'end'] as const)[k]!
      const own = part({
        technique: 'loom',
        settings: {},
        times: 1,
        ...sections,
        [name]: withBead(sections[name], at(6, 4), 4),
      })
      return piece({ tray: [1, 2, 3, 4, 5].map((n) => bead(n)), parts: [own] })
    }
    for (const [k, section] of ['start', 'repeat', 'end'].entries()) {
      const found = foundBy(oddOnes, whole(k))
      expect(found.map((f) => f.spots)).toEqual([[{ section, r: 4, c: 6 }]])
      expect(found[0]!.says).toContain(`Row ${5 + [0, 10, 30][k]!}, `)
      expect(foundBy(oddOnes, mendedBy(whole(k), found[0]!))).toEqual([])
    }
  })

  describe('beside ends that are plain', () => {
    const WIDE = 29
    /** Chevrons six beads wide and five rows high. */
    const chevrons = Array.from({ length: WIDE * 20 }, (_, k) => {
      const [c, r] = [k % WIDE, Math.floor(k / WIDE)]
      const aside = Math.min(c % 6, 6 - (c % 6))
      return aside === r % 5 || aside === (r % 5) - 1 ? 1 : 3
    })
    const ended = (end: Readonly<Record<number, number>> = {}, rows = 6): Piece => {
      const plain = (n: number) => Array<number>(rows * WIDE).fill(n)
      const sections = {
        start: cellsFrom(WIDE, rows, plain(1)),
        repeat: cellsFrom(WIDE, 20, chevrons),
        end: cellsFrom(
          WIDE,
          rows,
          plain(2).map((n, k) => end[k] ?? n),
        ),
      }
      const own = part({ technique: 'square', settings: {}, times: 1, ...sections })
      return piece({ tray: [1, 2, 3, 4, 5].map((n) => bead(n)), parts: [own] })
    }

    it('are none for the pattern not going on there', () => {
      for (const rows of [2, 6, 7, 10]) expect(foundBy(oddOnes, ended({}, rows))).toEqual([])
    })
    it('are none where an end has a pattern of its own', () => {
      const own = Object.fromEntries(Array.from({ length: 8 * WIDE }, (_, k) => [k, 2 + ((k % WIDE) % 2)]))
      expect(foundBy(oddOnes, ended(own, 8))).toEqual([])
    })
    it('are the bead that makes one of its rows plain', () => {
      const k = 3 * WIDE + 14
      expect(foundBy(oddOnes, ended({ [k]: 3 })).map(({ spots }) => spots)).toEqual([
        [{ section: 'end', r: 3, c: 14 }],
      ])
    })
  })

  it('are none at the seam of a rope whose sequence does not close round it; a strand that is late is one', () => {
    const strands = (list: readonly number[], late: number) =>
      Array.from({ length: 6 * list.length * 16 }, (_, k) => {
        const [s, r] = [k % 16, Math.floor(k / 16)]
        return list[(r + s + (s === late ? 1 : 0)) % list.length]!
      })
    expect(foundBy(oddOnes, band(strands([1, 1, 1, 1, 2, 3], -1), 'braid-16', 16))).toEqual([])
    const found = foundBy(oddOnes, band(strands([1, 2, 2, 3], 5), 'braid-16', 16))
    expect(found.map(({ spots }) => [...new Set(spots.map(({ c }) => c))])).toEqual([[5]])
  })

  it('are no rows where two periods turn on two rows, as those of the ends do', () => {
    const cut = (from: number, to: number) => cellsFrom(COLUMNS, to - from, diamonds.slice(at(0, from), at(0, to)))
    for (const times of [1, 3]) {
      const own = part({
        technique: 'loom',
        settings: {},
        times,
        start: cut(0, 10),
        repeat: cut(10, 30),
        end: cut(30, 40),
      })
      expect(foundBy(oddOnes, piece({ tray: [1, 2, 3, 4, 5].map((n) => bead(n)), parts: [own] }))).toEqual([])
    }
  })

  it('are missing or doubled inside the repeat of a piece with ends, and named by rows of the whole', () => {
    const plain = Array<number>(2 * COLUMNS).fill(5)
    const ends = { start: cellsFrom(COLUMNS, 2, plain), end: cellsFrom(COLUMNS, 2, plain) }
    const with_ = (flat: readonly number[]) => {
      const p = band(flat)
      return { ...p, parts: [{ ...p.parts[0]!, ...ends }] }
    }
    const short = with_([...diamonds.slice(0, at(0, 17)), ...diamonds.slice(at(0, 18))])
    const [missing] = foundBy(oddOnes, short)
    expect(told(missing!)).toBe(
      'Between row 19 and row 20 a row seems to be missing: N rows round it follow the pattern at one row less. ' +
        'Put it in.',
    )
    expect(missing!.mends.map((m) => m.label)).toEqual(['Put the row in'])
    expect(cellsOf(mendedBy(short, missing!))).toEqual(diamonds)
    const long = with_([...diamonds.slice(0, at(0, 24)), ...diamonds.slice(at(0, 23))])
    const [doubled] = foundBy(oddOnes, long)
    expect(told(doubled!).replaceAll(/row 2\d/g, 'row 2N')).toBe(
      'Between row 2N and row 2N there seems to be one row too many: N rows round it follow the pattern at one ' +
        'row more. Take it out.',
    )
    expect(doubled!.mends.map((m) => m.label)).toEqual(['Take one row out'])
    expect(cellsOf(mendedBy(long, doubled!))).toEqual(diamonds)
  })

  it('are read once for as long as nothing changes, and again where the stitch does', () => {
    const wrong = changed({ [at(6, 14)]: 4 })
    expect(foundBy(oddOnes, wrong)).toEqual(foundBy(oddOnes, wrong))
    const [own] = wrong.parts
    const as = (more: Partial<typeof own>) =>
      foundBy(oddOnes, { ...wrong, parts: [{ ...own!, ...more } as typeof own & object] })
    expect(as({ technique: 'braid-cord' })).toEqual([])
    expect(as({}).length).toBe(1)
    expect(as({ repeat: cellsFrom(COLUMNS, 1, diamonds.slice(0, COLUMNS)) })).toEqual([])
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
