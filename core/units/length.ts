import { bad, good, problem, type Result } from '../problem'

/** One inch in millimetres, exactly (international yard and pound agreement, 1959). */
export const MM_PER_INCH = 25.4

export type LengthUnit = 'mm' | 'in'

export const mmFromInch = (inch: number): number => inch * MM_PER_INCH
export const inchFromMm = (mm: number): number => mm / MM_PER_INCH

const FACTOR: Record<string, number> = {
  'mm': 1,
  'millimetre': 1,
  'millimetres': 1,
  'millimeter': 1,
  'millimeters': 1,
  'cm': 10,
  'centimetre': 10,
  'centimetres': 10,
  'centimeter': 10,
  'centimeters': 10,
  'm': 1000,
  'metre': 1000,
  'metres': 1000,
  'meter': 1000,
  'meters': 1000,
  'in': MM_PER_INCH,
  'inch': MM_PER_INCH,
  'inches': MM_PER_INCH,
  '"': MM_PER_INCH,
  'ft': 12 * MM_PER_INCH,
  'foot': 12 * MM_PER_INCH,
  'feet': 12 * MM_PER_INCH,
  "'": 12 * MM_PER_INCH,
}

/**
 * Signs that stand for the same: primes and quotation marks as they are typed and printed, two single ones for a
 * double one.
 */
const asTyped = (text: string): string => text.replaceAll(/[′’‘]/g, "'").replaceAll(/[″”“]|''/g, '"')

const VULGAR: Record<string, string> = {
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
}

const NUMBER = String.raw`(?:\d+(?:[.,]\d+)?|[.,]\d+)`
const LENGTH = new RegExp(
  String.raw`^(?:(${NUMBER})(?:[\s-]+(\d+)\s*/\s*(\d+))?|(\d+)\s*/\s*(\d+))\s*([a-z]+|["'])?\.?$`,
)

/** Feet and inches together: 1 ft 6 1/2 in, 5'6". */
const FEET_AND_INCHES = /^(\d+)\s*(?:ft|feet|foot|')\.?\s*(\d.*)$/

/** Largest length that is taken as meant, in mm: a hundred metres. */
const LONGEST_MM = 100_000

/**
 * Reads a length as people type it: `7 1/4 in`, `18,5 cm`, `7¼"`, `184`. A number without a unit is in `unit`.
 * Returns millimetres, not rounded.
 */
export function tryParseLength(text: string, unit: LengthUnit): Result<number> {
  let plain = asTyped(text.trim().toLowerCase())
  for (const [sign, fraction] of Object.entries(VULGAR)) plain = plain.replace(sign, ` ${fraction}`)
  plain = plain.replaceAll('⁄', '/').replace(/\s+/g, ' ').trim()
  // Thousands may be set apart, as they are when shown: 12 500 mm.
  plain = plain.replace(/^\d{1,3}(?: \d{3})+(?![\d/])/, (grouped) => grouped.replaceAll(' ', ''))
  if (plain === '') return bad(problem('length-empty', 'length', `Type a length, for example ${example(unit)}.`))
  const both = FEET_AND_INCHES.exec(plain)
  if (both) {
    const inches = tryParseLength(both[2]!, 'in')
    return inches.ok && /^[\d\s./]+(?:in|inch|inches|")?$/.test(both[2]!)
      ? within(Number(both[1]) * FACTOR.ft! + inches.value)
      : bad(problem('length-unread', 'length', `“${text.trim()}” is not a length. Type it like 1 ft 6 in.`))
  }
  if (isGrouped(plain))
    return bad(
      problem(
        'length-comma',
        'length',
        `Is the comma in “${text.trim()}” a decimal one? Type ` +
          `${plain.replace(',', '.').replace(/^(\d+\.\d+?)0+(?=\D|$)/, '$1')} or ${plain.replace(',', '')}.`,
      ),
    )
  const match = LENGTH.exec(plain)
  if (!match)
    return bad(problem('length-unread', 'length', `“${text.trim()}” is not a length. Type it like ${example(unit)}.`))
  const [, whole, over, under, loneOver, loneUnder, suffix] = match
  const factor = suffix === undefined ? FACTOR[unit]! : FACTOR[suffix]
  if (factor === undefined)
    return bad(problem('length-unit', 'length', `“${suffix}” is not a unit known here. Use mm, cm, m, in or ft.`))
  const divisor = Number(under ?? loneUnder ?? 1)
  if (divisor === 0)
    return bad(problem('length-unread', 'length', 'A fraction cannot have 0 below the line. Type it like 7 1/4 in.'))
  const value = Number((whole ?? '0').replace(',', '.')) + Number(over ?? loneOver ?? 0) / divisor
  return within(value * factor)
}

const within = (mm: number): Result<number> =>
  !Number.isFinite(mm) || mm > LONGEST_MM
    ? bad(problem('length-far', 'length', 'That is longer than 100 m. Check the unit.'))
    : good(mm)

/**
 * Whether a number is written with a comma before exactly three digits: one and a half to some, fifteen hundred to
 * others.
 */
export const isGrouped = (text: string): boolean => /^[1-9]\d{0,2},\d{3}(?!\d)/.test(text.trim())

const example = (unit: LengthUnit): string => (unit === 'in' ? '7 1/4 in' : '184 mm or 18,5 cm')

/** Inches as a whole number and a fraction to the nearest sixteenth, half up: 184 mm → `7 1/4`. */
export function inchFraction(mm: number): string {
  const sixteenths = Math.round(Math.abs(inchFromMm(mm)) * 16)
  const sign = mm < 0 && sixteenths > 0 ? '−' : ''
  const whole = Math.floor(sixteenths / 16)
  let over = sixteenths % 16
  let under = 16
  while (over > 0 && over % 2 === 0) {
    over /= 2
    under /= 2
  }
  if (over === 0) return `${sign}${whole}`
  return whole === 0 ? `${sign}${over}/${under}` : `${sign}${whole} ${over}/${under}`
}

interface LengthStyle {
  readonly unit: LengthUnit
  readonly decimals?: number
}

/**
 * Shows a length. Rounding happens here and only here: mm to `decimals` (default 0), half away from zero;
 * inches to the nearest sixteenth.
 */
export function showLength(mm: number, { unit, decimals = 0 }: LengthStyle): string {
  return unit === 'in' ? `${inchFraction(mm)} in` : `${showNumber(mm, decimals)} mm`
}

/** A number with a fixed count of decimals, thin spaces between thousands and a true minus sign. */
export function showNumber(value: number, decimals = 0): string {
  const scale = 10 ** decimals
  const rounded = (Math.sign(value) * Math.round(Math.abs(value) * scale + 1e-9)) / scale
  const [whole = '0', fraction] = Math.abs(rounded).toFixed(decimals).split('.')
  const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, '\u202F') : whole
  return `${rounded < 0 ? '−' : ''}${grouped}${fraction === undefined ? '' : `.${fraction}`}`
}

/** A number as formulas show it, so that they can be reckoned again: up to three decimals, nothing set apart. */
export const plainNumber = (value: number): string => String(Math.round(value * 1000) / 1000)

/** Long thread in metres, short in the chosen unit: 1 240 mm → `1.24 m`; in inches → feet are not used, inches are. */
export function showLongLength(mm: number, unit: LengthUnit): string {
  if (unit === 'in')
    return mm >= 36 * MM_PER_INCH ? `${showNumber(inchFromMm(mm) / 36, 1)} yd` : `${inchFraction(mm)} in`
  return mm >= 1000 ? `${showNumber(mm / 1000, 2)} m` : `${showNumber(mm / 10)} cm`
}
