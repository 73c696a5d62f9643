import type { Knex } from 'knex'
import type { Database } from './connection'
import * as first from './migration/0001-first'
import * as shelf from './migration/0002-shelf'
import * as fit from './migration/0003-fit'
import * as box from './migration/0004-box'
import * as place from './migration/0005-place'
import * as picture from './migration/0006-picture'
import * as session from './migration/0007-session'
import * as storage from './migration/0008-storage'
import * as summary from './migration/0009-summary'
import * as making from './migration/0010-making'

interface Named {
  readonly name: string
  readonly migration: Knex.Migration
}

const MIGRATIONS: readonly Named[] = [
  { name: '0001-first', migration: first },
  { name: '0002-shelf', migration: shelf },
  { name: '0003-fit', migration: fit },
  { name: '0004-box', migration: box },
  { name: '0005-place', migration: place },
  { name: '0006-picture', migration: picture },
  { name: '0007-session', migration: session },
  { name: '0008-storage', migration: storage },
  { name: '0009-summary', migration: summary },
  { name: '0010-making', migration: making },
]

const migrationSource: Knex.MigrationSource<Named> = {
  getMigrations: () => Promise.resolve([...MIGRATIONS]),
  getMigrationName: (named) => named.name,
  getMigration: (named) => Promise.resolve(named.migration),
}

/** A number of our own for PostgreSQL's advisory locks. */
const LOCK = 7_305_412

/** Does work while no other instance does any under this lock, which ends with its connection. */
export async function underLock<T>(db: Database, work: () => Promise<T>): Promise<T> {
  return db.transaction(async (trx) => {
    await trx.raw('select pg_advisory_xact_lock(?)', [LOCK])
    return work()
  })
}

/** Brings the database to the newest shape, under the lock where several may do it. Returns what was done. */
export async function migrate(db: Database): Promise<string[]> {
  const [, names] = (await db.migrate.latest({ migrationSource })) as [number, string[]]
  return names
}
