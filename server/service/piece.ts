import { MOST_REVISION, type Listing } from '../../core/contract/answers'
import type { Point } from '../../core/piece/catch-up'
import { checkEffort } from '../../core/piece/effort'
import type { Piece } from '../../core/piece/piece'
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
  writePiece,
} from './piece-store'
import { spendEffort } from './rate'

/** Id of the transaction that made the newest revision. */
const HEAD =
  '(select transaction_id from revision where revision.piece_id = piece.id and revision.number = piece.revision)'

interface OwnRow {
  revision: number
  head: string | null
  removed_at: Date | null
}

/** Where the piece stands. A piece that was put away says so; another's is none. */
async function requireOwn(db: Database, accountId: string, id: string): Promise<Point> {
  const row = await db('piece')
    .where({ id, account_id: accountId })
    .first<OwnRow>('revision', 'removed_at', db.raw(`${HEAD} as head`))
  if (!row) throw notFound()
  if (row.removed_at)
    throw new Failure(410, 'put-away', 'This piece was put away. Bring it back from what is put away in the workshop.')
  return { revision: row.revision, head: row.head ?? '' }
}

export async function listPieces(db: Database, accountId: string, { away = false } = {}): Promise<Listing[]> {
  const query = db('piece').where({ account_id: accountId }).limit(500)
  const rows = await (
    away
      ? query.whereNotNull('removed_at').orderBy('removed_at', 'desc')
      : query.whereNull('removed_at').orderBy('updated_at', 'desc')
  ).select<
    {
      id: string
      name: string
      revision: number
      head: string | null
      updated_at: Date
      summary: Listing['summary']
    }[]
  >('id', 'name', 'revision', 'updated_at', 'summary', db.raw(`${HEAD} as head`))
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    revision: r.revision,
    head: r.head ?? '',
    updatedAt: r.updated_at.toISOString(),
    summary: r.summary,
  }))
}

/** Takes a new piece from the bytes of its body. */
export const takePiece = async (db: Database, accountId: string, bytes: Uint8Array): Promise<Created> =>
  storePiece(db, accountId, sound(await done('begun', bytes, { little: bytes.length <= LITTLE_BYTES })))

export const createPiece = (db: Database, accountId: string, piece: Piece): Promise<Created> =>
  storePiece(db, accountId, beginning(piece))

interface Created {
  readonly id: string
  readonly revision: number
}

async function storePiece(db: Database, accountId: string, { piece, summary, snapshot }: Begun): Promise<Created> {
  const id = await db.transaction(async (trx) => {
    const [row] = await trx('piece')
      .insert({ account_id: accountId, name: piece.name, summary: JSON.stringify(summary) })
      .returning<{ id: string }[]>('id')
    await trx('snapshot').insert({ piece_id: row!.id, revision: 0, body: Buffer.from(snapshot) })
    return row!.id
  })
  remember({ accountId, id }, { revision: 0, head: '' }, piece)
  return { id, revision: 0 }
}

/** A piece now or at an earlier revision, as JSON. */
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
async function readPiece(db: Database, accountId: string, id: string, at?: number): Promise<Point & { piece: Piece }> {
  const point = await pointOf(db, accountId, id, at)
  const piece = await pieceAt(db, { accountId, id }, point)
  if (!piece) throw notFound()
  return { piece, ...point }
}

async function headAt(db: Database, id: string, number: number): Promise<string> {
  return (
    (
      await db('revision')
        .where({ piece_id: id, number })
        .first<{ transaction_id: string } | undefined>('transaction_id')
    )?.transaction_id ?? ''
  )
}

/** At most so many revisions are sent in one answer, and so many bytes of them as stored, one at least. */
export const MOST_MISSING = 500
const MOST_BYTES = 250_000

/** Where a browser stands: on which revision, and on the work of which transaction, if it says so. */
interface Stand {
  readonly base: number
  readonly on?: string | undefined
}

/** Refuses a browser that stands on revisions which this database does not have: it was put back to an earlier day. */
async function requireLine(db: Database, id: string, { base, on }: Stand, newest: Point): Promise<void> {
  if (base <= newest.revision && (on === undefined || on === (await headAt(db, id, base)))) return
  throw new Failure(
    409,
    'astray',
    'The server no longer has the state that your changes stand on: it was put back to an earlier one.',
    { data: { revision: newest.revision } },
  )
}

/** Revisions after the one that a browser stands on, oldest first, as JSON; as many as one answer holds. */
export async function revisionsAfter(db: Database, accountId: string, id: string, stand: Stand): Promise<string> {
  const newest = await requireOwn(db, accountId, id)
  await requireLine(db, id, stand, newest)
  return missingText(newest, await revisions(db, id, 'asc', [stand.base + 1, MOST_REVISION], MOST_MISSING))
}

/** The last few revisions, oldest first, as JSON: what can be undone. */
export async function lastRevisions(db: Database, accountId: string, id: string, count: number): Promise<string> {
  const newest = await requireOwn(db, accountId, id)
  return missingText(newest, await revisions(db, id, 'desc', [0, newest.revision], count))
}

interface RevisionRow {
  number: number
  transaction_id: string
  label: string
  steps: string
  made_at: Date
}

/** Revisions in a span, from one end of it, oldest first. Their sizes are asked before any is unpacked. */
async function revisions(
  db: Database,
  id: string,
  from: 'asc' | 'desc',
  span: readonly [number, number],
  count: number,
): Promise<RevisionRow[]> {
  const { rows } = await db.raw<{ rows: RevisionRow[] }>(
    `
    select number, transaction_id, label, steps::text as steps, made_at from revision
    where piece_id = ? and number in (
      select number from (
        select number, sum(pg_column_size(steps)) over (order by number ${from}) - pg_column_size(steps) as before
        from revision where piece_id = ? and number between ? and ? order by number ${from} limit ?
      ) as sized where before < ?
    ) order by number`,
    [id, id, ...span, count, MOST_BYTES],
  )
  return rows
}

function missingText(newest: Point, rows: readonly RevisionRow[]): string {
  const missing = rows.map(({ number, transaction_id, label, made_at, steps }) => {
    const head = JSON.stringify({ number, id: transaction_id, label, madeAt: made_at.toISOString() })
    return `${head.slice(0, -1)},"steps":${steps}}`
  })
  return `${JSON.stringify(newest).slice(0, -1)},"missing":[${missing.join(',')}]}`
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
  const piece = await pieceAt(db, { accountId, id }, own)
  if (!piece) throw notFound()
  return { piece, head: own.head }
}

const STORE_STEPS = `
  with moved as (
    update piece set revision = revision + $1, name = $2, summary = $3, updated_at = now()
    where id = $4 and account_id = $5 and revision = $6 and removed_at is null and coalesce(${HEAD}, '') = $7
    returning id
  )
  insert into revision (piece_id, number, transaction_id, label, steps)
  select moved.id, $6::int + t.place, t.value->>'id', t.value->>'label', t.value->'steps'
  from moved, jsonb_array_elements($8::jsonb) with ordinality as t(value, place)
  returning number`

async function storeSteps(
  db: Database,
  accountId: string,
  id: string,
  { revision: base, head }: Point,
  { piece, summary, count, text }: Moved,
): Promise<number | null> {
  try {
    const values = [count, piece.name, JSON.stringify(summary), id, accountId, base, head, text]
    const rows = await prepared<{ number: number }>(db, 'store-steps', STORE_STEPS, values)
    return rows.length === 0 ? null : base + count
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
