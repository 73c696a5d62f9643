import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANY_IDS, anyPieceOf, bead, part, piece, rows } from '../../tests/fixture/piece'
import { usualClosure } from '../wear/closure'
import { extentOf } from '../fit/extent'
import { FIT_KINDS } from '../wear/kind'
import { fitOf, rowsWanted } from '../fit/reckon'
import { reportPiece } from '../format/report'
import { emptyCells } from '../grid/cells'
import { beadsToBuy } from '../supply/beads'
import { threadCuts } from '../supply/thread'
import { tallyPart, tallyPiece, totalOf } from '../tally/tally'
import { joinWords, piecedRowWords, sheetLines, wordsLine } from '../tally/words'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { isRing, joinNumbers, joinOf } from './join'
import { rowsOf, type Part, type Piece } from './piece'
import { fitSchema, type Fit } from './schema'

const ring = (over: Partial<Fit> = {}): Fit =>
  fitSchema.parse({ kind: 'ring', bodyMm: 54, closure: usualClosure('none'), widthMm: 8, ...over })
const of = (technique: string, columns: number, bead_rows: number, spec = 'cylinder-11'): Part =>
  part({
    technique,
    spec,
    settings: requireTechnique(technique).settings.parse({}),
    start: emptyCells(columns, 0),
    repeat: emptyCells(columns, bead_rows, 1),
    end: emptyCells(columns, 0),
    times: 1,
  })
const made = (one: Part, fit = ring(), over: Partial<Piece> = {}): Piece =>
  piece({ tray: [bead(1, { spec: one.spec }), bead(2, { spec: one.spec })], parts: [one], fit, ...over })
const joined = (one: Part, fit = ring()) => fitOf(made(one, fit)).beadworkMm.nominal

describe('ends that are joined', () => {
  it('only where nothing closes it and it goes round', () => {
    const kinds = FIT_KINDS.filter((kind) => isRing({ kind, closure: usualClosure('none') }))
    expect(kinds).toEqual(['bracelet', 'anklet', 'choker', 'necklace', 'ring', 'hoop'])
    expect(FIT_KINDS.some((kind) => isRing({ kind, closure: usualClosure('toggle') }))).toBe(false)
    const p = made(of('peyote', 6, 38), ring({ kind: 'bracelet', bodyMm: 170, closure: usualClosure('elastic') }))
    expect(joinOf(p, p.parts[0]!)).toBeNull()
  })
  it('peyote zipped to a ring measures R d (craft formula), flat, odd, in drops and round', () => {
    for (const [technique, columns] of [
      ['peyote', 6],
      ['peyote-odd', 7],
      ['peyote-drop', 8],
      ['peyote-tube', 8],
      ['peyote-spiral', 7],
    ] as const) {
      const one = of(technique, columns, 38)
      expect(joined(one)).toBeCloseTo(38 * 1.6, 9)
      expect(
        extentOf(made(one, ring({ kind: 'bracelet', bodyMm: 170, closure: usualClosure('toggle') })), one).lengthMm
          .nominal,
      ).toBeCloseTo(38.5 * 1.6, 9)
    }
  })
  it('peyote of half a row too few is told to take one more, and measures as it will then', () => {
    const one = part({ start: rows('AAAA'), repeat: rows('AAAA'), end: rows('A.A.'), times: 20 })
    const p = made(one)
    expect(joinOf(p, one)!.says).toContain('one row more')
    expect(fitOf(p).beadworkMm.nominal).toBeCloseTo(22 * 1.6, 9)
  })
  it(
    'right-angle weave takes one more unit: its U + 1 beads are counted, bought, told and threaded (craft ' +
      'formula)',
    () => {
      const one = of('right-angle', 7, 40, 'round-11')
      const fit = ring({ kind: 'bracelet', bodyMm: 60 })
      const [p, open] = [made(one, fit), made(one, { ...fit, closure: usualClosure('toggle') })]
      const pitch = (Math.SQRT2 * (1.4 + 2.1)) / 2
      expect(fitOf(open).beadworkMm.nominal).toBeCloseTo(39 * pitch, 9)
      expect(fitOf(p).beadworkMm.nominal).toBeCloseTo(40 * pitch, 9)
      expect(totalOf(tallyPiece(p)) - totalOf(tallyPiece(open))).toBe(4)
      expect(totalOf(tallyPiece(p))).toBe(2 * 3 * 40 + 40)
      expect(beadsToBuy(p)[0]!.count - beadsToBuy(open)[0]!.count).toBe(4)
      expect(threadCuts(p, one)[0]!.pathMm - threadCuts(open, one)[0]!.pathMm).toBeCloseTo(3 * (6 * 1.4 + 2 * 2.1), 9)
      expect(wordsLine(joinWords(p, one)!, p.tray)).toBe('Row 40 → 4A (4) · join')
      expect([...piecedRowWords(p, one)]).toHaveLength(40)
      expect(sheetLines(p, one).at(-1)).toMatchObject({ kind: 'row', words: { beads: 4 } })
      expect(joinWords(open, one)).toBeNull()
      const report = reportPiece(p)
      expect(report.tally).toMatchObject({ beads: 280, toJoin: 4 })
      expect(report.parts[0]!.tally.byRow.reduce((sum, r) => sum + r.beads, 0)).toBe(280)
      expect(reportPiece(open).parts[0]!.join).toBeNull()
    },
  )
  it('the beads that join are those kept for them, or the bead beside each', () => {
    const cells = rows('AAAAA', 'BBBBB', 'CACAC')
    const one = part({
      technique: 'right-angle',
      settings: requireTechnique('right-angle').settings.parse({}),
      start: emptyCells(5, 0),
      repeat: cells,
      end: emptyCells(5, 0),
      times: 1,
    })
    expect(joinNumbers(made(one), one)).toEqual([3, 3, 3])
    const bare = { ...one, repeat: rows('AAAAA', 'BBBBB', '.A.A.') }
    expect(joinNumbers(made(bare), bare)).toEqual([2, 2, 2])
    // Without a bead there is no unit to join.
    const narrow = { ...one, repeat: rows('AAA..', 'BBB..', '.A...') }
    expect(joinNumbers(made(narrow), narrow)).toEqual([2, 2])
  })
  it(
    'every technique answers: herringbone and brick meet row to row, straight stitches end to end, braids and ' +
      'coils not at all',
    () => {
      const answer = (technique: string, columns: number) =>
        joinOf(made(of(technique, columns, 30)), of(technique, columns, 30))!
      for (const [technique, columns] of [
        ['loom', 6],
        ['square', 6],
        ['ladder', 2],
        ['brick', 6],
        ['brick-tube', 6],
        ['netting', 10],
      ] as const)
        expect([technique, answer(technique, columns)]).toMatchObject([technique, { joins: true, addsMm: 0 }])
      // every row of joined herringbone is as long as any other: R l cos 18°
      for (const technique of ['herringbone', 'herringbone-tube'])
        expect(joined(of(technique, 6, 30))).toBeCloseTo(30 * 1.3 * Math.cos((18 * Math.PI) / 180), 9)
      for (const [technique, columns] of [
        ['braid-8', 8],
        ['braid-7', 7],
        ['braid-own', 7],
        ['braid-cord', 8],
        ['coil', 10],
      ] as const)
        expect([technique, answer(technique, columns)]).toMatchObject([
          technique,
          { joins: false, says: expect.stringContaining('closure') as string },
        ])
      for (const t of TECHNIQUES.filter((one) => one.store === 'cells'))
        expect(
          t.join({
            columns: t.growth.nearestColumns(8, t.settings.parse({})),
            rows: 31,
            bead: { id: 'x', shape: 'round', name: 'x', d: 2, l: 1.5, h: 0.8, perGram: 100 },
            settings: t.settings.parse({}),
          }).says.length,
        ).toBeGreaterThan(20)
      // bricks and arcs of both ends meet after an even number of rows
      expect(joinOf(made(of('brick', 6, 31)), of('brick', 6, 31))!.says).toContain('one row more')
      expect(joinOf(made(of('netting', 10, 31)), of('netting', 10, 31))!.says).toContain('one row more')
    },
  )
  it('rows wanted are those whose joined size is what is wanted, in any stitch', () => {
    fc.assert(
      fc.property(
        anyPieceOf(ANY_IDS).filter((p) => rowsOf(p.parts[0]!) > 0),
        fc.integer({ min: 40, max: 80 }),
        (p, bodyMm) => {
          const one = p.parts[0]!
          const { columns } = one.repeat
          const q = { ...p, tray: p.tray.map((b) => ({ ...b, spec: one.spec })), fit: ring({ bodyMm }) }
          const full = (count: number): Piece => ({
            ...q,
            parts: [
              {
                ...one,
                start: emptyCells(columns, 0),
                repeat: emptyCells(columns, count, 1),
                end: emptyCells(columns, 0),
                times: 1,
              },
            ],
          })
          const wanted = Math.round(rowsWanted(full(20)))
          if (wanted < 3) return
          const { beadworkMm, targetMm } = fitOf(full(wanted))
          for (const other of [wanted - 1, wanted + 1])
            expect(Math.abs(beadworkMm.nominal - targetMm)).toBeLessThanOrEqual(
              Math.abs(fitOf(full(other)).beadworkMm.nominal - targetMm) + 1e-6,
            )
        },
      ),
    )
  })
  it('another part of the piece is not joined', () => {
    const p = made(of('peyote', 6, 38), ring(), {
      parts: [of('peyote', 6, 38), { ...of('peyote', 6, 10), id: 'tag' }],
    })
    expect(joinOf(p, p.parts[0]!)).not.toBeNull()
    expect(joinOf(p, p.parts[1]!)).toBeNull()
    expect(tallyPart(p.parts[1]!).get(1)).toBe(60)
  })
})
