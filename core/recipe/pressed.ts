import { bad, good, problem, type Result } from '../problem'
import type { Env } from './expression'
import { passedAnew, pickedIn, replaced, spotOf, freeName } from './edit'
import type { Item, Recipe, RecipeSection, Ref, Step } from './language'
import type { Done, Going, Node } from './run'

/** Holes as they are pressed, told as references. */

const HOLES = ['a', 'b'] as const

/** References of one bead each, those that follow each other along a name put together as runs. */
export function joinedRefs(refs: readonly Ref[]): Ref[] {
  const out: Ref[] = []
  for (const ref of refs) {
    const last = out.at(-1)
    const to = last?.to ?? last?.at
    if (
      last &&
      typeof ref.at === 'number' &&
      ref.to === undefined &&
      typeof last.at === 'number' &&
      typeof to === 'number' &&
      last.at >= 0 &&
      ref.at >= 0 &&
      (['bead', 'of', 'hole', 'way'] as const).every((key) => last[key] === ref[key]) &&
      Math.abs(ref.at - to) === 1 &&
      (last.to === undefined || Math.sign(to - last.at) === ref.at - to)
    )
      out[out.length - 1] = { ...last, to: ref.at }
    else out.push(ref)
  }
  return out
}

/**
 * References that lead through holes one after the other, for a step of a motif (−1 the start, the count of motifs the
 * end). A problem where a bead is neither of the motif, nor of the one before, nor of the start; nor, for the last
 * motif or the end, of the first one, where a ring closes.
 */
export function refsThrough(
  goes: readonly Going[],
  nodes: readonly Node[],
  motif: number,
  motifs = Infinity,
): Result<Ref[]> {
  const out: Ref[] = []
  for (const { node, hole, way } of goes) {
    const { name, at, motif: own, isFixture } = nodes[node]!
    const of = whose(own, motif, motifs)
    if (isFixture) return bad(problem('finding', 'pass', 'That is a finding: choose “Through a finding” for it.'))
    if (of === null)
      return bad(
        problem(
          'too-far',
          'pass',
          'That bead lies further off than the motif before: press one of this motif, of the one before, or of ' +
            'the start. Only the last motif and the end may go on through the first motif, where a ring closes.',
        ),
      )
    out.push({ bead: name, of, at, hole: HOLES[hole]!, way: way === 1 ? 'on' : 'back' })
  }
  return good(joinedRefs(out))
}

function whose(own: number, motif: number, motifs: number): Ref['of'] | null {
  if (own === motif) return 'this'
  if (own === motif - 1) return 'prev'
  if (own === -1) return 'start'
  return own === 0 && motif >= motifs - 1 ? 'first' : null
}

/** Which reference of a pass each of its holes comes from: runs are as long as what they mean. */
export function refOfGoing(step: Step & { readonly do: 'pass' }, { goes }: Done, nodes: readonly Node[]): number[] {
  const out: number[] = []
  let at = 0
  step.refs.forEach((ref, k) => {
    const isOfRef = ({ node, hole, way }: Going): boolean =>
      nodes[node]!.name === ref.bead && HOLES[hole] === ref.hole && (way === 1) === (ref.way === 'on')
    const placeOf = (g: number): number => nodes[goes[g]!.node]!.at
    for (let n = 0; at < goes.length && isOfRef(goes[at]!); n++, at++) {
      // One bead, or a run that goes on from bead to bead.
      if (n > 0 && (ref.to === undefined || Math.abs(placeOf(at) - placeOf(at - 1)) !== 1)) break
      out.push(k)
    }
  })
  return out
}

/** A pass that enters its k-th hole at the other end; the step as it was where that cannot be told. */
export function turnedRound(
  step: Step & { readonly do: 'pass' },
  done: Done,
  nodes: readonly Node[],
  k: number,
): Step & { readonly do: 'pass' } {
  const which = refOfGoing(step, done, nodes)[k]
  const ref = which === undefined ? undefined : step.refs[which]
  if (which === undefined || !ref) return step
  const round: Ref = { ...ref, way: ref.way === 'on' ? 'back' : 'on' }
  if (ref.to === undefined) return { ...step, refs: step.refs.with(which, round) }
  // One of a run: the run is told bead by bead.
  const own = refOfGoing(step, done, nodes).flatMap((r, g) => (r === which ? [g] : []))
  const refs = own.map((g): Ref => {
    const { node, hole, way } = done.goes[g]!
    const isTurned = g === k
    return {
      bead: ref.bead,
      of: ref.of,
      at: nodes[node]!.at,
      hole: HOLES[hole]!,
      way: (way === 1) === isTurned ? 'back' : 'on',
    }
  })
  return { ...step, refs: step.refs.toSpliced(which, 1, ...joinedRefs(refs)) }
}

/** A bead of a section by its name. */
export interface Named {
  readonly name: string
  readonly at: number
}

/** What is said where beads are counted by fields already. */
const COUNTED = problem(
  'counted',
  'motif',
  'These beads are counted by a field or in a repeat: say which bead is shared before numbers become fields.',
)

/** Where a bead is picked up: its step, the item and which of the item it is; null in a repeat. */
function pickOf(steps: readonly Step[], section: RecipeSection, { name, at }: Named) {
  let left = at
  for (const [k, step] of steps.entries()) {
    if ('steps' in step) return null
    if (step.do !== 'pick') continue
    for (const [i, item] of step.items.entries()) {
      if ((item.as ?? item.slot) !== name) continue
      if (typeof item.count !== 'number') return null
      if (left < item.count) return { path: `${section}/${k}`, step, item, i, k: left }
      left -= item.count
    }
  }
  return null
}

/** Items of a pick with its k-th bead of one item by itself. */
function apart(
  items: readonly Item[],
  i: number,
  k: number,
  middle: readonly Item[],
): [before: Item[], after: Item[]] {
  const item = items[i]!
  const count = item.count as number
  return [
    [...items.slice(0, i), ...(k > 0 ? [{ ...item, count: k }] : []), ...middle],
    [...(k < count - 1 ? [{ ...item, count: count - 1 - k }] : []), ...items.slice(i + 1)],
  ]
}

/** A bead under another name, or as another reference altogether: those behind it of its name move up. */
function readdressed(recipe: Recipe, { name, at }: Named, all: number, to: (ref: Ref) => Ref): Recipe | null {
  let isSound = true
  const next = passedAnew(recipe, 'motif', (ref) => {
    if (ref.bead !== name) return [ref]
    const absolute = (expr: Ref['at']): number | null =>
      typeof expr === 'number' ? (expr < 0 ? all + expr : expr) : null
    const [from, until] = [absolute(ref.at), absolute(ref.to ?? ref.at)]
    if (from === null || until === null) {
      isSound = false
      return [ref]
    }
    const { to: _, ...one } = ref
    const step = from <= until ? 1 : -1
    return joinedRefs(
      Array.from({ length: Math.abs(until - from) + 1 }, (_unused, n): Ref => {
        const k = from + n * step
        return k === at ? to({ ...one, at: 0 }) : { ...one, at: k > at ? k - 1 : k }
      }),
    )
  })
  return isSound ? next : null
}

/**
 * Two beads are one: what a motif picks up as `one` is the bead that the motif before picked up as `other`. The shared
 * bead gets a name of its own, is passed where it was picked up, and the start picks up the first of them.
 */
export function sharedWithBefore(recipe: Recipe, one: Named, other: Named, env: Env): Result<Recipe> {
  if (one.name === other.name && one.at === other.at)
    return bad(problem('same', 'motif', 'Press two beads: the one of this motif, then the one of the motif before.'))
  const counts = pickedIn(recipe.motif, env)
  const there = pickOf(recipe.motif, 'motif', other)
  if (!there) return bad(COUNTED)
  // The shared bead under a name of its own.
  const alone = (counts.get(other.name) ?? 0) === 1
  const name = alone ? other.name : freeName('shared', new Set([...counts.keys(), ...Object.keys(recipe.slots)]))
  let next: Recipe | null = recipe
  if (!alone) {
    const [before, after] = apart(there.step.items, there.i, there.k, [{ ...there.item, as: name, count: 1 }])
    next = readdressed(
      replaced(recipe, there.path, { ...there.step, items: [...before, ...after] }),
      other,
      counts.get(other.name)!,
      (ref) => ({ ...ref, bead: name }),
    )
  }
  if (!next) return bad(COUNTED)
  // What was picked up a second time is passed instead.
  const at = one.name === other.name && one.at > other.at && !alone ? one.at - 1 : one.at
  const here = pickOf(next.motif, 'motif', { name: one.name, at })
  if (!here) return bad(COUNTED)
  const all = pickedIn(next.motif, env).get(one.name)!
  const [before, after] = apart(here.step.items, here.i, here.k, [])
  const shared: Ref = { bead: name, of: 'prev', at: 0, hole: here.item.hole, way: 'on' }
  const steps: Step[] = [
    ...(before.length > 0 ? [{ ...here.step, items: before }] : []),
    { do: 'pass', refs: [shared], ...(here.step.by === undefined ? {} : { by: here.step.by }) },
    ...(after.length > 0 ? [{ ...here.step, items: after }] : []),
  ]
  const passed: Recipe = { ...next, motif: next.motif.toSpliced(spotOf(here.path).at, 1, ...steps) }
  const ahead = passed.motif.some(
    (step) => step.do === 'pass' && step.refs.some((ref) => ref.of === 'prev' && ref.bead === one.name),
  )
  if (ahead)
    return bad(problem('too-far', 'motif', 'The next motif passes that bead already: it cannot be shared twice.'))
  const done = readdressed(passed, { name: one.name, at }, all, (ref) => ({
    ...ref,
    ...shared,
    hole: ref.hole,
    way: ref.way,
  }))
  if (!done) return bad(COUNTED)
  const isBegun = (pickedIn(done.start, env).get(name) ?? 0) > 0
  const { slot, hole } = there.item
  const begun: Step = { do: 'pick', items: [{ slot, ...(name === slot ? {} : { as: name }), hole, count: 1 }] }
  return good(isBegun ? done : { ...done, start: [...done.start, begun] })
}
