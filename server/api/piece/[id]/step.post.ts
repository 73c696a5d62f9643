import { z } from 'zod'
import { transactionSchema } from '../../../../core/piece/step'
import { database, MOST_INTEGER } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { idIn, readJson } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { saveSteps } from '../../../service/piece'

const bodySchema = z.strictObject({
  base: z.int().min(0).max(MOST_INTEGER),
  on: z.string().max(40).optional(),
  transactions: z.array(transactionSchema).min(1).max(200),
})

export default answer(async (event) => {
  const account = await requireAccount(event)
  const { base, on, transactions } = await readJson(event, bodySchema, 32)
  return saveSteps(database(), account.id, idIn(event), { base, on }, transactions)
})
