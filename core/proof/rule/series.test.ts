import { describe, expect, it } from 'vitest'
import { part, piece, rows } from '../../../tests/fixture/piece'
import { partRow } from '../../piece/piece'
import { foundBy, linesPart, mendedBy, of } from '../../../tests/fixture/proof'
import { edgeSeries, lineSeries } from './series'

describe('counts of lines that follow each other', () => {
  const strung = (lengths: readonly number[]) =>
    piece({
      parts: [
        linesPart(
          'rung-ladder',
          lengths.map((n) => of(n)),
        ),
      ],
    })
  it('are found where one breaks the step of the others', () => {
    const [found] = foundBy(lineSeries, strung([3, 5, 7, 10, 11, 13]))
    expect(found!.says).toMatch(/^\S+ 4 has 10 beads; the others are the same step each time, which would be 9\. /)
    expect(found!.says).toContain('Take 1 bead off.')
    expect(found!.spots).toEqual([{ section: 'repeat', r: 3, c: null }])
  })
  it('are mended from the middle, so that both ends stay', () => {
    const lines = [3, 5, 7, 10, 11, 13].map((n) => of(n))
    const of_ = (line: number[]) => piece({ parts: [linesPart('rung-ladder', lines.with(3, line))] })
    const long = of_([2, 1, 1, 1, 1, 1, 1, 1, 1, 3])
    const [more] = foundBy(lineSeries, long)
    expect(more!.mends.map((m) => m.label)).toEqual(['Make it 9 beads'])
    expect([...partRow(mendedBy(long, more!).parts[0]!, 3)]).toEqual([2, 1, 1, 1, 1, 1, 1, 1, 3])
    const short = of_([2, 1, 1, 1, 3, 1, 3])
    const [fewer] = foundBy(lineSeries, short)
    expect(fewer!.says).toMatch(/has 7 beads; .*which would be 9\. String 2 beads more\.$/)
    const line = [...partRow(mendedBy(short, fewer!).parts[0]!, 3)]
    expect([line.length, line[0], line.slice(-3)]).toEqual([9, 2, [3, 1, 3]])
    expect(foundBy(lineSeries, mendedBy(short, fewer!))).toEqual([])
  })
  it('are left to their technique, to pairs, and to what is full by its geometry', () => {
    const lengths = [4, 6, 8, 10, 12, 10, 8, 7, 4]
    const as = (technique: string, plan = {}) =>
      foundBy(
        lineSeries,
        piece({
          parts: [
            linesPart(
              technique,
              lengths.map((n) => of(n)),
              { plan },
            ),
          ],
        }),
      ).length
    expect(as('rung-ladder')).toBe(1)
    expect(as('fringe', { alike: 'free' })).toBe(0)
    expect(as('wire-frame')).toBe(0)
    expect(foundBy(lineSeries, piece())).toEqual([])
  })
  it('are read up to four hundred lines', () => {
    const of_ = (count: number) => strung(Array.from({ length: count }, (_, k) => (k === 7 ? 4 : 3)))
    expect([of_(400), of_(401)].map((p) => foundBy(lineSeries, p).length)).toEqual([1, 0])
  })
  it('are left alone where they keep it', () => {
    expect(foundBy(lineSeries, strung([3, 5, 7, 9, 11, 13]))).toEqual([])
  })
})

describe('the edge of a shaped piece', () => {
  const shaped = (...lines: string[]) =>
    piece({
      parts: [
        part({
          ...{ technique: 'brick', settings: {}, times: 1, repeat: rows(...lines) },
          ...{
            start: { columns: lines[0]!.length, rows: 0, blocks: [] },
            end: { columns: lines[0]!.length, rows: 0, blocks: [] },
          },
        }),
      ],
    })
  it('is found where a row begins too far in', () => {
    const found = foundBy(edgeSeries, shaped('AAAAAAAA', '.AAAAAAA', '..AAAAAA', '....AAAA', '....AAAA', '.....AAA'))
    expect(found.map((f) => f.says)[0]).toContain('begins 1 bead too far in')
    expect(found[0]!.spots).toEqual([{ section: 'repeat', r: 3, c: null }])
  })
  it('is mended by beads like its outermost, or by taking some off', () => {
    const step = ['AAAAAAAA', '.AAAAAAA', '..AAAAAA', '....BAAA', '....AAAA', '.....AAA']
    const mended = (lines: string[], r: number) => {
      const p = shaped(...lines)
      const [found] = foundBy(edgeSeries, p)
      const after = mendedBy(p, found!)
      expect(foundBy(edgeSeries, after)).toEqual([])
      return [found!.says, found!.mends[0]!.label, [...partRow(after.parts[0]!, r)].join('')]
    }
    const rule = 'the other rows are the same step each time.'
    expect(mended(step, 3)).toEqual([`Row 4 begins 1 bead too far in: ${rule}`, 'Lay 1 bead there', '00022111'])
    const far = step.with(3, '.BAAAAAA')
    expect(mended(far, 3)).toEqual([`Row 4 begins 2 beads too far out: ${rule}`, 'Take 2 beads off', '00011111'])
    const right = step.with(3, '..AAAAAA').map((line) => [...line].reverse().join(''))
    expect(mended(right, 3)).toEqual([`Row 4 ends 1 bead too far out: ${rule}`, 'Take 1 bead off', '11111000'])
    expect(mended(['AAAAAA', 'AAAAA.', 'AA.B..', 'AAA...', 'AA....', 'A.....'].with(2, 'AAB...'), 2)).toEqual([
      ...[`Row 3 ends 1 bead too far in: ${rule}`, 'Lay 1 bead there', '112200'],
    ])
  })
  it('is asked of what is worked once, is woven, and has three columns and no empty row', () => {
    const step = ['AAAAAAAA', '.AAAAAAA', '..AAAAAA', '....AAAA', '....AAAA', '.....AAA']
    const [one] = shaped(...step).parts
    const as = (more: object) => foundBy(edgeSeries, piece({ parts: [{ ...one!, ...more }] })).length
    expect([as({}), as({ times: 2 }), as({ technique: 'braid-8' })]).toEqual([1, 0, 0])
    expect(foundBy(edgeSeries, shaped(...step.with(2, '........')))).toEqual([])
    expect(foundBy(edgeSeries, shaped('AA', '.A', '.A', 'AA', '.A', '.A', '.A'))).toEqual([])
  })
  it('is left alone where it narrows evenly, or is straight', () => {
    expect(foundBy(edgeSeries, shaped('AAAAAA', '.AAAAA', '..AAAA', '...AAA', '....AA', '.....A'))).toEqual([])
    expect(foundBy(edgeSeries, shaped('AAAA', 'ABBA', 'AAAA', 'ABBA', 'AAAA', 'AAAA'))).toEqual([])
  })
})
