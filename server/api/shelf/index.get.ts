import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { requireAccount } from '../../http/session'
import { listShelf } from '../../service/shelf'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return { items: await listShelf(database(), account.id) }
})
