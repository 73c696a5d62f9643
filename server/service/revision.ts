import { MOST_REVISION } from '../../core/contract/answer'
import type { Point } from '../../core/piece/catch-up'
import type { Database } from '../database/connection'
import { Failure } from './failure'

/** Id of the transaction that made a revision; empty for the piece as it was begun. */
export async function headAt(db: Database, id: string, number: number): Promise<string> {
  return (
    (
      await db('revision')
        .where({ piece_id: id, number })
        .first<{ transaction_id: string } | undefined>('transaction_id')
    )?.transaction_id ?? ''
  )
}

/** At most so many revisions are sent in one answer, and so many bytes of steps, one revision at least. */
export const MOST_MISSING = 500
const MOST_BYTES = 1_000_000
/** A single transaction over this is not sent as steps: the document that came of it is shorter. */
const MOST_BYTES_OF_ONE = 4_000_000

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

/**
 * Revisions of a piece after the one that a browser stands on, oldest first, as JSON; as many as one answer holds. If
 * the next of them cannot be told as steps any more, the answer says so: the browser opens the piece anew, and what it
 * has not sent becomes a copy.
 */
export async function missingAfter(db: Database, id: string, stand: Stand, newest: Point): Promise<string> {
  await requireLine(db, id, stand, newest)
  const rows = await revisions(db, id, 'asc', [stand.base + 1, MOST_REVISION], MOST_MISSING)
  const gap = rows.findIndex((row) => row.steps === null)
  if (gap === 0)
    throw new Failure(
      409,
      'apart',
      'Too much has happened to this piece since, or too long ago, for your changes to be laid on top of it.',
      { data: newest },
    )
  return missingText(newest, gap < 0 ? rows : rows.slice(0, gap))
}

/** The last few revisions of a piece, oldest first, as JSON: what can be undone. */
export async function lastMissing(db: Database, id: string, count: number, newest: Point): Promise<string> {
  const rows = await revisions(db, id, 'desc', [0, newest.revision], count)
  return missingText(newest, rows.slice(rows.findLastIndex((row) => row.steps === null) + 1))
}

interface RevisionRow {
  number: number
  transaction_id: string
  label: string
  /** Null if they were thinned out, or are too long to be sent. */
  steps: string | null
  made_at: Date
}

/** Revisions in a span, from one end of it, oldest first. */
async function revisions(
  db: Database,
  id: string,
  from: 'asc' | 'desc',
  span: readonly [number, number],
  count: number,
): Promise<RevisionRow[]> {
  const { rows } = await db.raw<{ rows: RevisionRow[] }>(
    `
    select number, transaction_id, label, case when bytes <= ? then steps::text end as steps, made_at from revision
    where piece_id = ? and number in (
      select number from (
        select number, sum(bytes) over (order by number ${from}) - bytes as before
        from revision where piece_id = ? and number between ? and ? order by number ${from} limit ?
      ) as sized where before < ?
    ) order by number`,
    [MOST_BYTES_OF_ONE, id, id, ...span, count, MOST_BYTES],
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
