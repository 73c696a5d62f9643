import { describe, expect, it } from 'vitest'
import { raggedFrom } from '../../grid/lines'
import { piece } from '../../../tests/fixture/piece'
import { foundBy, linesPart, mendedBy, of } from '../../../tests/fixture/proof'
import { pairParts, strandHalves } from './halves'

const fringe = (lengths: readonly number[], plan = { alike: 'free' }) =>
  piece({
    parts: [
      linesPart(
        'fringe',
        lengths.map((n) => of(n)),
        { plan },
      ),
    ],
  })

describe('strands from both sides', () => {
  it('are found where one pair differs among those that are alike', () => {
    const [found, ...more] = foundBy(strandHalves, fringe([4, 6, 8, 10, 12, 10, 8, 7, 4]))
    expect(more).toEqual([])
    expect(found!.says).toContain('Strand 2 and 8 should be alike')
    expect(found!.says).toContain('6 and 7 beads, 1 bead apart')
    expect(found!.spots.map(({ r }) => r)).toEqual([1, 7])
  })
  it('are left alone where they are alike, where most differ, and where the technique keeps them alike', () => {
    expect(foundBy(strandHalves, fringe([4, 6, 8, 10, 12, 10, 8, 6, 4]))).toEqual([])
    expect(foundBy(strandHalves, fringe([4, 6, 8, 10, 12, 14, 16, 18, 20]))).toEqual([])
    expect(foundBy(strandHalves, fringe([4, 6, 8, 10, 12, 10, 8, 7, 4], { alike: 'mirror' }))).toEqual([])
  })
})

describe('parts that hang left and right', () => {
  const hang = (id: string, hole: number, line: readonly number[]) =>
    linesPart('fringe', [line, of(5), of(5), of(5)], {
      ...{ id, name: id === 'l' ? 'Left' : 'Right' },
      on: { part: 'bar', at: 'end', by: 'start', holes: [hole], link: { kind: 'ring', mm: 4 } },
    })
  const bar = linesPart('finding', [], { id: 'bar', name: 'Bar', times: 0, settings: { kind: 'holes', holes: 5 } })
  const pair = (right: readonly number[], hole = 4) =>
    piece({ parts: [bar, hang('l', 2, of(5)), hang('r', hole, right)] })
  it('are found where one list differs, and made alike either way', () => {
    const wrong = pair([1, 1, 2, 1, 1])
    const [found] = foundBy(pairParts, wrong)
    expect(found!.says).toContain('Left and Right hang opposite each other and differ in strand 1')
    expect(found!.mends.map((m) => m.label)).toEqual(['Make Right like Left', 'Make Left like Right'])
    expect(foundBy(pairParts, mendedBy(wrong, found!))).toEqual([])
    expect(foundBy(pairParts, mendedBy(wrong, found!, 1))).toEqual([])
  })
  it('are left alone where they are alike, quite another thing, or do not hang opposite each other', () => {
    const one = (id: string, hole: number, line: readonly number[]) => {
      const whole = hang(id, hole, line)
      return { ...whole, repeat: raggedFrom([line]) }
    }
    expect(foundBy(pairParts, piece({ parts: [bar, one('l', 2, of(5)), one('r', 4, of(9, 2))] }))).toEqual([])
    expect(foundBy(pairParts, pair(of(5)))).toEqual([])
    const three = piece({ parts: [bar, hang('l', 1, of(5)), hang('m', 2, [1, 1, 2, 1, 1]), hang('r', 5, of(5))] })
    expect(foundBy(pairParts, three)).toEqual([])
  })
})
