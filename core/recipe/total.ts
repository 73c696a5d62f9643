import type { BeadSpec } from '../bead/spec'
import { evaluate, ExpressionFault, termOf, valueOfTerm, type Env, type Term } from './expression'
import { RECIPE_SECTIONS, type Expr, type Recipe, type Step } from './language'
import { runSteps, unitsOf, type Node, type Port, type Run, type Span } from './run'

/** Parameters as they are set; what is not set is as usual. */
export type Params = Readonly<Record<string, number>>

/** Values of the parameters of a recipe, within their bounds, and how many motifs there are. */
export function envOf(recipe: Pick<Recipe, 'params'>, params: Params, n: number): Env {
  const env = new Map<string, number>([['n', n]])
  for (const { id, least, most, usual } of recipe.params)
    env.set(id, Math.max(least, Math.min(most, params[id] ?? usual)))
  return env
}

export interface RecipeWork {
  readonly recipe: Recipe
  readonly params: Params
  /** The bead that plays a slot. */
  spec(slot: string): BeadSpec
}

/** Runs a recipe for n motifs, all of them. */
export const runRecipe = ({ recipe, params, spec }: RecipeWork, n: number): Run =>
  runSteps({ head: recipe, units: unitsOf(recipe, n), env: envOf(recipe, params, n), spec })

/** Sums over a run: each is linear in the motifs that are alike. */
export interface Totals {
  readonly beads: number
  /** Beads by slot. */
  readonly counts: ReadonlyMap<string, number>
  /** Passes of all beads of a slot together, by hole. */
  readonly passSums: ReadonlyMap<string, readonly number[]>
  readonly steps: number
  /** Way of each carrier, mm: through holes, between them, and round things. */
  readonly ways: ReadonlyMap<string, { readonly rodMm: number; readonly bridgeMm: number; readonly extraMm: number }>
}

/** How far it is from a hole's end to another's, mm; `far` where it leads back over whole motifs, or on from there. */
export type BridgeMm = (from: Port, to: Port, nodes: readonly Node[], far?: boolean) => number

const NONE = { rodMm: 0, bridgeMm: 0, extraMm: 0 }

/** Sums of a run, or of the motifs of it that are asked for. */
export function totalsOf(run: Run, bridge: BridgeMm, has: (motif: number) => boolean = () => true): Totals {
  const counts = new Map<string, number>()
  const passSums = new Map<string, number[]>()
  const ways = new Map(run.head.carriers.map((c) => [c.id, { ...NONE }]))
  let beads = 0
  for (const node of run.nodes) {
    if (node.isFixture || !has(node.motif)) continue
    beads++
    counts.set(node.slot, (counts.get(node.slot) ?? 0) + 1)
    if (!passSums.has(node.slot))
      passSums.set(
        node.slot,
        node.passes.map(() => 0),
      )
  }
  let steps = 0
  for (const { motif, by, goes, spans } of run.done) {
    if (!has(motif)) continue
    steps++
    // A pass belongs to the motif in which it is made, whichever picked the bead up.
    for (const { node, hole } of goes) {
      const { slot, isFixture, passes } = run.nodes[node]!
      if (isFixture) continue
      const sums = passSums.get(slot) ?? passes.map(() => 0)
      sums[hole]!++
      passSums.set(slot, sums)
    }
    const way = ways.get(by)!
    for (const span of spans) addSpan(way, span, bridge, run.nodes)
  }
  return { beads, counts, passSums, steps, ways }
}

function addSpan(
  way: { rodMm: number; bridgeMm: number; extraMm: number },
  span: Span,
  bridge: BridgeMm,
  nodes: readonly Node[],
): void {
  if (span.kind === 'rod') way.rodMm += span.mm
  else if (span.kind === 'extra') way.extraMm += span.mm
  else way.bridgeMm += bridge(span.from, span.to, nodes, span.far)
}

/** One sum and so many times another. */
function plus(a: Totals, b: Totals, times: number): Totals {
  const both = (x: ReadonlyMap<string, number>, y: ReadonlyMap<string, number>): Map<string, number> =>
    new Map([...new Set([...x.keys(), ...y.keys()])].map((k) => [k, (x.get(k) ?? 0) + times * (y.get(k) ?? 0)]))
  return {
    beads: a.beads + times * b.beads,
    counts: both(a.counts, b.counts),
    passSums: new Map(
      [...new Set([...a.passSums.keys(), ...b.passSums.keys()])].map((slot) => {
        const [x, y] = [a.passSums.get(slot), b.passSums.get(slot)]
        return [slot, (x ?? y)!.map((_, hole) => (x?.[hole] ?? 0) + times * (y?.[hole] ?? 0))]
      }),
    ),
    steps: a.steps + times * b.steps,
    ways: new Map(
      [...a.ways].map(([by, way]) => {
        const more = b.ways.get(by) ?? NONE
        return [
          by,
          {
            rodMm: way.rodMm + times * more.rodMm,
            bridgeMm: way.bridgeMm + times * more.bridgeMm,
            extraMm: way.extraMm + times * more.extraMm,
          },
        ]
      }),
    ),
  }
}

/** How motifs are alike: from `head` on, every `period`-th is like the one before, up to the last `tail`. */
export interface Alike {
  readonly head: number
  readonly period: number
  readonly tail: number
}

/** Motifs that are run as they are rather than multiplied, at most. */
const MOST_PERIOD = 24
const MOST_EDGE = 64

/**
 * How the motifs of a recipe are alike, told by how it reads `m` and `n`: as a remainder (`m%2`: every second motif is
 * alike), or compared with what stays the same (`m<2`, `m=n-1`: the first and last differ). Null if it reads them any
 * other way, or goes back from every motif to beads of the start or the first one, which lie further and further off:
 * it is run whole.
 */
export function alikeIn(recipe: Recipe, params: Params): Alike | null {
  let period = 1
  let head = 0
  let tail = 0
  const env = new Map([...envOf(recipe, params, 0)].filter(([name]) => name !== 'n'))
  const fixed = (term: Term): number | null => {
    try {
      return valueOfTerm(term, env, '')
    } catch (error) {
      if (error instanceof ExpressionFault) return null
      throw error
    }
  }
  /** c where the term is n + c; null otherwise. */
  const fromEnd = (term: Term): number | null => {
    if (term.is === 'name' && term.name === 'n') return 0
    if (term.is !== '+' && term.is !== '-') return null
    const left = fromEnd(term.left)
    const right = fixed(term.right)
    if (left !== null && right !== null) return term.is === '+' ? left + right : left - right
    return null
  }
  const isCount = (term: Term): boolean => term.is === 'name' && (term.name === 'm' || term.name === 'n')
  const reads = (term: Term): boolean =>
    isCount(term) ||
    (term.is === 'minus' ? reads(term.of) : 'left' in term ? reads(term.left) || reads(term.right) : false)
  /** c where the term is m + c. */
  const fromMotif = (term: Term): number | null => {
    if (term.is === 'name' && term.name === 'm') return 0
    if (term.is !== '+' && term.is !== '-') return null
    const left = fromMotif(term.left)
    const right = fixed(term.right)
    return left !== null && right !== null ? (term.is === '+' ? left + right : left - right) : null
  }
  /** Whether all that the term reads of m and n is understood; notes how. */
  const understood = (term: Term): boolean => {
    if (!reads(term)) return true
    if (term.is === 'name') return false
    if (term.is === 'minus') return understood(term.of)
    if (term.is === 'number') return true
    if (term.is === '%') {
      const by = fixed(term.right)
      const isShifted = fromMotif(term.left) !== null || fromEnd(term.left) !== null
      if (by === null || by === 0 || !isShifted) return understood(term.left) && understood(term.right)
      period = lcm(period, Math.abs(by))
      return period <= MOST_PERIOD
    }
    if (term.is === '<' || term.is === '>' || term.is === '=') {
      for (const [one, other] of [
        [term.left, term.right],
        [term.right, term.left],
      ] as const) {
        const motif = fromMotif(one)
        if (motif === null) {
          // n against a number: more motifs than that are all the same to it.
          const end = fromEnd(one)
          const bound = fixed(other)
          if (end === null || bound === null) continue
          head = Math.max(head, Math.abs(bound - end) + 2)
          return head <= MOST_EDGE
        }
        const bound = fixed(other)
        if (bound !== null) {
          head = Math.max(head, bound - motif + 2)
          return head <= MOST_EDGE
        }
        const end = fromEnd(other)
        if (end !== null) {
          tail = Math.max(tail, Math.abs(end - motif) + 2)
          return tail <= MOST_EDGE
        }
      }
      return understood(term.left) && understood(term.right)
    }
    return understood(term.left) && understood(term.right)
  }
  const exprs: Expr[] = []
  for (const section of RECIPE_SECTIONS) gather(recipe[section], exprs)
  try {
    if (!exprs.every((expr) => understood(termOf(expr)))) return null
  } catch (error) {
    if (error instanceof ExpressionFault) return null
    throw error
  }
  // Motifs in the middle of a long chain: none of them may go back to where it begins.
  const from = settledFrom(head, period)
  const all = new Map([...env, ['n', from + period + tail + SETTLE]])
  for (let m = from; m < from + period; m++) if (leadsBack(recipe.motif, new Map([...all, ['m', m]]))) return null
  return { head, period, tail }
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))
const lcm = (a: number, b: number): number => (a / gcd(a, b)) * b

/** Whether steps may name beads of the start or of the first motif, with what is known of the values they read. */
const leadsBack = (steps: readonly Step[], env: Env): boolean =>
  steps.some((step) => {
    if (step.do === 'pass') return step.refs.some(({ of }) => of === 'start' || of === 'first')
    return 'steps' in step && mayBeDone(step, env) && leadsBack(step.steps, env)
  })

/** Whether a condition may hold: that of a loop, which reads its counter, is not told here. */
function mayBeDone(step: Step, env: Env): boolean {
  if (step.do !== 'when') return true
  try {
    return evaluate(step.if, env) !== 0
  } catch (error) {
    if (error instanceof ExpressionFault) return true
    throw error
  }
}

/** All expressions of a list of steps. */
function gather(steps: readonly Step[], out: Expr[]): void {
  for (const step of steps)
    switch (step.do) {
      case 'pick':
        for (const item of step.items) out.push(item.count)
        break
      case 'pass':
        for (const { at, to } of step.refs) out.push(at, ...(to === undefined ? [] : [to]))
        break
      case 'fix':
        out.push(step.hole ?? 0, step.times ?? 1)
        break
      case 'wrap':
        out.push(typeof step.turns === 'number' ? 0 : step.turns)
        break
      case 'each':
        out.push(step.times)
        gather(step.steps, out)
        break
      case 'when':
        out.push(step.if)
        gather(step.steps, out)
    }
}

/** Motifs that stand between the first and the last ones and are told from both: their neighbours are alike. */
const SETTLE = 2

/**
 * The first motif that stands for others: before it lies a whole period and a neighbour, so that each carrier that
 * comes at all has been there, and comes from a place like those that it comes from later.
 */
const settledFrom = (head: number, period: number): number => head + period + SETTLE - 1

/**
 * How a recipe of n motifs is told by a short run: run `shown` motifs, and the `period` from `from` on stand for
 * `times` more of each. Without more than it shows, `times` is 0.
 */
export interface Short {
  readonly shown: number
  readonly from: number
  readonly period: number
  readonly times: number
}

/** The short run that tells a recipe of n motifs exactly. */
export function shortOf(recipe: Recipe, params: Params, n: number): Short {
  const alike = alikeIn(recipe, params)
  if (!alike) return { shown: n, from: 0, period: 1, times: 0 }
  const { head, period, tail } = alike
  const from = settledFrom(head, period)
  const least = from + 2 * period + tail + SETTLE
  const times = n <= least ? 0 : Math.floor((n - least) / period)
  return { shown: n - times * period, from, period, times }
}

/**
 * Sums of a recipe of n motifs, exactly, without running more than a few: motifs that are alike are multiplied.
 * `bridge` must depend on how the holes lie to each other only, so that like motifs have like bridges, and be the
 * same for any number of motifs where it is far. With the short
 * run that they come from.
 */
export function recipeTotals(
  work: RecipeWork,
  n: number,
  bridge: BridgeMm,
): { readonly totals: Totals; readonly most: Passes; readonly run: Run; readonly short: Short } {
  const short = shortOf(work.recipe, work.params, n)
  const { shown, from, period, times } = short
  const run = runRecipe(work, shown)
  if (times > 0 && leaps(run, from, from + period)) {
    const all = runRecipe(work, n)
    const whole: Short = { shown: n, from: 0, period: 1, times: 0 }
    return { totals: totalsOf(all, bridge), most: greatestPasses(all), run: all, short: whole }
  }
  const isMiddle = (m: number): boolean => m >= from && m < from + period
  const shownTotals = totalsOf(run, bridge)
  const totals = times === 0 ? shownTotals : plus(shownTotals, totalsOf(run, bridge, isMiddle), times)
  return { totals, most: greatestPasses(run), run, short }
}

/**
 * Whether a carrier rests while the motifs of a stretch are worked: how far it leaps hangs on their number. Where ends
 * meet it does not.
 */
const leaps = ({ done, nodes }: Run, from: number, until: number): boolean =>
  done.some(({ spans }) =>
    spans.some(
      (s) => s.kind === 'bridge' && !s.far && nodes[s.from.node]!.motif < from && nodes[s.to.node]!.motif >= until,
    ),
  )

/** The greatest number of times that a hole is passed, by slot and hole, and a bead of which it is true. */
export type Passes = ReadonlyMap<string, readonly { readonly passes: number; readonly of: Node }[]>

export function greatestPasses(run: Run): Passes {
  const out = new Map<string, { passes: number; of: Node }[]>()
  for (const node of run.nodes) {
    if (node.isFixture) continue
    const most = out.get(node.slot) ?? node.passes.map(() => ({ passes: -1, of: node }))
    node.passes.forEach((passes, hole) => {
      if (passes > most[hole]!.passes) most[hole] = { passes, of: node }
    })
    out.set(node.slot, most)
  }
  return out
}
