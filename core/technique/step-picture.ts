import type { BeadSpec } from '../bead/spec'
import { portAt, ringMm, type Pose } from '../recipe/measure'
import type { Done, Node, Port, Run } from '../recipe/run'
import type { Point } from './lattice'

/** A bead in the picture of a step, mm: its first hole lies along x before it is turned. */
export interface PicturedBead {
  readonly node: number
  /** Cell that it lies in; −1 for one that no line has room for. */
  readonly key: number
  readonly spec: BeadSpec
  readonly x: number
  readonly y: number
  readonly turnDegrees: number
  readonly flip: 1 | -1
  /** There already, picked up now, or gone through again now. */
  readonly look: 'made' | 'new' | 'passed'
}

/** A finding in the picture, as a ring. */
export interface PicturedRing {
  readonly node: number
  readonly x: number
  readonly y: number
  readonly r: number
}

/**
 * What a step looks like: the work so far, what is new, and the way of the thread in it. The work runs along x, or
 * down the page as it is worn.
 */
export interface StepPicture {
  readonly beads: readonly PicturedBead[]
  readonly rings: readonly PicturedRing[]
  /** What carries the work as a whole, where that is seen: a frame, a stem. */
  readonly lines: readonly { readonly points: readonly Point[]; readonly thickMm: number }[]
  /** The thread of this step, from where it last came out to where the needle is. */
  readonly way: readonly Point[]
  /** Where the needle is, and which way it points; null where nothing is gone through. */
  readonly needle: (Point & { readonly turnDegrees: number }) | null
  /** The end of the hole that is entered first where beads are gone through again. */
  readonly enters: Point | null
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

/** Motifs before the one in hand that are seen. */
const SEEN_BEFORE = 1

/** A pose of work that runs down the page as it lies along x. */
const level = ({ x, y, turnDegrees, flip = 1 }: Pose): Required<Pose> => ({
  x: y,
  y: x,
  turnDegrees: 90 - turnDegrees,
  flip: flip > 0 ? -1 : 1,
})

/** A pose of work that is looked at as it is worn. */
const asWorn = ({ flip = 1, ...pose }: Pose): Required<Pose> => ({ ...pose, flip })

/** How the poses of a work lie in its pictures. */
const lain = ({ upright }: Pictured, pose: Pose): Required<Pose> => (upright ? asWorn(pose) : level(pose))

/** What a run and the places of its beads, which run down the page, say of a picture. */
export interface Pictured {
  readonly run: Run
  poseOf(node: Node): Pose | null
  /** Cells of the beads, by node. */
  readonly keys: readonly number[]
  /** Whether it is looked at as it is worn, all of it, from its top down; its lines are seen with it. */
  readonly upright?: boolean
  readonly lines?: StepPicture['lines']
}

/** Half of the greatest measure of a bead. */
const reachOf = ({ l, d, hangs = 0 }: BeadSpec): number => Math.max(l, d, hangs) / 2

/** Where an end of a hole lies in the picture. */
function portIn(of: Pictured, port: Port): Point | null {
  const node = of.run.nodes[port.node]!
  const pose = of.poseOf(node)
  return pose ? portAt(port, node, lain(of, pose)) : null
}

/** Beads and rings of what is seen. */
export function shownNodes(
  of: Pictured,
  seen: (node: Node) => boolean,
  lookOf: (node: Node) => PicturedBead['look'],
): Pick<StepPicture, 'beads' | 'rings'> {
  const { run, poseOf, keys } = of
  const beads: PicturedBead[] = []
  const rings: PicturedRing[] = []
  for (const node of run.nodes) {
    if (!seen(node)) continue
    const pose = poseOf(node)
    if (!pose) continue
    const { x, y, turnDegrees, flip } = lain(of, pose)
    if (node.isFixture) rings.push({ node: node.id, x, y, r: (run.head.fixtures[node.slot]?.d ?? 0) / 2 })
    else if (node.spec)
      beads.push({
        ...{ node: node.id, key: keys[node.id] ?? -1, spec: node.spec, x, y, turnDegrees, look: lookOf(node) },
        flip: flip > 0 ? 1 : -1,
      })
  }
  return { beads, rings }
}

/** How far beads and rings reach, mm; null where there are none. */
export function reachOfAll({ beads, rings }: Pick<StepPicture, 'beads' | 'rings'>) {
  const all = [...beads.map((b) => ({ x: b.x, y: b.y, r: reachOf(b.spec) })), ...rings]
  if (all.length === 0) return null
  const over = (of: (one: Point & { r: number }) => number): number =>
    all.reduce((most, one) => Math.max(most, of(one)), -Infinity)
  return {
    left: 0 - over((p) => p.r - p.x),
    top: 0 - over((p) => p.r - p.y),
    right: over((p) => p.x + p.r),
    bottom: over((p) => p.y + p.r),
  }
}

/** The way of steps that follow each other, as points. */
export function wayOf(of: Pictured, done: readonly Done[]): Point[] {
  const out: Point[] = []
  const add = (port: Port): void => {
    const at = portIn(of, port)
    const last = out.at(-1)
    if (at && (!last || Math.hypot(last.x - at.x, last.y - at.y) > 1e-9)) out.push(at)
  }
  for (const { goes, spans } of done) {
    const bridges = spans.filter((span) => span.kind === 'bridge')
    const [first] = bridges
    if (first && out.length === 0) add(first.from)
    for (const { node, hole, way } of goes) {
      add({ node, hole, end: way === 1 ? 0 : 1 })
      add({ node, hole, end: way === 1 ? 1 : 0 })
    }
  }
  return out
}

/**
 * What a step sees: where the ends of a ring meet, beads of its beginning that the step leads to or comes from lie
 * again behind its end, as they will when it is closed.
 */
function seenBy(of: Pictured, { motif, spans }: Done): Pictured {
  const { run, poseOf } = of
  const met = new Set(
    spans
      .flatMap((span) => (span.kind === 'bridge' ? [span.from.node, span.to.node] : []))
      .filter((node) => run.nodes[node]!.motif < motif - SEEN_BEFORE),
  )
  const roundMm = met.size > 0 ? ringMm(run, (port) => portIn(of, port)) : NaN
  if (Number.isNaN(roundMm)) return of
  return {
    ...of,
    poseOf(node) {
      const pose = poseOf(node)
      return pose && met.has(node.id) ? { ...pose, y: pose.y + roundMm } : pose
    },
  }
}

/** A box that reaches over some lines as well. */
function over(box: Pick<StepPicture, 'left' | 'top' | 'right' | 'bottom'>, lines: StepPicture['lines']) {
  const out = { ...box }
  for (const { points, thickMm } of lines)
    for (const { x, y } of points) {
      out.left = Math.min(out.left, x - thickMm / 2)
      out.right = Math.max(out.right, x + thickMm / 2)
      out.top = Math.min(out.top, y - thickMm / 2)
      out.bottom = Math.max(out.bottom, y + thickMm / 2)
    }
  return out
}

/** The picture of the k-th step of a run; null where nothing of it has a place. */
export function stepPicture(whole: Pictured, k: number): StepPicture | null {
  const { run } = whole
  const done = run.done[k]!
  const of = seenBy(whole, done)
  const { motif, act, goes, nodes: until } = done
  const from = run.done[k - 1]?.nodes ?? 0
  const through = new Set(goes.map((g) => g.node))
  const isNear = (node: Node): boolean =>
    of.upright === true || (node.motif >= motif - SEEN_BEFORE && node.motif <= motif)
  const seen = shownNodes(
    of,
    (node) => node.id < until && (isNear(node) || through.has(node.id)),
    ({ id }) => (id >= from ? 'new' : through.has(id) ? 'passed' : 'made'),
  )
  const box = reachOfAll(seen)
  if (!box) return null
  const way = wayOf(of, [done])
  const [before, last] = [way.at(-2), way.at(-1)]
  const [first] = goes
  return {
    ...seen,
    ...over(box, of.lines ?? []),
    lines: of.lines ?? [],
    way,
    needle:
      before && last
        ? { ...last, turnDegrees: (Math.atan2(last.y - before.y, last.x - before.x) * 180) / Math.PI }
        : null,
    enters: act === 'pass' && first ? portIn(of, { ...first, end: first.way === 1 ? 0 : 1 }) : null,
  }
}
