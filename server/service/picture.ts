import { pictureOf } from '../../core/picture/picture'
import { sizeOnScreen } from '../../core/picture/view'
import type { Piece } from '../../core/piece/piece'
import type { Database } from '../database/connection'
import { pieceAt } from './piece-store'
import { pointOf } from './piece'
import { notFound } from './failure'
import { RATES, spend } from './rate'

const GROUNDS = { day: '#cfc6b8', evening: '#35302c' } as const
export type Ground = keyof typeof GROUNDS

function render(piece: Piece, ground: Ground): Buffer {
  const part = piece.parts[0]!
  const tall = sizeOnScreen(part, { lie: 'level', scale: 1 }).height
  const scale = Math.min(14, Math.max(2, 236 / Math.max(1, tall)))
  return Buffer.from(
    pictureOf(part, piece.tray, {
      lie: 'level',
      scale,
      ground: GROUNDS[ground],
      glyphs: false,
      margin: 32,
      most: { width: 1120, height: 300 },
    }),
  )
}

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
  const piece = await pieceAt(db, { accountId, id }, point)
  if (!piece) throw notFound()
  const png = render(piece, ground)
  if (point.newest)
    await db('picture')
      .insert({ piece_id: id, ground, revision, head, png })
      .onConflict(['piece_id', 'ground'])
      .merge()
  return png
}
