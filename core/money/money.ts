import { bad, good, problem, type Result } from '../problem'

/** Money is a whole number of a currency's smallest unit: cents, pence, yen. Nothing is kept in fractions of it. */
interface Currency {
  readonly code: string
  readonly name: string
  readonly sign: string
  /** Digits behind the point (ISO 4217). */
  readonly decimals: number
}

const currency = (code: string, name: string, sign: string, decimals = 2): Currency => ({ code, name, sign, decimals })

export const CURRENCIES: readonly Currency[] = [
  currency('EUR', 'euro', '€'),
  currency('USD', 'US dollar', '$'),
  currency('GBP', 'pound sterling', '£'),
  currency('CHF', 'Swiss franc', 'Fr.'),
  currency('CAD', 'Canadian dollar', 'C$'),
  currency('AUD', 'Australian dollar', 'A$'),
  currency('SEK', 'Swedish krona', 'kr'),
  currency('CZK', 'Czech koruna', 'Kč'),
  currency('PLN', 'Polish zloty', 'zł'),
  currency('INR', 'Indian rupee', '₹'),
  currency('MXN', 'Mexican peso', 'MX$'),
  currency('JPY', 'Japanese yen', '¥', 0),
]

export const CURRENCY_CODES = CURRENCIES.map((c) => c.code)

export function requireCurrency(code: string): Currency {
  const found = CURRENCIES.find((c) => c.code === code)
  if (!found) throw new Error(`no currency has the code ${JSON.stringify(code)}`)
  return found
}

/**
 * Rounds to whole smallest units, half away from zero (commercial rounding). Every line of a sum is rounded once, so
 * that the lines add up to the total that is shown.
 */
export const roundMoney = (amount: number): number => {
  // A product like 1.005 × 100 falls short of its half by less than this.
  const whole = Math.sign(amount) * Math.floor(Math.abs(amount) + 0.5 + 1e-9)
  return whole === 0 ? 0 : whole
}

/** What `amount` costs where `per` costs `minor`. */
export const priceOf = (amount: number, per: number, minor: number): number =>
  per > 0 ? roundMoney((amount / per) * minor) : 0

/** 1234 of EUR → `€ 12.34`. */
export function showMoney(minor: number, code: string): string {
  const { sign, decimals } = requireCurrency(code)
  return `${minor < 0 ? '−' : ''}${sign}\u00A0${plainMoney(Math.abs(minor), decimals)}`
}

/** 1234 of EUR → 12.34, of JPY → 1234: an amount in the currency itself, for charts. */
export const amountIn = (minor: number, code: string): number => minor / 10 ** requireCurrency(code).decimals

/** Digits only, with a point: for fields and files. */
export function plainMoney(minor: number, decimals: number): string {
  const text = String(Math.abs(minor)).padStart(decimals + 1, '0')
  const body = decimals === 0 ? text : `${text.slice(0, -decimals)}.${text.slice(-decimals)}`
  return minor < 0 ? `-${body}` : body
}

/** Largest amount that is taken as meant, in smallest units. */
export const MOST_MONEY = 100_000_000

/** Reads an amount as people type it: `12.5`, `12,50 €`, `€12`. */
export function tryParseMoney(text: string, code: string): Result<number> {
  const { sign, decimals, code: letters } = requireCurrency(code)
  const plain = text.trim().replace(sign, '').replace(new RegExp(letters, 'i'), '').trim()
  const match = /^(\d{1,9})(?:[.,](\d+))?$/.exec(plain)
  const fraction = match?.[2] ?? ''
  if (!match || fraction.length > decimals)
    return bad(
      problem(
        'money-unread',
        'price',
        `“${text.trim()}” is not an amount. Type it like ${decimals === 0 ? '450' : '4.50'}.`,
      ),
    )
  const minor = Number(match[1]) * 10 ** decimals + Number(fraction.padEnd(decimals, '0') || 0)
  return minor > MOST_MONEY
    ? bad(problem('money-far', 'price', 'That is more than this list can hold. Check the amount.'))
    : good(minor)
}
