import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPieceOf, part, piece, rows } from '../../tests/fixture/piece'
import { extentOf } from '../fit/extent'
import { fitOf } from '../fit/reckon'
import { emptyCells, insertColumns, insertRows } from '../grid/cells'
import { gapFindings } from '../proof/gaps'
import { threadCuts } from '../supply/thread'
import { tallyPart, totalOf } from '../tally/tally'
import { allRowWords } from '../tally/words'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { emptyOf, laidCounted, laidOf, laidRows, laidWork } from './laid'
import { columnsOf, rowsOf, voidsOf, wholePart, type Part } from './piece'

const stitch = (technique: string, over: Partial<Part> = {}): Part =>
  part({ technique, settings: requireTechnique(technique).settings.parse({}), ...over })

/** Grids without an empty place: what a stitch is asked of a whole grid. */
const anyFull = anyPieceOf(TECHNIQUES.map((t) => t.id))
  .map((p) => {
    const one = p.parts[0]!
    const full = (cells: Part['start']) => ({ ...cells, blocks: cells.blocks.map((b) => b.map((n) => n || 1)) })
    return { ...p, parts: [{ ...one, start: full(one.start), repeat: full(one.repeat), end: full(one.end) }] }
  })
  .filter((p) => p.parts[0]!.technique !== 'right-angle' && rowsOf(p.parts[0]!) > 0)

const tubes = new Set(TECHNIQUES.filter((t) => t.form === 'tube').map((t) => t.id))

describe('what is laid', () => {
  it('60 beaded rows and 40 empty ones of cylinder 11/0 on the loom are 96 mm, not 160 (by hand)', () => {
    const none = emptyCells(6, 0)
    const one = stitch('loom', { start: emptyCells(6, 60, 1), repeat: emptyCells(6, 20), end: none, times: 2 })
    const p = piece({ parts: [one] })
    expect(extentOf(p, one).lengthMm.nominal).toBeCloseTo(96, 9)
    expect(fitOf(p).beadworkMm.nominal).toBeCloseTo(96, 9)
    expect(laidCounted(one)).toBe(60)
    expect([...allRowWords(one)]).toHaveLength(60)
    // weft: 60 rows of 2 × (6 × 1.3 + 7 × 0.2) + 2 × 1.6
    expect(threadCuts(p, one)[0]!.pathMm).toBeCloseTo(60 * (2 * 9.2 + 3.2), 9)
    expect(gapFindings(one)).toEqual([
      { code: 'edge-empty', weight: 'note', says: '40 empty rows at the end: not counted as size.' },
    ])
  })
  it(
    'empty rows at the ends and between, and empty columns at the edges, change no size, no thread and no word, ' +
      'in any stitch',
    () => {
      fc.assert(
        fc.property(anyFull, fc.nat(3), fc.nat(3), fc.boolean(), (p, before, behind, aside) => {
          const one = p.parts[0]!
          const columns = columnsOf(one)
          const blank = (k: number) => new Uint16Array(k * columns)
          const wide = {
            ...one,
            start: insertRows(one.start, 0, blank(before)),
            end: insertRows(one.end, one.end.rows, blank(behind)),
          }
          const [was, now] = [extentOf(p, one), extentOf(p, wide)]
          expect(now.lengthMm.nominal).toBeCloseTo(was.lengthMm.nominal, 9)
          expect(now.widthMm.nominal).toBeCloseTo(was.widthMm.nominal, 9)
          expect(laidRows(wide)).toBe(rowsOf(one))
          expect(emptyOf(wide).rows).toEqual({ start: before, between: [], end: behind })
          expect(threadCuts(p, wide).map((c) => c.pathMm)).toEqual(
            threadCuts(p, one).map((c) => expect.closeTo(c.pathMm, 6) as number),
          )
          const words = [...allRowWords(wide)]
          expect(words.every((w) => w.beads > 0)).toBe(true)
          expect(words.reduce((sum, w) => sum + w.beads, 0)).toBe(totalOf(tallyPart(one)))
          if (!aside || tubes.has(one.technique)) return
          const put = (cells: Part['start']) => insertColumns(cells, columns, 2, new Uint16Array(2 * cells.rows))
          const aside2 = { ...one, start: put(one.start), repeat: put(one.repeat), end: put(one.end) }
          expect(extentOf(p, aside2).widthMm.nominal).toBeCloseTo(was.widthMm.nominal, 9)
          expect(laidOf(aside2).columns).toBe(columns)
        }),
        { numRuns: 150 },
      )
    },
  )
  it('a work of half rows measures what its beads reach: peyote of 2R − 1 rows is R d long (by hand)', () => {
    // The third row of the grid holds only the low columns: five rows, 3 × 1.6 mm.
    const one = part({ start: rows('AAAA', 'AAAA'), repeat: rows('A.A.'), end: emptyCells(4, 0), times: 1 })
    expect(extentOf(piece(), one).lengthMm.nominal).toBeCloseTo(4.8, 9)
    expect(extentOf(piece(), one).lengthFormula).toContain('− 0.8 mm, since its last rows are not whole')
  })
  it('a diamond of brick is as wide as its widest row, and every edge row counts as length (by hand)', () => {
    const one = stitch('brick', {
      start: rows('..A..', '.AA..', '.AAA.', 'AAAA.', 'AAAAA'),
      repeat: rows('AAAA.', '.AAA.'),
      end: emptyCells(5, 0),
      times: 1,
    })
    expect(extentOf(piece(), one).widthMm.nominal).toBeCloseTo(5 * 1.6, 9)
    expect(extentOf(piece(), one).lengthMm.nominal).toBeCloseTo(7 * 1.3, 9)
  })
  it(
    'right-angle weave keeps the row that closes its last units, and what is kept in places without a bead is ' +
      'none',
    () => {
      const right = (p: Part) => extentOf(piece(), p).lengthMm.nominal
      const whole = stitch('right-angle', {
        start: emptyCells(5, 0),
        repeat: emptyCells(5, 7, 1),
        end: emptyCells(5, 0),
        times: 1,
      })
      const below = { ...whole, repeat: insertRows(whole.repeat, 7, new Uint16Array(15)) }
      // The uprights of the last row had no lower edge before: now they are beads of units that are only begun.
      expect(totalOf(tallyPart(below))).toBe(totalOf(tallyPart(whole)) + 3)
      expect(totalOf(tallyPart(laidOf(below).part))).toBe(totalOf(tallyPart(below)))
      expect(right(below)).toBeGreaterThan(right(whole))
      expect(right(below) - right(whole)).toBeLessThanOrEqual((Math.SQRT2 * 2.9) / 2 + 1e-9)
      expect(voidsOf(laidOf(below).part).every((key) => wholePart(laidOf(below).part)[key] === 0)).toBe(true)
    },
  )
  it('an empty row or column between beads is a finding, not a size', () => {
    const one = part({ start: rows('AAAA', '....', 'AAAA'), repeat: rows('AAAA'), end: rows('AAAA'), times: 1 })
    const [finding] = gapFindings(one)
    expect(finding).toMatchObject({ code: 'row-empty', weight: 'stops' })
    expect(finding!.says).toContain('rows 3–4')
    expect(extentOf(piece(), one).lengthMm.nominal).toBeCloseTo(4.5 * 1.6, 9)
    const split = stitch('loom', { start: rows('AA.AA'), repeat: rows('AA.AA'), end: rows('AA.AA'), times: 2 })
    expect(gapFindings(split)[0]).toMatchObject({ code: 'column-empty', weight: 'stops' })
    expect(gapFindings(split)[0]!.says).toContain('column 3')
    expect(extentOf(piece(), split).widthMm.nominal).toBeCloseTo(4 * 1.3 + 5 * 0.2, 9)
    expect(gapFindings(part())).toEqual([])
    expect(gapFindings(part({ start: rows('....'), repeat: rows('....'), end: rows('....') }))).toEqual([])
  })
  it('nothing laid is no length, no row and no thread', () => {
    fc.assert(
      fc.property(anyFull, (p) => {
        const one = p.parts[0]!
        const blank = (cells: Part['start']) => emptyCells(cells.columns, cells.rows)
        const none = { ...one, start: blank(one.start), repeat: blank(one.repeat), end: blank(one.end) }
        expect(laidRows(none)).toBe(0)
        expect([...allRowWords(none)]).toEqual([])
        expect(requireTechnique(one.technique).lengthOf(laidWork(none))).toBe(0)
      }),
    )
  })
})
