import { columnOfKey, rowOfKey } from '../grid/key'
import { modulo } from '../modulo'
import type { RopeSurface, StrandBead } from '../technique/disc'

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
  rope: RopeSurface,
): number {
  const pick = (n: number) => numbers[modulo(n, numbers.length)]!
  const ground = numbers[0]!
  const accent = numbers[1] ?? ground
  switch (loading) {
    case 'rings':
      return pick(Math.floor(k / Math.max(1, along)))
    case 'stripe':
      return rope.strandLine({ s, k }) < strands / 2 ? ground : accent
    case 'helix':
      return rope.pair(s) % 2 === 0 ? ground : accent
    case 'spirals':
      return pick(rope.strandLine({ s, k }))
    case 'dotted':
      return s === 0 ? accent : ground
    case 'lines':
      return pick(rope.line({ s, k }))
    case 'flowers': {
      const isHeart = (b: StrandBead) => isCentre(b, wished(along), strands)
      if (isHeart({ s, k })) return numbers[2] ?? accent
      return rope.touching({ s, k }).some(isHeart) ? accent : ground
    }
  }
}

/** Flowers need two rounds each, so that none touches the next. */
const wished = (along: number): number => Math.max(2, Math.round(along))

/** Centres lie on strand 0 at every so many rounds, and on the strand across from it half way between. */
function isCentre({ s, k }: StrandBead, along: number, strands: number): boolean {
  return (
    (s === 0 && modulo(k, along) === 1 % along) ||
    (along >= 4 && s === strands / 2 && modulo(k - Math.floor(along / 2), along) === 1 % along)
  )
}

/** Rounds after which a loading repeats, so that copies of the repeat join without a break. */
export function loadingRounds({ loading, numbers, along }: LoadingWish, rope: Pick<RopeSurface, 'rounds'>): number {
  switch (loading) {
    case 'rings':
      return Math.max(1, along) * numbers.length
    case 'lines':
      return rope.rounds
    case 'flowers':
      return wished(along)
    default:
      return 1
  }
}

/** A loading over so many rounds, row-major: a row of the grid is a round, a column a strand. */
export const loadingCells = (wish: LoadingWish, rounds: number, strands: number, rope: RopeSurface): number[] =>
  Array.from({ length: rounds * strands }, (_, key) =>
    loadedNumber(wish, columnOfKey(strands, key), rowOfKey(strands, key), strands, rope),
  )
