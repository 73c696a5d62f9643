import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { converter, differenceCiede2000, parse } from 'culori'
import { deltaE00 } from './ciede2000'
import { contrast, difference, hexOf, inkOn, luminance, rgbOf } from './colour'
import { cieLab, LINEAR, levelOf, linearOf, okLab } from './spaces'

describe('colour', () => {
  it('has the luminance and contrast of IEC 61966-2-1 and WCAG 2.2', () => {
    expect(luminance('#ffffff')).toBeCloseTo(1, 6)
    expect(luminance('#000000')).toBe(0)
    // WCAG: linear part below 0.04045; #808080 → ((128/255 + 0.055) / 1.055)^2.4
    expect(luminance('#808080')).toBeCloseTo(((128 / 255 + 0.055) / 1.055) ** 2.4, 6)
    expect(contrast('#ffffff', '#000000')).toBeCloseTo(21, 6)
    expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2)
  })
  it('has no difference from itself and is the same both ways', () => {
    const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`)
    fc.assert(
      fc.property(hex, hex, (a, b) => {
        expect(difference(a, a)).toBe(0)
        expect(difference(a, b)).toBeCloseTo(difference(b, a), 6)
        expect(hexOf(rgbOf(a))).toBe(a)
      }),
    )
  })
  it('chooses the ink that can be read on any colour', () => {
    const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`)
    fc.assert(
      fc.property(hex, (colour) => {
        expect(contrast(colour, inkOn(colour))).toBeGreaterThan(4)
      }),
    )
  })
})

describe('the difference ΔE00', () => {
  // Sharma, Wu, Dalal 2005: the 34 pairs, L a b, L a b, ΔE00
  it.each([
    [50.0, 2.6772, -79.7751, 50.0, 0.0, -82.7485, 2.0425],
    [50.0, 3.1571, -77.2803, 50.0, 0.0, -82.7485, 2.8615],
    [50.0, 2.8361, -74.02, 50.0, 0.0, -82.7485, 3.4412],
    [50.0, -1.3802, -84.2814, 50.0, 0.0, -82.7485, 1.0],
    [50.0, -1.1848, -84.8006, 50.0, 0.0, -82.7485, 1.0],
    [50.0, -0.9009, -85.5211, 50.0, 0.0, -82.7485, 1.0],
    [50.0, 0.0, 0.0, 50.0, -1.0, 2.0, 2.3669],
    [50.0, -1.0, 2.0, 50.0, 0.0, 0.0, 2.3669],
    [50.0, 2.49, -0.001, 50.0, -2.49, 0.0009, 7.1792],
    [50.0, 2.49, -0.001, 50.0, -2.49, 0.001, 7.1792],
    [50.0, 2.49, -0.001, 50.0, -2.49, 0.0011, 7.2195],
    [50.0, 2.49, -0.001, 50.0, -2.49, 0.0012, 7.2195],
    [50.0, -0.001, 2.49, 50.0, 0.0009, -2.49, 4.8045],
    [50.0, -0.001, 2.49, 50.0, 0.001, -2.49, 4.8045],
    [50.0, -0.001, 2.49, 50.0, 0.0011, -2.49, 4.7461],
    [50.0, 2.5, 0.0, 50.0, 0.0, -2.5, 4.3065],
    [50.0, 2.5, 0.0, 73.0, 25.0, -18.0, 27.1492],
    [50.0, 2.5, 0.0, 61.0, -5.0, 29.0, 22.8977],
    [50.0, 2.5, 0.0, 56.0, -27.0, -3.0, 31.903],
    [50.0, 2.5, 0.0, 58.0, 24.0, 15.0, 19.4535],
    [50.0, 2.5, 0.0, 50.0, 3.1736, 0.5854, 1.0],
    [50.0, 2.5, 0.0, 50.0, 3.2972, 0.0, 1.0],
    [50.0, 2.5, 0.0, 50.0, 1.8634, 0.5757, 1.0],
    [50.0, 2.5, 0.0, 50.0, 3.2592, 0.335, 1.0],
    [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
    [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
    [61.2901, 3.7196, -5.3901, 61.4292, 2.248, -4.962, 1.8731],
    [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
    [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
    [36.4612, 47.858, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146],
    [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
    [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
    [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
    [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
  ])('of (%f, %f, %f) and (%f, %f, %f) is %f', (l1, a1, b1, l2, a2, b2, wanted) => {
    expect(deltaE00(l1, a1, b1, l2, a2, b2)).toBeCloseTo(wanted, 4)
    expect(deltaE00(l2, a2, b2, l1, a1, b1)).toBeCloseTo(wanted, 4)
  })
  it('agrees with the library from the registry on any colours', () => {
    const channel = fc.integer({ min: 0, max: 255 })
    fc.assert(
      fc.property(fc.tuple(channel, channel, channel), fc.tuple(channel, channel, channel), (x, y) => {
        const lab = new Float64Array(6)
        cieLab(LINEAR[x[0]]!, LINEAR[x[1]]!, LINEAR[x[2]]!, lab, 0)
        cieLab(LINEAR[y[0]]!, LINEAR[y[1]]!, LINEAR[y[2]]!, lab, 3)
        const hex = ([r, g, b]: readonly number[]) => hexOf({ r: r!, g: g!, b: b! })
        const lab65 = (c: readonly number[]) => converter('lab65')(parse(hex(c)))!
        expect(deltaE00(lab[0]!, lab[1]!, lab[2]!, lab[3]!, lab[4]!, lab[5]!)).toBeCloseTo(
          differenceCiede2000()(lab65(x), lab65(y)),
          2,
        )
      }),
    )
  })
})

describe('conversions on plain numbers', () => {
  it('are those of the library from the registry, and OKLab goes back', () => {
    const channel = fc.integer({ min: 0, max: 255 })
    fc.assert(
      fc.property(channel, channel, channel, (r, g, b) => {
        const colour = parse(hexOf({ r, g, b }))!
        const out = new Float64Array(3)
        okLab(LINEAR[r]!, LINEAR[g]!, LINEAR[b]!, out, 0)
        const ok = converter('oklab')(colour)
        expect([out[0], out[1], out[2]]).toEqual([
          expect.closeTo(ok.l, 5),
          expect.closeTo(ok.a, 5),
          expect.closeTo(ok.b, 5),
        ])
        linearOf(out[0]!, out[1]!, out[2]!).forEach((v, i) => expect(levelOf(v)).toBeCloseTo([r, g, b][i]!, 1))
        cieLab(LINEAR[r]!, LINEAR[g]!, LINEAR[b]!, out, 0)
        const lab = converter('lab65')(colour)
        expect([out[0], out[1], out[2]]).toEqual([
          expect.closeTo(lab.l, 2),
          expect.closeTo(lab.a, 2),
          expect.closeTo(lab.b, 2),
        ])
      }),
    )
  })
})
