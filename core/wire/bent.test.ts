import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireSpec as spec } from '../bead/spec'
import { loopWireMm } from '../hang/pin'
import { wireDiameterMm } from '../units/wire-gauge'
import { bendMm, hoopWireMm, looseBeads, PLAY_MM, POST_MM, studWireMm } from './bent'
import { wireTakenMm } from './section'

describe('small bent shapes', () => {
  it('a bar of 12 mm on 22 gauge: eight 11/0 and 27.6 mm of wire; its post about 10 mm (common practice)', () => {
    expect(POST_MM).toBe(10)
    const wireMm = wireDiameterMm(22)
    expect(bendMm(Math.PI / 2, 0.5, wireMm)).toBeCloseTo(1.29, 2)
    expect(studWireMm(12, { wireMm, jawMm: 0.5, postMm: 10 })).toBeCloseTo(27.6, 1)
    const bar = looseBeads(12, spec('round-11').l)
    expect(bar.count).toBe(8)
    expect(bar.playMm).toBeCloseTo(0.8, 9)
    // A circle of 10 mm, open by 3.
    expect(looseBeads(Math.PI * 10 - 3, wireTakenMm(spec('round-11'), 5)!).count).toBe(19)
  })
  it('a hoop of 25 mm inside on 20 gauge: 92.8 mm of wire, 31 × 8/0', () => {
    const wireMm = wireDiameterMm(20)
    expect(hoopWireMm(25, wireMm, loopWireMm(1.5))).toBeCloseTo(92.8, 1)
    expect(Math.floor((Math.PI * (25 + wireMm) - 14) / wireTakenMm(spec('round-8'), (25 + wireMm) / 2)!)).toBe(31)
  })
  it('wire grows by a mm for a mm of bar, by π for one of a hoop; loose beads keep their play (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 6, max: 60, noNaN: true }),
        fc.double({ min: 1, max: 6, noNaN: true }),
        (run, taken) => {
          const of = { wireMm: 0.7, jawMm: 0.5, postMm: 10 }
          expect(studWireMm(run + 1, of) - studWireMm(run, of)).toBeCloseTo(1, 9)
          expect(hoopWireMm(run + 1, 0.7, 8) - hoopWireMm(run, 0.7, 8)).toBeCloseTo(Math.PI, 9)
          const { count, playMm } = looseBeads(run, taken)
          expect(count * taken + playMm).toBeCloseTo(run, 9)
          if (count > 0) expect(playMm).toBeGreaterThanOrEqual(PLAY_MM - 1e-6)
          expect(looseBeads(run, taken + 0.5).count).toBeLessThanOrEqual(count)
        },
      ),
    )
    expect(looseBeads(0.2, 2)).toEqual({ count: 0, playMm: 0.2 })
  })
})
