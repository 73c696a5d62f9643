import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { byChance, oddInLines } from './line-law'

const again = (cycle: readonly number[], times: number): number[] => Array.from({ length: times }, () => cycle).flat()
const mirrored = (half: readonly number[]): number[] => [...half, ...half.toReversed()]
const laid = (line: readonly number[], c: number, number: number): number[] => line.with(c, number)
/** A cycle of three to eight beads in which no colour stands for all but one of them. */
const anyCycle = fc
  .array(fc.integer({ min: 1, max: 4 }), { minLength: 3, maxLength: 8 })
  .filter((cycle) => new Set(cycle).size > 1)
const other = (number: number): number => (number % 4) + 1

describe('what a list follows', () => {
  it('a bead that breaks a cycle is named, with what is expected there', () => {
    const line = again([1, 1, 1, 4], 8)
    expect(oddInLines([laid(line, 13, 4)])).toEqual([
      expect.objectContaining({ law: 'along', step: 4, beads: [{ line: 0, c: 13, expected: 1 }] }),
    ])
    // Two of them are two findings; what is at an end is an end.
    expect(oddInLines([laid(laid(line, 13, 4), 23, 1)]).map(({ beads }) => beads[0]!.c)).toEqual([13, 23])
    expect(oddInLines([laid(line, 31, 9)])).toEqual([])
    expect(oddInLines([laid(line, 0, 9)])).toEqual([])
    expect(oddInLines([line])).toEqual([])
  })
  it('a cycle that breaks off, or has another middle, is none of it', () => {
    expect(oddInLines([again([1, 2, 3], 9).slice(0, 25)])).toEqual([])
    expect(oddInLines([mirrored([...again([1, 1, 1, 4], 7), 1])])).toEqual([])
    expect(oddInLines([[...again([1, 2], 8), 4, ...again([2, 1], 8)]])).toEqual([])
  })
  it('of a list that reads the same from both ends both beads are named: nobody knows which is right', () => {
    const line = mirrored([1, 2, 3, 3, 1, 4, 2, 2, 1, 3, 4, 1])
    const [found, ...more] = oddInLines([laid(line, 5, 1)])
    expect(more).toEqual([])
    expect(found).toMatchObject({ law: 'mirror', step: 0, witnesses: 11 })
    expect(found!.beads).toEqual([
      { line: 0, c: 5, expected: 4 },
      { line: 0, c: 18, expected: 1 },
    ])
  })
  it('so are those of a list whose halves are alike, as both sides of a wound row', () => {
    const half = [1, 2, 3, 3, 1, 4, 2, 2, 1, 3, 4, 1]
    const [found] = oddInLines([laid([...half, ...half], 7, 4)])
    expect(found).toMatchObject({
      law: 'halves',
      beads: [
        { c: 7, expected: 2 },
        { c: 19, expected: 4 },
      ],
    })
  })
  it('one bead of another colour is an accent, and so is what comes in several lines', () => {
    expect(oddInLines([laid(again([1], 40), 17, 2)])).toEqual([])
    const line = laid(again([1, 1, 2], 8), 10, 3)
    expect(oddInLines([line])).toHaveLength(1)
    expect(oddInLines([line, line])).toEqual([])
    expect(oddInLines([line, line.map((number) => number + 3)])).toEqual([])
    expect(oddInLines([line, laid(again([1, 1, 2], 8), 13, 3)])).toHaveLength(2)
    // Of short lists nothing is known.
    expect(oddInLines([[1, 2, 1, 2, 1, 1, 1, 2]])).toEqual([])
  })
  it('lines that come again: the one that differs is named, unless it begins, ends or is the middle of them', () => {
    const lines = again([1, 2, 3, 4], 4).map((number) => [1, 1, number, number, 1])
    const odd = lines.with(6, [1, 1, 3, 1, 1])
    expect(oddInLines(odd)).toEqual([
      { law: 'across', step: 4, witnesses: 3, beads: [{ line: 6, c: 3, expected: 3 }] },
    ])
    expect(oddInLines(lines)).toEqual([])
    const alike = Array.from({ length: 9 }, () => [1, 2, 2, 1])
    const another = [1, 3, 2, 1]
    expect(oddInLines(alike.with(2, another))).toEqual([
      { law: 'across', step: 1, witnesses: 8, beads: [{ line: 2, c: 1, expected: 2 }] },
    ])
    for (const r of [0, 4, 8]) expect(oddInLines(alike.with(r, another))).toEqual([])
    expect(oddInLines(alike.with(2, another).with(6, another))).toEqual([])
    // A line that is another altogether is a design, and of few lines nothing is known.
    expect(oddInLines(alike.with(2, [3, 3, 4, 1]))).toEqual([])
    expect(oddInLines(alike.slice(0, 5).with(1, another))).toEqual([])
  })

  it('chance is that of tossing for each pair (binomial distribution, by counting outcomes)', () => {
    expect(byChance(10, 0, 0.5)).toBeCloseTo(1 / 1024, 12)
    expect(byChance(10, 1, 0.5)).toBeCloseTo(11 / 1024, 12)
    expect(byChance(4, 2, 0.25)).toBeCloseTo((1 + 4 * 3 + 6 * 9) / 256, 12)
    expect(byChance(5, 5, 0.3)).toBeCloseTo(1, 12)
  })
  it('halves are of lists that have two, mirrors of all', () => {
    const half = [1, 2, 3, 3, 1, 4, 2, 2, 1, 3, 4, 1]
    expect(oddInLines([[...half, ...half.with(7, 4), 3]])).toEqual([])
    const [found] = oddInLines([[...half, 4, ...half.toReversed().with(4, 4)]])
    expect(found).toMatchObject({
      law: 'mirror',
      beads: [
        { c: 7, expected: 4 },
        { c: 17, expected: 2 },
      ],
    })
  })
  it('two pairs that differ are two findings; of three nothing is said', () => {
    const line = mirrored([1, 2, 3, 3, 1, 4, 2, 2, 1, 3, 4, 1])
    const two = laid(laid(line, 3, 4), 15, 4)
    expect(oddInLines([two]).map(({ beads }) => beads.map(({ c }) => c))).toEqual([
      [3, 20],
      [8, 15],
    ])
    expect(oddInLines([laid(two, 6, 1)])).toEqual([])
  })
  it('a law that names the bead is asked before one that names two, and none where one holds throughout', () => {
    const line = again([1, 1, 2, 1, 1], 8)
    const [c, fellow] = [6, 33]
    expect(oddInLines([laid(laid(line, c, 3), fellow, 4)]).map(({ law, beads }) => [law, beads[0]!.c])).toEqual([
      ['along', c],
      ['along', fellow],
    ])
    expect(oddInLines([laid(laid(line, c, 3), fellow, 3)])).toEqual([])
  })
  it('a law is believed by how many were tried, on how many lines', () => {
    // Of eighteen beads in two colours one is off: by chance in one of a thousand.
    const line = laid(again([1, 2], 9), 7, 1)
    expect(oddInLines([line])).toHaveLength(1)
    expect(oddInLines([line, [1], [1, 2], [1, 2, 1], [2, 2, 1, 1]])).toEqual([])
    // Two pairings are tried, not as many as there are periods.
    const pairs = mirrored([1, 2, 2, 1, 1, 1, 2, 1, 2, 2, 2, 1, 1, 2])
    expect(oddInLines([laid(pairs, 4, 2)])).toHaveLength(1)
    // Lines that take turns: with one off, fourteen of them may do so by chance, and twenty, but not twenty-four.
    const turns = (lines: number) => Array.from({ length: lines }, (_, r) => [1, r === 6 ? 2 : 1 + (r % 2)])
    expect([14, 20, 24].map((lines) => oddInLines(turns(lines)).length)).toEqual([0, 0, 1])
  })
  it('lines are compared where nearly all are as long as each other', () => {
    const alike = Array.from({ length: 10 }, () => [1, 2, 2, 1])
    const odd = alike.with(2, [1, 3, 2, 1])
    const besides = (lines: number) => Array.from({ length: lines }, () => [2, 2, 2])
    const bead = { line: 2, c: 1, expected: 2 }
    expect(oddInLines([...odd, ...besides(2)]).map(({ beads }) => beads)).toEqual([[bead]])
    expect(oddInLines([...odd, ...besides(3)])).toEqual([])
    expect(oddInLines(odd.slice(0, 6))).toHaveLength(1)
    // Two lines that are alike in being different are meant.
    expect(oddInLines(odd.with(4, [1, 3, 2, 1]))).toEqual([])
  })
  it('half of a line may be wrong, and what is said of a line across is not said along it again', () => {
    const alike = Array.from({ length: 9 }, () => [1, 2, 3, 4, 1, 2])
    expect(oddInLines(alike.with(2, [1, 3, 4, 1, 1, 2]))[0]!.beads).toHaveLength(3)
    expect(oddInLines(alike.with(2, [1, 3, 4, 1, 2, 2]))).toEqual([])
    const cycles = Array.from({ length: 9 }, () => again([1, 1, 2], 8))
    expect(oddInLines(cycles.with(2, laid(cycles[0]!, 10, 3))).map(({ law }) => law)).toEqual(['across'])
  })

  it('finds a mistake in nineteen of twenty cycles and mirrors, where it lies (property)', () => {
    let [found, all] = [0, 0]
    fc.assert(
      fc.property(
        anyCycle,
        fc.integer({ min: 5, max: 9 }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (one, times, at) => {
          const line = again(one, times)
          const c = Math.floor(at * line.length)
          all++
          if (oddInLines([laid(line, c, other(line[c]!))]).some(({ beads }) => beads.some((bead) => bead.c === c)))
            found++
        },
      ),
      { numRuns: 300 },
    )
    const halves = fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 12, maxLength: 30 })
    fc.assert(
      fc.property(halves, fc.double({ min: 0.1, max: 0.9, noNaN: true }), (half, at) => {
        const line = mirrored(half)
        const c = Math.floor(at * line.length)
        all++
        if (oddInLines([laid(line, c, other(line[c]!))]).some(({ beads }) => beads.some((bead) => bead.c === c)))
          found++
      }),
      { numRuns: 300 },
    )
    expect(found / all).toBeGreaterThan(0.95)
  })
  it('says nothing of lists by chance, or of what follows its law (property)', () => {
    let alarms = 0
    const number = fc.integer({ min: 1, max: 3 })
    fc.assert(
      fc.property(
        fc.array(fc.array(number, { minLength: 3, maxLength: 50 }), { minLength: 1, maxLength: 12 }),
        (lines) => {
          if (oddInLines(lines).length > 0) alarms++
        },
      ),
      { numRuns: 400 },
    )
    expect(alarms).toBeLessThanOrEqual(2)
    fc.assert(
      fc.property(anyCycle, fc.integer({ min: 2, max: 12 }), fc.integer({ min: 0, max: 7 }), (one, times, over) => {
        const line = again(one, times).slice(0, one.length * times - Math.min(over, one.length))
        expect(oddInLines([line])).toEqual([])
        expect(oddInLines([mirrored(line)])).toEqual([])
        expect(oddInLines(again(one, times).map((bead) => [1, bead, bead]))).toEqual([])
      }),
      { numRuns: 200 },
    )
  })
})
