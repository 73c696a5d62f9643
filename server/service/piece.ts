import type { Feel } from '../../core/fit/feel'
import type { FitKind } from '../../core/fit/kind'
import { fitOf } from '../../core/fit/reckon'
import { pieceToBody } from '../../core/piece/codec'
import { laidCounted } from '../../core/piece/laid'
import { columnsOf, fittedPart, type Piece } from '../../core/piece/piece'
import type { PieceBody } from '../../core/piece/schema'
import { applySteps, type Step, type Transaction } from '../../core/piece/step'
import { tallyPiece, totalOf } from '../../core/tally/tally'
import type { Database } from '../database/connection'
import { isBadUuid, isUniqueViolation } from '../database/errors'
import { Failure, notFound, unsound } from './failure'
import { packPiece, pieceAt, recall, remember, SNAPSHOT_EVERY } from './piece-store'

/** What the workshop shows of a piece without opening it. */
export interface Summary {
  readonly technique: string
  readonly spec: string
  readonly columns: number
  readonly rows: number
  readonly beads: number
  readonly lengthMm: number
  readonly kind: FitKind
  readonly finishedMm: number
  readonly bodyMm: number
  readonly feel: Feel
}

export interface PieceListing { readonly id: string, readonly name: string, readonly revision: number, readonly updatedAt: string, readonly summary: Summary }

export function summarise(piece: Piece): Summary {
  const part = fittedPart(piece)
  const fit = fitOf(piece)
  return {
    technique: part.technique, spec: part.spec, columns: columnsOf(part), rows: laidCounted(part), beads: totalOf(tallyPiece(piece)),
    lengthMm: fit.beadworkMm.nominal, kind: piece.fit.kind, finishedMm: fit.atMm, bodyMm: piece.fit.bodyMm, feel: fit.feel,
  }
}

/** A malformed id is a piece that does not exist. */
async function guarded<T>(work: Promise<T>): Promise<T> {
  try {
    return await work
  }
  catch (error) {
    if (isBadUuid(error)) throw notFound()
    throw error
  }
}

interface OwnRow { revision: number }

async function requireOwn(db: Database, accountId: string, id: string): Promise<OwnRow> {
  const row = await guarded(db('piece').where({ id, account_id: accountId }).whereNull('removed_at').first<OwnRow>('revision'))
  if (!row) throw notFound()
  return row
}

export async function listPieces(db: Database, accountId: string): Promise<PieceListing[]> {
  const rows = await db('piece').where({ account_id: accountId }).whereNull('removed_at').orderBy('updated_at', 'desc').limit(500)
    .select<{ id: string, name: string, revision: number, updated_at: Date, summary: Summary }[]>('id', 'name', 'revision', 'updated_at', 'summary')
  return rows.map(r => ({ id: r.id, name: r.name, revision: r.revision, updatedAt: r.updated_at.toISOString(), summary: r.summary }))
}

export async function createPiece(db: Database, accountId: string, piece: Piece): Promise<{ id: string, revision: number }> {
  const body = await packPiece(piece)
  const id = await db.transaction(async (trx) => {
    const [row] = await trx('piece').insert({ account_id: accountId, name: piece.name, summary: JSON.stringify(summarise(piece)) }).returning<{ id: string }[]>('id')
    await trx('snapshot').insert({ piece_id: row!.id, revision: 0, body })
    return row!.id
  })
  remember({ accountId, id }, 0, piece)
  return { id, revision: 0 }
}

export async function openPiece(db: Database, accountId: string, id: string, at?: number): Promise<{ id: string, revision: number, piece: PieceBody }> {
  const { piece, revision } = await readPiece(db, accountId, id, at)
  return { id, revision, piece: pieceToBody(piece) }
}

/** The piece as the core knows it, now or at an earlier revision. */
export async function readPiece(db: Database, accountId: string, id: string, at?: number): Promise<{ piece: Piece, revision: number }> {
  const { revision: newest } = await requireOwn(db, accountId, id)
  const revision = at ?? newest
  if (revision > newest) throw notFound()
  const piece = await pieceAt(db, { accountId, id }, revision)
  if (!piece) throw notFound()
  return { piece, revision }
}

export interface Revision { readonly number: number, readonly id: string, readonly label: string, readonly steps: Step[], readonly madeAt: string }

/** At most so many revisions are sent in one answer; who is further behind opens the piece anew. */
export const MOST_MISSING = 500

export async function revisionsAfter(db: Database, accountId: string, id: string, after: number): Promise<{ revision: number, missing: Revision[] }> {
  const { revision } = await requireOwn(db, accountId, id)
  const rows = await db('revision').where({ piece_id: id }).andWhere('number', '>', after).orderBy('number').limit(MOST_MISSING)
    .select<{ number: number, transaction_id: string, label: string, steps: Step[], made_at: Date }[]>('number', 'transaction_id', 'label', 'steps', 'made_at')
  return { revision, missing: rows.map(r => ({ number: r.number, id: r.transaction_id, label: r.label, steps: r.steps, madeAt: r.made_at.toISOString() })) }
}

async function stale(db: Database, accountId: string, id: string, base: number): Promise<Failure> {
  const data = await revisionsAfter(db, accountId, id, base)
  return new Failure(409, 'stale', 'The piece was changed elsewhere since.', { data })
}

/**
 * Saves transactions that stand on revision `base`. The core applies them first, so nothing unsound is stored; then one statement
 * checks owner and base, moves the piece on and stores every step: when it answers, they are on disk. A base that is no longer
 * the newest is refused with what is missing.
 */
export async function saveSteps(db: Database, accountId: string, id: string, base: number, transactions: readonly Transaction[]): Promise<{ revision: number }> {
  let piece = await pieceToMove(db, accountId, id, base)
  for (const { steps } of transactions) {
    const next = applySteps(piece, steps)
    if (!next.ok) throw unsound(next.problems)
    piece = next.value
  }
  const revision = await storeSteps(db, accountId, id, base, transactions, piece)
  if (revision === null) throw await stale(db, accountId, id, base)
  remember({ accountId, id }, revision, piece)
  if (Math.floor(revision / SNAPSHOT_EVERY) > Math.floor(base / SNAPSHOT_EVERY)) {
    await db('snapshot').insert({ piece_id: id, revision, body: await packPiece(piece) }).onConflict().ignore()
  }
  return { revision }
}

/** The document that the steps stand on; from the cache without asking the database, since storing checks owner and base again. */
async function pieceToMove(db: Database, accountId: string, id: string, base: number): Promise<Piece> {
  const kept = recall({ accountId, id }, base)
  if (kept) return kept
  const own = await requireOwn(db, accountId, id)
  if (own.revision !== base) throw await stale(db, accountId, id, base)
  const piece = await pieceAt(db, { accountId, id }, base)
  if (!piece) throw notFound()
  return piece
}

async function storeSteps(db: Database, accountId: string, id: string, base: number, transactions: readonly Transaction[], piece: Piece): Promise<number | null> {
  try {
    const { rows } = await db.raw<{ rows: { number: number }[] }>(`
      with moved as (
        update piece set revision = revision + ?, name = ?, summary = ?, updated_at = now()
        where id = ? and account_id = ? and revision = ? and removed_at is null
        returning id
      )
      insert into revision (piece_id, number, transaction_id, label, steps)
      select moved.id, ? + t.place, t.value->>'id', t.value->>'label', t.value->'steps'
      from moved, jsonb_array_elements(?::jsonb) with ordinality as t(value, place)
      returning number`,
    [transactions.length, piece.name, JSON.stringify(summarise(piece)), id, accountId, base, base, JSON.stringify(transactions)])
    return rows.length === 0 ? null : base + transactions.length
  }
  catch (error) {
    if (isUniqueViolation(error, 'revision_transaction') || isUniqueViolation(error, 'revision_pkey')) return null
    throw error
  }
}

/** Takes a piece out of the workshop. Its rows stay until they are cleared by hand, so a slip can be put right. */
export async function removePiece(db: Database, accountId: string, id: string): Promise<void> {
  await requireOwn(db, accountId, id)
  await db('piece').where({ id, account_id: accountId }).update({ removed_at: db.fn.now() })
}

export async function restorePiece(db: Database, accountId: string, id: string): Promise<void> {
  const count = await guarded(db('piece').where({ id, account_id: accountId }).whereNotNull('removed_at').update({ removed_at: null }))
  if (count === 0) throw notFound()
}
