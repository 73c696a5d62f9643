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

/** Share of its weight that a bead has which is doubted itself. */
const DOUBTED = 0.3

/** How much a law is believed: the log of its odds to hold. */
const weightOf = ({ pairs, fails }: Law): number => Math.log((pairs - fails + 1) / (fails + 0.5))

/** Beads that are named at most: three rows of the widest work. */
const MOST_ODD = 1500

/** Beads of one strand so near that a slip reaches both. */
export const NEAR_IN_STRAND = 12

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

/** What one line says of a bead: how much it is believed, and its beads by colour. */
interface LineVoice {
  weight: number
  count: number
  readonly by: Map<number, { count: number; last: number }>
}

/** What the laws say of beads, as these are now. */
class Court {
  private readonly weights: readonly number[]
  private readonly seen: Int32Array
  private stamp = 0

  constructor(
    private readonly f: Field,
    private readonly laws: readonly Law[],
    private readonly colour: Uint16Array,
    /** Beads that are doubted themselves: they are believed less. */
    private readonly doubted: { has(k: number): boolean },
  ) {
    this.weights = laws.map(weightOf)
    this.seen = new Int32Array(f.colour.length)
  }

  /** The line of a bead that slips as one: a row, or a stretch of a strand. */
  private lineOf(k: number): number {
    const { columns, line, rows } = this.f
    const r = Math.floor(k / columns)
    return line === 'row' ? r : (k % columns) * rows + Math.floor(r / NEAR_IN_STRAND)
  }

  /** Hears the witnesses of a bead, line by line; its own line only where these are few. */
  hear(k: number): Heard | null {
    const { f, laws, colour, weights, seen, doubted } = this
    for (const ownLine of [false, true]) {
      const stamp = ++this.stamp
      const lines = new Map<number, LineVoice>()
      let count = 0
      for (let i = 0; i < laws.length; i++) {
        const to = laws[i]!.image[k]!
        if (to < 0 || seen[to] === stamp || (!ownLine && sharesLine(f, k, to))) continue
        seen[to] = stamp
        count++
        const weight = weights[i]! * (doubted.has(to) ? DOUBTED : 1)
        const at = this.lineOf(to)
        const voice: LineVoice = lines.get(at) ?? { weight: 0, count: 0, by: new Map() }
        lines.set(at, voice)
        voice.weight = Math.max(voice.weight, weight)
        voice.count++
        const one = voice.by.get(colour[to]!) ?? { count: 0, last: to }
        one.count++
        voice.by.set(colour[to]!, one)
      }
      if (count < FEW && !ownLine) continue
      return count === 0 ? null : this.sum(k, lines)
    }
    return null
  }

  /** Beads of one line slip together: a line has one voice, shared by what its beads say. */
  private sum(k: number, lines: ReadonlyMap<number, LineVoice>): Heard {
    const said = new Map<number, { weight: number; count: number; last: number }>()
    let total = 0
    for (const { weight, count, by } of lines.values()) {
      // More beads of a line say a little more than one.
      const voice = weight * (1 + Math.log(count))
      total += voice
      for (const [v, one] of by) {
        const known = said.get(v) ?? { weight: 0, count: 0, last: one.last }
        known.weight += (voice * one.count) / count
        known.count += one.count
        said.set(v, known)
      }
    }
    const own = this.colour[k]!
    let [expected, best] = [0, { weight: 0, count: 0, last: -1 }]
    for (const [v, one] of said)
      if (v !== own && one.weight > best.weight) {
        expected = v
        best = one
      }
    const forIt = said.get(own)?.weight ?? 0
    return {
      ...{ expected, witnesses: best.count, gain: best.weight - forIt },
      odd: best.weight >= AGREE * total && forIt <= OWN * total,
      only: best.count === 1 ? best.last : -1,
    }
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
  const waiting = new Map<number, Heard>()
  const court = new Court(f, laws, colour, waiting)
  // Twice: once it is known who is doubted, all are heard again.
  for (let round = 0; round < 2; round++) {
    const found: [number, Heard][] = []
    for (let k = 0; k < n; k++) {
      if (!doubted[k] || (round > 0 && !waiting.has(k))) continue
      const heard = court.hear(k)
      if (heard && heard.gain > 0) found.push([k, heard])
    }
    waiting.clear()
    for (const [k, heard] of found) waiting.set(k, heard)
    if (waiting.size > LOOSE * Math.max(1, edges)) return []
  }
  const out: Vote[] = []
  // More than so many are no mistakes, and looking for the next among all of them would take long.
  while (waiting.size > 0 && out.length < MOST_ODD) {
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
