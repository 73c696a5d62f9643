import { isCounted } from '../piece/nature'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireTechnique } from '../technique/registry'
import { anyPiece, anyPieceOf, part, piece, rows } from '../../tests/fixture/piece'
import { columnsOf, numberAt, rowsOf } from '../piece/piece'
import { beadCounts, sizeCounts, tallyPart, tallyPiece, tallySection, totalOf } from './tally'

import { allRowWords, rowWords, sheetLines, wordsLine, workingRowCount, type RowWords } from './words'

describe('the tally', () => {
  it('multiplies the repeat and equals a walk over every bead', () => {
    fc.assert(
      fc.property(anyPiece, (p) => {
        const walked = new Map<number, number>()
        for (const one of p.parts) {
          // crossings of plain cords are no beads
          if (!isCounted(one)) continue
          for (let r = 0; r < rowsOf(one); r++) {
            for (let c = 0; c < columnsOf(one); c++) {
              const number = numberAt(one, c, r)
              if (number) walked.set(number, (walked.get(number) ?? 0) + 1)
            }
          }
        }
        expect([...tallyPiece(p)].sort()).toEqual([...walked].sort())
      }),
    )
  })
  it('is what the words of all rows add up to', () => {
    fc.assert(
      fc.property(anyPiece, (p) => {
        const said = new Map<number, number>()
        let beads = 0
        for (const words of allRowWords(p.parts[0]!)) {
          beads += words.beads
          for (const run of words.runs) if (run.number) said.set(run.number, (said.get(run.number) ?? 0) + run.count)
        }
        expect([...said].sort()).toEqual([...tallyPart(p.parts[0]!)].sort())
        expect(beads).toBe(totalOf(tallyPart(p.parts[0]!)))
      }),
    )
  })
  it('counts a small piece as a person does', () => {
    const p = piece({
      parts: [part({ start: rows('AAAA'), repeat: rows('ABBA', 'B..B'), end: rows('CAAC'), times: 3 })],
    })
    expect(Object.fromEntries(tallyPiece(p))).toEqual({ 1: 4 + 3 * 2 + 2, 2: 3 * 4, 3: 2 })
    expect(totalOf(tallySection(p.parts[0]!, 'repeat'))).toBe(6)
    expect(beadCounts(p.tray, tallyPiece(p)).map((b) => b.count)).toEqual([12, 12, 2])
    expect(sizeCounts(p.tray, tallyPiece(p))).toEqual([
      { spec: 'cylinder-11', count: 26, grams: expect.closeTo(26 / 195, 9) as number },
    ])
  })
  it('counts shaped work: a brick triangle of n rows holds n (n + 1) / 2 beads', () => {
    for (const n of [1, 2, 5, 9, 16]) {
      // Every row is a bead shorter; half a bead comes in at each side.
      const lines = Array.from({ length: n }, (_, r) => {
        const left = Math.floor(r / 2)
        return Array.from({ length: n }, (_, c) => (c >= left && c < left + n - r ? 'A' : '.')).join('')
      })
      const one = part({
        technique: 'brick',
        settings: { start: 'left' },
        start: rows(...lines),
        repeat: rows('.'.repeat(n)),
        end: rows('.'.repeat(n)),
        times: 0,
      })
      expect(totalOf(tallyPart(one))).toBe((n * (n + 1)) / 2)
      expect([...allRowWords(one)].slice(0, n).map((w) => w.beads)).toEqual(Array.from({ length: n }, (_, r) => n - r))
    }
  })
  it('counts each row of even peyote as N / 2, the first string as N', () => {
    const p = part({ repeat: rows('AABBAABB', 'ABABABAB'), start: rows('AAAAAAAA'), end: rows('BBBBBBBB'), times: 5 })
    const counts = [...allRowWords(p)].map((w) => w.beads)
    expect(counts[0]).toBe(8)
    expect(counts.slice(1).every((n) => n === 4)).toBe(true)
    expect(counts).toHaveLength(2 * 12 - 1)
  })
})

/** A reader of its own: words back to runs, with nothing of the writer’s code. */
function readWords(line: string): { row: string; direction: string; runs: [number, string][]; total: number } {
  const [, row, direction, runs, total] = /^(?:Row|Round)s? ([\d–]+) ([→←]) (.*) \((\d+)\)(?: · .*)?$/.exec(line)!
  return {
    row: row!,
    direction: direction!,
    total: Number(total),
    runs: runs!
      .split(' ')
      .filter(Boolean)
      .map((t): [number, string] => [Number.parseInt(t), t.replace(/^\d+/, '')]),
  }
}

describe('the lines of a sheet', () => {
  it('written out again are all rows, in order', () => {
    let shortened = 0
    fc.assert(
      fc.property(anyPiece, (p) => {
        const one = p.parts[0]!
        const all = [...allRowWords(one)]
        const out: { from: number; to: number; text: string }[] = []
        const text = (words: RowWords) =>
          `${words.direction} ${words.runs.map((r) => `${r.count}x${r.number}`).join(' ')}`
        for (const line of sheetLines(p, one)) {
          if (line.kind === 'row') {
            out.push({ from: line.words.from, to: line.words.to, text: text(line.words) })
            continue
          }
          shortened++
          const copied = out.filter((o) => o.from >= line.asFrom && o.to <= line.asTo)
          const length = line.asTo - line.asFrom + 1
          for (let k = 0; k < line.times; k++)
            for (const o of copied)
              out.push({ from: o.from + length * (k + 1), to: o.to + length * (k + 1), text: o.text })
        }
        expect(out).toEqual(all.map((w) => ({ from: w.from, to: w.to, text: text(w) })))
      }),
      { numRuns: 200 },
    )
    expect(shortened).toBeGreaterThan(10)
  })
})

describe('words', () => {
  it('name rows, way and runs as picked up', () => {
    const p = piece({ parts: [part({ start: rows('AABC'), repeat: rows('ABCA'), end: rows('CCCA'), times: 1 })] })
    expect([...allRowWords(p.parts[0]!)].map((w) => wordsLine(w, p.tray))).toEqual([
      'Rows 1–2 ← 1C 1B 2A (4)',
      'Row 3 → 1A 1C (2)',
      'Row 4 ← 1A 1B (2)',
      'Row 5 → 2C (2)',
      'Row 6 ← 1A 1C (2)',
    ])
    const loomed = piece({
      parts: [
        part({
          technique: 'loom',
          settings: { start: 'right', warpMm: 0.2, doubleEdge: true, spareWarpMm: 200 },
          start: rows('AA.C'),
          repeat: rows('ABCA'),
          end: rows('CCCA'),
          times: 2,
        }),
      ],
    })
    expect([...allRowWords(loomed.parts[0]!)].map((w) => wordsLine(w, loomed.tray))).toEqual([
      'Row 1 ← 1C 1– 2A (3)',
      'Row 2 ← 1A 1C 1B 1A (4)',
      'Row 3 ← 1A 1C 1B 1A (4)',
      'Row 4 ← 1A 3C (4)',
    ])
  })
  it('name what widens and narrows at the edges, and what follows the last bead', () => {
    const shaped = piece({
      parts: [
        part({
          technique: 'brick',
          settings: { start: 'left' },
          start: rows('AAAA'),
          repeat: rows('AAA.', '.AA.', 'AAAA'),
          end: rows('....'),
          times: 1,
        }),
      ],
    })
    expect([...allRowWords(shaped.parts[0]!)].map((w) => wordsLine(w, shaped.tray))).toEqual([
      'Row 1 → 4A (4)',
      'Row 2 ← 1– 3A (3) · decrease 1 at the start',
      'Row 3 → 1– 2A 1– (2) · decrease 1 at the start',
      'Row 4 ← 4A (4) · increase 1 at the start · increase 1 at the end',
    ])
    const round = piece({
      parts: [
        part({
          technique: 'peyote-tube',
          settings: { start: 'left', numbering: 'first-two' },
          start: rows('ABAB'),
          repeat: rows('AAAA'),
          end: rows('ABAB'),
          times: 1,
        }),
      ],
    })
    expect([...allRowWords(round.parts[0]!)].map((w) => wordsLine(w, round.tray))).toEqual([
      'Rows 1–2 → 1A 1B 1A 1B (4) · join',
      'Row 3 → 2A (2) · step up',
      'Row 4 → 2A (2) · step up',
      'Row 5 → 2A (2) · step up',
      'Row 6 → 2B (2) · step up',
    ])
    // In peyote an edge column that ends early is measured against the row two before.
    const tapered = piece({
      parts: [part({ start: rows('AAAA', '.AAA'), repeat: rows('..A.'), end: rows('....'), times: 1 })],
    })
    expect([...allRowWords(tapered.parts[0]!)].slice(1, 5).map((w) => wordsLine(w, tapered.tray))).toEqual([
      'Row 3 → 1– 1A (1) · decrease 1 at the start',
      'Row 4 ← 2A (2)',
      'Row 5 → 1– 1A (1)',
    ])
  })
  it('lead a second reader, who knows only the craft, back to the grid', () => {
    // Where a person would lay the k-th bead of the i-th line, by the rules of each stitch alone.
    const PLACE: Record<string, (i: number, k: number, columns: number) => [number, number]> = {
      'loom': (i, k) => [k, i],
      'square': (i, k, n) => [i % 2 === 0 ? k : n - 1 - k, i],
      'brick': (i, k, n) => [i % 2 === 0 ? k : n - 1 - k, i],
      'herringbone': (i, k, n) => [i % 2 === 0 ? k : n - 1 - k, i],
      'peyote': (i, k, n) => (i === 0 ? [n - 1 - k, 0] : i % 2 === 1 ? [2 * k, (i + 1) / 2] : [n - 1 - 2 * k, i / 2]),
      'peyote-tube': (i, k, n) => (i === 0 ? [k, 0] : [(i - 1 + 2 * k) % n, Math.floor((i + 1) / 2)]),
    }
    fc.assert(
      fc.property(anyPieceOf(Object.keys(PLACE)), (p) => {
        const one = {
          ...p.parts[0]!,
          settings: requireTechnique(p.parts[0]!.technique).settings.parse({ start: 'left' }),
        }
        const columns = columnsOf(one)
        const grid = new Map<string, string>()
        for (const words of allRowWords(one)) {
          const { index: i } = words
          const beads = readWords(wordsLine(words, p.tray)).runs.flatMap(([n, letter]) =>
            Array<string>(n).fill(letter),
          )
          beads.forEach((letter, k) => grid.set(PLACE[one.technique]!(i, k, columns).join(), letter))
        }
        // Rows without a bead are not told.
        for (let r = 0; r < rowsOf(one); r++)
          for (let c = 0; c < columns; c++) expect(grid.get(`${c},${r}`) ?? '–').toBe('–ABC'[numberAt(one, c, r)])
      }),
    )
  })
  it('can be read back to the beads by another reader', () => {
    fc.assert(
      fc.property(anyPiece, (p) => {
        const one = p.parts[0]!
        for (let i = 0; i < workingRowCount(one); i++) {
          const words = rowWords(one, i)
          const read = readWords(wordsLine(words, p.tray))
          expect(read.total).toBe(words.beads)
          expect(read.runs.reduce((sum, [n, letter]) => sum + (letter === '–' ? 0 : n), 0)).toBe(read.total)
          expect(read.runs.map(([n, letter]) => `${n}${letter}`)).toEqual(
            words.runs.map((r) => `${r.count}${r.number === 0 ? '–' : 'ABC'[r.number - 1]}`),
          )
        }
      }),
    )
  })
})
