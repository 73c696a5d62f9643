import type { z } from 'zod'
import { BLOCK_ROWS, type Cells } from '../grid/cells'
import { linesOf, raggedFrom, type Lines } from '../grid/lines'
import { numbersOf, runsLength, runsOf, type Runs } from '../grid/runs'
import { bad, good, problem, type Problem, type Result } from '../problem'
import { findTechnique } from '../technique/registry'
import { hung } from './held'
import { checkJoints } from './joint'
import type { Plan } from '../technique/technique'
import type { Part, Piece, SectionName } from './piece'
import { columnsOf, isGrid, rowsOf, SECTIONS, storedCells, workOf } from './piece'
import { sized } from './sizes'
import { LIMITS, partFileSchema, pieceBodySchema, type PartFile, type PieceBody, type PieceFile } from './schema'
import { PIECE_VERSION } from './version'

const linesOut = (lines: Lines): number[][] => linesOf(lines).map(runsOf)

export function partToFile(part: Part): PartFile {
  const { start, repeat, end, settings, chart: _, sizes: _sizes, held: _held, ...head } = part
  return {
    ...head,
    settings: { ...settings },
    ...(isGrid(part) ? { columns: columnsOf(part) } : { kind: 'lines' }),
    start: linesOut(start),
    repeat: linesOut(repeat),
    end: linesOut(end),
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

const oddRow = (at: string, r: number): Problem =>
  problem(
    'row-odd',
    `${at}/${r}`,
    `Row ${r + 1} of ${at} is not made of pairs: write [count, number, count, number, …].`,
  )

/** Lines of their own lengths; what is too long is named before any room is made for it. */
function raggedIn(lines: readonly Runs[], at: string, problems: Problem[]): Lines {
  let total = 0
  const found: Problem[] = []
  for (const [r, runs] of lines.entries()) {
    const length = runs.length % 2 === 0 ? runsLength(runs) : 0
    total += length
    if (runs.length % 2 !== 0) found.push(oddRow(at, r))
    else if (length > LIMITS.columns)
      found.push(
        problem(
          'line-long',
          `${at}/${r}`,
          `Line ${r + 1} of ${at} holds ${length} beads; a line can hold ${LIMITS.columns}. Make two of it.`,
        ),
      )
  }
  if (total > LIMITS.cells) found.push(manyCells(at, total))
  problems.push(...found)
  return raggedFrom(found.length > 0 ? [] : lines.map(numbersOf))
}

function cellsIn(columns: number, rows: readonly Runs[], at: string, problems: Problem[]): Cells {
  const blocks: Uint16Array[] = []
  for (let from = 0; from < rows.length; from += BLOCK_ROWS) {
    const until = Math.min(rows.length, from + BLOCK_ROWS)
    const block = new Uint16Array((until - from) * columns)
    for (let r = from; r < until; r++) {
      const runs = rows[r]!
      if (runs.length % 2 !== 0) {
        problems.push(oddRow(at, r))
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

const manyCells = (at: string, count: number): Problem =>
  problem('cells-many', at, `A part can hold ${LIMITS.cells} beads, not ${count}. Repeat less often.`)

function partIn(file: PartFile, problems: Problem[]): Part {
  const { kind, columns, start, repeat, end, plan, ...head } = file
  const sections = { start, repeat, end }
  if ((columns === undefined) !== (kind === 'lines'))
    problems.push(
      problem(
        'columns-kind',
        `${file.id}/columns`,
        kind === 'lines'
          ? 'Lines of their own lengths have no count across: leave “columns” out.'
          : 'Say in “columns” how many beads lie across.',
      ),
    )
  const read = (name: SectionName) => {
    const at = `${file.id}/${name}`
    return kind === 'lines'
      ? raggedIn(sections[name], at, problems)
      : cellsIn(columns ?? 1, sections[name], at, problems)
  }
  return {
    ...head,
    ...(plan ? { plan: plan as Plan } : {}),
    start: read('start'),
    repeat: read('repeat'),
    end: read('end'),
  }
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

/**
 * A piece holds no more beads than a part may: as they are worked, and as they are kept. Lines count as if all were as
 * long as the longest, since tools and views make room for that.
 */
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
  const kept = isGrid(part) ? 'cells' : 'lines'
  if ((technique.store ?? 'cells') !== kept)
    return [
      problem(
        'store',
        part.id,
        kept === 'lines'
          ? `${technique.name} is worked on a grid: its rows are all equally long.`
          : `${technique.name} has lines of their own lengths: write “kind”: “lines”.`,
      ),
    ]
  const plan = technique.plan ? technique.plan.safeParse(part.plan ?? {}) : null
  if (plan && !plan.success) return problemsOf(plan.error)
  if (!plan && part.plan)
    return [problem('plan', `${part.id}/plan`, `${technique.name} has no plan. Leave “plan” out.`)]
  const problems = [...technique.check({ ...workOf(part), settings: settings.data })]
  if (columns > LIMITS.columns)
    problems.push(problem('columns-many', part.id, `A part can be ${LIMITS.columns} beads across, not ${columns}.`))
  for (const name of SECTIONS)
    if (part[name].rows > LIMITS.rows)
      problems.push(problem('rows-many', part.id, `The ${name} can have ${LIMITS.rows} rows, not ${part[name].rows}.`))
  if (columns * rows > LIMITS.cells) problems.push(manyCells(part.id, columns * rows))
  if (isGrid(part) && SECTIONS.some((s) => part[s].columns !== columns))
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

const settled = (part: Part): Part => {
  const plan = findTechnique(part.technique)?.plan?.safeParse(part.plan ?? {})
  return {
    ...part,
    settings: settledSettings(part.technique, part.settings) as Part['settings'],
    ...(plan?.success ? { plan: plan.data } : {}),
  }
}

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
  const piece: Piece = sized({ ...head, parts: parts.map((p) => settled(partIn(p, problems))) })
  if (problems.length > 0) return bad(...problems.slice(0, 12))
  const found = whole(piece)
  // What hangs is looked at once all joints are known to lead somewhere.
  return found.ok ? good(hung(found.value)) : found
}
