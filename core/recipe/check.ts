import { z } from 'zod'
import { bad, good, problem, type Problem, type Result } from '../problem'
import { ExpressionFault, namesIn, termOf } from './expression'
import {
  RECIPE_LIMITS,
  RECIPE_SECTIONS,
  recipeSchema,
  type Expr,
  type Item,
  type Recipe,
  type Ref,
  type Step,
} from './language'
import { stepPlace } from './run'

/** JSON of a sound recipe is never nested deeper: sections, steps within steps, items. */
const DEEPEST = 2 * RECIPE_LIMITS.nesting + 8

/**
 * Why a value is too large or too deep to be looked at further; null if it is not. Stops as soon as that is known,
 * however much is behind it.
 */
function oversize(value: unknown): Problem | null {
  let left: number = RECIPE_LIMITS.text
  const waiting: { readonly value: unknown; readonly depth: number }[] = [{ value, depth: 0 }]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next.depth > DEEPEST)
      return problem('too-deep', 'recipe', `Steps lie in steps at most ${RECIPE_LIMITS.nesting} deep: take some out.`)
    const { value: one, depth } = next
    left -= 2
    if (typeof one === 'string') left -= one.length
    else if (typeof one === 'object' && one !== null) {
      const list = Array.isArray(one)
      // Every entry takes two characters at least, so that many of them need not be listed to be refused.
      if (list && 2 * one.length > left) left = -1
      else
        for (const [key, value] of Object.entries(one)) {
          left -= list ? 1 : key.length + 3
          waiting.push({ value, depth: depth + 1 })
        }
    }
    if (left < 0)
      return problem(
        'too-large',
        'recipe',
        `A recipe takes at most ${RECIPE_LIMITS.text / 1024} kB: say less, or make two of it.`,
      )
  }
  return null
}

/** What Zod found, at its place, in a sentence. */
const shapeProblems = (error: z.ZodError): Problem[] =>
  error.issues.slice(0, 12).map((issue) => {
    const at = issue.path.join('/') || 'recipe'
    return problem(`shape-${issue.code}`, at, `${at}: ${issue.message}.`)
  })

/** Reads a recipe that comes from outside: its size, its shape, and that every name in it is the name of something. */
export function readRecipe(value: unknown): Result<Recipe> {
  const large = oversize(value)
  if (large) return bad(large)
  const read = recipeSchema.safeParse(value)
  if (!read.success) return bad(...shapeProblems(read.error))
  const problems = checkNames(read.data)
  return problems.length > 0 ? bad(...problems) : good(read.data)
}

/** A recipe in a document, as JSON or in short hand; each thing that is wrong with it is an issue of its own. */
export const recipeField = (read: (value: unknown) => Result<Recipe> = readRecipe) =>
  z.unknown().transform((value, context): Recipe => {
    const found = read(value)
    if (found.ok) return found.value
    for (const { says } of found.problems.slice(0, 12))
      context.addIssue({ code: 'custom', message: says.replace(/\.$/, '') })
    return z.NEVER
  })

/** Values of the fields of a recipe. */
export const paramsField = z.record(z.string().max(20), z.int().min(-1000).max(1000))

/** Problems of a recipe in its shape: bounds of its fields, names that are not there, expressions not to be read. */
export function checkNames(recipe: Recipe): Problem[] {
  const out: Problem[] = []
  const add = (code: string, at: string, says: string): void => {
    if (out.length < 20) out.push(problem(code, at, says))
  }
  const slots = new Set(Object.keys(recipe.slots))
  const fixtures = new Set(Object.keys(recipe.fixtures))
  const carriers = new Set(recipe.carriers.map((c) => c.id))
  const params = recipe.params.map((p) => p.id)
  const listed = (names: Iterable<string>): string => [...names].join(', ') || 'none yet'

  if (slots.size > RECIPE_LIMITS.slots)
    add('too-many', 'slots', `At most ${RECIPE_LIMITS.slots} beads can play a part.`)
  if (fixtures.size > RECIPE_LIMITS.fixtures)
    add('too-many', 'fixtures', `At most ${RECIPE_LIMITS.fixtures} findings.`)
  for (const [what, names] of Object.entries({ params, carriers: recipe.carriers.map((c) => c.id) }))
    if (new Set(names).size < names.length) add('twice', what, `Two of the ${what} have one name: give each its own.`)
  for (const { id, least, usual, most } of recipe.params) {
    if (least > usual || usual > most)
      add('bounds', `params/${id}`, `The usual value of “${id}” lies between its least and its most.`)
    if (id === 'm' || id === 'n') add('taken', `params/${id}`, '“m” and “n” count the motifs: choose another name.')
  }

  /** Names under which beads are picked up, anywhere. */
  const beads = new Set<string>()
  const gather = (steps: readonly Step[]): void => {
    for (const step of steps) {
      if (step.do === 'pick') for (const item of step.items) beads.add(item.as ?? item.slot)
      else if ('steps' in step) gather(step.steps)
    }
  }
  for (const section of RECIPE_SECTIONS) gather(recipe[section])

  const checkExpr = (expr: Expr | undefined, scope: ReadonlySet<string>, path: string): void => {
    if (expr === undefined) return
    try {
      for (const name of namesIn(termOf(expr)))
        if (!scope.has(name))
          add('no-name', path, `“${expr}” names “${name}”; there are ${listed(scope)}. (${stepPlace(path)})`)
    } catch (error) {
      if (!(error instanceof ExpressionFault)) throw error
      add('expression', path, `${error.message} (${stepPlace(path)})`)
    }
  }
  const checkItem = ({ slot, count }: Item, scope: ReadonlySet<string>, path: string): void => {
    if (!slots.has(slot))
      add('no-slot', path, `There is no bead “${slot}”; there are ${listed(slots)}. (${stepPlace(path)})`)
    checkExpr(count, scope, path)
  }
  const checkRef = ({ bead, at, to }: Ref, scope: ReadonlySet<string>, path: string): void => {
    if (!beads.has(bead))
      add('no-bead', path, `Nothing is picked up as “${bead}”; there are ${listed(beads)}. (${stepPlace(path)})`)
    checkExpr(at, scope, path)
    checkExpr(to, scope, path)
  }
  const checkSteps = (steps: readonly Step[], scope: ReadonlySet<string>, path: string, depth: number): void => {
    steps.forEach((step, k) => {
      const here = `${path}/${k}`
      if ('by' in step && step.by !== undefined && !carriers.has(step.by))
        add(
          'no-carrier',
          here,
          `Nothing is worked with “${step.by}”; there are ${listed(carriers)}. (${stepPlace(here)})`,
        )
      if ('fixture' in step && !fixtures.has(step.fixture))
        add(
          'no-fixture',
          here,
          `There is nothing called “${step.fixture}”; there are ${listed(fixtures)}. (${stepPlace(here)})`,
        )
      switch (step.do) {
        case 'pick':
          for (const item of step.items) checkItem(item, scope, here)
          return
        case 'pass':
          for (const ref of step.refs) checkRef(ref, scope, here)
          return
        case 'fix':
          checkExpr(step.hole, scope, here)
          checkExpr(step.times, scope, here)
          return
        case 'wrap':
          // A plain number of turns may be a half.
          if (typeof step.turns === 'string') checkExpr(step.turns, scope, here)
          return
        case 'each':
        case 'when': {
          if (depth >= RECIPE_LIMITS.nesting) {
            add('too-deep', here, `Steps lie in steps at most ${RECIPE_LIMITS.nesting} deep. (${stepPlace(here)})`)
            return
          }
          checkExpr(step.do === 'each' ? step.times : step.if, scope, here)
          if (step.do === 'each' && scope.has(step.with))
            add(
              'taken',
              here,
              `“${step.with}” is the name of something else: count with another. (${stepPlace(here)})`,
            )
          checkSteps(
            step.steps,
            step.do === 'each' ? new Set([...scope, step.with]) : scope,
            `${here}/steps`,
            depth + 1,
          )
        }
      }
    })
  }
  const scope = new Set([...params, 'm', 'n'])
  for (const section of RECIPE_SECTIONS) checkSteps(recipe[section], scope, section, 0)
  for (const [what, names] of Object.entries({ hangs: recipe.hangs, lies: Object.keys(recipe.lies) }))
    for (const name of names)
      if (!beads.has(name)) add('no-bead', what, `Nothing is picked up as “${name}”; there are ${listed(beads)}.`)
  return out
}
