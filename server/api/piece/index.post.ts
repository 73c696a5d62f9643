import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { readBytes } from '../../http/read'
import { requireAccount } from '../../http/session'
import { takePiece } from '../../service/piece'
import { RATES, spend } from '../../service/rate'

/** Takes a new piece in its plain form: just begun, or read from a file. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  await spend(database(), `create ${account.id}`, RATES.create)
  return takePiece(database(), account.id, await readBytes(event, 64))
})
