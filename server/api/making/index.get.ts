import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { requireAccount } from '../../http/session'
import { listMakings } from '../../service/making'

/** Makings of all pieces in the workshop. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  return { makings: await listMakings(database(), account.id) }
})
