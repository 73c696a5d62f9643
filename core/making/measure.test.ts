import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, part, piece } from '../../tests/fixture/piece'
import { choiceSteps, fitChoices } from '../fit/choices'
import { extentOf } from '../fit/extent'
import { laidRows } from '../piece/laid'
import { partRow, rowsOf } from '../piece/piece'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { rowListOf } from './agenda'
import { beadRowsAt, madeMm, meaningOf, measureRows } from './measure'

const band = (times: number) => piece({ parts: [part({ times })] })

describe('how long it should be by now', () => {
  it('grows with the rows, from nothing to the length of the whole, in any technique', () => {
    fc.assert(
      fc.property(anyPiece, (p) => {
        const one = p.parts[0]!
        const list = rowListOf(p, one)
        const at = Array.from({ length: list.count + 1 }, (_, k) => beadRowsAt(one, list, k))
        const mm = at.map((n) => madeMm(p, one, n))
        expect([at[0], mm[0]]).toEqual([0, 0])
        for (let k = 1; k < mm.length; k++) expect(mm[k]! + 1e-9).toBeGreaterThanOrEqual(mm[k - 1]!)
        expect(at.at(-1)).toBeLessThanOrEqual(rowsOf(one))
      }),
    )
  })
  it('comes at the end to what the whole is', () => {
    const p = band(100)
    const { tray, gauges, supply } = p
    expect(madeMm(p, p.parts[0]!, laidRows(p.parts[0]!))).toBeCloseTo(
      extentOf({ tray, gauges, supply }, p.parts[0]!).lengthMm.nominal,
      9,
    )
  })
})

describe('where it is measured', () => {
  it('is after the first inch, at a third and near the end; once where it is short, never where it is tiny', () => {
    const p = band(60)
    const one = p.parts[0]!
    const list = rowListOf(p, one)
    const whole = madeMm(p, one, rowsOf(one))
    const stops = measureRows(p, one, list)
    expect(stops).toHaveLength(3)
    const at = stops.map(({ k }) => madeMm(p, one, beadRowsAt(one, list, k)))
    for (const [k, wanted] of [25.4, whole / 3, whole * 0.85].entries()) {
      expect(at[k]!).toBeGreaterThanOrEqual(wanted)
      expect(madeMm(p, one, beadRowsAt(one, list, stops[k]!.k - 1))).toBeLessThan(wanted)
    }
    const count = (times: number) => {
      const own = band(times)
      return measureRows(own, own.parts[0]!, rowListOf(own, own.parts[0]!)).length
    }
    expect([count(1), count(20), count(45)]).toEqual([0, 1, 3])
    // What was measured stays where it was, in place of the stop that is near.
    const [first, third, last] = stops.map((s) => s.k)
    const at2 = (measured: number[]) => measureRows(p, one, list, measured).map((s) => s.k)
    expect(at2([third! - 3])).toEqual([first, third! - 3, last])
    expect(at2([first!, third!])).toEqual([first, third, last])
    expect(at2([140])).toEqual([first, third, 140, last])
    expect(at2([0, 9999])).toEqual([first, third, last])
    const gauged = { ...p, gauges: meaningOf(p, one, { rows: 44, mm: 90, at: 'here' }).gauges }
    expect(measureRows(gauged, one, list)).toEqual(stops)
  })
})

describe('what a measure means', () => {
  const p = band(60)
  const one = p.parts[0]!
  const rows = 44
  const should = madeMm(p, one, rows)
  it('as foreseen changes nothing; longer makes the whole as much longer', () => {
    const same = meaningOf(p, one, { rows, mm: should, at: 'here' })
    expect(same.fit.beadworkMm.nominal).toBeCloseTo(same.planned.beadworkMm.nominal, 6)
    expect([same.rate, same.strange]).toEqual([1, false])
    const longer = meaningOf(p, one, { rows, mm: should * 1.05, at: 'here' })
    expect(longer.rate).toBeCloseTo(1.05, 9)
    expect(longer.fit.beadworkMm.nominal / longer.planned.beadworkMm.nominal).toBeCloseTo(1.05, 6)
    // All that a bracelet is longer goes into its round.
    expect(longer.fit.atMm - longer.planned.atMm).toBeCloseTo(0.05 * longer.planned.beadworkMm.nominal, 6)
    expect(meaningOf(p, one, { rows, mm: should * 1.3, at: 'here' }).strange).toBe(true)
  })
  it('of one place counts once, the last', () => {
    const first = meaningOf(p, one, { rows, mm: should * 1.2, at: 'here' })
    const again = meaningOf({ ...p, gauges: first.gauges }, one, { rows, mm: should * 1.02, at: 'here' })
    expect(again.gauges[0]!.swatches).toHaveLength(1)
    const both = meaningOf({ ...p, gauges: again.gauges }, one, { rows: 80, mm: 100, at: 'there' })
    expect(both.gauges[0]!.swatches.map((s) => s.from)).toEqual(['here', 'there'])
  })
})

describe('choices of fit while it is made', () => {
  it('leave every row that is made as it is, in any technique', () => {
    let seen = 0
    fc.assert(
      fc.property(anyPiece, fc.integer({ min: 1, max: 20 }), (p, made) => {
        const one = p.parts[0]!
        const there = Math.min(made, rowsOf(one))
        if (there === 0) return
        for (const choice of fitChoices(p, there)) {
          const next = valueOf(applySteps(p, choiceSteps(p, choice)))
          const after = next.parts.find((x) => x.id === one.id)!
          expect(rowsOf(after)).toBeGreaterThanOrEqual(there)
          for (let r = 0; r < there; r++) expect([...partRow(after, r)]).toEqual([...partRow(one, r)])
          expect(after.spec).toBe(one.spec)
          expect(after.settings).toEqual(one.settings)
          seen++
        }
      }),
    )
    expect(seen).toBeGreaterThan(50)
  })
  it('are still many where little is made, and few where nearly all is', () => {
    const p = band(60)
    expect(fitChoices(p, 4).length).toBeGreaterThan(fitChoices(p, rowsOf(p.parts[0]!)).length)
    expect(fitChoices(p, rowsOf(p.parts[0]!)).some((c) => c.way === 'whole' && c.current)).toBe(true)
  })
})
