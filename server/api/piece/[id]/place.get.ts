import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { idIn } from '../../../http/read'
import { requireAccount } from '../../../http/session'
import { readPlaces } from '../../../service/place'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return { places: await readPlaces(database(), account.id, idIn(event)) }
})
