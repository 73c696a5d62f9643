import { database } from '../../../database/connection'
import { deviceStateSchema } from '../../../../core/device/state'
import { setDevice } from '../../../device/device'
import { answer } from '../../../http/answer'
import { readJson } from '../../../http/read'
import { requireDevice } from '../../../http/device'
import { requireAccount } from '../../../http/session'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return {
    state: await setDevice(database(), account.id, requireDevice(event), await readJson(event, deviceStateSchema)),
  }
})
