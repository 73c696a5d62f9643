import { describe, expect, it } from 'vitest'
import { rungLadder } from '../../../tests/fixture/rung-ladder'
import { beginPiece } from '../../begin/begin'
import { extentOf } from '../../fit/extent'
import { fitOf } from '../../fit/reckon'
import { linesOf, raggedFrom } from '../../grid/lines'
import { pieceToBody } from '../../piece/codec'
import { centreOf } from '../../piece/drawing'
import { basisOf, columnsOf, workOf, type Part } from '../../piece/piece'
import { settingSteps } from '../../piece/recast'
import { applySteps, invertSteps } from '../../piece/step'
import { valueOf } from '../../problem'
import { pathOf } from '../../supply/thread'
import { tallyPart } from '../../tally/tally'
import { rowWords, wordsLine } from '../../tally/words'
import { usualClosure } from '../../wear/closure'
import { requireTechnique } from '../registry'

const onlyPart = (p: ReturnType<typeof rungLadder>): Part => p.parts[0]!
const length = (p: ReturnType<typeof rungLadder>) => extentOf(p, onlyPart(p)).lengthMm.nominal
/** Length along the work of a lead of five 8/0 to the middle of a rung of three 3 mm cubes. */
const LEAD = Math.sqrt(10.5 ** 2 - 4.5 ** 2)

describe('a ladder of rungs', () => {
  it('of 24 rungs of 3 cubes, 3 seeds at the sides, 5 to the clasp: 7 inches closed (common practice)', () => {
    const p = rungLadder(24)
    expect([...tallyPart(onlyPart(p))].sort()).toEqual([
      [1, 72],
      [2, 138],
      [3, 20],
    ])
    // By hand: 23 steps of three seeds of 2.1, a cube, two leads.
    expect(length(p)).toBeCloseTo(23 * 6.3 + 3 + 2 * LEAD, 9)
    expect((length(p) + 12) / 25.4).toBeGreaterThan(6.9)
    expect((length(p) + 12) / 25.4).toBeLessThan(7.1)
  })
  it('is as long from rung to rung as the longer of its rungs and its sides', () => {
    const steps = (side: number, cubes = 3) =>
      length(rungLadder(12, { side, cubes })) - length(rungLadder(11, { side, cubes }))
    expect([0, 1, 2, 3].map((side) => Math.round(steps(side) * 1000) / 1000)).toEqual([3, 3, 4.2, 6.3])
    expect(extentOf(rungLadder(12), onlyPart(rungLadder(12))).widthMm.nominal).toBeCloseTo(9 + 2 * 3, 9)
    // Sides of a larger bead make it longer, whatever it is drawn for.
    const larger = rungLadder(12, { specs: ['cube-3-mm', 'round-6', 'round-8'] })
    expect(length(larger) - length(rungLadder(12))).toBeCloseTo(11 * 3 * (2.9 - 2.1), 9)
  })
  it('is begun as long as it is wanted, in cubes with seeds at their sides', () => {
    for (const bodyMm of [150, 165, 190]) {
      const p = beginPiece({
        kind: 'bracelet',
        name: 'New ladder',
        wearer: '',
        bodyMm,
        easeMm: 13,
        widthMm: 9,
        closure: usualClosure('toggle'),
        technique: 'rung-ladder',
        spec: 'cube-3-mm',
        motif: 'plain',
        start: 'left',
      })
      expect(p.tray.map((b) => b.spec)).toEqual(['cube-3-mm', 'round-8', 'round-8'])
      // Within half a step of three seeds.
      expect(Math.abs(fitOf(p).differenceMm)).toBeLessThan(6.3 / 2 + 0.1)
    }
  })
  it('takes so many lines for a length, and has that length with so many, as it mostly is', () => {
    const { growth } = requireTechnique('rung-ladder')
    const p = rungLadder(24)
    const basis = basisOf(onlyPart(p))
    expect(growth.lengthOf({ ...basis, rows: 24 })).toBeCloseTo(length(p), 9)
    expect(growth.rowsFor(length(p), basis)).toBeCloseTo(24, 9)
    // By the beads that lie in its lines, not by those it is drawn for.
    const larger = rungLadder(24, { specs: ['cube-3-mm', 'round-6', 'round-8'] })
    const step = (q: typeof p) => {
      const own = basisOf(onlyPart(q))
      return growth.lengthOf({ ...own, rows: 11 }) - growth.lengthOf({ ...own, rows: 10 })
    }
    expect([step(p), step(larger)].map((mm) => Math.round(mm * 100) / 100)).toEqual([6.3, 8.7])
  })
  it('follows its settings: seeds and rungs grow and shrink where they are, in their own colours', () => {
    const p = rungLadder(4)
    const set = (q: typeof p, over: object) => {
      const steps = settingSteps(q, onlyPart(q), { ...onlyPart(q).settings, ...over }, 1)
      const next = valueOf(applySteps(q, steps))
      expect(JSON.stringify(pieceToBody(valueOf(applySteps(next, invertSteps(steps)))))).toBe(
        JSON.stringify(pieceToBody(q)),
      )
      return next
    }
    const linesIn = (q: typeof p) =>
      (['start', 'repeat', 'end'] as const).map((name) => linesOf(onlyPart(q)[name]).map((line) => [...line].join('')))
    expect(linesIn(set(p, { side: 4 }))).toEqual([['3333333333111'], ['22222222111'], ['222222221113333333333']])
    expect(linesIn(set(p, { lead: 2 }))).toEqual([['3333111'], ['222222111'], ['2222221113333']])
    expect(linesIn(set(p, { rung: 5 }))).toEqual([['333333333311111'], ['22222211111'], ['222222111113333333333']])
    // What was there comes back as it was; a colour in the middle stays.
    expect(linesIn(set(set(p, { side: 1 }), { side: 3 }))).toEqual(linesIn(p))
    const mixed = { ...p, parts: [{ ...onlyPart(p), repeat: raggedFrom([[2, 3, 2, 3, 2, 3, 1, 2, 1]]) }] }
    expect(linesIn(set(mixed, { side: 2 }))[1]).toEqual(['2332121'])
    // With one repeat alone, its line stands between the others.
    expect(set(p, { needles: 'one' }).parts[0]!.repeat).toBe(p.parts[0]!.repeat)
  })
  it('holds as many beads as can be told, and no more', () => {
    const { check } = requireTechnique('rung-ladder')
    const work = { ...workOf(onlyPart(rungLadder(3))), lineLength: () => 100 }
    expect(check({ ...work, rows: 600 })).toEqual([])
    expect(check({ ...work, rows: 601 }).map((one) => one.code)).toEqual(['beads-many'])
  })
  it('leads of beads to the clasp, straight where the rung is wider than they are long', () => {
    const short = rungLadder(4, { lead: 1 })
    expect(length(short)).toBeCloseTo(3 * 6.3 + 3, 9)
    expect(length(rungLadder(4, { lead: 0 }))).toBeCloseTo(3 * 6.3 + 3, 9)
  })
  it('with two needles goes through every rung twice and along each side once', () => {
    const p = rungLadder(6)
    const path = pathOf(onlyPart(p))
    const at = (c: number, r: number) => path.passesAt!(c, r, 'a')
    // Places of a line: three down, three up, the rung.
    expect([0, 3, 6, 8].map((c) => at(c, 2))).toEqual([1, 1, 2, 2])
    expect([0, 5, 10].map((c) => at(c, 0))).toEqual([1, 1, 2])
    // Through holes alone, by hand: each needle through all rungs and one side; over to the sides comes on top.
    const holes = 2 * (6 * 9 + 5 * 3 * 2.1 + 2 * 5 * 2.1)
    const [run] = path.runs
    expect(run!.lengthMm).toBeGreaterThan(holes)
    expect(run!.lengthMm).toBeLessThan(holes * 1.4)
    expect([run!.name, run!.count]).toEqual(['Thread for both needles', 1])
  })
  it('with one needle goes round every step: each rung three times, a first side twice, a second once', () => {
    const p = rungLadder(6, { needles: 'one' })
    const path = pathOf(onlyPart(p))
    const at = (c: number, r: number) => path.passesAt!(c, r, 'a')
    // A rung is strung, passed on to the next step, and passed once more when that step closes.
    expect([1, 2, 3, 4].map((r) => at(7, r))).toEqual([3, 3, 3, 3])
    // Line 2 is begun at its near side, line 1 at its far one.
    expect([at(0, 1), at(3, 1), at(0, 2), at(3, 2)]).toEqual([2, 1, 1, 2])
    expect(path.runs[0]!.lengthMm).toBeGreaterThan(pathOf(onlyPart(rungLadder(6))).runs[0]!.lengthMm)
  })
  it('is told rung by rung, needle by needle', () => {
    const p = rungLadder(4)
    const line = (i: number) => wordsLine(rowWords(onlyPart(p), i), p.tray)
    expect(rowWords(onlyPart(p), 1).acts).toEqual([
      'left needle: pick up 3 beads',
      'right needle: pick up 3 beads',
      'right needle: pick up 3 beads',
      'left needle: back through all 3 beads (rung) — draw both tight',
    ])
    expect(line(1)).toContain('3B 3B 3A (9)')
    expect(rowWords(onlyPart(p), 0).acts!.slice(0, 2)).toEqual([
      'left needle: through the clasp ring',
      'right needle: through the clasp ring',
    ])
    // After every rung the needles have changed sides.
    expect(rowWords(onlyPart(p), 2).acts![0]).toBe('right needle: pick up 3 beads')
    expect(rowWords(onlyPart(p), 3).acts!.slice(-4)).toEqual([
      'right needle: pick up 5 beads',
      'left needle: pick up 5 beads',
      'left needle: through the clasp ring',
      'right needle: through the clasp ring',
    ])
  })
  it('picks the beads of a rung up from its far side where one needle comes back', () => {
    const p = rungLadder(4, { needles: 'one' })
    const { order } = requireTechnique('rung-ladder')
    const columns = columnsOf(onlyPart(p))
    const keys = (i: number) => [...order.row(i, workOf(onlyPart(p))).keys].map((key) => key - i * columns)
    expect(keys(1)).toEqual([0, 1, 2, 8, 7, 6, 5, 4, 3])
    expect(keys(2)).toEqual([3, 4, 5, 6, 7, 8, 2, 1, 0])
  })
  it('lies as a ladder does: rungs across, sides beside their ends, leads together at the clasp', () => {
    const p = rungLadder(5)
    const at = (c: number, r: number) => centreOf(onlyPart(p), c, r)
    const middle = at(7, 2).x
    // The rung: three cubes in one line.
    ;[6, 7, 8].forEach((c, k) => expect(at(c, 2).x - middle).toBeCloseTo(3 * (k - 1), 2))
    for (const c of [6, 8]) expect(at(c, 2).y).toBeCloseTo(at(7, 2).y, 2)
    // Sides lie outside its ends in arcs, from the rung before to this one: the middle seed stands out furthest.
    for (const [side, sign] of [
      [[0, 1, 2], 1],
      [[3, 4, 5], -1],
    ] as const) {
      const [first, second, third] = side.map((c) => sign * (at(c, 2).x - middle))
      expect(first).toBeGreaterThan(4.5)
      expect(second).toBeGreaterThan(first! + 0.3)
      expect(third).toBeCloseTo(first!, 2)
    }
    expect(at(1, 2).y).toBeCloseTo((at(7, 1).y + at(7, 2).y) / 2, 1)
    // From rung to rung as far as three seeds are long, to 2 %.
    expect(Math.abs((at(7, 3).y - at(7, 2).y) / (3 * 2.1) - 1)).toBeLessThan(0.02)
    // Leads begin beside each other at the clasp.
    expect(at(0, 0).y).toBeLessThan(at(4, 0).y)
    expect(at(0, 0).x - at(5, 0).x).toBeLessThan(at(4, 0).x - at(9, 0).x)
  })
})
