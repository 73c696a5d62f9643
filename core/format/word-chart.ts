import { BEAD_SPECS, findSpec } from '../bead/spec'
import { laidCounted } from '../piece/laid'
import { columnsOf, rowsOf, techniqueOf, trayByNumber, type Part, type Piece } from '../piece/piece'
import { bad, good, problem, type Result } from '../problem'
import { asides, GAP, joinWords, allRowWords, rowNumbered, runText } from '../tally/words'
import { TECHNIQUES } from '../technique/registry'
import { titled, type Plan, type Settings, type Technique } from '../technique/technique'
import { parseJson } from '../units/text'
import { tooLarge, type ReadGrid } from './grid-csv'

/**
 * The word chart: a plain text that a person works from and Weben reads back. A head with stitch, counts and beads;
 * then a line for each working row: its words, the beads in it and how many there are up to its end.
 */
const HEAD = 'Weben word chart'

/** A setting as it is written: texts of several words, and texts that could be taken for a number, stand in quotes. */
const settingText = (value: string | number | boolean): string =>
  typeof value === 'string' && !/^[a-z][\w-]*$/i.test(value) ? `“${value}”` : String(value)

export function wordChart(piece: Piece, part: Part): string {
  const letters = trayByNumber(piece.tray)
  const technique = techniqueOf(part)
  const lines = [
    HEAD,
    `Piece: ${piece.name}`,
    `Part: ${part.name}`,
    `Stitch: ${technique.name} (${technique.id})`,
    `How worked: ${Object.entries(part.settings)
      .map(([key, value]) => `${key} ${settingText(value)}`)
      .join(', ')}`,
    ...(part.plan ? [`Plan: ${JSON.stringify(part.plan)}`] : []),
    `Grid: ${columnsOf(part)} across, ${rowsOf(part)} bead rows, ${laidCounted(part)} rows as counted`,
    '',
    'Beads',
    ...piece.tray.map((b) => `${b.letter}  ${b.name}, ${b.finish}, ${b.colour}, ${findSpec(b.spec)!.name}`),
    '',
    'Rows',
  ]
  let running = 0
  for (const words of allRowWords(part)) {
    running += words.beads
    const also = asides(words)
    lines.push(
      `${rowNumbered(words)} ${words.direction} ${words.runs.map((run) => runText(run, letters)).join(' ')} ` +
        `(${words.beads}; ${running})${also.length > 0 ? ` · ${also.join(' · ')}` : ''}`,
    )
  }
  // What joins the ends is no row of the grid: it is read over.
  const joining = joinWords(piece, part)
  if (joining) {
    running += joining.beads
    lines.push(`To join: ${joining.runs.map((run) => runText(run, letters)).join(' ')} (${joining.beads}; ${running})`)
  }
  lines.push('', `In all ${running} beads`, '')
  return lines.join('\n')
}

/** What a word chart says: the stitch, how it is worked, and its grid in tray numbers. */
export interface ReadChart extends ReadGrid {
  readonly technique: string
  readonly settings: Settings
  readonly plan?: Plan
}

const trouble = (line: number, says: string) => bad(problem('chart-line', String(line), `Line ${line}: ${says}`))

function readSettings(text: string): Record<string, string | number | boolean> {
  const out: Record<string, string | number | boolean> = {}
  for (const [, key, quoted, plain] of text.matchAll(/(\w+)\s+(?:[“"]([^”"]*)[”"]|([^\s,]+))\s*(?:,|$)/g)) {
    out[key!] =
      quoted ??
      (plain === 'true' ? true : plain === 'false' ? false : /^-?\d+(\.\d+)?$/.test(plain!) ? Number(plain) : plain!)
  }
  return out
}

/** The plan of a chart, where the stitch keeps one; what is left out is as usual. */
function readPlan(technique: Technique, text: string | undefined): Result<{ readonly plan?: Plan }> {
  if (!technique.plan) return good({})
  const read = text === undefined ? good({}) : parseJson(text)
  const plan = read.ok ? technique.plan.safeParse(read.value) : null
  return plan?.success
    ? good({ plan: plan.data })
    : bad(
        problem('chart-plan', 'Plan', 'The line “Plan:” is not a plan of this stitch. Take it out to use the usual.'),
      )
}

/** Reads a word chart back. Letters are those of the tray that it is read into. */
export function readWordChart(text: string, tray: Piece['tray']): Result<ReadChart> {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/)
  if (lines[0]?.trim() !== HEAD)
    return bad(problem('chart-format', 'file', `This is not a word chart: its first line should read “${HEAD}”.`))
  const field = (name: string) =>
    lines
      .find((l) => l.startsWith(`${name}:`))
      ?.slice(name.length + 1)
      .trim()
  const id = /\(([a-z0-9-]+)\)\s*$/.exec(field('Stitch') ?? '')?.[1]
  const technique = TECHNIQUES.find((t) => t.id === id)
  if (!technique)
    return bad(problem('chart-stitch', 'Stitch', 'The line “Stitch:” names no stitch that this Weben knows.'))
  const written = readSettings(field('How worked') ?? '')
  let settings = technique.settings.safeParse(written)
  // A number may be meant as a word: 3 for “3”.
  if (!settings.success) {
    const keys = new Set(settings.error.issues.map((i) => String(i.path[0])))
    settings = technique.settings.safeParse(
      Object.fromEntries(
        Object.entries(written).map(([key, value]) => [
          key,
          keys.has(key) && typeof value === 'number' ? String(value) : value,
        ]),
      ),
    )
  }
  if (!settings.success)
    return bad(
      problem(
        'chart-settings',
        'How worked',
        'The line “How worked:” says something that this stitch does not have. Take it out to use what is usual.',
      ),
    )
  const planned = readPlan(technique, field('Plan'))
  if (!planned.ok) return planned
  const grid = /^(\d+) across, (\d+) bead rows/.exec(field('Grid') ?? '')
  const columns = Number(grid?.[1])
  const rows = Number(grid?.[2])
  if (!grid || columns < 1)
    return bad(problem('chart-grid', 'Grid', 'The line “Grid:” should read like “20 across, 40 bead rows”.'))
  const large = tooLarge(columns, rows)
  if (large) return bad(large)
  const work = { columns, rows, settings: settings.data, bead: BEAD_SPECS[0]!, ...planned.value }
  // A line of its own length is as long as its runs say.
  const own = technique.store === 'lines'
  const lengths = new Array<number>(rows).fill(0)
  const wrong = technique.check(work)
  if (wrong.length > 0) return bad(...wrong)
  const byLetter = new Map<string, number>([[GAP, 0], ...tray.map((b): [string, number] => [b.letter, b.number])])
  const numbers = new Array<number>(columns * rows).fill(0)
  const workingRows = technique.order.count(work)
  /** Working rows by the number of the first row that each makes: rows that hold no bead are left out. */
  const byNumber = new Map(Array.from({ length: workingRows }, (_, i) => [technique.order.row(i, work).from, i]))
  const rowLine = new RegExp(
    `^(?:Row|Round|${titled(technique.words.line)})s? (\\d+)(?:[–-]\\d+)? ([→←]) (.*?)\\s*\\((\\d+)(?:; \\d+)?\\)`,
  )
  let [i, total] = [0, 0]
  let ended = false
  const from = lines.findIndex((l) => l.trim() === 'Rows')
  // Which place a run fills may hang on how long its line is, and those beside it: their lengths are read first.
  if (own && from >= 0)
    for (const line of lines.slice(from + 1)) {
      const [, row, , runs] = rowLine.exec(line.trim()) ?? []
      const index = row === undefined ? undefined : byNumber.get(Number(row))
      if (index === undefined) continue
      const counts = [...runs!.matchAll(/(\d+)\D+/g)].map(([, count]) => Number(count))
      lengths[index] = Math.min(
        columns,
        counts.reduce((sum, count) => sum + count, 0),
      )
    }
  const laid = own ? { ...work, lineLength: (r: number) => lengths[r]! } : work
  for (let at = from + 1; from >= 0 && at < lines.length; at++) {
    const line = lines[at]!.trim()
    if (line === '') continue
    const joining = /^To join:.*\((\d+)(?:; \d+)?\)/.exec(line)
    if (joining) {
      total += Number(joining[1])
      continue
    }
    const found = rowLine.exec(line)
    if (!found) {
      const all = /^In all (\d+)/.exec(line)
      if (!all) return trouble(at + 1, 'write a row like “Row 3 → 2A 1B (3)”.')
      if (Number(all[1]) !== total)
        return trouble(
          at + 1,
          `the rows above hold ${total} beads; it says ${all[1]}. A row is missing, or one of the counts is wrong.`,
        )
      ended = true
      break
    }
    const index = byNumber.get(Number(found[1]))
    if (index === undefined)
      return trouble(
        at + 1,
        `the grid has no row that begins with ${found[1]}: it has ${workingRows} to work. Take the row out, ` +
          'or make the grid longer.',
      )
    if (index < i)
      return trouble(
        at + 1,
        `row ${found[1]} stands there already, or out of order. Write the rows in the order in which they are worked.`,
      )
    i = index + 1
    const { keys } = technique.order.row(index, laid)
    let [k, beads] = [0, 0]
    for (const run of found[3]!.split(/\s+/).filter(Boolean)) {
      const [, count, letter] = /^(\d+)(\D+)$/.exec(run) ?? []
      const number = letter === undefined ? undefined : byLetter.get(letter)
      if (number === undefined)
        return trouble(
          at + 1,
          `“${run.slice(0, 12)}” is no run of a bead on the tray; write a count and a letter, like 3A.`,
        )
      if (number !== 0) beads += Number(count)
      for (let n = 0; n < Number(count); n++, k++) {
        if (k >= keys.length) return trouble(at + 1, `this row has ${keys.length} places; its runs hold more.`)
        numbers[keys[k]!] = number
      }
    }
    if (!own && k !== keys.length)
      return trouble(at + 1, `this row has ${keys.length} places; its runs hold ${k}. Write gaps as 2${GAP}.`)
    if (beads !== Number(found[4]))
      return trouble(at + 1, `its runs hold ${beads} beads where it says ${found[4]}. Correct one of them.`)
    total += beads
  }
  if (!ended)
    return bad(
      problem(
        'chart-short',
        'Rows',
        'The chart is cut off: its last line should read “In all … beads”. Export it again, or write that line.',
      ),
    )
  const head = { technique: technique.id, settings: settings.data, ...planned.value }
  return good({ ...head, columns, rows, numbers, ...(own ? { lengths } : {}) })
}
