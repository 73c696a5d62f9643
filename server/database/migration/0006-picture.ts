import type { Knex } from 'knex'

/** The workshop's picture of each piece, drawn once for its newest revision. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table picture (
      piece_id uuid not null references piece on delete cascade,
      ground text not null,
      revision integer not null,
      head text not null,
      png bytea not null,
      primary key (piece_id, ground)
    )
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table picture')
}
