import { database } from '../../../../database/connection'
import { answer } from '../../../../http/answer'
import { idIn } from '../../../../http/read'
import { requireAccount } from '../../../../http/session'
import { listMakings } from '../../../../service/making'

/** Makings of a piece. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  return { makings: await listMakings(database(), account.id, idIn(event)) }
})
