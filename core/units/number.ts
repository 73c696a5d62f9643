import { bad, good, problem, type Result } from '../problem'
import { isGrouped, showNumber } from './length'

/** What a number in a form may be. */
export interface Bounds {
  readonly least: number
  readonly most: number
  readonly whole: boolean
}

/**
 * Reads a number as people type it, with a point or a comma, and holds it to its bounds; the sentence says what to
 * type. `unit` may follow it.
 */
export function tryParseNumber(text: string, { least, most, whole }: Bounds, unit = ''): Result<number> {
  const behind = unit === '' ? '' : ` ${unit}`
  const plain = text.trim()
  const number =
    unit !== '' && plain.toLowerCase().endsWith(unit.toLowerCase()) ? plain.slice(0, -unit.length).trim() : plain
  const value =
    /^[−-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)$/.test(number) && !isGrouped(number)
      ? Number(number.replace('−', '-').replace(',', '.'))
      : NaN
  const range = `from ${show(least)} to ${show(most)}${behind}`
  if (!Number.isFinite(value))
    return bad(
      problem(
        'number-unread',
        'number',
        plain === '' ? `Type a number ${range}.` : `“${plain}” is not a number here. Type one ${range}.`,
      ),
    )
  if (whole && !Number.isInteger(value)) return bad(problem('number-whole', 'number', `Type a whole number ${range}.`))
  if (value < least - 1e-9) return bad(problem('number-small', 'number', `At least ${show(least)}${behind}, please.`))
  if (value > most + 1e-9) return bad(problem('number-large', 'number', `At most ${show(most)}${behind}, please.`))
  return good(value)
}

const show = (n: number): string =>
  showNumber(n, Number.isInteger(n) ? 0 : Math.min(3, String(n).split('.')[1]?.length ?? 0))
