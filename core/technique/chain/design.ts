import { z } from 'zod'
import type { FitKind } from '../../wear/kind'
import type { Params } from '../../recipe/total'
import { RECIPE_SECTIONS, type Recipe, type RecipeSection } from '../../recipe/language'
import { readRecipeText } from '../../recipe/shorthand'
import { valueOf } from '../../problem'
import type { SettingField, Settings } from '../setting'
import type { Strung } from '../strung'
import { chain, type Chain } from './chain'
import { END_HELP, END_TOOLS, MEET } from './ends'
import type { RecipePlan } from './told'

/** What is chosen in place of a number: the values that a field of the recipe has for each choice. */
interface Choice {
  readonly value: string
  readonly label: string
  readonly is: number
}

/** A design that ships with Weben: a recipe whose fields are settings. */
export interface Design extends Pick<Chain, 'id' | 'name' | 'summary' | 'closure' | 'making' | 'thing'> {
  /** What a motif of it is called. */
  readonly motif: string
  readonly kinds?: readonly FitKind[]
  /** Raised when a piece that was begun with it would come out otherwise. */
  readonly version: number
  /** The recipe in short hand. */
  readonly recipe: string
  /** The same where its ends meet, chosen by its field `finish`; it has the fields, beads and threads of the other. */
  readonly ring?: Partial<Readonly<Record<RecipeSection, string>>>
  /** A sentence for each field that needs one, by its id. */
  readonly help?: Readonly<Record<string, string>>
  /** Fields that may be changed by one so that it fits, by their ids. */
  readonly tunes?: readonly string[]
  /** How it lies, where that is known in closed form; found from its topology if left out. */
  readonly place?: RecipePlan['place']
  /** Fields that are chosen by name rather than by number. */
  readonly choices?: Readonly<Record<string, readonly Choice[]>>
}

const USUAL_KINDS: readonly FitKind[] = ['bracelet', 'anklet', 'choker', 'necklace', 'earrings']
const RING_KINDS: readonly FitKind[] = [...USUAL_KINDS, 'ring', 'hoop']

interface Recipes {
  readonly open: Recipe
  readonly ring: Recipe | null
}
const recipes = new WeakMap<Design, Recipes>()

/** Section by section: what a ring says of its own stands in the place of what an open one says. */
function ringText({ recipe, ring = {} }: Design): string {
  const [head, ...sections] = recipe.split(/^(?=(?:start|motif|end)$)/m)
  const said = new Map(sections.map((text) => [text.slice(0, text.indexOf('\n')), text]))
  for (const section of RECIPE_SECTIONS) {
    const own = ring[section]?.replaceAll(/^\n|\n$/g, '')
    if (own !== undefined) said.set(section, `${section}\n${own}\n`)
  }
  return [head, ...RECIPE_SECTIONS.map((section) => said.get(section) ?? '')].join('')
}

function recipesOf(own: Design): Recipes {
  let known = recipes.get(own)
  if (!known) {
    const ring = own.ring ? valueOf(readRecipeText(ringText(own))) : null
    recipes.set(own, (known = { open: valueOf(readRecipeText(own.recipe)), ring }))
  }
  return known
}

/** The recipe of a design; that of its ring where its ends meet. */
export function recipeOf(own: Design, settings: Settings = {}): Recipe {
  const { open, ring } = recipesOf(own)
  return ring && settings.finish === MEET ? ring : open
}

/** A shipped design as a technique: each field of its recipe is a setting with its bounds. */
export function design(own: Design): Strung {
  const recipe = recipeOf(own)
  const choices = own.choices ?? {}
  const settings = z.strictObject(
    Object.fromEntries(
      recipe.params.map(({ id, label, least, most, usual }) => {
        const named = choices[id]
        if (!named) return [id, z.int().min(least).max(most).default(usual).describe(label)]
        const values = named.map(({ value }) => value) as [string, ...string[]]
        return [
          id,
          z
            .enum(values)
            .default(named.find(({ is }) => is === usual)!.value)
            .describe(label),
        ]
      }),
    ),
  ) as unknown as z.ZodType<Settings>
  const fields = recipe.params.map(({ id, label, least, most }): SettingField => {
    const help = own.help?.[id] ?? END_HELP[id] ?? `${least} to ${most}.`
    const named = choices[id]
    return named
      ? {
          key: id,
          label,
          help,
          kind: 'choice',
          choices: named.map(({ value, label: says }) => ({ value, label: says })),
        }
      : { key: id, label, help, kind: 'number' }
  })
  const paramsOf = (values: Settings): Params =>
    Object.fromEntries(
      recipe.params.map(({ id, usual }) => {
        const value = values[id]
        const named = choices[id]?.find((c) => c.value === value)
        return [id, named ? named.is : typeof value === 'number' ? value : usual]
      }),
    )
  const plans = new WeakMap<Settings, RecipePlan>()
  return chain({
    ...{ id: own.id, name: own.name, summary: own.summary, motif: own.motif },
    ...(own.closure ? { closure: own.closure } : {}),
    ...(own.making ? { making: own.making } : {}),
    tools: END_TOOLS,
    tunes: (own.tunes ?? []).map((key) => ({
      key,
      counts: recipe.params.find(({ id }) => id === key)!.label.toLowerCase(),
    })),
    ...(own.thing ? { thing: own.thing } : {}),
    kinds: own.kinds ?? (own.ring ? RING_KINDS : USUAL_KINDS),
    ...(own.ring ? { meets: { finish: MEET } } : {}),
    settings,
    fields,
    plan: z.strictObject({ version: z.literal(own.version).default(own.version) }),
    planOf({ settings: values }) {
      let plan = plans.get(values)
      if (!plan)
        plans.set(values, (plan = { recipe: recipeOf(own, values), params: paramsOf(values), place: own.place }))
      return plan
    },
  })
}
