import { database } from '../../../database/connection'
import { answer, asJson } from '../../../http/answer'
import { idIn } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { proofreadPiece } from '../../../service/piece'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return asJson(event, await proofreadPiece(database(), account.id, idIn(event)))
})
