import { credentialsSchema } from '../../../core/contract/name'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { readJson } from '../../http/read'
import { addressOf, enter } from '../../http/session'
import { join, requireFreeName } from '../../service/account'
import { RATES, spend } from '../../service/rate'

/** A new account. What cannot be one costs nothing of the rate; asking which names are taken has a rate of its own. */
export default answer(async (event) => {
  const credentials = await readJson(event, credentialsSchema)
  await requireFreeName(database(), credentials.signIn, () =>
    spend(database(), `taken ${addressOf(event)}`, RATES.taken),
  )
  await spend(database(), `join ${addressOf(event)}`, RATES.join)
  const account = await join(database(), credentials)
  await enter(event, account)
  return { account }
})
