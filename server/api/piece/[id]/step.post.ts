import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { idIn, readBytes } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { saveSteps } from '../../../service/piece'

/** Takes what a browser has done (server/heavy/sent.ts). */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const id = idIn(event)
  return saveSteps(database(), account.id, id, await readBytes(event, 32))
})
