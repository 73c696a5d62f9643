import type { Knex } from 'knex'

/** A summary says which revision it is of: it is worked out when the workshop is looked at, not with every step. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table piece add column summarised integer not null default 0;
    update piece set summarised = revision
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table piece drop column summarised')
}
