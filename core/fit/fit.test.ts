import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { BEAD_SPECS, requireSpec } from '../bead/spec'
import { beginBracelet, usualClosure, type BraceletWish } from '../piece/begin'
import { checkPiece } from '../piece/codec'
import { columnsOf, rowsOf, workOf } from '../piece/piece'
import { columnStepOf } from '../piece/recast'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { MOTIFS } from '../pattern/motif'
import { extentOf, mixedSizes } from './extent'
import { beadworkFor, closesAt, feelOf, fitBracelet, rowsForLength } from './bracelet'
import { valueOf } from '../problem'
import { applySteps } from '../piece/step'
import { tallyPart, totalOf } from '../tally/tally'
import { choiceSteps, fitChoices } from './choices'
import { CLOSURES } from './closure'

describe('the bracelet reckoning', () => {
  it('follows by hand: 170 mm wrist, 13 mm room, 1.6 mm thick, 14 mm toggle', () => {
    // inside 183; centre line 183 + π × 1.6 = 188.03; beadwork 188.03 − 14 = 174.03
    expect(beadworkFor(183, 1.6, 14)).toBeCloseTo(174.0265, 3)
  })
  it('goes from inside to beadwork and back', () => {
    fc.assert(fc.property(fc.double({ min: 100, max: 400, noNaN: true }), fc.double({ min: 0.5, max: 20, noNaN: true }), fc.double({ min: 0, max: 60, noNaN: true }), (inside, t, closure) => {
      expect(closesAt(beadworkFor(inside, t, closure), t, closure)).toBeCloseTo(inside, 9)
    }))
  })
  it('asks 20 to 37 mm more for a thick rope than for a ribbon (common practice: ropes of 6.5 to 12 mm)', () => {
    const more = (t: number) => beadworkFor(183, t, 0) - 183
    expect(more(6.5)).toBeGreaterThan(20)
    expect(more(11.8)).toBeLessThan(37.2)
  })
  it('says what a band of counted rows closes at', () => {
    // 106 bead rows of cylinder 11/0 peyote: 170.4 mm; closes at 170.4 + 14 − π 1.6 = 179.37; room on 170: 9.37 → close
    const p = piece({ parts: [part({ start: rows('AAAA'), repeat: rows('AAAA', 'AAAA'), end: rows('AAAA'), times: 52 })] })
    const fit = fitBracelet(p.fit, p.parts[0]!)
    expect(fit.beadworkMm.nominal).toBeCloseTo(170.4, 9)
    expect(fit.insideMm.nominal).toBeCloseTo(179.373, 3)
    expect(fit.feel).toBe('close')
    expect(fit.differenceMm).toBeCloseTo(179.373 - 183, 3)
    expect(fit.insideMm.most - fit.insideMm.nominal).toBeCloseTo(170.4 * 0.05, 9)
  })
  it('names the feel at its bounds (common practice: close 6, easy 13, loose 19 to 25 mm)', () => {
    expect([-1, 0, 6, 13, 19, 25, 40].map(feelOf)).toEqual(['will not close', 'tight', 'close', 'easy', 'loose', 'loose', 'too loose'])
  })
})

describe('choices', () => {
  it('hold n and n + 1 whole repeats, never hide the remainder, and count beads right', () => {
    fc.assert(fc.property(anyPiece, (p) => {
      const one = p.parts[0]!
      const choices = fitChoices(p.fit, one)
      if (one.repeat.rows === 0) { expect(choices).toEqual([]); return }
      const exact = (rowsForLength(one, fitBracelet(p.fit, one).targetMm) - one.start.rows - one.end.rows) / one.repeat.rows
      const n = Math.max(1, Math.floor(exact + 1e-9))
      const whole = choices.filter(c => c.whole && c.closure.kind === p.fit.closure.kind).map(c => c.times)
      expect(whole).toEqual(expect.arrayContaining([n, n + 1]))
      for (const c of choices) {
        expect(c.fit.differenceMm).toBeCloseTo(c.fit.insideMm.nominal - (p.fit.wristMm + p.fit.easeMm), 9)
        const again = fitBracelet({ ...p.fit, closure: c.closure }, one, one.start.rows + one.end.rows + c.times * one.repeat.rows + c.startRows + c.endRows)
        expect(again.insideMm.nominal).toBeCloseTo(c.fit.insideMm.nominal, 9)
      }
      expect(new Set(choices.map(c => c.id)).size).toBe(choices.length)
    }))
  })
  it('offers plain rows that bring it within half a row', () => {
    const p = piece({ parts: [part({ start: rows('AAAA'), repeat: rows(...Array<string>(10).fill('AABB')), end: rows('AAAA'), times: 1 })] })
    const plain = fitChoices(p.fit, p.parts[0]!).find(c => c.startRows > 0)!
    expect(Math.abs(plain.fit.differenceMm)).toBeLessThanOrEqual(requireSpec('cylinder-11').d / 2 + 1e-9)
  })
  it('taken, give the fit and, without empty places, the beads that they promised', () => {
    fc.assert(fc.property(anyPiece, (p) => {
      const one = p.parts[0]!
      const before = totalOf(tallyPart(one))
      for (const choice of fitChoices(p.fit, one)) {
        const next = valueOf(applySteps(p, choiceSteps(p, one, choice)))
        const fit = fitBracelet(next.fit, next.parts[0]!)
        expect(fit.insideMm.nominal).toBeCloseTo(choice.fit.insideMm.nominal, 9)
        expect(fit.feel).toBe(choice.fit.feel)
        if (choice.startRows >= 0 && choice.endRows >= 0) expect(totalOf(tallyPart(next.parts[0]!)) - before).toBe(choice.beadsMore)
        if (choice.current) expect(next).toBe(p)
      }
    }))
  })
  it('never takes rows from an end that has none (once it did)', () => {
    const p = piece({ parts: [part({ technique: 'loom', settings: {}, start: rows('AA', 'AA', 'AA', 'AA'), repeat: rows('AA', 'BB', 'AA'), end: { columns: 2, rows: 0, blocks: [] }, times: 4 })] })
    for (let wristMm = 120; wristMm < 140; wristMm++) {
      for (const choice of fitChoices({ ...p.fit, wristMm }, p.parts[0]!)) {
        expect(choice.endRows).toBeGreaterThanOrEqual(0)
        expect(choice.startRows).toBeGreaterThanOrEqual(-3)
      }
    }
  })
  it('a longer wrist never asks for fewer beads', () => {
    fc.assert(fc.property(anyPiece, fc.integer({ min: 100, max: 200 }), fc.integer({ min: 0, max: 60 }), (p, wrist, more) => {
      const one = p.parts[0]!
      if (one.repeat.rows === 0) return
      const least = (wristMm: number) => Math.min(...fitChoices({ ...p.fit, wristMm }, one).filter(c => c.whole && !c.current && c.closure.kind === p.fit.closure.kind).map(c => c.beads))
      expect(least(wrist + more)).toBeGreaterThanOrEqual(least(wrist))
    }))
  })
})

describe('rows with beads of other sizes', () => {
  // Grid cylinder 11/0 (l 1.3, d 1.6); C is a round 8/0 (l 2.1, d 3.0): 0.8 mm wider, 1.4 mm longer.
  const tray = [bead(1), bead(2), bead(3, { spec: 'round-8' })]
  it('are as wide as the widest row and as long as the largest bead of each', () => {
    const one = part({ technique: 'square', settings: requireTechnique('square').settings.parse({}), start: rows('AAAA'), repeat: rows('ACCA', 'AAAA'), end: rows('CAAA'), times: 3 })
    expect(mixedSizes(one, tray)).toEqual({ widerMm: expect.closeTo(1.6, 9) as number, longerMm: expect.closeTo(4 * 1.4, 9) as number })
    // 8 rows × 1.6 + 5.6 long; 4 × 1.3 + 1.6 wide
    expect(extentOf(one, tray).lengthMm.nominal).toBeCloseTo(18.4, 9)
    expect(extentOf(one, tray).widthMm.nominal).toBeCloseTo(6.8, 9)
    expect(extentOf(one, tray).lengthFormula).toContain('+ 5.6 mm for beads of other sizes')
    expect(fitBracelet(piece().fit, one, undefined, tray).beadworkMm.nominal).toBeCloseTo(18.4, 9)
  })
  it('of one size are as the stitch says', () => {
    const one = part({ start: rows('AAAA'), repeat: rows('ABBA'), end: rows('AAAA') })
    expect(mixedSizes(one, tray)).toEqual({ widerMm: 0, longerMm: 0 })
    expect(mixedSizes({ ...one, technique: 'herringbone', settings: requireTechnique('herringbone').settings.parse({}), repeat: rows('ACCA') }, tray)).toEqual({ widerMm: 0, longerMm: 0 })
  })
  it('change what comes near: a band of larger beads needs fewer repeats', () => {
    const one = part({ technique: 'square', settings: requireTechnique('square').settings.parse({}), start: rows('AAAA'), repeat: rows('AAAA', 'CCCC'), end: rows('AAAA'), times: 40 })
    const best = (t: typeof tray) => fitChoices(piece().fit, one, t).filter(c => !c.current)[0]!
    expect(best(tray).times).toBeLessThan(best([]).times)
    expect(Math.abs(best(tray).fit.differenceMm)).toBeLessThan(2.5)
  })
})

describe('a piece just begun', () => {
  const anyWish: fc.Arbitrary<BraceletWish> = fc.record({
    name: fc.constant('First'), wearer: fc.constant(''), wristMm: fc.integer({ min: 120, max: 220 }), easeMm: fc.integer({ min: 0, max: 25 }),
    closure: fc.constantFrom(...CLOSURES.map(c => usualClosure(c.kind))), widthMm: fc.integer({ min: 5, max: 60 }),
    technique: fc.constantFrom(...TECHNIQUES.map(t => t.id)), spec: fc.constantFrom(...BEAD_SPECS.map(s => s.id)), motif: fc.constantFrom(...MOTIFS.map(m => m.id)), start: fc.constantFrom('left' as const, 'right' as const),
  })
  it('is sound, is near the width, and closes within half a row of what the wrist takes', () => {
    fc.assert(fc.property(anyWish, (wish) => {
      const p = beginBracelet(wish)
      expect(checkPiece(p)).toEqual([])
      const one = p.parts[0]!
      const technique = requireTechnique(wish.technique)
      const width = (columns: number) => technique.widthOf({ columns, bead: requireSpec(wish.spec), settings: one.settings })
      // Near the width: the counts next to it, of those that the stitch allows, are no nearer.
      const off = (columns: number) => Math.abs(width(columns) - wish.widthMm)
      for (const columns of [columnsOf(one) - columnStepOf(one), columnsOf(one) + columnStepOf(one)]) {
        if (columns >= technique.nearestColumns(1, one.settings)) expect(off(columnsOf(one))).toBeLessThanOrEqual(off(columns) + 1e-6)
      }
      const fit = fitBracelet(p.fit, one)
      const perRow = technique.lengthOf({ ...workOf(one, 12) }) - technique.lengthOf({ ...workOf(one, 11) })
      if (rowsOf(one) > one.repeat.rows + 4) expect(Math.abs(fit.differenceMm)).toBeLessThanOrEqual(perRow / 2 + 1e-6)
    }))
  })
})
