import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { bead, part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, linesPart, mendedBy } from '../../../tests/fixture/proof'
import { emptyCells } from '../../grid/cells'
import { capNarrow } from './caps'
import { dropsBothWays } from './drops'
import { gapCrossed, notReached } from './reach'

const sewn = (technique: string, ...lines: string[]) => {
  const columns = lines[0]!.length
  const none = { start: emptyCells(columns, 0), end: emptyCells(columns, 0) }
  return piece({ parts: [part({ technique, settings: {}, times: 1, ...none, repeat: rows(...lines) })] })
}

describe('openings', () => {
  it('are found where thread would lie bare, one for each, with the widest of its rows', () => {
    const p = sewn('square', 'AAAAAAAA', 'AAA..AAA', 'AA...AAA', 'AAAAAAAA', 'A..A..AA')
    const found = foundBy(gapCrossed, p)
    // Cylinders of 1.3 mm, three of them: 3.9 mm.
    expect(found.map((f) => f.says.split(';')[0])).toEqual([
      'Rows 2 to 3: an opening of up to 3 places between beads',
      'Row 5: an opening of up to 2 places between beads',
      'Row 5: an opening of up to 2 places between beads',
    ])
    expect(found[0]!.says).toContain('3.9 mm of thread')
    expect(found[0]!.spots.map(({ r, c }) => [r, c])).toEqual([
      [1, 2],
      [1, 5],
      [2, 1],
      [2, 5],
    ])
    const mended = mendedBy(p, found[0]!)
    expect(foundBy(gapCrossed, mended).map((f) => f.says)).toEqual(found.slice(1).map((f) => f.says))
  })
  it('are left alone where one bead is left out, at the edges, and where nothing is', () => {
    expect(foundBy(gapCrossed, sewn('square', 'AAAAAA', 'AA.AAA', '..AAA.'))).toEqual([])
    expect(foundBy(gapCrossed, piece())).toEqual([])
    // Places that a stitch has not are no openings.
    expect(foundBy(gapCrossed, sewn('loom', 'AAAAAA', 'AAAAAA'))).toEqual([])
  })
})

describe('work that hangs on nothing', () => {
  it('is found where a second leg begins later, or beside the first', () => {
    const [one, ...more] = foundBy(notReached, sewn('square', 'AA..AA', 'AA..AA', 'AAAAAA'))
    expect(more).toEqual([])
    expect(one!.says).toContain('Row 1: beads 5 to 6 touch nothing that is worked before them')
    expect(one!.spots.map(({ c }) => c)).toEqual([4, 5])
    const late = foundBy(notReached, sewn('brick', 'AAA.....', 'AAA....A', 'AAAAAAAA'))
    expect(late.map((f) => f.says.split(' touch')[0])).toEqual(['Row 2: bead 8'])
  })
  it('is left alone where rows grow by what they touch, on warps, and round a tube', () => {
    expect(foundBy(notReached, sewn('square', 'AA....', 'AAAA..', 'AAAAAA'))).toEqual([])
    expect(foundBy(notReached, sewn('loom', 'AA..AA', 'AAAAAA'))).toEqual([])
    expect(foundBy(notReached, sewn('peyote-tube', 'A..A', 'AAAA'))).toEqual([])
    expect(foundBy(notReached, piece())).toEqual([])
  })
  it('never in work without empty places', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('square', 'brick', 'herringbone', 'peyote', 'brick-tube', 'peyote-tube'),
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 1, max: 6 }),
        (technique, half, high) => {
          const p = sewn(technique, ...Array.from({ length: high }, () => 'A'.repeat(2 * half)))
          expect([...foundBy(notReached, p), ...foundBy(gapCrossed, p)]).toEqual([])
        },
      ),
    )
  })
})

describe('drops', () => {
  const TRAY = [bead(1, { spec: 'round-11' }), bead(2, { spec: 'drop-3-4-mm' }), bead(3, { spec: 'round-11' })]
  const fringe = (...lines: number[][]) =>
    piece({ tray: TRAY, parts: [linesPart('fringe', lines, { plan: { alike: 'free' } })] })
  it('inside a strand are found, and hang at its end afterwards', () => {
    const p = fringe([1, 1, 2], [1, 2, 1], [2, 1, 3])
    const [found, ...more] = foundBy(dropsBothWays, p)
    expect(more).toEqual([])
    expect(found!.weight).toBe('note')
    expect(found!.says).toContain('2 drops in strands 2 and 3 have beads on both sides')
    expect(found!.spots.map(({ r, c }) => [r, c])).toEqual([
      [1, 1],
      [2, 0],
    ])
    expect(foundBy(dropsBothWays, mendedBy(p, found!))).toEqual([])
  })
  it('look wrong where two follow each other, and are well at the ends and along the edges', () => {
    expect(foundBy(dropsBothWays, fringe([2, 2, 1])).map((f) => f.weight)).toEqual(['looks'])
    expect(foundBy(dropsBothWays, fringe([1, 1, 2], [1, 2]))).toEqual([])
    const band = (...lines: string[]) => ({ ...sewn('square', ...lines), tray: TRAY })
    expect(foundBy(dropsBothWays, band('BBB', 'BAB', 'BBB'))).toEqual([])
    expect(foundBy(dropsBothWays, band('AAA', 'ABA', 'AAA'))[0]!.says).toContain('1 drop in row 2 has beads')
  })
  it('of a band are well beside an opening', () => {
    expect(foundBy(dropsBothWays, { ...sewn('square', 'AAAA', 'AB.A', 'AAAA'), tray: TRAY })).toEqual([])
  })
})

describe('end caps', () => {
  const rope = (...names: string[]) => {
    const p = piece({
      parts: [
        part({
          technique: 'braid-8',
          settings: {},
          repeat: rows('AAAAAAAA'),
          start: emptyCells(8, 0),
          end: emptyCells(8, 0),
          times: 40,
        }),
      ],
    })
    return { ...p, cost: { ...p.cost, findings: names.map((name) => ({ name, count: 2, price: 0 })) } }
  }
  it('that the bound end does not go into are found, and the right ones taken', () => {
    const p = rope('Charm', 'End caps, 1.5 mm inside')
    const [found, ...more] = foundBy(capNarrow, p)
    expect(more).toEqual([])
    expect(found).toMatchObject({ weight: 'stops', part: 'band' })
    expect(found!.says).toMatch(/^End caps, 1.5 mm inside: 8 cords bound together come to [\d.]+ mm/)
    const mended = mendedBy(p, found!)
    expect(mended.cost.findings[0]!.name).toBe('Charm')
    expect(foundBy(capNarrow, mended)).toEqual([])
  })
  it('are left alone where they are wide enough, say no width, or are none', () => {
    expect(foundBy(capNarrow, rope('End caps, 9 mm inside', 'End cap of horn', 'Ring 1 mm'))).toEqual([])
    const flat = piece()
    const cost = { ...flat.cost, findings: [{ name: 'End caps, 1 mm inside', count: 2, price: 0 }] }
    expect(foundBy(capNarrow, { ...flat, cost })).toEqual([])
  })
})
