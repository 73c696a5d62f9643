import type { Database } from '../database/connection'
import { notFound } from './failure'

/** Moves done so far, by part of the piece. */
type Places = Readonly<Record<string, number>>

async function own<T>(db: Database, accountId: string, pieceId: string, work: () => Promise<T>): Promise<T> {
  const piece = await db('piece').where({ id: pieceId, account_id: accountId }).whereNull('removed_at').first('id')
  if (!piece) throw notFound()
  return work()
}

export function readPlaces(db: Database, accountId: string, pieceId: string): Promise<Places> {
  return own(db, accountId, pieceId, async () => {
    const rows = await db('making_place')
      .where({ piece_id: pieceId })
      .select<{ part: string; move: number }[]>('part', 'move')
    return Object.fromEntries(rows.map((r) => [r.part, r.move]))
  })
}

export function keepPlace(
  db: Database,
  accountId: string,
  pieceId: string,
  part: string,
  move: number,
): Promise<void> {
  return own(db, accountId, pieceId, async () => {
    await db('making_place')
      .insert({ piece_id: pieceId, part, move, updated_at: db.fn.now() })
      .onConflict(['piece_id', 'part'])
      .merge()
  })
}
