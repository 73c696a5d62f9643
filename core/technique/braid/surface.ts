import { modulo } from '../../modulo'
import type { RopeSurface } from '../disc'
import type { Settings } from '../technique'
import type { School } from './plan'

/**
 * Surface and strands of a round braid of n strands. Unrolled, beads lie at (row, col): `row` counts steps, `col` the
 * columns round the rope; only places with row ≡ col (mod H) hold a bead (school B: row ≡ −col). P = n / 2 pairs, H =
 * P / 2. Bead k of strand s, k = 0 nearest the centre. School B is the mirror image of A.
 */
interface Spot {
  readonly row: number
  readonly col: number
}

const signOf = (school: School): 1 | -1 => (school === 'A' ? 1 : -1)

const pairOf = (s: number, pairs: number): number => Math.floor((s + 1) / 2) % pairs

/** Which step of a round moves strand s. */
export function stepOf(s: number, strands: number, school: School): number {
  const half = strands / 4
  const late = school === 'A' ? s % 2 === 1 : s % 2 === 0
  return modulo(signOf(school) * pairOf(s, strands / 2), half) + (late ? half : 0)
}

/** Where bead k of strand s lies. */
export function spotOf(s: number, k: number, strands: number, school: School): Spot {
  const pairs = strands / 2
  return { row: pairs * k + stepOf(s, strands, school), col: modulo(pairOf(s, pairs) + (pairs / 2) * k, pairs) }
}

/** Which bead of which strand lies at a spot; null where the lattice has none. */
export function beadAt(
  { row, col }: Spot,
  strands: number,
  school: School,
): { readonly s: number; readonly k: number } | null {
  const pairs = strands / 2
  const half = pairs / 2
  if (modulo(row, half) !== modulo(signOf(school) * col, half)) return null
  const k = Math.floor(row / pairs)
  const q = modulo(row, pairs)
  const p = modulo(col - half * k, pairs)
  const clockwise = school === 'A' ? q < half : q >= half
  return { s: clockwise ? 2 * p : modulo(2 * p - 1, strands), k }
}

/** Lines of the chart that run nearly straight along the rope: 6 for eight strands, 8 for twelve, 10 for sixteen. */
export const linesOf = (strands: number): number => 2 * (strands / 4 + 1)

/** The line of a spot in that chart; lines wrap round the rope with no shift. */
export function lineOf({ row, col }: Spot, strands: number, school: School): number {
  const half = strands / 4
  return modulo((row - signOf(school) * (half + 1) * col) / half, linesOf(strands))
}

/** The line of a spot in the chart with one line a strand. */
export const strandLineOf = ({ row, col }: Spot, strands: number, school: School): number =>
  modulo(row - signOf(school) * 2 * col, strands)

/** Steps from a bead to the six that touch it, (dc, dt): mirrored for school B. */
export function neighbourSteps(
  strands: number,
  school: School,
): readonly { readonly dc: number; readonly dt: number }[] {
  const half = strands / 4
  const sign = signOf(school)
  return [
    [1, 1],
    [0, half],
    [1, half + 1],
  ].flatMap(([dc, dt]) => [
    { dc: sign * dc!, dt: dt! },
    { dc: -sign * dc!, dt: -dt! },
  ])
}

/** Rounds after which every strand lies in its line of the chart again: lines move on by H − 1 a round. */
export function periodOf(strands: number): number {
  const lines = linesOf(strands)
  let rows = 1
  while (modulo(rows * (strands / 4 - 1), lines) !== 0) rows++
  return rows
}

/** Twist of a rope of eight strands, degrees a round (about; school B turns the other way). */
const TWIST_OF_EIGHT = -96

/** The surface of a round braid, as the rest of Weben asks for it. */
export function roundSurface(strands: number, school: School, own: Settings): RopeSurface {
  const pairs = strands / 2
  const other: School = school === 'A' ? 'B' : 'A'
  const at = (row: number, col: number) => beadAt({ row, col: modulo(col, pairs) }, strands, school)!
  // The twist at which the nearly straight lines are straight.
  const straight = -360 / (strands / 4 + 1)
  return {
    steps: pairs,
    spot: ({ s, k }) => spotOf(s, k, strands, school),
    lines: linesOf(strands),
    rounds: periodOf(strands),
    line: ({ s, k }) => lineOf(spotOf(s, k, strands, school), strands, school),
    strandLine: ({ s, k }) => strandLineOf(spotOf(s, k, strands, school), strands, school),
    pair: (s) => pairOf(s, pairs),
    touching({ s, k }) {
      const { row, col } = spotOf(s, k, strands, school)
      return neighbourSteps(strands, school).map(({ dc, dt }) => at(row + dt, col + dc))
    },
    moved({ s, k }, move) {
      if (move === 'along') return { s, k: k + 1 }
      const { row, col } = spotOf(s, k, strands, school)
      return move === 'half turn' ? at(row, col + strands / 4) : at(row + 1, col + signOf(school))
    },
    mirror: { settings: { ...own, school: other }, says: `school ${other}` },
    twist: { usual: strands === 8 ? TWIST_OF_EIGHT : Math.round(straight), hand: signOf(other) },
    wind: (twistDegrees) => signOf(school) * (straight - twistDegrees),
  }
}
