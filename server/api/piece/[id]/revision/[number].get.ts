import { getRouterParam } from 'h3'
import { database } from '../../../../database/connection'
import { answer } from '../../../../http/answer'
import { requireAccount } from '../../../../http/session'
import { notFound } from '../../../../service/failure'
import { openPiece } from '../../../../service/piece'

/** The piece as it was at a revision. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const number = Number(getRouterParam(event, 'number'))
  if (!Number.isSafeInteger(number) || number < 0) throw notFound()
  return openPiece(database(), account.id, getRouterParam(event, 'id')!, number)
})
