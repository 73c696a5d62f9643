import type { MakingAnswer, MakingListing, RecordListing, SyncedMaking } from '../../core/contract/making'
import {
  BENCH_LIMITS,
  inOrder,
  makingSchema,
  recordSchema,
  statusOf,
  type KeptEvent,
  type MakingEvent,
  type MakingHead,
  type MakingStatus,
} from '../../core/making/event'
import type { Database } from '../database/connection'
import { Failure, notFound } from './failure'
import { putBackUsed, useUp, type Ask } from './holding'
import { requireOwn } from './piece'
import { requireRoom } from './storage'

interface MakingRow {
  id: string
  piece_id: string
  revision: number
  head: unknown
  created_at: Date
}

const answerOf = (row: MakingRow): MakingAnswer => ({
  ...makingSchema.parse(row.head),
  id: row.id,
  revision: row.revision,
  begunAt: row.created_at.getTime(),
})

/** Makings of a piece, or of all pieces in the workshop, with where each stands: what is at work last comes first. */
export async function listMakings(db: Database, accountId: string, piece?: string): Promise<readonly MakingListing[]> {
  if (piece !== undefined) await requireOwn(db, accountId, piece)
  interface Row extends MakingRow {
    said: { at: string; event: Extract<MakingEvent, { do: 'at' }> } | null
    worked_at: string | null
    named: { at: string; event: Extract<MakingEvent, { do: 'state' }> } | null
    due: string | null
  }
  const { rows } = await db.raw<{ rows: Row[] }>(
    `
    select making.*, said.said, named.named,
      (select max(at) from making_event where making_id = making.id and kind in ('at', 'moved'))::text as worked_at,
      (
        select event ->> 'day' from making_event
        where making_id = making.id and kind = 'due' order by at desc, id desc limit 1
      ) as due
    from making
      join piece on piece.id = making.piece_id and piece.account_id = ? and piece.removed_at is null
      left join lateral (
        select jsonb_build_object('at', at::text, 'event', event) as said from making_event
        where making_id = making.id and kind = 'at' order by at desc, id desc limit 1
      ) as said on true
      left join lateral (
        select jsonb_build_object('at', at::text, 'event', event) as named from making_event
        where making_id = making.id and kind = 'state' order by at desc, id desc limit 1
      ) as named on true
    where ?::uuid is null or making.piece_id = ?::uuid
    order by coalesce((select max(at) from making_event where making_id = making.id), 0) desc, making.created_at desc
    limit 2000`,
    [accountId, piece ?? null, piece ?? null],
  )
  return rows.map(({ said, named, worked_at, due, ...row }) => ({
    ...answerOf(row),
    piece: row.piece_id,
    status: statusOf(
      named && { at: Number(named.at), state: named.event.state as MakingStatus },
      Number(worked_at ?? 0),
    ),
    at: Number(worked_at ?? 0),
    says: said?.event.says ?? '',
    beads: said?.event.beads ?? 0,
    of: said?.event.of ?? 0,
    due,
  }))
}

export interface Begin {
  /** A name of the browser's for this beginning: sent twice it begins one making. */
  readonly as: string
  readonly revision: number
  readonly head: MakingHead
}

/** Begins a making of a piece as it is at a revision. */
export async function beginMaking(
  db: Database,
  accountId: string,
  piece: string,
  { as, revision, head }: Begin,
): Promise<MakingAnswer> {
  const newest = await requireOwn(db, accountId, piece)
  if (revision > newest.revision) throw notFound()
  const text = JSON.stringify(head)
  await requireRoom(db, accountId, text.length)
  return db.transaction(async (trx) => {
    // Two beginnings at once are counted one after the other.
    await trx('piece').where({ id: piece }).forNoKeyUpdate().first('id')
    const there = await trx('making').where({ piece_id: piece, begun_as: as }).first<MakingRow | undefined>()
    if (there) return answerOf(there)
    const [{ count }] = (await trx('making').where({ piece_id: piece }).count<{ count: string }[]>('* as count')) as [
      { count: string },
    ]
    if (Number(count) >= BENCH_LIMITS.makings)
      throw new Failure(
        409,
        'makings-many',
        `A piece is made at most ${BENCH_LIMITS.makings} times here. Make a copy of it and go on with that.`,
      )
    const [row] = await trx<MakingRow>('making')
      .insert({ piece_id: piece, begun_as: as, revision, head: text } as never)
      .returning('*')
    return answerOf(row!)
  })
}

async function requireMaking(db: Database, accountId: string, piece: string, id: string): Promise<MakingRow> {
  await requireOwn(db, accountId, piece)
  const row = await db<MakingRow>('making').where({ id, piece_id: piece }).first()
  if (!row) throw notFound()
  return row
}

/** Events that one answer holds at most; the rest is asked for after them. */
const MOST_ANSWERED = 5000

async function eventsAfter(db: Database, id: string, after: number): Promise<Omit<SyncedMaking, 'making' | 'now'>> {
  const rows = await db('making_event')
    .where({ making_id: id })
    .andWhere('seq', '>', after)
    .orderBy('seq')
    .limit(MOST_ANSWERED + 1)
    .select<{ seq: string; id: string; at: string; event: MakingEvent }[]>('seq', 'id', 'at', 'event')
  const sent = rows.slice(0, MOST_ANSWERED)
  return {
    seq: sent.length > 0 ? Number(sent.at(-1)!.seq) : after,
    more: rows.length > sent.length,
    events: sent.map((r) => ({ id: r.id, at: Number(r.at), event: r.event })),
  }
}

/** A making with its events after one of them; all from 0. */
export async function readMaking(
  db: Database,
  accountId: string,
  piece: string,
  id: string,
  after: number,
): Promise<SyncedMaking> {
  const row = await requireMaking(db, accountId, piece, id)
  return { making: answerOf(row), ...(await eventsAfter(db, id, after)), now: Date.now() }
}

/**
 * Adds events to a making and answers with all that came after the last one that the browser knows, its own among
 * them. What is there already is passed over. One writer at a time, so that numbers are given in the order in which
 * they become visible.
 */
export async function addEvents(
  db: Database,
  accountId: string,
  piece: string,
  id: string,
  { events, after }: { readonly events: readonly KeptEvent[]; readonly after: number },
): Promise<SyncedMaking> {
  const row = await requireMaking(db, accountId, piece, id)
  const texts = events.map(({ event }) => JSON.stringify(event))
  await requireRoom(
    db,
    accountId,
    texts.reduce((sum, text) => sum + text.length, 0),
  )
  await db.transaction(async (trx) => {
    await trx('making').where({ id }).forUpdate().first('id')
    const [{ count }] = (await trx('making_event')
      .where({ making_id: id })
      .count<{ count: string }[]>('* as count')) as [{ count: string }]
    if (Number(count) + events.length > BENCH_LIMITS.events)
      throw new Failure(
        409,
        'events-many',
        `This making holds ${BENCH_LIMITS.events} events and takes no more. Begin another making where you are.`,
      )
    const there = await trx('making_event')
      .where({ making_id: id })
      .whereIn(
        'id',
        events.map((e) => e.id),
      )
      .select<{ id: string; at: string }[]>('id', 'at')
    await insertEvents(trx, id, inOrder(events, new Map(there.map((e) => [e.id, Number(e.at)]))))
  })
  return { making: answerOf(row), ...(await eventsAfter(db, id, after)), now: Date.now() }
}

/** Stores events, a handful at a time; what is there already stays as it is. */
async function insertEvents(db: Database, making: string, events: readonly KeptEvent[]): Promise<void> {
  for (let k = 0; k < events.length; k += BENCH_LIMITS.together)
    await db('making_event')
      .insert(
        events.slice(k, k + BENCH_LIMITS.together).map((e) => ({
          making_id: making,
          id: e.id,
          at: e.at,
          kind: e.event.do,
          event: JSON.stringify(e.event),
        })),
      )
      .onConflict(['making_id', 'id'])
      .ignore()
}

/**
 * Settles the box from a making: what it really took goes out, what was taken for the piece before counted in; with
 * nothing to take, the last settling is undone. With the event that says so in one transaction; sent twice it is done
 * once.
 */
export async function settleMaking(
  db: Database,
  accountId: string,
  piece: string,
  id: string,
  { as, uses }: { readonly as: string; readonly uses: readonly Ask[] },
): Promise<void> {
  await requireMaking(db, accountId, piece, id)
  await db.transaction(async (trx) => {
    await trx('making').where({ id }).forUpdate().first('id')
    if (await trx('making_event').where({ making_id: id, id: as }).first('id')) return
    const last = await trx('making_event')
      .where({ making_id: id, kind: 'settled' })
      .orderBy('at', 'desc')
      .orderBy('id', 'desc')
      .first<{ event: Extract<MakingEvent, { do: 'settled' }> } | undefined>('event')
    const standing = last?.event.moves ?? []
    if (uses.length > 0 && standing.length > 0)
      throw new Failure(409, 'settled', 'The box is settled from this making already. Undo that first.')
    if (uses.length === 0 && standing.length === 0)
      throw new Failure(409, 'not-settled', 'The box was not settled from this making: there is nothing to undo.')
    const moves =
      uses.length > 0
        ? await useUp(trx, accountId, piece, uses)
        : await putBackUsed(trx, accountId, piece, standing).then(() => [])
    await insertEvents(trx, id, [{ id: as, at: Date.now(), event: { do: 'settled', moves } }])
  })
}

/** What was written down of the makings of an account, the latest of each; the last finished first. */
export async function listRecords(db: Database, accountId: string): Promise<readonly RecordListing[]> {
  const { rows } = await db.raw<{
    rows: { making: string; piece: string; at: string; event: Extract<MakingEvent, { do: 'record' }> }[]
  }>(
    `
    select making.id as making, making.piece_id as piece, said.at, said.event
    from making
      join piece on piece.id = making.piece_id and piece.account_id = ? and piece.removed_at is null
      join lateral (
        select at, event from making_event
        where making_id = making.id and kind = 'record' order by at desc, id desc limit 1
      ) as said on true
    order by said.at desc
    limit 2000`,
    [accountId],
  )
  return rows.map(({ event, at, ...row }) => ({ ...row, at: Number(at), record: recordSchema.parse(event.record) }))
}

/** Removes a making for good. */
export async function removeMaking(db: Database, accountId: string, piece: string, id: string): Promise<void> {
  await requireMaking(db, accountId, piece, id)
  await db('making').where({ id }).delete()
}

/** Makings of a piece as an archive holds them, one at a time. */
export async function* makingsToKeep(
  db: Database,
  piece: string,
): AsyncGenerator<{ readonly head: MakingHead; readonly begunAt: number; readonly events: KeptEvent[] }> {
  const rows = await db<MakingRow>('making').where({ piece_id: piece }).orderBy('created_at').orderBy('id')
  for (const row of rows) {
    const events: KeptEvent[] = []
    for (let after = 0; ;) {
      const next = await eventsAfter(db, row.id, after)
      events.push(...next.events)
      if (!next.more) break
      after = next.seq
    }
    // Revisions are of this database: elsewhere they say nothing.
    const told = events.filter((e) => e.event.do !== 'seen')
    yield { head: makingSchema.parse(row.head), begunAt: row.created_at.getTime(), events: told }
  }
}

/** Puts a making of an archive to a piece that begins here. */
export async function keepMaking(
  db: Database,
  piece: string,
  begunAs: string,
  {
    head,
    begunAt,
    events,
  }: { readonly head: MakingHead; readonly begunAt: number; readonly events: readonly KeptEvent[] },
): Promise<void> {
  const [row] = await db('making')
    .insert({
      piece_id: piece,
      begun_as: begunAs,
      revision: 0,
      head: JSON.stringify(head),
      created_at: new Date(begunAt),
    })
    .returning<{ id: string }[]>('id')
  await insertEvents(db, row!.id, events)
}
