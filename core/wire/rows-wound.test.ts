import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireSpec as spec } from '../bead/spec'
import { wireDiameterMm } from '../units/wire-gauge'
import {
  halfHull,
  onStem,
  outOf,
  sideGrowth,
  stemTurns,
  takenAlong,
  tipMm,
  woundRows,
  woundWireMm,
} from './rows-wound'

const STEM = { stemMm: wireDiameterMm(22), wireMm: wireDiameterMm(26) }
const stem = (...ids: string[]) => onStem(ids.map(spec))
const counts = (on: string[], rows: string[]) => woundRows(stem(...on), rows.map(spec), STEM).map(({ count }) => count)

describe('rows wound round a stem', () => {
  it('a 6 mm and a 3 mm bead: half outline 11.82, six 2 mm balls and ten 8/0 a side, 128 mm of wire', () => {
    expect(halfHull(stem('ball-6-mm', 'ball-3-mm'), 0).lengthMm).toBeCloseTo(11.82, 2)
    const rows = woundRows(stem('ball-6-mm', 'ball-3-mm'), [spec('ball-2-mm'), spec('round-8')], STEM)
    expect(rows.map(({ count }) => count)).toEqual([6, 10])
    expect(rows.map(({ curve }) => Number(curve.lengthMm.toFixed(2)))).toEqual([14.96, 22.82])
    expect(rows.map(({ turns }) => turns)).toEqual([
      { head: 2, foot: 2 },
      { head: 6, foot: 6 },
    ])
    expect(rows[0]!.slackMm).toBeCloseTo(0.95, 1)
    expect(woundWireMm(rows, STEM)).toBeCloseTo(128, 0)
  })
  it('four rows as worked by hand; one ball takes fewer than two', () => {
    const two = ['ball-6-mm', 'ball-3-mm']
    expect(counts(two, ['ball-2-mm', 'round-11', 'round-11', 'round-8'])).toEqual([6, 14, 19, 16])
    expect(counts(two, Array<string>(4).fill('round-11'))).toEqual([9, 14, 19, 24])
    expect(counts(['ball-6-mm'], Array<string>(4).fill('round-11'))).toEqual([8, 13, 17, 22])
  })
  it('each row is longer than the last by π times half of both (Steiner), whatever stands there (property)', () => {
    const any = fc.array(fc.constantFrom('ball-6-mm', 'ball-3-mm', 'ball-4-mm', 'round-8', 'bicone-4-mm'), {
      ...{ minLength: 1, maxLength: 5 },
    })
    fc.assert(
      fc.property(any, any, (on, rows) => {
        const thick = rows.map((id) => spec(id).d)
        const wound = woundRows(stem(...on), rows.map(spec), STEM)
        const half = halfHull(stem(...on), 0)
        expect(wound[0]!.curve.lengthMm - half.lengthMm).toBeCloseTo((Math.PI * thick[0]!) / 2, 3)
        for (let k = 1; k < rows.length; k++)
          expect(wound[k]!.curve.lengthMm - wound[k - 1]!.curve.lengthMm).toBeCloseTo(
            (Math.PI * (thick[k - 1]! + thick[k]!)) / 2,
            3,
          )
        // Cauchy: half of a convex outline is the integral of how far it reaches in each direction.
        let cauchy = 0
        const steps = 4000
        for (let k = 0; k < steps; k++) {
          const way = ((k + 0.5) / steps) * Math.PI - Math.PI / 2
          const reach = Math.max(...stem(...on).map(({ y, r }) => y * Math.sin(way) + r))
          cauchy += (reach * Math.PI) / steps
        }
        expect(half.lengthMm).toBeCloseTo(cauchy, 2)
        // It begins above and ends below on the stem, to the right of it.
        expect(half.at(0).x).toBeCloseTo(0, 6)
        expect(half.at(half.lengthMm).x).toBeCloseTo(0, 3)
        expect(half.at(half.lengthMm / 2).x).toBeGreaterThan(0)
      }),
      { numRuns: 60 },
    )
  })
  it('a larger bead of the row never fits more often; as many turns as the rows are thick, one at least', () => {
    const of = (id: string) => counts(['ball-6-mm'], [id])[0]!
    expect([of('round-11'), of('ball-2-mm'), of('ball-4-mm')]).toEqual([...[8, 5, 3]])
    expect(stemTurns(null, 2, 0.4)).toBe(3)
    expect(stemTurns(null, 0.1, 0.4)).toBe(1)
    expect(stemTurns(2, 3, 0.4)).toBe(6)
    expect(outOf([2, 3, 1])).toEqual([1, 3.5, 5.5])
    expect(takenAlong(halfHull(stem('ball-6-mm'), 1), spec('ball-2-mm'))).toBeCloseTo(2.1, 1)
    expect(halfHull([], 1).lengthMm).toBe(0)
    expect(takenAlong(halfHull([], 1), spec('ball-2-mm'))).toBe(2)
  })
  it('a tip of half angle α: R cot α in place of R (π / 2 − α), each row longer by π / 2 + α + cot α', () => {
    // By hand: a ball of 6 mm, tips of 45° to the stem.
    const ball = stem('ball-6-mm')
    const tip = Math.PI / 4
    const round = halfHull(ball, 0).lengthMm
    expect(halfHull(ball, 0, { head: tip }).lengthMm - round).toBeCloseTo(3 - (3 * Math.PI) / 4, 3)
    expect(halfHull(ball, 0, { head: tip, foot: tip }).lengthMm - round).toBeCloseTo(6 - (6 * Math.PI) / 4, 3)
    expect([sideGrowth({}), sideGrowth({ head: tip }), sideGrowth({ foot: Math.PI / 6 })]).toEqual([
      ...[expect.closeTo(Math.PI, 9), expect.closeTo(3.356, 3)],
      expect.closeTo(Math.PI / 2 + Math.PI / 6 + Math.sqrt(3), 9),
    ])
    // Its point stands R / sin α above the middle.
    expect(halfHull(ball, 1, { head: tip }).at(0).y).toBeCloseTo(3 - 4 * Math.SQRT2, 6)
    expect(tipMm(ball, 1, { head: tip }).head).toBeCloseTo(4 * Math.SQRT2 - 4, 6)
    expect(tipMm(ball, 1, {})).toEqual({ head: 0, foot: 0 })
    // Turns cross the stem at a slant: 1.4 times as much of it.
    expect(stemTurns(2, 3, 0.4, Math.PI / 6)).toBe(Math.round(5 / 0.8 / 0.5))
    const [row] = woundRows(ball, [spec('round-8')], { ...STEM, tips: { foot: tip } })
    expect(row!.turns).toEqual({ head: 4, foot: Math.round(3 / (2 * STEM.wireMm) / Math.SQRT1_2) })
    // What is free of beads: the stem and one winding at a slant, or the bead of the other side.
    const inset = STEM.stemMm / 2 + STEM.wireMm
    expect(row!.clearMm.head).toBeCloseTo(inset, 9)
    expect(row!.clearMm.foot).toBeCloseTo(inset * Math.SQRT2, 9)
    const [thick] = woundRows(ball, [spec('ball-6-mm')], { ...STEM, tips: { head: tip } })
    expect(thick!.clearMm.head).toBeCloseTo((Math.hypot(6, 6) - 6) / 2, 6)
    const [straight] = woundRows(ball, [spec('cylinder-8')], { ...STEM, tips: { head: Math.PI / 6 } })
    expect(straight!.clearMm.head).toBeCloseTo((spec('cylinder-8').d / 2) * Math.sqrt(3), 6)
    expect(thick!.fillMm).toBeCloseTo(thick!.curve.lengthMm - thick!.clearMm.head - inset, 9)
  })
  it('with tips it is the hull of what stands there and of both points, whatever that is (Cauchy, property)', () => {
    const any = fc.array(
      fc.record({ gap: fc.double({ min: 0, max: 6, noNaN: true }), r: fc.double({ min: 0.4, max: 6, noNaN: true }) }),
      { minLength: 1, maxLength: 6 },
    )
    const half = fc.option(fc.double({ min: 0.44, max: 1.3, noNaN: true }), { nil: undefined })
    fc.assert(
      fc.property(any, fc.double({ min: 0, max: 8, noNaN: true }), half, half, (standing, out, head, foot) => {
        let y = 0
        const on = standing.map(({ gap, r }) => ({ y: (y += gap), r }))
        const circles = on.map((one) => ({ ...one, r: one.r + out }))
        const curve = halfHull(on, out, { head, foot })
        const [top, bottom] = [curve.at(0), curve.at(curve.lengthMm)]
        let cauchy = 0
        const steps = 4000
        for (let k = 0; k < steps; k++) {
          const way = ((k + 0.5) / steps) * Math.PI - Math.PI / 2
          const reach = Math.max(
            ...circles.map((one) => one.y * Math.sin(way) + one.r),
            ...[top, bottom].map((point) => point.y * Math.sin(way)),
          )
          cauchy += (reach * Math.PI) / steps
        }
        expect(curve.lengthMm).toBeCloseTo(cauchy, 2)
        for (const { x } of [top, bottom]) expect(x).toBeCloseTo(0, 6)
        // It goes on and on to the right of the stem, bends one way only, and nothing lies outside it.
        const walk = curve.along(180)
        for (const at of walk) {
          expect(at.bend).toBeGreaterThanOrEqual(0)
          for (const one of circles) expect(Math.hypot(at.x, at.y - one.y)).toBeGreaterThan(one.r - 1e-6)
        }
        // Its sides lean to the stem as they are told, and it reaches as much farther as is said.
        const lean = (at: number) => Math.abs(curve.at(at).turnDegrees)
        if (head !== undefined) expect(lean(1e-6)).toBeCloseTo(90 - (head * 180) / Math.PI, 3)
        if (foot !== undefined) expect(lean(curve.lengthMm - 1e-6)).toBeCloseTo(90 + (foot * 180) / Math.PI, 3)
        const plain = halfHull(on, out)
        const more = tipMm(on, out, { head, foot })
        expect(plain.at(0).y - top.y).toBeCloseTo(more.head, 6)
        expect(bottom.y - plain.at(plain.lengthMm).y).toBeCloseTo(more.foot, 6)
      }),
      { numRuns: 150 },
    )
  })
})
