import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { bead, part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, linesPart, mendedBy } from '../../../tests/fixture/proof'
import { emptyCells } from '../../grid/cells'
import { partRow } from '../../piece/piece'
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
  it('say how wide they are and what to do, and are laid with the bead on their left', () => {
    const p = sewn('square', 'AAAAAA', 'AB..AA', 'AAAAAA')
    const [found] = foundBy(gapCrossed, p)
    expect(found!.says).toBe(
      'Row 2: an opening of up to 2 places between beads; 2.6 mm of thread would lie bare across it. Work one side ' +
        'of it to its end, go back through the work, and then work the other; or lay beads there.',
    )
    expect([found!.weight, found!.mends[0]!.label]).toEqual(['looks', 'Lay beads across it'])
    expect([...partRow(mendedBy(p, found!).parts[0]!, 1)]).toEqual([1, 2, 2, 2, 1, 1])
  })
  it('are one where rows of them lie under each other, and several where they do not', () => {
    const names = (...lines: string[]) =>
      foundBy(gapCrossed, sewn('square', ...lines)).map(
        (f) => f.says.split(' of up to ')[0]!.split(':')[0]! + f.says.slice(f.says.indexOf('up to ') + 6).slice(0, 1),
      )
    expect(names('A..AAAAA', 'AAAAA..A')).toEqual(['Row 12', 'Row 22'])
    expect(names('A..AAAAA', 'AAA..AAA')).toEqual(['Row 12', 'Row 22'])
    expect(names('A..AAAAA', 'AA...AAA', 'A...AAAA')).toEqual(['Rows 1 to 33'])
    expect(names('A..AAAAA', 'AAAAAAAA', 'A..AAAAA')).toEqual(['Row 12', 'Row 32'])
    // One that parts into two goes on in the first.
    expect(names('A......A', 'A..AA..A')).toEqual(['Rows 1 to 26', 'Row 22'])
    expect(foundBy(gapCrossed, sewn('brick-tube', 'A..AAA', 'A..AAA'))).toEqual([])
    expect(foundBy(gapCrossed, sewn('loom', 'A..AAA', 'AAAAAA'))).toHaveLength(1)
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
  it('is said for each run, with what to do', () => {
    const found = foundBy(notReached, sewn('square', 'AAA......', 'AAA.A.AAA', 'AAAAAAAAA'))
    expect(found.map((f) => f.says)).toEqual(
      ['bead 5', 'beads 7 to 9'].map(
        (beads) =>
          `Row 2: ${beads} touch nothing that is worked before them, so there is nothing to sew them to. Begin that ` +
          'part by itself and join it where it meets the rest, or turn the ' +
          'piece so that the whole side is worked first.',
      ),
    )
    expect(found.map((f) => f.spots.map((s) => s.c))).toEqual([[4], [6, 7, 8]])
    expect(found[0]!.weight).toBe('looks')
    // Empty rows first: what is worked first is the first that holds a bead.
    expect(foundBy(notReached, sewn('square', '......', 'AAAAAA', 'AAAAAA'))).toEqual([])
    // After a row that is empty nothing is left to sew to.
    expect(foundBy(notReached, sewn('square', 'AAAA', '....', 'AAAA')).map((f) => f.spots.length)).toEqual([4])
  })
  it('is asked round a tube across its seam', () => {
    const spots = (technique: string, ...lines: string[]) =>
      foundBy(notReached, sewn(technique, ...lines)).map((f) => f.spots.map((s) => `${s.r} ${s.c}`).join(','))
    // The last bead of the second round leans on the first of the one below.
    expect(spots('brick-tube', 'AA....', '.....A')).toEqual([])
    expect(spots('brick-tube', 'AA....', '...A..')).toEqual(['1 3'])
    expect(spots('brick', 'AA....', '.....A')).toEqual(['1 5'])
    expect(spots('brick-tube', 'AA..AA', 'AAAAAA')).toEqual([])
    expect(spots('brick-tube', 'AA.A.A', 'AAAAAA')).toEqual(['0 3'])
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
  it('are told strand by strand, and only one that can hang is moved', () => {
    const says = (...lines: number[][]) => foundBy(dropsBothWays, fringe(...lines))[0]!
    expect(says([2, 1, 1]).says).toBe(
      '1 drop in strand 1 has beads on both sides: a drop there stands out to the front or to the back as ' +
        'it pleases. ' +
        'Let it hang at the end of its strand, or turn each to the front before you go on.',
    )
    // Two in a strand, and one whose end hangs already, stay where they are.
    expect(says([2, 1, 2, 1]).mends).toEqual([])
    expect(says([2, 1, 2]).mends).toEqual([])
    const p = fringe([2, 1, 1], [2, 1, 2, 1])
    const [found] = foundBy(dropsBothWays, p)
    expect(found!.mends.map((m) => m.label)).toEqual(['Let it hang at the end'])
    const strands = (q: typeof p) => [0, 1].map((r) => [...partRow(q.parts[0]!, r)])
    expect(strands(mendedBy(p, found!))).toEqual([
      [1, 1, 2],
      [2, 1, 2, 1],
    ])
  })
  it('of a band are pushed to the front, and round a tube they stand out as they should', () => {
    const band = (technique: string, ...lines: string[]) => ({ ...sewn(technique, ...lines), tray: TRAY })
    const [found] = foundBy(dropsBothWays, band('square', 'AAAAA', 'ABBAA', 'AAABA', 'AAAAA'))
    expect(found!.says).toBe(
      '3 drops in rows 2 and 3 have beads on both sides: a drop there stands out to the front or to the back as it ' +
        'pleases. Lay it along an edge, or push each to the front before the next row holds it.',
    )
    expect([found!.weight, found!.mends]).toEqual(['looks', []])
    expect(found!.spots.map(({ r, c }) => [r, c])).toEqual([
      [1, 1],
      [1, 2],
      [2, 3],
    ])
    // Not beside each other: it is only worth knowing.
    expect(foundBy(dropsBothWays, band('square', 'AAAAA', 'ABABA', 'AAAAA')).map((f) => f.weight)).toEqual(['note'])
    expect(foundBy(dropsBothWays, band('peyote-tube', 'AAAA', 'ABAA', 'AAAA'))).toEqual([])
    expect(foundBy(dropsBothWays, { ...band('square', 'AAA', 'ABA', 'AAA'), tray: [bead(1), bead(2)] })).toEqual([])
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
  it('are measured against the thickest of what is bound, and may have a comma', () => {
    const p = rope('End cap 1,5 mm', 'END CAPS 2.5 mm', 'Two end caps, 1 mm')
    const thick = { ...p.parts[0]!, id: 'thick', name: 'Thick', technique: 'braid-16', repeat: rows('A'.repeat(16)) }
    const none = { start: emptyCells(16, 0), end: emptyCells(16, 0) }
    const both = { ...p, parts: [p.parts[0]!, { ...thick, ...none }] }
    const wide = (q: typeof p) => foundBy(capNarrow, q).map((f) => [f.part, f.says.split(':')[0]])
    expect(wide(p)).toEqual([['band', 'End cap 1,5 mm']])
    expect(wide(both)).toEqual([
      ['thick', 'End cap 1,5 mm'],
      ['thick', 'END CAPS 2.5 mm'],
    ])
    const says = foundBy(capNarrow, p)[0]!
    expect(says.says).toMatch(
      /8 cords bound together come to 2\.2 mm and do not go in\. Take end caps of 2\.5 mm inside\.$/,
    )
    expect(mendedBy(p, says).cost.findings.map((f) => f.name)).toEqual([
      ...['End cap 2.5 mm', 'END CAPS 2.5 mm', 'Two end caps, 1 mm'],
    ])
    expect(foundBy(capNarrow, { ...p, parts: [part()] })).toEqual([])
  })
  it('are left alone where they are wide enough, say no width, or are none', () => {
    expect(foundBy(capNarrow, rope('End caps, 9 mm inside', 'End cap of horn', 'Ring 1 mm'))).toEqual([])
    const flat = piece()
    const cost = { ...flat.cost, findings: [{ name: 'End caps, 1 mm inside', count: 2, price: 0 }] }
    expect(foundBy(capNarrow, { ...flat, cost })).toEqual([])
  })
})
