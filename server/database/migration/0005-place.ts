import type { Knex } from 'knex'

/** Where a person has stopped in the making of a piece: found again on any device. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table making_place (
      piece_id uuid not null references piece on delete cascade,
      part text not null,
      move integer not null,
      updated_at timestamptz not null default now(),
      primary key (piece_id, part),
      constraint making_place_move check (move >= 0)
    )
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table making_place')
}
