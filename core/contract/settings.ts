import { z } from 'zod'
import { CURRENCY_CODES } from '../money/money'
import { SUPPLIER_WAYS } from '../supply/price-list'

/** How a person wants things shown. */
export const settingsSchema = z.strictObject({
  unit: z.enum(['mm', 'in']).default('mm'),
  theme: z.enum(['system', 'day', 'evening']).default('system'),
  hand: z.enum(['right', 'left']).default('right'),
  school: z.enum(['A', 'B']).default('A'),
  paper: z.enum(['A4', 'Letter']).default('A4'),
  currency: z.enum(CURRENCY_CODES).default('EUR'),
  supplier: z.enum(SUPPLIER_WAYS).default('well'),
  /** Hours at the bench, Monday to Sunday. */
  benchHours: z
    .array(z.number().min(0).max(24))
    .length(7)
    .default(() => [1, 1, 1, 1, 1, 2, 2]),
  /** What finished makings taught is reckoned with. */
  learnSpeed: z.enum(['on', 'off']).default('on'),
  learnCull: z.enum(['on', 'off']).default('on'),
  learnThread: z.enum(['on', 'off']).default('on'),
  /** Only what the proofreader has nothing against is printed. */
  proved: z.enum(['on', 'off']).default('off'),
  /** Single letters act on the mat (WCAG 2.1.4: they can be switched off). */
  letters: z.enum(['on', 'off']).default('on'),
})

export type AccountSettings = z.infer<typeof settingsSchema>

/** What is changed of it: a setting that is not said stays as it is, and is not as usual again. */
export type SettingsChange = Partial<AccountSettings>

export const settingsChangeSchema = z.strictObject(
  Object.fromEntries(
    Object.entries(settingsSchema.shape).map(([key, setting]) => [key, setting.removeDefault().optional()]),
  ),
) as unknown as z.ZodType<SettingsChange>
