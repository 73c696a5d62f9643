import type { BeadSpec } from '../bead/spec'
import { problem, type Problem } from '../problem'
import { evaluate, ExpressionFault, type Env } from './expression'
import { RECIPE_LIMITS, type Expr, type Item, type Recipe, type RecipeSection, type Ref, type Step } from './language'

/** A bead as it was picked up, or a finding that carriers go through. */
export interface Node {
  readonly id: number
  /** Its slot; of a finding the fixture’s name. */
  readonly slot: string
  readonly isFixture: boolean
  /** Name under which it is remembered, and which of that name in its motif, from 0. */
  readonly name: string
  readonly at: number
  /** Motif that picked it up: −1 the start, n the end. */
  readonly motif: number
  /** Which bead of its motif it is, in the order of picking up; −1 for a finding. */
  readonly place: number
  readonly spec: BeadSpec | null
  /** How often each of its holes was passed. */
  readonly passes: number[]
}

/** An end of a hole; `end` 0 is where a bead was first entered. */
export interface Port {
  readonly node: number
  readonly hole: number
  readonly end: 0 | 1
}

/** A hole gone through: 1 the way in which the bead was first strung, −1 against it. */
export interface Going {
  readonly node: number
  readonly hole: number
  readonly way: 1 | -1
}

/** What a carrier runs along in a step: through holes, from hole to hole, and round things. */
export type Span =
  | { readonly kind: 'rod'; readonly mm: number }
  | {
      readonly kind: 'bridge'
      readonly from: Port
      readonly to: Port
      /**
       * Where it leads back over whole motifs, to the start or the first one, or on from there: where the ends of a
       * ring meet no flat picture tells how far that is.
       */
      readonly far?: true
    }
  | { readonly kind: 'extra'; readonly mm: number }

/** One step as it was done. */
export interface Done {
  readonly section: RecipeSection
  readonly motif: number
  /** Where the step stands in the recipe: `motif/2/steps/0`. */
  readonly path: string
  readonly by: string
  readonly act: 'pick' | 'pass' | 'fix' | 'wrap' | 'knot' | 'say'
  readonly goes: readonly Going[]
  readonly fixture?: string | undefined
  /** Turns of a wrap, times of a fixing, length of a knot. */
  readonly amount?: number | undefined
  /** What is said: the text of a `say`, the note of any other. */
  readonly says?: string | undefined
  /** How many nodes there are after it, and where each carrier came out last. */
  readonly nodes: number
  readonly ports: Ports
  readonly spans: readonly Span[]
}

export type Ports = Readonly<Record<string, Port | null>>

/** What a list of steps is carried out with. */
export type RecipeHead = Pick<Recipe, 'slots' | 'carriers' | 'fixtures' | 'cut'> & {
  /** What one of its motifs is called: “rib”; a motif if left out. */
  readonly unit?: string
}

/** Steps that are done one after the other, with the names of their own beads. */
export interface Unit {
  readonly section: RecipeSection
  readonly motif: number
  readonly steps: readonly Step[]
}

export interface Run {
  readonly head: RecipeHead
  readonly nodes: readonly Node[]
  readonly done: readonly Done[]
  readonly faults: readonly Problem[]
}

interface RunWish {
  readonly head: RecipeHead
  readonly units: Iterable<Unit>
  readonly env: Env
  /** The bead that plays a slot. */
  spec(slot: string): BeadSpec
}

const HOLES = { a: 0, b: 1 } as const

const holesOf = (spec: BeadSpec): number => (spec.spacing === undefined ? 1 : 2)

/** Where a bead was looked for, in words. */
const WHERE: Readonly<Record<Ref['of'], string>> = {
  this: 'yet',
  prev: 'in the motif before',
  start: 'in the start',
  first: 'in the first motif',
}

/** Problems that are listed at most; the rest would say the same. */
const MOST_FAULTS = 40

/** Something after which nothing of the unit is done any more. */
class Stop extends Error {}

/** Where a step stands, in words: “step 3.1 of the motif”. */
export function stepPlace(path: string): string {
  const [section, ...rest] = path.split('/')
  const numbers = rest.filter((x) => x !== 'steps').map((x) => Number(x) + 1)
  return `step ${numbers.join('.')} of the ${section}`
}

/**
 * Carries steps out: the one place where they mean something. What cannot be done is a problem at its step, and the
 * rest goes on as well as it can; nothing endless is begun.
 */
export function runSteps({ head, units, env: given, spec: specOf }: RunWish): Run {
  const nodes: Node[] = []
  const done: Done[] = []
  const faults = new Map<string, Problem>()
  const first = head.carriers[0]!.id
  /** Where each carrier came out last. */
  const now: Record<string, Port | null> = {}
  /** Carriers whose last hole is of a motif further back than the one before. */
  const far = new Set<string>()
  const comeAnew = (): void => {
    for (const { id } of head.carriers) now[id] = null
    far.clear()
  }
  comeAnew()
  /** Beads by motif and name. */
  const book = new Map<number, Map<string, number[]>>()
  /** Carriers that went round something since their last hole: they may go straight back. */
  const held = new Set<string>()
  let unit: Unit = { section: 'start', motif: -1, steps: [] }
  let budget = 0
  let picked = 0
  let spent = 0
  let strung = 0

  const fault = (code: string, path: string, says: string): void => {
    const key = `${code} ${path}`
    if (!faults.has(key) && faults.size < MOST_FAULTS)
      faults.set(key, problem(code, path, `${says} (${stepPlace(path)})`))
  }
  const namesOf = (motif: number): Map<string, number[]> => {
    let names = book.get(motif)
    if (!names) book.set(motif, (names = new Map()))
    return names
  }
  const remember = (name: string, id: number): number => {
    const names = namesOf(unit.motif)
    const list = names.get(name)
    if (list) return list.push(id) - 1
    names.set(name, [id])
    return 0
  }
  const spend = (path: string): void => {
    if (++spent > RECIPE_LIMITS.runSteps) {
      fault('too-long', path, `More than ${RECIPE_LIMITS.runSteps} steps in all: make fewer motifs, or two parts.`)
      throw new Stop()
    }
    if (++budget <= RECIPE_LIMITS.steps) return
    fault('too-long', path, `More than ${RECIPE_LIMITS.steps} steps in one ${unit.section}: repeat less often.`)
    throw new Stop()
  }

  function go(by: string, { node, hole, way }: Going, spans: Span[], path: string): void {
    const enter: Port = { node, hole, end: way === 1 ? 0 : 1 }
    const from = now[by]
    const isHeld = held.delete(by)
    const wasFar = far.delete(by)
    const isFar = nodes[node]!.motif < unit.motif - 1
    if (isFar) far.add(by)
    const { spec, passes, name } = nodes[node]!
    if (from) {
      if (!isHeld && from.node === node && from.hole === hole && from.end === enter.end)
        fault(
          'straight-back',
          path,
          `The ${carrierName(head, by)} goes straight back into the hole of ${name} that it has just left, and ` +
            'pulls out again: go through another bead first, or the other way.',
        )
      spans.push({ kind: 'bridge', from, to: enter, ...(isFar === wasFar ? {} : { far: true }) })
    }
    spans.push({ kind: 'rod', mm: spec?.l ?? 0 })
    passes[hole]!++
    now[by] = { node, hole, end: way === 1 ? 1 : 0 }
  }

  function pickUp(items: readonly Item[], by: string, env: Env, path: string, spans: Span[]): Going[] {
    const goes: Going[] = []
    for (const item of items) {
      const count = evaluate(item.count, env)
      const slot = head.slots[item.slot]
      if (!slot) {
        fault('no-slot', path, `There is no bead “${item.slot}”: name one of ${Object.keys(head.slots).join(', ')}.`)
        continue
      }
      const spec = specOf(item.slot)
      const hole = HOLES[item.hole]
      if (hole >= holesOf(spec)) {
        fault('no-hole', path, `A ${slot.name} has one hole only: string it by its first.`)
        continue
      }
      if (picked + count > RECIPE_LIMITS.beads) {
        fault('too-many', path, `More than ${RECIPE_LIMITS.beads} beads in one ${unit.section}: pick up fewer.`)
        throw new Stop()
      }
      if ((strung += count) > RECIPE_LIMITS.runBeads) {
        fault('too-many', path, `More than ${RECIPE_LIMITS.runBeads} beads in all: make fewer motifs, or two parts.`)
        throw new Stop()
      }
      for (let k = 0; k < count; k++) {
        const id = nodes.length
        const name = item.as ?? item.slot
        const at = remember(name, id)
        const passes = Array.from({ length: holesOf(spec) }, () => 0)
        const { motif } = unit
        nodes.push({ id, slot: item.slot, isFixture: false, name, at, motif, place: picked++, spec, passes })
        const going: Going = { node: id, hole, way: 1 }
        go(by, going, spans, path)
        goes.push(going)
      }
    }
    return goes
  }

  /** Ids of the beads that a reference means, in its order. */
  function find(ref: Ref, env: Env, path: string): number[] {
    const motif = { this: unit.motif, prev: unit.motif - 1, start: -1, first: 0 }[ref.of]
    const list = book.get(motif)?.get(ref.bead) ?? []
    const placed = (expr: Expr): number => {
      const value = evaluate(expr, env)
      return value < 0 ? list.length + value : value
    }
    const from = placed(ref.at)
    const to = ref.to === undefined ? from : placed(ref.to)
    const ids: number[] = []
    for (let k = from; from <= to ? k <= to : k >= to; k += from <= to ? 1 : -1) {
      const id = list[k]
      if (id === undefined) {
        fault(
          'not-strung',
          path,
          `There is no ${ref.bead} ${k + 1} ${WHERE[ref.of]}; there ${list.length === 1 ? 'is' : 'are'} ` +
            `${list.length}. Pick it up first, or name another.`,
        )
        return []
      }
      ids.push(id)
    }
    return ids
  }

  function passOn(refs: readonly Ref[], by: string, env: Env, path: string, spans: Span[]): Going[] {
    const goes: Going[] = []
    for (const ref of refs)
      for (const node of find(ref, env, path)) {
        const hole = HOLES[ref.hole]
        if (hole >= nodes[node]!.passes.length) {
          fault('no-hole', path, `“${ref.bead}” has one hole only: go through its first.`)
          continue
        }
        const going: Going = { node, hole, way: ref.way === 'on' ? 1 : -1 }
        go(by, going, spans, path)
        goes.push(going)
      }
    return goes
  }

  /** A finding stands once in each section that goes through it: the clasp of the start is not that of the end. */
  function fixtureNode(fixture: string, holes: number): number {
    const name = `#${fixture}`
    const known = namesOf(unit.motif).get(name)?.[0]
    if (known !== undefined) return known
    const id = nodes.length
    const passes = Array.from({ length: holes }, () => 0)
    const at = remember(name, id)
    nodes.push({ id, slot: fixture, isFixture: true, name, at, motif: unit.motif, place: -1, spec: null, passes })
    return id
  }

  function one(step: Step, env: Env, path: string): void {
    spend(path)
    if (step.do === 'each') {
      const times = evaluate(step.times, env)
      // One scope for all turns: what is reckoned in it is reckoned at once.
      const scope = new Map(env)
      for (let k = 0; k < times; k++) {
        spend(path)
        all(step.steps, scope.set(step.with, k), `${path}/steps`)
      }
      return
    }
    if (step.do === 'when') {
      if (evaluate(step.if, env) !== 0) all(step.steps, env, `${path}/steps`)
      return
    }
    const by = ('by' in step && step.by) || first
    if (!head.carriers.some((c) => c.id === by)) {
      fault('no-carrier', path, `Nothing is worked with “${by}”: name ${head.carriers.map((c) => c.id).join(' or ')}.`)
      return
    }
    const spans: Span[] = []
    // Built in one piece: there may be hundreds of thousands of them.
    const keep = (act: Done['act'], goes: readonly Going[], fixture?: string, amount?: number): void => {
      const says = step.do === 'say' ? step.text : step.note
      done.push({
        section: unit.section,
        motif: unit.motif,
        path,
        by,
        act,
        goes,
        fixture,
        amount,
        says: says === '' ? undefined : says,
        nodes: nodes.length,
        ports: { ...now },
        spans,
      })
    }
    switch (step.do) {
      case 'pick': {
        const goes = pickUp(step.items, by, env, path, spans)
        if (goes.length > 0) keep('pick', goes)
        return
      }
      case 'pass': {
        const goes = passOn(step.refs, by, env, path, spans)
        if (goes.length > 0) keep('pass', goes)
        return
      }
      case 'fix':
      case 'wrap': {
        const fixture = head.fixtures[step.fixture]
        if (!fixture) {
          fault('no-fixture', path, `There is nothing called “${step.fixture}” to fix to or to wind round.`)
          return
        }
        const amount = evaluate(step.do === 'fix' ? (step.times ?? 1) : step.turns, env)
        if (amount > RECIPE_LIMITS.turns) {
          fault('too-many-turns', path, `${amount} times round is too often: at most ${RECIPE_LIMITS.turns}.`)
          return
        }
        if (amount <= 0) return
        if (step.do === 'wrap') {
          const a = head.carriers.find((c) => c.id === by)!.mm
          spans.push({ kind: 'extra', mm: amount * Math.PI * (fixture.d + a) })
          held.add(by)
          keep('wrap', [], step.fixture, amount)
          return
        }
        const hole = evaluate(step.hole ?? 0, env)
        if (hole < 0 || hole >= fixture.holes) {
          fault(
            'no-hole',
            path,
            `The ${fixture.name} has ${fixture.holes} holes, numbered from 0; there is no ${hole}.`,
          )
          return
        }
        const going: Going = { node: fixtureNode(step.fixture, fixture.holes), hole, way: 1 }
        const goes = Array.from({ length: amount }, () => going)
        for (const each of goes) go(by, each, spans, path)
        held.add(by)
        keep('fix', goes, step.fixture, amount)
        return
      }
      case 'knot':
        spans.push({ kind: 'extra', mm: step.mm })
        held.add(by)
        keep('knot', [], undefined, step.mm)
        return
      case 'say':
        keep('say', [])
    }
  }

  function all(steps: readonly Step[], env: Env, path: string): void {
    steps.forEach((step, k) => {
      const here = `${path}/${k}`
      try {
        one(step, env, here)
      } catch (error) {
        if (!(error instanceof ExpressionFault)) throw error
        fault('expression', here, error.message)
      }
    })
  }

  for (unit of units) {
    budget = 0
    picked = 0
    // A new length for each motif begins anywhere.
    if (head.cut.each === 'motif' && unit.section === 'motif') comeAnew()
    try {
      all(unit.steps, new Map([...given, ['m', unit.motif]]), unit.section)
    } catch (error) {
      if (!(error instanceof Stop)) throw error
      break
    }
  }
  return { head, nodes, done, faults: [...faults.values(), ...unusedHoles(nodes, head)] }
}

/** What a carrier is called. */
export const carrierName = (head: RecipeHead, by: string): string => head.carriers.find((c) => c.id === by)?.name ?? by

/** Second holes (and first ones) that nothing goes through: one problem for each name. */
function unusedHoles(nodes: readonly Node[], head: RecipeHead): Problem[] {
  const found = new Map<string, Problem>()
  for (const { isFixture, name, slot, at, motif, passes } of nodes) {
    if (isFixture) continue
    const hole = passes.indexOf(0)
    const key = `${name} ${hole}`
    if (hole < 0 || found.has(key)) continue
    const where = motif < 0 ? 'the start' : `motif ${motif + 1}`
    found.set(
      key,
      problem(
        'hole-unused',
        name,
        `The ${hole === 0 ? 'first' : 'second'} hole of ${head.slots[slot]?.name ?? slot} ${at + 1} in ${where} is ` +
          'never used: lead the thread through it, or choose a bead with one hole.',
      ),
    )
  }
  return [...found.values()]
}

/** The sections of a recipe for n motifs. */
export function* unitsOf(recipe: Pick<Recipe, RecipeSection>, n: number): Generator<Unit> {
  yield { section: 'start', motif: -1, steps: recipe.start }
  for (let motif = 0; motif < n; motif++) yield { section: 'motif', motif, steps: recipe.motif }
  yield { section: 'end', motif: n, steps: recipe.end }
}
