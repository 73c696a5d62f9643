import type { Knex } from 'knex'

/** What pieces have set aside or taken out of the box, and the state of the simulated devices on the bench. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table holding (
      piece_id uuid not null references piece on delete cascade,
      shelf_id uuid not null references shelf on delete cascade,
      kind text not null,
      amount double precision not null,
      made_at timestamptz not null default now(),
      primary key (piece_id, shelf_id, kind),
      constraint holding_kind check (kind in ('reserved', 'taken')),
      constraint holding_amount check (amount > 0)
    );
    create index holding_shelf on holding (shelf_id);

    create table device (
      account_id uuid not null references account on delete cascade,
      kind text not null,
      state jsonb not null,
      primary key (account_id, kind)
    );
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table device, holding')
}
