import type { Field } from './field'
import type { Law } from './laws'

/**
 * Beads that break the laws of a design. Of every bead its laws name witnesses: the beads that it is carried onto.
 * Where most of them agree against it, it is odd. A bead that is mended in memory speaks as it should be from then on,
 * so that mistakes do not vouch for each other; the one that mends most is taken first.
 */
export interface Vote {
  readonly k: number
  readonly expected: number
  /** Distinct beads that say so. */
  readonly witnesses: number
  /** The one bead it differs from, where no other says which of the two is right; −1 otherwise. */
  readonly pair: number
}

/** Share of what is said that must agree, for a bead to be odd; and what may speak for it as it is. */
const AGREE = 0.75
const OWN = 0.2
/** Beads of a line that slipped vouch for each other: they are heard only where too few others speak. */
const FEW = 3
/** Cells with a witness against them beyond which a design is too loose to be read, as a share of the edges. */
const LOOSE = 0.4

/** How much a law is believed: the log of its odds to hold. */
const weightOf = ({ pairs, fails }: Law): number => Math.log((pairs - fails + 1) / (fails + 0.5))

/** Beads of one strand so near that a slip reaches both. */
const NEAR_IN_STRAND = 12

/** Whether two beads lie in one line that can slip: a row, or a stretch of a strand. */
function sharesLine({ columns, line }: Field, a: number, b: number): boolean {
  const [rowA, rowB] = [Math.floor(a / columns), Math.floor(b / columns)]
  return line === 'row' ? rowA === rowB : a % columns === b % columns && Math.abs(rowA - rowB) <= NEAR_IN_STRAND
}

interface Heard {
  readonly expected: number
  readonly witnesses: number
  /** What is said for the expected colour less what is said for the bead as it is. */
  readonly gain: number
  readonly odd: boolean
  readonly only: number
}

/** What the laws say of beads, as these are now. */
class Court {
  private readonly weights: readonly number[]
  /** For each law, which cell each is carried from. */
  private readonly seen: Int32Array
  private stamp = 0

  constructor(
    private readonly f: Field,
    private readonly laws: readonly Law[],
    private readonly colour: Uint16Array,
  ) {
    this.weights = laws.map(weightOf)
    this.seen = new Int32Array(f.colour.length)
  }

  /** Hears the witnesses of a bead: those of other lines, and its own line where these are few. */
  hear(k: number): Heard | null {
    const { f, laws, colour, weights, seen } = this
    for (const ownLine of [false, true]) {
      const stamp = ++this.stamp
      const said = new Map<number, { weight: number; count: number; last: number }>()
      let [total, count] = [0, 0]
      for (let i = 0; i < laws.length; i++) {
        const to = laws[i]!.image[k]!
        if (to < 0 || seen[to] === stamp) continue
        if (!ownLine && sharesLine(f, k, to)) continue
        seen[to] = stamp
        const weight = weights[i]!
        const one = said.get(colour[to]!)
        if (one) {
          one.weight += weight
          one.count++
          one.last = to
        } else said.set(colour[to]!, { weight, count: 1, last: to })
        total += weight
        count++
      }
      if (count < FEW && !ownLine) continue
      if (count === 0) return null
      let [expected, best] = [0, { weight: 0, count: 0, last: -1 }]
      for (const [v, one] of said)
        if (v !== colour[k] && one.weight > best.weight) {
          expected = v
          best = one
        }
      const own = said.get(colour[k]!)?.weight ?? 0
      return {
        ...{ expected, witnesses: best.count, gain: best.weight - own },
        odd: best.weight >= AGREE * total && own <= OWN * total,
        only: best.count === 1 ? best.last : -1,
      }
    }
    return null
  }
}

/** The beads that laws speak against, in the order in which they are found. */
export function votes(f: Field, laws: readonly Law[]): Vote[] {
  if (laws.length === 0) return []
  const n = f.colour.length
  const colour = Uint16Array.from(f.colour)
  // Only a bead with a witness against it can be odd.
  const doubted = new Uint8Array(n)
  for (const { image } of laws)
    for (let k = 0; k < n; k++) if (image[k]! >= 0 && colour[image[k]!] !== colour[k]) doubted[k] = 1
  let edges = 0
  for (let k = 0; k < n; k++) if (f.edges[k]) edges++
  const court = new Court(f, laws, colour)
  const open: { k: number; heard: Heard }[] = []
  for (let k = 0; k < n; k++) {
    if (!doubted[k]) continue
    const heard = court.hear(k)
    if (heard && heard.gain > 0) open.push({ k, heard })
  }
  if (open.length > LOOSE * Math.max(1, edges)) return []
  const out: Vote[] = []
  const waiting = new Map(open.map((one) => [one.k, one.heard]))
  while (waiting.size > 0) {
    let [best, most] = [-1, 0]
    for (const [k, heard] of waiting)
      if (heard.odd && heard.gain > most) {
        best = k
        most = heard.gain
      }
    if (best < 0) break
    const { expected, witnesses, only } = waiting.get(best)!
    out.push({ k: best, expected, witnesses, pair: only })
    colour[best] = expected
    waiting.delete(best)
    // Those that it speaks of are heard again.
    for (const { image } of laws) {
      const to = image[best]!
      if (to < 0 || !waiting.has(to)) continue
      const heard = court.hear(to)
      if (heard && heard.gain > 0) waiting.set(to, heard)
      else waiting.delete(to)
    }
  }
  return out
}
