import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireSpec as spec } from '../bead/spec'
import {
  besidesMm,
  bowMm,
  centreOfPetals,
  freeSpanMm,
  lozengeOfThree,
  lozengeOfTwo,
  petalsRound,
  roundBead,
} from './cross'
import { supportMm } from './section'
import { frameOfLength, frameOfWidth, FRAME_SHAPES, type FrameForm } from './shape'

const form = (over: Partial<FrameForm> = {}): FrameForm => ({
  ...{ shape: 'circle', tall: 1, upper: 0.5, corners: 4, rounded: 0.15 },
  ...over,
})

describe('a row across a frame', () => {
  it('has the chord of the inner wall where the row reaches nearest to it: a circle by Pythagoras', () => {
    for (const [y, high] of [
      [0, 3],
      [4, 3],
      [-6, 2],
    ] as const)
      expect(freeSpanMm(frameOfWidth(form(), 20), y, high, 3)).toBeCloseTo(
        2 * Math.sqrt(8.5 ** 2 - (Math.abs(y) + high / 2) ** 2),
        3,
      )
    expect(freeSpanMm(frameOfWidth(form(), 20), 30, 3, 3)).toBe(0)
  })
  it('is no wider the higher the row, the thicker the frame (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FRAME_SHAPES),
        fc.double({ min: -6, max: 6, noNaN: true }),
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        fc.double({ min: 0.5, max: 4, noNaN: true }),
        (shape, y, high, thick) => {
          const curve = frameOfLength(
            form({ shape, tall: { oval: 1.5, egg: 1.25, drop: 2.2, heart: 2.2 }[shape as string] ?? 1, upper: 0.36 }),
            100,
          )
          const free = freeSpanMm(curve, y, high, thick)
          expect(freeSpanMm(curve, y, high + 0.5, thick)).toBeLessThanOrEqual(free + 1e-9)
          // Where a parallel of a kink crosses itself, its loop reaches out a little.
          expect(freeSpanMm(curve, y, high, thick + 0.5)).toBeLessThanOrEqual(free + 1e-3)
        },
      ),
      { numRuns: 40 },
    )
  })
  it('holds as many small beads beside a large one as there is room for, and bows where it is too long', () => {
    const six = besidesMm(18.4, 6, 2.1)
    expect(six.each).toBe(2)
    expect(six.leftMm).toBeCloseTo(4, 9)
    expect(besidesMm(4, 6, 2)).toEqual({ each: 0, leftMm: -2 })
    // One millimetre too much on 20; the short rule √(3 · 20 · 1 / 8) says 2.74.
    expect(bowMm(21, 20)).toBeCloseTo(2.76, 2)
    expect(bowMm(20, 20)).toBe(0)
    // A half circle over its diameter bows by its radius.
    expect(bowMm(Math.PI * 10, 20)).toBeCloseTo(10, 6)
  })
})

describe('beads round a bead', () => {
  it('small rounds round a ball: ⌊π / 2 asin (r / (R + r))⌋ of them half round', () => {
    expect([roundBead(spec('ball-2-mm'), 3, 'half'), roundBead(spec('ball-2-mm'), 3, 'whole')]).toEqual([6, 12])
    expect([roundBead(spec('round-11'), 3, 'half'), roundBead(spec('round-11'), 3, 'whole')]).toEqual([8, 17])
    expect([roundBead(spec('round-8'), 5, 'half'), roundBead(spec('round-8'), 5, 'whole')]).toEqual([9, 19])
    for (const [r, large] of [
      [1, 3],
      [1.5, 4],
    ] as const)
      expect(roundBead({ shape: 'ball', l: 2 * r, d: 2 * r }, large, 'half')).toBe(
        Math.floor(Math.PI / (2 * Math.asin(r / (large + r)))),
      )
  })
  it('petals close on a middle: balls on p (1 / sin (π / n) − 1), 8/0 and 11/0 as worked by hand', () => {
    for (const n of [5, 6, 7, 8, 10])
      expect(centreOfPetals(spec('ball-4-mm'), n)).toBeCloseTo(4 * (1 / Math.sin(Math.PI / n) - 1), 9)
    const by = (id: string, counts: number[]) => counts.map((n) => Number(centreOfPetals(spec(id), n).toFixed(2)))
    expect(by('round-8', [5, 6, 7, 8, 9, 10])).toEqual([1.17, 1.71, 2.29, 2.89, 3.5, 4.13])
    expect(by('round-11', [6, 8, 10, 12])).toEqual([1.11, 1.88, 2.69, 3.53])
    expect(centreOfPetals(spec('round-8'), 2)).toBe(0)
    const nine = petalsRound(spec('round-8'), 4)
    expect(nine.count).toBe(9)
    expect(nine.openMm).toBeCloseTo(1.8, 1)
    expect(petalsRound(spec('round-11'), 4)).toMatchObject({ count: 13 })
    expect(petalsRound({ shape: 'round', l: 2, d: 3 }, -1)).toEqual({ count: 0, openMm: 0 })
  })
  it('a middle rises with its petals, and holds no more petals than it was made for (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('round-8', 'round-11', 'ball-3-mm', 'cylinder-11', 'bicone-4-mm'),
        fc.integer({ min: 4, max: 24 }),
        (id, n) => {
          const centre = centreOfPetals(spec(id), n)
          expect(centreOfPetals(spec(id), n + 1)).toBeGreaterThan(centre)
          expect(petalsRound(spec(id), centre + 1e-6).count).toBe(n)
        },
      ),
    )
  })
})

describe('lozenges', () => {
  it('of three wires: bicones nest at half their thickness, balls at √3 / 2', () => {
    const bicone = lozengeOfThree(spec('bicone-4-mm'), 1.4)
    expect([bicone.tallMm, bicone.pitchMm]).toEqual([8, 9])
    expect(bicone.wiresMm.map((mm) => Number(mm.toFixed(2)))).toEqual([9, 10.72])
    expect(lozengeOfThree(spec('ball-4-mm'), 1.4).tallMm).toBeCloseTo(10.93, 2)
    expect(lozengeOfThree(spec('cylinder-8'), 1.4).asideMm).toBe(spec('cylinder-8').d)
  })
  it('of two wires rest at a right angle, where neighbours just touch (by lines that part them)', () => {
    const side = (id: string) => lozengeOfTwo(spec(id), spec(id)).sideMm
    expect(side('bicone-4-mm')).toBeCloseTo(4, 9)
    expect(side('ball-4-mm')).toBeCloseTo(4 * Math.SQRT2, 9)
    expect(side('round-8')).toBeCloseTo(3.66, 2)
    expect(lozengeOfTwo(spec('bicone-4-mm'), spec('bicone-4-mm')).pitchMm).toBeCloseTo(9.46, 2)
    const two = lozengeOfTwo(spec('round-8'), spec('round-11'))
    expect(two.wiresMm).toEqual([2 * two.sideMm + 1.4, 2 * two.sideMm + 1.4])
    expect(two.tallMm).toBeCloseTo(Math.SQRT2 * two.sideMm + 3, 9)
    for (const id of ['round-8', 'ball-3-mm']) {
      // Middles of neighbours lie half a side from the corner on lines at right angles.
      const far = side(id) / Math.SQRT2
      expect(far).toBeCloseTo(2 * supportMm(spec(id), Math.PI / 4), 9)
    }
  })
})
