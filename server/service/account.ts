import { Hash } from '@adonisjs/hash'
import { Scrypt } from '@adonisjs/hash/drivers/scrypt'
import { z } from 'zod'
import { DEMO_SIGN_IN } from '../../core/contract/answers'
import { settingsSchema, type AccountSettings } from '../../core/contract/settings'
import type { Database } from '../database/connection'
import { isUniqueViolation } from '../database/errors'
import { Failure } from './failure'

const hash = new Hash(new Scrypt({}))

export interface Account {
  readonly id: string
  readonly signIn: string
  readonly settings: AccountSettings
}

export const credentialsSchema = z.strictObject({
  signIn: z.string().trim().min(2, 'Choose a name of at least two letters').max(80, 'Choose a shorter name'),
  password: z.string().min(10, 'Choose a password of at least ten characters').max(200, 'Choose a shorter password'),
})

interface AccountRow {
  id: string
  sign_in: string
  password: string
  settings: unknown
}

const toAccount = (row: Omit<AccountRow, 'password'>): Account => ({
  id: row.id,
  signIn: row.sign_in,
  settings: settingsSchema.catch(settingsSchema.parse({})).parse(row.settings),
})

export async function join(db: Database, { signIn, password }: z.infer<typeof credentialsSchema>): Promise<Account> {
  try {
    const [row] = await db<AccountRow>('account')
      .insert({ sign_in: signIn, password: await hash.make(password) })
      .returning(['id', 'sign_in', 'settings'])
    return toAccount(row!)
  } catch (error) {
    if (isUniqueViolation(error, 'account_sign_in'))
      throw new Failure(409, 'name-taken', 'That name is taken. Choose another, or sign in if it is yours.')
    throw error
  }
}

/** A hash of nothing in particular: checked when the name is unknown, so that the answer takes as long. */
let decoy: Promise<string> | undefined

export async function signIn(
  db: Database,
  { signIn: name, password }: z.infer<typeof credentialsSchema>,
): Promise<Account> {
  const row = await db<AccountRow>('account').whereRaw('lower(sign_in) = lower(?)', [name]).first()
  decoy ??= hash.make('nobody knows this one')
  const right = await hash.verify(row?.password ?? (await decoy), password)
  if (!row || !right)
    throw new Failure(401, 'wrong-password', 'Name and password do not match. Check both and try again.')
  return toAccount(row)
}

const SESSION_DAYS = 60

/** A session that can be revoked: the sealed cookie holds only its id. */
export async function openSession(db: Database, accountId: string): Promise<string> {
  await db('session').where('expires_at', '<', db.fn.now()).delete()
  const [row] = await db('session')
    .insert({ account_id: accountId, expires_at: db.raw(`now() + interval '${SESSION_DAYS} days'`) })
    .returning('id')
  return (row as { id: string }).id
}

export async function accountOfSession(db: Database, sessionId: string): Promise<Account | null> {
  const row = await db('session')
    .join('account', 'account.id', 'session.account_id')
    .where('session.id', sessionId)
    .andWhere('session.expires_at', '>', db.fn.now())
    .first<AccountRow>('account.id', 'account.sign_in', 'account.settings')
  return row ? toAccount(row) : null
}

export async function closeSession(db: Database, sessionId: string): Promise<void> {
  await db('session').where({ id: sessionId }).delete()
}

/** Signs out everywhere, this device included. */
export async function closeAllSessions(db: Database, accountId: string): Promise<void> {
  await db('session').where({ account_id: accountId }).delete()
}

export async function saveSettings(
  db: Database,
  accountId: string,
  settings: AccountSettings,
): Promise<AccountSettings> {
  await db('account')
    .where({ id: accountId })
    .update({ settings: JSON.stringify(settings) })
  return settings
}

export async function findDemoAccount(db: Database): Promise<Account | null> {
  const row = await db<AccountRow>('account').where({ sign_in: DEMO_SIGN_IN }).first()
  return row ? toAccount(row) : null
}
