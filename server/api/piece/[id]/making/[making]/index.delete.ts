import { database } from '../../../../../database/connection'
import { answer } from '../../../../../http/answer'
import { idIn } from '../../../../../http/read'
import { requireAccount } from '../../../../../http/session'
import { removeMaking } from '../../../../../service/making'

/** Removes a making for good. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  await removeMaking(database(), account.id, idIn(event), idIn(event, 'making'))
  return { removed: true }
})
