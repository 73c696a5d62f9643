import { z } from 'zod'
import { specId } from '../bead/schema'
import { isSound } from '../units/text'

/**
 * The language in which work is told that no grid decides: what a carrier picks up, which bead it passes again, by
 * which hole and which way, what it is fixed to or wound round. Plain JSON; eight verbs suffice. Crossing, turning
 * back and splitting are no verbs: they follow from the holes.
 */

/** Bounds of one recipe; what goes beyond them is refused before anything is run. */
export const RECIPE_LIMITS = {
  /** Steps within steps (`each`, `when`). */
  nesting: 4,
  /** Steps that one motif (or the start, or the end) does when written out; turns of a loop count as well. */
  steps: 2000,
  /** Beads that one motif picks up. */
  beads: 500,
  params: 8,
  slots: 24,
  fixtures: 12,
  /** Characters of the recipe as JSON. */
  text: 32_768,
  /** Turns of one wrap, and times of one fixing. */
  turns: 200,
  /** Steps and beads of a whole run: far more than anyone works. */
  runSteps: 40_000,
  runBeads: 60_000,
} as const

const name = z
  .string()
  .regex(/^[a-z][a-zA-Z0-9]{0,19}$/, { error: 'is no name: a small letter first, then up to 19 letters and digits' })
const text = (most: number) =>
  z.string().max(most).refine(isSound, { error: 'holds a character that cannot be kept: type it anew' })
const expr = z
  .union([z.int().min(-1_000_000).max(1_000_000), z.string().min(1).max(60)])
  .describe('A whole number, or an expression of parameters and loop counters: + - * / (down) % ( ) < > = (1 or 0)')

export const itemSchema = z
  .strictObject({
    slot: name,
    as: name.optional().describe('Name under which the beads are remembered; that of the slot if left out'),
    hole: z.enum(['a', 'b']).default('a').describe('Hole by which they are strung'),
    count: expr.default(1),
  })
  .describe('Beads picked up one after the other')

export const refSchema = z
  .strictObject({
    bead: name,
    of: z
      .enum(['this', 'prev', 'start', 'first'])
      .default('this')
      .describe(
        'In this motif, in the one before (the start, for the first; the last, in the end), in the start, or in the ' +
          'first motif, where the ends of a ring meet',
      ),
    at: expr.default(0).describe('Which of that name, from 0; −1 counts from the last'),
    to: expr.optional().describe('Up or down to this one'),
    hole: z.enum(['a', 'b']).default('a'),
    way: z.enum(['on', 'back']).default('on').describe('The way in which the bead was first strung, or against it'),
  })
  .describe('A bead that is there already, or a run of them')

const by = name.optional().describe('Carrier; the first if left out')
const note = text(120).optional().describe('Said after the step')
const turns = z
  .union([z.number().min(0).max(RECIPE_LIMITS.turns), z.string().min(1).max(60)])
  .describe('Turns; a half goes round the edge')

export type Expr = number | string
export type Item = Readonly<z.infer<typeof itemSchema>>
export type Ref = Readonly<z.infer<typeof refSchema>>
type Told = { readonly by?: string | undefined; readonly note?: string | undefined }
export type Step =
  | (Told & { readonly do: 'pick'; readonly items: readonly Item[] })
  | (Told & { readonly do: 'pass'; readonly refs: readonly Ref[] })
  | (Told & {
      readonly do: 'fix'
      readonly fixture: string
      readonly hole?: Expr | undefined
      readonly times?: Expr | undefined
    })
  | (Told & { readonly do: 'wrap'; readonly fixture: string; readonly turns: Expr })
  | (Told & { readonly do: 'knot'; readonly mm: number })
  | { readonly do: 'say'; readonly text: string }
  | { readonly do: 'each'; readonly with: string; readonly times: Expr; readonly steps: readonly Step[] }
  | { readonly do: 'when'; readonly if: Expr; readonly steps: readonly Step[] }
export type Verb = Step['do']

const steps = (): z.ZodType<Step[]> => z.array(stepSchema).min(1).max(200) as z.ZodType<Step[]>

export const stepSchema: z.ZodType<Step> = z.lazy(() =>
  z.discriminatedUnion('do', [
    z.strictObject({ do: z.literal('pick'), items: z.array(itemSchema).min(1).max(100), by, note }),
    z.strictObject({ do: z.literal('pass'), refs: z.array(refSchema).min(1).max(100), by, note }),
    z
      .strictObject({
        do: z.literal('fix'),
        fixture: name,
        hole: expr.optional().describe('Which hole of it, from 0'),
        times: expr.optional(),
        by,
        note,
      })
      .describe('Through a finding: a clasp, a cap, a hole of a component'),
    z.strictObject({ do: z.literal('wrap'), fixture: name, turns, by, note }).describe('Round a cord, stem or cuff'),
    z.strictObject({
      do: z.literal('knot'),
      mm: z.number().min(0).max(1000).describe('Length that it takes'),
      by,
      note,
    }),
    z.strictObject({ do: z.literal('say'), text: text(200) }).describe('Twist, loop, measure, glue'),
    z
      .strictObject({ do: z.literal('each'), with: name, times: expr, steps: steps() })
      .describe('Again and again, counting from 0'),
    z.strictObject({ do: z.literal('when'), if: expr, steps: steps() }).describe('Only where it is not 0'),
  ]),
)

/** What works its way through the beads. */
export const RECIPE_CARRIERS = ['thread', 'wire', 'cord', 'pin', 'elastic'] as const

const section = z.array(stepSchema).max(200)
const length = (most: number) => z.number().min(0).max(most)

export const recipeSchema = z
  .strictObject({
    id: z
      .string()
      .regex(/^[a-z0-9-]{1,40}$/)
      .describe('Its own name for programs'),
    name: text(60).min(1),
    params: z
      .array(
        z
          .strictObject({
            id: name,
            label: text(60).min(1),
            least: z.int().min(-1000).max(1000),
            most: z.int().min(-1000).max(1000),
            usual: z.int().min(-1000).max(1000),
          })
          .describe('A number that can be changed'),
      )
      .max(RECIPE_LIMITS.params)
      .default([]),
    slots: z
      .record(name, z.strictObject({ name: text(40).min(1), many: text(40).min(1), spec: specId }))
      .describe('Parts that beads play: their size decides the geometry, their colours are in the cells'),
    carriers: z
      .array(
        z.strictObject({
          id: name,
          name: text(40).min(1),
          kind: z.enum(RECIPE_CARRIERS),
          mm: z.number().min(0.05).max(10).default(0.15).describe('Thickness'),
        }),
      )
      .min(1)
      .max(2),
    cut: z
      .strictObject({
        folded: z.boolean().default(false).describe('One length folded in its middle, an end for each carrier'),
        each: z.enum(['piece', 'motif']).default('piece').describe('A new length for every motif, or one for all'),
      })
      .default({ folded: false, each: 'piece' }),
    fixtures: z
      .record(
        name,
        z.strictObject({
          name: text(40).min(1),
          d: length(400).describe('Thickness that a carrier goes round'),
          holes: z.int().min(1).max(200).default(1),
          pitch: length(100).default(0).describe('From hole to hole'),
        }),
      )
      .default({})
      .describe('Findings, cords and stems that carriers are fixed to or wound round'),
    repeat: z
      .enum(['along', 'to-and-fro'])
      .default('along')
      .describe('A motif follows the one before moved along, or also turned over'),
    hangs: z.array(name).max(RECIPE_LIMITS.slots).default([]).describe('Names of beads whose lengths give the pitch'),
    lies: z
      .record(name, z.union([z.literal(-1), z.literal(0), z.literal(1)]))
      .default({})
      .describe('Where beads of a name lie across: 1 above, −1 below, 0 in the middle'),
    start: section.default([]),
    motif: section.default([]),
    end: section.default([]),
  })
  .describe('How a motif is worked, what comes before the first and what after the last')

export type Recipe = Readonly<z.infer<typeof recipeSchema>>

/** Sections of a recipe: what begins it, what is repeated, what ends it. */
export const RECIPE_SECTIONS = ['start', 'motif', 'end'] as const
export type RecipeSection = (typeof RECIPE_SECTIONS)[number]
