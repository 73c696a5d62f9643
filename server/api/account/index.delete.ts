import { confirmedSchema } from '../../../core/contract/name'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { readJson } from '../../http/read'
import { leave, requireAccount } from '../../http/session'
import { removeAccount } from '../../service/account'
import { RATES, spend } from '../../service/rate'

/** Removes the account with everything it owns. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const { password } = await readJson(event, confirmedSchema)
  await spend(database(), `password ${account.id}`, RATES.signIn)
  await removeAccount(database(), account, password)
  await leave(event)
  return { gone: true }
})
