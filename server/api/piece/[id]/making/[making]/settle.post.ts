import { settleBody } from '../../../../../../core/contract/making'
import { database } from '../../../../../database/connection'
import { answer } from '../../../../../http/answer'
import { idIn, readJson } from '../../../../../http/read'
import { requireAccount } from '../../../../../http/session'
import { listHoldings } from '../../../../../service/holding'
import { settleMaking } from '../../../../../service/making'

/** Settles the box from a making, or undoes it. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  await settleMaking(database(), account.id, idIn(event), idIn(event, 'making'), await readJson(event, settleBody))
  return { holdings: await listHoldings(database(), account.id) }
})
