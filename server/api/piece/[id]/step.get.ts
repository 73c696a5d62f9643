import { getQuery, getRouterParam } from 'h3'
import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { requireAccount } from '../../../http/session'
import { lastRevisions, MOST_MISSING, revisionsAfter } from '../../../service/piece'

const whole = (value: unknown): number => Math.max(0, Math.trunc(Number(value ?? 0)) || 0)

/**
 * The revisions after `?after=n`: what another tab or device must still apply; `&on=` names the transaction that made
 * revision n, as the asker knows it. With `?last=n` the newest n instead.
 */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const { after, on, last } = getQuery(event)
  const id = getRouterParam(event, 'id')!
  if (last !== undefined) return lastRevisions(database(), account.id, id, Math.min(MOST_MISSING, whole(last)))
  return revisionsAfter(database(), account.id, id, {
    base: whole(after),
    on: typeof on === 'string' ? on : undefined,
  })
})
