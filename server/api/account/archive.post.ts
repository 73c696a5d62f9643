import { LONGEST_LINE } from '../../../core/contract/archive'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { requireAccount } from '../../http/session'
import { withLines } from '../../http/spool'
import { readArchive } from '../../service/archive'
import { RATES, spend } from '../../service/rate'

/** Reads an archive into an account that is still empty. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  await spend(database(), `archive ${account.id}`, RATES.archive)
  return withLines(event, { mostMb: 250, longest: LONGEST_LINE }, (lines) =>
    readArchive(database(), account.id, lines),
  )
})
