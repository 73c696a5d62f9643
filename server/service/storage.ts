import type { Database } from '../database/connection'
import { Failure } from './failure'

const MB = 1_000_000

/** How much an account may keep (`WEBEN_ACCOUNT_MB`), bytes. */
const most = (): number => Math.max(1, Math.floor(Number(process.env.WEBEN_ACCOUNT_MB)) || 500) * MB

/** What accounts keep as far as this instance knows: measured a while ago, and what came in here since. */
const known = new Map<string, { bytes: number; measured: number }>()
const MEASURED_EVERY_MS = 600_000
const MOST_KNOWN = 10_000

export interface Storage {
  readonly bytes: number
  readonly most: number
}

/** What an account keeps: steps and snapshots of its pieces, their pictures and makings, and the shelf. */
export async function storageOf(db: Database, accountId: string): Promise<Storage> {
  const { rows } = await db.raw<{ rows: { bytes: string }[] }>(
    `
    with own as (select id from piece where account_id = ?)
    select (
      (select coalesce(sum(bytes), 0) from revision join own on own.id = piece_id)
      + (select coalesce(sum(octet_length(body)), 0) from snapshot join own on own.id = piece_id)
      + (select coalesce(sum(octet_length(png)), 0) from picture join own on own.id = piece_id)
      + (select coalesce(sum(octet_length(event::text)), 0)
        from making_event join making on making.id = making_id join own on own.id = piece_id)
      + (select coalesce(sum(octet_length(value::text)), 0) from shelf where account_id = ?)
    )::text as bytes`,
    [accountId, accountId],
  )
  const bytes = Number(rows[0]!.bytes)
  if (known.size >= MOST_KNOWN) known.clear()
  known.set(accountId, { bytes, measured: Date.now() })
  return { bytes, most: most() }
}

/**
 * Refuses what an account has no room for. Saving asks the database only now and then: what is known plus what came in
 * since is an upper bound as far as this instance goes, and nothing is refused that was not measured just now.
 */
export async function requireRoom(db: Database, accountId: string, bytes: number): Promise<void> {
  const there = known.get(accountId)
  if (there && there.bytes + bytes <= most() && Date.now() - there.measured < MEASURED_EVERY_MS) {
    there.bytes += bytes
    return
  }
  const now = await storageOf(db, accountId)
  if (now.bytes + bytes > now.most)
    throw new Failure(
      507,
      'account-full',
      `Your account holds ${Math.round(now.bytes / MB)} MB of the ${now.most / MB} MB that it may. Make room: put ` +
        'pieces away and remove them there for good.',
      { data: { wait: 30 } },
    )
  known.get(accountId)!.bytes += bytes
}
