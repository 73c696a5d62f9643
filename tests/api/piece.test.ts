import { PNG } from 'pngjs'
import { beforeAll, describe, expect, inject, it } from 'vitest'
import { pieceFromBody, pieceToBody } from '#core/piece/codec'
import { layingSteps, setStep } from '#core/piece/edit'
import type { Piece } from '#core/piece/piece'
import { applySteps, type Step } from '#core/piece/step'
import { valueOf } from '#core/problem'
import { meanStep } from '#core/proof/meant'
import { proofOf } from '#core/proof/proof'
import { ACCOUNT_HEADER, DOCUMENT_HEADER, DOCUMENT_VERSION } from '#core/contract/answer'
import { proofAnswer, type Listing } from '#core/contract/piece'
import { connect } from '../../server/database/connection'
import { SAMPLER } from '../../demo/sampler'
import { piece } from '../fixture/piece'
import { client, person } from './client'

const address = inject('address')
type Person = Awaited<ReturnType<typeof person>>
let weaver: Person
let other: Person
beforeAll(async () => {
  weaver = await person(address)
  other = await person(address)
})

const created = async (who: Person, p: Piece = piece()) =>
  (await who.call<{ id: string }>('POST', 'piece', pieceToBody(p))).body.id
let made = 0
const send = (who: Person, id: string, base: number, ...lists: Step[][]) =>
  who.call<{ revision: number }>('POST', `piece/${id}/step`, {
    base,
    transactions: lists.map((steps) => ({ id: `test-${process.pid}-${++made}`, label: 'edit', steps })),
  })
const bodyOf = async (who: Person, id: string, at?: number) =>
  (
    await who.call<{ revision: number; piece: unknown }>(
      'GET',
      at === undefined ? `piece/${id}` : `piece/${id}/revision/${at}`,
    )
  ).body

describe('a piece', () => {
  it('is created, listed, opened, put away and brought back', async () => {
    const id = await created(weaver, piece({ name: 'Listed' }))
    const list = async () =>
      (await weaver.call<{ pieces: { id: string; name: string; summary: { beads: number } }[] }>('GET', 'piece')).body
        .pieces
    expect((await list()).find((p) => p.id === id)).toMatchObject({
      name: 'Listed',
      summary: { beads: 32, technique: 'peyote' },
    })
    expect((await bodyOf(weaver, id)).piece).toEqual(pieceToBody(piece({ name: 'Listed' })))
    expect((await weaver.call('DELETE', `piece/${id}`)).status).toBe(200)
    expect((await list()).some((p) => p.id === id)).toBe(false)
    const away = async () =>
      (await weaver.call<{ pieces: { id: string }[] }>('GET', 'piece?away=1')).body.pieces.map((p) => p.id)
    const gone = await weaver.call('GET', `piece/${id}`)
    expect([gone.status, gone.body.error?.code]).toEqual([410, 'put-away'])
    const step = setStep(piece({ name: 'Listed' }), ['name'], 'X')
    expect((await send(weaver, id, 0, [step])).body.error?.code).toBe('put-away')
    // A page that says where it stands is answered from what is in hand, and refused all the same.
    const late = { base: 0, on: '', transactions: [{ id: `late-${id.slice(0, 8)}`, label: 'edit', steps: [step] }] }
    expect((await weaver.call('POST', `piece/${id}/step`, late)).body.error?.code).toBe('put-away')
    expect(await away()).toContain(id)
    expect((await weaver.call('POST', `piece/${id}/restore`, {})).status).toBe(200)
    expect((await bodyOf(weaver, id)).revision).toBe(0)
    expect(await away()).not.toContain(id)
  })
  it('is removed for good only once it was put away, by its owner', async () => {
    const id = await created(weaver)
    expect((await weaver.call('DELETE', `piece/${id}?for=good`)).status).toBe(404)
    await weaver.call('DELETE', `piece/${id}`)
    expect((await other.call('DELETE', `piece/${id}?for=good`)).status).toBe(404)
    expect((await weaver.call('DELETE', `piece/${id}?for=good`)).status).toBe(200)
    expect((await weaver.call('POST', `piece/${id}/restore`, {})).status).toBe(404)
    expect((await weaver.call('GET', `piece/${id}`)).status).toBe(404)
  })
  it('a database that was put back to an earlier day is noticed, and nothing is laid on the wrong state', async () => {
    const id = await created(weaver)
    let now = piece()
    const ids: string[] = []
    const name = (to: string): Step[] => {
      const step = setStep(now, ['name'], to)
      now = { ...now, name: to }
      return [step]
    }
    for (const to of ['One', 'Two', 'Three']) {
      const answer = await weaver.call<{ revision: number }>('POST', `piece/${id}/step`, {
        base: ids.length,
        on: ids.at(-1) ?? '',
        transactions: [{ id: `line-${id.slice(0, 8)}-${to}`, label: 'edit', steps: name(to) }],
      })
      expect(answer.body).toEqual({ revision: ids.length + 1 })
      ids.push(`line-${id.slice(0, 8)}-${to}`)
    }
    const db = connect(inject('databaseUrl'))
    try {
      await db('revision').where({ piece_id: id }).andWhere('number', '>', 1).delete()
      await db('piece').where({ id }).update({ revision: 1, name: 'One' })
    } finally {
      await db.destroy()
    }
    const ask = (base: number, on: string, steps: Step[]) =>
      weaver.call<{ revision: number }>('POST', `piece/${id}/step`, {
        base,
        on,
        transactions: [{ id: `late-${id.slice(0, 8)}-${base}-${on.slice(-3)}`, label: 'edit', steps }],
      })
    const behind = await ask(3, ids[2]!, [setStep(now, ['name'], 'Four')])
    expect([behind.status, behind.body.error?.code, behind.body.error?.data]).toEqual([409, 'astray', { revision: 1 }])
    expect((await weaver.call('GET', `piece/${id}/step?after=3&on=${ids[2]}`)).body.error?.code).toBe('astray')
    expect((await weaver.call('GET', `piece/${id}/step?after=3`)).body.error?.code).toBe('astray')
    expect((await weaver.call('GET', `piece/${id}/step?after=1&on=${ids[0]}`)).status).toBe(200)
    // Others go on from there: the numbers are the same again, the line is not, and the server has not kept the old
    // one in mind.
    expect(
      (
        await send(
          weaver,
          id,
          1,
          [setStep({ ...now, name: 'One' }, ['name'], 'Another')],
          [setStep({ ...now, name: 'Another' }, ['name'], 'Three')],
        )
      ).body,
    ).toEqual({ revision: 3 })
    const other = await ask(3, ids[2]!, [setStep(now, ['name'], 'Four')])
    expect([other.status, other.body.error?.code]).toEqual([409, 'astray'])
    expect(await bodyOf(weaver, id)).toMatchObject({ revision: 3, piece: { name: 'Three' } })
    expect(await bodyOf(weaver, id, 2)).toMatchObject({ piece: { name: 'Another' } })
  })
  it('gives its last transactions, oldest first', async () => {
    const id = await created(weaver)
    for (let k = 0; k < 5; k++)
      await send(weaver, id, k, [setStep(piece({ name: k === 0 ? 'Test band' : `N${k}` }), ['name'], `N${k + 1}`)])
    const { body } = await weaver.call<{ revision: number; missing: { number: number }[] }>(
      'GET',
      `piece/${id}/step?last=3`,
    )
    expect([body.revision, body.missing.map((m) => m.number)]).toEqual([5, [3, 4, 5]])
  })
  it('answers a page of another version, or of another account, with what to do', async () => {
    const id = await created(weaver)
    const old = await weaver.call(
      'POST',
      `piece/${id}/step`,
      { base: 0, transactions: [{ id: 'older-page-1', label: 'x', steps: [setStep(piece(), ['name'], 'X')] }] },
      { [DOCUMENT_HEADER]: '1' },
    )
    expect([old.status, old.body.error?.code, old.headers.get(DOCUMENT_HEADER)]).toEqual([
      409,
      'renewed',
      DOCUMENT_VERSION,
    ])
    // It may still read what is there.
    expect((await weaver.call('GET', `piece/${id}`, undefined, { [DOCUMENT_HEADER]: '1' })).status).toBe(200)
    const mixed = await weaver.call('GET', `piece/${id}`, undefined, {
      [ACCOUNT_HEADER]: '00000000-0000-4000-8000-000000000000',
    })
    expect([mixed.status, mixed.body.error?.code]).toEqual([401, 'other-account'])
    expect((await bodyOf(weaver, id)).revision).toBe(0)
    for (const path of ['session', 'health', 'piece', `piece/${id}`])
      expect((await weaver.call('GET', path)).headers.get(DOCUMENT_HEADER)).toBe(DOCUMENT_VERSION)
  })
  it('saves steps, keeps every revision, and knows its summary', async () => {
    const id = await created(weaver)
    let now = piece()
    for (let k = 0; k < 70; k++) {
      const steps = [
        setStep(now, ['name'], `Step ${k}`),
        ...layingSteps(now.parts[0]!, new Map([[k % 16, 1 + (k % 3)]])),
      ]
      expect((await send(weaver, id, k, steps)).body).toEqual({ revision: k + 1 })
      now = valueOf(applySteps(now, steps))
    }
    expect((await bodyOf(weaver, id)).piece).toEqual(pieceToBody(now))
    expect(((await bodyOf(weaver, id, 3)).piece as { name: string }).name).toBe('Step 2')
    expect((await bodyOf(weaver, id, 0)).piece).toEqual(pieceToBody(piece()))
    expect((await weaver.call('GET', `piece/${id}/revision/71`)).status).toBe(404)
    expect((await weaver.call('GET', `piece/${id}/revision/x`)).status).toBe(404)
    expect(valueOf(pieceFromBody((await bodyOf(weaver, id, 66)).piece)).name).toBe('Step 65')
    const listed = async () => {
      const { pieces } = (await weaver.call<{ pieces: Listing[] }>('GET', 'piece')).body
      return pieces.find((p) => p.id === id)!
    }
    const first = await listed()
    expect(first).toMatchObject({ name: 'Step 69', revision: 70, summary: { beads: 32 } })
    // What was worked out once is kept, and worked out anew once it is another piece.
    expect(await listed()).toEqual(first)
    await send(weaver, id, 70, [setStep(now, ['parts', 'band', 'times'], 5)], [setStep(now, ['fit', 'bodyMm'], 181)])
    expect(await listed()).toMatchObject({ revision: 72, summary: { beads: 48, bodyMm: 181 } })
  })
  it('that cannot be opened is listed as it last was, among those that can', async () => {
    const someone = await person(address)
    const ids = [await created(someone), await created(someone)]
    for (const id of ids) await send(someone, id, 0, [setStep(piece(), ['fit', 'bodyMm'], 190)])
    const db = connect(inject('databaseUrl'))
    await db('snapshot')
      .where({ piece_id: ids[0] })
      .update({ body: Buffer.from('no snapshot') })
    await db('piece').where({ id: ids[0] }).update({ revision: 2 })
    await db.destroy()
    const { status, body } = await someone.call<{ pieces: Listing[] }>('GET', 'piece')
    const listed = ids.map((id) => body.pieces.find((p) => p.id === id)!.summary.bodyMm)
    expect([status, ...listed]).toEqual([200, 170, 190])
  })
  it('takes many transactions at once, all or none', async () => {
    const id = await created(weaver)
    const p = piece()
    const one = [setStep(p, ['name'], 'One')]
    const wrong: Step[] = [{ type: 'set', path: ['name'], before: 'Not this', after: 'Two' }]
    const failed = await send(weaver, id, 0, one, wrong)
    expect([failed.status, failed.body.error?.code]).toEqual([422, 'step-misfit'])
    expect((await bodyOf(weaver, id)).revision).toBe(0)
    expect((await send(weaver, id, 0, one, [setStep({ ...p, name: 'One' }, ['name'], 'Two')])).body).toEqual({
      revision: 2,
    })
  })
  it('a stale base gets 409 with what is missing; nothing is overwritten', async () => {
    const id = await created(weaver)
    // Whatever a name holds, the answer is made of it as it lies in the database.
    const first = 'First $& $\' $` "}}" \\'
    await send(weaver, id, 0, [setStep(piece(), ['name'], first)])
    const late = await send(weaver, id, 0, [setStep(piece(), ['name'], 'Second')])
    expect(late.status).toBe(409)
    const data = late.body.error!.data as { revision: number; missing: { number: number; steps: Step[] }[] }
    expect(data.revision).toBe(1)
    expect(data.missing.map((m) => [m.number, m.steps])).toEqual([[1, [setStep(piece(), ['name'], first)]]])
    expect(((await bodyOf(weaver, id)).piece as { name: string }).name).toBe(first)
  })
  it('many at once: one wins each revision, all others are told', async () => {
    const id = await created(weaver)
    const answers = await Promise.all(
      Array.from({ length: 12 }, (_, k) => send(weaver, id, 0, [setStep(piece(), ['name'], `Racer ${k}`)])),
    )
    expect(answers.filter((a) => a.status === 200)).toHaveLength(1)
    expect(answers.filter((a) => a.status === 409)).toHaveLength(11)
    expect((await bodyOf(weaver, id)).revision).toBe(1)
  })
  it('the same transaction sent twice is stored once', async () => {
    const id = await created(weaver)
    const body = {
      base: 0,
      transactions: [{ id: 'the-same-one', label: 'edit', steps: [setStep(piece(), ['name'], 'Once')] }],
    }
    expect((await weaver.call('POST', `piece/${id}/step`, body)).status).toBe(200)
    const again = await weaver.call('POST', `piece/${id}/step`, body)
    expect(again.status).toBe(409)
    expect((again.body.error!.data as { missing: { id: string }[] }).missing.map((m) => m.id)).toEqual([
      'the-same-one',
    ])
  })
  it.each([
    ['not a piece', {}, 422],
    [
      'too many columns',
      { ...pieceToBody(piece()), parts: [{ ...pieceToBody(piece()).parts[0]!, columns: 9999 }] },
      422,
    ],
    ['not JSON', '{', 400],
  ])('refuses what is %s, with a sentence', async (_, body, status) => {
    const answer = await weaver.call('POST', 'piece', body)
    expect(answer.status).toBe(status)
    expect(answer.body.error!.says.length).toBeGreaterThan(10)
  })
  it('has a picture that an independent library can read', async () => {
    const id = await created(weaver)
    const picture = (revision: number, ground = 'day') =>
      fetch(`${address}/api/piece/${id}/picture/${revision}?ground=${ground}`, { headers: { cookie: weaver.cookie } })
    const response = await picture(0)
    expect(response.headers.get('content-type')).toBe('image/png')
    expect(response.headers.get('cache-control')).toMatch(/immutable/)
    const bytes = Buffer.from(await response.arrayBuffer())
    expect(PNG.sync.read(bytes).width).toBeGreaterThan(50)
    // Drawn once: what is served again is what was kept.
    const db = connect(inject('databaseUrl'))
    try {
      const kept = await db('picture')
        .where({ piece_id: id })
        .select<{ revision: number; ground: string; png: Buffer }[]>()
      expect(kept.map((k) => [k.revision, k.ground, k.png.equals(bytes)])).toEqual([[0, 'day', true]])
      await db('picture')
        .where({ piece_id: id })
        .update({ png: Buffer.from('kept') })
      expect(await (await picture(0)).text()).toBe('kept')
      expect((await picture(1)).status).toBe(404)
      await send(
        weaver,
        id,
        0,
        layingSteps(piece().parts[0]!, new Map([[3, 2]])).length > 0
          ? layingSteps(piece().parts[0]!, new Map([[3, 2]]))
          : [setStep(piece(), ['name'], 'N')],
      )
      expect(PNG.sync.read(Buffer.from(await (await picture(1)).arrayBuffer())).width).toBeGreaterThan(50)
      expect(
        (await db('picture').where({ piece_id: id }).select<{ revision: number }[]>('revision')).map(
          (k) => k.revision,
        ),
      ).toEqual([1])
    } finally {
      await db.destroy()
    }
  })
})

describe('another’s piece', () => {
  const routes: [string, string, unknown?][] = [
    ['GET', 'piece/:id'],
    ['DELETE', 'piece/:id'],
    ['POST', 'piece/:id/restore', {}],
    ['GET', 'piece/:id/step'],
    ['GET', 'piece/:id/step?after=0'],
    [
      'POST',
      'piece/:id/step',
      {
        base: 0,
        transactions: [
          {
            id: 'intruder-1',
            label: 'x',
            steps: [{ type: 'set', path: ['name'], before: 'Test band', after: 'Mine now' }],
          },
        ],
      },
    ],
    ['GET', 'piece/:id/proof'],
    ['GET', 'piece/:id/revision/0'],
    ['GET', 'piece/:id/picture/0'],
    ['DELETE', 'piece/:id?for=good'],
    ['POST', 'piece/:id/holding', { what: 'release' }],
    ['GET', 'piece/:id/making'],
    ['POST', 'piece/:id/making', { as: 'intruder-1', revision: 0, head: {} }],
    ['GET', 'piece/:id/making/:making'],
    ['DELETE', 'piece/:id/making/:making'],
    ['POST', 'piece/:id/making/:making/event', { after: 0, now: 0, events: [] }],
    ['POST', 'piece/:id/making/:making/settle', { as: 'settle-intruder', uses: [] }],
  ]
  it('lists every route of a piece: a new one must be added here', async () => {
    const { readdirSync } = await import('node:fs')
    const files = (
      readdirSync(new URL('../../server/api/piece/[id]', import.meta.url), { recursive: true }) as string[]
    ).filter((f) => f.endsWith('.ts'))
    const known = routes.map(
      ([method, path]) =>
        `${method.toLowerCase()} ${
          path
            .replace('piece/:id', '')
            .replace(/\?.*/, '')
            .replace(/^\//, '')
            .replace(/^picture\/\d+$/, 'picture/[revision]')
            .replace(/\/\d+$/, '/[number]')
            .replace(':making', '[making]') || 'index'
        }`,
    )
    for (const file of files) {
      const [, name, method] = /^(.*)\.(\w+)\.ts$/.exec(file)!
      expect(known).toContain(`${method} ${name === 'index' ? name : name!.replace(/\/index$/, '')}`)
    }
  })
  it.each(routes)('%s %s answers as for a piece that does not exist', async (method, path, body) => {
    const id = await created(weaver)
    const begun = await weaver.call<{ making: { id: string } }>('POST', `piece/${id}/making`, {
      as: 'of-the-owner',
      revision: 0,
      head: {},
    })
    const of = (which: string) => path.replace(':id', which).replace(':making', begun.body.making.id)
    const theirs = await other.call(method, of(id), body)
    const none = await other.call(method, of('00000000-0000-4000-8000-000000000000'), body)
    const nonsense = await other.call(method, of('not-an-id'), body)
    const out = await client(address).call(method, of(id), body)
    expect(theirs.status).toBe(404)
    expect(theirs.body).toEqual(none.body)
    expect([none.status, nonsense.status, out.status]).toEqual([404, 404, 401])
    expect(((await bodyOf(weaver, id)).piece as { name: string }).name).toBe('Test band')
  })
  it('is not in the list', async () => {
    const id = await created(weaver)
    expect(JSON.stringify((await other.call('GET', 'piece')).body)).not.toContain(id)
  })
})

describe('several instances', () => {
  it('serve one database: what one stores the other knows at once', async () => {
    const { startApplication } = await import('../../launcher/application')
    const { freePort } = await import('../../launcher/postgres')
    const second = await startApplication({
      root: new URL('../..', import.meta.url).pathname,
      port: await freePort(),
      databaseUrl: inject('databaseUrl'),
      secret: inject('secret'),
      demo: false,
    })
    try {
      const id = await created(weaver)
      const there = client(second.address)
      there.cookie = weaver.cookie
      for (let k = 0; k < 6; k++) {
        const who = k % 2 === 0 ? weaver : there
        const now = (await who.call<{ piece: unknown }>('GET', `piece/${id}`)).body.piece
        const answer = await who.call('POST', `piece/${id}/step`, {
          base: k,
          transactions: [
            {
              id: `turn-about-${k}`,
              label: 'x',
              steps: [setStep(valueOf(pieceFromBody(now)), ['name'], `Turn ${k}`)],
            },
          ],
        })
        expect(answer.body).toEqual({ revision: k + 1 })
      }
    } finally {
      await second.stop()
    }
  })
})

const proof = async (id: string) => proofAnswer.parse((await weaver.call('GET', `piece/${id}/proof`)).body).proof

describe('the proof of a piece', () => {
  it('is what the core says of it, and quiet of what is meant so', async () => {
    const id = await created(weaver, SAMPLER)
    const said = await proof(id)
    expect(said.open.map((f) => [f.rule, f.says])).toEqual(proofOf(SAMPLER).open.map((f) => [f.rule, f.says]))
    const odd = proofOf(SAMPLER).open.find((f) => f.rule === 'odd')!
    const step = meanStep(SAMPLER, odd, 'as grandmother had it')
    const saved = await weaver.call('POST', `piece/${id}/step`, {
      base: 0,
      transactions: [{ id: 'meant-so-12345', label: 'It is meant so', steps: [step] }],
    })
    expect(saved.status).toBe(200)
    const then = await proof(id)
    expect(then.quiet.map((f) => [f.rule, f.says, f.meant])).toEqual([['odd', odd.says, 'as grandmother had it']])
    expect(then.open).toHaveLength(said.open.length - 1)
  })

  it('is for whoever is signed in, and asked again and again it is refused for a while', async () => {
    const id = await created(weaver, SAMPLER)
    expect((await client(address).call('GET', `piece/${id}/proof`)).status).toBe(401)
    const many = await Promise.all(Array.from({ length: 70 }, () => weaver.call('GET', `piece/${id}/proof`)))
    expect(many.some(({ status }) => status === 429)).toBe(true)
  })
})
