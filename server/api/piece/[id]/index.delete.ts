import { getRouterParam } from 'h3'
import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { requireAccount } from '../../../http/session'
import { removePiece } from '../../../service/piece'

export default answer(async (event) => {
  const account = await requireAccount(event)
  await removePiece(database(), account.id, getRouterParam(event, 'id')!)
  return { ok: true }
})
