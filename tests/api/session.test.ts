import { sealSession, type H3Event } from 'h3'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import type { Device } from '#core/contract/account'
import { pieceToBody } from '#core/piece/codec'
import { setStep } from '#core/piece/edit'
import { DEMO_SHELF } from '../../demo/shelf'
import { startApplication, type Application } from '../../launcher/application'
import { freePort } from '../../launcher/postgres'
import { connect } from '../../server/database/connection'
import { piece } from '../fixture/piece'
import { client, newName, PASSWORD, person } from './client'

const address = inject('address')

/** An instance behind a proxy that it trusts, so that requests can come from other addresses. */
let application: Application
let proxied: string
beforeAll(async () => {
  application = await startApplication({
    root: process.cwd(),
    port: await freePort(),
    databaseUrl: inject('databaseUrl'),
    secret: inject('secret'),
    demo: false,
    environment: { WEBEN_TRUST_PROXY: '1', WEBEN_JOIN_LIMIT: '4' },
  })
  proxied = application.address
})
afterAll(() => application.stop())

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
  it('limits guessing by account and address, and says how long to wait', async () => {
    const someone = client(address)
    const { name } = await person(address)
    const guess = (password: string) => someone.call('POST', 'session', { signIn: name, password })
    for (let i = 0; i < 10; i++) expect((await guess('another long word')).status).toBe(401)
    const last = await guess('another long word')
    expect([last.status, last.body.error!.says]).toEqual([429, expect.stringMatching(/Wait \d+/)])
    // However it is written, it is one account.
    expect(
      (await someone.call('POST', 'session', { signIn: ` ${name.toUpperCase()}`, password: PASSWORD })).status,
    ).toBe(429)
    // Nobody else behind the same router is kept out.
    const other = await person(address)
    expect((await client(address).call('POST', 'session', { signIn: other.name, password: PASSWORD })).status).toBe(
      200,
    )
  })
  it('a stranger elsewhere cannot lock a weaver out', async () => {
    const { name } = await person(address)
    const from = (at: string, password: string) =>
      client(proxied).call('POST', 'session', { signIn: name, password }, { 'x-forwarded-for': at })
    for (let i = 0; i < 12; i++) await from('203.0.113.5', 'another long word')
    expect((await from('203.0.113.5', PASSWORD)).status).toBe(429)
    expect((await from('203.0.113.6', PASSWORD)).status).toBe(200)
  })
  it('successes are not counted: a class behind one router enters, again and again', async () => {
    const twelve = await Promise.all(Array.from({ length: 12 }, () => person(address)))
    for (let round = 0; round < 12; round++) {
      const entered = await Promise.all(
        twelve.map(({ name }) => client(address).call('POST', 'session', { signIn: name, password: PASSWORD })),
      )
      expect(entered.map((a) => a.status)).toEqual(twelve.map(() => 200))
    }
  })
  it('what cannot be an account costs nothing; asking which names are taken does', async () => {
    const { name } = await person(address)
    const join = (at: string, signIn: string, password = PASSWORD) =>
      client(proxied).call('POST', 'account', { signIn, password }, { 'x-forwarded-for': at })
    for (let i = 0; i < 70; i++) expect((await join('203.0.113.7', newName(), 'short')).status).toBe(422)
    expect((await join('203.0.113.7', newName())).status).toBe(200)
    for (let i = 0; i < 30; i++) expect((await join('203.0.113.8', name)).body.error?.code).toBe('name-taken')
    expect((await join('203.0.113.8', name)).status).toBe(429)
    expect((await join('203.0.113.8', newName())).status).toBe(200)
  })
  it('limits new accounts by address, as the workshop says, and a refused one by none', async () => {
    const join = (at: string, signIn: string) =>
      client(proxied).call('POST', 'account', { signIn, password: PASSWORD }, { 'x-forwarded-for': at })
    for (let i = 0; i < 4; i++) expect((await join('203.0.113.9', newName())).status).toBe(200)
    const late = newName()
    const refused = await join('203.0.113.9', late)
    expect([refused.status, refused.body.error!.says]).toEqual([429, expect.stringMatching(/Wait \d+/)])
    expect((await join('203.0.113.10', late)).status).toBe(200)
  })
  it('knows a name however it is typed, and takes none that looks like another', async () => {
    const someone = client(address)
    const name = `Zoë ${newName()}`
    expect((await someone.call('POST', 'account', { signIn: name.normalize('NFD'), password: PASSWORD })).status).toBe(
      200,
    )
    expect(
      (await client(address).call('POST', 'account', { signIn: name, password: PASSWORD })).body.error?.code,
    ).toBe('name-taken')
    expect((await client(address).call('POST', 'session', { signIn: ` ${name} `, password: PASSWORD })).status).toBe(
      200,
    )
    const unseen = await client(address).call('POST', 'account', { signIn: `${name}\u200B`, password: PASSWORD })
    expect([unseen.status, unseen.body.error?.says]).toEqual([422, expect.stringMatching(/cannot be seen/)])
  })
  it('keeps settings', async () => {
    const someone = await person(address)
    const settings = { unit: 'in', theme: 'evening', hand: 'left', school: 'B', paper: 'Letter' }
    expect((await someone.call('PATCH', 'settings', settings)).status).toBe(200)
    expect((await someone.call('GET', 'session')).body).toMatchObject({ account: { settings } })
    expect((await someone.call('PATCH', 'settings', { ...settings, unit: 'ell' })).status).toBe(422)
  })
  it('keeps each of many settings that are changed at once', async () => {
    const someone = await person(address)
    const each = [{ unit: 'in' }, { theme: 'evening' }, { hand: 'left' }, { school: 'B' }, { letters: 'off' }]
    const changed = await Promise.all(each.map((one) => someone.call('PATCH', 'settings', one)))
    expect(changed.map((answer) => answer.status)).toEqual(each.map(() => 200))
    const { account } = (await someone.call<{ account: { settings: object } }>('GET', 'session')).body
    expect(account.settings).toMatchObject({ ...Object.assign({}, ...each), paper: 'A4', currency: 'EUR' })
  })
})

describe('an account', () => {
  const devices = async (who: Awaited<ReturnType<typeof person>>) =>
    (await who.call<{ devices: Device[] }>('GET', 'session/device')).body.devices
  it('lists its devices and signs one of them out, nobody else’s', async () => {
    const here = await person(address)
    const there = client(address)
    const agent = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'
    await there.call('POST', 'session', { signIn: here.name, password: PASSWORD }, { 'user-agent': agent })
    const list = await devices(here)
    expect(list.map((d) => [d.here, d.agent]).sort()).toEqual([
      [false, 'Firefox on Linux'],
      [true, ''],
    ])
    const { id } = list.find((d) => !d.here)!
    const stranger = await person(address)
    expect((await stranger.call('DELETE', `session/device/${id}`)).status).toBe(404)
    expect((await there.call('GET', 'piece')).status).toBe(200)
    expect((await here.call('DELETE', `session/device/${id}`)).status).toBe(200)
    expect((await there.call('GET', 'piece')).status).toBe(401)
    expect(await devices(here)).toHaveLength(1)
  })
  it('changes its password by the old one, and signs the others out', async () => {
    const here = await person(address)
    const there = client(address)
    await there.call('POST', 'session', { signIn: here.name, password: PASSWORD })
    const change = (now: string, next: string) => here.call('PUT', 'account/password', { now, next })
    expect((await change('not this one at all', 'quite another word')).body.error?.code).toBe('wrong-password')
    expect((await change(PASSWORD, 'short')).status).toBe(422)
    expect((await there.call('GET', 'piece')).status).toBe(200)
    expect((await change(PASSWORD, 'quite another word')).status).toBe(200)
    expect([(await here.call('GET', 'piece')).status, (await there.call('GET', 'piece')).status]).toEqual([200, 401])
    const enter = (password: string) => client(address).call('POST', 'session', { signIn: here.name, password })
    expect([(await enter(PASSWORD)).status, (await enter('quite another word')).status]).toEqual([401, 200])
  })
  it('stays open as long as it is used', async () => {
    const db = connect(inject('databaseUrl'))
    try {
      const here = await person(address)
      const [{ id }] = (await devices(here)) as [Device]
      const age = (ago: string) =>
        db('session')
          .where({ id })
          .update({ seen_at: db.raw('now() - ?::interval', [ago]), expires_at: db.raw("now() + interval '1 day'") })
      const left = async () =>
        (
          await db('session')
            .where({ id })
            .first<{ days: number }>(db.raw('extract(day from expires_at - now())::int as days'))
        ).days
      await age('5 hours')
      const soon = await here.call('GET', 'piece')
      expect([await left(), soon.headers.getSetCookie()]).toEqual([0, []])
      await age('7 hours')
      const later = await here.call('GET', 'piece')
      expect(await left()).toBeGreaterThanOrEqual(59)
      expect(later.headers.getSetCookie()).toHaveLength(1)
      expect((await here.call('GET', 'piece')).status).toBe(200)
    } finally {
      await db.destroy()
    }
  })
  it('is as old as it is written down to be, however old its cookie', async () => {
    const here = await person(address)
    const [{ id }] = (await devices(here)) as [Device]
    const old = { id: 'of old', createdAt: Date.now() - 90 * 86_400_000, data: { sid: id } }
    const event = { context: { sessions: { weben: old } } } as unknown as H3Event
    here.cookie = `weben=${await sealSession(event, { name: 'weben', password: inject('secret') })}`
    expect((await here.call('GET', 'piece')).status).toBe(200)
  })
  it('gives no cookie to whoever asks without one: a late answer would end a session begun meanwhile', async () => {
    const nobody = client(address)
    for (const path of ['session', 'piece', 'health']) {
      const answer = await nobody.call('GET', path)
      expect([path, answer.headers.getSetCookie()]).toEqual([path, []])
    }
    nobody.cookie = 'weben=not-a-seal'
    const answer = await nobody.call('GET', 'piece')
    expect([answer.status, answer.headers.getSetCookie()]).toEqual([401, []])
  })
  it('is removed with everything it owns: no row of any table knows it', async () => {
    const db = connect(inject('databaseUrl'))
    try {
      const here = await person(address)
      const other = await person(address)
      /** What tells the rows of each: of the account itself, and of what is under it. */
      const marks: string[][] = []
      for (const who of [here, other]) {
        const { id } = (await who.call<{ id: string }>('POST', 'piece', pieceToBody(piece()))).body
        const step = setStep(piece(), ['name'], 'Changed')
        await who.call('POST', `piece/${id}/step`, {
          base: 0,
          transactions: [{ id: `gone-${id.slice(0, 8)}`, label: 'x', steps: [step] }],
        })
        const made = await who.call<{ making: { id: string } }>('POST', `piece/${id}/making`, {
          as: 'begin-here-1',
          revision: 0,
          head: {},
        })
        await who.call('POST', `piece/${id}/making/${made.body.making.id}/event`, {
          after: 0,
          now: 1,
          events: [{ id: 'press-here-1', at: 0, event: { do: 'at', task: 'band/1/1', bite: 0 } }],
        })
        await who.call('GET', `piece/${id}/picture/1`)
        const value = DEMO_SHELF.find((v) => v.kind === 'bead')!
        const kept = await who.call<{ items: { id: string }[] }>('POST', 'shelf', { values: [value] })
        await who.call('POST', `piece/${id}/holding`, {
          what: 'reserve',
          asks: [{ shelfId: kept.body.items[0]!.id, amount: 0.5 }],
        })
        const account = (await who.call<{ account: { id: string } }>('GET', 'session')).body.account.id
        marks.push([account, id, made.body.making.id, kept.body.items[0]!.id])
      }
      const account = marks[0]![0]!
      // A guess at it is counted under its name.
      await client(address).call('POST', 'session', { signIn: here.name, password: 'not this one at all' })
      const owned = ['piece', 'revision', 'snapshot', 'picture', 'making', 'making_event', 'holding', 'shelf']
      /** How many rows of each table are whose. Others make and remove accounts in it at the same time. */
      const rows = (whose: string[]) =>
        Promise.all(
          owned.map(async (name) => {
            const query = 'select count(*)::int as count from ?? as t where t::text like any (?::text[])'
            const found = await db.raw<{ rows: { count: number }[] }>(query, [name, whose.map((id) => `%${id}%`)])
            return [name, found.rows[0]!.count]
          }),
        )
      const knows = async () => {
        const { rows: tables } = await db.raw<{ rows: { name: string }[] }>(
          "select table_name as name from information_schema.tables where table_schema = 'public'",
        )
        const found: string[] = []
        const query = 'select 1 from ?? as t where t::text like ? or t::text ~* ? limit 1'
        for (const { name } of tables) {
          const seen = await db.raw<{ rows: unknown[] }>(query, [name, `%${account}%`, `${here.name}\\M`])
          if (seen.rows.length > 0) found.push(name)
        }
        return found.sort()
      }
      expect(await knows()).toEqual(expect.arrayContaining(['account', 'piece', 'rate', 'session', 'shelf']))
      const one = owned.map((name) => [name, 1])
      expect([await rows(marks[0]!), await rows(marks[1]!)]).toEqual([one, one])
      expect((await here.call('DELETE', 'account', { password: 'not this one at all' })).body.error?.code).toBe(
        'wrong-password',
      )
      expect((await here.call('DELETE', 'account', { password: PASSWORD })).status).toBe(200)
      expect((await here.call('GET', 'piece')).status).toBe(401)
      expect(await knows()).toEqual([])
      expect(await rows(marks[0]!)).toEqual(owned.map((name) => [name, 0]))
      expect(await rows(marks[1]!)).toEqual(one)
      expect((await other.call('GET', 'piece')).status).toBe(200)
    } finally {
      await db.destroy()
    }
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
    for (const kind of ['script-src ', 'style-src ']) {
      const sources = policy.split(';').find((d) => d.trim().startsWith(kind))!
      expect(sources).toMatch(/'nonce-/)
      expect(sources).not.toMatch(/unsafe|https:|\*/)
    }
    expect(policy).toContain("object-src 'none'")
    expect(policy).toContain("frame-ancestors 'none'")
    expect(policy).not.toContain('upgrade-insecure-requests')
    expect(response.headers.get('x-content-type-options')).toBe('nosniff')
    expect(response.headers.get('strict-transport-security')).toBeNull()
    expect(response.headers.get('x-powered-by')).toBeNull()
  })
})
