import { getQuery } from 'h3'
import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { idIn } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { putAway, removeForGood } from '../../../service/piece'

/** Puts a piece away; with `?for=good` it removes one that is put away already. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const remove = getQuery(event).for === 'good' ? removeForGood : putAway
  await remove(database(), account.id, idIn(event))
  return { ok: true }
})
