import type { Listing } from '../../core/contract/piece'
import type { Point } from '../../core/piece/catch-up'
import { storedCells, type Piece } from '../../core/piece/piece'
import type { Database } from '../database/connection'
import { done } from '../heavy/pool'
import { headAt } from './revision'

/** What is read or written at once without holding anybody up; more goes to a worker. */
export const LITTLE_BYTES = 60_000
export const LITTLE_CELLS = 10_000

/** How much longer a snapshot is once it is unpacked. */
const PACKED_TIMES = 5

/** A snapshot is written at least every so many revisions, so that opening replays few steps. */
export const SNAPSHOT_EVERY = 64

/**
 * Documents by owner, piece, revision and the transaction that made it. Such a document never changes and a piece
 * keeps its owner, so an entry cannot be wrong, only unneeded: losing the whole cache, having one in each instance, or
 * a database that was put back to an earlier day, changes no answer.
 */
const cache = new Map<string, Piece>()
/** Cells of all of them. */
let cells = 0
const CACHE_CELLS = 12_000_000
const CACHE_ENTRIES = 64

/** Cells that a piece keeps. */
const cellCount = (piece: Piece): number => piece.parts.reduce((sum, part) => sum + storedCells(part), 0)
const keyOf = ({ accountId, id }: Owned, { revision, head }: Point): string => `${accountId}/${id}@${revision} ${head}`

/** A piece as its owner names it. */
interface Owned {
  readonly accountId: string
  readonly id: string
}

/** The document if it was in hand lately; having it means that the owner was checked then. */
export const recall = (owned: Owned, at: Point): Piece | undefined => cache.get(keyOf(owned, at))

export function remember(owned: Owned, at: Point, piece: Piece): void {
  const name = keyOf(owned, at)
  const there = cache.get(name)
  if (there) cells -= cellCount(there)
  cells += cellCount(piece)
  cache.set(name, piece)
  for (const [key, old] of cache) {
    if ((cache.size <= CACHE_ENTRIES && cells <= CACHE_CELLS) || cache.size === 1) break
    cache.delete(key)
    cells -= cellCount(old)
  }
}

/** A piece as it stood at a point of its line. */
export interface Standing extends Point {
  readonly piece: Piece
}

/**
 * A piece at a revision, from the cache or from the nearest snapshot and the steps after it; where those are no longer
 * kept, the last state before it that is. Access has been checked by the caller.
 */
export async function pieceAt(db: Database, owned: Owned, at: Point): Promise<Standing | null> {
  const kept = recall(owned, at)
  if (kept) return { ...at, piece: kept }
  const { id } = owned
  const snapshot = await db('snapshot')
    .where({ piece_id: id })
    .andWhere('revision', '<=', at.revision)
    .orderBy('revision', 'desc')
    .first<{ revision: number; body: Buffer }>()
  if (!snapshot) return null
  const rows = await db('revision')
    .where({ piece_id: id })
    .whereBetween('number', [snapshot.revision + 1, at.revision])
    .orderBy('number')
    .select<{ steps: string | null }[]>(db.raw('steps::text as steps'))
  if (rows.length !== at.revision - snapshot.revision) return null
  const steps: string[] = []
  for (const row of rows) {
    if (row.steps === null) break
    steps.push(row.steps)
  }
  const revision = snapshot.revision + steps.length
  const point = { revision, head: revision === at.revision ? at.head : await headAt(db, id, revision) }
  const bytes = steps.reduce((sum, text) => sum + text.length, PACKED_TIMES * snapshot.body.length)
  const piece = await done('replayed', { snapshot: snapshot.body, steps }, { little: bytes <= LITTLE_BYTES })
  remember(owned, point, piece)
  return { ...point, piece }
}

/** A snapshot of a piece as it is stored. */
export const packPiece = (piece: Piece): Promise<Uint8Array> =>
  done('packed', piece, { little: cellCount(piece) <= LITTLE_CELLS })

/** What the workshop shows of a piece. */
export const summaryOf = (piece: Piece): Promise<Listing['summary']> =>
  done('summarised', piece, { little: cellCount(piece) <= LITTLE_CELLS })

/** The body of a piece as JSON. */
export const writePiece = (piece: Piece): Promise<string> =>
  done('written', piece, { little: cellCount(piece) <= LITTLE_CELLS })

/** A piece as its file, on one line. */
export const writePieceFile = (piece: Piece): Promise<string> =>
  done('filed', piece, { little: cellCount(piece) <= LITTLE_CELLS })
