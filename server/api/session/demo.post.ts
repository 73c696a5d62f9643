import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { demoAllowed } from '../../http/demo'
import { enter } from '../../http/session'
import { findDemoAccount } from '../../service/account'
import { notFound } from '../../service/failure'

export default answer(async (event) => {
  const account = demoAllowed(event) ? await findDemoAccount(database()) : null
  if (!account) throw notFound()
  await enter(event, account)
  return { account }
})
