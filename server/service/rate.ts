import type { Database } from '../database/connection'
import { Failure } from './failure'

interface Rate {
  readonly most: number
  readonly seconds: number
}

/**
 * New accounts an hour from one address; a class behind one router may need more than the usual 60
 * (`WEBEN_JOIN_LIMIT`).
 */
const joins = (): number => Math.max(1, Math.floor(Number(process.env.WEBEN_JOIN_LIMIT)) || 60)

/** Limits for what guesses or costs. In PostgreSQL, so they hold across instances. */
export const RATES = {
  /** Guesses at one account from one address; an address that guesses at many has more, since a class may share it. */
  signIn: { most: 10, seconds: 300 },
  signInFrom: { most: 100, seconds: 300 },
  /** Names that were taken, asked from one address. */
  taken: { most: 30, seconds: 3600 },
  get join() {
    return { most: joins(), seconds: 3600 }
  },
  create: { most: 60, seconds: 600 },
  /** Archives written, and read. */
  archive: { most: 20, seconds: 3600 },
  picture: { most: 600, seconds: 60 },
  /** Pieces proofread, which can take seconds each. */
  proof: { most: 60, seconds: 60 },
  /** Cells touched by steps: a hand that fills large pieces needs a tenth of it. */
  effort: { most: 150_000_000, seconds: 60 },
} as const satisfies Record<string, Rate>

/** Counts a use of `key`, or so many, in a fixed window; too many are refused with the time to wait. */
export async function spend(db: Database, key: string, { most, seconds }: Rate, amount = 1): Promise<void> {
  const { rows } = await db.raw<{ rows: { count: number; wait: number }[] }>(
    `
    insert into rate (key, window_start, count)
    values (?, to_timestamp(floor(extract(epoch from now()) / ?) * ?), ?)
    on conflict (key, window_start) do update set count = least(rate.count::bigint + excluded.count, 2147483647)
    returning count, ceil(extract(epoch from window_start) + ? - extract(epoch from now()))::int as wait`,
    [key, seconds, seconds, amount, seconds],
  )
  const { count, wait } = rows[0]!
  if (count === amount) await db.raw("delete from rate where window_start < now() - interval '1 day'")
  if (count > most)
    throw new Failure(
      429,
      'too-many',
      `That was tried too often. Wait ${wait > 90 ? `${Math.ceil(wait / 60)} minutes` : `${wait} seconds`} ` +
        'and try again.',
      { data: { wait } },
    )
}

/** Takes a use back: only what fails is counted where guesses are. */
export const unspend = async (db: Database, key: string): Promise<void> => {
  await db.raw(
    'update rate set count = count - 1 where key = ? and count > 0 and window_start = ' +
      '(select max(window_start) from rate where key = ?)',
    [key, key],
  )
}

/** What accounts have cost since they were last counted: small sums together, so that saving keeps its rate. */
const owed = new Map<string, number>()
const COUNTED_AT = 1_000_000
const MOST_OWING = 10_000

/** Counts cells that steps touch. */
export async function spendEffort(db: Database, accountId: string, effort: number): Promise<void> {
  const sum = (owed.get(accountId) ?? 0) + effort
  if (sum < COUNTED_AT) {
    if (owed.size >= MOST_OWING) owed.clear()
    owed.set(accountId, sum)
    return
  }
  owed.delete(accountId)
  await spend(db, `effort ${accountId}`, RATES.effort, sum)
}
