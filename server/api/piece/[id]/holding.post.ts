import { z } from 'zod'
import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { idIn, readJson } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { changeHoldings, listHoldings } from '../../../service/holding'

const bodySchema = z.strictObject({
  what: z.enum(['reserve', 'release', 'take', 'back']),
  asks: z
    .array(z.strictObject({ shelfId: z.uuid(), amount: z.number().positive().max(100_000_000) }))
    .max(300)
    .default([]),
})

export default answer(async (event) => {
  const account = await requireAccount(event)
  const { what, asks } = await readJson(event, bodySchema)
  await changeHoldings(database(), account.id, idIn(event), what, asks)
  return { holdings: await listHoldings(database(), account.id) }
})
