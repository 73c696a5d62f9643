import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { part, rows } from '../../tests/fixture/piece'
import { linesPart } from '../../tests/fixture/proof'
import { emptyCells, type Cells } from '../grid/cells'
import { latticeOf } from '../piece/drawing'
import { columnsOf, partRow, rowsOf, type Part } from '../piece/piece'
import { beadCentre } from '../technique/lattice'
import { touches } from './touching'

const laid = (technique: string, repeat: Cells, times = 1): Part =>
  part({
    technique,
    settings: {},
    times,
    repeat,
    start: emptyCells(repeat.columns, 0),
    end: emptyCells(repeat.columns, 0),
  })
const told = (p: Part) => touches(p).map(({ a, b, count, at }) => `${a}${b} ${count} at ${at.c},${at.r}`)

describe('beads that lie beside each other', () => {
  it('are counted once for each place, by row and by column', () => {
    expect(told(laid('loom', rows('AB', 'BA')))).toEqual(['12 4 at 0,0'])
    expect(told(laid('loom', rows('ABC')))).toEqual(['12 1 at 0,0', '23 1 at 1,0'])
    expect(told(laid('loom', rows('A.B')))).toEqual([])
    expect(told(laid('loom', rows('AAA', 'AAB')))).toEqual(['12 2 at 2,0'])
  })
  it('are those across the seam of a tube, and of the next copy of a repeat', () => {
    expect(told(laid('brick-tube', rows('AAAB')))).toEqual(['12 2 at 2,0'])
    expect(told(laid('brick', rows('AAAB')))).toEqual(['12 1 at 2,0'])
    expect(told(laid('loom', rows('A', 'B'), 2))).toEqual(['12 2 at 0,0'])
    expect(told(laid('loom', rows('A', 'B'), 1))).toEqual(['12 1 at 0,0'])
  })
  it('are those that follow each other in lines of their own', () => {
    expect(told(linesPart('fringe', [[1, 2, 1], [3], [2, 3]]))).toEqual(['12 2 at 1,0', '23 1 at 1,2'])
  })
  it('are as near as beads come to each other in the lattice, counted by another way', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('brick', 'loom', 'square', 'peyote'),
        fc.array(fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 4, maxLength: 4 }), {
          minLength: 2,
          maxLength: 5,
        }),
        (technique, lines) => {
          const p = laid(technique, rows(...lines.map((l) => l.map((n) => '.ABC'[n]).join(''))))
          const lattice = latticeOf(p)
          const beads = Array.from({ length: rowsOf(p) * columnsOf(p) }, (_, k) => {
            const [c, r] = [k % columnsOf(p), Math.floor(k / columnsOf(p))]
            return { ...beadCentre(lattice, c, r), number: partRow(p, r)[c]! }
          })
          // Beads touch where they are no further apart than a row and a column, and not both.
          const reach = (dx: number, dy: number) =>
            Math.abs(dx) / lattice.pitchX + Math.abs(dy) / lattice.pitchY <=
            (technique === 'brick' || technique === 'peyote' ? 1.51 : 1.01)
          const counts = new Map<string, number>()
          beads.forEach((one, i) =>
            beads.slice(i + 1).forEach((two) => {
              if (one.number === 0 || two.number === 0 || one.number === two.number) return
              if (!reach(one.x - two.x, one.y - two.y)) return
              const key = [one.number, two.number].toSorted().join('')
              counts.set(key, (counts.get(key) ?? 0) + 1)
            }),
          )
          expect(new Map(touches(p).map(({ a, b, count }) => [`${a}${b}`, count]))).toEqual(counts)
        },
      ),
    )
  })
})
