import type { Outline } from './body'
import { embed, type Edge } from './embed'
import { mirrored, pointOf, turned, type Pose } from './pose'

/** A bridge between two of the bodies of a first picture. */
export interface RoughTie {
  readonly a: number
  readonly aHole: number
  readonly aEnd: 0 | 1
  readonly b: number
  readonly bHole: number
  readonly bEnd: 0 | 1
}

interface RoughWish {
  readonly outlines: readonly Outline[]
  readonly ties: readonly RoughTie[]
  /** Pairs of bodies that are one pitch apart, the second to the right of the first. */
  readonly onward: readonly (readonly [from: number, to: number])[]
  /** 1 above, −1 below, 0 in the middle of the chain; null where nothing is said. */
  readonly lies: readonly (number | null)[]
  /** How far nodes are moved off their first places, mm: loops that lie flat open. */
  readonly shakenMm?: number
  /** Bodies that hang together by a way that is not shown: how long it is from the one’s middle to the other’s, mm. */
  readonly apart?: readonly (readonly [a: number, b: number, mm: number])[]
}

/** Length of a bridge that is wished for at first, mm. */
const BRIDGE_MM = 0.3
const ROUNDS = 60
/** How far from the axis a bead is laid at first that is said to lie above or below, mm; its second hole beyond. */
const OFF_MM = 4
const SECOND_MM = 1.5

/** Rough poses of beads from their bridges alone. */
export function roughPoses({ outlines, ties, onward, lies, apart = [], shakenMm = 0 }: RoughWish): Pose[] {
  const first: number[] = []
  let nodes = 0
  for (const { holes } of outlines) {
    first.push(nodes)
    nodes += 2 * holes.length
  }
  const edges: Edge[] = []
  outlines.forEach(({ holes, l }, i) => {
    holes.forEach((v, h) => {
      const at = first[i]! + 2 * h
      edges.push([at, at + 1, l])
      if (h === 0) return
      // The frame of a bead with several holes is rigid: sides and diagonals.
      const side = v - holes[h - 1]!
      const across = Math.hypot(side, l)
      edges.push([at - 2, at, side], [at - 1, at + 1, side], [at - 2, at + 1, across], [at - 1, at, across])
    })
  })
  const node = (i: number, hole: number, end: 0 | 1): number =>
    first[i]! + 2 * Math.min(hole, outlines[i]!.holes.length - 1) + end
  for (const t of ties) edges.push([node(t.a, t.aHole, t.aEnd), node(t.b, t.bHole, t.bEnd), BRIDGE_MM])
  for (const [a, b, mm] of apart) edges.push([first[a]!, first[b]!, mm])

  const { x, y } = embed(nodes, edges, ROUNDS, (xs, ys) => {
    let sx = 0
    let sy = 0
    for (const [from, to] of onward) {
      sx += xs[first[to]!]! - xs[first[from]!]!
      sy += ys[first[to]!]! - ys[first[from]!]!
    }
    const turn = -Math.atan2(sy, sx)
    if (onward.length > 0 && turn !== 0) {
      const [c, s] = [Math.cos(turn), Math.sin(turn)]
      for (let k = 0; k < nodes; k++) {
        const [px, py] = [xs[k]!, ys[k]!]
        xs[k] = px * c - py * s
        ys[k] = px * s + py * c
      }
    }
    for (let k = 0; k < nodes; k++) {
      xs[k]! += shakenMm * Math.sin(1.7 * k + 0.3)
      ys[k]! += shakenMm * Math.sin(2.3 * k + 1.1)
    }
    lies.forEach((side, i) => {
      if (side === null) return
      for (let k = 0; k < 2 * outlines[i]!.holes.length; k++)
        ys[first[i]! + k] = side * (OFF_MM + (k < 2 ? 0 : SECOND_MM))
    })
  })

  const poses = outlines.map(({ holes }, i) => {
    let [px, py, ux, uy] = [0, 0, 0, 0]
    for (let h = 0; h < holes.length; h++) {
      const a = first[i]! + 2 * h
      px += (x[a]! + x[a + 1]!) / 2 / holes.length
      py += (y[a]! + y[a + 1]!) / 2 / holes.length
      ux += x[a + 1]! - x[a]!
      uy += y[a + 1]! - y[a]!
    }
    const turn = Math.atan2(uy, ux)
    let flip = 1
    if (holes.length > 1) {
      const a = first[i]!
      const b = a + 2 * (holes.length - 1)
      const vx = x[b]! + x[b + 1]! - x[a]! - x[a + 1]!
      const vy = y[b]! + y[b + 1]! - y[a]! - y[a + 1]!
      flip = -vx * Math.sin(turn) + vy * Math.cos(turn) >= 0 ? 1 : -1
    }
    return { x: px, y: py, turn, flip }
  })
  return unfolded(poses, outlines, ties)
}

/** A change of a bead’s side or way must shorten its bridges by so much, mm. */
const WORTH_MM = 0.2
const MOST_TURNS = 6

/** Turns beads round, and over where they have two holes, as long as that makes their bridges shorter. */
function unfolded(poses: readonly Pose[], outlines: readonly Outline[], ties: readonly RoughTie[]): Pose[] {
  const out = [...poses]
  const own = outlines.map((): RoughTie[] => [])
  for (const t of ties)
    if (t.a !== t.b) {
      own[t.a]!.push(t)
      own[t.b]!.push(t)
    }
  const point = (i: number, hole: number, end: 0 | 1) =>
    pointOf(out[i]!, ((end === 0 ? -1 : 1) * outlines[i]!.l) / 2, outlines[i]!.holes[hole] ?? 0)
  const lengthAt = (i: number): number =>
    own[i]!.reduce((sum, t) => {
      const [p, q] = [point(t.a, t.aHole, t.aEnd), point(t.b, t.bHole, t.bEnd)]
      return sum + Math.hypot(p.x - q.x, p.y - q.y)
    }, 0)
  const middle = {
    x: poses.reduce((sum, p) => sum + p.x, 0) / poses.length,
    y: poses.reduce((sum, p) => sum + p.y, 0) / poses.length,
  }
  for (let round = 0, changed = true; changed && round < MOST_TURNS; round++) {
    changed = false
    for (let i = 0; i < out.length; i++) {
      const before = out[i]!
      const others: Pose[] = [{ ...before, turn: before.turn + Math.PI }]
      if (outlines[i]!.holes.length > 1)
        others.push({ ...before, flip: -before.flip }, { ...before, turn: before.turn + Math.PI, flip: -before.flip })
      let best = lengthAt(i) - WORTH_MM
      let chosen = before
      for (const other of others) {
        out[i] = other
        const long = lengthAt(i)
        if (long >= best) continue
        best = long
        chosen = other
      }
      out[i] = chosen
      if (chosen !== before) changed = true
    }
  }
  for (const group of groupsOf(outlines, ties)) {
    const whole = (): number => group.reduce((sum, i) => sum + lengthAt(i), 0)
    const before = group.map((i) => out[i]!)
    const least = whole()
    for (const i of group) out[i] = outward(out[i]!, middle)
    if (whole() > least * SAME_SHARE + SAME_MM) group.forEach((i, k) => (out[i] = before[k]!))
  }
  return out
}

/** Bridges of a group are as good as before up to this share and length, mm. */
const SAME_SHARE = 1.1
const SAME_MM = 0.5

/** Beads with two holes that threads join by both of their holes. */
function groupsOf(outlines: readonly Outline[], ties: readonly RoughTie[]): number[][] {
  const group = outlines.map((_, i) => i)
  const rootOf = (i: number): number => (group[i] === i ? i : rootOf(group[i]!))
  const isDouble = (i: number): boolean => outlines[i]!.holes.length === 2
  for (const { a, b } of ties) if (isDouble(a) && isDouble(b)) group[rootOf(a)] = rootOf(b)
  const by = new Map<number, number[]>()
  outlines.forEach((_, i) => {
    if (!isDouble(i)) return
    const root = rootOf(i)
    const list = by.get(root)
    if (list) list.push(i)
    else by.set(root, [i])
  })
  return [...by.values()]
}

/**
 * A bead with its second hole on the side away from the middle of the motif. Where threads lead through both holes
 * alike nothing but the order tells which lies inside: the first, which is drawn tight first.
 */
function outward(pose: Pose, middle: { readonly x: number; readonly y: number }): Pose {
  const b = pointOf({ ...pose, x: 0, y: 0 }, 0, 1)
  const isOut = b.x * (pose.x - middle.x) + b.y * (pose.y - middle.y) >= 0
  return isOut ? pose : { ...pose, flip: -pose.flip }
}

/**
 * The rigid motion, with or without a mirror, that brings some of the poses nearest to where they belong, done to all
 * of them; `out` is the way in which the others should lie, where both are as good.
 */
export function fitted(poses: readonly Pose[], goals: readonly (Pose | null)[], out: -1 | 1): readonly Pose[] {
  const there = goals.flatMap((goal, i) => (goal ? [i] : []))
  if (there.length === 0) return poses
  const fit = (own: readonly Pose[]): { readonly moved: readonly Pose[]; readonly error: number } => {
    const mean = (of: (i: number) => number): number => there.reduce((s, i) => s + of(i), 0) / there.length
    const [ax, ay] = [mean((i) => own[i]!.x), mean((i) => own[i]!.y)]
    const [bx, by] = [mean((i) => goals[i]!.x), mean((i) => goals[i]!.y)]
    let dot = 0
    let cross = 0
    for (const i of there) {
      const [p, q] = [own[i]!, goals[i]!]
      dot += (p.x - ax) * (q.x - bx) + (p.y - ay) * (q.y - by)
      cross += (p.x - ax) * (q.y - by) - (p.y - ay) * (q.x - bx)
    }
    const angle = Math.atan2(cross, dot)
    const moved = own.map((p) => {
      const r = turned({ ...p, x: p.x - ax, y: p.y - ay }, angle)
      return { ...r, x: r.x + bx, y: r.y + by }
    })
    const error = there.reduce((s, i) => s + (moved[i]!.x - goals[i]!.x) ** 2 + (moved[i]!.y - goals[i]!.y) ** 2, 0)
    return { moved, error }
  }
  const plain = fit(poses)
  const other = fit(poses.map(mirrored))
  // Beads in a row fit either way: the others are to lie further out.
  const outOf = ({ moved }: typeof plain): number => moved.reduce((sum, p, i) => (goals[i] ? sum : sum + out * p.x), 0)
  const near = SAME_SHARE * Math.min(plain.error, other.error) + SAME_MM * there.length
  const either = plain.error <= near && other.error <= near
  const isPlain = either ? outOf(plain) >= outOf(other) : plain.error <= other.error
  return isPlain ? plain.moved : other.moved
}
