import { credentialsSchema } from '../../../core/contract/name'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { readJson } from '../../http/read'
import { addressOf, enter } from '../../http/session'
import { guessKey, signIn } from '../../service/account'
import { RATES, spend, unspend } from '../../service/rate'

/** Guesses are counted by account and address together, so that nobody can lock a weaver out from elsewhere. */
export default answer(async (event) => {
  const credentials = await readJson(event, credentialsSchema)
  const address = addressOf(event)
  const keys = { pair: guessKey(credentials.signIn, address), from: `sign-in from ${address}` }
  await spend(database(), keys.from, RATES.signInFrom)
  await spend(database(), keys.pair, RATES.signIn)
  const account = await signIn(database(), credentials)
  await unspend(database(), keys.from)
  await unspend(database(), keys.pair)
  await enter(event, account)
  return { account }
})
