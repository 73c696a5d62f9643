import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { requireAccount } from '../../http/session'
import { listHoldings } from '../../service/holding'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return { holdings: await listHoldings(database(), account.id) }
})
