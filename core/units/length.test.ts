import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inchFraction, inchFromMm, mmFromInch, showLength, showLongLength, showNumber, tryParseLength } from './length'

const read = (text: string, unit: 'mm' | 'in' = 'mm') => {
  const result = tryParseLength(text, unit)
  return result.ok ? result.value : result.problems[0]!.code
}

describe('the inch', () => {
  it('is 25.4 mm exactly (international yard and pound agreement, 1959)', () => {
    expect(mmFromInch(1)).toBe(25.4)
    expect(inchFromMm(25.4)).toBe(1)
    expect(mmFromInch(36)).toBeCloseTo(914.4, 10)
  })
})

describe('lengths as people type them', () => {
  it.each([
    ['7 1/4 in', 184.15],
    ['7-1/4"', 184.15],
    ['7¼ in', 184.15],
    ['18,5 cm', 185],
    ['18.5cm', 185],
    ['184', 184],
    ['1/2 in', 12.7],
    ['½"', 12.7],
    ['.5 in', 12.7],
    ['0,19 m', 190],
    ['  170 MM ', 170],
    ['7″', 177.8],
    ['7 inches', 177.8],
    [`7 1/4''`, 184.15],
    ['7 1/4’’', 184.15],
    ['1 ft', 304.8],
    ['1 ft 6 in', 457.2],
    [`5'6 1/2"`, 1689.1],
    ['2 feet', 609.6],
    ['0,125 in', 3.175],
    ['1,50 m', 1500],
    ['1,5000 m', 1500],
  ])('%s is %d mm', (text, mm) => expect(read(text)).toBeCloseTo(mm, 9))

  it('takes thousands set apart, as it shows them, and no fraction for thousands', () => {
    expect(read('12 500 mm', 'mm')).toBe(12_500)
    expect(read(`${showNumber(50_000)} mm`, 'mm')).toBe(50_000)
    expect(read('7 100/200 in', 'in')).toBeCloseTo(7.5 * 25.4, 9)
  })
  it('asks back where a comma may stand for thousands or for decimals', () => {
    const asked = tryParseLength('1,500 mm', 'mm')
    expect(asked.ok ? '' : asked.problems[0]!.says).toBe(
      'Is the comma in “1,500 mm” a decimal one? Type 1.5 mm or 1500 mm.',
    )
  })
  it('takes a bare number in the unit of the person', () => expect(read('7 1/4', 'in')).toBeCloseTo(184.15, 9))

  it.each([
    ['', 'length-empty'],
    ['long', 'length-unread'],
    ['7 1/0 in', 'length-unread'],
    ['7 furlongs', 'length-unit'],
    ['1e9', 'length-unread'],
    ['999999 m', 'length-far'],
    ['-4 mm', 'length-unread'],
    ['1,500 mm', 'length-comma'],
    ['12,500', 'length-comma'],
    ['1,500.5', 'length-comma'],
    ['400 ft', 'length-far'],
    ['1 ft 6 mm', 'length-unread'],
    ['1 ft long', 'length-unread'],
  ])('%j is refused as %s with a sentence', (text, code) => {
    expect(read(text)).toBe(code)
    const result = tryParseLength(text, 'mm')
    expect(result.ok ? '' : result.problems[0]!.says).toMatch(/\.$/)
  })

  it('reads back what it shows, to the rounding it names', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20_000 }), (tenths) => {
        const mm = tenths / 10
        expect(
          Math.abs(Number(read(showLength(mm, { unit: 'mm', decimals: 1 }).replace('\u202F', ''))) - mm),
        ).toBeLessThan(1e-9)
        expect(Math.abs(Number(read(showLength(mm, { unit: 'in' }))) - mm)).toBeLessThanOrEqual(25.4 / 32 + 1e-9)
      }),
    )
  })
})

describe('shown lengths', () => {
  it('reduces fractions', () => {
    expect(inchFraction(184.15)).toBe('7 1/4')
    expect(inchFraction(12.7)).toBe('1/2')
    expect(inchFraction(25.4)).toBe('1')
    expect(inchFraction(-12.7)).toBe('−1/2')
    expect(inchFraction(0)).toBe('0')
  })
  it('rounds once, half away from zero, with grouped thousands', () => {
    expect(showNumber(2756)).toBe('2756')
    expect(showNumber(12756)).toBe('12\u202F756')
    expect(showNumber(2.5)).toBe('3')
    expect(showNumber(-2.5)).toBe('−3')
    expect(showNumber(1.005, 2)).toBe('1.01')
    expect(showNumber(-0.001, 1)).toBe('0.0')
  })
  it('shows thread in metres or yards', () => {
    expect(showLongLength(1240, 'mm')).toBe('1.24 m')
    expect(showLongLength(4835, 'mm')).toBe('4.84 m')
    expect(showLongLength(430, 'mm')).toBe('43 cm')
    expect(showLongLength(914.4 * 2, 'in')).toBe('2.0 yd')
    expect(showLongLength(254, 'in')).toBe('10 in')
  })
})
