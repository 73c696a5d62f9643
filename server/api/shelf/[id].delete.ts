import { getRouterParam } from 'h3'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { requireAccount } from '../../http/session'
import { takeOff } from '../../service/shelf'

export default answer(async (event) => {
  const account = await requireAccount(event)
  await takeOff(database(), account.id, getRouterParam(event, 'id')!)
  return { gone: true }
})
