import { settingsSchema } from '../../core/contract/settings'
import { database } from '../database/connection'
import { answer } from '../http/answer'
import { readJson } from '../http/read'
import { requireAccount } from '../http/session'
import { saveSettings } from '../service/account'

export default answer(async (event) => {
  const account = await requireAccount(event)
  return { settings: await saveSettings(database(), account.id, await readJson(event, settingsSchema)) }
})
