import { Hash } from '@adonisjs/hash'
import { Scrypt } from '@adonisjs/hash/drivers/scrypt'
import { DEMO_SIGN_IN, type Device } from '../../core/contract/account'
import type { Credentials } from '../../core/contract/name'
import {
  settingsChangeSchema,
  settingsSchema,
  type AccountSettings,
  type SettingsChange,
} from '../../core/contract/settings'
import type { Database } from '../database/connection'
import { isUniqueViolation } from '../database/errors'
import { Failure, notFound } from './failure'

const hash = new Hash(new Scrypt({}))

export interface Account {
  readonly id: string
  readonly signIn: string
  readonly settings: AccountSettings
}

interface AccountRow {
  id: string
  sign_in: string
  password: string
  settings: unknown
}

/** Settings as they are kept; one that this version does not know is as usual, and the others stand. */
const settingsOf = (kept: unknown): AccountSettings =>
  settingsSchema.parse(
    Object.fromEntries(
      Object.entries(kept ?? {}).filter(([key, value]) => settingsChangeSchema.safeParse({ [key]: value }).success),
    ),
  )

const toAccount = (row: Omit<AccountRow, 'password'>): Account => ({
  id: row.id,
  signIn: row.sign_in,
  settings: settingsOf(row.settings),
})

const nameTaken = (): Failure =>
  new Failure(409, 'name-taken', 'That name is taken. Choose another, or sign in if it is yours.')

/** Refuses a name that is taken, after it was counted that one was asked for. */
export async function requireFreeName(db: Database, signIn: string, counted: () => Promise<void>): Promise<void> {
  if (!(await db('account').whereRaw('lower(sign_in) = lower(?)', [signIn]).first('id'))) return
  await counted()
  throw nameTaken()
}

export async function join(db: Database, { signIn, password }: Credentials): Promise<Account> {
  try {
    const [row] = await db<AccountRow>('account')
      .insert({ sign_in: signIn, password: await hash.make(password) })
      .returning(['id', 'sign_in', 'settings'])
    return toAccount(row!)
  } catch (error) {
    if (isUniqueViolation(error, 'account_sign_in')) throw nameTaken()
    throw error
  }
}

/** A hash of nothing in particular: checked when the name is unknown, so that the answer takes as long. */
let decoy: Promise<string> | undefined

export async function signIn(db: Database, { signIn: name, password }: Credentials): Promise<Account> {
  const row = await db<AccountRow>('account').whereRaw('lower(sign_in) = lower(?)', [name]).first()
  decoy ??= hash.make('nobody knows this one')
  const right = await hash.verify(row?.password ?? (await decoy), password)
  if (!row || !right)
    throw new Failure(401, 'wrong-password', 'Name and password do not match. Check both and try again.')
  return toAccount(row)
}

const SESSION_DAYS = 60

/** A session that can be revoked: the sealed cookie holds only its id. `agent` says on what it was begun. */
export async function openSession(db: Database, accountId: string, agent: string): Promise<string> {
  await db('session').where('expires_at', '<', db.fn.now()).delete()
  const [row] = await db('session')
    .insert({ account_id: accountId, agent, expires_at: db.raw(`now() + interval '${SESSION_DAYS} days'`) })
    .returning('id')
  return (row as { id: string }).id
}

/** A session that is used lives on; it is written down no oftener than this. */
const RENEWED_AFTER_HOURS = 6

/** Whose session it is, and whether it has just been prolonged; null if it has ended. */
export async function accountOfSession(
  db: Database,
  sessionId: string,
): Promise<{ account: Account; renewed: boolean } | null> {
  const row = await db('session')
    .join('account', 'account.id', 'session.account_id')
    .where('session.id', sessionId)
    .andWhere('session.expires_at', '>', db.fn.now())
    .first<AccountRow & { old: boolean }>(
      'account.id',
      'account.sign_in',
      'account.settings',
      db.raw(`session.seen_at < now() - interval '${RENEWED_AFTER_HOURS} hours' as old`),
    )
  if (!row) return null
  if (row.old)
    await db('session')
      .where({ id: sessionId })
      .update({ seen_at: db.fn.now(), expires_at: db.raw(`now() + interval '${SESSION_DAYS} days'`) })
  return { account: toAccount(row), renewed: row.old }
}

/** Where a person is signed in, the last used first. */
export async function listSessions(db: Database, accountId: string, here: string): Promise<Device[]> {
  const rows = await db('session')
    .where({ account_id: accountId })
    .andWhere('expires_at', '>', db.fn.now())
    .orderBy('seen_at', 'desc')
    .select<{ id: string; agent: string; created_at: Date; seen_at: Date }[]>('id', 'agent', 'created_at', 'seen_at')
  return rows.map((row) => ({
    id: row.id,
    agent: row.agent,
    since: row.created_at.toISOString(),
    seen: row.seen_at.toISOString(),
    here: row.id === here,
  }))
}

/** Signs another device out; another's is none. */
export async function closeOther(db: Database, accountId: string, sessionId: string): Promise<void> {
  if ((await db('session').where({ id: sessionId, account_id: accountId }).delete()) === 0) throw notFound()
}

async function requirePassword(db: Database, accountId: string, password: string): Promise<void> {
  const row = await db<AccountRow>('account').where({ id: accountId }).first('password')
  if (!row || !(await hash.verify(row.password, password)))
    throw new Failure(403, 'wrong-password', 'That is not your password. Nothing was changed.')
}

/** Another password; every other device is signed out. */
export async function changePassword(
  db: Database,
  accountId: string,
  here: string,
  { now, next }: { readonly now: string; readonly next: string },
): Promise<void> {
  await requirePassword(db, accountId, now)
  const password = await hash.make(next)
  await db.transaction(async (trx) => {
    await trx('account').where({ id: accountId }).update({ password })
    await trx('session').where({ account_id: accountId }).whereNot({ id: here }).delete()
  })
}

/** Removes an account with everything it owns, for good. */
export async function removeAccount(db: Database, { id, signIn }: Account, password: string): Promise<void> {
  await requirePassword(db, id, password)
  await db.transaction(async (trx) => {
    await trx('account').where({ id }).delete()
    await trx('rate')
      .where('key', 'like', `%${id}%`)
      .orWhereRaw('starts_with(key, ?)', [guessesAt(signIn)])
      .delete()
  })
}

const guessesAt = (signIn: string): string => `sign-in as ${signIn.toLowerCase()} from `

/** Under what guesses at an account from an address are counted. */
export const guessKey = (signIn: string, address: string): string => `${guessesAt(signIn)}${address}`

export async function closeSession(db: Database, sessionId: string): Promise<void> {
  await db('session').where({ id: sessionId }).delete()
}

/** Signs out everywhere, this device included. */
export async function closeAllSessions(db: Database, accountId: string): Promise<void> {
  await db('session').where({ account_id: accountId }).delete()
}

/**
 * Changes settings and leaves the others as they are, in one statement: changes that come at once, in whatever order,
 * all stand.
 */
export async function changeSettings(
  db: Database,
  accountId: string,
  change: SettingsChange,
): Promise<AccountSettings> {
  const [row] = await db('account')
    .where({ id: accountId })
    .update({ settings: db.raw('settings || ?::jsonb', [JSON.stringify(change)]) })
    .returning<{ settings: unknown }[]>('settings')
  return settingsOf(row?.settings)
}

export async function findDemoAccount(db: Database): Promise<Account | null> {
  const row = await db<AccountRow>('account').where({ sign_in: DEMO_SIGN_IN }).first()
  return row ? toAccount(row) : null
}
