import { beginBody } from '../../../../../core/contract/making'
import { database } from '../../../../database/connection'
import { answer } from '../../../../http/answer'
import { idIn, readJson } from '../../../../http/read'
import { requireAccount } from '../../../../http/session'
import { beginMaking } from '../../../../service/making'

/** Begins a making. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const begin = await readJson(event, beginBody)
  return { making: await beginMaking(database(), account.id, idIn(event), begin) }
})
