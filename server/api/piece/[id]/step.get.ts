import { getQuery, getRouterParam } from 'h3'
import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { requireAccount } from '../../../http/session'
import { revisionsAfter } from '../../../service/piece'

/** The revisions after `?after=n`: what another tab or device must still apply. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const after = Math.max(0, Math.trunc(Number(getQuery(event).after ?? 0)) || 0)
  return revisionsAfter(database(), account.id, getRouterParam(event, 'id')!, after)
})
