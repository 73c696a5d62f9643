/** Strands that are to end on one line. Lengths in mm. */

/** What each strand has to reach it with: beads of the filler, and some of a smaller trim. */
export interface LevelWish {
  /** Where each strand ends before anything is put in. */
  readonly from: readonly number[]
  readonly fillerMm: number
  /** Trim beads; 0 where there are none. */
  readonly trimMm: number
  /** Most trim beads of a strand. */
  readonly mostTrim: number
  /** The line that is wanted, and how far it may move either way. */
  readonly lineMm: number
  readonly giveMm: number
}

export interface Levelled {
  readonly lineMm: number
  readonly filler: readonly number[]
  readonly trim: readonly number[]
  /** How far each ends from the line: below it is positive. */
  readonly off: readonly number[]
}

/** Lengths that a strand can be given, each by the fewest trim beads, in ascending order. */
interface Reach {
  readonly mm: number
  readonly filler: number
  readonly trim: number
}

function reaches({ fillerMm, trimMm, mostTrim }: LevelWish, mostMm: number): Reach[] {
  const out = new Map<number, Reach>()
  for (let trim = 0; trim <= (trimMm > 0 ? mostTrim : 0); trim++)
    for (let filler = 0; filler * fillerMm + trim * trimMm <= mostMm + fillerMm + 1e-9; filler++) {
      const mm = filler * fillerMm + trim * trimMm
      const key = Math.round(mm * 1e6)
      if (!out.has(key)) out.set(key, { mm, filler, trim })
    }
  return [...out.values()].sort((a, b) => a.mm - b.mm)
}

/** The reach nearest to a length, by bisection. */
function nearest(all: readonly Reach[], mm: number): Reach {
  let [low, high] = [0, all.length - 1]
  while (low < high) {
    const middle = (low + high) >> 1
    if (all[middle]!.mm < mm) low = middle + 1
    else high = middle
  }
  const before = all[low - 1]
  return before && mm - before.mm <= all[low]!.mm - mm ? before : all[low]!
}

/**
 * The counts with which strands end most level, and the line they come nearest to: the least sum of squares over all
 * lines within the give. For a line each strand takes its nearest reach by itself, and what it takes changes only
 * where the line passes the middle between two reaches; between two such places the best line is the mean of the
 * ends, held within them. So all of these stretches are tried, and the answer is exact.
 */
export function levelled(wish: LevelWish): Levelled {
  const { from, lineMm, giveMm } = wish
  const [low, high] = [lineMm - giveMm, lineMm + giveMm]
  const all = reaches(wish, Math.max(0, high - Math.min(...from)))
  const switches = new Set([low, high])
  for (const start of from)
    for (let k = 1; k < all.length; k++) {
      const at = start + (all[k - 1]!.mm + all[k]!.mm) / 2
      if (at > low && at < high) switches.add(at)
    }
  const edges = [...switches].sort((a, b) => a - b)
  let best: { cost: number; line: number; taken: Reach[] } | null = null
  for (let k = 0; k < Math.max(1, edges.length - 1); k++) {
    const [a, b] = [edges[k]!, edges[k + 1] ?? edges[k]!]
    const taken = from.map((start) => nearest(all, (a + b) / 2 - start))
    const mean = from.reduce((sum, start, i) => sum + start + taken[i]!.mm, 0) / from.length
    const line = Math.min(b, Math.max(a, mean))
    const cost = from.reduce((sum, start, i) => sum + (start + taken[i]!.mm - line) ** 2, 0)
    if (!best || cost < best.cost - 1e-12) best = { cost, line, taken }
  }
  const { line, taken } = best!
  return {
    lineMm: line,
    filler: taken.map((r) => r.filler),
    trim: taken.map((r) => r.trim),
    off: from.map((start, i) => start + taken[i]!.mm - line),
  }
}
