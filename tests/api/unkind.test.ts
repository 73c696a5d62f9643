import { readdirSync } from 'node:fs'
import { beforeAll, describe, expect, inject, it } from 'vitest'
import { pieceToBody } from '#core/piece/codec'
import { setStep } from '#core/piece/edit'
import { piece } from '../fixture/piece'
import { person } from './client'

const address = inject('address')
type Person = Awaited<ReturnType<typeof person>>
let weaver: Person
let id: string
beforeAll(async () => {
  weaver = await person(address)
  id = (await weaver.call<{ id: string }>('POST', 'piece', pieceToBody(piece()))).body.id
})

describe('a text that cannot be kept', () => {
  const unsound = ['x\\u0000', '\\ud83d', 'a \\uDE00 b']
  it.each(unsound)('%s is refused with a sentence, wherever it stands', async (text) => {
    const name = JSON.stringify(pieceToBody(piece({ name: 'NAME' }))).replace('NAME', text)
    const transaction = (label: string, step: object) =>
      JSON.stringify({ base: 0, transactions: [{ id: 'unsound-1', label, steps: [step] }] }).replace('TEXT', text)
    const set = setStep(piece(), ['name'], 'TEXT')
    const asks: [string, string, string][] = [
      ['POST', 'piece', name],
      ['POST', `piece/${id}/step`, transaction('x', set)],
      ['POST', `piece/${id}/step`, transaction('TEXT', setStep(piece(), ['name'], 'y'))],
      ['POST', `piece/${id}/making`, `{"as":"begin-odd-1","revision":0,"head":{"name":"${text}"}}`],
      ['POST', 'session', `{"signIn":"${text} and more","password":"a long enough word"}`],
      ['POST', 'account', `{"signIn":"${text} and more","password":"a long enough word"}`],
    ]
    for (const [method, path, body] of asks) {
      const answer = await weaver.call(method, path, body, { 'content-type': 'application/json' })
      expect([path, answer.status, answer.body.error?.code]).toEqual([path, 400, 'text-unsound'])
    }
  })
  it('that is whole is kept', async () => {
    const made = await weaver.call<{ id: string }>('POST', 'piece', pieceToBody(piece({ name: 'Ring 💍 “é”' })))
    const there = await weaver.call<{ piece: { name: string } }>('GET', `piece/${made.body.id}`)
    expect(there.body.piece.name).toBe('Ring 💍 “é”')
  })
})

describe('an address', () => {
  const strange = ['x', '0', '%00', '..%2f..', `${'a'.repeat(4000)}`, '%F0%9F', "'; drop table piece --", '-1']
  it.each(strange)('with the id %s names nothing', async (odd) => {
    const paths = [
      `piece/${odd}`,
      `piece/${odd}/step`,
      `piece/${odd}/making`,
      `piece/${id}/making/${odd}`,
      `piece/${odd}/revision/0`,
    ]
    for (const path of [...paths, `piece/${id}/revision/${odd === '0' ? 'x' : odd}`, `piece/${id}/picture/${odd}x`])
      expect([path, (await weaver.call('GET', path)).status]).toEqual([path, 404])
    expect((await weaver.call('DELETE', `shelf/${odd}`)).status).toBe(404)
  })
  it('with a number that no database counts to is refused, never a fault', async () => {
    for (const number of [2 ** 31, 2 ** 53, 1e300]) {
      const text = BigInt(number).toString()
      expect((await weaver.call('GET', `piece/${id}/revision/${text}`)).status).toBe(404)
      expect((await weaver.call('GET', `piece/${id}/step?after=${text}`)).body.error?.code).toBe('astray')
      expect((await weaver.call('GET', `piece/${id}/step?last=${text}`)).status).toBe(200)
      const transactions = [{ id: 'too-far-off', label: 'x', steps: [setStep(piece(), ['name'], 'y')] }]
      expect((await weaver.call('POST', `piece/${id}/step`, { base: number, transactions })).status).toBe(422)
    }
    const far = {
      base: 2 ** 31 - 1,
      transactions: [{ id: 'far-off-1', label: 'x', steps: [setStep(piece(), ['name'], 'y')] }],
    }
    expect((await weaver.call('POST', `piece/${id}/step`, far)).body.error?.code).toBe('astray')
  })
  it('that is none, or is asked by another method, says so as JSON', async () => {
    for (const path of ['nothing', 'piece/x/y/z', 'health/more', ''])
      for (const method of ['GET', 'POST', 'DELETE']) {
        const answer = await weaver.call(method, path, method === 'POST' ? {} : undefined)
        expect([method, path, answer.status, answer.body.error?.code]).toEqual([method, path, 404, 'no-such-route'])
        expect(answer.headers.get('content-type')).toMatch(/json/)
      }
  })
  const files = (readdirSync(new URL('../../server/api', import.meta.url), { recursive: true }) as string[]).filter(
    (f) => /\.(get|put|post|delete)\.ts$/.test(f),
  )
  const routes = new Map<string, string[]>()
  for (const file of files) {
    const [, name, method] = /^(.*)\.(\w+)\.ts$/.exec(file)!
    const path = name!
      .replace(/(^|\/)index$/, '')
      .replace('[kind]', 'scale')
      .replace('[making]', '00000000-0000-4000-8000-000000000000')
      .replace(/\[(number|revision)\]/, '0')
    routes.set(path, [...(routes.get(path) ?? []), method!.toUpperCase()])
  }
  it.each([...routes])(
    '/api/%s by a method that it does not take answers 405 and which it takes',
    async (path, takes) => {
      for (const method of ['GET', 'PUT', 'POST', 'DELETE', 'PATCH'].filter((m) => !takes.includes(m))) {
        const answer = await weaver.call(method, path.replace('[id]', id), method === 'GET' ? undefined : {})
        expect([method, answer.status, answer.body.error?.code]).toEqual([method, 405, 'no-such-method'])
        expect(answer.headers.get('allow')?.split(', ').sort()).toEqual([...takes].sort())
      }
    },
  )
})
