import { linksIn } from '../hang/chain'
import { bad, good, problem, type Problem, type Result } from '../problem'
import type { Point } from '../technique/lattice'
import type { Holds } from '../technique/held'
import { requireTechnique } from '../technique/registry'
import { columnsOf, rowsOf, techniqueOf, workOf, type Part, type Piece } from './piece'
import { LIMITS, type Joint, type Side } from './schema'

/**
 * A piece is a tree of parts: each may hang on another by one of its sides. Where every part lies follows from the
 * joints and from how large each part is; a joint turns a part by quarters and never mirrors it.
 */
type Joined = Pick<Part, 'id' | 'name' | 'on'>

/** Parts that hang on a part, in the order of the piece. */
export const hangingOn = <P extends Joined>(parts: readonly P[], id: string): P[] =>
  parts.filter((p) => p.on?.part === id)

/** The part at the root of the tree that a part belongs to. */
export function rootOf<P extends Joined>(parts: readonly P[], part: P): P {
  const passed = new Set<P>()
  let at = part
  while (at.on && !passed.has(at)) {
    passed.add(at)
    at = parts.find((p) => p.id === at.on!.part) ?? at
    if (passed.has(at)) break
  }
  return at
}

/** The parts of a tree: each after the one that it hangs on. */
export const treeOf = <P extends Joined>(parts: readonly P[], root: P): P[] => [
  root,
  ...hangingOn(parts, root.id)
    .filter((p) => p !== root)
    .flatMap((p) => treeOf(parts, p)),
]

/** What a finding holds parts by on a side; null of a part that is made of beads. */
export const holdsOf = (part: Part, side: Side): Holds | null => techniqueOf(part).holds?.(workOf(part), side) ?? null

/** Beads along a side, or places of a finding. */
export const beadsOfSide = (part: Part, side: Side): number =>
  techniqueOf(part).holds
    ? (holdsOf(part, side)?.places.length ?? 0)
    : side === 'start' || side === 'end'
      ? columnsOf(part)
      : rowsOf(part)

const SIDE_WORDS: Record<Side, string> = {
  start: 'first row',
  end: 'last row',
  left: 'first column',
  right: 'last column',
}
/** A side in words: “last row”. */
export const sideWords = (side: Side): string => SIDE_WORDS[side]

/** Parts that a part may hang on: all but itself and what hangs on it. */
export function hangableOn<P extends Joined>(parts: readonly P[], part: P): P[] {
  const under = new Set(treeOf(parts, part))
  return parts.filter((p) => !under.has(p))
}

const LINK_WORDS: Record<NonNullable<Joint['link']>['kind'], readonly [one: string, many: string]> = {
  ring: ['a ring', 'rings'],
  chain: ['a piece of chain', 'pieces of chain'],
}

/**
 * How many quarter turns a link makes: a ring one, a chain one for each of its links; null of a chain whose links are
 * not known.
 */
export const turnsOfLink = ({ kind, mm, linkMm }: NonNullable<Joint['link']>): number | null =>
  kind === 'ring' ? 1 : linkMm === undefined ? null : Math.max(1, linksIn(mm, linkMm))

/** What a link keeps apart when it is first chosen, mm (common practice: a small ring, a short piece of chain). */
export const USUAL_LINK_MM = { ring: 4, chain: 20 } as const

/** Whether a part is seen to hang below another: strands, and all that a finding holds. */
const seenBelow = (part: Told, holder: Told | undefined, { at, by }: Joint): boolean =>
  at === 'end' && by === 'start' && [part, holder].some((p) => p?.technique !== undefined && isHanging(p.technique))

const isHanging = (technique: string): boolean => {
  const { hangs, holds } = requireTechnique(technique)
  return hangs === true || holds !== undefined
}

type Told = Joined & Partial<Pick<Part, 'technique'>>

/** How a part hangs, in words; `show` says a length. */
export function jointWords(parts: readonly Told[], part: Told, show: (mm: number) => string): string {
  const { on } = part
  if (!on) return ''
  const holder = parts.find((p) => p.id === on.part)
  const there = holder?.name ?? 'a part that is not there'
  const numbers = on.holes.join(' and ')
  const many = on.holes.length > 1
  const link = on.link ? ` by ${LINK_WORDS[on.link.kind][many ? 1 : 0]}, ${show(on.link.mm)}` : ''
  if (seenBelow(part, holder, on)) {
    const hangs = link !== '' || (part.technique !== undefined && requireTechnique(part.technique).hangs === true)
    const places = on.holes.length === 0 ? '' : `, at place${many ? 's' : ''} ${numbers}${link ? ',' : ''}`
    return `${hangs ? 'Hangs' : 'Sewn on'} below ${there}${places}${link}`
  }
  const beads = on.holes.length === 0 ? '' : `, bead${many ? 's' : ''} ${numbers},`
  const by = link || ' sewn on'
  return `Its ${sideWords(on.by)} on the ${sideWords(on.at)} of ${there}${beads}${beads || link ? by : `,${by}`}`
}

/** Beads of a side as people write them: numbers with anything between; none is the middle of the side. */
export function parseHoles(text: string, beads: number): Result<number[]> {
  const said = text.trim()
  if (said === '') return good([])
  const refused = (says: string) => bad(problem('holes', 'holes', says))
  if (!/^[\d\s,;and+]+$/.test(said)) return refused('Write the numbers of the beads, like “3, 8”.')
  const holes = [...said.matchAll(/\d+/g)].map((m) => Number(m[0]))
  if (holes.some((h) => h < 1 || h > beads)) return refused(`That side has beads 1 to ${beads}.`)
  if (new Set(holes).size < holes.length) return refused('Name each bead once.')
  return holes.length > LIMITS.holes ? refused(`At most ${LIMITS.holes} beads.`) : good(holes)
}

/** Circles of parts that hang on each other, each once; one way through all parts. */
function circlesOf<P extends Joined>(parts: readonly P[], byId: ReadonlyMap<string, P>): P[][] {
  const circles: P[][] = []
  const done = new Set<P>()
  for (const part of parts) {
    const path: P[] = []
    const onPath = new Map<P, number>()
    let at: P | undefined = part
    while (at && !done.has(at) && !onPath.has(at)) {
      onPath.set(at, path.push(at) - 1)
      at = at.on ? byId.get(at.on.part) : undefined
    }
    if (at && onPath.has(at)) circles.push(path.slice(onPath.get(at)))
    for (const each of path) done.add(each)
  }
  return circles
}

function circleWords(names: readonly string[]): string {
  return names.length === 1
    ? `${names[0]} cannot hang on itself. Let it hang on another part, or on nothing.`
    : `${names.slice(0, -1).join(', ')} and ${names.at(-1)} hang on each other in a circle. Let one of them hang on ` +
        'nothing.'
}

/** What is wrong with the beads at which a part hangs on another. */
function holeProblem(part: Part, on: Joint, there: Part): Problem | null {
  const beads = beadsOfSide(there, on.at)
  const beyond = on.holes.find((hole) => hole > beads)
  if (beyond !== undefined)
    return problem(
      'joint-hole',
      part.id,
      `${part.name} hangs at bead ${beyond} of the ${sideWords(on.at)} of ${there.name}, which has ${beads}. ` +
        'Let it hang at one that is there first.',
    )
  return new Set(on.holes).size < on.holes.length
    ? problem('joint-twice', part.id, `${part.name} hangs at one bead twice. Name each of its beads once.`)
    : null
}

/** What must hold of the joints of a piece: each leads to a part and to beads that are there, and none in a circle. */
export function checkJoints({ parts }: Pick<Piece, 'parts'>): Problem[] {
  const byId = new Map(parts.map((p) => [p.id, p]))
  const problems = circlesOf(parts, byId).map((circle) =>
    problem('joint-circle', circle[0]!.id, circleWords(circle.map((p) => p.name))),
  )
  for (const part of parts) {
    if (!part.on) continue
    const there = byId.get(part.on.part)
    const found = there
      ? holeProblem(part, part.on, there)
      : problem(
          'joint-nowhere',
          part.id,
          `${part.name} hangs on a part that is not there. Let it hang on one of the piece, or on nothing.`,
        )
    if (found) problems.push(found)
  }
  return problems
}

/** Quarter turns clockwise on the screen, from a part's own lie: x across its width, y along its length. */
export type Turn = 0 | 1 | 2 | 3

/** A part where it lies, mm: its upper left corner and its size as it is turned; its own width and length. */
export interface Placed {
  readonly part: Part
  readonly turn: Turn
  readonly x: number
  readonly y: number
  readonly width: number
  readonly length: number
}

/** A link between two parts, mm, from the edge of one to the edge of the other. */
export interface Tie {
  readonly kind: NonNullable<Joint['link']>['kind']
  readonly from: Point
  readonly to: Point
}

/** Parts that hang together as they lie, mm, with the box round all of them. */
export interface Whole {
  readonly placed: readonly Placed[]
  readonly ties: readonly Tie[]
  readonly x: number
  readonly y: number
  readonly width: number
  readonly length: number
}

interface PartSize {
  readonly width: number
  readonly length: number
  /** Where the middle of what it hangs on lies in it, where that is not the middle of the side that is joined. */
  readonly hungAt?: Point
}

/** A point turned about 0, 0 by quarters clockwise on a screen, whose y runs down. */
export const turned = ({ x, y }: Point, turn: Turn): Point =>
  [
    { x, y },
    { x: 0 - y, y: x },
    { x: 0 - x, y: 0 - y },
    { x: y, y: 0 - x },
  ][turn]!

/** Way out of a part over a side. */
export const OUT: Record<Side, Point> = {
  start: { x: 0, y: -1 },
  end: { x: 0, y: 1 },
  left: { x: -1, y: 0 },
  right: { x: 1, y: 0 },
}
const TURNS = [0, 1, 2, 3] as const

/** The quarter turn that lays side `by` against side `at` of a part that is turned by `parent`. */
export const turnOfJoint = ({ at, by }: Pick<Joint, 'at' | 'by'>, parent: Turn): Turn =>
  TURNS.find((turn) => {
    const [a, b] = [turned(OUT[at], parent), turned(OUT[by], turn)]
    return Math.abs(a.x + b.x) < 0.5 && Math.abs(a.y + b.y) < 0.5
  })!

const plus = (a: Point, b: Point, times = 1): Point => ({ x: a.x + times * b.x, y: a.y + times * b.y })

/** A point of a side from the middle of its part, mm: `share` of the way along it. */
export function onSide(side: Side, share: number, { width, length }: PartSize): Point {
  const out = OUT[side]
  return out.x === 0
    ? { x: (share - 0.5) * width, y: (out.y * length) / 2 }
    : { x: (out.x * width) / 2, y: (share - 0.5) * length }
}

/**
 * The points of a side that a joint hangs at, from the middle of the part that holds it, mm: its places by name, or
 * the middle of the side where none is named.
 */
export function heldAt({ at, holes }: Joint, parent: Part, size: PartSize): Point[] {
  if (holes.length === 0) return [onSide(at, 0.5, size)]
  const places = holdsOf(parent, at)?.places
  const middle = onSide(at, 0.5, size)
  const beads = Math.max(1, beadsOfSide(parent, at))
  return holes.map((hole) => {
    const place = places?.[hole - 1]
    return place ? plus(middle, place) : onSide(at, (hole - 0.5) / beads, size)
  })
}

const meanPoint = (points: readonly Point[]): Point => ({
  x: points.reduce((sum, p) => sum + p.x, 0) / points.length,
  y: points.reduce((sum, p) => sum + p.y, 0) / points.length,
})

/** Where a part is joined, from its own middle, mm. */
const joinedAt = (by: Side, { hungAt, ...size }: PartSize): Point =>
  hungAt && by === 'start' ? { x: hungAt.x - size.width / 2, y: hungAt.y - size.length / 2 } : onSide(by, 0.5, size)

/**
 * Lays out the tree of a part, from its root, which lies unturned with its first corner at 0, 0. `sizeOf`: width and
 * length of a part as it lies by itself, mm. The middle of the side that is joined lies at the mean of the beads that
 * it hangs on.
 */
export function layOut(parts: readonly Part[], root: Part, sizeOf: (part: Part) => PartSize): Whole {
  const placed: Placed[] = []
  const ties: Tie[] = []
  const put = (part: Part, middle: Point, turn: Turn, size: PartSize) => {
    const [w, l] = turn % 2 === 0 ? [size.width, size.length] : [size.length, size.width]
    placed.push({ part, turn, x: middle.x - w / 2, y: middle.y - l / 2, width: w, length: l })
    for (const child of hangingOn(parts, part.id)) {
      const on = child.on!
      const own = sizeOf(child)
      const childTurn = turnOfJoint(on, turn)
      const out = turned(OUT[on.at], turn)
      const mm = on.link?.mm ?? 0
      const points = heldAt(on, part, size)
      const anchor = plus(middle, turned(meanPoint(points), turn))
      if (on.link)
        for (const point of points) {
          const from = plus(middle, turned(point, turn))
          ties.push({ kind: on.link.kind, from, to: plus(from, out, mm) })
        }
      const edge = turned(joinedAt(on.by, own), childTurn)
      put(child, plus(plus(anchor, out, mm), edge, -1), childTurn, own)
    }
  }
  const size = sizeOf(root)
  put(root, { x: size.width / 2, y: size.length / 2 }, 0, size)
  const x = Math.min(...placed.map((p) => p.x))
  const y = Math.min(...placed.map((p) => p.y))
  return {
    placed,
    ties,
    x,
    y,
    width: Math.max(...placed.map((p) => p.x + p.width)) - x,
    length: Math.max(...placed.map((p) => p.y + p.length)) - y,
  }
}

/** The parts that hang together with a part, itself among them: each after the one that it hangs on. */
export const partsWith = (parts: readonly Part[], part: Part): readonly Part[] =>
  part.on || parts.some((p) => p.on?.part === part.id) ? treeOf(parts, rootOf(parts, part)) : [part]

const movedBy = (whole: Whole, dx: number, dy: number): Whole => {
  const by = { x: dx, y: dy }
  return {
    ...whole,
    x: whole.x + dx,
    y: whole.y + dy,
    placed: whole.placed.map((p) => ({ ...p, x: p.x + dx, y: p.y + dy })),
    ties: whole.ties.map((t) => ({ ...t, from: plus(t.from, by), to: plus(t.to, by) })),
  }
}

/**
 * Lays out parts: what hangs together as it hangs, and what does not side by side, `gapMm` apart. A part whose parent
 * is not among them begins a tree.
 */
export function layOutAll(parts: readonly Part[], sizeOf: (part: Part) => PartSize, gapMm: number): Whole {
  const trees: Whole[] = []
  let x = 0
  for (const root of parts.filter((p) => !parts.some((q) => q.id === p.on?.part))) {
    const tree = layOut(parts, root, sizeOf)
    trees.push(movedBy(tree, x - tree.x, 0 - tree.y))
    x += tree.width + gapMm
  }
  return {
    placed: trees.flatMap((t) => t.placed),
    ties: trees.flatMap((t) => t.ties),
    x: 0,
    y: 0,
    width: Math.max(0, x - gapMm),
    length: Math.max(0, ...trees.map((t) => t.length)),
  }
}

/** Links that join the parts of a piece: one for each bead that a part hangs at. */
export const linksOf = ({ parts }: Pick<Piece, 'parts'>): NonNullable<Joint['link']>[] =>
  parts.flatMap(({ on }) =>
    on?.link ? Array.from({ length: Math.max(1, on.holes.length) }, () => ({ ...on.link! })) : [],
  )
