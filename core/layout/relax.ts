import { keptDiscs, type Outline } from './body'
import type { Lying } from './pose'
import type { Tie } from './problem'

/** Beads that do not follow each other on the thread ride over each other in the third dimension by so much. */
const GIVE = 0.93
/** Length of thread that a bridge takes in a round, mm. */
const PULL = 0.1
/** A longer bridge pulls a little harder, 1/mm: gaps of equal standing become equal. */
const EVEN = 0.6
/** How hard the chain is drawn out, as a share of the pull of the thread. */
const TAUT = 0.2
/** Share of a gap that a round closes at most. */
const CLOSE = 0.8
/** Passes beyond this pull no harder. */
const MOST_WEIGHT = 3
/** Rounds of pushing apart after each of pulling. */
const SWEEPS = 3
/** Rounds in which beads grow from their first size to their own; the pitch is held a little longer. */
const GROW = 150
const HELD = 180
const FIRST_SIZE = 0.55
/** After so many rounds a bead is turned round if its thread is doubled back. */
const HALF_TURNS: readonly number[] = [HELD, 270]
/** A half turn must shorten the bridges of a bead by so much, mm; once all has settled it is tried so often again. */
const WORTH_MM = 0.2
const MOST_TURNS = 3
/** The pitch has settled when it changes by less than this share in so many rounds; no later than after so many. */
const SETTLED = 0.0006
const WATCH = 50
const MOST_PULLING = 2400
const STILL_MIDDLE_MM = 0.03
/** Then the pull falls to a hundredth in so many rounds, and stays there until nothing moves. */
const COOL = 120
const LAST_PULL = 0.01
const MOST_COOLING = 320
const STILL_MM = 2e-4
/** Last rounds of pushing apart alone, until less than this is left, mm. */
const LEFT_MM = 0.01
const MOST_LAST = 60
/** Largest turn of one round, radians. */
const MOST_TURN = 0.3
/** What hangs is brought below what carries it: so far at least, mm, by this share in a round. */
const LEAST_BELOW_MM = 1.5
const LIFTED = 0.2
const LEAST_INERTIA = 0.2

export interface RelaxWish {
  readonly outlines: readonly Outline[]
  /** How the beads lie at first; moved in place. */
  readonly lying: Lying
  /** Beads that stay where they are. */
  readonly fixed?: readonly boolean[]
  readonly ties: readonly Tie[]
  /** Copies of the cell follow each other by this pitch, mm, which is found; 0 where there is one cell only. */
  readonly pitchMm: number
  readonly glide: boolean
  /** The pitch is given, and each bead is drawn down by so much of the pull; those that carry are fixed. */
  readonly weights?: readonly number[]
  /** Beads that are drawn along the chain by so much of the pull: −1 to its start, 1 to its end; 0 for most. */
  readonly drawn?: readonly number[]
  /** Called now and then, to keep what is symmetric so. */
  tidy?(): void
}

export interface Relaxed {
  readonly pitchMm: number
  readonly rounds: number
  readonly overlapMm: number
  readonly settled: boolean
}

/** What a pushing of a pair is asked with: bodies, in which copy the second one lies, and how near they may come. */
interface Pairs {
  count: number
  a: Int32Array
  b: Int32Array
  shift: Uint8Array
  scale: Float64Array
}

/**
 * Lets beads find their places: thread pulls every bridge shorter with the same force whatever its length (only so
 * does a straight run of beads stay straight) and the chain longer by a little, then beads that overlap are pushed
 * apart.
 * Corrections of a round are summed, each body’s mass being shared among those it took part in (mass splitting): the
 * order of the beads plays no part, so that the same input gives the same bits and a symmetric start stays symmetric.
 * It ends when the pitch has settled, not after a number of rounds. Lengths in mm.
 */
export function relax({ outlines, lying, fixed, ties, pitchMm, glide, weights, drawn, tidy }: RelaxWish): Relaxed {
  const n = outlines.length
  const { x, y, turn, flip } = lying
  const periodic = pitchMm > 0
  let pitch = pitchMm
  const free = periodic && !weights ? 1 : 0
  // Motifs that nothing joins are pushed together instead of being drawn out: they touch.
  const taut = ties.some(({ shift }) => shift !== 0) ? TAUT : -TAUT

  const im = new Float64Array(n)
  const ii = new Float64Array(n)
  for (let i = 0; i < n; i++) {
    if (fixed?.[i]) continue
    const { l, d } = outlines[i]!
    im[i] = 1
    ii[i] = 1 / Math.max(LEAST_INERTIA, (l * l + d * d) / 12)
  }

  // Discs of all bodies one behind the other: as they are, and as they lie now about the middle of their body.
  const first = new Int32Array(n + 1)
  for (let i = 0; i < n; i++) first[i + 1] = first[i]! + keptDiscs(outlines[i]!).length
  const [du, dv, dr, wx, wy] = [0, 0, 0, 0, 0].map(() => new Float64Array(first[n]!)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ]
  const reach = new Float64Array(n)
  for (let i = 0; i < n; i++)
    keptDiscs(outlines[i]!).forEach(([u, v, r], k) => {
      const at = first[i]! + k
      du[at] = u
      dv[at] = v
      dr[at] = r
      reach[i] = Math.max(reach[i]!, Math.hypot(u, v) + r)
    })

  // Ends of the bridges, as they are and as they lie.
  const m = ties.length
  const [ta, tb, ts] = [new Int32Array(m), new Int32Array(m), new Int32Array(m)]
  const [au, av, bu, bv, tw] = [0, 0, 0, 0, 0].map(() => new Float64Array(m)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ]
  ties.forEach((t, k) => {
    ta[k] = t.a
    tb[k] = t.b
    ts[k] = t.shift
    au[k] = ((t.aEnd === 0 ? -1 : 1) * outlines[t.a]!.l) / 2
    bu[k] = ((t.bEnd === 0 ? -1 : 1) * outlines[t.b]!.l) / 2
    av[k] = outlines[t.a]!.holes[t.aHole] ?? 0
    bv[k] = outlines[t.b]!.holes[t.bHole] ?? 0
    tw[k] = Math.min(MOST_WEIGHT, t.weight)
  })

  // Beads that follow each other on the thread meet hard; all others ride a little.
  const hard = new Set<number>()
  const pairKey = (a: number, b: number, shift: number): number => (shift * n + a) * n + b
  for (const { a, b, shift } of ties) {
    if (shift > 1) continue
    hard.add(pairKey(a, b, shift))
    if (shift === 0) hard.add(pairKey(b, a, 0))
  }

  const pairs: Pairs = {
    count: 0,
    a: new Int32Array(64),
    b: new Int32Array(64),
    shift: new Uint8Array(64),
    scale: new Float64Array(64),
  }
  function addPair(i: number, j: number, shift: number): void {
    if (pairs.count === pairs.a.length) {
      const more = <A extends Int32Array | Uint8Array | Float64Array>(old: A, to: A): A => {
        to.set(old)
        return to
      }
      const room = 2 * pairs.count
      pairs.a = more(pairs.a, new Int32Array(room))
      pairs.b = more(pairs.b, new Int32Array(room))
      pairs.shift = more(pairs.shift, new Uint8Array(room))
      pairs.scale = more(pairs.scale, new Float64Array(room))
    }
    const k = pairs.count++
    pairs.a[k] = i
    pairs.b[k] = j
    pairs.shift[k] = shift
    pairs.scale[k] = hard.has(pairKey(i, j, shift)) ? 1 : GIVE
  }
  function findPairs(margin: number): void {
    pairs.count = 0
    for (let shift = 0; shift <= (periodic ? 1 : 0); shift++) {
      const sign = glide && shift === 1 ? -1 : 1
      for (let i = 0; i < n; i++) {
        if (reach[i] === 0) continue
        for (let j = shift === 0 ? i + 1 : 0; j < n; j++) {
          if (reach[j] === 0 || (im[i] === 0 && im[j] === 0)) continue
          const gx = x[j]! + shift * pitch - x[i]!
          const gy = y[j]! * sign - y[i]!
          const most = reach[i]! + reach[j]! + margin
          if (gx * gx + gy * gy < most * most) addPair(i, j, shift)
        }
      }
    }
  }

  const cx = new Float64Array(n)
  const cy = new Float64Array(n)
  const ct = new Float64Array(n)
  const cn = new Float64Array(n)
  let cp = 0
  let cpn = 0
  // Constraints that each body (and the pitch) took part in last time share its mass; of pulling and of pushing.
  const shares = [new Float64Array(n).fill(1), new Float64Array(n).fill(1)]
  const pitchShare = [1, 1]
  const cos = new Float64Array(n)
  const sin = new Float64Array(n)

  function apply(phase: 0 | 1): number {
    let most = 0
    const share = shares[phase]!
    for (let i = 0; i < n; i++) {
      if (im[i]! > 0) {
        x[i]! += cx[i]!
        y[i]! += cy[i]!
        turn[i]! += Math.max(-MOST_TURN, Math.min(MOST_TURN, ct[i]!))
        most = Math.max(most, Math.abs(cx[i]!), Math.abs(cy[i]!))
      }
      share[i] = Math.max(1, cn[i]!)
    }
    cx.fill(0)
    cy.fill(0)
    ct.fill(0)
    cn.fill(0)
    pitch += cp
    pitchShare[phase] = Math.max(1, cpn)
    cp = 0
    cpn = 0
    return most
  }

  function directions(): void {
    for (let i = 0; i < n; i++) {
      cos[i] = Math.cos(turn[i]!)
      sin[i] = Math.sin(turn[i]!)
    }
  }

  /**
   * Moves two points along the line between them until their distance has changed by c, at most with the force given:
   * each as light as its body is there. `sign` is −1 where the second lies turned over.
   */
  function act(
    phase: 0 | 1,
    a: number,
    ax: number,
    ay: number,
    b: number,
    bx: number,
    by: number,
    shift: number,
    sign: number,
    nx: number,
    ny: number,
    c: number,
    force: number,
  ): void {
    const ra = ax * ny - ay * nx
    const rb = bx * ny - by * nx
    const share = shares[phase]!
    const wa = share[a]! * (im[a]! + ii[a]! * ra * ra)
    const wb = share[b]! * (im[b]! + ii[b]! * rb * rb)
    const w = wa + wb + pitchShare[phase]! * shift * shift * nx * nx * free
    if (w === 0) return
    const k = c > 0 ? Math.min(c / w, force) : c / w
    cx[a]! += k * im[a]! * nx
    cy[a]! += k * im[a]! * ny
    ct[a]! += k * ii[a]! * ra
    cn[a]!++
    cx[b]! -= k * im[b]! * nx
    cy[b]! -= k * im[b]! * ny * sign
    ct[b]! -= k * ii[b]! * rb * sign
    cn[b]!++
    if (shift !== 0 && free) {
      cp -= k * shift * nx
      cpn++
    }
  }

  function pullTogether(pull: number): void {
    directions()
    for (let k = 0; k < m; k++) {
      const a = ta[k]!
      const b = tb[k]!
      const shift = ts[k]!
      const sign = glide && shift % 2 !== 0 ? -1 : 1
      const ua = au[k]!
      const va = av[k]! * flip[a]!
      const ub = bu[k]!
      const vb = bv[k]! * flip[b]!
      const ax = ua * cos[a]! - va * sin[a]!
      const ay = ua * sin[a]! + va * cos[a]!
      const bx = ub * cos[b]! - vb * sin[b]!
      const by = (ub * sin[b]! + vb * cos[b]!) * sign
      const dx = x[b]! + shift * pitch + bx - x[a]! - ax
      const dy = y[b]! * sign + by - y[a]! - ay
      const len = Math.sqrt(dx * dx + dy * dy)
      if (len > 1e-9)
        act(0, a, ax, ay, b, bx, by, shift, sign, dx / len, dy / len, len * CLOSE, pull * (1 + EVEN * len) * tw[k]!)
    }
  }

  function pushApart(size: number): number {
    directions()
    for (let i = 0; i < n; i++) {
      const c = cos[i]!
      const s = sin[i]!
      const f = flip[i]!
      for (let k = first[i]!; k < first[i + 1]!; k++) {
        const v = dv[k]! * f
        wx[k] = du[k]! * c - v * s
        wy[k] = du[k]! * s + v * c
      }
    }
    let overlap = 0
    for (let p = 0; p < pairs.count; p++) {
      const i = pairs.a[p]!
      const j = pairs.b[p]!
      const shift = pairs.shift[p]!
      const sign = glide && shift === 1 ? -1 : 1
      const gx = x[j]! + shift * pitch - x[i]!
      const gy = y[j]! * sign - y[i]!
      const scale = size * pairs.scale[p]!
      const most = (reach[i]! + reach[j]!) * scale
      if (gx * gx + gy * gy > most * most && scale === 1) continue
      for (let k = first[i]!; k < first[i + 1]!; k++) {
        const ax = wx[k]!
        const ay = wy[k]!
        const ex = gx - ax
        const ey = gy - ay
        const r = dr[k]!
        for (let h = first[j]!; h < first[j + 1]!; h++) {
          const dx = ex + wx[h]!
          const dy = ey + wy[h]! * sign
          const want = (r + dr[h]!) * scale
          const d2 = dx * dx + dy * dy
          if (d2 >= want * want) continue
          const len = Math.sqrt(d2)
          if (want - len > overlap) overlap = want - len
          if (len > 1e-9)
            act(1, i, ax, ay, j, wx[h]!, wy[h]! * sign, shift, sign, dx / len, dy / len, len - want, Infinity)
          else act(1, i, ax, ay, j, wx[h]!, wy[h]! * sign, shift, sign, 1, 0, -want, Infinity)
        }
      }
    }
    return overlap
  }

  /** How long the bridges of a bead are together, mm. */
  function bridgesOf(i: number): number {
    directions()
    let sum = 0
    for (let k = 0; k < m; k++) {
      const a = ta[k]!
      const b = tb[k]!
      if ((a === i) === (b === i)) continue
      const sign = glide && ts[k]! % 2 !== 0 ? -1 : 1
      const va = av[k]! * flip[a]!
      const vb = bv[k]! * flip[b]!
      const bx = x[b]! + ts[k]! * pitch + bu[k]! * cos[b]! - vb * sin[b]!
      const by = (y[b]! + bu[k]! * sin[b]! + vb * cos[b]!) * sign
      sum += Math.hypot(bx - x[a]! - au[k]! * cos[a]! + va * sin[a]!, by - y[a]! - au[k]! * sin[a]! - va * cos[a]!)
    }
    return sum
  }

  /** A bead can settle the wrong way round, its thread doubled back; a half turn that shortens it is taken. */
  function turnRound(): boolean {
    let changed = false
    for (let i = 0; i < n; i++) {
      if (im[i] === 0 || outlines[i]!.holes.length > 1) continue
      const now = bridgesOf(i)
      turn[i]! += Math.PI
      if (bridgesOf(i) > now - WORTH_MM) turn[i]! -= Math.PI
      else changed = true
    }
    return changed
  }

  function middle(): number {
    let sum = 0
    let count = 0
    for (let i = 0; i < n; i++)
      if (im[i]! > 0) {
        sum += x[i]! + y[i]!
        count++
      }
    return sum / Math.max(1, count)
  }

  let rounds = 0
  let moved = 0
  let overlap = 0
  function round(pull: number, size: number, held: boolean): void {
    if (rounds % 8 === 0) findPairs(1)
    pullTogether(pull)
    if (held) cp = cpn = 0
    moved = apply(0)
    if (free && !held) pitch += taut * pull
    if (drawn) for (let i = 0; i < n; i++) x[i]! += drawn[i]! * pull
    if (weights)
      for (let i = 0; i < n; i++)
        if (im[i]! > 0) y[i]! += weights[i]! * pull + LIFTED * Math.max(0, LEAST_BELOW_MM - y[i]!)
    for (let s = 0; s < SWEEPS; s++) {
      overlap = pushApart(size)
      if (held) cp = cpn = 0
      apply(1)
    }
    if (HALF_TURNS.includes(rounds)) turnRound()
    if (rounds % 4 === 3) tidy?.()
    rounds++
  }

  while (rounds < HELD) round(PULL, Math.min(1, FIRST_SIZE + ((1 - FIRST_SIZE) * rounds) / GROW), true)
  let settled = false
  let before = pitch
  let turns = 0
  const last = HELD + MOST_PULLING
  for (let watched = 0; rounds < last && !settled; watched++) {
    round(PULL, 1, false)
    if (watched % WATCH === WATCH - 1 && rounds > HALF_TURNS.at(-1)! + WATCH) {
      // What has no pitch has settled when its middle stays where it is.
      const now = free ? pitch : middle()
      settled = Math.abs(now - before) < (free ? SETTLED * pitch : STILL_MIDDLE_MM)
      before = now
      if (settled && turns++ < MOST_TURNS && turnRound()) settled = false
    }
  }
  for (let k = 0; k < MOST_COOLING; k++) {
    round(PULL * LAST_PULL ** Math.min(1, k / COOL), 1, false)
    if (k > COOL && moved < STILL_MM) break
  }
  for (let k = 0; k < MOST_LAST; k++) {
    if (k % 8 === 0) findPairs(1)
    overlap = pushApart(1)
    apply(1)
    if (overlap < LEFT_MM) break
  }
  tidy?.()
  return { pitchMm: pitch, rounds, overlapMm: overlap, settled }
}
