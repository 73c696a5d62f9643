import { describe, expect, it } from 'vitest'
import { part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, linesPart, of } from '../../../tests/fixture/proof'
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
  it('is left alone where it narrows evenly, or is straight', () => {
    expect(foundBy(edgeSeries, shaped('AAAAAA', '.AAAAA', '..AAAA', '...AAA', '....AA', '.....A'))).toEqual([])
    expect(foundBy(edgeSeries, shaped('AAAA', 'ABBA', 'AAAA', 'ABBA', 'AAAA', 'AAAA'))).toEqual([])
  })
})
