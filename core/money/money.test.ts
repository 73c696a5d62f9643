import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  amountIn,
  CURRENCIES,
  plainMoney,
  priceOf,
  requireCurrency,
  roundMoney,
  showMoney,
  tryParseMoney,
} from './money'

const read = (text: string, code = 'EUR') => {
  const result = tryParseMoney(text, code)
  return result.ok ? result.value : result.problems[0]!.code
}

describe('money', () => {
  it('is rounded half away from zero, once (commercial rounding)', () => {
    expect([0.5, 1.5, 2.5, -0.5, -2.5, 2.4999].map(roundMoney)).toEqual([1, 2, 3, -1, -3, 2])
    expect(roundMoney(1.005 * 100)).toBe(101)
    expect(priceOf(7, 10, 345)).toBe(242) // 241.5
    expect(priceOf(7, 0, 345)).toBe(0)
  })
  it('is shown and read in its own smallest unit', () => {
    expect(showMoney(1234, 'EUR')).toBe('€\u00A012.34')
    expect(showMoney(-5, 'GBP')).toBe('−£\u00A00.05')
    expect(showMoney(450, 'JPY')).toBe('¥\u00A0450')
    expect([amountIn(1234, 'EUR'), amountIn(1234, 'JPY')]).toEqual([12.34, 1234])
    expect([read('12,5'), read('€ 12.34'), read('7'), read('450 JPY', 'JPY')]).toEqual([1250, 1234, 700, 450])
    expect([read('a lot'), read('1.234'), read('4.5', 'JPY'), read('-3'), read('999999999')]).toEqual([
      'money-unread',
      'money-unread',
      'money-unread',
      'money-unread',
      'money-far',
    ])
  })
  it('goes out and comes back', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 99_999_999 }), fc.constantFrom(...CURRENCIES), (minor, { code }) => {
        expect(read(plainMoney(minor, requireCurrency(code).decimals), code)).toBe(minor)
        expect(read(showMoney(minor, code), code)).toBe(minor)
      }),
    )
  })
})
