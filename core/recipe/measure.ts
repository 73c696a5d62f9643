import { median } from '../median'
import type { BridgeMm } from './total'
import type { Node, Port, Run } from './run'

/** How a bead lies, mm: its middle, and its first hole’s way when first strung, degrees from the axis x. */
export interface Pose {
  readonly x: number
  readonly y: number
  readonly turnDegrees: number
  /** On which side of its first hole the second lies: 1 to the right of the way, −1 to the left. */
  readonly flip?: 1 | -1
}

/** Where an end of a hole lies, mm. A finding is a point. */
export function portAt(
  { hole, end }: Omit<Port, 'node'>,
  node: Pick<Node, 'spec'>,
  pose: Pose,
): { x: number; y: number } {
  if (!node.spec) return { x: pose.x, y: pose.y }
  const { l, spacing } = node.spec
  const turn = (pose.turnDegrees * Math.PI) / 180
  const u = (end === 0 ? -1 : 1) * (l / 2)
  const v = spacing === undefined ? 0 : (pose.flip ?? 1) * (hole === 0 ? -spacing / 2 : spacing / 2)
  return { x: pose.x + u * Math.cos(turn) - v * Math.sin(turn), y: pose.y + u * Math.sin(turn) + v * Math.cos(turn) }
}

/**
 * Bridges as the beads lie, straight or only along the work; nothing where one of them has no place.
 */
export const bridgeByPose =
  (poseOf: (node: Node) => Pose | null, way: 'straight' | 'along' = 'straight'): BridgeMm =>
  (from, to, nodes) => {
    const [a, b] = [nodes[from.node]!, nodes[to.node]!]
    const [p, q] = [poseOf(a), poseOf(b)]
    if (!p || !q) return 0
    const [start, stop] = [portAt(from, a, p), portAt(to, b, q)]
    return Math.hypot(way === 'along' ? 0 : stop.x - start.x, stop.y - start.y)
  }

/**
 * Bridges of work whose picture is not known: from hole to hole of one bead as far as they lie apart, round a bead
 * along it; from bead to bead nothing, since they touch.
 */
export const bridgeByTouch: BridgeMm = (from, to, nodes) => {
  if (from.node !== to.node) return 0
  const spec = nodes[from.node]!.spec
  if (!spec) return 0
  return Math.hypot(from.hole === to.hole ? 0 : (spec.spacing ?? 0), from.end === to.end ? 0 : spec.l)
}

/**
 * How far a ring is round, mm: the way from what is first to what is last, in the middle of the bridges by which its
 * ends meet; no number where they do not.
 */
export function ringMm({ nodes, done }: Run, at: (port: Port) => { x: number; y: number } | null): number {
  const last = done.reduce((most, { motif }) => Math.max(most, motif), -1)
  const ways = done.flatMap(({ motif, spans }) =>
    motif < last - 1
      ? []
      : spans.flatMap((span) => {
          if (span.kind !== 'bridge' || !span.far) return []
          const [p, q] = [at(span.from), at(span.to)]
          if (!p || !q) return []
          return [nodes[span.from.node]!.motif < nodes[span.to.node]!.motif ? q.x - p.x : p.x - q.x]
        }),
  )
  return ways.length === 0 ? NaN : median(ways)
}
