import { cellAt, VOID, type Field } from './field'

/**
 * The moves of a design: shifts, mirrors and half turns of its lattice that carry nearly all beads onto like beads.
 * They are found by trying each on a sample of beads that touch another colour, equally many of each colour.
 */

/** (X, Y) → (a + sx · X, b + sy · Y). */
export interface Move {
  readonly sx: 1 | -1
  readonly sy: 1 | -1
  readonly a: number
  readonly b: number
}

/** The cells that a move carries each cell onto; −1 where there is none, or where it is its own. */
export function imagesOf(f: Field, { sx, sy, a, b }: Move): Int32Array {
  const { X, Y, colour } = f
  const image = new Int32Array(colour.length)
  for (let k = 0; k < image.length; k++) {
    const to = colour[k] === VOID ? -1 : cellAt(f, a + sx * X[k]!, b + sy * Y[k]!)
    image[k] = to === k ? -1 : to
  }
  return image
}

/** Mixes a number, so that samples hang on no order; 32 bits. */
function mixed(k: number): number {
  let h = Math.imul(k ^ 0x9e3779b9, 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) >>> 0
}

interface Sample {
  readonly X: Int32Array
  readonly Y: Int32Array
  readonly colour: Int32Array
  /** Which colour, from 0, the most frequent first. */
  readonly stratum: Uint8Array
  /** Share of each colour among all beads. */
  readonly chance: readonly number[]
}

/** Cells that are sampled, colours at most, and edge cells that a colour must have. */
const SAMPLED = 200
const MOST_COLOURS = 10
const LEAST_OF_COLOUR = 4

/** `told`: cells that are left out of the sample, since something is known of them already. */
function sampleOf({ colour, edges, X, Y }: Field, told: Uint8Array | null): Sample {
  const by = new Map<number, number[]>()
  const all = new Map<number, number>()
  let count = 0
  for (let k = 0; k < colour.length; k++) {
    const v = colour[k]!
    if (v === VOID) continue
    all.set(v, (all.get(v) ?? 0) + 1)
    count++
    if (!edges[k] || told?.[k]) continue
    const list = by.get(v)
    if (list) list.push(k)
    else by.set(v, [k])
  }
  const lists = [...by]
    .filter(([, list]) => list.length >= LEAST_OF_COLOUR)
    .sort((p, q) => q[1].length - p[1].length)
    .slice(0, MOST_COLOURS)
  const each = Math.ceil(SAMPLED / Math.max(1, lists.length))
  const chosen = lists.flatMap(([, list], c) => {
    const step = Math.max(1, list.length / each)
    const out: { k: number; c: number; h: number }[] = []
    for (let i = 0; i < list.length && out.length < each; i += step) {
      const at = Math.floor(i + ((mixed(Math.floor(i)) % 1000) / 1000) * step)
      const k = list[Math.min(list.length - 1, at)]!
      out.push({ k, c, h: mixed(k) })
    }
    return out
  })
  chosen.sort((p, q) => p.h - q.h)
  return {
    X: Int32Array.from(chosen, ({ k }) => X[k]!),
    Y: Int32Array.from(chosen, ({ k }) => Y[k]!),
    colour: Int32Array.from(chosen, ({ k }) => colour[k]!),
    stratum: Uint8Array.from(chosen, ({ c }) => c),
    chance: lists.map(([v]) => (all.get(v) ?? 0) / count),
  }
}

/** Whether cells lie on every other place only; not where the seam of a tube breaks that. */
function isBoard({ X, Y, wrap }: Field): boolean {
  if (wrap.x > 0 && ((wrap.x + wrap.y) & 1) === 1) return false
  const first = (X[0]! + Y[0]!) & 1
  for (let k = 0; k < X.length; k++) if (((X[k]! + Y[k]!) & 1) !== first) return false
  return true
}

/** The colours laid out once more on every side that goes round, so that a look-up is one read. */
function unrolled(f: Field) {
  const [tx, ty] = [f.wrap.x > 0 ? 1 : 0, f.cyclic > 0 ? 1 : 0]
  const x0 = f.minX - tx * f.spanX
  const y0 = -(ty * f.spanY)
  const w = f.spanX * (1 + 2 * tx)
  const h = f.spanY * (1 + 2 * ty)
  const table = new Int32Array(w * h).fill(-1)
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const k = cellAt(f, x + x0, y + y0)
      if (k >= 0) table[y * w + x] = f.colour[k]!
    }
  return { table, w, h, x0, y0 }
}

/** Kinds of moves, and how many of each are kept: the best, nearest first among equals. */
const QUOTA = { sideways: 4, shifts: 12, across: 5, along: 5, turns: 5 } as const
type Kind = keyof typeof QUOTA

/** A move is kept from this score on. */
const LEAST_SCORE = 0.6
/** A score from which on more moves of a kind say nothing new. */
const PERFECT = 0.98
/** Steps along that are tried at most, and slides of mirrors. */
const FAR_ALONG = 260
const FAR_SLIDE = 40
const FAR_ASIDE = 4
/** Share of the width and the length within which moves are tried, so that enough of both overlaps. */
const OVERLAP = 0.7

/** After so many defined pairs, fewer that agree end the trial. */
const LEAVE: readonly (readonly [defined: number, agree: number])[] = [
  [10, 4],
  [20, 10],
  [40, 23],
  [80, 48],
]

interface Found extends Move {
  readonly score: number
  readonly far: number
}

/** Tries a move on the sample: 0 where it does not hold. */
function scorer(f: Field, s: Sample): (sx: number, sy: number, a: number, b: number) => number {
  const { table, w, h, x0, y0 } = unrolled(f)
  const { X, Y, colour, stratum, chance } = s
  const n = X.length
  const ok = new Int32Array(chance.length)
  const tried = new Int32Array(chance.length)
  return (sx, sy, a, b) => {
    let [defined, agree, leave] = [0, 0, 0]
    ok.fill(0)
    tried.fill(0)
    for (let i = 0; i < n; i++) {
      if (i === 16 && defined === 0) return 0
      const x = a - x0 + sx * X[i]!
      const y = b - y0 + sy * Y[i]!
      if (x < 0 || x >= w || y < 0 || y >= h) continue
      const v = table[y * w + x]!
      if (v < 0) continue
      if (sx + sy < 2 && x + x0 === X[i] && y + y0 === Y[i]) continue
      defined++
      tried[stratum[i]!]!++
      if (v === colour[i]) {
        agree++
        ok[stratum[i]!]!++
      }
      if (leave < LEAVE.length && defined === LEAVE[leave]![0] && agree < LEAVE[leave++]![1]) return 0
    }
    if (defined < 0.25 * n || defined < 12) return 0
    // The mean over colours, less what chance gives: a rule must hold for the rare colours as for the ground.
    let [sum, colours, best] = [0, 0, 0]
    for (let c = 0; c < chance.length; c++) {
      if (tried[c]! < 6) continue
      const part = (ok[c]! / tried[c]! - chance[c]!) / (1 - chance[c]!)
      sum += part
      colours++
      if (tried[c]! >= 14 && chance[c]! < 0.4) best = Math.max(best, part)
    }
    if (colours === 0) return 0
    const mean = sum / colours
    return Math.max(mean, best > 0.9 && mean > 0.3 ? LEAST_SCORE + mean * 0.2 : 0)
  }
}

/** The moves worth keeping, with their ways back. */
export function movesOf(f: Field, told: Uint8Array | null = null): Move[] {
  const s = sampleOf(f, told)
  if (s.X.length < 12) return []
  const score = scorer(f, s)
  const [x0, y0] = [s.X[0]!, s.Y[0]!]
  const found: Record<Kind, Found[]> = { sideways: [], shifts: [], across: [], along: [], turns: [] }
  const perfect: Record<Kind, number> = { sideways: 0, shifts: 0, across: 0, along: 0, turns: 0 }
  const board = isBoard(f)
  const test = (kind: Kind, sx: 1 | -1, sy: 1 | -1, a: number, b: number, far: number) => {
    if (perfect[kind] >= 3 * QUOTA[kind]) return
    if (board && ((sx * x0 + a + sy * y0 + b - x0 - y0) & 1) === 1) return
    const value = score(sx, sy, a, b)
    if (value >= PERFECT) perfect[kind]++
    if (value >= LEAST_SCORE) found[kind].push({ sx, sy, a, b, score: value, far })
  }
  const round = f.wrap.x > 0
  const reachX = round ? f.spanX - 1 : Math.floor(OVERLAP * f.spanX)
  const reachY = f.cyclic > 0 ? Math.min(f.cyclic >> 1, FAR_ALONG) : Math.min(Math.floor(OVERLAP * f.spanY), FAR_ALONG)
  for (let b = 0; b <= reachY; b++)
    for (let a = round ? 0 : -reachX; a <= reachX; a++)
      if (b > 0 || a > 0) test(b === 0 ? 'sideways' : 'shifts', 1, 1, a, b, Math.abs(a) + b)
  const midX = 2 * f.minX + f.spanX - 1
  const midY = f.spanY - 1
  const slideY = Math.min(reachY, FAR_SLIDE)
  const offX = round ? f.spanX >> 1 : Math.floor(0.5 * f.spanX)
  for (let a = midX - offX; a <= midX + offX; a++)
    for (let b = -slideY; b <= slideY; b++) test('across', -1, 1, a, b, Math.abs(a - midX) + Math.abs(b))
  const slideX = round ? f.spanX - 1 : Math.min(reachX, FAR_ASIDE)
  const offY = Math.min(Math.floor(0.5 * f.spanY), FAR_ALONG)
  for (let b = midY - offY; b <= midY + offY; b++) {
    for (let a = round ? 0 : -slideX; a <= slideX; a++) test('along', 1, -1, a, b, Math.abs(b - midY) + Math.abs(a))
    for (let a = midX - slideX; a <= midX + slideX; a++)
      test('turns', -1, -1, a, b, Math.abs(b - midY) + Math.abs(a - midX))
  }
  return (Object.keys(QUOTA) as Kind[]).flatMap((kind) =>
    found[kind]
      .sort((p, q) => Math.round(q.score * 25) - Math.round(p.score * 25) || p.far - q.far)
      .slice(0, QUOTA[kind])
      .flatMap(({ sx, sy, a, b }): Move[] => {
        // The way back is a rule too: another witness.
        const back: Move = { sx, sy, a: sx === 1 ? -a : a, b: sy === 1 ? -b : b }
        return back.a === a && back.b === b ? [back] : [{ sx, sy, a, b }, back]
      }),
  )
}
