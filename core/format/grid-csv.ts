import { trayByNumber, columnsOf, rowsOf, numberAt, type Part, type Piece } from '../piece/piece'
import { LIMITS } from '../piece/schema'
import { bad, good, problem, type Problem, type Result } from '../problem'
import { csv } from './tally-csv'

/**
 * The grid as CSV (RFC 4180): a line for each bead row, a field for each column with the letter of its bead; empty
 * where none lies. Repeats are written out. Reading takes the same, from any program; letters must be on the tray.
 */
export function gridCsv(piece: Piece, part: Part): string {
  const tray = trayByNumber(piece.tray)
  return csv(
    Array.from({ length: rowsOf(part) }, (_, r) =>
      Array.from({ length: columnsOf(part) }, (_, c) => tray.get(numberAt(part, c, r))?.letter ?? ''),
    ),
  )
}

/** Fields of a CSV text; separators are commas, semicolons or tabs, whichever the first line holds most of. */
export function readCsv(text: string): string[][] {
  const plain = text.replace(/^\uFEFF/, '')
  const first = plain.slice(0, plain.search(/[\r\n]|$/))
  const separator = [',', ';', '\t'].reduce((best, s) => (first.split(s).length > first.split(best).length ? s : best))
  const lines: string[][] = []
  let line: string[] = []
  let field = ''
  let quoted = false
  for (let i = 0; i < plain.length; i++) {
    const ch = plain[i]!
    if (quoted) {
      if (ch !== '"') field += ch
      else if (plain[i + 1] === '"') {
        field += '"'
        i++
      } else quoted = false
    } else if (ch === '"' && field === '') quoted = true
    else if (ch === separator) {
      line.push(field)
      field = ''
    } else if (ch === '\n' || ch === '\r') {
      if (ch === '\r' && plain[i + 1] === '\n') i++
      line.push(field)
      lines.push(line)
      line = []
      field = ''
    } else field += ch
  }
  if (field !== '' || line.length > 0) {
    line.push(field)
    lines.push(line)
  }
  return lines
}

/** A grid read from outside: tray numbers row-major. */
export interface ReadGrid {
  readonly columns: number
  readonly rows: number
  readonly numbers: readonly number[]
  /** Places of each row, where these are lines of their own lengths and the file says so. */
  readonly lengths?: readonly number[]
}

/**
 * What a grid read from outside has too much of for a part, in words; null if nothing. The limits are those of the
 * document.
 */
export function tooLarge(columns: number, rows: number): Problem | null {
  if (columns > LIMITS.columns)
    return problem(
      'grid-large',
      'file',
      `A part can be ${LIMITS.columns} beads across; this file has ${columns}. Split it, or turn it by a quarter.`,
    )
  if (rows > LIMITS.rows)
    return problem(
      'grid-large',
      'file',
      `A part can have ${LIMITS.rows} bead rows; this file has ${rows}. Split it in two.`,
    )
  return columns * rows > LIMITS.cells
    ? problem(
        'grid-large',
        'file',
        `A part can hold ${LIMITS.cells} beads; this file has ${columns * rows}. Split it in two.`,
      )
    : null
}

/** Reads a grid of letters. Letters that the tray has not are named, with where they stand. */
export function readGridCsv(text: string, tray: Piece['tray']): Result<ReadGrid> {
  const lines = readCsv(text).filter((line) => line.length > 1 || line[0]!.trim() !== '')
  if (lines.length === 0) return bad(problem('grid-empty', 'file', 'There is no row in this file.'))
  const columns = Math.max(...lines.map((l) => l.length))
  const large = tooLarge(columns, lines.length)
  if (large) return bad(large)
  const byLetter = new Map(tray.map((b) => [b.letter, b.number]))
  const numbers: number[] = []
  for (const [r, line] of lines.entries()) {
    if (line.length !== columns)
      return bad(
        problem(
          'grid-ragged',
          String(r + 1),
          `Row ${r + 1} has ${line.length} fields where others have ${columns}. Give every row the same ` +
            'count; leave fields empty where no bead lies.',
        ),
      )
    for (const [c, field] of line.entries()) {
      const letter = field.trim().toUpperCase()
      const number = letter === '' || letter === '–' || letter === '-' ? 0 : byLetter.get(letter)
      if (number === undefined)
        return bad(
          problem(
            'grid-letter',
            `${r + 1}/${c + 1}`,
            `Row ${r + 1}, column ${c + 1} says “${field.slice(0, 12)}”, which is no letter of the tray. Add ` +
              'a bead with that letter, or correct it.',
          ),
        )
      numbers.push(number)
    }
  }
  return good({ columns, rows: lines.length, numbers })
}
