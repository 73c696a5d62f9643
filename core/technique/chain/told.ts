import { requireSpec, type BeadSpec } from '../../bead/spec'
import { chainOf, type Length } from '../../layout/chain'
import { layRun, portPoint, type Laid } from '../../layout/laid'
import type { ChainProblem } from '../../layout/problem'
import { modulo } from '../../modulo'
import type { Recipe } from '../../recipe/language'
import { ringMm } from '../../recipe/measure'
import type { Run } from '../../recipe/run'
import { runRecipe, shortOf, type Params, type RecipeWork } from '../../recipe/total'

/** A recipe, the values of its fields, and the beads that play its slots where these are not its own. */
export interface RecipePlan {
  readonly recipe: Recipe
  readonly params: Params
  /** How it lies, where that is known in closed form. */
  readonly place?: ((run: Run) => Laid | null) | undefined
}

/** Spec ids by slot; what is left out is as the recipe has it. */
export type Sizes = Readonly<Record<string, string>>

/** A recipe carried out for so many motifs, with the lines that it fills. */
export interface Told {
  readonly run: Run
  /** Beads of each line. */
  readonly lengths: readonly number[]
  /** Whether start and end pick up anything, so that they have a line. */
  readonly starts: boolean
  readonly ends: boolean
  /** Beads by motif, in the order of picking up. */
  readonly beads: ReadonlyMap<number, readonly BeadSpec[]>
}

export const recipeWork = ({ recipe, params }: RecipePlan, sizes: Sizes = {}): RecipeWork => ({
  recipe,
  params,
  spec: (slot) => requireSpec(sizes[slot] ?? recipe.slots[slot]!.spec),
})

/** What was told and laid of a recipe, by its parameters, sizes and count of motifs. */
interface Kept {
  readonly told: Map<string, Told>
  readonly laid: Map<string, Laid | null>
}
const kept = new WeakMap<Recipe, Kept>()
const MOST_KEPT = 24

function keptOf(recipe: Recipe): Kept {
  let known = kept.get(recipe)
  if (!known) kept.set(recipe, (known = { told: new Map(), laid: new Map() }))
  return known
}

function remembered<T>(map: Map<string, T>, key: string, make: () => T): T {
  const known = map.get(key)
  if (known !== undefined) return known
  const made = make()
  if (map.size >= MOST_KEPT) map.clear()
  map.set(key, made)
  return made
}

const keyFor = ({ recipe, params }: RecipePlan, sizes: Sizes, n: number): string =>
  `${n} ${recipe.params.map(({ id, usual }) => params[id] ?? usual).join(',')} ${Object.keys(recipe.slots)
    .map((slot) => sizes[slot] ?? '')
    .join(',')}`

/** What start, motifs and end pick up, for n motifs. */
export const toldFor = (plan: RecipePlan, n: number, sizes: Sizes = {}): Told =>
  remembered(keptOf(plan.recipe).told, keyFor(plan, sizes, n), () => {
    const run = runRecipe(recipeWork(plan, sizes), n)
    const beads = new Map<number, BeadSpec[]>()
    for (const { motif, isFixture, spec } of run.nodes) {
      if (isFixture || !spec) continue
      const list = beads.get(motif)
      if (list) list.push(spec)
      else beads.set(motif, [spec])
    }
    const of = (motif: number): number => beads.get(motif)?.length ?? 0
    const [starts, ends] = [of(-1) > 0, of(n) > 0]
    const lengths = [
      ...(starts ? [of(-1)] : []),
      ...Array.from({ length: n }, (_, m) => of(m)),
      ...(ends ? [of(n)] : []),
    ]
    return { run, lengths, starts, ends, beads }
  })

/** How n motifs lie; null where they are too much to be laid. */
export const laidFor = (plan: RecipePlan, n: number, sizes: Sizes = {}): Laid | null =>
  remembered(keptOf(plan.recipe).laid, keyFor(plan, sizes, n), () =>
    plan.place
      ? plan.place(toldFor(plan, n, sizes).run)
      : layRun(lengthOf(plan, n, sizes), plan.recipe, longerThan(plan, n, sizes)),
  )

const lengthOf = (plan: RecipePlan, n: number, sizes: Sizes): Length => ({ run: toldFor(plan, n, sizes).run, n })

/** A chain of the same that is long enough to show what repeats. */
const longerThan = (plan: RecipePlan, n: number, sizes: Sizes): Length =>
  lengthOf(plan, Math.max(n, measuredBy(plan, n).shown), sizes)

/** The question that the picture of n motifs stands on; null where there is none. */
export function questionFor(plan: RecipePlan, n: number, sizes: Sizes = {}): ChainProblem | null {
  if (plan.place) return null
  return chainOf(lengthOf(plan, n, sizes), plan.recipe, longerThan(plan, n, sizes))?.problem ?? null
}

/** Motifs of a ring that is looked at for whether it is one. */
const RINGED = 8

/** Whether the last motif or the end is worked on to the first motif or the start, and no motif between them is. */
export function endsMeet(plan: RecipePlan): boolean {
  const { nodes, done } = toldFor(plan, RINGED).run
  const back = done.filter(({ goes }) => goes.some(({ node }) => !nodes[node]!.isFixture && nodes[node]!.motif <= 0))
  return back.some(({ motif }) => motif >= RINGED - 1) && !back.some(({ motif }) => motif > 1 && motif < RINGED - 1)
}

/** Motifs by which a chain is measured: its ends must not meet. */
const MEASURED = 12

/** By how many motifs a chain of n is measured, and how many more of the same it has; negative if it has fewer. */
function measuredBy({ recipe, params }: RecipePlan, n: number): { readonly shown: number; readonly more: number } {
  const { shown, period, times } = shortOf(recipe, params, Math.max(n, MANY))
  // No two motifs are known to be alike: all of them are laid.
  if (times === 0) return { shown: n, more: 0 }
  const least = Math.max(MEASURED, shown)
  const base = least + modulo(n - least, period)
  return { shown: base, more: n - base }
}
/** More motifs than any two of which differ by what stands at the ends. */
const MANY = 400

/** A chain in mm: how long n motifs are with their ends, how wide, and from motif to motif. */
export interface ChainSize {
  readonly lengthMm: number
  readonly widthMm: number
  readonly pitchMm: number
}

/** Size of n motifs as they are laid, measured by a short chain of the same; null where that is too much. */
export function sizeFor(plan: RecipePlan, n: number, sizes: Sizes = {}): ChainSize | null {
  const { shown, more } = measuredBy(plan, n)
  const laid = laidFor(plan, shown, sizes)
  if (!laid || !Number.isFinite(laid.left)) return null
  const { run } = toldFor(plan, shown, sizes)
  // A ring is as long as it is round, whatever of its ends reaches over them in the flat picture.
  const round = endsMeet(plan) ? ringMm(run, (port) => portPoint(laid, run.nodes, port)) : NaN
  const shownMm = Number.isNaN(round) ? laid.right - laid.left : round
  return {
    lengthMm: Math.max(0, shownMm + more * laid.pitchMm),
    widthMm: laid.acrossMm ?? laid.bottom - laid.top,
    pitchMm: laid.pitchMm,
  }
}

/** Questions that the size and the picture of n motifs stand on. */
export const questionsFor = (plan: RecipePlan, n: number, sizes: Sizes = {}): ChainProblem[] =>
  [...new Set([n, measuredBy(plan, n).shown, measuredBy(plan, USUAL_COUNT).shown, BOARD_COUNT])].flatMap((count) => {
    const question = questionFor(plan, count, sizes)
    return question ? [question] : []
  })

/** Motifs that are laid out to work on the recipe. */
export const BOARD_COUNT = 4

/** Motifs by which the usual pitch is told, where nobody says how many there are. */
export const USUAL_COUNT = MEASURED
