import { database } from '../../../database/connection'
import { deviceState } from '../../../device/device'
import { answer } from '../../../http/answer'
import { requireDevice } from '../../../http/device'
import { requireAccount } from '../../../http/session'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return { state: await deviceState(database(), account.id, requireDevice(event)) }
})
