import type { Database } from '../database/connection'

/** The steps of the last so many revisions of a piece always stay. */
export const KEPT_REVISIONS = 500
/** So do those that are younger. */
const KEPT_DAYS = 90
/** A number of our own for PostgreSQL's advisory locks. */
const LOCK = 7_305_413

const THINNING = `
  update revision set steps = null, bytes = 0
  from (
    select snapshot.piece_id, max(snapshot.revision) as upto
    from snapshot
      join piece on piece.id = snapshot.piece_id and piece.revision - ? >= snapshot.revision
      join revision on revision.piece_id = snapshot.piece_id and revision.number = snapshot.revision
    where revision.made_at < now() - make_interval(days => ?)
    group by snapshot.piece_id
  ) as old
  where revision.piece_id = old.piece_id and revision.number <= old.upto and revision.steps is not null
    and not exists (
      select from (
        select piece_id, revision from named_state
        union all select piece_id, revision from making
        union all select making.piece_id, (event ->> 'revision')::int
          from making_event join making on making.id = making_event.making_id
          where making_event.kind = 'seen'
      ) as named
      where named.piece_id = revision.piece_id and named.revision >= revision.number and not exists (
        select from snapshot as between_them
        where between_them.piece_id = named.piece_id
          and between_them.revision between revision.number and named.revision
      )
    )`

/**
 * Lets the steps of old revisions go: up to a snapshot that is old enough, so that everything after it can still be
 * replayed. Snapshots stay, as do the ids of transactions, and what leads from a snapshot to a state that was named
 * or that a making began with or was last seen with.
 * Answers how many revisions were thinned. Several instances may do it at once: they take turns, so that none holds
 * what the other waits for.
 */
export async function thin(db: Database): Promise<number> {
  return db.transaction(async (trx) => {
    await trx.raw('select pg_advisory_xact_lock(?)', [LOCK])
    const { rowCount } = await trx.raw<{ rowCount: number }>(THINNING, [KEPT_REVISIONS, KEPT_DAYS])
    return rowCount
  })
}
