import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, part, piece } from '../../tests/fixture/piece'
import { CIRCLE_PACKING } from '../bead/hole'
import { requireSpec } from '../bead/spec'
import { choiceSteps, fitChoices } from '../fit/choices'
import { extentOf, rowsForLength } from '../fit/extent'
import { cellsFrom, emptyCells } from '../grid/cells'
import { beginPiece } from '../begin/begin'
import { usualClosure } from '../wear/closure'
import { stitchSteps } from '../piece/recast'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { readinessOf } from '../proof/readiness'
import { unusedBeads } from '../proof/rule/unused'
import { beadsToBuy } from '../supply/beads'
import { shoppingList } from '../supply/shopping'
import { cutList, holeChecks } from '../supply/thread'
import { beadAt } from '../technique/braid/surface'
import { requireTechnique } from '../technique/registry'
import { boundEnd, BINDING_MM, cordScale, strandCords } from './cords'
import { tallyPart, tallyPiece, totalOf } from './tally'

const TRAY = [bead(1, { spec: 'cord-2' }), bead(2, { spec: 'cord-2' }), bead(3, { spec: 'cord-3' })]
const cord = (numbers: number[], settings: Record<string, unknown> = {}, times = 40) =>
  part({
    technique: 'braid-cord',
    settings: requireTechnique('braid-cord').settings.parse({ braid: String(numbers.length), ...settings }),
    spec: 'cord-2',
    times,
    start: emptyCells(numbers.length, 0),
    repeat: cellsFrom(numbers.length, 1, numbers),
    end: emptyCells(numbers.length, 0),
  })
const EIGHT = [1, 2, 1, 2, 1, 2, 1, 2]

describe('a braid of plain cords', () => {
  it('shows its colours every two columns and four rows again', () => {
    for (const school of ['A', 'B'] as const) {
      for (let row = 0; row < 24; row++) {
        for (let col = 0; col < 4; col++) {
          const here = beadAt({ row, col }, 8, school)
          expect(beadAt({ row: row + 4, col: (col + 2) % 4 }, 8, school)?.s).toBe(here?.s)
        }
      }
    }
  })
  it('has no beads to count, to buy or to thread, and its cords are in use all the same', () => {
    const p = piece({ tray: TRAY.slice(0, 2), parts: [cord(EIGHT)] })
    expect(totalOf(tallyPiece(p))).toBe(0)
    expect(totalOf(tallyPart(p.parts[0]!))).toBe(320)
    expect(beadsToBuy(p)).toEqual([])
    expect(holeChecks(p, p.parts[0]!)).toEqual([])
    expect(unusedBeads(p)).toEqual([])
    expect(readinessOf(p)).toMatchObject({ mat: 0, supplies: 0 })
  })
  it('is cut colour by colour: three times the length and something for knots (common practice)', () => {
    const one = cord(EIGHT, { doubled: '1' })
    const p = piece({ tray: TRAY, parts: [one] })
    const cuts = cutList(p).filter((c) => c.material === 'cord')
    expect(cuts.map((c) => c.pieces)).toEqual([5, 4])
    const length =
      requireTechnique('braid-cord').growth.lengthOf({
        columns: 8,
        rows: 40,
        bead: requireSpec('cord-2'),
        settings: one.settings,
      }) * cordScale(one, TRAY)
    expect(cuts[0]!.cutMm).toBe(Math.ceil((3 * length + 90) / 100) * 100)
    // folded in the middle: half as many, twice as long
    const folded = cutList(piece({ tray: TRAY, parts: [cord(EIGHT, { folded: true })] })).filter(
      (c) => c.material === 'cord',
    )
    expect(folded.map((c) => c.pieces)).toEqual([2, 2])
    const plain = cutList(piece({ tray: TRAY, parts: [cord(EIGHT)] })).filter((c) => c.material === 'cord')
    expect(folded[0]!.cutMm).toBeGreaterThan(1.8 * plain[0]!.cutMm)
    expect(folded[0]!.totalMm).toBeLessThanOrEqual(plain[0]!.totalMm)
  })
  it('asks the shop for each cord and for two end caps, once', () => {
    const p = piece({ tray: TRAY, parts: [cord(EIGHT)] })
    const names = (q: typeof p) =>
      shoppingList([{ id: 'a', piece: q }]).others.map((o) => `${o.name} ${o.unit === 'count' ? o.buy : ''}`.trim())
    expect(names(p)).toEqual(
      expect.arrayContaining(['Bead 1, cord 2 mm', 'Bead 2, cord 2 mm', 'End caps, 7.5 mm inside 2']),
    )
    const named = { ...p, cost: { ...p.cost, findings: [{ name: 'End caps, 7.5 mm inside', count: 2, price: 90 }] } }
    expect(names(named).filter((n) => n.startsWith('End caps'))).toEqual(['End caps, 7.5 mm inside 2'])
  })
  it('grows with the thickness of its cords, and rows and length agree', () => {
    expect(cordScale(cord(EIGHT), TRAY)).toBe(1)
    expect(cordScale(cord([3, 1, 1, 1, 3, 1, 1, 1]), TRAY)).toBeCloseTo((2 * 3 + 6 * 2) / 8 / 2, 9)
    expect(cordScale(cord(EIGHT, { doubled: '1 2 3 4 5 6 7 8' }), TRAY)).toBeCloseTo(Math.SQRT2, 9)
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 8, maxLength: 8 }),
        fc.integer({ min: 1, max: 200 }),
        (numbers, times) => {
          const p = piece({ tray: TRAY, parts: [cord(numbers, {}, times)] })
          const extent = extentOf(p, p.parts[0]!)
          expect(rowsForLength(p, p.parts[0]!, extent.lengthMm.nominal)).toBeCloseTo(times, 6)
          expect(extent.thicknessMm).toBeCloseTo(extent.widthMm.nominal, 9)
        },
      ),
    )
  })
  it('a cord that changes its colour on the way is named', () => {
    const one = { ...cord(EIGHT), repeat: cellsFrom(8, 2, [...EIGHT, 1, 2, 1, 1, 1, 2, 1, 2]) }
    expect(
      strandCords(one, TRAY)
        .filter((c) => c.changes)
        .map((c) => c.bobbin),
    ).toEqual([4])
    expect(readinessOf(piece({ tray: TRAY.slice(0, 2), parts: [one] })).mat).toBe(1)
  })
  it('is made longer or shorter by rounds alone: no choice lays another cord at its ends', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 160 }), fc.integer({ min: 140, max: 210 }), (times, bodyMm) => {
        const p = piece({ tray: TRAY, parts: [cord(EIGHT, {}, times)] })
        const q = { ...p, fit: { ...p.fit, bodyMm } }
        for (const choice of fitChoices(q)) {
          const next = valueOf(applySteps(q, choiceSteps(q, choice)))
          expect(strandCords(next.parts[0]!, next.tray).some((c) => c.changes)).toBe(false)
          expect([choice.startRows, choice.endRows, choice.cycleRows]).toEqual([0, 0, 0])
        }
      }),
      { numRuns: 30 },
    )
  })
  it('says which number is no strand', () => {
    expect(
      requireTechnique('braid-cord').check({
        columns: 8,
        rows: 4,
        settings: cord(EIGHT, { doubled: '1 9' }).settings,
      })[0]!.says,
    ).toContain('“9” is no strand')
  })
  it('begins with one row, in as many rounds as the measure takes', () => {
    const p = beginPiece({
      kind: 'bracelet',
      name: 'x',
      wearer: '',
      bodyMm: 170,
      easeMm: 13,
      closure: usualClosure('magnet'),
      widthMm: 8,
      technique: 'braid-cord',
      spec: 'cord-2',
      motif: 'plain',
      start: 'left',
    })
    expect(p.parts[0]!.repeat.rows).toBe(1)
    expect(p.parts[0]!.times).toBeGreaterThan(20)
    expect(strandCords(p.parts[0]!, p.tray).some((c) => c.changes)).toBe(false)
  })
  it('made of a beaded braid, strands take the colour of their first bead; and back', () => {
    const beaded = piece({
      parts: [
        part({
          technique: 'braid-8',
          settings: requireTechnique('braid-8').settings.parse({}),
          spec: 'round-8',
          times: 2,
          start: emptyCells(8, 0),
          repeat: cellsFrom(8, 3, [1, 2, 3, 1, 2, 3, 1, 2, 1, 1, 1, 1, 1, 1, 1, 1, 2, 2, 2, 2, 2, 2, 2, 2]),
          end: emptyCells(8, 0),
        }),
      ],
      tray: [1, 2, 3].map((n) => bead(n, { spec: 'round-8' })),
    })
    const p = valueOf(applySteps(beaded, stitchSteps(beaded, beaded.parts[0]!, 'braid-cord', 1)))
    expect(strandCords(p.parts[0]!, p.tray).map((c) => c.number)).toEqual([1, 2, 3, 1, 2, 3, 1, 2])
    expect(p.parts[0]!.times).toBe(6)
    expect(p.tray.every((b) => b.spec === 'cord-2')).toBe(true)
    const back = valueOf(applySteps(p, stitchSteps(p, p.parts[0]!, 'braid-8', 1)))
    expect(back.parts[0]!.repeat.rows).toBe(requireTechnique('braid-8').growth.repeatRows)
    expect(back.tray.every((b) => b.spec === 'cylinder-11')).toBe(true)
  })
})

describe('the bound end', () => {
  it(
    'is the circle that its cords pack into (Graham et al. 1998), with its binding, and the cap the next half ' +
      'millimetre',
    () => {
      const end = boundEnd(cord(EIGHT), TRAY)!
      expect(end.packedMm).toBeCloseTo(2 * CIRCLE_PACKING[8]!, 9)
      expect(end.boundMm).toBeCloseTo(end.packedMm + BINDING_MM, 9)
      expect(end.capMm * 2).toBe(Math.ceil(end.boundMm * 2))
      expect(boundEnd(cord(EIGHT, { doubled: '3' }), TRAY)!.packedMm).toBeCloseTo(2 * CIRCLE_PACKING[9]!, 9)
    },
  )
  it('of a beaded braid is that of its thin cords', () => {
    const one = part({
      technique: 'braid-8',
      settings: requireTechnique('braid-8').settings.parse({ cordMm: 0.5 }),
      spec: 'round-8',
      times: 1,
      start: emptyCells(8, 0),
      repeat: emptyCells(8, 3, 1),
      end: emptyCells(8, 0),
    })
    expect(boundEnd(one, [])!.packedMm).toBeCloseTo(0.5 * CIRCLE_PACKING[8]!, 9)
    expect(boundEnd(part(), [])).toBeNull()
  })
  it('of mixed cords lies between those of its thinnest and its thickest', () => {
    const mixed = boundEnd(cord([3, 1, 1, 1, 3, 1, 1, 1]), TRAY)!.packedMm
    expect(mixed).toBeGreaterThan(2 * CIRCLE_PACKING[8]!)
    expect(mixed).toBeLessThan(3 * CIRCLE_PACKING[8]!)
  })
})
