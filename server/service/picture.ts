import type { Database } from '../database/connection'
import { done } from '../heavy/pool'
import type { Ground } from '../heavy/work'
import { pieceAt } from './piece-store'
import { pointOf } from './piece'
import { notFound } from './failure'
import { RATES, spend } from './rate'

/**
 * The picture of a piece at a revision. That of the newest is kept in the database: it is drawn once, whoever asks and
 * however often.
 */
export async function workshopPicture(
  db: Database,
  accountId: string,
  id: string,
  revision: number,
  ground: Ground,
): Promise<Buffer> {
  const point = await pointOf(db, accountId, id, revision)
  const { head } = point
  const kept = await db('picture')
    .where({ piece_id: id, ground, revision, head })
    .first<{ png: Buffer } | undefined>('png')
  if (kept) return kept.png
  await spend(db, `picture ${accountId}`, RATES.picture)
  const found = await pieceAt(db, { accountId, id }, point)
  if (!found) throw notFound()
  const png = Buffer.from(await done('pictured', { piece: found.piece, ground }, { little: false }))
  if (point.newest)
    await db('picture')
      .insert({ piece_id: id, ground, revision, head, png })
      .onConflict(['piece_id', 'ground'])
      .merge()
  return png
}
