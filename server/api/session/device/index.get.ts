import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { requireAccount, sessionId } from '../../../http/session'
import { listSessions } from '../../../service/account'

/** Where this person is signed in. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  return { devices: await listSessions(database(), account.id, (await sessionId(event))!) }
})
