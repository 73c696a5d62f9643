import { FINISHES, type Finish } from '../bead/bead'
import { BEAD_SPECS, findSpec, requireSpec } from '../bead/spec'
import { closureOf, CLOSURES } from '../wear/closure'
import { plainMoney, requireCurrency, tryParseMoney } from '../money/money'
import { isGrouped } from '../units/length'
import { requireThread, THREADS } from '../thread/catalogue'
import { shelfValueSchema, type Stock } from '../shelf/shelf'
import { readCsv } from './grid-csv'
import { csv } from './tally-csv'

/**
 * The box as CSV (RFC 4180), one line for each thing: what it is (bead, thread, finding), its name, size or sort,
 * colour, finish, amount with its unit (g, m, pieces), weight of the tube, and price with its currency for so much.
 * Made to be read back and to be written by hand.
 */
const HEAD = [
  'what',
  'name',
  'size',
  'colour',
  'finish',
  'amount',
  'unit',
  'tube g',
  'price',
  'currency',
  'price for',
] as const

const UNIT = { bead: 'g', thread: 'm', finding: 'pieces' } as const

const round = (n: number, digits: number): number => Math.round(n * 10 ** digits) / 10 ** digits

export function writeBoxCsv(stock: readonly Stock[], currency: string): string {
  const { decimals } = requireCurrency(currency)
  const money = (price: number) => (price === 0 ? '' : plainMoney(price, decimals))
  return csv([
    HEAD,
    ...stock.map((s): (string | number)[] => {
      switch (s.kind) {
        case 'bead':
          return [
            'bead',
            s.name,
            s.spec.startsWith('own/') ? s.spec : requireSpec(s.spec).name,
            s.colour,
            s.finish,
            round(s.grams, 2),
            UNIT.bead,
            round(s.tubeGrams, 2),
            money(s.price),
            currency,
            `${s.packGrams} g`,
          ]
        case 'thread':
          return [
            'thread',
            s.name,
            requireThread(s.thread).name,
            '',
            '',
            round(s.lengthMm / 1000, 3),
            UNIT.thread,
            '',
            money(s.price),
            currency,
            `${round(s.spoolMm / 1000, 3)} m`,
          ]
        case 'finding':
          return [
            'finding',
            s.name,
            s.closure ? closureOf(s.closure.kind).name : '',
            '',
            '',
            s.count,
            UNIT.finding,
            '',
            money(s.price),
            currency,
            s.closure ? `${s.closure.lengthMm} mm closed` : '',
          ]
      }
    }),
  ])
}

/** A line that could not be read: where it stands in the file, and what to do. */
export interface BadLine {
  readonly line: number
  readonly text: string
  readonly says: string
}

interface ReadBox {
  readonly stock: readonly Stock[]
  readonly bad: readonly BadLine[]
}

const SPEC_BY_NAME = new Map(BEAD_SPECS.map((s) => [s.name.toLowerCase(), s.id]))
const THREAD_BY_NAME = new Map(THREADS.map((t) => [t.name.toLowerCase(), t.id]))
const CLOSURE_BY_NAME = new Map(CLOSURES.map((c) => [c.name.toLowerCase(), c.kind]))

const numberIn = (text: string): number | null => {
  const match = /^(\d+(?:[.,]\d+)?)/.exec(text.trim())
  // 1,500 may be meant either way, so it is no number.
  return match && !isGrouped(text) ? Number(match[1]!.replace(',', '.')) : null
}

type Fields = Partial<Record<string, string>>

/** Reads one line; a sentence where it cannot be. */
function stockOf(f: Fields, currency: string): unknown {
  const name = f.name?.trim() ?? ''
  if (name === '') return 'It has no name. Write one in the column “name”.'
  const amount = numberIn(f.amount ?? '')
  if (amount === null)
    return `“${f.amount ?? ''}” is not an amount. Write a number in the column “amount”, 0 if it is used up.`
  const priceText = f.price?.trim() ?? ''
  const price = priceText === '' ? null : tryParseMoney(priceText, currency)
  if (price && !price.ok) return price.problems[0]!.says
  const money = price?.ok ? price.value : 0
  const own = f.currency?.trim().toUpperCase() ?? ''
  if (money > 0 && own !== '' && own !== currency)
    return (
      `Its price is in ${own}, your workshop counts in ${currency}. Change the price, or the currency in the ` +
      'settings.'
    )
  const size = f.size?.trim() ?? ''
  switch (f.what?.trim().toLowerCase()) {
    case 'bead': {
      const spec = SPEC_BY_NAME.get(size.toLowerCase()) ?? (findSpec(size) ? size : undefined)
      if (!spec)
        return `“${size}” is not a size known here. Write it as in the reference, for example “cylinder 11/0”.`
      const colour = f.colour?.trim().toLowerCase() ?? ''
      if (!/^#[0-9a-f]{6}$/.test(colour)) return `“${f.colour ?? ''}” is not a colour. Write it like #1b7fa3.`
      const finish = (f.finish?.trim().toLowerCase() || 'opaque') as Finish
      if (!FINISHES.includes(finish)) return `“${f.finish}” is not a finish. Write one of ${FINISHES.join(', ')}.`
      return {
        kind: 'bead',
        name,
        spec,
        colour,
        finish,
        grams: amount,
        tubeGrams: numberIn(f['tube g'] ?? '') ?? 0,
        price: money,
        packGrams: numberIn(f['price for'] ?? '') || 10,
      }
    }
    case 'thread': {
      const thread = THREAD_BY_NAME.get(size.toLowerCase())
      if (!thread)
        return `“${size}” is not a thread known here. Write it as in the reference, for example “gel-spun 6 lb”.`
      return {
        kind: 'thread',
        name,
        thread,
        lengthMm: round(amount * 1000, 3),
        price: money,
        spoolMm: round((numberIn(f['price for'] ?? '') || 50) * 1000, 3),
      }
    }
    case 'finding': {
      if (!Number.isInteger(amount)) return 'Findings are counted in whole pieces.'
      const kind = CLOSURE_BY_NAME.get(size.toLowerCase())
      if (size !== '' && !kind)
        return `“${size}” is not a sort of closure known here. Leave the column empty for other findings.`
      return {
        kind: 'finding',
        name,
        count: amount,
        price: money,
        closure: kind ? { kind, lengthMm: numberIn(f['price for'] ?? '') ?? closureOf(kind).lengthMm } : null,
      }
    }
    default:
      return `“${f.what ?? ''}” is not bead, thread or finding. Write one of these in the column “what”.`
  }
}

const MOST_LINES = 5000

/**
 * Reads a box from CSV. Columns are found by their heads, in any order; a bad line is reported and the others are
 * read.
 */
export function readBoxCsv(text: string, currency: string): ReadBox {
  const lines = readCsv(text)
  const head = (lines[0] ?? []).map((h) => h.trim().toLowerCase())
  const missing = ['what', 'name', 'size', 'amount'].filter((h) => !head.includes(h))
  if (missing.length > 0)
    return {
      stock: [],
      bad: [
        {
          line: 1,
          text: (lines[0] ?? []).join(','),
          says:
            `The first line must name the columns; ${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} ` +
            'missing. Export your box to see how it is written.',
        },
      ],
    }
  const stock: Stock[] = []
  const bad: BadLine[] = []
  for (const [k, line] of lines.entries()) {
    if (k === 0 || line.every((f) => f.trim() === '')) continue
    if (k > MOST_LINES) {
      bad.push({ line: k + 1, text: '', says: `A file may have ${MOST_LINES} lines. Split it in two.` })
      break
    }
    const value = stockOf(Object.fromEntries(head.map((h, i) => [h, line[i]?.replace(/^'(?=[=+\-@])/, '')])), currency)
    const says = typeof value === 'string' ? value : null
    const parsed = says === null ? shelfValueSchema.safeParse(value) : null
    if (parsed?.success) stock.push(parsed.data as Stock)
    else
      bad.push({
        line: k + 1,
        text: line.join(', ').slice(0, 120),
        says:
          says ??
          `${parsed!.error!.issues[0]!.path.join(' ')}: ${parsed!.error!.issues[0]!.message}. Correct that field.`,
      })
  }
  return { stock, bad }
}
