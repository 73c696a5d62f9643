import type { Laid } from '../layout/laid'
import { downPose, portPoint } from '../layout/laid'
import type { Pose } from '../recipe/measure'
import type { Node, Run } from '../recipe/run'
import type { Carrier, PlacedBead } from './drawing'
import type { RowLayout } from './row-work'

/** Work that was laid from its topology, as a drawing: it runs down the page, its threads from hole to hole. */

const THREAD_MM = 0.25
/** Points of one line: short lines are found quickly where only a part is seen. */
const MOST_POINTS = 40
const RING_CORNERS = 20
const RING_MM = 0.7

/** What each kind of carrier is seen as. */
const DRAWN: Readonly<Record<Run['head']['carriers'][number]['kind'], Carrier['kind']>> = {
  thread: 'thread',
  wire: 'wire',
  cord: 'cord',
  pin: 'wire',
  elastic: 'cord',
}

/** A layout of the beads that have a key; null of those that their lines have no room for. */
export function laidRow(run: Run, laid: Laid, keyFor: (node: Node) => number | null): RowLayout {
  const { left, right, top, bottom } = laid
  const placed: PlacedBead[] = []
  const poses = run.nodes.map(({ id }) => {
    const pose = laid.poses[id]
    return pose ? downPose(pose, laid) : null
  })
  for (const node of run.nodes) {
    const pose = poses[node.id]
    if (node.isFixture || !node.spec || !pose) continue
    const key = keyFor(node)
    // Whole degrees: beads that lie alike are painted alike.
    if (key !== null)
      placed.push({ key, x: pose.x, y: pose.y, turnDegrees: Math.round(pose.turnDegrees), bead: node.spec })
  }
  const isUnrolled = laid.acrossMm !== undefined
  return {
    placed,
    carriers: isUnrolled ? [] : [...threadsOf(run, laid), ...findingsOf(run, poses)],
    widthMm: bottom - top,
    lengthMm: right - left,
    touches: isUnrolled,
    poseOf: ({ id }) => poses[id] ?? null,
  }
}

/** The way of each carrier as it lies: from hole to hole; what is inside a bead is covered by it. */
function threadsOf(run: Run, laid: Laid): Carrier[] {
  const out: Carrier[] = []
  for (const carrier of run.head.carriers) {
    let points: { x: number; y: number }[] = []
    const close = (): void => {
      if (points.length > 1) out.push({ kind: DRAWN[carrier.kind], thickMm: Math.max(THREAD_MM, carrier.mm), points })
      points = []
    }
    for (const { by, spans } of run.done) {
      if (by !== carrier.id) continue
      for (const span of spans) {
        if (span.kind !== 'bridge') continue
        const [from, to] = [portPoint(laid, run.nodes, span.from), portPoint(laid, run.nodes, span.to)]
        if (!from || !to || span.far) {
          close()
          continue
        }
        for (const p of [from, to]) {
          const down = { x: p.y - laid.top, y: p.x - laid.left }
          const last = points.at(-1)
          if (!last || last.x !== down.x || last.y !== down.y) points.push(down)
        }
        if (points.length >= MOST_POINTS) close()
      }
    }
    close()
  }
  return out
}

/** Findings as rings. */
function findingsOf(run: Run, poses: readonly (Pose | null)[]): Carrier[] {
  return run.nodes.flatMap(({ id, isFixture, slot }): Carrier[] => {
    const pose = poses[id]
    if (!isFixture || !pose) return []
    const r = (run.head.fixtures[slot]?.d ?? 0) / 2
    if (r <= 0) return []
    const points = Array.from({ length: RING_CORNERS + 1 }, (_, k) => {
      const turn = (2 * Math.PI * k) / RING_CORNERS
      return { x: pose.x + r * Math.cos(turn), y: pose.y + r * Math.sin(turn) }
    })
    return [{ kind: 'wire', thickMm: RING_MM, points }]
  })
}
