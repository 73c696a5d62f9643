import { z } from 'zod'
import { requireSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { readRecipe } from '../../recipe/check'
import { RECIPE_LIMITS, type Recipe } from '../../recipe/language'
import { bridgeByTouch } from '../../recipe/measure'
import type { RowProgram } from '../../recipe/rows'
import { unitsOf, type Run } from '../../recipe/run'
import { readRecipeText, recipeText } from '../../recipe/shorthand'
import { envOf, recipeTotals, runRecipe, type Params, type RecipeWork } from '../../recipe/total'
import { good, problem, valueOf } from '../../problem'
import type { CarrierId } from '../act'
import type { PlacedBead } from '../drawing'
import { BEADS } from '../material'
import { rowWork, type RowLayout, type RowWork } from '../row-work'
import type { Script, ScriptBead } from '../script'
import type { Settings } from '../setting'
import { rangeOf, type Plan, type ThreadRun, type Work } from '../technique'
import { tenths } from './line'

/**
 * Work by a recipe of one’s own, which its plan holds with the values of its fields. A line is what a motif picks up,
 * in the order of picking; what the start and the end pick up is a line of its own, where they pick up anything. The
 * recipe says what is strung and passed; the lines say in which bead. Lines that are longer or shorter than the recipe
 * has it are told, never refused, so that a recipe can be changed under its colours.
 */

/** A recipe to begin with: buds of seeds on a stem, and a loop at each end. */
const FIRST = valueOf(
  readRecipeText(`
recipe buds "Buds on a stem"
field s 1..12=3 "Stem beads between two buds"
field p 2..6=3 "Beads at each side of a bud"
bead loop round-8 "loop bead" "loop beads"
bead stem round-8 "stem bead" "stem beads"
bead bud round-8 "bud bead" "bud beads"
bead tip faceted-4-mm "tip bead" "tip beads"
carrier thread thread 0.15 "thread"
start
  pick loop*6
  pass loop -- "draw the loop round"
motif
  pick stem*s bud:low*p tip bud:high*p
  pass low[0..-1] tip -- "the ring closes; draw it tight"
end
  pick stem*s loop*6
  pass loop -- "draw the loop round"
`),
)

const planSchema = z.strictObject({
  recipe: z
    .unknown()
    .transform((value, context): Recipe => {
      const read = typeof value === 'string' ? readRecipeText(value) : readRecipe(value)
      if (read.ok) return read.value
      for (const { says } of read.problems.slice(0, 12))
        context.addIssue({ code: 'custom', message: says.replace(/\.$/, '') })
      return z.NEVER
    })
    .default(FIRST),
  params: z.record(z.string().max(20), z.int().min(-1000).max(1000)).default({}),
})

/** A recipe and the values of its fields. */
interface RecipePlan {
  readonly recipe: Recipe
  readonly params: Params
}

const PLAIN: RecipePlan = { recipe: FIRST, params: {} }

const planOf = ({ plan }: Pick<Work, 'plan'>): RecipePlan => (plan as unknown as RecipePlan | undefined) ?? PLAIN

const settings = z.strictObject({
  motif: z
    .number()
    .min(0)
    .max(500)
    .default(0)
    .describe('Length that a motif brings, mm, as it was measured; 0: reckoned from its beads'),
})

/** A recipe carried out for so many motifs, with the lines that it fills. */
interface Told {
  readonly run: Run
  /** Beads of each line. */
  readonly lengths: readonly number[]
  /** Whether start and end pick up anything, so that they have a line. */
  readonly starts: boolean
  readonly ends: boolean
}

const workOf = ({ recipe, params }: RecipePlan): RecipeWork => ({
  recipe,
  params,
  spec: (slot) => requireSpec(recipe.slots[slot]!.spec),
})

const kept = new WeakMap<RecipePlan, Map<number, Told>>()

/** What start, motifs and end pick up, for n motifs. */
function toldFor(plan: RecipePlan, n: number): Told {
  let byCount = kept.get(plan)
  if (!byCount) kept.set(plan, (byCount = new Map()))
  let told = byCount.get(n)
  if (!told) {
    const run = runRecipe(workOf(plan), n)
    const counts = new Map<number, number>()
    for (const { motif, isFixture } of run.nodes) if (!isFixture) counts.set(motif, (counts.get(motif) ?? 0) + 1)
    const [starts, ends] = [counts.has(-1), counts.has(n)]
    const of = (motif: number): number => counts.get(motif) ?? 0
    const lengths = [
      ...(starts ? [of(-1)] : []),
      ...Array.from({ length: n }, (_, m) => of(m)),
      ...(ends ? [of(n)] : []),
    ]
    told = { run, lengths, starts, ends }
    if (byCount.size > 8) byCount.clear()
    byCount.set(n, told)
  }
  return told
}

/** Whether start and end have lines of their own: told by a short run, whatever stands between them. */
function edgesOf(plan: RecipePlan): { readonly start: number; readonly end: number } {
  const { starts, ends } = toldFor(plan, 2)
  return { start: starts ? 1 : 0, end: ends ? 1 : 0 }
}

/** Motifs of so many lines. */
function motifsIn(plan: RecipePlan, rows: number): number {
  const { start, end } = edgesOf(plan)
  return Math.max(0, rows - start - end)
}

function program(work: Work): RowProgram {
  const plan = planOf(work)
  const { recipe, params } = plan
  const n = motifsIn(plan, work.rows)
  const { start } = edgesOf(plan)
  return {
    head: recipe,
    units: { [Symbol.iterator]: () => unitsOf(recipe, n) },
    env: envOf(recipe, params, n),
    spec: workOf(plan).spec,
    lineOf: (motif) => motif + start,
    placeOf: ({ place }) => place,
  }
}

/** Part of the way through its beads that a motif is long, where nobody measured it: between a string and a ring. */
const SHARE = 0.6
/** How far off that may be. */
const SPREAD = 0.4

/** Room between two lines as they are drawn, mm. */
const GAP_MM = 0.6

/** Beads of the lines as the recipe has them: a line that is longer than that goes on in its last one. */
function beadsOf(work: Work, r: number, length: number): Work['bead'][] {
  const plan = planOf(work)
  const { run, starts } = toldFor(plan, motifsIn(plan, work.rows))
  const own = nodesByMotif(run).get(r - (starts ? 1 : 0)) ?? []
  return Array.from({ length }, (_, c) => own[c] ?? own.at(-1) ?? work.bead)
}

const byMotif = new WeakMap<Run, Map<number, Work['bead'][]>>()
function nodesByMotif(run: Run): Map<number, Work['bead'][]> {
  let found = byMotif.get(run)
  if (!found) {
    byMotif.set(run, (found = new Map()))
    for (const { isFixture, motif, spec } of run.nodes) {
      if (isFixture || !spec) continue
      const list = found.get(motif)
      if (list) list.push(spec)
      else found.set(motif, [spec])
    }
  }
  return found
}

/** Each line as it is strung, one below the other: no more is known of how the beads will lie. */
function layout(work: Work, rows: readonly { readonly length: number }[]): RowLayout {
  const placed: PlacedBead[] = []
  const carriers: RowLayout['carriers'][number][] = []
  let y = 0
  let widthMm = 1
  rows.forEach(({ length }, r) => {
    const beads = beadsOf(work, r, length)
    const high = beads.reduce((most, { d }) => Math.max(most, d), 0)
    const middle = y + high / 2
    let x = 0
    beads.forEach((bead, c) => {
      placed.push({ key: keyOf(work.columns, c, r), x: x + bead.l / 2, y: middle, turnDegrees: 0, bead })
      x += bead.l
    })
    if (beads.length > 0)
      carriers.push({
        kind: 'thread',
        thickMm: 0.25,
        points: [
          { x: 0, y: middle },
          { x, y: middle },
        ],
      })
    widthMm = Math.max(widthMm, x)
    y += high + (high > 0 ? GAP_MM : 0)
  })
  return { placed, carriers, widthMm, lengthMm: Math.max(1, y) }
}

/** Length that a line brings, mm: as it was measured, or its share of the way through its beads. */
const lineMm = (own: Settings, beads: readonly Work['bead'][]): number => {
  const { motif } = settings.parse(own)
  return motif > 0 ? motif : SHARE * beads.reduce((sum, { l }) => sum + l, 0)
}

const LEAST_MM = 0.1

/** A motif in the middle of the work. */
function usualMm(work: Omit<Work, 'rows'>): number {
  const { run } = toldFor(planOf(work), 3)
  return Math.max(LEAST_MM, lineMm(work.settings, nodesByMotif(run).get(1) ?? []))
}

/** Length of so many lines, mm. */
function lengthMm(rows: number, work: Omit<Work, 'rows'>): number {
  const plan = planOf(work)
  const { start, end } = edgesOf(plan)
  const { run } = toldFor(plan, 2)
  const edge = (motif: number) => SHARE * (nodesByMotif(run).get(motif) ?? []).reduce((sum, { l }) => sum + l, 0)
  const edges = (rows > 0 && start > 0 ? edge(-1) : 0) + (rows > start && end > 0 ? edge(2) : 0)
  return edges + motifsIn(plan, rows) * usualMm(work)
}

/** What a carrier of a recipe is cut as. */
const RUN_IDS: Readonly<Record<Recipe['carriers'][number]['kind'], CarrierId>> = {
  thread: 'thread',
  wire: 'wire',
  cord: 'cord',
  pin: 'wire',
  elastic: 'cord',
}

function runs(work: Work, ways: ReadonlyMap<string, number>): ThreadRun[] {
  const plan = planOf(work)
  const { carriers, cut } = plan.recipe
  const n = motifsIn(plan, work.rows)
  const many = cut.each === 'motif' ? Math.max(1, n) : 1
  const run = (id: CarrierId, name: string, mm: number, formula: string): ThreadRun => ({
    ...{ id, name, count: many, joined: id === 'thread', lengthMm: mm / many },
    formula: many > 1 ? `${formula}, in ${many} lengths` : formula,
  })
  const wayOf = (id: string): number => ways.get(id) ?? 0
  if (cut.folded && carriers.length > 1) {
    const sum = carriers.reduce((mm, { id }) => mm + wayOf(id), 0)
    const { kind } = carriers[0]!
    const formula = carriers.map(({ id, name }) => `${name} ${tenths(wayOf(id))} mm`).join(' + ')
    return [run(RUN_IDS[kind], `${carriers.map((c) => c.name).join(' and ')}, folded`, sum, formula)]
  }
  return carriers.map(({ id, name, kind }) =>
    run(RUN_IDS[kind], name.charAt(0).toUpperCase() + name.slice(1), wayOf(id), `${tenths(wayOf(id))} mm`),
  )
}

/** Its recipe in short hand; values of fields that are still there stay. */
const script: Script = {
  label: 'Recipe',
  help: 'In short hand: what is picked up and passed, step by step. A change takes the lines with it.',
  write: (plan) => recipeText(planOf({ plan }).recipe),
  read(text, before) {
    const read = readRecipeText(text)
    if (!read.ok) return read
    const ids = new Set(read.value.params.map(({ id }) => id))
    const { params } = planOf({ plan: before })
    const kept = Object.fromEntries(Object.entries(params).filter(([id]) => ids.has(id)))
    return good({ recipe: read.value, params: kept } as unknown as Plan)
  },
  lines(plan, motifs) {
    const own = planOf({ plan })
    const { recipe } = own
    const { run } = toldFor(own, motifs)
    const lines = new Map<number, ScriptBead[]>()
    for (const { isFixture, motif, slot, name, at } of run.nodes) {
      if (isFixture) continue
      const { name: called, spec } = recipe.slots[slot]!
      const bead = { slot, called, spec, key: `${name}/${at}` }
      const line = lines.get(motif)
      if (line) line.push(bead)
      else lines.set(motif, [bead])
    }
    const of = (motif: number): readonly ScriptBead[] => lines.get(motif) ?? []
    return { start: of(-1), motif: of, end: of(motifs) }
  },
}

const SLOTS = Object.values(FIRST.slots)

const own: RowWork = {
  id: 'own-recipe',
  name: 'Recipe of your own',
  summary: 'Whatever a thread can do: what it picks up, which bead it passes again, by which hole and which way.',
  settings,
  fields: [
    {
      key: 'motif',
      label: 'Length of a motif',
      help: 'As you measured it; 0 reckons with its beads, ± 40 %.',
      kind: 'length',
    },
  ],
  script,
  plan: planSchema as unknown as z.ZodType<Plan>,
  material: { ...BEADS, usualSpec: SLOTS[0]!.spec },
  kinds: ['bracelet', 'anklet', 'choker', 'necklace', 'earrings'],
  first: {
    sizes: SLOTS.slice(1).map(({ spec }) => spec),
    parts(r, count, work) {
      const plan = planOf(work)
      const { run, starts } = toldFor(plan, motifsIn(plan, count))
      const names = Object.keys(plan.recipe.slots)
      return run.nodes
        .filter(({ isFixture, motif }) => !isFixture && motif === r - (starts ? 1 : 0))
        .map(({ slot }) => names.indexOf(slot))
    },
  },
  words: {
    line: 'line',
    place: 'bead',
    across: 'in the longest line',
    acrossTitle: 'Longest line',
    thing: 'Chain',
    sample: {
      name: 'sample',
      how: 'Lay a rule along the work and count motifs in its middle.',
      counted: 'Motifs counted',
      where: 'In the middle, from motif to motif.',
      wide: false,
    },
  },
  program,
  layout,
  bridge: bridgeByTouch,
  extent(work) {
    const mm = lengthMm(work.rows, work)
    const { motif } = settings.parse(work.settings)
    const n = motifsIn(planOf(work), work.rows)
    const widthMm = work.bead.d * 2
    return {
      lengthMm: rangeOf(mm, motif > 0 ? 0.1 : SPREAD),
      widthMm: rangeOf(widthMm, SPREAD),
      thicknessMm: work.bead.d,
      basis: { kind: 'nominal', spread: motif > 0 ? 0.1 : SPREAD },
      lengthFormula:
        `${n} motifs × ${tenths(usualMm(work))} mm` +
        (motif > 0 ? ' as you measured' : ` (${SHARE} × the way through their beads, until one is measured)`) +
        ` and the ends: ${tenths(mm)} mm`,
      widthFormula: 'two beads, until it is measured',
    }
  },
  lengthOf: (work) => lengthMm(work.rows, work),
  rowsFor(wanted, work) {
    const { start, end } = edgesOf(planOf(work))
    return Math.max(0, (wanted - lengthMm(start + end, work)) / usualMm(work) + start + end)
  },
  firstLines: (count, work) => [...toldFor(planOf(work), motifsIn(planOf(work), count)).lengths].slice(0, count),
  runs,
  findings(work) {
    const plan = planOf(work)
    const { lengths } = toldFor(plan, motifsIn(plan, work.rows))
    const odd = lengths.flatMap((wanted, r) => {
      const there = work.lineLength?.(r) ?? work.columns
      return there === wanted ? [] : [{ r, there, wanted }]
    })
    const [first] = odd
    return first
      ? [
          {
            code: 'line-length',
            weight: 'stops',
            says:
              `Line ${first.r + 1} holds ${first.there} beads, and the recipe picks up ${first.wanted} there` +
              `${odd.length > 1 ? `, and ${odd.length - 1} more lines differ` : ''}: lay as many as it picks up.`,
          },
        ]
      : []
  },
  check(work) {
    const plan = planOf(work)
    const n = motifsIn(plan, work.rows)
    // Motifs that are alike are multiplied, so that too many of them are refused before they are run.
    const { totals, run } = recipeTotals(workOf(plan), n, bridgeByTouch)
    const beyond = run.faults.filter(({ code }) => BEYOND.has(code))
    if (beyond.length > 0) return beyond.slice(0, 3)
    return totals.steps > RECIPE_LIMITS.runSteps || totals.beads > RECIPE_LIMITS.runBeads
      ? [
          problem(
            'too-long',
            'recipe',
            `${n} motifs are ${totals.steps} steps and ${totals.beads} beads: at most ${RECIPE_LIMITS.runSteps} and ` +
              `${RECIPE_LIMITS.runBeads} can be told. Make fewer motifs, or two parts.`,
          ),
        ]
      : []
  },
}

/** Faults of recipes that go on and on: they are refused; others are findings. */
const BEYOND: ReadonlySet<string> = new Set(['too-long', 'too-many', 'too-many-turns'])

export const ownRecipe = rowWork(own)
