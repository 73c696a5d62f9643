import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { requireAccount } from '../../http/session'
import { listRecords } from '../../service/making'

/** What was written down of finished makings. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  return { records: await listRecords(database(), account.id) }
})
