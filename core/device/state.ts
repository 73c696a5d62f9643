import { z } from 'zod'

/** What the stand-in is set to on its page. */
export const deviceStateSchema = z.strictObject({
  on: z.boolean().default(true),
  /** What lies on the scale (g, tube and all) or between the jaws (mm). */
  load: z.number().min(0).max(5000).default(0),
  /** How far readings tremble. */
  jitter: z.number().min(0).max(5).default(0.005),
  /** So many of the next readings get no answer. */
  failNext: z.int().min(0).max(100).default(0),
})

export type DeviceState = z.infer<typeof deviceStateSchema>
