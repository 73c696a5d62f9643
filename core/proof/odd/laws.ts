import { VOID, type Field } from './field'
import { imagesOf, movesOf, type Move } from './moves'

/**
 * Laws of a design: moves that hold nearly everywhere, over all of it or over some of its columns and stretches of its
 * rows. A pair of beads is informative if their colours differ, or agree and both touch another colour: plain ground
 * that agrees with plain ground says nothing.
 */
export interface Law extends Move {
  /** The cell that each is carried onto; −1 where there is none, or where the law does not hold. */
  readonly image: Int32Array
  /** Informative pairs, and those of them that fail. */
  readonly pairs: number
  readonly fails: number
  /** Whether it fails in rows that follow each other, as it does where a row is missing or doubled. */
  readonly restless: boolean
}

/** A law fails in at most this share of its pairs, of which there are so many at least. */
const MOST_FAILS = 0.12
const LEAST_PAIRS = 40
/** Where little is drawn, a few mistakes are a large share of it. */
const FEW_FAILS = 24
const MOST_FAILS_OF_FEW = 0.25
/** What says something of so small a share of the edges must hold better, or chance makes laws. */
const PARTIAL = 0.25
const MOST_FAILS_OF_PARTIAL = 0.04
/** Columns in which a move fails more often are none of its own. */
const COLUMN_FAILS = 0.2
/** Rows in which it fails more often are none of its own, where so many follow each other: fewer are a mistake. */
const ROW_FAILS = 0.4
const LEAST_BAD_ROWS = 4
/** Pairs under which a column or row says nothing of itself. */
const LEAST_IN_LINE = 5

interface Marks {
  readonly columns: Uint8Array
  readonly rows: Uint8Array
}

interface Tally {
  readonly byColumn: readonly [Int32Array, Int32Array]
  readonly byRow: readonly [Int32Array, Int32Array]
  pairs: number
  fails: number
}

/** Counts informative pairs of a move and its failures by line, within what is marked as its own. */
function tally(f: Field, image: Int32Array, out: Marks): Tally {
  const { columns, rows, colour, edges } = f
  const byColumn = [new Int32Array(columns), new Int32Array(columns)] as const
  const byRow = [new Int32Array(rows), new Int32Array(rows)] as const
  let [pairs, fails] = [0, 0]
  for (let k = 0, r = 0; r < rows; r++) {
    if (out.rows[r] === 1) {
      k += columns
      continue
    }
    for (let c = 0; c < columns; c++, k++) {
      const to = image[k]!
      if (to < 0 || out.columns[c] === 1) continue
      const fail = colour[to] !== colour[k]
      if (!fail && !(edges[k] && edges[to])) continue
      byColumn[0][c]!++
      byRow[0][r]!++
      pairs++
      if (fail) {
        byColumn[1][c]!++
        byRow[1][r]!++
        fails++
      }
    }
  }
  return { byColumn, byRow, pairs, fails }
}

/** Marks lines in which a move does not hold; whether any was marked. */
function mark(f: Field, { byColumn, byRow }: Tally, out: Marks): boolean {
  let any = false
  for (let c = 0; c < f.columns; c++)
    if (!out.columns[c] && byColumn[0][c]! >= LEAST_IN_LINE && byColumn[1][c]! > COLUMN_FAILS * byColumn[0][c]!) {
      out.columns[c] = 1
      any = true
    }
  for (let r = 0; r < f.rows;) {
    const bad = (i: number) => !out.rows[i] && byRow[0][i]! >= LEAST_IN_LINE && byRow[1][i]! > ROW_FAILS * byRow[0][i]!
    let end = r
    while (end < f.rows && bad(end)) end++
    if (end - r >= LEAST_BAD_ROWS) {
      out.rows.fill(1, r, end)
      any = true
    }
    r = Math.max(end, r + 1)
  }
  return any
}

/** Rows that fail one after the other, from which on a law is restless. */
const RESTLESS_ROWS = 2
/** Share of its pairs that fail, from which on it is restless in any case. */
const RESTLESS = 0.015

function isRestless({ byRow, pairs, fails }: Tally): boolean {
  let [run, most] = [0, 0]
  for (let r = 0; r < byRow[0].length; r++) {
    run = byRow[0][r]! > 0 && byRow[1][r]! > ROW_FAILS * byRow[0][r]! ? run + 1 : 0
    most = Math.max(most, run)
  }
  return most >= RESTLESS_ROWS || fails > RESTLESS * pairs
}

/** Failures that a law may have among so many pairs, in a field of so many edges. */
const mostFails = (pairs: number, edges: number): number =>
  pairs < PARTIAL * edges
    ? MOST_FAILS_OF_PARTIAL * pairs
    : Math.max(MOST_FAILS * pairs, Math.min(FEW_FAILS, MOST_FAILS_OF_FEW * pairs))

/** What a move comes to as a law; null where it is none. `edges`: how many the field has. */
function lawOf(f: Field, move: Move, edges: number): Law | null {
  const image = imagesOf(f, move)
  const out: Marks = { columns: new Uint8Array(f.columns), rows: new Uint8Array(f.rows) }
  let sum = tally(f, image, out)
  const restless = isRestless(sum)
  // Strands of a braid slip along: no line is taken out of them.
  for (let round = 0; round < 3 && sum.fails > 0.02 * sum.pairs && f.line === 'row'; round++) {
    if (!mark(f, sum, out)) break
    sum = tally(f, image, out)
  }
  if (sum.pairs < LEAST_PAIRS || sum.fails > mostFails(sum.pairs, edges)) return null
  for (let k = 0, r = 0; r < f.rows; r++)
    for (let c = 0; c < f.columns; c++, k++) if (out.rows[r] || out.columns[c]) image[k] = -1
  return { ...move, image, pairs: sum.pairs, fails: sum.fails, restless }
}

/** Share of the edges that no law speaks of, from which on laws are sought among these alone. */
const UNTOLD = 0.08
const ROUNDS = 3

/** The laws of a field, those of all of it first, then those of what these say nothing of: a border, a band. */
export function lawsOf(f: Field, first: readonly Move[] = movesOf(f)): Law[] {
  const laws: Law[] = []
  const told = new Uint8Array(f.colour.length)
  let edges = 0
  for (let k = 0; k < told.length; k++) if (f.colour[k] !== VOID && f.edges[k]) edges++
  for (let round = 0; round < ROUNDS; round++) {
    const found = (round === 0 ? first : movesOf(f, told)).flatMap((move) => {
      const same = laws.some((l) => l.sx === move.sx && l.sy === move.sy && l.a === move.a && l.b === move.b)
      return same ? [] : (lawOf(f, move, edges) ?? [])
    })
    if (found.length === 0) break
    laws.push(...found)
    for (const { image } of found)
      for (let k = 0; k < image.length; k++)
        if (image[k]! >= 0) {
          told[k] = 1
          told[image[k]!] = 1
        }
    let untold = 0
    for (let k = 0; k < told.length; k++) if (!told[k] && f.edges[k] && f.colour[k] !== VOID) untold++
    if (untold <= UNTOLD * edges) break
  }
  return laws
}
