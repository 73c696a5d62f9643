import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { contrast, difference, hexOf, inkOn, luminance, rgbOf } from './colour'

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
    const hex = fc.integer({ min: 0, max: 0xFFFFFF }).map(n => `#${n.toString(16).padStart(6, '0')}`)
    fc.assert(fc.property(hex, hex, (a, b) => {
      expect(difference(a, a)).toBe(0)
      expect(difference(a, b)).toBeCloseTo(difference(b, a), 6)
      expect(hexOf(rgbOf(a))).toBe(a)
    }))
  })
  it('chooses the ink that can be read on any colour', () => {
    const hex = fc.integer({ min: 0, max: 0xFFFFFF }).map(n => `#${n.toString(16).padStart(6, '0')}`)
    fc.assert(fc.property(hex, (colour) => { expect(contrast(colour, inkOn(colour))).toBeGreaterThan(4) }))
  })
})
