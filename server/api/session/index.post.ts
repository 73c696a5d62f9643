import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { readJson } from '../../http/read'
import { addressOf, enter } from '../../http/session'
import { credentialsSchema, signIn } from '../../service/account'
import { RATES, spend } from '../../service/rate'

export default answer(async (event) => {
  const credentials = await readJson(event, credentialsSchema)
  await spend(database(), `sign-in ${addressOf(event)}`, RATES.signIn)
  await spend(database(), `sign-in as ${credentials.signIn.toLowerCase()}`, RATES.signIn)
  const account = await signIn(database(), credentials)
  await enter(event, account)
  return { account }
})
