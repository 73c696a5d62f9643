import { describe, expect, it } from 'vitest'
import { part, piece, rows } from '../../tests/fixture/piece'
import { emptyCells } from '../grid/cells'
import { partFindings } from './finding'

const says = (technique: string, ...lines: string[]) => {
  const none = emptyCells(lines[0]!.length, 0)
  const own = part({ technique, settings: {}, times: 1, start: none, repeat: rows(...lines), end: none })
  return partFindings(own, piece()).map(({ code, weight, says: text }) => [code, weight, text])
}
const IN_TWO = 'the work would fall in two. Lay beads there, or take the'

describe('places left empty', () => {
  it('between beads stop the work, rows and columns', () => {
    expect(says('loom', 'AAA', '...', 'AAA', '...', '...', 'AAA')).toEqual([
      [
        ...['row-empty', 'stops'],
        `Nothing lies in rows 2, 4–5, with beads before and behind: ${IN_TWO} rows out. ` +
          'They are not counted as length.',
      ],
    ])
    expect(says('loom', 'AAA', '...', 'AAA')[0]![2]).toContain('Nothing lies in row 2, with')
    expect(says('loom', 'A.A..A', 'A.A..A')).toEqual([
      [
        ...['column-empty', 'stops'],
        `Nothing lies in columns 2, 4–5, with beads on both sides: ${IN_TWO} columns out. ` +
          'They are not counted as width.',
      ],
    ])
    expect(says('loom', 'A.A', 'A.A')[0]![2]).toContain('Nothing lies in column 2, with')
  })
  it('of peyote are counted as weavers do, two rows for each that is kept', () => {
    expect(says('peyote', 'AAAA', '....', 'AAAA')[0]![2]).toContain('Nothing lies in rows 3–4, with')
  })
  it('are four spans at most, and how many more there are', () => {
    const lines = Array.from({ length: 13 }, (_, r) => (r % 2 === 1 ? '...' : 'AAA'))
    expect(says('loom', ...lines)[0]![2]).toContain('Nothing lies in rows 2, 4, 6, 8 and 2 more, with')
  })
  it('at the edges are worth knowing: they are no size', () => {
    expect(says('loom', '....', '....', '.AA.', '....')).toEqual([
      [
        'edge-empty',
        'note',
        '2 empty rows at the start, 1 empty row at the end, 2 empty columns at the edges: not counted as size.',
      ],
    ])
    expect(says('loom', 'AA', 'AA')).toEqual([])
    expect(says('loom', '..', '..')).toEqual([])
  })
})
