import { z } from 'zod'
import { shelfValueSchema } from '../../../core/shelf/shelf'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { idIn, readJson } from '../../http/read'
import { requireAccount } from '../../http/session'
import { change } from '../../service/shelf'

const bodySchema = z.strictObject({ before: shelfValueSchema, value: shelfValueSchema })

export default answer(async (event) => {
  const account = await requireAccount(event)
  const { before, value } = await readJson(event, bodySchema, 2)
  return { item: await change(database(), account.id, idIn(event), before, value) }
})
