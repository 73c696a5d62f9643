import { randomBytes } from 'node:crypto'
import type { Database } from '../server/database/connection'
import { DEMO_SIGN_IN } from '../core/contract/account'
import { join } from '../server/service/account'
import { createPiece } from '../server/service/piece'
import { shelfValueSchema } from '../core/shelf/shelf'
import { changeHoldings } from '../server/service/holding'
import { keep } from '../server/service/shelf'
import { keepMaking } from '../server/service/making'
import { SAMPLE_MAKINGS, sampleEvents } from './makings'
import { DEMO_PIECES } from './pieces'
import { DEMO_HOLDINGS, DEMO_SHELF } from './shelf'

/**
 * Lays the demo workshop out in an empty database; says whether it did. Its password is random: it opens by its button
 * only.
 */
export async function seedDemo(db: Database): Promise<boolean> {
  const anyone = await db('account').first('id')
  if (anyone) return false
  const account = await join(db, { signIn: DEMO_SIGN_IN, password: randomBytes(24).toString('base64url') })
  const pieces = new Map<string, string>()
  for (const piece of DEMO_PIECES.toReversed()) pieces.set(piece.name, (await createPiece(db, account.id, piece)).id)
  const items = await keep(
    db,
    account.id,
    DEMO_SHELF.map((value) => shelfValueSchema.parse(value)),
  )
  for (const name of new Set(DEMO_HOLDINGS.map((h) => h.piece))) {
    const asks = DEMO_HOLDINGS.filter((h) => h.piece === name).map((h) => ({
      shelfId: items.find((i) => i.value.kind === 'bead' && i.value.name === h.bead)!.id,
      amount: h.grams,
    }))
    await changeHoldings(db, account.id, pieces.get(name)!, 'reserve', asks)
  }
  for (const plan of SAMPLE_MAKINGS) {
    const piece = DEMO_PIECES.find((p) => p.name === plan.piece)!
    await keepMaking(db, pieces.get(plan.piece)!, 'sample', sampleEvents(piece, plan, Date.now()))
  }
  return true
}
