import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cellsFrom, flatten, type Cells } from '#core/grid/cells'
import type { GridPart } from '#core/piece/piece'
import { oddOnesOf } from '#core/proof/odd/odd'
import { FAMILY_NAMES } from '../planted/designs'
import { alarms, chanceBlend, designOf, isNamed, picture, planted, read } from '../planted/score'

/** Families whose patterns are the same from either side. */
const family = fc.constantFrom(...FAMILY_NAMES)
const seed = fc.integer({ min: 1, max: 5000 })

const withCells = (part: GridPart, flat: number[]): GridPart => ({
  ...part,
  repeat: cellsFrom(part.repeat.columns, flat.length / part.repeat.columns, flat),
})

describe('odd ones in a pattern', () => {
  it('find nearly all that was planted in a fixed set, and name its place', () => {
    let [hits, of, false_] = [0, 0, 0]
    for (const name of FAMILY_NAMES)
      for (let s = 1; s <= 4; s++) {
        const p = planted(designOf(name, s), s)
        const found = read(p.part)
        of += p.mistakes.length
        hits += p.mistakes.filter((m) => isNamed(p.part, m, found)).length
        false_ += alarms(p, found)
      }
    expect(of).toBeGreaterThan(100)
    expect(hits / of).toBeGreaterThanOrEqual(0.9)
    expect(false_).toBeLessThanOrEqual(3)
  })

  it('find nothing in the same designs as they are drawn, in blends by chance and in pictures', () => {
    for (let s = 1; s <= 4; s++)
      for (const part of [...FAMILY_NAMES.map((name) => designOf(name, s).part), chanceBlend(s), picture(s)])
        expect([part.technique, read(part).beads.filter(({ sure }) => sure), read(part).slip]).toEqual([
          ...[part.technique, [], null],
        ])
  })

  it('hang on no colour: other beads in the same places give the same', () => {
    fc.assert(
      fc.property(family, seed, (name, s) => {
        const { part } = planted(designOf(name, s), s)
        const otherwise = (cells: Cells) =>
          cellsFrom(
            cells.columns,
            cells.rows,
            [...flatten(cells)].map((n) => (n === 0 ? 0 : 40 - n)),
          )
        const { start, repeat, end } = part as GridPart
        const other = { ...part, start: otherwise(start), repeat: otherwise(repeat), end: otherwise(end) }
        const places = (p: typeof part) => read(p).beads.map(({ cells }) => cells.toSorted((a, b) => a - b))
        expect(places(other)).toEqual(places(part))
        expect(read(other).slip?.row).toBe(read(part).slip?.row)
      }),
      { numRuns: 15 },
    )
  })

  it('name nothing more where what they expect is laid', () => {
    fc.assert(
      fc.property(family, seed, (name, s) => {
        const { part } = planted(designOf(name, s), s)
        const { beads, slip } = read(part)
        if (slip || part.start.rows > 0) return
        const flat = [...flatten(part.repeat as Cells)]
        for (const one of beads) if (!one.pair) one.cells.forEach((k, i) => (flat[k] = one.expected[i]!))
        const again = oddOnesOf(withCells(part as GridPart, flat)).beads.flatMap(({ cells }) => cells)
        const mended = new Set(beads.filter(({ pair }) => !pair).flatMap(({ cells }) => cells))
        expect(again.filter((k) => mended.has(k))).toEqual([])
      }),
      { numRuns: 25 },
    )
  })
})
