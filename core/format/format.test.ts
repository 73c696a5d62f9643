import { readFileSync } from 'node:fs'
import Ajv2020 from 'ajv/dist/2020.js'
import { parse } from 'csv-parse/sync'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { WORKSHOP } from '../../tests/fixture/workshop'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { pieceToBody, pieceToFile } from '../piece/codec'
import { rowsOf, columnsOf } from '../piece/piece'
import { tallyPiece, totalOf } from '../tally/tally'
import { chartStrips, chartSvg } from './chart-svg'
import { archiveJsonSchema, pieceJsonSchema, recipeJsonSchema } from './json-schema'
import { readPieceFile, writePieceFile } from './piece-file'
import { reportPiece } from './report'
import { csv, rowsCsv, tallyCsv } from './tally-csv'

const codeOf = (text: string) => {
  const result = readPieceFile(text)
  return result.ok ? 'good' : result.problems[0]!.code
}
const saysOf = (text: string) => {
  const result = readPieceFile(text)
  return result.ok ? '' : result.problems[0]!.says
}
const edited = (change: (file: ReturnType<typeof pieceToFile>) => unknown): string => {
  const file = structuredClone(pieceToFile(piece()))
  return JSON.stringify(change(file) ?? file)
}

describe('the piece file', () => {
  it('reads back what it wrote', () => {
    fc.assert(
      fc.property(anyPiece, (p) => {
        const read = readPieceFile(writePieceFile(p))
        expect(read.ok && pieceToBody(read.value)).toEqual(pieceToBody(p))
      }),
    )
  })
  it('is valid against its published schema, by a validator of its own (JSON Schema draft 2020-12)', () => {
    const validate = new Ajv2020({ strict: false }).compile(pieceJsonSchema())
    for (const p of WORKSHOP)
      expect(validate(JSON.parse(writePieceFile(p))), JSON.stringify(validate.errors)).toBe(true)
    expect(validate(JSON.parse(edited((f) => ({ ...f, extra: 1 }))))).toBe(false)
    expect(
      validate(
        JSON.parse(
          edited((f) => {
            f.piece.fit.bodyMm = 9000
          }),
        ),
      ),
    ).toBe(false)
  })
  it.each([
    ['piece-file', pieceJsonSchema],
    ['archive', archiveJsonSchema],
    ['recipe', recipeJsonSchema],
  ])('has the schema that docs/ shows of the %s', (name, schema) => {
    expect(JSON.parse(readFileSync(new URL(`../../docs/${name}.schema.json`, import.meta.url), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(schema())),
    )
  })
  it.each([
    ['{', 'file-not-json'],
    ['[]', 'file-format'],
    ['{"format":"other","version":1}', 'file-format'],
    [edited((f) => ({ ...f, version: 99 })), 'file-newer'],
    [edited((f) => ({ ...f, version: 0.5 })), 'file-version'],
    [edited((f) => ({ ...f, more: 1 })), 'file-extra'],
    [
      edited((f) => {
        f.piece.parts[0]!.repeat[0] = [3, 1]
      }),
      'row-length',
    ],
    [
      edited((f) => {
        f.piece.parts[0]!.repeat[0] = [4]
      }),
      'row-odd',
    ],
    [
      edited((f) => {
        f.piece.parts[0]!.repeat[0] = [4, 9]
      }),
      'stray-number',
    ],
    [
      edited((f) => {
        f.piece.tray[1]!.letter = 'A'
      }),
      'twice',
    ],
    [
      edited((f) => {
        f.piece.parts[0]!.columns = 3
        for (const s of ['start', 'repeat', 'end'] as const) f.piece.parts[0]![s] = [[3, 1]]
      }),
      'columns-odd',
    ],
    [
      edited((f) => {
        f.piece.parts[0]!.times = 2000
        f.piece.parts[0]!.repeat = Array.from({ length: 600 }, () => [4, 1])
      }),
      'cells-many',
    ],
  ])('%.60s… is refused as %s, with a sentence', (text, code) => {
    expect(codeOf(text)).toBe(code)
    expect(saysOf(text)).toMatch(/^[“\p{Lu}].*\.$/u)
  })
  it('names the row and the count that are wrong', () => {
    expect(
      saysOf(
        edited((f) => {
          f.piece.parts[0]!.repeat[1] = [5, 1]
        }),
      ),
    ).toBe('Row 2 of band/repeat holds 5 beads where 4 are needed. Correct its counts.')
  })
  it('never breaks on a damaged file: any cut or changed text is read or refused with words', () => {
    const text = writePieceFile(piece())
    fc.assert(
      fc.property(fc.nat(text.length - 1), fc.string({ maxLength: 4 }), fc.boolean(), (at, noise, cut) => {
        const result = readPieceFile(
          cut ? text.slice(0, at) : text.slice(0, at) + noise + text.slice(at + noise.length),
        )
        if (!result.ok) expect(result.problems[0]!.says.length).toBeGreaterThan(10)
      }),
    )
  })
})

describe('CSV (RFC 4180), read by an independent parser', () => {
  it('keeps any text', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string(), { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 5 }),
        (table) => {
          const width = table[0]!.length
          const even = table.map((row) => Array.from({ length: width }, (_, i) => row[i] ?? ''))
          const read = parse(csv(even), { relax_column_count: false, skip_empty_lines: false }) as string[][]
          expect(read).toEqual(even.map((row) => row.map((v) => (/^[=+\-@\t\r]/.test(v) ? `'${v}` : v))))
        },
      ),
    )
  })
  it('counts add up to the tally, and rows to the beads', () => {
    for (const p of WORKSHOP) {
      const counts = parse(tallyCsv(p), { columns: true }) as Record<string, string>[]
      expect(counts.reduce((sum, r) => sum + Number(r.count), 0)).toBe(totalOf(tallyPiece(p)))
      for (const r of counts)
        expect(Number(r.start) + Number(r['one repeat']) * Number(r.repeats) + Number(r.end)).toBe(Number(r.count))
      const words = parse(rowsCsv(p), { columns: true }) as Record<string, string>[]
      expect(words.reduce((sum, r) => sum + Number(r.beads), 0)).toBe(totalOf(tallyPiece(p)))
    }
  })
})

describe('the chart as SVG', () => {
  const p = piece({
    tray: [bead(1, { name: '<b>&"' }), bead(2), bead(3)],
    parts: [part({ start: rows('AAAA'), repeat: rows('AB.A'), end: rows('AAAA'), times: 2 })],
  })
  it('draws every cell once and is safe with any name', () => {
    const svg = chartSvg(p.parts[0]!, p.tray, { lie: 'level', scale: 2, ink: 'both', title: '<script>' })
    expect(svg.match(/<use /g)).toHaveLength(columnsOf(p.parts[0]!) * rowsOf(p.parts[0]!))
    expect(svg).not.toContain('<script')
    expect(svg).toContain('&lt;b&gt;&amp;&quot;')
  })
  it('has the size of the work at its scale, in mm', () => {
    const svg = chartSvg(p.parts[0]!, p.tray, { lie: 'upright', scale: 2, ink: 'glyphs', title: 'x' })
    // 4 beads of 1.3 across at 2 : 1 = 10.4; 4 rows and a half of 1.6 = 14.4; 6 mm of counts and 1 mm of edge
    expect(svg).toMatch(/width="17.4mm" height="21.4mm"/)
  })
  it('cuts strips that fit the paper and leave nothing out', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 50 }),
        fc.integer({ min: 0, max: 300 }),
        fc.integer({ min: 20, max: 190 }),
        (from, count, paper) => {
          const strips = chartStrips(p.parts[0]!, from, from + count, 2, paper)
          expect(strips.reduce((sum, [a, b]) => sum + b - a, 0)).toBe(count)
          for (const [a, b] of strips) expect(7 + (b - a + 0.5) * 3.2).toBeLessThanOrEqual(Math.max(paper, 12))
        },
      ),
    )
  })
})

describe('the report', () => {
  it('holds all answers as plain data', () => {
    const r = JSON.parse(JSON.stringify(reportPiece(piece()))) as ReturnType<typeof reportPiece>
    expect(r.tally.beads).toBe(4 + 3 * 8 + 4)
    expect(r.parts[0]!.tally.byRow[0]!.words).toBe('Rows 1–2 ← 4A (4)')
    expect(r.parts[0]!.tally.byRow.reduce((sum, row) => sum + row.beads, 0)).toBe(r.tally.beads)
    expect(r.parts[0]!.extent.lengthMm.nominal).toBeCloseTo(8.5 * 1.6, 9)
    expect(r.fit.finishedMm.nominal).toBeCloseTo(8.5 * 1.6 + 14 - Math.PI * 1.6, 9)
    expect(r.fit.reasons[0]).toBe('Inside wanted: wrist 170.0 mm + room 13.0 mm = 183.0 mm')
    expect(r.supplies.cut.map((c) => c.name)).toEqual(['Thread'])
    expect(r.supplies.cost.lines.length).toBeGreaterThan(3)
    expect(r.fit.choices.length).toBeGreaterThan(1)
    expect(r.parts[0]!.holes[0]!.verdict).toBe('easy')
    expect(r.supplies.beads.map((b) => b.count)).toEqual([20, 12])
  })
})
