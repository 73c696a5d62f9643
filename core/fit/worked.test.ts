import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { WORKED } from '../../tests/fixture/worked'
import { workedExamplesText } from '../../tests/fixture/worked-doc'
import { fitsWell } from './feel'
import { fitOf } from './reckon'
import { beadsToBuy } from '../supply/beads'
import { cutList } from '../supply/thread'

/**
 * Reckoned by hand, outside the program: wanted finished measure, beadwork planned, finished measure reached (mm);
 * beads of A and what must be in the bag; the first thing to cut (mm): path × 1.05 + sewing + two tails of 200 + joins
 * × 300, up to 100; as many joins j as make (j + 1) × 1800 ≥ that length.
 */
const BY_HAND: readonly (readonly [
  wanted: number,
  planned: number,
  reached: number,
  count: number,
  need: number,
  cut: number,
])[] = [
  // 170 + 13; 108.5 × 1.6; 173.6 + 14 − π 1.6; A: 8 × 8 rows × 10 + 12 × 10; × 1.1 ÷ 0.95; 215 × 14.6 × 1.05 + 120 +
  // 400 + 2 joins × 300 = 4416
  [183, 173.6, 182.573, 760, 880, 4500],
  // 165 + 6; 70 × 2.1; the chain reaches it; A: 6 × 6 × 9 + 10 × 9; weft 70 × (29.2 + 4.2) = 2338 → 2455 + 120 + 400 +
  // 300
  [171, 147, 171, 414, 480, 3300],
  // 158 + 6; 306.5 × 1.6; (490.4 + 12 + 8) ÷ 3 − π 1.6; A: 12 × 16 × 6 + 18 × 6; 611 × 9.4 = 5743 → 6031 + 180 + 400 +
  // 4 × 300
  [164, 490.4, 165.107, 1260, 1459, 7900],
  // the hand, 205; 108 × 2.1, zipped; − π × (11.2 / π + 2.1); A: 12 × 6 × 8; 215 × 13.3 = 2860 → 3002 + 400 + 2 × 300
  [205, 226.8, 209.003, 576, 668, 4100],
  // 190 − 2.5; 66 × 3; − π 3; A: 8 × 5 × 5 + 2 × 5; 330 × 12.3 = 4059 → 4262 + 400 + 2 × 300
  [187.5, 198, 188.575, 210, 244, 5300],
  // 172 × 0.78; 84 × 1.6; a cuff does not close; A: the repeat of 14 has 9 rows of it, 6 × 9 × 24; 84 × (72.4 + 3.2) =
  // 6350 → 6668 + 400 + 4 × 300
  [134.16, 134.4, 134.4, 1296, 1502, 8300],
  // 338 + 15; 286 × 1.3 cos 18° + 1.6 sin 18°; + 11 − 8 − π 1.6; A: 13 × 13 × 8 + 26 × 8; 286 × 20.8 = 5949 → 6246 +
  // 120 + 400 + 4 × 300
  [353, 354.097, 352.071, 1560, 1807, 8000],
  // 18 in; 264 × 1.7; + 11; A: 18 × 9 × 6 + 12 × 6; 1584 × 5.6 = 8870 → 9314 + 120 + 400 + 6 × 300
  [457.2, 448.8, 459.8, 1044, 1210, 11_700],
  // 54 + π × 0.4064; 38 × 1.6, zipped; − π 1.6; A: 25 of 38 rows × 6; 75 × 9.4 = 705 → 740 + 400
  [55.277, 60.8, 55.773, 150, 174, 1200],
  // the drop; 22.5 × 1.6 × (65.5 ÷ 64); + 3; A: 14 of 22 rows × 10, six of them; 43 × 14.6 = 628 → 659 + 60 + 400
  [40, 36.844, 39.844, 840, 973, 1200],
  // 170 + 13; 49 × 3.81 + 2 × 8; + 7 − π (1.9 × 3 + 3); A: 5 × 6 × 8 + 4 × 8; eight cords of 3 × 202.69 + 90 = 698
  [183, 202.69, 182.358, 272, 316, 5600],
  // 345 + 62; 124 × 10 × 2.1 ÷ (20.6999 ÷ 3.39); + 11 − π × 9.5; A: 9 × 8 × 10 + 16 × 10; wire 1240 × 2.1 × 1.05 + 80
  [407, 426.454, 407.609, 880, 1019, 2900],
  // the hand, 200; 84 units × 2.47487; − π 2.1; A: 56 of 84 rows × 7, the four that join the ends among them; 249 + 3
  // units × 12.6 = 3175 → 3334 + 400 + 2 × 300
  [200, 207.889, 201.292, 392, 455, 4400],
]

describe('the worked examples', () => {
  it('are at least ten, for different kinds, closures and stitches', () => {
    expect(WORKED).toHaveLength(BY_HAND.length)
    expect(WORKED.length).toBeGreaterThanOrEqual(10)
    expect(new Set(WORKED.map((w) => w.piece.fit.kind)).size).toBeGreaterThanOrEqual(6)
    expect(new Set(WORKED.map((w) => w.piece.fit.closure.kind)).size).toBeGreaterThanOrEqual(6)
    expect(new Set(WORKED.map((w) => w.piece.parts[0]!.technique)).size).toBeGreaterThanOrEqual(5)
  })
  it.each(WORKED.map((w, k) => [w.title, k] as const))('%s: the figures reckoned by hand', (_, k) => {
    const { piece } = WORKED[k]!
    const [wanted, planned, reached, count, need, cut] = BY_HAND[k]!
    const fit = fitOf(piece)
    expect(fit.wantedMm).toBeCloseTo(wanted, 2)
    expect(fit.beadworkMm.nominal).toBeCloseTo(planned, 2)
    expect(fit.atMm).toBeCloseTo(reached, 2)
    expect(fitsWell(fit.feel)).toBe(true)
    const [pale] = beadsToBuy(piece)
    expect([pale!.count, pale!.need]).toEqual([count, need])
    expect(cutList(piece)[0]!.totalMm).toBe(cut)
  })
  it('stand in the docs as the core reckons them', () => {
    expect(readFileSync(new URL('../../docs/worked-examples.md', import.meta.url), 'utf8')).toBe(workedExamplesText())
  })
})
