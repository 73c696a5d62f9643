import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seriesBreaks } from './series'

const breaks = (v: readonly number[]) => seriesBreaks(v).map(({ at, expected }) => [at, expected])

describe('a series and its own rule', () => {
  it('names the term that breaks it and what it would be', () => {
    expect(breaks([7, 7, 8, 7, 7, 7])).toEqual([[2, 7]])
    expect(breaks([1, 3, 5, 8, 9, 11])).toEqual([[3, 7]])
    expect(breaks([2, 4, 6, 8, 10, 8, 6, 5, 2])).toEqual([[7, 4]])
    expect(breaks([2, 5, 2, 5, 2, 5, 3, 5, 2, 5])).toEqual([[6, 2]])
    expect(seriesBreaks([1, 3, 5, 8, 9, 11])[0]!.rule).toBe('the same step each time')
  })
  it('is silent where all follow, where nothing does, and where too little is there', () => {
    expect(breaks([5, 5, 5, 5, 5])).toEqual([])
    expect(breaks([3, 9, 4, 1, 8, 2, 7])).toEqual([])
    expect(breaks([4, 4, 5, 4])).toEqual([])
    // So far off that another thing is meant.
    expect(breaks([5, 5, 12, 5, 5, 5, 5])).toEqual([])
  })
  it('says nothing of what follows a rule, and finds one term that is off by one in a long one', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 30 }),
        fc.integer({ min: 0, max: 3 }),
        fc.integer({ min: 7, max: 15 }),
        fc.nat(),
        (first, step, count, where) => {
          const v = Array.from({ length: count }, (_, k) => first + step * k)
          expect(seriesBreaks(v)).toEqual([])
          const at = 1 + (where % (count - 2))
          // One that stands out in the very middle of equal ones is a middle.
          if (step === 0 && 2 * at === count - 1) return
          const off = v.map((x, k) => (k === at ? x + 1 : x))
          expect(breaks(off)).toContainEqual([at, v[at]])
        },
      ),
    )
  })
})
