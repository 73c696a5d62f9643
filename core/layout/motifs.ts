import type { Node, Port, Run } from '../recipe/run'

/** A bridge of thread, and the motif in which it was made. */
export interface Bridge {
  readonly from: Port
  readonly to: Port
  readonly motif: number
  /** Whether it leads back over whole motifs, or on from there. */
  readonly far: boolean
}

/** Motifs after which a chain may begin again at most. */
const MOST_PERIOD = 24

/** What a bead is called within its motif. */
export const callOf = ({ name, at }: Pick<Node, 'name' | 'at'>): string => `${name}.${at}`

/** What must be equal of beads that lie alike. */
const beadText = (node: Node): string => `${callOf(node)}:${node.slot}:${node.spec?.id ?? ''}`

/** Stretch of motifs each of which is like the one `period` before it. */
export interface Stretch {
  readonly from: number
  readonly until: number
  readonly period: number
  /** A motif from which on as many as a period hang on motifs like themselves. */
  readonly home: number
}

/** A run as motifs: what each is made of, and how they are alike. */
export interface Motifs {
  readonly run: Run
  readonly n: number
  readonly bridges: readonly Bridge[]
  /** Beads and findings of a motif: −1 the start, n the end. */
  nodesOf(motif: number): readonly Node[]
  /** Bridges that were made in a motif. */
  madeIn(motif: number): readonly Bridge[]
  /** Equal for motifs that lie alike. */
  readonly signatures: readonly string[]
}

function grouped<T extends { readonly motif: number }>(things: readonly T[]): (motif: number) => readonly T[] {
  const by = new Map<number, T[]>()
  for (const thing of things) {
    const list = by.get(thing.motif)
    if (list) list.push(thing)
    else by.set(thing.motif, [thing])
  }
  return (motif) => by.get(motif) ?? []
}

export function motifsOf(run: Run, n: number): Motifs {
  const bridges = run.done.flatMap(({ spans, motif }) =>
    spans.flatMap((s) =>
      s.kind === 'bridge' && s.from.node !== s.to.node ? [{ from: s.from, to: s.to, motif, far: s.far ?? false }] : [],
    ),
  )
  const nodesOf = grouped(run.nodes)
  const madeIn = grouped(bridges)
  const signatures = Array.from({ length: n }, (_, m) => {
    const beads = nodesOf(m).map(beadText).join(' ')
    return `${beads}|${madeIn(m)
      .map((bridge) => bridgeText(run, bridge, m))
      .sort()
      .join(' ')}`
  })
  return { run, n, bridges, nodesOf, madeIn, signatures }
}

/** A bridge as it is seen from a motif, whichever way it leads. */
function bridgeText({ nodes }: Run, { from, to }: Bridge, m: number): string {
  const port = ({ node, hole, end }: Port): string => {
    const { motif, slot, spec } = nodes[node]!
    return `${motif - m}:${callOf(nodes[node]!)}:${spec?.id ?? slot}:${hole}${end}`
  }
  return [port(from), port(to)].sort().join('-')
}

/** The longest stretch of signatures that repeat; of equally long ones that with the shortest period. */
function repeating(signatures: readonly string[]): Omit<Stretch, 'home'> | null {
  const n = signatures.length
  let best: Omit<Stretch, 'home'> | null = null
  for (let period = 1; period <= Math.min(MOST_PERIOD, Math.floor(n / 2)); period++) {
    let from = 0
    for (let m = 0; m < n; m++) {
      if (m + period < n && signatures[m] === signatures[m + period]) continue
      const until = Math.min(n, m + period)
      const isLonger = best === null || until - from > best.until - best.from
      if (until - from >= 2 * period && isLonger) best = { from, until, period }
      from = m + 1
    }
  }
  return best
}

/**
 * The stretch of a chain that repeats, with the motifs at its ends that are like it but for what they lack or have
 * besides: nothing joins the first one to what is before, and a loop may hang on it. Null if hardly anything repeats.
 */
export function stretchOf(motifs: Motifs): Stretch | null {
  const { n, signatures } = motifs
  const found = repeating(signatures)
  if (!found || (found.until - found.from) * 2 < n) return null
  let { from, until } = found
  const { period } = found
  while (from > 0 && isLike(motifs, from - 1, from - 1 + period)) from--
  while (until < n && isLike(motifs, until, until - period)) until++
  return { from, until, period, home: from + period * Math.ceil((found.from - from) / period) }
}

/** Whether most of a motif’s beads lie in another one as well, joined to each other alike. */
function isLike({ run, nodesOf, madeIn }: Motifs, m: number, other: number): boolean {
  const whole = new Set(nodesOf(other).map(beadText))
  const shared = new Set(nodesOf(m).flatMap((node) => (whole.has(beadText(node)) ? [beadText(node)] : [])))
  if (shared.size * 2 < whole.size) return false
  const inner = (motif: number): string[] => {
    const isShared = ({ node }: Port): boolean =>
      run.nodes[node]!.motif === motif && shared.has(beadText(run.nodes[node]!))
    return madeIn(motif).flatMap((b) => (isShared(b.from) && isShared(b.to) ? [bridgeText(run, b, motif)] : []))
  }
  const [ties, own] = [new Set(inner(other)), new Set(inner(m))]
  return ties.size === own.size && [...own].every((tie) => ties.has(tie))
}
