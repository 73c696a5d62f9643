import { describe, expect, it } from 'vitest'
import { part, piece, rows } from '../../tests/fixture/piece'
import { linesPart, of } from '../../tests/fixture/proof'
import { emptyCells } from '../grid/cells'
import { keyOf } from '../grid/key'
import { markedLines, markedRows } from './marks'
import { contentOf, keptLines, keysOfSpots, lineSpot, placeOfSpot, signOf, spotAt } from './spots'
import { beadSays, counted, letterOf, listed } from './words'
import type { Finding, Spot } from './found'

const band = part({
  ...{ technique: 'loom', settings: {}, times: 3 },
  ...{ start: rows('ABCA'), repeat: rows('BBBB', 'CACA'), end: rows('AAAB', 'BAAA') },
})

describe('spots', () => {
  it('are kept once, and lie in the first copy of the repeat', () => {
    const kept = [0, 1, 2, 3, 6, 7, 8].map((r) => spotAt(band, { c: 2, r }))
    expect(kept.map(({ section, r }) => `${section} ${r}`)).toEqual([
      ...['start 0', 'repeat 0', 'repeat 1', 'repeat 0', 'repeat 1', 'end 0', 'end 1'],
    ])
    expect(placeOfSpot(band, { section: 'repeat', r: 1, c: 2 })).toEqual({ c: 2, r: 2 })
    expect(placeOfSpot(band, { section: 'end', r: 1, c: null })).toEqual({ c: 0, r: 8 })
    expect(lineSpot(band, 4)).toEqual({ section: 'repeat', r: 1, c: null })
  })
  it('of lines that are kept are each line once, without a repeat that is not worked', () => {
    const whole = (times: number) => keptLines({ ...band, times }).map((l) => `${l.section} ${l.r} ${l.whole}`)
    expect(whole(3)).toEqual(['start 0 0', 'repeat 0 1', 'repeat 1 2', 'end 0 7', 'end 1 8'])
    expect(whole(0)).toEqual(['start 0 0', 'end 0 1', 'end 1 2'])
  })
  it('have keys of their beads, of a whole line all', () => {
    const keys = (...spots: Spot[]) => keysOfSpots(band, spots)
    expect(keys({ section: 'repeat', r: 1, c: 3 })).toEqual([keyOf(4, 3, 2)])
    expect(keys({ section: 'end', r: 0, c: null })).toEqual([0, 1, 2, 3].map((c) => keyOf(4, c, 7)))
    const strands = linesPart('fringe', [of(2), of(5), of(3)])
    expect(keysOfSpots(strands, [lineSpot(strands, 2)])).toHaveLength(3)
  })
  it('hold what lies there, which changes when a bead does', () => {
    const content = (p: typeof band) =>
      contentOf(p, [
        { section: 'start', r: 0, c: 1 },
        { section: 'repeat', r: 1, c: null },
        { section: 'end', r: 9, c: 0 },
        { section: 'end', r: 0, c: 9 },
      ])
    expect(content(band)).toBe('1:2 *:3,1,3,1 0:- 9:-')
    expect(content({ ...band, repeat: rows('BBBB', 'CABA') })).not.toBe(content(band))
    expect(content({ ...band, repeat: rows('ABBB', 'CACA') })).toBe(content(band))
  })
  it('are signed by FNV-1a of 32 bits (its published test vectors, from memory)', () => {
    expect(['', 'a', 'foobar'].map(signOf)).toEqual(['811c9dc5', 'e40c292c', 'bf9cf968'])
    expect(signOf('b')).toHaveLength(8)
  })
})

describe('marks beside lines and rows', () => {
  const found = (says: string, ...spots: Spot[]): Finding => ({
    ...{ rule: 'x', group: 'odd', part: 'band', weight: 'note', why: '', sign: '', meant: null, mends: [] },
    ...{ says, spots },
  })
  it('stand in every copy of the repeat, each line once', () => {
    const one = found('one', { section: 'repeat', r: 1, c: 2 }, { section: 'repeat', r: 1, c: 3 })
    const end = found('end', { section: 'end', r: 0, c: null })
    expect(markedLines(band, [end, one])).toEqual([2, 4, 6, 7])
    expect(markedLines(band, [{ ...one, part: 'other' }, found('none')])).toEqual([])
    // What is no longer there is not marked.
    expect(markedLines(band, [found('gone', { section: 'end', r: 5, c: null })])).toEqual([])
  })
  it('name by working rows what is said first of each', () => {
    const [first, second] = [
      found('first', { section: 'start', r: 0, c: 1 }),
      found('second', { section: 'start', r: 0, c: 2 }),
    ]
    const on = (p: typeof band, ...all: Finding[]) =>
      [...markedRows(p, all)].map(([row, { says }]) => `${row} ${says}`)
    expect(on(band, first, second)).toEqual(['0 first'])
    expect(on(band, found('again', { section: 'repeat', r: 0, c: 0 }))).toEqual(['1 again', '3 again', '5 again'])
    expect(on(band, found('gone', { section: 'end', r: 5, c: null }))).toEqual([])
    // Of peyote a kept row is two that are worked, the first of all with the next of the second.
    const none = emptyCells(4, 0)
    const peyote = part({ start: none, repeat: rows('AAAA', 'AAAA', 'AAAA'), end: none, times: 1 })
    const rowsOf = [0, 1, 2, 3].map((c) => on(peyote, found('x', { section: 'repeat', r: 2, c }))[0])
    expect(new Set(rowsOf).size).toBe(2)
  })
})

describe('words of the proofreader', () => {
  it('list and count', () => {
    expect([[], [3], [3, 5], [3, 5, 7]].map((list) => listed(list))).toEqual(['', '3', '3 and 5', '3, 5 and 7'])
    expect(listed([1, 2, 3, 4, 5, 6])).toBe('1, 2, 3, 4, 5 and 6')
    expect(listed([1, 2, 3, 4, 5, 6, 7, 8])).toBe('1, 2, 3, 4, 5, 6 and 2 more')
    expect([counted(1, 'bead'), counted(0, 'bead'), counted(2, 'loss', 'losses')]).toEqual([
      '1 bead',
      '0 beads',
      '2 losses',
    ])
  })
  it('name beads by letter and name', () => {
    const p = piece()
    expect([0, 2, 9].map((n) => letterOf(p, n))).toEqual(['empty', 'B', '?'])
    expect([0, 2, 9].map((n) => beadSays(p, n))).toEqual(['empty', 'B Bead 2', '?'])
  })
})
