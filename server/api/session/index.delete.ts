import { getQuery } from 'h3'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { leave, requireAccount, sessionId } from '../../http/session'
import { closeAllSessions, closeSession } from '../../service/account'

/** Signs out here, or everywhere with `?everywhere=1`. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const sid = await sessionId(event)
  if (getQuery(event).everywhere === '1') await closeAllSessions(database(), account.id)
  else if (sid) await closeSession(database(), sid)
  await leave(event)
  return { ok: true }
})
