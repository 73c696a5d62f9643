import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { settle, STEADY, weighed } from './reading'

const readings = (...values: number[]) => values.map((value) => ({ value, steady: true }))

describe('readings', () => {
  it('settle on their middle; one wild reading does not move it', () => {
    expect(settle(readings(14.62, 14.63, 14.61, 14.62, 99), STEADY.scale)).toMatchObject({
      value: 14.62,
      steady: true,
    })
    expect(settle([], STEADY.scale)).toBeNull()
  })
  it('that swing are not believed, nor those that the device itself calls unsteady', () => {
    expect(settle(readings(14, 14.1, 14.2, 14.3, 14.4), STEADY.scale)!.steady).toBe(false)
    expect(
      settle(
        readings(14, 14, 14).map((r) => ({ ...r, steady: false })),
        STEADY.scale,
      )!.steady,
    ).toBe(false)
  })
  it('lie between the least and the most', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 500, noNaN: true }), { minLength: 1, maxLength: 9 }), (values) => {
        const settled = settle(readings(...values), 1)!
        expect(settled.value).toBeGreaterThanOrEqual(Math.min(...values))
        expect(settled.value).toBeLessThanOrEqual(Math.max(...values))
      }),
    )
  })
})

describe('a tube on the scale', () => {
  it('less its own weight is so many beads: 14.62 g in a tube of 2.30 g are 12.32 g, 2402 cylinders 11/0', () => {
    expect(weighed({ value: 14.62, spread: 0.01, steady: true }, 2.3, 195)).toEqual({
      grams: 12.32,
      count: 2402,
      countSpread: 2,
    })
  })
  it('that weighs more than the reading holds nothing', () =>
    expect(weighed({ value: 2, spread: 0, steady: true }, 2.3, 195)).toMatchObject({ grams: 0, count: 0 }))
})
