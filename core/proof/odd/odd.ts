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

/** An end is drawn as the repeat is, if it has half as many beads that touch another colour, most of which follow. */
const DRAWN = 0.5
const FOLLOWING = 0.5

/** Cells from one on, up to another. */
interface Stretch {
  readonly from: number
  readonly to: number
}

/** Share of the beads of a stretch that touch another colour. */
const drawnShare = ({ edges }: Field, { from, to }: Stretch): number =>
  edges.subarray(from, to).reduce((sum, edge) => sum + edge, 0) / Math.max(1, to - from)

/** Whether a bead that is drawn agrees with most of what laws carry it onto; plain ground says nothing. */
function follows({ colour, edges }: Field, laws: readonly Law[], k: number): boolean {
  let balance = 0
  for (const { image } of laws) {
    const to = image[k]!
    if (to < 0) continue
    if (colour[to] !== colour[k]) balance--
    else if (edges[to]) balance++
  }
  return balance > 0
}

/** Whether an end goes on as the repeat does: it is drawn, and follows the same laws. */
function isDrawnOn(all: Field, laws: readonly Law[], end: Stretch, repeat: Stretch): boolean {
  if (drawnShare(all, end) < DRAWN * drawnShare(all, repeat)) return false
  let [drawn, following] = [0, 0]
  for (let k = end.from; k < end.to; k++)
    if (all.edges[k]) {
      drawn++
      if (follows(all, laws, k)) following++
    }
  return following >= FOLLOWING * drawn
}

/** Whether rows would be plain, all their beads of one colour, if some beads in them were as expected. */
function makesPlain({ colour, columns }: Field, { cells, expected }: OddOnes): boolean {
  const mended = new Map(cells.map((k, i) => [k, expected[i]!]))
  return cells.every((k) => {
    const first = k - (k % columns)
    for (let at = first; at < first + columns; at++) if ((mended.get(at) ?? colour[at]) !== mended.get(k)) return false
    return true
  })
}

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
  // Start and end against all, where they go on as the repeat does: what they break, they alone. An end that is plain,
  // or has a pattern of its own, breaks nothing by not going on; in a plain one a bead may still be of another colour.
  const all = fieldOf(part, 'all')
  if (!all) return { beads: found, slip: shown }
  const last = first + part.repeat.rows * columns
  const lawsOfAll = lawsOf(all)
  const ones = oddIn(all, lawsOfAll)
  const within = (end: Stretch, beyondSeam: Stretch): OddOnes[] => {
    const cells = end.to - end.from
    const own = ones.filter((one) => one.cells.every((k) => k >= end.from && k < end.to))
    const broken = own.reduce((sum, one) => sum + one.cells.length, 0)
    if (cells < LEAST_END_ROWS * columns || broken > GOES_ON * cells) return []
    if (isDrawnOn(all, lawsOfAll, beyondSeam, { from: first, to: last })) return own
    return own.filter((one) => makesPlain(all, one))
  }
  const end = { from: last, to: last + part.end.rows * columns }
  return {
    beads: [
      ...found,
      ...within({ from: 0, to: first }, { from: 0, to: first - columns }),
      ...within(end, { from: last + columns, to: end.to }),
    ],
    slip: shown,
  }
}
