import { evaluate, ExpressionFault, namesIn, termOf, type Env } from './expression'
import { RECIPE_SECTIONS, type Expr, type Recipe, type RecipeSection, type Ref, type Step } from './language'

/**
 * Changes of a recipe as they are made with the hands: a step is put in, taken out, moved, repeated; a number becomes
 * a field. A step is named by where it stands, `motif/2/steps/0`, as runs and problems name it; the place behind the
 * last step of a list is its length. Each answers a new recipe and leaves the old one as it was.
 */

/** The list that a step stands in, and its place there. */
interface Spot {
  readonly section: RecipeSection
  /** Places of the steps that it lies in, from outside. */
  readonly inside: readonly number[]
  readonly at: number
}

export function spotOf(path: string): Spot {
  const [section, ...rest] = path.split('/')
  const numbers = rest.filter((part) => part !== 'steps').map(Number)
  return { section: section as RecipeSection, inside: numbers.slice(0, -1), at: numbers.at(-1) ?? 0 }
}

export const pathOf = ({ section, inside, at }: Spot): string =>
  [section, ...inside.flatMap((k) => [k, 'steps']), at].join('/')

/** The same list, so many places on. */
export const movedPath = (path: string, by: number): string => {
  const spot = spotOf(path)
  return pathOf({ ...spot, at: spot.at + by })
}

const stepsOf = (step: Step | undefined): readonly Step[] => (step && 'steps' in step ? step.steps : [])

/** Steps of the list that a path leads into. */
export function listAt(recipe: Pick<Recipe, RecipeSection>, path: string): readonly Step[] {
  const { section, inside } = spotOf(path)
  return inside.reduce<readonly Step[]>((list, k) => stepsOf(list[k]), recipe[section])
}

/** The step at a path; undefined behind the last. */
export const stepAt = (recipe: Pick<Recipe, RecipeSection>, path: string): Step | undefined =>
  listAt(recipe, path)[spotOf(path).at]

/** The recipe with another list of steps where a path leads. */
function relisted(
  recipe: Recipe,
  path: string,
  change: (list: readonly Step[], at: number) => readonly Step[],
): Recipe {
  const { section, inside, at } = spotOf(path)
  const deep = (list: readonly Step[], [k, ...rest]: readonly number[]): Step[] =>
    k === undefined
      ? [...change(list, at)]
      : list.map((step, i) => (i === k && 'steps' in step ? { ...step, steps: deep(step.steps, rest) } : step))
  return { ...recipe, [section]: emptied(deep(recipe[section], inside)) }
}

/** Steps without those that hold none any more: what is repeated or asked for must hold something. */
const emptied = (steps: readonly Step[]): Step[] =>
  steps.flatMap((step): Step[] => {
    if (!('steps' in step)) return [step]
    const inside = emptied(step.steps)
    return inside.length === 0 ? [] : [{ ...step, steps: inside }]
  })

/** Puts the steps of a repeat or a condition in its place. */
export const takenApart = (recipe: Recipe, path: string): Recipe => {
  const step = stepAt(recipe, path)
  if (!step || !('steps' in step)) return recipe
  const counter = step.do === 'each' ? step.with : null
  const alone: Recipe = { ...recipe, start: [], motif: [...step.steps], end: [] }
  // Once only is the first turn: what counts with it counts from 0.
  const { motif } = counter === null ? alone : withoutField(alone, counter, 0)
  return relisted(recipe, path, (list, at) => list.toSpliced(at, 1, ...motif))
}

/** Puts a step before the one at the path. */
export const inserted = (recipe: Recipe, path: string, step: Step): Recipe =>
  relisted(recipe, path, (list, at) => list.toSpliced(at, 0, step))

export const removed = (recipe: Recipe, path: string): Recipe =>
  relisted(recipe, path, (list, at) => list.toSpliced(at, 1))

export const replaced = (recipe: Recipe, path: string, step: Step): Recipe =>
  relisted(recipe, path, (list, at) => list.with(at, step))

/** Exchanges a step with the one before (−1) or behind it (1); as it was where there is none. */
export const swapped = (recipe: Recipe, path: string, by: 1 | -1): Recipe =>
  relisted(recipe, path, (list, at) => {
    const [one, other] = [list[at], list[at + by]]
    return one && other ? list.with(at, other).with(at + by, one) : list
  })

// ---- counts

/** An expression plus a number: what is added to a field stays readable. */
export function plus(expr: Expr, by: number): Expr {
  if (by === 0) return expr
  if (typeof expr === 'number') return expr + by
  const [, stem = expr, tail = '0'] = /^([a-zA-Z0-9*]+)([+-]\d+)$/.exec(expr) ?? []
  const sum = Number(tail) + by
  const own = /^[a-zA-Z0-9*]+$/.test(stem) ? stem : `(${stem})`
  return sum === 0 ? stem : `${own}${sum < 0 ? '-' : '+'}${Math.abs(sum)}`
}

/** Beads that steps pick up, by the name under which they are remembered, as far as counts are known. */
export function pickedIn(steps: readonly Step[], env: Env, out = new Map<string, number>()): Map<string, number> {
  for (const step of steps)
    if (step.do === 'pick')
      for (const item of step.items) {
        const name = item.as ?? item.slot
        out.set(name, (out.get(name) ?? 0) + evaluate(item.count, env))
      }
    else if (step.do === 'each') {
      const times = evaluate(step.times, env)
      const scope = new Map(env)
      for (let k = 0; k < times; k++) pickedIn(step.steps, scope.set(step.with, k), out)
    } else if (step.do === 'when' && evaluate(step.if, env) !== 0) pickedIn(step.steps, env, out)
  return out
}

/** Counters of loops, in the order in which they are taken. */
const COUNTERS = ['i', 'j', 'k', 'h']

/** Names that a recipe counts with already. */
function takenNames(recipe: Recipe): Set<string> {
  const names = new Set(['m', 'n', ...recipe.params.map(({ id }) => id)])
  const gather = (steps: readonly Step[]): void => {
    for (const step of steps)
      if (step.do === 'each') {
        names.add(step.with)
        gather(step.steps)
      } else if (step.do === 'when') gather(step.steps)
  }
  for (const section of RECIPE_SECTIONS) gather(recipe[section])
  return names
}

/** A reference so many times a counter further on; one that counts from the last stays there. */
function ahead(ref: Ref, counter: string, by: number): Ref {
  if (by === 0) return ref
  const on = (expr: Expr): Expr => {
    if (typeof expr === 'number' && expr < 0) return expr
    const much = Math.abs(by) === 1 ? counter : `${Math.abs(by)}*${counter}`
    if (by < 0) return `${typeof expr === 'number' || /^[a-zA-Z0-9*+]+$/.test(expr) ? expr : `(${expr})`}-${much}`
    return expr === 0 ? much : typeof expr === 'number' ? plus(much, expr) : `${expr}+${much}`
  }
  return { ...ref, at: on(ref.at), ...(ref.to === undefined ? {} : { to: on(ref.to) }) }
}

interface Repeat {
  /** Steps that are repeated, from the one at the path on. */
  readonly count: number
  readonly times: number
  /** How many beads further each time, where beads are passed that were there before; 0 the same ones again. */
  readonly further: number
}

/**
 * Repeats steps: beads that they pick up themselves are passed in the turn that picked them up; beads that were there
 * before are passed so many further each time.
 */
export function repeated(recipe: Recipe, path: string, { count, times, further }: Repeat, env: Env): Recipe {
  const taken = takenNames(recipe)
  const counter = COUNTERS.find((name) => !taken.has(name)) ?? 'turn'
  const { section } = spotOf(path)
  return relisted(recipe, path, (list, at) => {
    const own = list.slice(at, at + count)
    if (own.length === 0) return list
    const each = pickedIn(own, env)
    const ofTurn = ({ of, bead, at: k }: Ref): boolean =>
      of === 'this' &&
      each.has(bead) &&
      (typeof k !== 'number' || k < 0 || k >= pickedBefore(recipe[section], path, 0, bead, env))
    const steps = own.map((step): Step =>
      step.do === 'pass'
        ? {
            ...step,
            refs: step.refs.map((ref) => ahead(ref, counter, ofTurn(ref) ? each.get(ref.bead)! : further)),
          }
        : step,
    )
    return list.toSpliced(at, own.length, { do: 'each', with: counter, times, steps })
  })
}

/** Where steps are done in some motifs only, as it is said. */
export const SOME_MOTIFS = [
  { if: 'm%2=0', says: 'in every second motif, from the first' },
  { if: 'm%2=1', says: 'in every second motif, from the second' },
  { if: 'm%3=0', says: 'in every third motif, from the first' },
  { if: 'm=0', says: 'in the first motif only' },
  { if: 'm>0', says: 'from the second motif on' },
  { if: 'm<n-1', says: 'in all motifs but the last' },
  { if: 'm=n-1', says: 'in the last motif only' },
] as const

/** Does a step in some motifs only. */
export function onlyIn(recipe: Recipe, path: string, condition: (typeof SOME_MOTIFS)[number]['if']): Recipe {
  const step = stepAt(recipe, path)
  return step ? replaced(recipe, path, { do: 'when', if: condition, steps: [step] }) : recipe
}

// ---- fields

export interface NewField {
  readonly id: string
  readonly label: string
  readonly least: number
  readonly most: number
}

/** A name for programs from what people write; one that is not taken. */
export function freeName(label: string, taken: ReadonlySet<string>): string {
  const words = label
    .normalize('NFKD')
    .toLowerCase()
    .match(/[a-z0-9]+/g) ?? ['part']
  const stem =
    words
      .join('')
      .replace(/^[0-9]+/, '')
      .slice(0, 16) || 'part'
  if (!taken.has(stem)) return stem
  for (let n = 2; ; n++) if (!taken.has(`${stem}${n}`)) return `${stem}${n}`
}

/** Names of fields and counters, which a new field must not have. */
export const namesTaken = (recipe: Recipe): ReadonlySet<string> => takenNames(recipe)

/** From where beads of a section are passed, and as whose. */
const SEEN_FROM: Readonly<Record<RecipeSection, readonly (readonly [RecipeSection, Ref['of']])[]>> = {
  start: [
    ['start', 'this'],
    ['motif', 'start'],
    ['end', 'start'],
  ],
  motif: [
    ['motif', 'this'],
    ['motif', 'prev'],
    ['motif', 'first'],
    ['end', 'prev'],
    ['end', 'first'],
  ],
  end: [['end', 'this']],
}

/** The recipe with other references to beads that a section picks up. */
export function passedAnew(recipe: Recipe, section: RecipeSection, change: (ref: Ref) => readonly Ref[]): Recipe {
  return SEEN_FROM[section].reduce<Recipe>((now, [seen, of]) => {
    const follow = (steps: readonly Step[]): Step[] =>
      steps.map((one): Step => {
        if ('steps' in one) return { ...one, steps: follow(one.steps) }
        if (one.do !== 'pass') return one
        return { ...one, refs: one.refs.flatMap((ref) => (ref.of === of ? change(ref) : [ref])) }
      })
    return { ...now, [seen]: follow(now[seen]) }
  }, recipe)
}

/**
 * Moves references to beads of a name on by so many for each that a field is more than its value now, from the bead at
 * `first` on.
 */
function movedOn(
  recipe: Recipe,
  section: RecipeSection,
  wish: { name: string; first: number; field: string; value: number; per: number },
  env: Env,
): Recipe {
  const { name, first, field, value, per } = wish
  const much = per === 1 ? field : `${per}*${field}`
  const on = (expr: Expr): Expr => {
    if (typeof expr === 'number') return expr < first ? expr : plus(much, expr - per * value)
    try {
      return evaluate(expr, env) < first ? expr : plus(`${expr}+${much}`, -per * value)
    } catch (error) {
      // What counts with a loop is told by the loop.
      if (error instanceof ExpressionFault) return expr
      throw error
    }
  }
  return passedAnew(recipe, section, (ref) =>
    ref.bead === name ? [{ ...ref, at: on(ref.at), ...(ref.to === undefined ? {} : { to: on(ref.to) }) }] : [ref],
  )
}

/** The recipe with a field, unless it has it; and its value now. */
function withField(recipe: Recipe, field: NewField, usual: number, env: Env): [Recipe, number] {
  const known = recipe.params.find(({ id }) => id === field.id)
  if (known) return [recipe, env.get(known.id) ?? known.usual]
  const bounded = Math.max(field.least, Math.min(field.most, usual))
  return [{ ...recipe, params: [...recipe.params, { ...field, usual: bounded }] }, bounded]
}

/**
 * Makes a field of the count of the k-th item of a pick. What was meant stays meant: the last of these beads is the
 * last however many there are, and those that are picked up later under the same name move on.
 */
export function countAsField(recipe: Recipe, path: string, k: number, field: NewField, env: Env): Recipe {
  const step = stepAt(recipe, path)
  const item = step?.do === 'pick' ? step.items[k] : undefined
  if (step?.do !== 'pick' || !item) return recipe
  const usual = evaluate(item.count, env)
  const [known, value] = withField(recipe, field, usual, env)
  const { section } = spotOf(path)
  const name = item.as ?? item.slot
  const before = pickedBefore(recipe[section], path, k, name, env)
  // One bead alone is the first rather than the last.
  const first = before + Math.max(usual - 1, 1)
  const moved = movedOn(known, section, { name, first, field: field.id, value, per: 1 }, env)
  const count = plus(field.id, usual - value)
  return replaced(moved, path, { ...step, items: step.items.with(k, { ...item, count }) })
}

/** Makes a field of how often steps are repeated; what is picked up behind them moves on. */
export function timesAsField(recipe: Recipe, path: string, field: NewField, env: Env): Recipe {
  const step = stepAt(recipe, path)
  if (step?.do !== 'each') return recipe
  const usual = evaluate(step.times, env)
  const [known, value] = withField(recipe, field, usual, env)
  const { section } = spotOf(path)
  const each = pickedIn(step.steps, new Map([...env, [step.with, 0]]))
  const moved = [...each].reduce<Recipe>((now, [name, per]) => {
    const first = pickedBefore(recipe[section], path, 0, name, env) + per * Math.max(usual - 1, 1)
    return movedOn(now, section, { name, first, field: field.id, value, per }, env)
  }, known)
  const inside = stepAt(moved, path)
  return inside?.do === 'each' ? replaced(moved, path, { ...inside, times: plus(field.id, usual - value) }) : moved
}

/** Beads of a name that a section picks up before the k-th item of the step at a path. */
function pickedBefore(steps: readonly Step[], path: string, k: number, name: string, env: Env): number {
  const { inside, at } = spotOf(path)
  const [top = at] = inside
  let count = pickedIn(steps.slice(0, top), env).get(name) ?? 0
  let list = steps
  for (const [depth, place] of [...inside, at].entries()) {
    if (depth > 0) count += pickedIn(list.slice(0, place), env).get(name) ?? 0
    const step = list[place]
    if (depth < inside.length) list = stepsOf(step)
    else if (step?.do === 'pick')
      for (const item of step.items.slice(0, k))
        if ((item.as ?? item.slot) === name) count += evaluate(item.count, env)
  }
  return count
}

/** The recipe with other expressions. */
function reckonedAnew(recipe: Recipe, change: (expr: Expr) => Expr): Recipe {
  const may = <E extends Expr | undefined>(expr: E): E => (expr === undefined ? expr : (change(expr) as E))
  const follow = (steps: readonly Step[]): Step[] =>
    steps.map((step): Step => {
      switch (step.do) {
        case 'pick':
          return { ...step, items: step.items.map((item) => ({ ...item, count: change(item.count) })) }
        case 'pass':
          return {
            ...step,
            refs: step.refs.map((ref) => ({
              ...ref,
              at: change(ref.at),
              ...(ref.to === undefined ? {} : { to: change(ref.to) }),
            })),
          }
        case 'fix':
          return {
            ...step,
            ...(step.hole === undefined ? {} : { hole: may(step.hole) }),
            ...(step.times === undefined ? {} : { times: may(step.times) }),
          }
        case 'wrap':
          return { ...step, turns: change(step.turns) }
        case 'each':
          return { ...step, times: change(step.times), steps: follow(step.steps) }
        case 'when':
          return { ...step, if: change(step.if), steps: follow(step.steps) }
        default:
          return step
      }
    })
  return { ...recipe, start: follow(recipe.start), motif: follow(recipe.motif), end: follow(recipe.end) }
}

/** A field becomes a plain number again, as it is now. */
export function withoutField(recipe: Recipe, id: string, value: number): Recipe {
  const own = new RegExp(`\\b${id}\\b`, 'g')
  const number = value < 0 ? `(0${value})` : String(value)
  const next = reckonedAnew(recipe, (expr) => {
    if (typeof expr === 'number' || !own.test(expr)) return expr
    const text = expr.replaceAll(own, number)
    try {
      return namesIn(termOf(text)).size === 0 ? evaluate(text, new Map()) : text
    } catch (error) {
      // What divides by it, say, stays a sum that the run can speak of.
      if (error instanceof ExpressionFault) return text
      throw error
    }
  })
  return { ...next, params: next.params.filter((param) => param.id !== id) }
}

// ---- what plays a part

/** Adds a bead that plays a part, under a name that is free; answers the recipe and that name. */
export function withSlot(recipe: Recipe, own: { name: string; many: string; spec: string }): [Recipe, string] {
  const key = freeName(own.name, new Set(Object.keys(recipe.slots)))
  return [{ ...recipe, slots: { ...recipe.slots, [key]: own } }, key]
}

/** Adds a finding. */
export function withFixture(recipe: Recipe, own: { name: string; d: number }): [Recipe, string] {
  const key = freeName(own.name, new Set(Object.keys(recipe.fixtures)))
  return [{ ...recipe, fixtures: { ...recipe.fixtures, [key]: { ...own, holes: 1, pitch: 0 } } }, key]
}

/** What a recipe can be worked with: one carrier, or two ends of one length. */
export const CARRIER_WAYS = ['thread', 'needles', 'wire'] as const
export type CarrierWay = (typeof CARRIER_WAYS)[number]

const CARRIERS: Readonly<Record<CarrierWay, Pick<Recipe, 'carriers'> & { readonly folded: boolean }>> = {
  thread: { carriers: [{ id: 'thread', name: 'thread', kind: 'thread', mm: 0.15 }], folded: false },
  needles: {
    carriers: [
      { id: 'left', name: 'left needle', kind: 'thread', mm: 0.15 },
      { id: 'right', name: 'right needle', kind: 'thread', mm: 0.15 },
    ],
    folded: true,
  },
  wire: {
    carriers: [
      { id: 'left', name: 'left end', kind: 'wire', mm: 0.3 },
      { id: 'right', name: 'right end', kind: 'wire', mm: 0.3 },
    ],
    folded: true,
  },
}

export const carrierWay = ({ carriers }: Pick<Recipe, 'carriers'>): CarrierWay =>
  carriers.length === 1 ? 'thread' : carriers[0]!.kind === 'wire' ? 'wire' : 'needles'

/** A recipe worked with something else; steps of a carrier that is no longer there are of the first. */
export function carriedBy(recipe: Recipe, way: CarrierWay): Recipe {
  const { carriers, folded } = CARRIERS[way]
  const ids = new Set(carriers.map(({ id }) => id))
  const follow = (steps: readonly Step[]): Step[] =>
    steps.map((step): Step => {
      if ('steps' in step) return { ...step, steps: follow(step.steps) }
      if (step.do === 'say' || step.by === undefined || ids.has(step.by)) return step
      const { by: _, ...rest } = step
      return rest
    })
  return {
    ...{ ...recipe, carriers, cut: { ...recipe.cut, folded } },
    ...{ start: follow(recipe.start), motif: follow(recipe.motif), end: follow(recipe.end) },
  }
}

/** What plays a part, and findings, without those that no step uses any more. */
export function tidied(recipe: Recipe): Recipe {
  const slots = new Set<string>()
  const fixtures = new Set<string>()
  const gather = (steps: readonly Step[]): void => {
    for (const step of steps)
      if (step.do === 'pick') for (const { slot } of step.items) slots.add(slot)
      else if ('fixture' in step) fixtures.add(step.fixture)
      else if ('steps' in step) gather(step.steps)
  }
  for (const section of RECIPE_SECTIONS) gather(recipe[section])
  const kept = <T>(of: Readonly<Record<string, T>>, used: ReadonlySet<string>): Record<string, T> =>
    Object.fromEntries(Object.entries(of).filter(([key]) => used.has(key)))
  return { ...recipe, slots: kept(recipe.slots, slots), fixtures: kept(recipe.fixtures, fixtures) }
}

/** A recipe of one thread that does nothing yet, with one bead to begin with. */
export const emptyRecipe = (name: string, slot: { name: string; many: string; spec: string }): Recipe => ({
  id: 'own',
  name,
  params: [],
  slots: { [freeName(slot.name, new Set())]: slot },
  carriers: CARRIERS.thread.carriers,
  cut: { folded: false, each: 'piece' },
  fixtures: {},
  repeat: 'along',
  hangs: [],
  lies: {},
  start: [],
  motif: [],
  end: [],
})
