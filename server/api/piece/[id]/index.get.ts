import { getRouterParam } from 'h3'
import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { requireAccount } from '../../../http/session'
import { openPiece } from '../../../service/piece'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return openPiece(database(), account.id, getRouterParam(event, 'id')!)
})
