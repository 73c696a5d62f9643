import { randomBytes } from 'node:crypto'
import type { Database } from '../server/database/connection'
import { DEMO_SIGN_IN, join } from '../server/service/account'
import { createPiece } from '../server/service/piece'
import { keep } from '../server/service/shelf'
import { DEMO_PIECES } from './pieces'
import { DEMO_SHELF } from './shelf'

/** Lays the demo workshop out in an empty database; says whether it did. Its password is random: it opens by its button only. */
export async function seedDemo(db: Database): Promise<boolean> {
  const anyone = await db('account').first('id')
  if (anyone) return false
  const account = await join(db, { signIn: DEMO_SIGN_IN, password: randomBytes(24).toString('base64url') })
  for (const piece of DEMO_PIECES.toReversed()) await createPiece(db, account.id, piece)
  await keep(db, account.id, DEMO_SHELF)
  return true
}
