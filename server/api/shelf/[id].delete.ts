import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { idIn } from '../../http/read'
import { requireAccount } from '../../http/session'
import { takeOff } from '../../service/shelf'

export default answer(async (event) => {
  const account = await requireAccount(event)
  await takeOff(database(), account.id, idIn(event))
  return { gone: true }
})
