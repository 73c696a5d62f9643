import type { Knex } from 'knex'

/** Accounts, their sessions, pieces and every revision of each. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table account (
      id uuid primary key default gen_random_uuid(),
      sign_in text not null,
      password text not null,
      settings jsonb not null default '{}',
      created_at timestamptz not null default now()
    );
    create unique index account_sign_in on account (lower(sign_in));

    create table session (
      id uuid primary key default gen_random_uuid(),
      account_id uuid not null references account on delete cascade,
      created_at timestamptz not null default now(),
      expires_at timestamptz not null
    );
    create index session_account on session (account_id);

    create table piece (
      id uuid primary key default gen_random_uuid(),
      account_id uuid not null references account on delete cascade,
      name text not null,
      summary jsonb not null,
      revision integer not null default 0,
      created_at timestamptz not null default now(),
      updated_at timestamptz not null default now(),
      removed_at timestamptz
    );
    -- Not over updated_at: an index that every save changes would make every save dearer.
    create index piece_account on piece (account_id);

    create table revision (
      piece_id uuid not null references piece on delete cascade,
      number integer not null,
      transaction_id text not null,
      label text not null,
      steps jsonb not null,
      made_at timestamptz not null default now(),
      primary key (piece_id, number),
      constraint revision_transaction unique (piece_id, transaction_id)
    );

    create table snapshot (
      piece_id uuid not null references piece on delete cascade,
      revision integer not null,
      body bytea not null,
      primary key (piece_id, revision)
    );

    create table rate (
      key text not null,
      window_start timestamptz not null,
      count integer not null,
      primary key (key, window_start)
    );
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table rate, snapshot, revision, piece, session, account')
}
