import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, part, piece, rows } from '../../tests/fixture/piece'
import type { Part } from '../piece/piece'
import { requireTechnique } from '../technique/registry'
import { agendaOf, goneTo, placesDoneIn } from './agenda'
import { changedMade, shiftedMark } from './changed'

const ORDER = { copies: 1, copyOrder: 'in turn' as const }
const loom = (over: Partial<Part> = {}) =>
  piece({
    parts: [part({ technique: 'loom', settings: requireTechnique('loom').settings.parse({}), times: 5, ...over })],
  })
const at = (p: ReturnType<typeof loom>, index: number) => goneTo(agendaOf(p, ORDER), index)

describe('rows done of a part', () => {
  it('are those of its furthest copy', () => {
    const two = piece({ parts: [part({ id: 'top', times: 1 }), part({ id: 'drop', times: 1 })] })
    const done = (copyOrder: 'in turn' | 'side by side', index: number) => {
      const agenda = agendaOf(two, { copies: 2, copyOrder })
      return two.parts.map((p) => placesDoneIn(agenda, p, index).length)
    }
    // Seven rows a part.
    expect([0, 3, 9, 16].map((k) => done('in turn', k))).toEqual([
      [0, 0],
      [3, 0],
      [7, 2],
      [7, 7],
    ])
    expect([3, 4, 14, 17].map((k) => done('side by side', k))).toEqual([
      [2, 0],
      [2, 0],
      [7, 0],
      [7, 2],
    ])
  })
})

describe('a plan that changes while it is made', () => {
  it('asks nothing where only what is still to come changes, or nothing', () => {
    fc.assert(
      fc.property(anyPiece, fc.nat(50), (p, k) => {
        const mark = at(p, k % (agendaOf(p, ORDER).count + 1))
        expect(changedMade(p, p, ORDER, mark)).toEqual([])
      }),
    )
    const p = loom()
    expect(changedMade(p, loom({ times: 9 }), ORDER, at(p, 5))).toEqual([])
    expect(changedMade(p, loom({ end: rows('BBBB', 'CCCC') }), ORDER, at(p, 11))).toEqual([])
    expect(changedMade(p, loom({ start: rows('BBBB') }), ORDER, at(p, 0))).toEqual([])
  })
  it('names the made rows that differ now', () => {
    const p = loom()
    const [one] = changedMade(p, loom({ repeat: rows('ABBA', 'BACB') }), ORDER, at(p, 7))
    expect(one).toEqual({ part: 'band', name: 'Band', rows: [2, 4, 6], says: 'rows 3, 5, 7', shift: 0 })
    const [first] = changedMade(p, loom({ start: rows('CCCC') }), ORDER, at(p, 1))
    expect([first!.says, first!.shift]).toEqual(['row 1', 0])
    const [gone] = changedMade(p, loom({ times: 1, end: rows('ABBA') }), ORDER, at(p, 8))
    expect([gone!.says, gone!.rows]).toEqual(['rows that are gone', []])
    const [span] = changedMade(p, loom({ repeat: rows('CCCC', 'CCCC') }), ORDER, at(p, 5))
    expect(span!.says).toBe('rows 2–5')
  })
  it('sees a run that is longer, and one that was broken in two', () => {
    const p = loom({ start: rows('AABB') })
    for (const start of [rows('AAAB'), rows('ABBB'), rows('AABA'), rows('AABC')])
      expect(changedMade(p, loom({ start }), ORDER, at(p, 2)).map((c) => c.rows)).toEqual([[0]])
    // Six spans are named, and that there are more.
    const many = loom({ times: 12 })
    const [one] = changedMade(many, loom({ times: 12, repeat: rows('ABBA', 'BACB') }), ORDER, at(many, 20))
    expect(one!.says).toBe('rows 3, 5, 7, 9, 11, 13 …')
    const six = changedMade(many, loom({ times: 12, repeat: rows('ABBA', 'BACB') }), ORDER, at(many, 13))
    expect(six[0]!.says).toBe('rows 3, 5, 7, 9, 11, 13')
  })
  it('looks at each part by itself, and at none that is gone', () => {
    const two = piece({ parts: [part({ id: 'top', times: 1 }), part({ id: 'drop', times: 1 })] })
    const changed = { ...two, parts: [two.parts[0]!, { ...two.parts[1]!, start: rows('BBBB') }] }
    const end = goneTo(agendaOf(two, ORDER), 14)
    expect(changedMade(two, changed, ORDER, end).map((c) => c.part)).toEqual(['drop'])
    expect(changedMade(two, { ...two, parts: [two.parts[0]!] }, ORDER, end)).toEqual([])
    const [drop] = changedMade(two, changed, ORDER, end)
    expect(shiftedMark(two, { ...drop!, shift: 2 }, { task: 'drop/1/1', bite: 0 })).toEqual({
      task: 'drop/1/3',
      bite: 0,
    })
    // Behind the last row there is nothing to go to.
    const mark = { task: 'drop/1/5', bite: 0 }
    expect(shiftedMark(two, { ...drop!, shift: 2 }, mark)).toBe(mark)
  })
  it('calls no shift what differs besides, or where nothing of what was made is left', () => {
    const p = loom({ start: rows('AAAA', 'CAAC') })
    const other = loom({ start: rows('BBBB', 'BBBB', 'AAAA', 'CABC') })
    expect(changedMade(p, other, ORDER, at(p, 6))[0]!.shift).toBe(0)
    const gone = loom({ start: rows('CAAC'), times: 4 })
    expect(changedMade(p, gone, ORDER, at(p, 2))[0]!.shift).toBe(0)
  })
  it('knows rows that were put in before what is made, and moves the place on with it', () => {
    const p = loom({ start: rows('AAAA', 'CAAC') })
    const now = loom({ start: rows('BBBB', 'BBBB', 'AAAA', 'CAAC') })
    const mark = at(p, 6)
    const [one] = changedMade(p, now, ORDER, mark)
    expect(one!.shift).toBe(2)
    expect(shiftedMark(now, one!, mark)).toEqual({ task: 'band/1/8', bite: 0 })
    // Rows taken away from the beginning: what is left of what was made is the same.
    const fewer = loom({ start: rows('CAAC') })
    const [less] = changedMade(p, fewer, ORDER, mark)
    expect([less!.shift, shiftedMark(fewer, less!, mark).task]).toEqual([-1, 'band/1/5'])
    const elsewhere = { task: 'other/1/3', bite: 1 }
    expect(shiftedMark(now, one!, elsewhere)).toBe(elsewhere)
  })
})
