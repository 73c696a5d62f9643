import {
  getCookie,
  getRequestHeader,
  getRequestIP,
  unsealSession,
  useSession,
  type H3Event,
  type SessionConfig,
} from 'h3'
import { ACCOUNT_HEADER } from '../../core/contract/answer'
import { database } from '../database/connection'
import { accountOfSession, openSession, type Account } from '../service/account'
import { Failure } from '../service/failure'

const DAY = 86_400

function secret(): string {
  const value = process.env.WEBEN_SESSION_SECRET
  if (!value || value.length < 32)
    throw new Error('WEBEN_SESSION_SECRET is not set: give at least 32 random characters, the same for every instance')
  return value
}

const trustsProxy = (): boolean => process.env.WEBEN_TRUST_PROXY === '1'

/** Whether the person reached us over https: directly, or by the word of a trusted proxy. */
const isSecure = (event: H3Event): boolean => trustsProxy() && getRequestHeader(event, 'x-forwarded-proto') === 'https'

export const addressOf = (event: H3Event): string => getRequestIP(event, { xForwardedFor: trustsProxy() }) ?? 'unknown'

const COOKIE = 'weben'

/**
 * The sealed cookie holds the id of a session and nothing else; its `Secure` follows the scheme. The seal does not
 * age: how long a session lives is written with the session, which is prolonged as it is used.
 */
const config = (event: H3Event): SessionConfig => ({
  name: COOKIE,
  password: secret(),
  sessionHeader: false,
  cookie: { httpOnly: true, sameSite: 'lax', path: '/', secure: isSecure(event), maxAge: 60 * DAY },
})

const BROWSERS = [
  ['Firefox', /Firefox\//],
  ['Edge', /Edg\//],
  ['Chromium', /Chrom(?:e|ium)\//],
  ['Safari', /Safari\//],
] as const
const SYSTEMS = [
  ['a phone', /Mobile|iPhone|Android/],
  ['a tablet', /iPad|Tablet/],
  ['Windows', /Windows/],
  ['a Mac', /Macintosh/],
  ['Linux', /Linux/],
] as const

/** Browser and system in a few words, so that a person knows their devices apart; nothing more is kept of them. */
function agentOf(event: H3Event): string {
  const said = getRequestHeader(event, 'user-agent') ?? ''
  const find = (among: readonly (readonly [string, RegExp])[]) => among.find(([, sign]) => sign.test(said))?.[0]
  const [browser, system] = [find(BROWSERS), find(SYSTEMS)]
  return [browser, system && `on ${system}`].filter(Boolean).join(' ')
}

export async function enter(event: H3Event, account: Account): Promise<void> {
  const sealed = await useSession<{ sid?: string }>(event, config(event))
  await sealed.update({ sid: await openSession(database(), account.id, agentOf(event)) })
}

/**
 * Whoever brings no cookie of ours gets none by asking: a late answer to such a request would end the session that was
 * begun meanwhile.
 */
export async function sessionId(event: H3Event): Promise<string | null> {
  const sealed = getCookie(event, COOKIE)
  if (sealed === undefined) return null
  const session = await unsealSession(event, config(event), sealed).catch(() => null)
  return (session?.data as { sid?: string } | undefined)?.sid ?? null
}

export async function leave(event: H3Event): Promise<void> {
  const sealed = await useSession<{ sid?: string }>(event, config(event))
  await sealed.clear()
}

export async function findAccount(event: H3Event): Promise<Account | null> {
  const sid = await sessionId(event)
  const found = sid ? await accountOfSession(database(), sid) : null
  if (found?.renewed) {
    // The cookie lives on with its session.
    const sealed = await useSession<{ sid?: string }>(event, config(event))
    await sealed.update({ sid: sid! })
  }
  return found?.account ?? null
}

export async function requireAccount(event: H3Event): Promise<Account> {
  const account = await findAccount(event)
  if (!account)
    throw new Failure(
      401,
      'signed-out',
      'You are not signed in. Sign in; what you did here is kept in this browser until then.',
    )
  const meant = getRequestHeader(event, ACCOUNT_HEADER)
  if (meant !== undefined && meant !== account.id)
    throw new Failure(
      401,
      'other-account',
      'Someone else has signed in in this browser since. Sign in again as yourself; what you did here is kept ' +
        'until then.',
    )
  return account
}
