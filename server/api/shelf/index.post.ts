import { z } from 'zod'
import { shelfValueSchema } from '../../../core/shelf/shelf'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { readJson } from '../../http/read'
import { requireAccount } from '../../http/session'
import { keep } from '../../service/shelf'

const bodySchema = z.strictObject({ values: z.array(shelfValueSchema).min(1).max(200) })

export default answer(async (event) => {
  const account = await requireAccount(event)
  const { values } = await readJson(event, bodySchema, 4)
  return { items: await keep(database(), account.id, values) }
})
