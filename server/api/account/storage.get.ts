import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { requireAccount } from '../../http/session'
import { storageOf } from '../../service/storage'

/** How much of its room an account fills. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  return storageOf(database(), account.id)
})
