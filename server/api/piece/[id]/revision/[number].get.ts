import { database } from '../../../../database/connection'
import { answer, asJson } from '../../../../http/answer'
import { idIn, revisionIn } from '../../../../http/read'
import { requireAccount } from '../../../../http/session'
import { openPiece } from '../../../../service/piece'

/** The piece as it was at a revision. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const number = revisionIn(event, 'number')
  return asJson(event, await openPiece(database(), account.id, idIn(event), number))
})
