import { describe, expect, it } from 'vitest'
import { rungLadder } from '../../../tests/fixture/rung-ladder'
import { extentOf } from '../../fit/extent'
import { raggedFrom } from '../../grid/lines'
import { centreOf } from '../../piece/drawing'
import { workOf, type Part } from '../../piece/piece'
import { pathOf } from '../../supply/thread'
import { tallyPart } from '../../tally/tally'
import { rowWords, wordsLine } from '../../tally/words'
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
    // One longer side makes its step longer, and only that.
    const p = rungLadder(12)
    const uneven: Part = { ...onlyPart(p), end: raggedFrom([Array<number>(10).fill(3)]) }
    expect(length({ ...p, parts: [uneven] })).toBeCloseTo(length(p), 9)
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
    expect(rowWords(onlyPart(p), 4).acts!.slice(-2)).toEqual([
      'left needle: through the clasp ring',
      'right needle: through the clasp ring',
    ])
  })
  it('picks the beads of a rung up from its far side where one needle comes back', () => {
    const p = rungLadder(4, { needles: 'one' })
    const { order } = requireTechnique('rung-ladder')
    const columns = 13
    const keys = (i: number) => [...order.row(i, workOf(onlyPart(p))).keys].map((key) => key - i * columns)
    expect(keys(1)).toEqual([0, 1, 2, 8, 7, 6, 5, 4, 3])
    expect(keys(2)).toEqual([3, 4, 5, 6, 7, 8, 2, 1, 0])
  })
  it('lies as a ladder does: rungs across, sides beside their ends, leads together at the clasp', () => {
    const p = rungLadder(5)
    const at = (c: number, r: number) => centreOf(onlyPart(p), c, r)
    const middle = at(7, 2).x
    // The rung: three cubes in one line.
    expect([6, 7, 8].map((c) => at(c, 2).x - middle)).toEqual([-3, 0, 3])
    expect(new Set([6, 7, 8].map((c) => Math.round(at(c, 2).y * 1e6)))).toHaveLength(1)
    // Sides lie outside its ends, half a seed away, from the rung before to this one.
    expect(at(1, 2).x - middle).toBeCloseTo(4.5 + 1.5, 9)
    expect(at(4, 2).x - middle).toBeCloseTo(-6, 9)
    expect(at(2, 2).y - at(0, 2).y).toBeCloseTo(2 * 2.1, 9)
    expect(at(1, 2).y).toBeCloseTo((at(7, 1).y + at(7, 2).y) / 2, 9)
    // Leads begin beside each other at the clasp.
    expect(at(0, 0).y).toBeLessThan(at(4, 0).y)
    expect(at(0, 0).x - at(5, 0).x).toBeLessThan(at(4, 0).x - at(9, 0).x)
  })
})
