import { describe, expect, it } from 'vitest'
import { raggedFrom } from '../../grid/lines'
import { partRow } from '../../piece/piece'
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
  it('are made alike either way, and say so where only their beads differ', () => {
    const p = fringe([4, 6, 8, 10, 12, 10, 8, 7, 4])
    const [found] = foundBy(strandHalves, p)
    expect(found!.mends.map((m) => m.label)).toEqual(['Make strand 8 like 2', 'Make strand 2 like 8'])
    const lengths = (q: typeof p) => Array.from({ length: 9 }, (_, r) => partRow(q.parts[0]!, r).length)
    expect(lengths(mendedBy(p, found!))).toEqual([4, 6, 8, 10, 12, 10, 8, 6, 4])
    expect(lengths(mendedBy(p, found!, 1))).toEqual([4, 7, 8, 10, 12, 10, 8, 7, 4])
    const lines = [4, 6, 8, 10, 10, 8, 6, 4].map((n) => of(n))
    const other = lines.with(6, [...of(5), 2])
    const says = foundBy(strandHalves, piece({ parts: [linesPart('fringe', other, { plan: { alike: 'free' } })] }))
    expect(says.map((f) => f.says)).toEqual([
      'Strand 2 and 7 should be alike, as all others are from both sides: their beads differ. ' +
        'Make one like the other.',
    ])
  })
  it('are asked of four pairs and more, of which three in ten may differ', () => {
    expect(foundBy(strandHalves, fringe([4, 6, 8, 9, 5, 4]))).toEqual([])
    expect(foundBy(strandHalves, fringe([4, 6, 8, 9, 9, 8, 5, 4]))).toHaveLength(1)
    expect(foundBy(strandHalves, fringe([4, 6, 8, 9, 9, 7, 5, 4]))).toEqual([])
    const ten = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10]
    const with_ = (...off: number[]) =>
      foundBy(strandHalves, fringe([...ten, ...ten.map((n, k) => (off.includes(k) ? n + 1 : n)).toReversed()]))
    expect([with_(1, 4, 7).length, with_(1, 3, 5, 7).length]).toEqual([3, 0])
    // A rung has no other side.
    const rungs = linesPart(
      'rung-ladder',
      [4, 6, 8, 9, 9, 8, 5, 4].map((n) => of(n)),
    )
    expect(foundBy(strandHalves, piece({ parts: [rungs] }))).toEqual([])
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
  it('are found where one has a bead more, or is set otherwise', () => {
    const longer = pair(of(6))
    const [found] = foundBy(pairParts, longer)
    expect([found!.says.includes('differ in strand 1'), found!.mends]).toEqual([true, []])
    const p = pair(of(5))
    const turned = {
      ...p,
      parts: p.parts.map((q) => (q.id === 'r' ? { ...q, settings: { ...q.settings, turning: 3 } } : q)),
    }
    const [set] = foundBy(pairParts, turned)
    expect(set!.says).toBe('Left and Right hang opposite each other, and are set differently: make them alike.')
    expect(set!.mends.map((m) => m.label)).toEqual(['Set Right like Left'])
    expect(foundBy(pairParts, mendedBy(turned, set!))).toEqual([])
    const both = {
      ...turned,
      parts: turned.parts.map((q) =>
        q.id === 'r' ? { ...q, repeat: raggedFrom([[1, 1, 2, 1, 1], of(5), of(5), of(5)]) } : q,
      ),
    }
    expect(foundBy(pairParts, both).map((f) => [f.says.includes('differ in strand 1'), f.mends])).toEqual([[true, []]])
  })
  it('name the lines that differ, up to three in ten of them', () => {
    const ten = (id: string, hole: number, off: readonly number[]) => ({
      ...hang(id, hole, of(5)),
      repeat: raggedFrom(Array.from({ length: 10 }, (_, k) => (off.includes(k) ? [1, 2, 1, 1, 1] : of(5)))),
    })
    const says = (...off: number[]) =>
      foundBy(pairParts, piece({ parts: [bar, ten('l', 2, []), ten('r', 4, off)] })).map((f) => f.says)
    expect(says(0, 4, 9)).toEqual([
      'Left and Right hang opposite each other and differ in strands 1, 5 and 10: make one like the other.',
    ])
    expect(says(0, 2, 4, 9)).toEqual([])
  })
  it('are no pair on other things, from other places, or of other techniques', () => {
    const other = (more: object) =>
      foundBy(
        pairParts,
        piece({ parts: [bar, { ...bar, id: 'bar 2' }, hang('l', 2, of(5)), { ...hang('r', 4, of(6)), ...more }] }),
      )
    expect(other({})).toHaveLength(1)
    const on = hang('r', 4, of(6)).on!
    expect(other({ on: { ...on, part: 'bar 2' } })).toEqual([])
    expect(other({ on: { ...on, at: 'start' } })).toEqual([])
    expect(other({ on: { ...on, holes: [4, 5] } })).toEqual([])
    expect(other({ technique: 'dangles' })).toEqual([])
    // In the middle hangs what has no partner.
    const mid = piece({ parts: [bar, hang('l', 1, of(5)), hang('m', 3, of(7)), hang('r', 5, of(5))] })
    expect(foundBy(pairParts, mid)).toEqual([])
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
