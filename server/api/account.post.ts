import { database } from '../database/connection'
import { answer } from '../http/answer'
import { readJson } from '../http/read'
import { addressOf, enter } from '../http/session'
import { credentialsSchema, join } from '../service/account'
import { RATES, spend } from '../service/rate'

export default answer(async (event) => {
  await spend(database(), `join ${addressOf(event)}`, RATES.join)
  const account = await join(database(), await readJson(event, credentialsSchema))
  await enter(event, account)
  return { account }
})
