import { z } from 'zod'
import { revision } from '../../core/contract/answer'
import { transactionSchema } from '../../core/piece/step'

/** What a browser sends: transactions, and where it stands, on which revision and on the work of which transaction. */
export const sentSchema = z.strictObject({
  base: revision,
  on: z.string().max(40).optional(),
  transactions: z.array(transactionSchema).min(1).max(200),
})

export type Sent = z.infer<typeof sentSchema>
