import { syncBody } from '../../../../../../core/contract/making'
import { timeHere } from '../../../../../../core/making/event'
import { database } from '../../../../../database/connection'
import { answer } from '../../../../../http/answer'
import { idIn, readJson } from '../../../../../http/read'
import { requireAccount } from '../../../../../http/session'
import { addEvents } from '../../../../../service/making'

/** Takes events of a browser, by its own clock, and answers with what it does not know yet. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const { after, now, events } = await readJson(event, syncBody)
  const here = Date.now()
  return addEvents(database(), account.id, idIn(event), idIn(event, 'making'), {
    after,
    events: events.map((e) => ({ ...e, at: timeHere(e.at, now, here) })),
  })
})
