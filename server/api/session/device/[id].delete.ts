import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { idIn } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { closeOther } from '../../../service/account'

/** Signs another device of this person out. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  await closeOther(database(), account.id, idIn(event))
  return { gone: true }
})
