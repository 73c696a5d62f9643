import { cellAt, VOID, type Field } from './field'
import { lawsOf, type Law } from './laws'
import { NEAR_IN_STRAND, votes, type Vote } from './vote'

/** Odd beads as findings: those that lie together are one, and what is plainly meant is left out. */

/** Beads that break what the rest follows. */
export interface OddOnes {
  /** Cells of the field, and what each should be. */
  readonly cells: readonly number[]
  readonly expected: readonly number[]
  /** The most places like one of them that say so. */
  readonly witnesses: number
  /** Whether two places differ and nothing says which of the two is right. */
  readonly pair: boolean
  /** Three witnesses and no doubt: odd; else worth a look. */
  readonly sure: boolean
}

const NEAR = 2

/** Cells near each other, or in one line, together. */
function clusters(f: Field, keys: readonly number[]): number[][] {
  const { columns, line } = f
  const left = new Set(keys)
  const out: number[][] = []
  for (const first of keys) {
    if (!left.delete(first)) continue
    const group = [first]
    for (let i = 0; i < group.length; i++) {
      const [c, r] = [group[i]! % columns, Math.floor(group[i]! / columns)]
      for (const other of left) {
        const dc = Math.abs((other % columns) - c)
        const dr = Math.abs(Math.floor(other / columns) - r)
        const joined = line === 'row' ? dr === 0 : dc === 0 && dr <= NEAR_IN_STRAND
        if ((dc <= NEAR && dr <= NEAR) || joined) {
          left.delete(other)
          group.push(other)
        }
      }
    }
    out.push(group)
  }
  return out
}

/** Patches of more cells over more lines are another motif. */
const PATCH = 14
const PATCH_LINES = 2
const TALL = 9
const TALL_LINES = 4
/** A colour of which so large a share is odd is used for little else: letters. */
const OWN_USES = 0.6
const OWN_LEAST = 5

/** Whether an exception is meant: it is large, it has its own mirror image, or a colour that lies nowhere else. */
function isMeant(f: Field, group: readonly number[], at: ReadonlyMap<number, Vote>): boolean {
  const { columns, colour } = f
  const lines = new Set(group.map((k) => (f.line === 'row' ? Math.floor(k / columns) : k % columns))).size
  if ((group.length > PATCH && lines > PATCH_LINES) || (group.length > TALL && lines > TALL_LINES)) return true
  const own = colour[group[0]!]!
  if (group.length >= OWN_LEAST && group.every((k) => colour[k] === own)) {
    let [uses, odd] = [0, 0]
    for (let k = 0; k < colour.length; k++)
      if (colour[k] === own) {
        uses++
        if (at.has(k)) odd++
      }
    if (odd >= OWN_USES * uses) return true
  }
  const x0 = 2 * f.minX + f.spanX - 1
  const mirrors: ((k: number) => readonly [number, number])[] = [
    (k) => [x0 - f.X[k]!, f.Y[k]!],
    (k) => [f.X[k]!, f.spanY - 1 - f.Y[k]!],
    (k) => [x0 - f.X[k]!, f.spanY - 1 - f.Y[k]!],
  ]
  return mirrors.some((mirror) => {
    let [moved, same] = [0, 0]
    for (const k of group) {
      const [x, y] = mirror(k)
      const inside = x >= f.minX && x - f.minX < f.spanX && y >= 0 && y < f.spanY
      const to = inside ? f.table[y * f.spanX + x - f.minX]! : -1
      if (to >= 0 && colour[to] === colour[k] && (at.has(to) || to === k)) {
        same++
        if (to !== k) moved++
      }
    }
    return same === group.length && moved > 0
  })
}

/** Copies of a strand's own sequence, from which on it is one. */
const COPIES = 3

/** Beads after which the sequence of a strand comes again all through it; 0 where it does not. */
function sequenceOf({ columns, rows, colour }: Field, strand: number): number {
  for (let period = 1; period * COPIES <= rows; period++) {
    let r = period
    while (r < rows && colour[r * columns + strand] === colour[(r - period) * columns + strand]) r++
    if (r === rows) return period
  }
  return 0
}

/**
 * Beads of strands that are as their own strand has them all along: where a sequence does not close round the rope,
 * one bead of it meets others at the seam than elsewhere. A strand that follows none of its fellows breaks it with
 * more than one.
 */
function ofSequences(f: Field, found: readonly Vote[]): ReadonlySet<number> {
  const out = new Set<number>()
  if (f.line === 'row') return out
  const rowOf = (k: number) => Math.floor(k / f.columns)
  for (let strand = 0; strand < f.columns; strand++) {
    const own = found.filter(({ k }) => k % f.columns === strand).sort((a, b) => a.k - b.k)
    const period = own.length > 0 ? sequenceOf(f, strand) : 0
    if (period === 0) continue
    for (const [i, { k }] of own.entries()) {
      const beside = [own[i - 1], own[i + 1]].some((one) => one && Math.abs(rowOf(one.k) - rowOf(k)) < period)
      if (!beside) out.add(k)
    }
  }
  return out
}

/** Cells under which a field says nothing. */
const LEAST_CELLS = 24
/** Fields of fewer cells want as many witnesses as what is sure. */
const FEW_CELLS = 150
/** Two beads that differ are said in fields of so many cells, by laws of so many pairs of which hardly others fail. */
const PAIR_CELLS = 100
const PAIR_PAIRS = 40
const PAIR_FAILS = 4
/** Steps round a bead in which its like are counted, and how many of them make that it is not alone. */
const ROUND = 2
const NOT_ALONE = 3
/** Findings beyond which a design is loose, not mistaken. */
const FOUND_MOST = 6
/** Witnesses from which on a bead is odd without doubt. */
const SURE = 3

/** How often laws are tried, the better half of them each time, where they find too much; how many are the least. */
const TRIES = 3
const LEAST_LAWS = 6

/** The beads of a field that break what the rest follows; none where it follows too little. */
export function oddIn(f: Field, laws: readonly Law[] = lawsOf(f)): OddOnes[] {
  if (f.colour.length < LEAST_CELLS) return []
  const failing = ({ fails, pairs }: Law) => fails / pairs
  let kept = laws
  for (let round = 0; round < TRIES; round++) {
    const found = oddBy(f, kept)
    if (found) return found
    // Laws that hold nearly may all the same be none: what finds too much is tried by the best alone.
    if (kept.length <= LEAST_LAWS) return []
    kept = [...kept].sort((a, b) => failing(a) - failing(b)).slice(0, Math.max(LEAST_LAWS, kept.length >> 1))
  }
  return []
}

/** What some laws find; null where it is too much to be mistakes. */
function oddBy(f: Field, laws: readonly Law[]): OddOnes[] | null {
  const heard = votes(f, laws).filter(({ k }) => f.colour[k] !== VOID)
  const meant = ofSequences(f, heard)
  const found = heard.filter(({ k }) => !meant.has(k))
  if (found.length === 0) return []
  const at = new Map<number, Vote>(found.map((vote) => [vote.k, vote]))
  const kept = clusters(f, [...at.keys()]).filter((group) => !isMeant(f, group, at))
  if (kept.length > FOUND_MOST) return null
  const cells = f.colour.length
  return kept.flatMap((group): OddOnes[] => {
    const witnesses = Math.max(...group.map((k) => at.get(k)!.witnesses))
    if (witnesses >= (cells < FEW_CELLS ? SURE : 2))
      return [
        {
          cells: group,
          expected: group.map((k) => at.get(k)!.expected),
          ...{ witnesses, sure: witnesses >= SURE, pair: false },
        },
      ]
    const one = witnesses === 1 && cells >= PAIR_CELLS ? pairOf(f, laws, group, at) : null
    return one ? [one] : []
  })
}

/** Beads like it round a bead, within two steps. */
function alikeRound(f: Field, k: number): number {
  let alike = 0
  for (let dy = -ROUND; dy <= ROUND; dy++)
    for (let dx = -ROUND; dx <= ROUND; dx++) {
      const to = dx === 0 && dy === 0 ? -1 : cellAt(f, f.X[k]! + dx, f.Y[k]! + dy)
      if (to >= 0 && to !== k && f.colour[to] === f.colour[k]) alike++
    }
  return alike
}

/**
 * A bead that differs from the only other that should be like it, by laws that hold everywhere else. The one that is
 * alone of its colour round about, where the other is not, is wrong; else it is not said which.
 */
function pairOf(
  f: Field,
  laws: readonly Law[],
  group: readonly number[],
  at: ReadonlyMap<number, Vote>,
): OddOnes | null {
  const [k] = group
  const other = at.get(k!)!.pair
  if (group.length !== 1 || other < 0) return null
  const joining = laws.filter(({ image }) => image[k!] === other || image[other] === k)
  if (joining.length === 0 || joining.some(({ fails, pairs }) => fails > PAIR_FAILS || pairs < PAIR_PAIRS)) return null
  const base = { witnesses: 1, sure: false }
  const [own, its] = [alikeRound(f, k!), alikeRound(f, other)]
  const alone = (one: number, more: number) => one === 0 && more >= NOT_ALONE
  if (alone(own, its)) return { ...base, cells: [k!], expected: [f.colour[other]!], pair: false }
  if (alone(its, own)) return { ...base, cells: [other], expected: [f.colour[k!]!], pair: false }
  return { ...base, cells: [k!, other], expected: [f.colour[other]!, f.colour[k!]!], pair: true }
}
