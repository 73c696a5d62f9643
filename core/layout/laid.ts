import type { Pose as DownPose } from '../recipe/measure'
import type { Node, Port, Run } from '../recipe/run'
import { keptDiscs, outlineOf } from './body'
import { chainOf, posesOfChain, type Chain, type Length, type Lies } from './chain'
import { answerTo } from './keep'
import { mirrored, pointOf, type Pose } from './pose'

/** Stitched work as it lies, mm: along x, across y. */
export interface Laid {
  /** By node; null of those that nothing places. */
  readonly poses: readonly (Pose | null)[]
  /** From one motif to the next, on average. */
  readonly pitchMm: number
  readonly left: number
  readonly right: number
  readonly top: number
  readonly bottom: number
  /** How wide the work is, where it is shown unrolled: its beads touch then, whatever the picture says. */
  readonly acrossMm?: number
}

/** Lays a run of n motifs, what repeats told by a longer one; null where it is too much to be laid. */
export function layRun(own: Length, lies: Lies, longer: Length = own): Laid | null {
  const chain = chainOf(own, lies, longer)
  return chain ? laidOf(own.run, chain) : null
}

function laidOf({ nodes }: Run, chain: Chain): Laid {
  const answer = answerTo(chain.problem)
  const poses = posesOfChain(chain, answer)
  const edge = { left: Infinity, right: -Infinity, top: Infinity, bottom: -Infinity }
  for (const { id, spec } of nodes) {
    const pose = poses[id]
    if (!pose || !spec) continue
    for (const [u, v, r] of keptDiscs(outlineFor(spec))) {
      const { x, y } = pointOf(pose, u, v)
      edge.left = Math.min(edge.left, x - r)
      edge.right = Math.max(edge.right, x + r)
      edge.top = Math.min(edge.top, y - r)
      edge.bottom = Math.max(edge.bottom, y + r)
    }
  }
  const mean = answer.cells.reduce((sum, { pitchMm }) => sum + pitchMm, 0) / answer.cells.length
  return { poses, pitchMm: mean / chain.period, ...edge }
}

const outlines = new WeakMap<object, ReturnType<typeof outlineOf>>()
function outlineFor(spec: NonNullable<Node['spec']>): ReturnType<typeof outlineOf> {
  let outline = outlines.get(spec)
  if (!outline) outlines.set(spec, (outline = outlineOf(spec)))
  return outline
}

/** The pose of a bead in a drawing that runs down the page: along is y there, and second holes change sides. */
export const downPose = (
  p: { readonly x: number; readonly y: number; readonly turn: number; readonly flip: number },
  { left, top }: Pick<Laid, 'left' | 'top'>,
): DownPose => ({
  x: p.y - top,
  y: p.x - left,
  turnDegrees: 90 - (p.turn * 180) / Math.PI,
  flip: p.flip > 0 ? -1 : 1,
})

/** The same work turned over: what lay on one side of the chain lies on the other. */
export const turnedOver = (laid: Laid): Laid => ({
  ...laid,
  poses: laid.poses.map((p) => p && mirrored(p)),
  top: 0 - laid.bottom,
  bottom: 0 - laid.top,
})

/** Where an end of a hole of a bead lies, mm, that lies so. */
export function portOf(pose: Pose, { spec }: Pick<Node, 'spec'>, { hole, end }: Omit<Port, 'node'>): Point {
  if (!spec) return { x: pose.x, y: pose.y }
  const v = spec.spacing === undefined ? 0 : hole === 0 ? -spec.spacing / 2 : spec.spacing / 2
  return pointOf(pose, ((end === 0 ? -1 : 1) * spec.l) / 2, v)
}

/** Where an end of a hole lies, mm; null where its bead has no place. */
export function portPoint(laid: Laid, nodes: readonly Node[], port: Port): Point | null {
  const pose = laid.poses[port.node]
  return pose ? portOf(pose, nodes[port.node]!, port) : null
}

interface Point {
  readonly x: number
  readonly y: number
}
