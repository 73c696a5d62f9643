import { describe, expect, inject, it } from 'vitest'
import { client, newName, PASSWORD, person } from './client'

const address = inject('address')

describe('coming in', () => {
  it('makes an account, signs out, signs in again', async () => {
    const someone = client(address)
    const name = newName()
    expect((await someone.call('POST', 'account', { signIn: name, password: PASSWORD })).status).toBe(200)
    expect((await someone.call<{ account: { signIn: string } }>('GET', 'session')).body.account.signIn).toBe(name)
    await someone.call('DELETE', 'session')
    expect((await someone.call('GET', 'session')).body).toMatchObject({ account: null })
    expect((await someone.call('POST', 'session', { signIn: name.toUpperCase(), password: PASSWORD })).status).toBe(
      200,
    )
  })
  it('refuses with a sentence: taken name, short password, wrong password, nonsense', async () => {
    const someone = await person(address)
    const other = client(address)
    const code = async (path: string, body: unknown) => {
      const a = await other.call('POST', path, body)
      return [a.status, a.body.error?.code, /[.]$/.test(a.body.error?.says ?? '')]
    }
    expect(await code('account', { signIn: someone.name, password: PASSWORD })).toEqual([409, 'name-taken', true])
    expect((await code('account', { signIn: newName(), password: 'short' }))[0]).toBe(422)
    expect(await code('session', { signIn: someone.name, password: 'another long word' })).toEqual([
      401,
      'wrong-password',
      true,
    ])
    expect(await code('session', { signIn: 'nobody at all', password: 'another long word' })).toEqual([
      401,
      'wrong-password',
      true,
    ])
    expect(await code('session', '{')).toEqual([400, 'not-json', true])
  })
  it('keeps the cookie from scripts and says nothing in it', async () => {
    const someone = client(address)
    const { headers } = await someone.call('POST', 'account', { signIn: newName(), password: PASSWORD })
    const set = headers.getSetCookie()[0]!
    expect(set).toMatch(/HttpOnly/)
    expect(set).toMatch(/SameSite=Lax/)
    expect(set).not.toMatch(/Secure/)
    expect(set).not.toContain('Person')
  })
  it('a revoked session is a closed door, on every device', async () => {
    const here = await person(address)
    const there = client(address)
    await there.call('POST', 'session', { signIn: here.name, password: PASSWORD })
    const copied = here.cookie
    await there.call('DELETE', 'session?everywhere=1')
    here.cookie = copied
    expect((await here.call('GET', 'piece')).status).toBe(401)
  })
  it('a forged or foreign cookie is no session', async () => {
    const someone = client(address)
    someone.cookie = 'weben=Fe26.2**forged'
    expect((await someone.call('GET', 'session')).body).toMatchObject({ account: null })
  })
  it('limits guessing, and says how long to wait', async () => {
    const someone = client(address)
    const name = newName()
    let last = await someone.call('POST', 'session', { signIn: name, password: PASSWORD })
    for (let i = 0; i < 12; i++) last = await someone.call('POST', 'session', { signIn: name, password: PASSWORD })
    expect(last.status).toBe(429)
    expect(last.body.error!.says).toMatch(/Wait \d+/)
  })
  it('keeps settings', async () => {
    const someone = await person(address)
    const settings = { unit: 'in', theme: 'evening', hand: 'left', school: 'B', paper: 'Letter' }
    expect((await someone.call('PUT', 'settings', settings)).status).toBe(200)
    expect((await someone.call('GET', 'session')).body).toMatchObject({ account: { settings } })
    expect((await someone.call('PUT', 'settings', { ...settings, unit: 'ell' })).status).toBe(422)
  })
})

describe('the demo workshop', () => {
  it('opens on loopback under a local name', async () => {
    const someone = client(address)
    expect((await someone.call('POST', 'session/demo')).status).toBe(200)
    const { body } = await someone.call<{ pieces: unknown[] }>('GET', 'piece')
    expect(body.pieces.length).toBeGreaterThanOrEqual(4)
  })
  it('does not open when the request came through a proxy', async () => {
    const someone = client(address)
    expect((await someone.call('POST', 'session/demo', undefined, { 'x-forwarded-for': '203.0.113.9' })).status).toBe(
      404,
    )
  })
})

describe('who may change things', () => {
  it('only pages of this origin', async () => {
    const someone = await person(address)
    const strangers: Record<string, string>[] = [
      { origin: 'https://elsewhere.example' },
      { origin: 'null' },
      { 'origin': address, 'sec-fetch-site': 'cross-site' },
    ]
    for (const headers of strangers) {
      const { status, body } = await someone.call('DELETE', 'session', undefined, headers)
      expect([status, body.error?.code]).toEqual([403, 'other-origin'])
    }
    expect((await someone.call('GET', 'piece')).status).toBe(200)
  })
  it('pages carry a strict policy', async () => {
    const response = await fetch(`${address}/enter`)
    const policy = response.headers.get('content-security-policy')!
    const script = policy.split(';').find((d) => d.trim().startsWith('script-src '))!
    expect(script).toMatch(/'nonce-/)
    expect(script).not.toMatch(/unsafe|https:|\*/)
    expect(policy).toContain("object-src 'none'")
    expect(policy).toContain("frame-ancestors 'none'")
    expect(policy).not.toContain('upgrade-insecure-requests')
    expect(response.headers.get('x-content-type-options')).toBe('nosniff')
    expect(response.headers.get('strict-transport-security')).toBeNull()
    expect(response.headers.get('x-powered-by')).toBeNull()
  })
})
