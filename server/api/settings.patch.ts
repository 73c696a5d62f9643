import { settingsChangeSchema } from '../../core/contract/settings'
import { database } from '../database/connection'
import { answer } from '../http/answer'
import { readJson } from '../http/read'
import { requireAccount } from '../http/session'
import { changeSettings } from '../service/account'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return { settings: await changeSettings(database(), account.id, await readJson(event, settingsChangeSchema)) }
})
