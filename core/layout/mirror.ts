import { wrapped, type Lying, type Pose } from './pose'

/** A motif’s own symmetry across the chain’s axis: which bead lies where another one’s mirror image does. */
export interface Mirror {
  readonly of: readonly number[]
  /** How far the motif is turned until its axis is that of the chain, radians. */
  readonly turn: number
  readonly error: number
}

/** Axes that are tried, degrees from the chain’s, and how far off a symmetric motif’s pairs may be, mm. */
const MOST_DEGREES = 45
const STEP_DEGREES = 3
const MOST_ERROR = 1
/** Cost of second holes on different sides, which are brought to the same, and the most that a pair costs, mm². */
const OTHER_SIDE = 4
const MOST_COST = 100

/** The pose of j seen in the mirror, its hole read in the direction that is nearer to i’s. */
function seen(turnOfI: number, j: Pose): Pose {
  const turn = -j.turn
  return Math.abs(wrapped(turn - turnOfI)) <= Math.PI / 2
    ? { x: j.x, y: -j.y, turn, flip: -j.flip }
    : { x: j.x, y: -j.y, turn: turn + Math.PI, flip: j.flip }
}

interface MirrorWish {
  readonly poses: readonly Pose[]
  /** Equal for beads that may be each other’s image. */
  readonly kinds: readonly string[]
  readonly holes: readonly number[]
}

/** Looks for the axis about which equal beads pair off best; null if they do not. */
export function findMirror({ poses, kinds, holes }: MirrorWish): Mirror | null {
  const n = poses.length
  const mx = poses.reduce((s, p) => s + p.x, 0) / n
  const my = poses.reduce((s, p) => s + p.y, 0) / n
  let best: Mirror | null = null
  for (let degrees = -MOST_DEGREES; degrees <= MOST_DEGREES; degrees += STEP_DEGREES) {
    const turn = (degrees * Math.PI) / 180
    const [c, s] = [Math.cos(turn), Math.sin(turn)]
    const here = poses.map((p) => ({
      x: (p.x - mx) * c - (p.y - my) * s,
      y: (p.x - mx) * s + (p.y - my) * c,
      turn: p.turn + turn,
      flip: p.flip,
    }))
    const pairs: [cost: number, i: number, j: number][] = []
    for (let i = 0; i < n; i++)
      for (let j = i; j < n; j++) {
        if (kinds[i] !== kinds[j]) continue
        const [p, o] = [here[i]!, here[j]!]
        const far = (p.x - o.x) ** 2 + (p.y + o.y) ** 2
        if (far > MOST_COST) continue
        const q = seen(p.turn, o)
        const side = holes[i]! > 1 && q.flip !== p.flip ? OTHER_SIDE : 0
        const cost = far + side + wrapped(q.turn - p.turn) ** 2
        if (cost < MOST_COST) pairs.push([cost, i, j])
      }
    pairs.sort((a, b) => a[0] - b[0] || a[1] - b[1] || a[2] - b[2])
    const of = new Array<number>(n).fill(-1)
    let error = 0
    let left = n
    for (const [cost, i, j] of pairs) {
      if (of[i] !== -1 || of[j] !== -1) continue
      of[i] = j
      of[j] = i
      error += i === j ? cost : 2 * cost
      left -= i === j ? 1 : 2
    }
    if (left > 0) continue
    const mean = Math.sqrt(error / n)
    if (mean < MOST_ERROR && (!best || mean < best.error - 1e-9)) best = { of, turn, error: mean }
  }
  return best
}

/** Makes poses exactly symmetric about y = 0 by taking the middle of each pair. */
export function symmetrise(lying: Lying, of: readonly number[]): void {
  const { x, y, turn, flip } = lying
  const n = x.length
  let my = 0
  for (let i = 0; i < n; i++) my += y[i]! / n
  for (let i = 0; i < n; i++) y[i]! -= my
  for (let i = 0; i < n; i++) {
    const j = of[i]!
    if (j < i) continue
    if (j === i) {
      // On the axis: its hole lies along it or straight across, whichever is nearer.
      y[i] = 0
      turn[i]! += wrapped(seen(turn[i]!, { x: x[i]!, y: y[i]!, turn: turn[i]!, flip: flip[i]! }).turn - turn[i]!) / 2
      continue
    }
    const q = seen(turn[i]!, { x: x[j]!, y: y[j]!, turn: turn[j]!, flip: flip[j]! })
    const [nx, ny] = [(x[i]! + q.x) / 2, (y[i]! + q.y) / 2]
    const half = wrapped(q.turn - turn[i]!) / 2
    const back = wrapped(q.turn - -turn[j]!)
    x[i] = x[j] = nx
    y[i] = ny
    y[j] = -ny
    turn[i]! += half
    // The other one as the image of the first, read in its own direction again.
    const isSame = Math.abs(back) < 1e-6
    turn[j] = isSame ? -turn[i]! : -turn[i]! + Math.PI
    flip[j] = isSame ? -flip[i]! : flip[i]!
  }
}
