import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import type { Point } from '../../core/piece/catch-up'
import { pieceFromBody, pieceToBody } from '../../core/piece/codec'
import type { Piece } from '../../core/piece/piece'
import { columnsOf } from '../../core/piece/piece'
import { upgradeBody, upgradeStep } from '../../core/piece/upgrade'
import { applySteps, type Step } from '../../core/piece/step'
import { valueOf } from '../../core/problem'
import type { Database } from '../database/connection'

const pack = promisify(gzip)
const unpack = promisify(gunzip)

export const packPiece = (piece: Piece): Promise<Buffer> => pack(JSON.stringify(pieceToBody(piece)), { level: 4 })

const unpackPiece = async (body: Buffer): Promise<Piece> =>
  valueOf(pieceFromBody(upgradeBody(JSON.parse((await unpack(body)).toString('utf8')))))

/** A snapshot is written at least every so many revisions, so that opening replays few steps. */
export const SNAPSHOT_EVERY = 64

/**
 * Documents by owner, piece, revision and the transaction that made it. Such a document never changes and a piece
 * keeps its owner, so an entry cannot be wrong, only unneeded: losing the whole cache, having one in each instance, or
 * a database that was put back to an earlier day, changes no answer.
 */
const cache = new Map<string, Piece>()
const CACHE_CELLS = 12_000_000
const CACHE_ENTRIES = 64

const cellCount = (piece: Piece): number =>
  piece.parts.reduce((sum, p) => sum + columnsOf(p) * (p.start.rows + p.repeat.rows + p.end.rows), 0)
const keyOf = ({ accountId, id }: Owned, { revision, head }: Point): string => `${accountId}/${id}@${revision} ${head}`

/** A piece as its owner names it. */
export interface Owned {
  readonly accountId: string
  readonly id: string
}

/** The document if it was in hand lately; having it means that the owner was checked then. */
export const recall = (owned: Owned, at: Point): Piece | undefined => cache.get(keyOf(owned, at))

export function remember(owned: Owned, at: Point, piece: Piece): void {
  cache.set(keyOf(owned, at), piece)
  let cells = 0
  for (const kept of cache.values()) cells += cellCount(kept)
  for (const [key, old] of cache) {
    if (cache.size <= CACHE_ENTRIES && cells <= CACHE_CELLS) break
    if (cache.size === 1) break
    cache.delete(key)
    cells -= cellCount(old)
  }
}

/**
 * A piece at a revision, from the cache or from the nearest snapshot and the steps after it. Access has been checked
 * by the caller.
 */
export async function pieceAt(db: Database, owned: Owned, at: Point): Promise<Piece | null> {
  const { revision } = at
  const kept = recall(owned, at)
  if (kept) return kept
  const { id } = owned
  const snapshot = await db('snapshot')
    .where({ piece_id: id })
    .andWhere('revision', '<=', revision)
    .orderBy('revision', 'desc')
    .first<{ revision: number; body: Buffer }>()
  if (!snapshot) return null
  let piece = await unpackPiece(snapshot.body)
  const rows = await db('revision')
    .where({ piece_id: id })
    .whereBetween('number', [snapshot.revision + 1, revision])
    .orderBy('number')
    .select<{ number: number; steps: Step[] }[]>('number', 'steps')
  if (rows.length !== revision - snapshot.revision) return null
  for (const { steps } of rows) piece = valueOf(applySteps(piece, steps.map(upgradeStep)))
  remember(owned, at, piece)
  return piece
}
