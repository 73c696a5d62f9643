import { database } from '../database/connection'
import { answer } from '../http/answer'

export default answer(async () => {
  await database().raw('select 1')
  return { ok: true }
})
