import { ringMm } from '../recipe/measure'
import { carrierName, stepPlace, type Done, type Port, type Run, type Span } from '../recipe/run'
import { portOf, type Laid } from './laid'

/** Something that the picture shows to be wrong, with the step at which it is done. */
export interface Judged {
  readonly code: 'far' | 'wrong-end'
  readonly says: string
  readonly path: string
  /** Motifs in which it is so: −1 the start. */
  readonly motifs: readonly number[]
  /** Which of the holes that the step goes through is meant, where it is entered at the wrong end. */
  readonly going?: number
}

/** Thread that shows between two beads is too long from here on: their radii and this, at least so much, mm. */
const MORE_MM = 1.5
const LEAST_MM = 3
/** The other way through a hole must save so much of its length. */
const SAVES = 0.8
const MOST = 12

/**
 * What is wrong by the picture: thread that would show, and holes that would better be entered at the other end. A
 * changed step is judged in the picture from before the change: a wrong way is often another sound object, to which a
 * fresh picture adapts.
 */
export function judged(run: Run, laid: Laid, nodesOf: (node: number) => number | null = (node) => node): Judged[] {
  const { nodes, done, head } = run
  const at = (port: Port): { x: number; y: number } | null => {
    const there = nodesOf(port.node)
    const pose = there === null ? null : laid.poses[there]
    return pose ? portOf(pose, nodes[port.node]!, port) : null
  }
  const roundMm = ringMm(run, at)
  const motifOf = ({ node }: Port): number => nodes[node]!.motif
  /** From port to port; where ends meet the one that lies further back is seen moved on by the whole ring. */
  const gap = (a: Port, b: Port, far?: boolean): number => {
    const [p, q] = [at(a), at(b)]
    if (!p || !q) return 0
    const round = far ? (motifOf(a) < motifOf(b) ? roundMm : -roundMm) : 0
    return Math.hypot(p.x + round - q.x, p.y - q.y)
  }
  const out = new Map<string, Judged & { readonly motifs: number[] }>()
  const say = (code: Judged['code'], { path, motif }: Done, says: string, going?: number): void => {
    const key = `${code} ${path}`
    const known = out.get(key)
    if (known && known.motifs.at(-1) !== motif) known.motifs.push(motif)
    if (known || out.size >= MOST) return
    const which = going === undefined ? {} : { going }
    out.set(key, { code, path, motifs: [motif], says: `${says} (${stepPlace(path)})`, ...which })
  }
  const nameOf = ({ node }: Port): string => {
    const { name, at: k, isFixture, slot } = nodes[node]!
    return isFixture ? (head.fixtures[slot]?.name ?? slot) : `${head.slots[slot]?.name ?? name} ${k + 1}`
  }
  const thick = ({ node }: Port): number => nodes[node]!.spec?.d ?? head.fixtures[nodes[node]!.slot]?.d ?? 0

  for (const { id } of head.carriers) {
    const carrier = carrierName(head, id)
    const way: { span: Span; done: Done; going: Done['goes'][number] | null }[] = []
    for (const one of done) {
      if (one.by !== id) continue
      let k = 0
      for (const span of one.spans)
        way.push({ span, done: one, going: span.kind === 'rod' ? (one.goes[k++] ?? null) : null })
    }
    way.forEach(({ span, done: one, going }, i) => {
      if (span.kind === 'bridge') {
        if (span.far && Number.isNaN(roundMm)) return
        const mm = gap(span.from, span.to, span.far)
        if (mm > Math.max(LEAST_MM, (thick(span.from) + thick(span.to)) / 2 + MORE_MM))
          say(
            'far',
            one,
            `${mm.toFixed(1)} mm of ${carrier} would show between ${nameOf(span.from)} and ${nameOf(span.to)}.`,
          )
        return
      }
      if (span.kind !== 'rod' || !going || nodes[going.node]!.isFixture) return
      const enter: Port = { node: going.node, hole: going.hole, end: going.way === 1 ? 0 : 1 }
      const exit: Port = { ...enter, end: enter.end === 0 ? 1 : 0 }
      const [before, after] = [way[i - 1]?.span, way[i + 1]?.span]
      let now = 0
      let other = 0
      if (before?.kind === 'bridge') {
        now += gap(before.from, enter, before.far)
        other += gap(before.from, exit, before.far)
      }
      if (after?.kind === 'bridge') {
        now += gap(exit, after.to, after.far)
        other += gap(enter, after.to, after.far)
      }
      // Never so where it is not known how far round it is.
      if (other < now - SAVES * span.mm)
        say(
          'wrong-end',
          one,
          `Through ${nameOf(enter)} the other way ${(now - other).toFixed(1)} mm less ${carrier} would show.`,
          one.goes.indexOf(going),
        )
    })
  }
  return [...out.values()]
}

/** Which bead of a run each bead of another one is: by its motif, name and place. */
export function sameBeads(now: Pick<Run, 'nodes'>, before: Pick<Run, 'nodes'>): (node: number) => number | null {
  const keyOf = ({ motif, name, at }: Run['nodes'][number]): string => `${motif}/${name}/${at}`
  const known = new Map(before.nodes.map((node) => [keyOf(node), node.id]))
  return (node) => known.get(keyOf(now.nodes[node]!)) ?? null
}
