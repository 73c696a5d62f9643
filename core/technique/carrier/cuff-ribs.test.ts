import { describe, expect, it } from 'vitest'
import { rowPiece, runs } from '../../../tests/fixture/rows'
import { beginPiece } from '../../begin/begin'
import { fitChoices } from '../../fit/choices'
import { extentOf } from '../../fit/extent'
import { fitOf } from '../../fit/reckon'
import { centreOf } from '../../piece/drawing'
import { basisOf, rowsOf, type Part, type Piece } from '../../piece/piece'
import { partFindings } from '../../proof/finding'
import { cutList, holeChecks, pathOf } from '../../supply/thread'
import { needsFor, toolsFor } from '../../supply/tools'
import { rowWords } from '../../tally/words'
import { usualClosure } from '../../wear/closure'
import { requireTechnique } from '../registry'

const onlyPart = (p: Piece): Part => p.parts[0]!
const FIT = { kind: 'cuff', bodyMm: 165, easeMm: 0, closure: usualClosure('none'), widthMm: 20 }
const begun = (bodyMm: number, settings = {}, spec = 'round-8') =>
  beginPiece({
    ...{ kind: 'cuff', name: 'New', wearer: '', bodyMm, easeMm: 0, widthMm: 20, settings },
    ...{ closure: usualClosure('none'), technique: 'cuff-ribs', spec, motif: 'plain', start: 'left' },
  })
/** Ribs of hexagons and seeds: up, and down between. */
const combs = (pairs: number, settings = {}) =>
  rowPiece(
    'cuff-ribs',
    ['hexagon-6-mm', 'round-11'],
    [
      [2, 2, 1, 2, 1, 2, 2],
      [2, 2, 2, 2, 2],
    ],
    {
      settings: { cuff: 20, shared: true, turns: 1, ...settings },
      times: pairs,
      fit: FIT,
    },
  )
const wire = (p: Piece) => pathOf(onlyPart(p), p).runs[0]!

describe('ribs on a cuff', () => {
  it('are as many as its usable arc takes: the arc less bare ends and windings, over the width of a rib', () => {
    for (const bodyMm of [150, 165, 180]) {
      const p = begun(bodyMm)
      const arc = bodyMm * 0.78 - 2 * 10 - 2 * 3 * 0.321
      expect(rowsOf(onlyPart(p))).toBe(Math.round(arc / 3))
      expect(Math.abs(fitOf(p).differenceMm)).toBeLessThan(2)
    }
    const spaced = begun(165, { turns: 2 })
    expect(rowsOf(onlyPart(spaced))).toBe(Math.round((165 * 0.78 - 20 - 6 * 0.321 + 2 * 0.321) / (3 + 2 * 0.321)))
  })
  it('take 1 to 1.5 m of wire (common practice), each rib out over it and back behind it', () => {
    const p = begun(160)
    expect(wire(p).lengthMm).toBeGreaterThan(1000)
    expect(wire(p).lengthMm).toBeLessThan(1500)
    // By hand: 7 seeds of 2.1 a rib; half a turn of 2 × (15 + 1) and the wire; six turns; tails.
    const n = rowsOf(onlyPart(p))
    const turn = 2 * 16 + Math.PI * 0.3211
    expect(wire(p).lengthMm).toBeCloseTo(n * 7 * 2.1 + (n - 1) * (turn / 2 + 3) + 6 * turn + 100, 0)
    expect(cutList(p)[0]).toMatchObject({ material: 'wire', pieces: 1 })
  })
  it('share hexagons: two ribs lie within one, their seeds beside each other between them', () => {
    const p = combs(10)
    // A hexagon of 6 and one turn of 0.32 for each pair, three turns at each end, bare cuff.
    expect(extentOf(p, onlyPart(p)).lengthMm.nominal).toBeCloseTo(10 * 6 + 9 * 0.321 + 6 * 0.321 + 20, 1)
    const at = (c: number, r: number) => centreOf(onlyPart(p), c, r)
    expect(at(0, 1).y - at(0, 0).y).toBeCloseTo(3, 9)
    expect(at(2, 0).y).toBeCloseTo((at(0, 0).y + at(0, 1).y) / 2, 9)
    // The second rib comes back: its first seeds lie at the far edge, its third between the hexagons.
    expect(at(0, 1).x).toBeCloseTo(at(6, 0).x, 9)
    expect(at(2, 1).x).toBeCloseTo(at(3, 0).x, 9)
    const path = pathOf(onlyPart(p))
    expect([path.passesAt!(2, 0, 'a'), path.passesAt!(2, 0, 'b')]).toEqual([1, 1])
    expect(rowWords(onlyPart(p), 1).told!.map(({ says }) => says)).toEqual([
      'pick up 2 beads',
      'back through the 5th bead of the rib before, second hole',
      'pick up 1 bead',
      'back through the 3rd bead of the rib before, second hole',
      'pick up 2 beads',
      'wind 1 turn round the cuff',
    ])
  })
  it('say what is wrong: a rib longer than the cuff is wide, a second hole that stays empty', () => {
    expect(partFindings(onlyPart(combs(4)))).toEqual([])
    expect(partFindings(onlyPart(combs(4, { cuff: 15 })))[0]!.says).toContain(
      'Rib 1 is 19 mm long, and the cuff 15 mm wide',
    )
    expect(partFindings(onlyPart(combs(4, { shared: false })))[0]!.says).toContain('second hole')
  })
  it('fit by their bare ends as well as by their count', () => {
    const p = combs(15)
    const plain = fitChoices(p).find((c) => c.way === 'plain')!
    expect(plain.fit.differenceMm).toBeCloseTo(0, 0)
    expect(plain.plainMm).not.toBe(10)
    const technique = requireTechnique('cuff-ribs')
    const work = basisOf(onlyPart(begun(165)))
    for (const n of [1, 7, 36])
      expect(technique.growth.rowsFor(technique.growth.lengthOf({ ...work, rows: n }), work)).toBeCloseTo(n, 9)
  })
  it('are threaded on wire, not on the thread of the piece; cuff and cutters are said', () => {
    const p = combs(4)
    expect(holeChecks(p, onlyPart(p)).every(({ verdict, leastMm }) => verdict === 'easy' && leastMm < 0.33)).toBe(true)
    const thick = combs(4, { gauge: 20 })
    expect(holeChecks(thick, onlyPart(thick)).map(({ verdict }) => verdict)).toContain('no')
    expect(needsFor(p)).toMatchObject([{ name: 'Rigid cuff, 20 mm wide', count: 1 }])
    expect(toolsFor(p)).toContain('Wire cutters')
    expect(runs([2, 1], [1, 2])).toEqual([1, 1, 2])
  })
})
