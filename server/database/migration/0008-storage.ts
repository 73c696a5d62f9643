import type { Knex } from 'knex'

/**
 * Revisions say how many bytes their steps hold, so that answers and accounts are bounded without unpacking any; the
 * steps of old ones may go. A state that a person named is never among those.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table revision
      alter column steps drop not null,
      add column bytes integer not null default 0;
    update revision set bytes = octet_length(steps::text);

    create table named_state (
      piece_id uuid not null references piece on delete cascade,
      revision integer not null,
      name text not null,
      made_at timestamptz not null default now(),
      primary key (piece_id, revision)
    )
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table named_state;
    alter table revision drop column bytes, alter column steps set not null
  `)
}
