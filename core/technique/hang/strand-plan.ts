import { z } from 'zod'
import { strandRuleSchema } from '../../hang/rule'
import type { Plan } from '../plan'
import { ALIKE } from '../strand-side'

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
export const strandPlanSchema: z.ZodType<Plan> = planSchema as unknown as z.ZodType<Plan>

export type HungPlan = Readonly<z.infer<typeof planSchema>>

export const strandPlanOf = (plan: Plan | undefined): HungPlan => planSchema.parse(plan ?? {})
export const asPlan = (plan: HungPlan): Plan => plan as unknown as Plan

/** Lines that stay alike with line r of so many. */
export function alikeWith({ alike, period }: Pick<HungPlan, 'alike' | 'period'>, r: number, count: number): number[] {
  if (alike === 'free') return []
  if (alike === 'mirror') return count - 1 - r === r ? [] : [count - 1 - r]
  return Array.from({ length: count }, (_, k) => k).filter((k) => k !== r && k % period === r % period)
}
