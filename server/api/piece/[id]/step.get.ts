import { getQuery } from 'h3'
import { database } from '../../../database/connection'
import { answer, asJson } from '../../../http/answer'
import { idIn, wholeIn } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { lastRevisions, revisionsAfter } from '../../../service/piece'
import { MOST_MISSING } from '../../../service/revision'

/**
 * The revisions after `?after=n`: what another tab or device must still apply; `&on=` names the transaction that made
 * revision n, as the asker knows it. With `?last=n` the newest n instead.
 */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const { after, on, last } = getQuery(event)
  const id = idIn(event)
  if (last !== undefined)
    return asJson(event, await lastRevisions(database(), account.id, id, Math.min(MOST_MISSING, wholeIn(last))))
  const stand = { base: wholeIn(after), on: typeof on === 'string' ? on : undefined }
  return asJson(event, await revisionsAfter(database(), account.id, id, stand))
})
