import { passwordChangeSchema } from '../../../core/contract/name'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { readJson } from '../../http/read'
import { requireAccount, sessionId } from '../../http/session'
import { changePassword } from '../../service/account'
import { RATES, spend } from '../../service/rate'

export default answer(async (event) => {
  const account = await requireAccount(event)
  const change = await readJson(event, passwordChangeSchema)
  await spend(database(), `password ${account.id}`, RATES.signIn)
  await changePassword(database(), account.id, (await sessionId(event))!, change)
  return { changed: true }
})
