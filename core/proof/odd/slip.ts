import type { GridPart } from '../../piece/piece'
import { blankOf, cellAt, VOID, type Field } from './field'
import { imagesOf, movesOf, type Move } from './moves'

/**
 * A row too few or too many. If a row is missing before row s, rows from s on are one row early: pairs of beads that a
 * shift of the design joins agree as ever where both lie before s, or both behind; those of which one lies on each
 * side agree at one row less. For every shift and every s this is summed up; where one s leaves hardly a failure and
 * without it there are many, the row is named, with all that would do as well.
 */
export interface Slip {
  readonly kind: 'missing' | 'doubled'
  /** Row of the field before which one is missing, or which is there twice; any up to `to` would do as well. */
  readonly row: number
  readonly to: number
  /** Rows in which it shows. */
  readonly witnesses: number
  /** The row as it should be, of one that is missing; null where a bead of it is not known. */
  readonly line: Uint16Array | null
}

const LEAST_ROWS = 12
/** Failures that a slip must take away, rows in which these are at least, and the share of them that it may leave. */
const LEAST_GAIN = 8
const LEAST_SHOWN = 2
const LEFT = 0.15
/** Share of the pairs across it that fail at least: a slip shows over the whole width. */
const SHOWN = 0.25
/** Share of all pairs that may fail besides: other mistakes. */
const OTHER = 0.07
/** A place is named where it is so narrow, rows. */
const MOST_RANGE = 12

/** Shifts that are asked at most. */
const MOST_SHIFTS = 12

/** Rows that are tried straight along at most, and how many of these are kept. */
const MOST_ROWS_ON = 96
const MOST_STRAIGHT = 6
/** Share of its pairs that fail, from which on a distance is none of the design’s. */
const FAILS = 0.5

/** Distances straight along, in rows, at which rows agree best: a slip leaves them agreeing in most. */
function straightOf(f: Field): Move[] {
  const { columns, rows, colour, edges, rowStep, wrap } = f
  // Rows that lie aside in turns move aside by a step with every odd distance.
  const aside = rowStep === 1 && (wrap.x > 0 ? wrap.x : f.spanX) > columns * 1.5
  const out: { readonly move: Move; readonly rate: number }[] = []
  for (let on = 1; on <= Math.min(MOST_ROWS_ON, rows >> 1); on++) {
    if (aside && on % 2 === 1) continue
    let [pairs, fails] = [0, 0]
    for (let k = 0, to = on * columns; to < colour.length; k++, to++) {
      if (colour[k] === VOID || colour[to] === VOID) continue
      if (colour[k] !== colour[to]) {
        pairs++
        fails++
      } else if (edges[k] && edges[to]) pairs++
    }
    if (pairs >= LEAST_PAIRS && fails <= FAILS * pairs)
      out.push({ move: { sx: 1, sy: 1, a: 0, b: on * rowStep }, rate: fails / pairs })
  }
  return out
    .sort((p, q) => p.rate - q.rate || p.move.b - q.move.b)
    .slice(0, MOST_STRAIGHT)
    .map(({ move }) => move)
}
const LEAST_PAIRS = 30

/** Shifts along that hold in the whole, in its first half or in its second. */
function shiftsOf(f: Field, whole: readonly Move[]): Move[] {
  const half = Math.floor(f.rows / 2) * f.columns
  const n = f.colour.length
  const first = new Uint8Array(n).fill(1, half)
  const second = new Uint8Array(n).fill(1, 0, half)
  const out = new Map<string, Move>(straightOf(f).map((move) => [`${move.a} ${move.b}`, move]))
  for (const moves of [whole, movesOf(f, first), movesOf(f, second)])
    for (const move of moves) if (move.sx === 1 && move.sy === 1 && move.b > 0) out.set(`${move.a} ${move.b}`, move)
  // Short ones say most: fewer pairs lie across a place.
  return [...out.values()].sort((p, q) => p.b + Math.abs(p.a) - q.b - Math.abs(q.a)).slice(0, MOST_SHIFTS)
}

/** Failures and pairs by row of the lower bead, prefix sums over rows. */
class Sums {
  readonly pairs: Int32Array
  readonly fails: Int32Array

  constructor(rows: number) {
    this.pairs = new Int32Array(rows + 1)
    this.fails = new Int32Array(rows + 1)
  }

  add(r: number, fail: boolean): void {
    this.pairs[r + 1]!++
    if (fail) this.fails[r + 1]!++
  }

  close(): void {
    for (let r = 1; r < this.pairs.length; r++) {
      this.pairs[r]! += this.pairs[r - 1]!
      this.fails[r]! += this.fails[r - 1]!
    }
  }
}

interface Between {
  /** Failures and pairs of rows from `from` up to, not with, `to`. */
  readonly fails: number
  readonly pairs: number
}

const between = (s: Sums, from: number, to: number): Between => {
  const last = s.pairs.length - 1
  const [a, b] = [Math.max(0, Math.min(last, from)), Math.max(0, Math.min(last, to))]
  return b <= a ? { fails: 0, pairs: 0 } : { fails: s.fails[b]! - s.fails[a]!, pairs: s.pairs[b]! - s.pairs[a]! }
}

/** How a shift fares with rows as they are, one row early from the upper bead on, and one row early throughout. */
interface Fares {
  /** Rows that the shift goes on, as whole rows. */
  readonly on: number
  readonly asIs: Sums
  readonly across: Sums
  readonly behind: Sums
}

/** What a pair of cells says: 1 that it fails, 0 that it holds, −1 nothing. */
function pairSays({ colour, edges }: Field, k: number, to: number): number {
  const [a, b] = [colour[k]!, colour[to]!]
  if (a === VOID || b === VOID) return -1
  if (a !== b) return 1
  return edges[k] && edges[to] ? 0 : -1
}

/**
 * Fares of a shift for a row missing (first: what was row o lies in row o − 1 behind it) and for one doubled (second);
 * by how many whole rows it goes on, since of what is staggered some beads go a row further than others.
 */
function faresOf(f: Field, ground: Field, { a, b }: Move): readonly [missing: Fares[], doubled: Fares[]] {
  const { columns, rows } = f
  const known = new Map<number, readonly [Fares, Fares]>()
  const put = (s: Sums, from: number, onto: number, c: number, tc: number) => {
    if (from < 0 || from >= rows || onto < 0 || onto >= rows) return
    const says = pairSays(f, from * columns + c, onto * columns + tc)
    if (says >= 0) s.add(from, says === 1)
  }
  for (let at = 0, o = 0; o < ground.rows; o++)
    for (let c = 0; c < columns; c++, at++) {
      const to = cellAt(ground, ground.X[at]! + a, ground.Y[at]! + b)
      if (to < 0) continue
      const target = Math.floor(to / columns)
      const tc = to - target * columns
      const on = target - o
      let both = known.get(on)
      if (!both) {
        const asIs = new Sums(rows)
        both = [
          { on, asIs, across: new Sums(rows), behind: new Sums(rows) },
          { on, asIs, across: new Sums(rows), behind: new Sums(rows) },
        ]
        known.set(on, both)
      }
      const [missing, doubled] = both
      put(missing.asIs, o, target, c, tc)
      put(missing.across, o, target - 1, c, tc)
      put(missing.behind, o - 1, target - 1, c, tc)
      put(doubled.across, o, target + 1, c, tc)
      put(doubled.behind, o + 1, target + 1, c, tc)
    }
  const out: readonly [Fares[], Fares[]] = [[], []]
  for (const both of known.values()) {
    both[0].asIs.close()
    both.forEach((fares, k) => {
      fares.across.close()
      fares.behind.close()
      out[k]!.push(fares)
    })
  }
  return out
}

/** Room that the share of other mistakes has while it is only looked at roughly. */
const ROUGHLY = 1.5

/**
 * Whether a shift may say that a row is missing or doubled: it fails, and hardly outside of as many rows as it goes
 * on, one after the other.
 */
function maySay(f: Field, move: Move): boolean {
  const { columns, rows } = f
  const image = imagesOf(f, move)
  const byRow = new Int32Array(rows)
  let [pairs, fails] = [0, 0]
  for (let k = 0, r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++, k++) {
      const to = image[k]!
      const says = to < 0 ? -1 : pairSays(f, k, to)
      if (says < 0) continue
      pairs++
      if (says === 1) {
        fails++
        byRow[r]!++
      }
    }
  if (fails < LEAST_GAIN) return false
  const wide = Math.ceil(move.b / f.rowStep) + 1
  let [within, most] = [0, 0]
  for (let r = 0; r < rows; r++) {
    within += byRow[r]! - (r >= wide ? byRow[r - wide]! : 0)
    most = Math.max(most, within)
  }
  return fails - most <= ROUGHLY * OTHER * pairs
}

interface Cost {
  readonly fails: number
  readonly pairs: number
  /** Failures, as rows are, of pairs that lie on both sides. */
  readonly shown: number
  readonly shownPairs: number
  readonly left: number
}

/** What a slip at row s leaves. A row doubled at s: rows from s on are copies and what follows, one row late. */
function costAt(all: readonly Fares[], rows: number, s: number, by: 1 | -1): Cost {
  let [fails, pairs, shown, shownPairs, left] = [0, 0, 0, 0, 0]
  for (const { on, asIs, across, behind } of all) {
    // In rows as they were: sources before s whose targets lie before s; across it; and behind it.
    const before = between(asIs, 0, s - on)
    const over = between(across, Math.max(0, s - on + (by > 0 ? 1 : 0)), s)
    const after = between(behind, s, rows)
    const was = between(asIs, Math.max(0, s - on), s)
    fails += before.fails + over.fails + after.fails
    pairs += before.pairs + over.pairs + after.pairs
    shown += was.fails
    shownPairs += was.pairs
    left += over.fails
  }
  return { fails, pairs, shown, shownPairs, left }
}

/** Rows on both sides of s in which failures show as they are. */
function rowsShown(all: readonly Fares[], s: number): number {
  let shown = 0
  const most = Math.max(...all.map(({ on }) => on))
  for (let r = Math.max(0, s - most); r < s; r++)
    if (all.some(({ asIs, on }) => r + on >= s && between(asIs, r, r + 1).fails > 0)) shown++
  return shown
}

/** Share of the pairs of a shift that lie on one side of a place, for it to say anything of it. */
const ON_ONE_SIDE = 0.25

/** Whether a shift holds as rows are, and would not if one were missing or doubled before row s. */
function speaksAgainst(all: readonly Fares[], rows: number, s: number, by: 1 | -1): boolean {
  let [pairs, across, fails] = [0, 0, 0]
  for (const { on, asIs } of all) {
    const [whole, over] = [between(asIs, 0, rows), between(asIs, Math.max(0, s - on), s)]
    pairs += whole.pairs
    fails += whole.fails
    across += over.pairs
  }
  if (fails > OTHER * pairs || across < LEAST_GAIN || pairs - across < ON_ONE_SIDE * pairs) return false
  return costAt(all, rows, s, by).fails >= fails + LEAST_GAIN / 2
}

interface Claim {
  readonly value: number
  readonly slip: Omit<Slip, 'line'>
  readonly move: Move
  readonly by: 1 | -1
}

/** The row that is missing before row s, as a shift of the design has it; null where it does not say all of it. */
function lineAt(f: Field, ground: Field, { a, b }: Move, s: number): Uint16Array | null {
  const { columns, rows, colour } = f
  const line = new Uint16Array(columns)
  for (let c = 0; c < columns; c++) {
    const at = s * columns + c
    const found = ([1, -1] as const).map((way) => {
      const to = cellAt(ground, ground.X[at]! + way * a, ground.Y[at]! + way * b)
      const o = Math.floor(to / columns)
      if (to < 0 || o === s) return VOID
      const now = o < s ? o : o - 1
      return now < rows ? colour[now * columns + (to % columns)]! : VOID
    })
    const known = found.find((v) => v !== VOID)
    if (known === undefined) return null
    line[c] = known
  }
  return line
}

/** Where a shift says that a row is missing or doubled; null where it says nothing. */
function claimOf(all: readonly Fares[], move: Move, rows: number, by: 1 | -1): Claim | null {
  const [asIs, pairs] = all.reduce((sum, { asIs: s }) => [sum[0]! + s.fails[rows]!, sum[1]! + s.pairs[rows]!], [0, 0])
  if (asIs! < LEAST_GAIN) return null
  const costs = Array.from({ length: rows - 1 }, (_, k) => costAt(all, rows, k + 1, by))
  const least = Math.min(...costs.map(({ fails }) => fails))
  const at = costs.findIndex(({ fails }) => fails === least)
  const cost = costs[at]!
  if (asIs! - least < LEAST_GAIN || cost.shown < LEAST_GAIN || cost.left > LEFT * cost.shown) return null
  if (cost.fails > OTHER * cost.pairs || cost.shown < SHOWN * cost.shownPairs) return null
  // Of a shift that nearly always joins both sides of the place nobody knows whether it is one of the design’s.
  if (pairs! - cost.shownPairs < ON_ONE_SIDE * pairs!) return null
  let to = at
  while (to + 1 < costs.length && costs[to + 1]!.fails === least) to++
  const witnesses = rowsShown(all, at + 1)
  if (to - at + 1 > MOST_RANGE || witnesses < LEAST_SHOWN) return null
  const kind = by > 0 ? 'missing' : 'doubled'
  return { value: (asIs! - 3 * least) / pairs!, slip: { kind, row: at + 1, to: to + 1, witnesses }, move, by }
}

/** The row that is missing or there twice, where one is; null where none is, or several are. */
export function slipIn(part: GridPart, f: Field, whole: readonly Move[] = movesOf(f)): Slip | null {
  const { rows } = f
  if (f.line !== 'row' || f.cyclic > 0 || rows < LEAST_ROWS) return null
  const moves = shiftsOf(f, whole)
  if (moves.length === 0) return null
  // Only a shift that fails says that a row is missing; those that hold are asked afterwards, where one does.
  const failing = moves.filter((move) => maySay(f, move))
  if (failing.length === 0) return null
  const ground = blankOf(part, rows + 1)
  const faring = (some: readonly Move[]) =>
    some.flatMap((move) => {
      const [missing, doubled] = faresOf(f, ground, move)
      return [
        { by: 1 as const, move, all: missing },
        { by: -1 as const, move, all: doubled },
      ]
    })
  const fares = faring(failing)
  const claimed = fares.flatMap(({ by, move, all }) => claimOf(all, move, rows, by) ?? [])
  if (claimed.length === 0) return null
  fares.push(...faring(moves.filter((move) => !failing.includes(move))))
  const claims = claimed.filter(
    ({ slip, by }) => !fares.some((other) => other.by === by && speaksAgainst(other.all, rows, slip.row, by)),
  )
  // A row that is really missing is claimed by every shift of the design. Shifts of several periods, less a row, seem
  // to hold then where they join both sides of it, and claim that another is doubled: of claims that differ the one is
  // right that the shortest shift makes.
  const alike = (p: Claim['slip'], q: Claim['slip']) => p.kind === q.kind && p.row <= q.to && q.row <= p.to
  const weigh = ({ slip }: Claim) => {
    const own = claims.filter((other) => alike(slip, other.slip))
    return { shortest: Math.min(...own.map(({ move }) => move.b)), support: own.reduce((sum, c) => sum + c.value, 0) }
  }
  const [best] = claims
    .map((claim) => ({ claim, ...weigh(claim) }))
    .sort(
      (p, q) =>
        p.shortest - q.shortest ||
        q.support - p.support ||
        p.claim.slip.to - p.claim.slip.row - (q.claim.slip.to - q.claim.slip.row),
    )
  if (!best) return null
  const { slip, move } = best.claim
  return { ...slip, line: slip.kind === 'missing' ? lineAt(f, ground, move, slip.row) : null }
}
