import type { z } from 'zod'
import { rowAt, type Cells } from '../grid/cells'
import { runsLength, runsOf, type Runs } from '../grid/runs'
import { bad, good, problem, type Problem, type Result } from '../problem'
import { findTechnique } from '../technique/registry'
import { checkJoints } from './joint'
import type { Part, Piece, SectionName } from './piece'
import { columnsOf, rowsOf, SECTIONS, storedCells } from './piece'
import {
  LIMITS,
  PIECE_VERSION,
  partFileSchema,
  pieceBodySchema,
  type PartFile,
  type PieceBody,
  type PieceFile,
} from './schema'

const cellsOut = (cells: Cells): number[][] => Array.from({ length: cells.rows }, (_, r) => runsOf(rowAt(cells, r)))

export function partToFile(part: Part): PartFile {
  const { start, repeat, end, settings, chart: _, ...head } = part
  return {
    ...head,
    settings: { ...settings },
    columns: columnsOf(part),
    start: cellsOut(start),
    repeat: cellsOut(repeat),
    end: cellsOut(end),
  } as PartFile
}

export function pieceToBody(piece: Piece): PieceBody {
  const { parts, tray, ...head } = piece
  return { ...head, tray: [...tray], parts: parts.map(partToFile) } as PieceBody
}

export const pieceToFile = (piece: Piece): PieceFile => ({
  format: 'weben-piece',
  version: PIECE_VERSION,
  piece: pieceToBody(piece),
})

function cellsIn(columns: number, rows: readonly Runs[], at: string, problems: Problem[]): Cells {
  const blockRows = 64
  const blocks: Uint16Array[] = []
  for (let from = 0; from < rows.length; from += blockRows) {
    const until = Math.min(rows.length, from + blockRows)
    const block = new Uint16Array((until - from) * columns)
    for (let r = from; r < until; r++) {
      const runs = rows[r]!
      if (runs.length % 2 !== 0) {
        problems.push(
          problem(
            'row-odd',
            `${at}/${r}`,
            `Row ${r + 1} of ${at} is not made of pairs: write [count, number, count, number, …].`,
          ),
        )
        continue
      }
      const length = runsLength(runs)
      if (length !== columns) {
        problems.push(
          problem(
            'row-length',
            `${at}/${r}`,
            `Row ${r + 1} of ${at} holds ${length} beads where ${columns} are needed. Correct its counts.`,
          ),
        )
        continue
      }
      let to = (r - from) * columns
      for (let i = 0; i < runs.length; i += 2) {
        const next = to + runs[i]!
        block.fill(runs[i + 1]!, to, next)
        to = next
      }
    }
    blocks.push(block)
  }
  return { columns, rows: rows.length, blocks }
}

function partIn(file: PartFile, problems: Problem[]): Part {
  const { columns, start, repeat, end, ...head } = file
  const sections = { start, repeat, end }
  const read = (name: SectionName) => cellsIn(columns, sections[name], `${file.id}/${name}`, problems)
  return { ...head, start: read('start'), repeat: read('repeat'), end: read('end') }
}

/** Words for what Zod found, at the place where it is. */
export function problemsOf(error: z.ZodError): Problem[] {
  return error.issues.slice(0, 12).map((issue) => {
    const at = issue.path.join('/') || 'file'
    return problem(`shape-${issue.code}`, at, `${at}: ${issue.message}.`)
  })
}

/** What must hold between the fields of a piece, beyond the shape of each. */
export function checkPiece(piece: Piece): Problem[] {
  const problems: Problem[] = []
  const twice = (values: readonly (string | number)[], what: string) => {
    const seen = new Set<string | number>()
    for (const v of values) {
      if (seen.has(v)) problems.push(problem('twice', what, `The ${what} ${v} is there twice. Give each its own.`))
      seen.add(v)
    }
  }
  twice(
    piece.tray.map((b) => b.number),
    'tray number',
  )
  twice(
    piece.tray.map((b) => b.letter),
    'letter',
  )
  twice(
    piece.parts.map((p) => p.id),
    'part id',
  )
  for (const part of piece.parts) problems.push(...checkPart(part))
  return [...problems, ...checkJoints(piece), ...checkSize(piece)]
}

/** A piece holds no more beads than a part may: as they are worked, and as they are kept. */
export function checkSize({ parts }: Pick<Piece, 'parts'>): Problem[] {
  const sum = (count: (part: Part) => number) => parts.reduce((total, part) => total + count(part), 0)
  const most = Math.max(
    sum((part) => columnsOf(part) * rowsOf(part)),
    sum(storedCells),
  )
  return most > LIMITS.cells
    ? [problem('cells-many', 'parts', `A piece can hold ${LIMITS.cells} beads, not ${most}. Make two of it.`)]
    : []
}

export function checkPart(part: Part): Problem[] {
  const technique = findTechnique(part.technique)
  if (!technique) return [problem('technique', part.id, `“${part.technique}” is not a stitch that this Weben knows.`)]
  const settings = technique.settings.safeParse(part.settings)
  if (!settings.success) return problemsOf(settings.error)
  const columns = columnsOf(part)
  const rows = rowsOf(part)
  const problems = [...technique.check({ columns, rows, settings: settings.data })]
  if (columns > LIMITS.columns)
    problems.push(problem('columns-many', part.id, `A part can be ${LIMITS.columns} beads across, not ${columns}.`))
  for (const name of SECTIONS)
    if (part[name].rows > LIMITS.rows)
      problems.push(problem('rows-many', part.id, `The ${name} can have ${LIMITS.rows} rows, not ${part[name].rows}.`))
  if (columns * rows > LIMITS.cells)
    problems.push(
      problem(
        'cells-many',
        part.id,
        `A part can hold ${LIMITS.cells} beads, not ${columns * rows}. Repeat less often.`,
      ),
    )
  if (SECTIONS.some((s) => part[s].columns !== columns))
    problems.push(problem('columns-differ', part.id, 'Start, repeat and end must be equally wide.'))
  return problems
}

/** Tray numbers that cells use but the tray does not hold. */
export function strayNumbers(piece: Piece): number[] {
  const known = new Set([0, ...piece.tray.map((b) => b.number)])
  const stray = new Set<number>()
  for (const part of piece.parts) {
    for (const name of SECTIONS)
      for (const block of part[name].blocks) for (const number of block) if (!known.has(number)) stray.add(number)
  }
  return [...stray].sort((a, b) => a - b)
}

function whole(piece: Piece): Result<Piece> {
  const problems = checkPiece(piece)
  if (problems.length > 0) return bad(...problems)
  const stray = strayNumbers(piece)
  if (stray.length > 0)
    return bad(
      problem(
        'stray-number',
        'tray',
        `The pattern uses bead number ${stray.slice(0, 5).join(', ')}, which is not on the tray. Add it to ` +
          'the tray or change those cells.',
      ),
    )
  return good(piece)
}

/**
 * Settings of a stitch with its defaults filled in where some are left out; as they are where they are not its own.
 */
export function settledSettings(technique: string, settings: unknown): unknown {
  const parsed = findTechnique(technique)?.settings.safeParse(settings)
  return parsed?.success ? parsed.data : settings
}

const settled = (part: Part): Part => ({
  ...part,
  settings: settledSettings(part.technique, part.settings) as Part['settings'],
})

export function partFromFile(value: unknown): Result<Part> {
  const parsed = partFileSchema.safeParse(value)
  if (!parsed.success) return bad(...problemsOf(parsed.error))
  const problems: Problem[] = []
  const part = settled(partIn(parsed.data, problems))
  return problems.length > 0 ? bad(...problems.slice(0, 12)) : good(part)
}

/** A piece from its plain form, checked throughout. */
export function pieceFromBody(value: unknown): Result<Piece> {
  const parsed = pieceBodySchema.safeParse(value)
  if (!parsed.success) return bad(...problemsOf(parsed.error))
  const { parts, ...head } = parsed.data
  const problems: Problem[] = []
  const piece: Piece = { ...head, parts: parts.map((p) => settled(partIn(p, problems))) }
  return problems.length > 0 ? bad(...problems.slice(0, 12)) : whole(piece)
}
