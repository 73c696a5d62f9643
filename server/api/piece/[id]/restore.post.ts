import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { idIn } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { restorePiece } from '../../../service/piece'

/** Puts a removed piece back into the workshop. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  await restorePiece(database(), account.id, idIn(event))
  return { ok: true }
})
