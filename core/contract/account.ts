import { z } from 'zod'
import { settingsSchema } from './settings'

/** What the server answers of people and their devices. */

/** The account that anyone may open where the demo workshop is on. */
export const DEMO_SIGN_IN = 'Demo workshop'

export const accountSchema = z.object({ id: z.string(), signIn: z.string(), settings: settingsSchema })
export type Account = z.infer<typeof accountSchema>
export const accountAnswer = z.object({ account: accountSchema })
/** A device on which a person is signed in. */
export const deviceSchema = z.object({
  id: z.string(),
  /** Browser and system in words; empty if they were not said. */
  agent: z.string(),
  since: z.string(),
  seen: z.string(),
  here: z.boolean(),
})
export type Device = z.infer<typeof deviceSchema>
export const devicesAnswer = z.object({ devices: z.array(deviceSchema) })
/** How much of its room an account fills, bytes. */
export const storageAnswer = z.object({ bytes: z.number(), most: z.number() })
export const archiveAnswer = z.object({ pieces: z.number(), shelf: z.number() })
export const sessionAnswer = z.object({ account: accountSchema.nullable(), demo: z.boolean() })
