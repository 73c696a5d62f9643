import { z } from 'zod'
import { strandRuleSchema, type StrandRule } from '../../hang/rule'
import type { Plan } from '../plan'
import type { Settings } from '../setting'

/** How lists of strands are alike: about the middle, again after so many, or not at all. */
export const ALIKE = ['mirror', 'repeat', 'free'] as const

/** Exceptions of single strands. */
const ownSchema = z.strictObject({
  strand: z.int().min(0).max(199).describe('Which, from 0'),
  at: z.int().min(0).max(1999).optional().describe('Place of the top that it hangs from, from 0'),
  to: z.int().min(0).max(1999).optional().describe('Place that it leads to, of a swag'),
  turning: z.int().min(0).max(24).optional().describe('Beads that its thread turns round'),
})

const planSchema = z.strictObject({
  alike: z.enum(ALIKE).default('mirror').describe('Which lists stay alike when one is changed'),
  period: z.int().min(1).max(200).default(2).describe('Strands after which lists come again, where they repeat'),
  own: z.array(ownSchema).max(200).default([]).describe('Strands that hang otherwise than the rest'),
  rule: strandRuleSchema.nullable().default(null),
})
export const fringePlanSchema: z.ZodType<Plan> = planSchema as unknown as z.ZodType<Plan>

export type FringePlan = Readonly<z.infer<typeof planSchema>>

export const fringePlanOf = (plan: Plan | undefined): FringePlan => planSchema.parse(plan ?? {})
export const asPlan = (plan: FringePlan): Plan => plan as unknown as Plan

export const fringeSettings = z.strictObject({
  turning: z.int().min(0).max(24).default(1).describe('Beads at the end of a strand that its thread turns round'),
  hitch: z.boolean().default(false).describe('A half hitch at the top after each strand'),
  first: z.int().min(1).max(2000).default(1).describe('First bead of the edge that carries a strand'),
  every: z.int().min(1).max(50).default(1).describe('From one that carries a strand to the next'),
  each: z.int().min(1).max(4).default(1).describe('Strands to each'),
  pitch: z
    .number()
    .min(0)
    .max(60)
    .default(0)
    .describe('From strand to strand where they hang on nothing, mm; 0: as thick as they are'),
})
export type FringeSettings = z.infer<typeof fringeSettings>
export const fringeSettingsOf = (own: Settings): FringeSettings => fringeSettings.parse(own)

/** Lines that stay alike with line r of so many. */
export function alikeWith(
  { alike, period }: Pick<FringePlan, 'alike' | 'period'>,
  r: number,
  count: number,
): number[] {
  if (alike === 'free') return []
  if (alike === 'mirror') return count - 1 - r === r ? [] : [count - 1 - r]
  return Array.from({ length: count }, (_, k) => k).filter((k) => k !== r && k % period === r % period)
}

export type { StrandRule }
