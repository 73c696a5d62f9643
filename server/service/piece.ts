import type { Listing } from '../../core/contract/answers'
import type { Point } from '../../core/piece/catch-up'
import { fitOf } from '../../core/fit/reckon'
import { pieceToBody } from '../../core/piece/codec'
import { laidCounted } from '../../core/piece/laid'
import { columnsOf, fittedPart, type Piece } from '../../core/piece/piece'
import type { PieceBody } from '../../core/piece/schema'
import { applySteps, type Step, type Transaction } from '../../core/piece/step'
import { tallyPiece, totalOf } from '../../core/tally/tally'
import type { Knex } from 'knex'
import type { Database } from '../database/connection'
import { isUniqueViolation } from '../database/errors'
import { Failure, notFound, unsound } from './failure'
import { packPiece, pieceAt, recall, remember, SNAPSHOT_EVERY } from './piece-store'

/** What the workshop shows of a piece without opening it. */
export function summarise(piece: Piece): Listing['summary'] {
  const part = fittedPart(piece)
  const fit = fitOf(piece)
  return {
    technique: part.technique,
    spec: part.spec,
    columns: columnsOf(part),
    rows: laidCounted(part),
    beads: totalOf(tallyPiece(piece)),
    lengthMm: fit.beadworkMm.nominal,
    kind: piece.fit.kind,
    finishedMm: fit.atMm,
    bodyMm: piece.fit.bodyMm,
    feel: fit.feel,
  }
}

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

export async function createPiece(
  db: Database,
  accountId: string,
  piece: Piece,
): Promise<{ id: string; revision: number }> {
  const body = await packPiece(piece)
  const id = await db.transaction(async (trx) => {
    const [row] = await trx('piece')
      .insert({ account_id: accountId, name: piece.name, summary: JSON.stringify(summarise(piece)) })
      .returning<{ id: string }[]>('id')
    await trx('snapshot').insert({ piece_id: row!.id, revision: 0, body })
    return row!.id
  })
  remember({ accountId, id }, { revision: 0, head: '' }, piece)
  return { id, revision: 0 }
}

export async function openPiece(
  db: Database,
  accountId: string,
  id: string,
  at?: number,
): Promise<{ id: string; revision: number; head: string; piece: PieceBody }> {
  const { piece, revision, head } = await readPiece(db, accountId, id, at)
  return { id, revision, head, piece: pieceToBody(piece) }
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

export interface Revision {
  readonly number: number
  readonly id: string
  readonly label: string
  readonly steps: Step[]
  readonly madeAt: string
}

/** At most so many revisions are sent in one answer; who is further behind opens the piece anew. */
export const MOST_MISSING = 500

/** Where a browser stands: on which revision, and on the work of which transaction, if it says so. */
export interface Stand {
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

export async function revisionsAfter(
  db: Database,
  accountId: string,
  id: string,
  stand: Stand,
): Promise<Point & { missing: Revision[] }> {
  const newest = await requireOwn(db, accountId, id)
  await requireLine(db, id, stand, newest)
  return {
    ...newest,
    missing: await revisions(db, id, (query) =>
      query.andWhere('number', '>', stand.base).orderBy('number').limit(MOST_MISSING),
    ),
  }
}

/** The last few revisions, oldest first: what can be undone. */
export async function lastRevisions(
  db: Database,
  accountId: string,
  id: string,
  count: number,
): Promise<Point & { missing: Revision[] }> {
  const newest = await requireOwn(db, accountId, id)
  return {
    ...newest,
    missing: (
      await revisions(db, id, (query) =>
        query.andWhere('number', '<=', newest.revision).orderBy('number', 'desc').limit(count),
      )
    ).reverse(),
  }
}

async function revisions(
  db: Database,
  id: string,
  which: (query: Knex.QueryBuilder) => Knex.QueryBuilder,
): Promise<Revision[]> {
  const rows = await which(db('revision').where({ piece_id: id })).select<
    { number: number; transaction_id: string; label: string; steps: Step[]; made_at: Date }[]
  >('number', 'transaction_id', 'label', 'steps', 'made_at')
  return rows.map((r) => ({
    number: r.number,
    id: r.transaction_id,
    label: r.label,
    steps: r.steps,
    madeAt: r.made_at.toISOString(),
  }))
}

async function stale(db: Database, accountId: string, id: string, stand: Stand): Promise<Failure> {
  const data = await revisionsAfter(db, accountId, id, stand)
  return new Failure(409, 'stale', 'The piece was changed elsewhere since.', { data })
}

/**
 * Saves transactions that stand on revision `base`, made by transaction `on`. The core applies them first, so nothing
 * unsound is stored; then one statement checks owner and base, moves the piece on and stores every step: when it
 * answers, they are on disk. A base that is no longer the newest is refused with what is missing.
 */
export async function saveSteps(
  db: Database,
  accountId: string,
  id: string,
  stand: Stand,
  transactions: readonly Transaction[],
): Promise<{ revision: number }> {
  const { base } = stand
  const moved = await pieceToMove(db, accountId, id, stand)
  let piece = moved.piece
  for (const { steps } of transactions) {
    const next = applySteps(piece, steps)
    if (!next.ok) throw unsound(next.problems)
    piece = next.value
  }
  const revision = await storeSteps(db, accountId, id, { revision: base, head: moved.head }, transactions, piece)
  if (revision === null) throw await stale(db, accountId, id, stand)
  remember({ accountId, id }, { revision, head: transactions.at(-1)!.id }, piece)
  if (Math.floor(revision / SNAPSHOT_EVERY) > Math.floor(base / SNAPSHOT_EVERY)) {
    await db('snapshot')
      .insert({ piece_id: id, revision, body: await packPiece(piece) })
      .onConflict(['piece_id', 'revision'])
      .merge()
  }
  return { revision }
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

async function storeSteps(
  db: Database,
  accountId: string,
  id: string,
  { revision: base, head }: Point,
  transactions: readonly Transaction[],
  piece: Piece,
): Promise<number | null> {
  try {
    const { rows } = await db.raw<{ rows: { number: number }[] }>(
      `
      with moved as (
        update piece set revision = revision + ?, name = ?, summary = ?, updated_at = now()
        where id = ? and account_id = ? and revision = ? and removed_at is null and coalesce(${HEAD}, '') = ?
        returning id
      )
      insert into revision (piece_id, number, transaction_id, label, steps)
      select moved.id, ? + t.place, t.value->>'id', t.value->>'label', t.value->'steps'
      from moved, jsonb_array_elements(?::jsonb) with ordinality as t(value, place)
      returning number`,
      [
        transactions.length,
        piece.name,
        JSON.stringify(summarise(piece)),
        id,
        accountId,
        base,
        head,
        base,
        JSON.stringify(transactions),
      ],
    )
    return rows.length === 0 ? null : base + transactions.length
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
