import { describe, expect, it } from 'vitest'
import { rowPiece, runs } from '../../../tests/fixture/rows'
import { beginPiece } from '../../begin/begin'
import { extentOf } from '../../fit/extent'
import { linesOf } from '../../grid/lines'
import { taskAt } from '../../making/agenda'
import { courseOf } from '../../making/chore'
import { patternSteps } from '../../pattern/plan'
import { centreOf } from '../../piece/drawing'
import { rowsOf, type Part, type Piece } from '../../piece/piece'
import { settingSteps } from '../../piece/recast'
import { applySteps } from '../../piece/step'
import { partFindings } from '../../proof/finding'
import { valueOf } from '../../problem'
import { cutList, holeChecks, pathOf } from '../../supply/thread'
import { needsFor } from '../../supply/tools'
import { tallyPart } from '../../tally/tally'
import { rowWords } from '../../tally/words'
import { usualClosure } from '../../wear/closure'

const onlyPart = (p: Piece): Part => p.parts[0]!
const elastic = { closure: usualClosure('elastic'), easeMm: -2 }
const begun = (bodyMm: number, settings = {}, spec = 'round-11') =>
  beginPiece({
    ...{ kind: 'bracelet', name: 'New', wearer: '', bodyMm, easeMm: -2, widthMm: 20, settings },
    ...{ closure: usualClosure('elastic'), technique: 'pins', spec, motif: 'plain', start: 'left' },
  })
const strip = (rows: readonly (readonly number[])[], settings = {}, spec = 'round-11') =>
  rowPiece('pins', [spec, spec], rows, { settings, fit: elastic })

describe('rows on pins', () => {
  it('are 70 to 100 for a wrist (common practice), from the pitch of a pin and the wrist', () => {
    for (const bodyMm of [150, 165, 180, 190]) {
      const count = rowsOf(onlyPart(begun(bodyMm)))
      expect(count).toBeGreaterThanOrEqual(70)
      expect(count).toBeLessThanOrEqual(100)
      // The band lies outside the wrist: π times its thickness longer, at 2.1 a pin.
      expect(count).toBe(Math.round((bodyMm - 2 + Math.PI * 2.1) / 2.1))
    }
  })
  it('hold as many beads as lie on a pin, by their lengths', () => {
    const filled = (pin: number, spec = 'round-11') =>
      tallyPart(onlyPart(begun(165, { pin }, spec))).get(1)! / rowsOf(onlyPart(begun(165, { pin }, spec)))
    // Nine on a small pin (common practice): 9 × 1.4 = 12.6.
    expect([filled(13), filled(20), filled(14), filled(13.9)]).toEqual([9, 14, 10, 9])
    expect(filled(20, 'round-8')).toBe(9)
  })
  it('stand closer head and foot in turn than one way with a ring between', () => {
    const length = (settings: object) => {
      const p = strip(Array(10).fill(runs([14, 1])), settings)
      return extentOf(p, onlyPart(p)).lengthMm.nominal
    }
    expect(length({ stand: 'in turn' })).toBeCloseTo(10 * 2.1, 9)
    expect(length({ stand: 'one way', ring: 1.2 })).toBeCloseTo(10 * 3.3, 9)
    // A pin is thicker than the finest bead.
    const fine = rowPiece('pins', ['round-15'], [[1, 1]], { times: 5, fit: elastic })
    expect(extentOf(fine, onlyPart(fine)).lengthMm.nominal).toBeCloseTo(5 * 1.5, 9)
  })
  it('are turned about in turn: the same picture, strung from the other end', () => {
    const p = strip([runs([2, 1], [1, 2]), runs([2, 1], [1, 2])], { stand: 'in turn' })
    expect(rowWords(onlyPart(p), 0).runs).toEqual([
      { count: 2, number: 1 },
      { count: 1, number: 2 },
    ])
    expect(rowWords(onlyPart(p), 1).runs).toEqual([
      { count: 1, number: 2 },
      { count: 2, number: 1 },
    ])
    expect(centreOf(onlyPart(p), 2, 0).x).toBeCloseTo(centreOf(onlyPart(p), 2, 1).x, 9)
    const short = strip([runs([4, 1]), runs([2, 1])], { stand: 'in turn' })
    // A shorter row hangs at its own head.
    expect(centreOf(onlyPart(short), 1, 1).x).toBeCloseTo(centreOf(onlyPart(short), 3, 0).x, 9)
  })
  it('are carried by two elastics of about twice the wrist, and by two cords where another closes them', () => {
    const p = begun(165)
    expect(pathOf(onlyPart(p), p).runs).toEqual([])
    expect(cutList(p)).toMatchObject([{ id: 'elastic', pieces: 2, cutMm: 400 }])
    const clasped = { ...p, fit: { ...p.fit, closure: usualClosure('toggle') } }
    expect(pathOf(onlyPart(clasped), clasped).runs).toMatchObject([{ id: 'cord', count: 2 }])
  })
  it('ask for a pin each, and rings where they stand one way', () => {
    expect(needsFor(strip(Array(8).fill([1, 1])))).toMatchObject([{ name: 'Pins with 20 mm of room', count: 8 }])
    expect(needsFor(strip(Array(8).fill([1, 1]), { stand: 'one way' }))[1]).toMatchObject({ count: 16 })
    expect(holeChecks(strip([[1, 1]], {}, 'round-15'), onlyPart(strip([[1, 1]], {}, 'round-15')))[0]).toMatchObject({
      verdict: 'no',
      passes: 1,
    })
  })
  it('say which pin is overfull, which holds another count, and where the ring closes wrongly', () => {
    const codes = (p: Piece) => partFindings(onlyPart(p), p).map(({ code }) => code)
    expect(codes(strip(Array(4).fill(runs([14, 1]))))).toEqual([])
    const over = strip([runs([14, 1]), runs([15, 1]), runs([14, 1]), runs([14, 1])])
    expect(codes(over)).toEqual(['pin-short', 'pin-uneven'])
    expect(partFindings(onlyPart(over))[0]!.says).toContain('Pin 2 holds 21 mm of beads and has room for 20 mm')
    expect(codes(strip(Array(5).fill(runs([14, 1]))))).toEqual(['pin-odd'])
    expect(codes(strip(Array(5).fill(runs([14, 1])), { stand: 'one way' }))).toEqual([])
  })
  it('take more beads with longer pins; what lies stays', () => {
    const p = strip(Array(3).fill(runs([13, 1], [1, 2])))
    const longer = valueOf(applySteps(p, settingSteps(p, onlyPart(p), { ...onlyPart(p).settings, pin: 30 }, 1)))
    expect(tallyPart(onlyPart(longer)).get(1)).toBe(3 * 13)
    expect(tallyPart(onlyPart(longer)).get(2)).toBe(3 * 8)
  })
  it('take figures as a grid does: shifted by one each row, or turned back with a single turning row', () => {
    const laid = (figure: 'slant' | 'diamond') => {
      const p = rowPiece('pins', ['round-11', 'round-11', 'round-11'], [runs([6, 1])], { times: 10, fit: elastic })
      const wish = { figure, sequence: [1, 2, 3] }
      const { steps } = patternSteps(p, onlyPart(p), null, { kind: 'figure', wish })
      const done = valueOf(applySteps(p, steps))
      return linesOf(onlyPart(done).repeat).map((line) => Array.from(line).join(''))
    }
    expect(laid('slant')).toEqual(['123123', '231231', '312312'])
    // 1 2 3 2 and again: the third row turns, once.
    expect(laid('diamond')).toEqual(['123321', '232232', '321123', '212212'])
    const ladder = rowPiece('rung-ladder', ['cube-3-mm'], [runs([9, 1])])
    const refused = patternSteps(ladder, onlyPart(ladder), null, {
      kind: 'figure',
      wish: { figure: 'slant', sequence: [1] },
    })
    expect(refused.steps).toEqual([])
    expect(refused.notes[0]).toContain('lie each for itself')
  })
  it('can hurt: that is said before the first pin, once', () => {
    const tasks = courseOf(strip(Array(4).fill([1, 1])), { copies: 2, copyOrder: 'in turn' })
    const said = Array.from({ length: tasks.count }, (_, k) => taskAt(tasks, k)!.chore?.cautions ?? []).flat()
    expect(said.filter((caution) => caution.includes('eye protection'))).toHaveLength(1)
  })
})
