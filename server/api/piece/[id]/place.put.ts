import { z } from 'zod'
import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { idIn, readJson } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { keepPlace } from '../../../service/place'

const bodySchema = z.strictObject({ part: z.string().min(1).max(40), move: z.int().min(0).max(10_000_000) })

export default answer(async (event) => {
  const account = await requireAccount(event)
  const { part, move } = await readJson(event, bodySchema)
  await keepPlace(database(), account.id, idIn(event), part, move)
  return { kept: true }
})
