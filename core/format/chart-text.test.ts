import fc from 'fast-check'
import { parse } from 'csv-parse/sync'
import { describe, expect, it } from 'vitest'
import { ANY_IDS, anyPiece, anyPieceOf, part, piece, rows } from '../../tests/fixture/piece'
import { columnsOf, numberAt, rowsOf, voidsOf, wholePart, type Part } from '../piece/piece'
import { replaceGridSteps } from '../piece/recast'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { gridCsv, readGridCsv } from './grid-csv'
import { readWordChart, wordChart } from './word-chart'

const anyWorked = anyPieceOf(ANY_IDS).filter((p) => rowsOf(p.parts[0]!) > 0)

/** Where beads lie, and which. */
const beadsIn = (one: Part): string[] =>
  Array.from({ length: rowsOf(one) }, (_, r) => r).flatMap((r) =>
    Array.from({ length: columnsOf(one) }, (_, c) => `${c} ${r} ${numberAt(one, c, r)}`).filter(
      (s) => !s.endsWith(' 0'),
    ),
  )

describe('the word chart', () => {
  it('comes back as the same grid, in every stitch', () => {
    fc.assert(
      fc.property(anyWorked, (p) => {
        const one = p.parts[0]!
        const read = valueOf(readWordChart(wordChart(p, one), p.tray))
        expect([read.technique, read.settings, read.columns, read.rows]).toEqual([
          one.technique,
          one.settings,
          columnsOf(one),
          rowsOf(one),
        ])
        const voids = new Set(voidsOf(one))
        expect(read.numbers).toEqual([...wholePart(one)].map((n, key) => (voids.has(key) ? 0 : n)))
        expect(read.plan).toEqual(one.plan)
        const { steps, id } = replaceGridSteps(p, one, read, read.technique, read.settings, read.plan)
        const next = valueOf(applySteps(p, steps)).parts.find((q) => q.id === id)!
        // A line of its own length that holds no bead is in no words: it comes back without a place.
        expect(beadsIn(next)).toEqual(beadsIn(one))
      }),
      { numRuns: 200 },
    )
  })
  it('reads as a person would write it, with totals and running totals', () => {
    const p = piece({
      name: 'Small',
      parts: [part({ start: rows('AABC'), repeat: rows('ABCA'), end: rows('CC.A'), times: 1 })],
    })
    expect(wordChart(p, p.parts[0]!).split('\n').slice(0, 22)).toEqual([
      'Weben word chart',
      'Piece: Small',
      'Part: Band',
      'Stitch: Flat peyote, even count (peyote)',
      'How worked: start left, numbering first-two',
      'Grid: 4 across, 3 bead rows, 6 rows as counted',
      '',
      'Beads',
      expect.stringMatching(/^A {2}Bead 1, matte, #\w{6}, cylinder 11\/0$/) as string,
      expect.stringMatching(/^B /) as string,
      expect.stringMatching(/^C /) as string,
      '',
      'Rows',
      'Rows 1–2 ← 1C 1B 2A (4; 4)',
      'Row 3 → 1A 1C (2; 6)',
      'Row 4 ← 1A 1B (2; 8)',
      'Row 5 → 1C 1– (1; 9) · decrease 1 at the end',
      'Row 6 ← 1A 1C (2; 11)',
      '',
      'In all 11 beads',
      '',
    ])
  })
  const p = piece({ parts: [part({ start: rows('AABC'), repeat: rows('ABCA'), end: rows('CCCA'), times: 1 })] })
  const text = wordChart(p, p.parts[0]!)
  it.each([
    ['nothing', 'chart-format', 'first line'],
    [text.replace('(peyote)', '(knitting)'), 'chart-stitch', 'Stitch'],
    [text.replace('4 across', '5 across'), 'columns-odd', '4 or 6'],
    [text.replace('4 across', 'x across'), 'chart-grid', 'Grid'],
    [text.replace('numbering first-two', 'numbering backwards'), 'chart-settings', 'How worked'],
    [text.replace('1A 1C (2; 6)', '1A 1Q (2; 6)'), 'chart-line', 'Line 15: “1Q”'],
    [text.replace('1A 1C (2; 6)', '1A (1; 6)'), 'chart-line', 'has 2 places'],
    [text.replace('1A 1C (2; 6)', '1A 1C 1C (3; 6)'), 'chart-line', 'hold more'],
    [text.replace('1A 1C (2; 6)', '1A 1C (5; 6)'), 'chart-line', '2 beads where it says 5'],
    [text.replace('Row 3 →', 'Third'), 'chart-line', 'write a row'],
    [text.replace(/Row 6.*\n/, ''), 'chart-line', 'A row is missing'],
    [text.replace(/In all.*\n/, ''), 'chart-short', 'cut off'],
    [text.replace('In all', 'Row 7 → 1A 1A (2)\nIn all'), 'chart-line', 'no row that begins with 7'],
    [text.replace('In all', 'Row 3 → 1A 1C (2)\nIn all'), 'chart-line', 'out of order'],
  ])('that is wrong is refused with what to do (%#)', (wrong, code, words) => {
    const read = readWordChart(wrong, p.tray)
    expect(read.ok ? '' : read.problems[0]!.code).toBe(code)
    expect(read.ok ? '' : read.problems[0]!.says).toContain(words)
  })
})

describe('the grid as CSV', () => {
  it('comes back as the same grid, and another parser reads the same letters', () => {
    fc.assert(
      fc.property(
        anyPiece.filter((p) => rowsOf(p.parts[0]!) > 0 && columnsOf(p.parts[0]!) > 1),
        (p) => {
          const one = p.parts[0]!
          const text = gridCsv(p, one)
          const read = valueOf(readGridCsv(text, p.tray))
          expect([read.columns, read.rows, read.numbers]).toEqual([columnsOf(one), rowsOf(one), [...wholePart(one)]])
          const other = parse(text) as string[][]
          expect(
            other.map((l) => l.map((f) => (f === '' ? 0 : p.tray.find((b) => b.letter === f)!.number))).flat(),
          ).toEqual(read.numbers)
        },
      ),
    )
  })
  it('of other programs is read: semicolons, tabs, quotes, a byte order mark', () => {
    const { tray } = piece()
    for (const text of ['\uFEFFA;B;;C\r\nB;B;B;B\r\n', 'A\tB\t\tC\nB\tB\tB\tB', '"A","b",–,"C"\n"B",B,B,B'])
      expect(valueOf(readGridCsv(text, tray))).toEqual({ columns: 4, rows: 2, numbers: [1, 2, 0, 3, 2, 2, 2, 2] })
  })
  it('obeys the limits of the document, each with a sentence', () => {
    const { tray } = piece()
    const says = (text: string) => {
      const read = readGridCsv(text, tray)
      return read.ok ? '' : read.problems[0]!.says
    }
    expect(says(Array<string>(501).fill('A').join(','))).toContain('500 beads across; this file has 501')
    expect(says(Array<string>(20_001).fill('A').join('\n'))).toContain('20000 bead rows; this file has 20001')
    expect(says(Array<string>(20_000).fill(Array<string>(201).fill('').join(',')).join('\n'))).toContain(
      '4000000 beads',
    )
    expect(readGridCsv(Array<string>(500).fill('A').join(','), tray).ok).toBe(true)
  })
  it.each([
    ['', 'grid-empty'],
    ['A,B\nA', 'grid-ragged'],
    ['A,Q', 'grid-letter'],
  ])('that is wrong is refused with words (%j)', (text, code) => {
    const read = readGridCsv(text, piece().tray)
    expect(read.ok ? '' : read.problems[0]!.code).toBe(code)
  })
})
