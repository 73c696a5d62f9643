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
  it('says which rule the others follow, the plainest that they do', () => {
    const rules = (v: readonly number[]) => [...new Set(seriesBreaks(v).map((b) => b.rule))]
    expect(rules([7, 7, 8, 7, 7, 7])).toEqual(['all the same'])
    expect(rules([2, 4, 6, 8, 10, 8, 6, 5, 2])).toEqual(['up to a turn and back by the same step'])
    expect(rules([2, 5, 2, 5, 2, 5, 3, 5, 2, 5])).toEqual(['comes again'])
    expect(rules([3, 9, 4, 12, 4, 9, 4].toSpliced(0, 0, 6, 14).concat([14, 6]))).toEqual(['the same from both sides'])
  })
  it('knows a turn on one term and on two, up and down, by steps to three', () => {
    expect(breaks([1, 4, 7, 10, 7, 5, 1])).toEqual([[5, 4]])
    expect(breaks([9, 7, 5, 3, 5, 8, 9])).toEqual([[5, 7]])
    expect(breaks([2, 4, 6, 8, 8, 6, 5, 2])).toEqual([[6, 4]])
    expect(breaks([9, 6, 3, 3, 7, 9])).toEqual([[4, 6]])
  })
  it('knows what comes again after two, three or four, where it did three times', () => {
    expect(breaks([2, 5, 9, 2, 5, 9, 2, 6, 9])).toEqual([[7, 5]])
    expect(breaks([1, 4, 8, 3, 1, 4, 8, 3, 1, 4, 7, 3])).toEqual([[10, 8]])
    expect(breaks([2, 5, 9, 2, 5, 9, 2, 6])).toEqual([])
  })
  it('finds one term off by one, either way, in what comes again (property)', () => {
    fc.assert(
      fc.property(
        fc.shuffledSubarray([2, 6, 10, 15], { minLength: 2 }),
        fc.integer({ min: 3, max: 5 }),
        fc.nat(),
        fc.constantFrom(1, -1),
        (cycle, times, where, by) => {
          const v = Array.from({ length: cycle.length * times }, (_, k) => cycle[k % cycle.length]!)
          const at = where % v.length
          expect(seriesBreaks(v)).toEqual([])
          expect(breaks(v.with(at, v[at]! + by))).toEqual([[at, v[at]]])
        },
      ),
    )
  })
  it('may be broken by one term of a short one, two of a long one, and three beads', () => {
    expect(breaks([7, 9, 7, 7, 8, 7, 7])).toEqual([])
    expect(breaks([7, 8, 7, 7, 7, 7, 7, 7, 9, 7, 7, 7])).toEqual([
      [1, 7],
      [8, 7],
    ])
    expect(breaks([7, 8, 7, 7, 7, 7, 7, 7, 9, 7, 7])).toEqual([])
    expect([breaks([5, 5, 8, 5, 5, 5, 5]), breaks([5, 5, 9, 5, 5, 5, 5])]).toEqual([[[2, 5]], []])
    expect([breaks([4, 4, 5, 4]), breaks([4, 4, 5, 4, 4, 4])]).toEqual([[], [[2, 4]]])
  })
})
