import { z } from 'zod'
import { paramsField, readRecipe, recipeField } from '../../recipe/check'
import type { Recipe } from '../../recipe/language'
import { readRecipeText, recipeText } from '../../recipe/shorthand'
import { good, valueOf } from '../../problem'
import type { Script } from '../script'
import type { Plan, Work } from '../technique'
import { chain } from './chain'
import type { RecipePlan } from './told'

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
  recipe: recipeField((value) => (typeof value === 'string' ? readRecipeText(value) : readRecipe(value))).default(
    FIRST,
  ),
  params: paramsField.default({}),
})

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
}

/** What is said after a step decides nothing. */
const withoutNotes = (key: string, value: unknown): unknown => (key === 'note' ? undefined : value)

/** A number made from what decides how long a recipe lies: its steps and sizes, whatever they are called (FNV-1a). */
function keyOfRecipe({ slots, fixtures, repeat, lies, hangs, start, motif, end }: Recipe): string {
  const sizes = Object.entries(slots).map(([slot, { spec }]) => [slot, spec])
  let hash = 0x811c9dc5
  for (const sign of JSON.stringify([sizes, fixtures, repeat, lies, hangs, start, motif, end], withoutNotes))
    hash = Math.imul(hash ^ sign.codePointAt(0)!, 0x01000193)
  return (hash >>> 0).toString(16).padStart(8, '0')
}

export const ownRecipe = chain({
  id: 'own-recipe',
  name: 'Recipe of your own',
  summary: 'Whatever a thread can do: what it picks up, which bead it passes again, by which hole and which way.',
  settings,
  fields: [
    {
      key: 'motif',
      label: 'Length of a motif',
      help: 'As you measured it; 0 takes it from the picture, ± 10 %.',
      kind: 'length',
    },
  ],
  script,
  planKey: (plan) => keyOfRecipe(planOf({ plan }).recipe),
  plan: planSchema as unknown as z.ZodType<Plan>,
  kinds: ['bracelet', 'anklet', 'choker', 'necklace', 'earrings', 'ring', 'hoop'],
  planOf,
  measured: (own) => settings.parse(own).motif,
})
