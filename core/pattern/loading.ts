import type { School } from '../technique/braid/plan'
import { lineOf, linesOf, modulo, neighbourSteps, spotOf, strandLineOf, beadAt } from '../technique/braid/surface'

/** What a round braid can be loaded with: each is a rule that gives every bead of every strand its colour. */
export const LOADINGS = [
  { id: 'rings', name: 'Rings', says: 'All strands change colour together: rings round the rope.' },
  { id: 'stripe', name: 'Candy stripe', says: 'One half of the strands against the other.' },
  { id: 'helix', name: 'Double helix', says: 'Opposite pairs of one colour.' },
  { id: 'spirals', name: 'Spirals', says: 'Each strand of one colour: a spiral line for each.' },
  { id: 'dotted', name: 'Dotted spiral', says: 'One odd strand among plain ones.' },
  { id: 'lines', name: 'Lines', says: 'Lines that run nearly straight along the rope.' },
  { id: 'flowers', name: 'Flowers', says: 'A centre with its six neighbours, again and again.' },
] as const

export type LoadingId = (typeof LOADINGS)[number]['id']

export interface LoadingWish {
  readonly loading: LoadingId
  /** Tray numbers in the order in which they are used; the first is the ground. */
  readonly numbers: readonly number[]
  /** Rounds of one colour in rings, rounds from flower to flower. */
  readonly along: number
}

/** The tray number of bead k of strand s. */
function loadedNumber(
  { loading, numbers, along }: LoadingWish,
  s: number,
  k: number,
  strands: number,
  school: School,
): number {
  const pick = (n: number) => numbers[modulo(n, numbers.length)]!
  const ground = numbers[0]!
  const accent = numbers[1] ?? ground
  const spot = spotOf(s, k, strands, school)
  switch (loading) {
    case 'rings':
      return pick(Math.floor(k / Math.max(1, along)))
    case 'stripe':
      return strandLineOf(spot, strands, school) < strands / 2 ? ground : accent
    case 'helix':
      return Math.floor((s + 1) / 2) % 2 === 0 ? ground : accent
    case 'spirals':
      return pick(strandLineOf(spot, strands, school))
    case 'dotted':
      return s === 0 ? accent : ground
    case 'lines':
      return pick(lineOf(spot, strands, school))
    case 'flowers':
      return flower(wished(along), s, k, strands, school) === 'centre'
        ? (numbers[2] ?? accent)
        : flower(wished(along), s, k, strands, school) === 'petal'
          ? accent
          : ground
  }
}

/** Flowers need two rounds each, so that none touches the next. */
const wished = (along: number): number => Math.max(2, Math.round(along))

/** Centres lie on strand 0 at every so many rounds, and on the strand across from it half way between. */
function isCentre(s: number, k: number, along: number, strands: number): boolean {
  return (
    (s === 0 && modulo(k, along) === 1 % along) ||
    (along >= 4 && s === strands / 2 && modulo(k - Math.floor(along / 2), along) === 1 % along)
  )
}

function flower(along: number, s: number, k: number, strands: number, school: School): 'centre' | 'petal' | null {
  if (isCentre(s, k, along, strands)) return 'centre'
  const { row, col } = spotOf(s, k, strands, school)
  const petal = neighbourSteps(strands, school).some(({ dc, dt }) => {
    const there = beadAt({ row: row + dt, col: modulo(col + dc, strands / 2) }, strands, school)
    return there !== null && isCentre(there.s, there.k, along, strands)
  })
  return petal ? 'petal' : null
}

/** Rounds after which a loading repeats, so that copies of the repeat join without a break. */
export function loadingRounds({ loading, numbers, along }: LoadingWish, strands: number): number {
  switch (loading) {
    case 'rings':
      return Math.max(1, along) * numbers.length
    case 'lines': {
      let rounds = 1
      while (modulo(rounds * (strands / 4 - 1), linesOf(strands)) !== 0) rounds++
      return rounds
    }
    case 'flowers':
      return wished(along)
    default:
      return 1
  }
}

/** A loading over so many rounds, row-major: a row of the grid is a round, a column a strand. */
export const loadingCells = (wish: LoadingWish, rounds: number, strands: number, school: School): number[] =>
  Array.from({ length: rounds * strands }, (_, key) =>
    loadedNumber(wish, key % strands, Math.floor(key / strands), strands, school),
  )
