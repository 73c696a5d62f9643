import { getQuery } from 'h3'
import { database } from '../../../../../database/connection'
import { answer } from '../../../../../http/answer'
import { idIn, wholeIn } from '../../../../../http/read'
import { requireAccount } from '../../../../../http/session'
import { readMaking } from '../../../../../service/making'

/** A making with its events after one of them. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const after = wholeIn(getQuery(event).after)
  return readMaking(database(), account.id, idIn(event), idIn(event, 'making'), after)
})
