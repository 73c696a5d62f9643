import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, part, piece, rows } from '../../tests/fixture/piece'
import { valueOf } from '../problem'
import { insertColumnsStep, insertRowsStep, removeRowsStep } from './edit'
import { followBox, followed, followPlace } from './follow'
import { columnsOf, numberAt, rowsOf, SECTIONS } from './piece'
import { applyStep } from './step'

const apply = (p: Parameters<typeof applyStep>[0], step: Parameters<typeof applyStep>[1]) =>
  valueOf(applyStep(p, step))

describe('what refers to rows and columns', () => {
  it('moves along: the bead under a place is the same after rows or columns are put in', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.nat(),
        fc.nat(),
        fc.nat(),
        fc.integer({ min: 1, max: 3 }),
        fc.boolean(),
        (p, x, y, at, count, across) => {
          const one = p.parts[0]!
          if (rowsOf(one) === 0) return
          const section = SECTIONS[at % 3]!
          const step = across
            ? insertColumnsStep(one, at % (columnsOf(one) + 1), 2 * count, 2)
            : insertRowsStep(one, section, at % (one[section].rows + 1), count, 2)
          const next = apply(p, step).parts[0]!
          const place = { c: x % columnsOf(one), r: y % rowsOf(one) }
          const to = followPlace(one, next, step, place)!
          if (one.technique === 'right-angle') return
          expect(numberAt(next, to.c, to.r)).toBe(numberAt(one, place.c, place.r))
        },
      ),
    )
  })
  it('is let go when it is taken out, and boxes grow and move', () => {
    const p = piece({
      parts: [
        part({
          technique: 'loom',
          settings: {},
          start: rows('AAA', 'BBB'),
          repeat: rows('AAA', 'CCC'),
          end: rows('AAA'),
          times: 2,
        }),
      ],
    })
    const one = p.parts[0]!
    const out = removeRowsStep(one, 'repeat', 0, 1)
    const after = apply(p, out).parts[0]!
    expect([2, 3, 4, 5, 6].map((r) => followPlace(one, after, out, { c: 0, r })?.r ?? null)).toEqual([
      null,
      2,
      null,
      3,
      4,
    ])
    const wide = insertColumnsStep(one, 1, 2, 1)
    expect(followBox(one, apply(p, wide).parts[0]!, wide, { c: 0, r: 1, columns: 2, rows: 2 })).toEqual({
      c: 0,
      r: 1,
      columns: 4,
      rows: 2,
    })
    expect(followBox(one, after, out, { c: 0, r: 1, columns: 2, rows: 2 })).toBeNull()
    expect(
      followed(
        p,
        'band',
        [wide, insertRowsStep(apply(p, wide).parts[0]!, 'start', 0, 3, 1)],
        apply,
        { c: 2, r: 0 },
        followPlace,
      ),
    ).toEqual({ c: 4, r: 3 })
    expect(followed(p, 'none', [wide], apply, { c: 2, r: 0 }, followPlace)).toBeNull()
  })
})
