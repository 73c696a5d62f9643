import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ACCOUNT_HEADER, DOCUMENT_HEADER, DOCUMENT_VERSION } from '#core/contract/answer'
import { savedAnswer } from '#core/contract/piece'
import { api, ApiError, backOff, reach } from './api'

const answer = (body: string, { status = 200, version = DOCUMENT_VERSION as string | null } = {}) =>
  new Response(body, {
    status,
    headers: { 'content-type': 'application/json', ...(version === null ? {} : { [DOCUMENT_HEADER]: version }) },
  })

const failing = async (): Promise<ApiError> => {
  const error: unknown = await api(savedAnswer, 'piece/x/step', { method: 'POST', body: {}, within: 60 }).then(
    () => null,
    (e: unknown) => e,
  )
  if (!(error instanceof ApiError)) throw new Error('it was believed')
  return error
}

beforeEach(() => Object.assign(reach, { away: false, renewed: false, signedOut: '', account: null }))
afterEach(() => {
  vi.unstubAllGlobals()
})
const serve = (make: (url: string, init: RequestInit) => Promise<Response>) => {
  vi.stubGlobal('fetch', vi.fn(make))
}

describe('an answer', () => {
  it.each([
    ['a page of a guest network', () => answer('<h1>Welcome</h1>', { version: null })],
    ['JSON of another program', () => answer('{"revision":3}', { version: null })],
    ['not of the shape that was asked for', () => answer('{"fine":true}')],
    ['a revision that is none', () => answer('{"revision":"3"}')],
    ['an error without its shape', () => answer('{"oops":1}', { status: 500 })],
    ['an error page of a proxy', () => answer('Bad gateway', { status: 502, version: null })],
    ['nothing at all', () => answer('')],
  ])('that is %s counts as none', async (_, make) => {
    serve(() => Promise.resolve(make()))
    const error = await failing()
    expect([error.status, error.isPassing, reach.away]).toEqual([0, true, true])
  })
  it('of Weben is believed, and says that the server is there', async () => {
    reach.away = true
    serve(() => Promise.resolve(answer('{"revision":3,"more":1}')))
    expect(await api(savedAnswer, 'piece/x/step')).toEqual({ revision: 3 })
    expect(reach.away).toBe(false)
  })
  it('that does not come in time is none', async () => {
    serve(
      (_, init) =>
        new Promise((_done, fail) =>
          init.signal!.addEventListener('abort', () => {
            fail(new Error('aborted'))
          }),
        ),
    )
    const error = await failing()
    expect([error.status, error.code]).toEqual([0, 'unreachable'])
  })
  it('of another version is not used, and asks for a reload', async () => {
    serve(() => Promise.resolve(answer('{"revision":3}', { version: '999' })))
    expect((await failing()).code).toBe('renewed')
    expect([reach.renewed, reach.away]).toEqual([true, false])
  })
  it('that the session has ended is said, and what is refused for good is not passing', async () => {
    serve(() =>
      Promise.resolve(answer('{"error":{"code":"signed-out","says":"You are not signed in."}}', { status: 401 })),
    )
    expect((await failing()).isPassing).toBe(false)
    expect(reach.signedOut).toBe('You are not signed in.')
  })
  it('is asked for in the name of the account, by this version', async () => {
    reach.account = 'someone'
    let headers: Record<string, string> = {}
    serve((_, init) => {
      headers = init.headers as Record<string, string>
      return Promise.resolve(answer('{"revision":0}'))
    })
    await api(savedAnswer, 'piece/x/step', { method: 'POST', body: {} })
    expect([headers[ACCOUNT_HEADER], headers[DOCUMENT_HEADER]]).toEqual(['someone', DOCUMENT_VERSION])
  })
})

describe('waits between tries', () => {
  it('double from half a second to half a minute, and are never all alike', () => {
    for (let failures = 0; failures < 12; failures++) {
      const whole = Math.min(30_000, 500 * 2 ** failures)
      const waits = Array.from({ length: 50 }, () => backOff(failures))
      for (const wait of waits) {
        expect(wait).toBeGreaterThanOrEqual(whole / 2)
        expect(wait).toBeLessThanOrEqual(whole)
      }
      expect(new Set(waits).size).toBeGreaterThan(40)
    }
  })
})
