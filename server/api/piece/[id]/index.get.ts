import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { idIn } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { openPiece } from '../../../service/piece'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return openPiece(database(), account.id, idIn(event))
})
