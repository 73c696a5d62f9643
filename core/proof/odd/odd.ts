import { columnsOf, type GridPart } from '../../piece/piece'
import { fieldFrom, fieldOf, repeatColours, VOID, type Field } from './field'
import { oddIn, type OddOnes } from './group'
import { lawsOf, type Law } from './laws'
import { movesOf } from './moves'
import { slipIn, type Slip } from './slip'

/** What breaks the regularity of a grid, in rows of what is kept of it: start, repeat once, end. */
export interface OddFindings {
  readonly beads: readonly OddOnes[]
  readonly slip: Slip | null
}

/** An end goes on as the repeat does where so few of its beads break that, in so many rows. */
const GOES_ON = 0.06
const LEAST_END_ROWS = 6

/** Rows round a slip in which beads are its own. */
const OF_SLIP = 2

const moved = (ones: readonly OddOnes[], map: (k: number) => number): OddOnes[] =>
  ones.map((one) => ({ ...one, cells: one.cells.map(map) }))

/** Beads of the repeat as if a row that is missing were there, not known, or one that is there twice were out. */
function besides(part: GridPart, colour: Uint16Array, { kind, row }: Slip): OddOnes[] {
  const columns = columnsOf(part)
  const at = row * columns
  const by = kind === 'missing' ? columns : -columns
  const as = new Uint16Array(colour.length + by)
  as.set(colour.subarray(0, at))
  if (kind === 'missing') as.fill(VOID, at, at + columns)
  as.set(colour.subarray(kind === 'missing' ? at : at + columns), kind === 'missing' ? at + columns : at)
  const field = fieldFrom(part, as)
  if (!field) return []
  const rowOf = (k: number) => Math.floor(k / columns)
  return moved(oddIn(field), (k) => (k < at ? k : k - by)).filter(({ cells }) =>
    cells.every((k) => Math.abs(rowOf(k) - row) > OF_SLIP),
  )
}

/** Share of the length within which a shift comes again often enough to show a slip. */
const OFTEN = 0.4

/**
 * Whether a row may be missing or doubled: where a shift along fails row after row, or none that comes again often
 * enough holds everywhere.
 */
function mayHaveSlipped({ rows, rowStep }: Field, laws: readonly Law[]): boolean {
  const along = laws.filter(({ sx, sy, b }) => sx === 1 && sy === 1 && b !== 0)
  return along.some(({ restless }) => restless) || !along.some(({ b }) => Math.abs(b) <= OFTEN * rows * rowStep)
}

/** Reads a grid: rows that are missing or doubled first, then beads, as if these rows were mended. */
export function oddOnesOf(part: GridPart): OddFindings {
  const columns = columnsOf(part)
  const first = part.start.rows * columns
  const worked = part.times > 0 && part.repeat.rows > 0
  const colour = repeatColours(part)
  const field = worked ? fieldOf(part, 'repeat') : null
  const moves = field ? movesOf(field) : []
  const laws = field ? lawsOf(field, moves) : []
  // A repeat that is worked once is open as it is, and its moves are known.
  const open = !field || !mayHaveSlipped(field, laws) ? null : field.cyclic > 0 ? fieldFrom(part, colour) : field
  const slip = open ? slipIn(part, open, open === field ? moves : undefined) : null
  const beads = slip ? besides(part, colour, slip) : field ? oddIn(field, laws) : []
  const found = moved(beads, (k) => k + first)
  const shown = slip && { ...slip, row: slip.row + part.start.rows, to: slip.to + part.start.rows }
  if (part.start.rows + part.end.rows === 0) return { beads: found, slip: shown }
  // Start and end against all, where they go on as the repeat does: what they break, they alone.
  const all = fieldOf(part, 'all')
  const last = first + part.repeat.rows * columns
  const ones = all ? oddIn(all) : []
  const within = (from: number, to: number): OddOnes[] => {
    const own = ones.filter(({ cells }) => cells.every((k) => k >= from && k < to))
    const broken = own.reduce((sum, { cells }) => sum + cells.length, 0)
    return to - from >= LEAST_END_ROWS * columns && broken <= GOES_ON * (to - from) ? own : []
  }
  return { beads: [...found, ...within(0, first), ...within(last, last + part.end.rows * columns)], slip: shown }
}
