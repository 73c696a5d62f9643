import { pieceFromBody } from '../../../core/piece/codec'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { readJsonText } from '../../http/read'
import { requireAccount } from '../../http/session'
import { unsound } from '../../service/failure'
import { createPiece } from '../../service/piece'
import { RATES, spend } from '../../service/rate'

/** Takes a new piece in its plain form: just begun, or read from a file. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  await spend(database(), `create ${account.id}`, RATES.create)
  const piece = pieceFromBody(await readJsonText(event, 64))
  if (!piece.ok) throw unsound(piece.problems)
  return createPiece(database(), account.id, piece.value)
})
