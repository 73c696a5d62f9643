import type { Recipe } from '../recipe/language'
import type { Node, Port, Run } from '../recipe/run'
import { modulo } from '../modulo'
import { findingOutline, outlineOf, type Outline } from './body'
import { callOf, motifsOf, stretchOf, type Motifs } from './motifs'
import { imageOf, poseIn, type Pose } from './pose'
import type { CellProblem, ChainAnswer, ChainProblem, EndProblem, Fixed, Tie } from './problem'

/** Kinds of motifs that are laid one by one at most, and beads of all cells, or of an end: seconds, never minutes. */
const MOST_CELLS = 24
const MOST_BEADS = 240

/** Where a node lies: in a copy of a cell, or at an end. */
type Seat =
  | { readonly in: 'cell'; readonly cell: number; readonly index: number; readonly motif: number }
  | { readonly in: 'start' | 'end'; readonly index: number }

/** A chain that can be laid: the question, and what its answer says of each node. */
export interface Chain {
  readonly problem: ChainProblem
  readonly seats: readonly (Seat | null)[]
  /** Motifs that lie in cells: the first one, the one behind the last, and after how many they begin again. */
  readonly from: number
  readonly until: number
  readonly period: number
}

/** What of a recipe the picture hangs on besides its steps. */
export type Lies = Pick<Recipe, 'repeat' | 'lies' | 'hangs'>

/** Which cell each motif lies in, and of which motifs each cell is made. */
interface Plan {
  readonly from: number
  readonly until: number
  readonly period: number
  readonly cellMotifs: readonly (readonly number[])[]
  cellOf(motif: number): number
}

/** A chain that repeats is one cell; motifs that grow or shrink are a cell each, for every kind of them. */
function planOf(motifs: Motifs): Plan | null {
  const stretch = stretchOf(motifs)
  if (stretch) {
    const { from, until, period, home } = stretch
    return { from, until, period, cellMotifs: [Array.from({ length: period }, (_, k) => home + k)], cellOf: () => 0 }
  }
  const { signatures, n } = motifs
  const kinds = [...new Set(signatures)]
  if (kinds.length > MOST_CELLS) return null
  return {
    from: 0,
    until: n,
    period: 1,
    cellMotifs: kinds.map((kind) => [signatures.lastIndexOf(kind)]),
    cellOf: (m) => kinds.indexOf(signatures[m]!),
  }
}

/** Outlines of what a run is made of: equal ones are one. */
function outliner({ head }: Run): (node: Node) => Outline {
  const known = new Map<string, Outline>()
  return (node) => {
    const key = node.spec ? node.spec.id : `#${node.slot}`
    let outline = known.get(key)
    if (!outline) {
      const { d = 1, holes = 1, pitch = 0 } = head.fixtures[node.slot] ?? {}
      outline = node.spec ? outlineOf(node.spec) : findingOutline(d, holes, pitch)
      known.set(key, outline)
    }
    return outline
  }
}

/** Index of each bead in its cell, by residue and name. */
type Indexes = readonly ReadonlyMap<string, number>[]

const indexesOf = ({ cellMotifs }: Plan, motifs: Motifs): Indexes =>
  cellMotifs.map((own) => {
    const known = new Map<string, number>()
    own.forEach((m, residue) => {
      for (const node of motifs.nodesOf(m)) known.set(`${residue}/${callOf(node)}`, known.size)
    })
    return known
  })

/** A recipe carried out for so many motifs. */
export interface Length {
  readonly run: Run
  readonly n: number
}

/**
 * Reads a run as a chain; null where it is too much, or has no motif that could be laid. What repeats is told by a
 * longer chain of the same recipe where one is given: few motifs do not show it.
 */
export function chainOf(own: Length, lies: Lies, longer: Length = own): Chain | null {
  if (own.n < 1) return null
  const motifs = motifsOf(own.run, own.n)
  const long = longer.n > own.n ? motifsOf(longer.run, longer.n) : motifs
  const known = planOf(long)
  if (!known) return null
  const isKnown = known.cellMotifs.length === 1 && known.until - (long.n - own.n) > known.from
  // Where motifs grow or shrink, or are too few for what stands at the ends, they are told by themselves.
  const shown = isKnown || long === motifs ? { motifs: long, plan: known } : { motifs, plan: planOf(motifs) }
  if (!shown.plan) return null
  const indexes = indexesOf(shown.plan, shown.motifs)
  const beads = indexes.reduce((sum, { size }) => sum + size, 0)
  if (beads === 0 || beads > MOST_BEADS) return null
  const outlineFor = outliner(own.run)
  const cells = shown.plan.cellMotifs.map((_, c) =>
    cellAt({ motifs: shown.motifs, plan: shown.plan!, indexes, outlineFor, lies }, c),
  )
  const plan = { ...shown.plan, until: shown.plan.until - (shown.motifs.n - own.n) }
  const { from, until, period, cellOf } = plan
  const seats: (Seat | null)[] = own.run.nodes.map((node) => {
    const { motif } = node
    if (motif < from || motif >= until) return null
    const cell = cellOf(motif)
    const index = indexes[cell]!.get(`${(motif - from) % period}/${callOf(node)}`)
    return index === undefined ? null : { in: 'cell', cell, index, motif }
  })
  const likeIn = (node: Node): number | undefined =>
    plan.cellMotifs.length === 1 ? indexes[0]!.get(`${modulo(node.motif - from, period)}/${callOf(node)}`) : undefined
  const metAgain = meet(motifs, period, likeIn, seats)
  const start = endAt('start', { motifs, plan, seats, metAgain, likeIn, outlineFor })
  const end = endAt('end', { motifs, plan, seats, metAgain, likeIn, outlineFor })
  return { problem: { cells, start, end }, seats, from, until, period }
}

interface CellWish {
  readonly motifs: Motifs
  readonly plan: Plan
  readonly indexes: Indexes
  readonly outlineFor: (node: Node) => Outline
  readonly lies: Lies
}

/** The question of one cell. */
function cellAt({ motifs, plan, indexes, outlineFor, lies }: CellWish, c: number): CellProblem {
  const { nodes, head } = motifs.run
  const own = plan.cellMotifs[c]!
  const beads = own.flatMap((m) => motifs.nodesOf(m))
  const seatOf = (node: Node): Spot | null => {
    const off = node.motif - own[0]!
    const copy = Math.floor(off / plan.period)
    const residue = off - copy * plan.period
    const index = indexes[c]!.get(`${residue}/${callOf(node)}`) ?? lastOf(indexes[c]!, residue, node.name)
    return index === undefined ? null : { index, copy }
  }
  const ties = own
    .flatMap((m) => motifs.madeIn(m))
    .flatMap(({ from: one, to: other }): Tie[] => {
      const [a, b] = [seatOf(nodes[one.node]!), seatOf(nodes[other.node]!)]
      return a && b ? [tieOf(one, a, other, b)] : []
    })
  const carries = beads.map((node) => lies.hangs.includes(node.name))
  const along = (node: Node): number => (node.isFixture ? (head.fixtures[node.slot]?.pitch ?? 0) : (node.spec?.l ?? 0))
  return {
    outlines: beads.map(outlineFor),
    motifs: beads.map(({ motif }) => motif - own[0]!),
    kinds: beads.map((node) => `${node.slot}:${node.spec?.id ?? ''}`),
    ties: merged(ties),
    glide: lies.repeat === 'to-and-fro' && plan.period % 2 !== 0,
    lies: beads.map((node) => lies.lies[node.name] ?? null),
    hung: carries.includes(true)
      ? { pitchMm: beads.reduce((sum, node, k) => sum + (carries[k] ? along(node) : 0), 0), carries }
      : null,
  }
}

/**
 * Where the ends of a ring meet, the chain goes on there: beads of the end that are called as those of a motif lie as
 * one more motif would, and what the end is worked on to lies again behind it. Says where, for each of these.
 */
function meet(
  { run, n, bridges }: Motifs,
  period: number,
  likeIn: EndWish['likeIn'],
  seats: (Seat | null)[],
): Map<Node, Again> {
  const out = new Map<Node, Again>()
  const far = bridges.filter((bridge) => bridge.far && bridge.motif >= n - 1)
  if (far.length === 0) return out
  for (const node of run.nodes) {
    const index = node.motif === n ? likeIn(node) : undefined
    if (index !== undefined) seats[node.id] = { in: 'cell', cell: 0, index, motif: n }
  }
  for (const { node: id } of far.flatMap((bridge) => [bridge.from, bridge.to])) {
    const node = run.nodes[id]!
    const index = n % period === 0 && node.motif <= 0 ? likeIn(node) : undefined
    if (index !== undefined) out.set(node, { index, motif: node.motif + n })
  }
  return out
}

interface EndWish {
  readonly motifs: Motifs
  readonly plan: Plan
  /** Seats of what lies in cells; loose nodes get theirs here. */
  readonly seats: (Seat | null)[]
  /** Beads at the beginning that the end is worked on to, as they would lie behind it. */
  readonly metAgain: ReadonlyMap<Node, Again>
  /** Which bead of the cell a bead is called like. */
  likeIn(node: Node): number | undefined
  readonly outlineFor: (node: Node) => Outline
}

/** Where a bead of the beginning would lie if the chain went on where its ends meet. */
interface Again {
  readonly index: number
  readonly motif: number
}

/** The question of an end: what lies in no cell, against the copy that it hangs on. */
function endAt(
  side: 'start' | 'end',
  { motifs, plan, seats, metAgain, likeIn, outlineFor }: EndWish,
): EndProblem | null {
  const { from, until, period, cellOf } = plan
  const { nodes } = motifs.run
  const isStart = side === 'start'
  const middle = (from + until - 1) / 2
  const loose = nodes.filter(({ motif, id }) => seats[id] === null && (isStart ? motif <= middle : motif > middle))
  if (loose.length === 0 || loose.length > MOST_BEADS) return null
  const near = isStart ? from : until - 1
  const copyOf = (motif: number): number => Math.floor((motif - from) / period)
  const met = isStart ? new Map<Node, Again>() : metAgain
  const fixed = nodes.filter(
    ({ motif, id }) => seats[id]?.in === 'cell' && (isStart ? motif < from + period : motif >= until - period),
  )
  const made = motifs.bridges.filter(({ motif }) => isStart === motif <= middle)
  const all = [...loose, ...fixed, ...met.keys()]
  const index = new Map(all.map((node, i) => [node.id, i]))
  const ties = made.flatMap(({ from: one, to: other }): Tie[] => {
    const [a, b] = [index.get(one.node), index.get(other.node)]
    const isFixed = a !== undefined && b !== undefined && a >= loose.length && b >= loose.length
    if (a === undefined || b === undefined || isFixed) return []
    return [tieOf(one, { index: a, copy: 0 }, other, { index: b, copy: 0 })]
  })
  loose.forEach((node, i) => {
    seats[node.id] = { in: side, index: i }
  })
  return {
    side,
    on: cellOf(near),
    outlines: all.map(outlineFor),
    ties: merged(ties),
    like: all.map((node, i): Fixed | null => {
      const of = i < loose.length ? likeIn(node) : undefined
      return of === undefined ? null : { of, shift: copyOf(node.motif) - copyOf(near) }
    }),
    fixed: all.map((node): Fixed | null => {
      const again = met.get(node)
      if (again) return { of: again.index, shift: copyOf(again.motif) - copyOf(near) }
      const seat = seats[node.id]
      return seat?.in === 'cell' ? { of: seat.index, shift: copyOf(node.motif) - copyOf(near) } : null
    }),
  }
}

/** The last bead of a name in a cell: where motifs grow, the one before may have had more of it. */
function lastOf(known: ReadonlyMap<string, number>, residue: number, name: string): number | undefined {
  let found: number | undefined
  for (const [key, index] of known) if (key.startsWith(`${residue}/${name}.`)) found = index
  return found
}

type Spot = { readonly index: number; readonly copy: number }

/** A bridge as a tie whose second end lies in the same copy or a later one. */
function tieOf(one: Port, a: Spot, other: Port, b: Spot): Tie {
  const isSwapped =
    b.copy < a.copy ||
    (b.copy === a.copy &&
      (b.index < a.index || (b.index === a.index && other.hole * 2 + other.end < one.hole * 2 + one.end)))
  const [p, s, q, t] = isSwapped ? [other, b, one, a] : [one, a, other, b]
  return {
    a: s.index,
    aHole: p.hole,
    aEnd: p.end,
    b: t.index,
    bHole: q.hole,
    bEnd: q.end,
    shift: t.copy - s.copy,
    weight: 1,
  }
}

/** Ties between the same ends are one, which pulls as often as it is passed. */
function merged(ties: readonly Tie[]): Tie[] {
  const out = new Map<string, Tie>()
  for (const tie of ties) {
    const { weight, ...ends } = tie
    const key = Object.values(ends).join(' ')
    out.set(key, { ...tie, weight: (out.get(key)?.weight ?? 0) + weight })
  }
  return [...out.values()]
}

/** Where all nodes of a chain lie, mm: along x, across y; null for those that nothing places. */
export function posesOfChain(chain: Chain, answer: ChainAnswer): (Pose | null)[] {
  const { seats, from, until, period, problem } = chain
  const single = problem.cells.length === 1
  /** Where each motif’s cell stands, mm. */
  const at: number[] = []
  const pitchOf = (cell: number): number => answer.cells[cell]!.pitchMm
  if (!single) {
    const cellBy = new Map(seats.flatMap((s) => (s?.in === 'cell' ? [[s.motif, s.cell] as const] : [])))
    let x = 0
    for (let m = from; m < until; m++) {
      const cell = cellBy.get(m) ?? 0
      x += m === from ? 0 : (pitchOf(cellBy.get(m - 1) ?? cell) + pitchOf(cell)) / 2
      at[m] = x
    }
  }
  const copyOf = (m: number): number => Math.floor((m - from) / period)
  const lastX = single ? copyOf(until - 1) * pitchOf(0) : (at[until - 1] ?? 0)
  const isTurned = (copy: number, cell: number): boolean => problem.cells[cell]!.glide && copy % 2 !== 0
  return seats.map((seat): Pose | null => {
    if (!seat) return null
    if (seat.in === 'cell') {
      const pose = poseIn(answer.cells[seat.cell]!.poses, seat.index)
      const copy = copyOf(seat.motif)
      if (single) return imageOf(pose, copy, pitchOf(seat.cell), problem.cells[seat.cell]!.glide)
      const over = isTurned(copy, seat.cell) ? imageOf(pose, 1, 0, true) : pose
      return { ...over, x: over.x + at[seat.motif]! }
    }
    if (seat.in === 'start') return poseIn(answer.start, seat.index)
    const pose = poseIn(answer.end, seat.index)
    const over = isTurned(copyOf(until - 1), problem.end!.on) ? imageOf(pose, 1, 0, true) : pose
    return { ...over, x: over.x + lastX }
  })
}
