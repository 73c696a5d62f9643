import type { Listing } from '../../core/contract/piece'
import type { Point } from '../../core/piece/catch-up'
import { awaited } from '../../core/piece/awaited'
import { checkEffort } from '../../core/piece/effort'
import type { Piece } from '../../core/piece/piece'
import { tallyPiece, totalOf } from '../../core/tally/tally'
import { prepared, type Database } from '../database/connection'
import { isUniqueViolation } from '../database/errors'
import { done } from '../heavy/pool'
import { beginning, effortOfAll, readSent, type Begun, type Moved } from '../heavy/work'
import { Failure, notFound, sound } from './failure'
import {
  LITTLE_BYTES,
  LITTLE_CELLS,
  packPiece,
  pieceAt,
  recall,
  remember,
  SNAPSHOT_EVERY,
  summaryOf,
  writePiece,
  type Standing,
} from './piece-store'
import { RATES, spend, spendEffort } from './rate'
import { headAt, lastMissing, missingAfter, type Stand } from './revision'
import { requireRoom } from './storage'

/** Id of the transaction that made the newest revision. */
const HEAD =
  '(select transaction_id from revision where revision.piece_id = piece.id and revision.number = piece.revision)'

interface OwnRow {
  revision: number
  head: string | null
  removed_at: Date | null
}

/** Where the piece stands. A piece that was put away says so, unless that is no matter; another's is none. */
export async function requireOwn(db: Database, accountId: string, id: string, { away = false } = {}): Promise<Point> {
  const row = await db('piece')
    .where({ id, account_id: accountId })
    .first<OwnRow>('revision', 'removed_at', db.raw(`${HEAD} as head`))
  if (!row) throw notFound()
  if (row.removed_at && !away)
    throw new Failure(410, 'put-away', 'This piece was put away. Bring it back from what is put away in the workshop.')
  return { revision: row.revision, head: row.head ?? '' }
}

interface ListedRow {
  id: string
  name: string
  revision: number
  head: string | null
  updated_at: Date
  summary: Listing['summary']
  /** The revision that the summary is of. */
  summarised: number
}

/** How long a listing works out summaries: what is left is listed as it last was, and is worked out by the next. */
const SUMMARIES_MS = 500

/** The summary of a piece changed since it was last listed; what cannot be opened is listed as it last was. */
async function newSummary(db: Database, accountId: string, row: ListedRow): Promise<Listing['summary']> {
  const { id, revision } = row
  try {
    const found = await pieceAt(db, { accountId, id }, { revision, head: row.head ?? '' })
    if (found?.revision !== revision) return row.summary
    const summary = await summaryOf(found.piece)
    await db('piece')
      .where({ id, revision })
      .update({ summary: JSON.stringify(summary), summarised: revision })
    return summary
  } catch {
    return row.summary
  }
}

export async function listPieces(db: Database, accountId: string, { away = false } = {}): Promise<Listing[]> {
  const query = db('piece').where({ account_id: accountId }).limit(500)
  const rows = await (
    away
      ? query.whereNotNull('removed_at').orderBy('removed_at', 'desc')
      : query.whereNull('removed_at').orderBy('updated_at', 'desc')
  ).select<ListedRow[]>('id', 'name', 'revision', 'updated_at', 'summary', 'summarised', db.raw(`${HEAD} as head`))
  const until = performance.now() + SUMMARIES_MS
  for (const row of rows) {
    if (row.summarised === row.revision) continue
    if (performance.now() > until) break
    row.summary = await newSummary(db, accountId, row)
  }
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    revision: r.revision,
    head: r.head ?? '',
    updatedAt: r.updated_at.toISOString(),
    summary: r.summary,
  }))
}

/** Takes a new piece from the bytes of its body; in a worker, for a short one can be of a million beads. */
export const takePiece = async (db: Database, accountId: string, bytes: Uint8Array): Promise<Created> =>
  storePiece(db, accountId, sound(await done('begun', bytes, { little: false })))

export const createPiece = (db: Database, accountId: string, piece: Piece): Promise<Created> =>
  storePiece(db, accountId, beginning(piece))

interface Created {
  readonly id: string
  readonly revision: number
}

async function storePiece(db: Database, accountId: string, begun: Begun): Promise<Created> {
  await requireRoom(db, accountId, begun.snapshot.length)
  const id = await db.transaction((trx) => insertPiece(trx, accountId, begun))
  remember({ accountId, id }, { revision: 0, head: '' }, begun.piece)
  return { id, revision: 0 }
}

/** Stores a piece that begins here, within a transaction. Answers its id. */
export async function insertPiece(
  trx: Database,
  accountId: string,
  { piece, summary, snapshot }: Begun,
  { updatedAt, away = false }: { readonly updatedAt?: string; readonly away?: boolean } = {},
): Promise<string> {
  const [row] = await trx('piece')
    .insert({
      account_id: accountId,
      name: piece.name,
      summary: JSON.stringify(summary),
      ...(updatedAt === undefined ? {} : { updated_at: updatedAt }),
      ...(away ? { removed_at: trx.fn.now() } : {}),
    })
    .returning<{ id: string }[]>('id')
  await trx('snapshot').insert({ piece_id: row!.id, revision: 0, body: Buffer.from(snapshot) })
  return row!.id
}

/**
 * A piece now or at an earlier revision, as JSON. Where the steps of that revision are no longer kept it is the last
 * state before it that is; the answer says which.
 */
export async function openPiece(db: Database, accountId: string, id: string, at?: number): Promise<string> {
  const { piece, revision, head } = await readPiece(db, accountId, id, at)
  return `${JSON.stringify({ id, revision, head }).slice(0, -1)},"piece":${await writePiece(piece)}}`
}

/** Where a revision of one's own piece stands on its line; the newest if none is named. */
export async function pointOf(
  db: Database,
  accountId: string,
  id: string,
  at?: number,
): Promise<Point & { newest: boolean }> {
  const now = await requireOwn(db, accountId, id)
  if (at === undefined || at === now.revision) return { ...now, newest: true }
  if (at > now.revision) throw notFound()
  return { revision: at, head: await headAt(db, id, at), newest: false }
}

/** The piece as the core knows it, now or at an earlier revision. */
async function readPiece(db: Database, accountId: string, id: string, at?: number): Promise<Standing> {
  const found = await pieceAt(db, { accountId, id }, await pointOf(db, accountId, id, at))
  if (!found) throw notFound()
  return found
}

/** Beads up to which a piece is proofread at once. */
const LITTLE_BEADS = 500

/** What the proofreader says of a piece as it is now, as JSON; without the box, which is another’s to open. */
export async function proofreadPiece(db: Database, accountId: string, id: string): Promise<string> {
  await spend(db, `proof:${accountId}`, RATES.proof)
  const { piece, revision } = await readPiece(db, accountId, id)
  const little = totalOf(tallyPiece(piece)) <= LITTLE_BEADS && awaited(piece).length === 0
  const proof = await done('proofread', piece, { little })
  return `${JSON.stringify({ id, revision }).slice(0, -1)},"proof":${proof}}`
}

/** Revisions after the one that a browser stands on, oldest first, as JSON. */
export async function revisionsAfter(db: Database, accountId: string, id: string, stand: Stand): Promise<string> {
  return missingAfter(db, id, stand, await requireOwn(db, accountId, id))
}

/** The last few revisions, oldest first, as JSON: what can be undone. */
export async function lastRevisions(db: Database, accountId: string, id: string, count: number): Promise<string> {
  return lastMissing(db, id, count, await requireOwn(db, accountId, id))
}

async function stale(db: Database, accountId: string, id: string, stand: Stand): Promise<Failure> {
  const dataText = await revisionsAfter(db, accountId, id, stand)
  return new Failure(409, 'stale', 'The piece was changed elsewhere since.', { dataText })
}

/**
 * Saves transactions, read from the bytes of what a browser has sent: they stand on a revision, made by a transaction.
 * The core applies them first, so nothing unsound is stored; then one statement checks owner and base, moves the piece
 * on and stores every step: when it answers, they are on disk. A base that is no longer the newest is refused with
 * what is missing.
 */
export async function saveSteps(
  db: Database,
  accountId: string,
  id: string,
  bytes: Uint8Array,
): Promise<{ revision: number }> {
  await requireRoom(db, accountId, bytes.length)
  const { stand, head, next } = await moveOn(db, accountId, id, bytes)
  const { base } = stand
  const revision = await storeSteps(db, accountId, id, { revision: base, head }, next)
  if (revision === null) throw await stale(db, accountId, id, stand)
  remember({ accountId, id }, { revision, head: next.last }, next.piece)
  if (Math.floor(revision / SNAPSHOT_EVERY) > Math.floor(base / SNAPSHOT_EVERY)) {
    await db('snapshot')
      .insert({ piece_id: id, revision, body: Buffer.from(await packPiece(next.piece)) })
      .onConflict(['piece_id', 'revision'])
      .merge()
  }
  return { revision }
}

/**
 * The piece with what was sent laid on it. What is short is read here, what costs little is also applied here, so that
 * saving a stroke waits for nobody; the rest goes to a worker as it came.
 */
async function moveOn(
  db: Database,
  accountId: string,
  id: string,
  bytes: Uint8Array,
): Promise<{ stand: Stand; head: string; next: Moved }> {
  if (bytes.length > LITTLE_BYTES) {
    const stand = sound(await done('readStand', bytes, { little: false }))
    const { piece, head } = await pieceToMove(db, accountId, id, stand)
    await spendEffort(db, accountId, bytes.length)
    const next = sound(await done('movedBy', { piece, bytes }, { little: false }))
    await spendEffort(db, accountId, next.effort)
    return { stand, head, next }
  }
  const { transactions, ...stand } = sound(readSent(bytes))
  const { piece, head } = await pieceToMove(db, accountId, id, stand)
  const effort = sound(checkEffort(effortOfAll(piece, transactions)))
  await spendEffort(db, accountId, effort)
  const next = sound(await done('moved', { piece, transactions }, { little: effort <= LITTLE_CELLS }))
  return { stand, head, next }
}

/**
 * The document that the steps stand on; from the cache without asking the database, since storing checks owner, base
 * and line again.
 */
async function pieceToMove(
  db: Database,
  accountId: string,
  id: string,
  stand: Stand,
): Promise<{ piece: Piece; head: string }> {
  const { base, on } = stand
  const kept = on === undefined ? undefined : recall({ accountId, id }, { revision: base, head: on })
  if (kept) return { piece: kept, head: on! }
  const own = await requireOwn(db, accountId, id)
  if (own.revision !== base || (on !== undefined && on !== own.head)) throw await stale(db, accountId, id, stand)
  const found = await pieceAt(db, { accountId, id }, own)
  if (found?.revision !== own.revision) throw notFound()
  return { piece: found.piece, head: own.head }
}

const STORE_STEPS = `
  with moved as (
    update piece set revision = revision + $1, name = $2, updated_at = now()
    where id = $3 and account_id = $4 and revision = $5 and removed_at is null and coalesce(${HEAD}, '') = $6
    returning id
  )
  insert into revision (piece_id, number, transaction_id, label, steps, bytes)
  select moved.id, $5::int + t.place, t.value->>'id', t.value->>'label', t.value->'steps', ($8::int[])[t.place]
  from moved, jsonb_array_elements($7::jsonb) with ordinality as t(value, place)`

async function storeSteps(
  db: Database,
  accountId: string,
  id: string,
  { revision: base, head }: Point,
  { piece, count, text, bytes }: Moved,
): Promise<number | null> {
  try {
    const values = [count, piece.name, id, accountId, base, head, text, bytes]
    return (await prepared(db, 'store-steps', STORE_STEPS, values)) === 0 ? null : base + count
  } catch (error) {
    if (isUniqueViolation(error, 'revision_transaction') || isUniqueViolation(error, 'revision_pkey')) return null
    throw error
  }
}

/** Takes a piece out of the workshop. It stays among what is put away until it is brought back or removed for good. */
export async function putAway(db: Database, accountId: string, id: string): Promise<void> {
  await requireOwn(db, accountId, id)
  await db('piece').where({ id, account_id: accountId }).update({ removed_at: db.fn.now() })
}

const putAwayRow = (db: Database, accountId: string, id: string) =>
  db('piece').where({ id, account_id: accountId }).whereNotNull('removed_at')

export async function restorePiece(db: Database, accountId: string, id: string): Promise<void> {
  const count = await putAwayRow(db, accountId, id).update({ removed_at: null })
  if (count === 0) throw notFound()
}

/**
 * Removes for good a piece that was put away: its revisions, snapshots, places and what it held of the box go with it.
 */
export async function removeForGood(db: Database, accountId: string, id: string): Promise<void> {
  const count = await putAwayRow(db, accountId, id).delete()
  if (count === 0) throw notFound()
}
