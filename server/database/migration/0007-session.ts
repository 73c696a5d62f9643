import type { Knex } from 'knex'

/** Sessions say on what they were begun and when they were last used; names are compared in one form. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table session
      add column agent text not null default '',
      add column seen_at timestamptz not null default now();
    update account set sign_in = normalize(sign_in, NFKC)
    where sign_in is not nfkc normalized and not exists (
      select 1 from account as other
      where other.id <> account.id and lower(other.sign_in) = lower(normalize(account.sign_in, NFKC))
    )
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table session drop column agent, drop column seen_at')
}
