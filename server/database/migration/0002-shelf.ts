import type { Knex } from 'knex'

/** What an account keeps across pieces: beads of the box, own sizes, stamps. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table shelf (
      id uuid primary key default gen_random_uuid(),
      account_id uuid not null references account on delete cascade,
      value jsonb not null,
      made_at timestamptz not null default now(),
      place bigint generated always as identity
    );
    create index shelf_account on shelf (account_id);
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table shelf')
}
