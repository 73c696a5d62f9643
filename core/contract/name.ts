import { z } from 'zod'

/** Characters that take no room or that nobody sees: with them two names that look alike would be two. */
const UNSEEN = /[\p{C}\p{Zl}\p{Zp}\p{Default_Ignorable_Code_Point}]/u

/** A name to sign in with, in the form in which it is compared (Unicode NFKC), with single spaces. */
export const signInName = z
  .string()
  .max(400)
  .transform((text) => text.normalize('NFKC').trim().replace(/\s+/g, ' '))
  .pipe(
    z
      .string()
      .min(2, 'Choose a name of at least two letters')
      .max(80, 'Choose a shorter name')
      .refine((name) => !UNSEEN.test(name), { error: 'A character of this name cannot be seen: type it anew' }),
  )

const newPassword = z
  .string()
  .min(10, 'Choose a password of at least ten characters')
  .max(200, 'Choose a shorter password')

export const credentialsSchema = z.strictObject({ signIn: signInName, password: newPassword })
export type Credentials = z.infer<typeof credentialsSchema>

export const passwordChangeSchema = z.strictObject({ now: z.string().max(200), next: newPassword })

/** Something that only the person may ask for: the password is typed once more. */
export const confirmedSchema = z.strictObject({ password: z.string().max(200) })
