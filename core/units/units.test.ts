import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import convert from 'convert'
import { inchFromMm, mmFromInch, tryParseLength } from './length'
import { CARD, PLAIN_PX_PER_MM } from './screen'
import { gbFromIso, HALF_US_SIZE_MM, isoFromGb, isoFromUs, ringSize, usFromIso } from './ring-size'
import { nearestWireGauge, wireDiameterMm } from './wire-gauge'

describe('lengths and weights against a registry library', () => {
  it('inch and millimetre agree with it', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 2000, noNaN: true }), (value) => {
        expect(mmFromInch(value)).toBeCloseTo(convert(value, 'inches').to('millimeters'), 6)
        expect(inchFromMm(value)).toBeCloseTo(convert(value, 'millimeters').to('inches'), 9)
      }),
    )
  })
  it.each([
    ['7 1/4 in', 7.25, 'inches'],
    ['18.5 cm', 18.5, 'centimeters'],
    ['0.19 m', 0.19, 'meters'],
    ['184 mm', 184, 'millimeters'],
  ] as const)('%s is read as the library reads it', (text, value, unit) => {
    const read = tryParseLength(text, 'mm')
    expect(read.ok && read.value).toBeCloseTo(convert(value, unit).to('millimeters'), 9)
  })
  it('a bank card is 85.60 × 53.98 mm (ISO/IEC 7810, ID-1), and 96 pixels an inch are 3.78 a millimetre', () => {
    expect(CARD).toEqual({ widthMm: 85.6, heightMm: 53.98 })
    expect(PLAIN_PX_PER_MM).toBeCloseTo(96 / convert(1, 'inches').to('millimeters'), 12)
  })
})

describe('wire gauge', () => {
  it.each([
    [18, 1.024],
    [20, 0.812],
    [22, 0.644],
    [24, 0.511],
    [26, 0.405],
    [28, 0.321],
  ])('%d is %d mm thick (ASTM B258)', (gauge, mm) => {
    expect(wireDiameterMm(gauge)).toBeCloseTo(mm, 3)
  })
  it('is exact at its two fixed sizes: 36 is 0.005 in, 0 is 0.325 in (ASTM B258, 0.3249)', () => {
    expect(wireDiameterMm(36)).toBeCloseTo(0.127, 12)
    expect(wireDiameterMm(0) / 25.4).toBeCloseTo(0.3249, 4)
  })
  it('grows thinner with the number, and goes back', () => {
    for (let g = 1; g <= 40; g++) {
      expect(wireDiameterMm(g)).toBeLessThan(wireDiameterMm(g - 1))
      expect(nearestWireGauge(wireDiameterMm(g))).toBe(g)
    }
    expect(() => wireDiameterMm(20.5)).toThrow('20.5')
  })
})

describe('ring sizes', () => {
  it('United States 7 is 17.3 mm across and 54.4 round (0.458 in + 0.032 in × size, from memory)', () => {
    expect(ringSize(isoFromUs(7)).diameterMm).toBeCloseTo(17.32, 2)
    expect(isoFromUs(7)).toBeCloseTo(54.42, 2)
    expect(ringSize(54).us).toBe(6.75)
  })
  it('British C is 40 mm round and every letter 1.25 mm (BS 6820, from memory)', () => {
    expect(isoFromGb('C')).toBe(40)
    expect(isoFromGb('L')).toBe(51.25)
    expect(isoFromGb('L 1/2')).toBe(51.875)
    expect(isoFromGb('Z+2')).toBe(71.25)
    expect(gbFromIso(51.9)).toBe('L ½')
    expect(gbFromIso(20)).toBe('under A')
    expect([isoFromGb(''), isoFromGb('A+1'), isoFromGb('7')]).toEqual([null, null, null])
  })
  it('go to the other systems and back', () => {
    fc.assert(
      fc.property(fc.double({ min: 38, max: 80, noNaN: true }), (iso) => {
        expect(isoFromUs(usFromIso(iso))).toBeCloseTo(iso, 9)
        expect(Math.abs(isoFromGb(gbFromIso(iso))! - iso)).toBeLessThanOrEqual(0.3125 + 1e-9)
        expect(ringSize(iso).iso).toBe(iso)
      }),
    )
  })
  it('half a United States size is 1.28 mm round', () => expect(HALF_US_SIZE_MM).toBeCloseTo(1.2767, 4))
})
