import { getQuery } from 'h3'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { requireAccount } from '../../http/session'
import { listPieces } from '../../service/piece'

/** The pieces of the workshop; with `?away=1` those that were put away. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  return { pieces: await listPieces(database(), account.id, { away: getQuery(event).away === '1' }) }
})
