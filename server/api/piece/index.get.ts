import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { requireAccount } from '../../http/session'
import { listPieces } from '../../service/piece'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return { pieces: await listPieces(database(), account.id) }
})
