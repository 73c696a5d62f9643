import { gunzipSync, gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { archiveHead, archiveLine } from '#core/contract/archive'
import type { MakingListing, SyncedMaking } from '#core/contract/making'
import { readPieceFile } from '#core/format/piece-file'
import { pieceToBody } from '#core/piece/codec'
import { setStep } from '#core/piece/edit'
import type { Piece } from '#core/piece/piece'
import { applySteps, type Step } from '#core/piece/step'
import { valueOf } from '#core/problem'
import { shelfValueSchema, type ShelfItem } from '#core/shelf/shelf'
import { DEMO_SHELF } from '../../demo/shelf'
import { startApplication } from '../../launcher/application'
import { freePort } from '../../launcher/postgres'
import { connect, type Database } from '../../server/database/connection'
import { thin } from '../../server/service/thinning'
import { piece } from '../fixture/piece'
import { client, newName, PASSWORD, person } from './client'

const address = inject('address')
type Person = Awaited<ReturnType<typeof person>>
let db: Database
beforeAll(() => {
  db = connect(inject('databaseUrl'))
})
afterAll(() => db.destroy())

const anotherInstance = async (environment: Record<string, string> = {}) =>
  startApplication({
    root: process.cwd(),
    port: await freePort(),
    databaseUrl: inject('databaseUrl'),
    secret: inject('secret'),
    demo: false,
    environment,
  })

/** A piece of so many revisions, each of which renames it: “Name 7” at revision 7. */
async function longLived(who: Person, revisions: number): Promise<string> {
  const { id } = (await who.call<{ id: string }>('POST', 'piece', pieceToBody(piece()))).body
  let now: Piece = piece()
  for (let base = 0; base < revisions; base += 50) {
    const transactions = Array.from({ length: Math.min(50, revisions - base) }, (_, k) => {
      const steps: Step[] = [setStep(now, ['name'], `Name ${base + k + 1}`)]
      now = valueOf(applySteps(now, steps))
      return { id: `${id.slice(0, 8)}-${base + k + 1}`, label: 'x', steps }
    })
    expect((await who.call('POST', `piece/${id}/step`, { base, transactions })).body).toEqual({
      revision: base + transactions.length,
    })
  }
  return id
}
interface Opened {
  revision: number
  head: string
  piece: { name: string }
}
const openedAt = async (who: Person, id: string, at?: number) =>
  (await who.call<Opened>('GET', at === undefined ? `piece/${id}` : `piece/${id}/revision/${at}`)).body
const aged = (id: string, days: number, upto = 1e6) =>
  db('revision')
    .where({ piece_id: id })
    .andWhere('number', '<=', upto)
    .update({ made_at: db.raw(`now() - interval '${days} days'`) })
const keptSteps = async (id: string): Promise<number[]> =>
  (await db('revision').where({ piece_id: id }).whereNotNull('steps').orderBy('number').pluck('number')) as number[]

describe('old steps', () => {
  it('are thinned only if older than 90 days, never the last 500 revisions, up to a snapshot', async () => {
    const who = await person(address)
    const id = await longLived(who, 700)
    await aged(id, 89)
    await thin(db)
    expect((await keptSteps(id)).length).toBe(700)
    await aged(id, 91)
    await aged(id, 91, 300)
    await thin(db)
    // Snapshots lie where a sending crossed a multiple of 64, here at 100, 150, 200: the last with 500 after it.
    expect((await keptSteps(id))[0]).toBe(201)
    expect((await keptSteps(id)).length).toBe(500)
    // Another round finds nothing more to do in it.
    await thin(db)
    expect((await keptSteps(id)).length).toBe(500)
    const rows = await db('revision').where({ piece_id: id }).count<{ count: string }[]>('transaction_id as count')
    expect(Number(rows[0]!.count)).toBe(700)
  })
  it('young ones stay however many follow', async () => {
    const who = await person(address)
    const id = await longLived(who, 650)
    await aged(id, 91, 99)
    await thin(db)
    expect((await keptSteps(id)).length).toBe(650)
    await aged(id, 91, 100)
    await thin(db)
    expect((await keptSteps(id))[0]).toBe(101)
  })
  it('leave a piece that opens: at a kept revision exactly, at a thinned one as it stood last before', async () => {
    const who = await person(address)
    const id = await longLived(who, 700)
    // An instance that starts meanwhile may thin as soon as they are old.
    await db('named_state').insert({ piece_id: id, revision: 130, name: 'Before the red' })
    await aged(id, 91)
    await thin(db)
    // What leads from the snapshot at 100 to the named state stays; nothing else below 200 does.
    expect((await keptSteps(id)).slice(0, 32)).toEqual([...Array.from({ length: 30 }, (_, k) => 101 + k), 201, 202])
    // An instance that has nothing in hand.
    const fresh = await anotherInstance()
    try {
      const there = Object.assign(client(fresh.address), { name: who.name })
      there.cookie = who.cookie
      const at = async (revision?: number) => {
        const opened = await openedAt(there, id, revision)
        expect(opened.piece.name).toBe(opened.revision === 0 ? 'Test band' : `Name ${opened.revision}`)
        expect(opened.head).toBe(opened.revision === 0 ? '' : `${id.slice(0, 8)}-${opened.revision}`)
        return opened.revision
      }
      expect(await at()).toBe(700)
      expect(await Promise.all([0, 50, 100, 130, 131, 199, 200, 201, 455].map(at))).toEqual([
        0, 0, 100, 130, 130, 150, 200, 201, 455,
      ])
      const picture = await fetch(`${fresh.address}/api/piece/${id}/picture/60`, { headers: { cookie: who.cookie } })
      expect(picture.headers.get('content-type')).toBe('image/png')
      // It goes on as before.
      const steps = [setStep({ ...piece(), name: 'Name 700' }, ['name'], 'On')]
      const answer = await there.call('POST', `piece/${id}/step`, {
        base: 700,
        transactions: [{ id: `${id.slice(0, 8)}-on`, label: 'x', steps }],
      })
      expect(answer.body).toEqual({ revision: 701 })
    } finally {
      await fresh.stop()
    }
  })
  it('a late edit on a thinned revision is told so, and told from one that the database never had', async () => {
    const who = await person(address)
    const id = await longLived(who, 600)
    await aged(id, 100)
    await thin(db)
    const late = (base: number, on: string) =>
      who.call<{ error?: { code: string; data: unknown } }>('POST', `piece/${id}/step`, {
        base,
        on,
        transactions: [{ id: `${id.slice(0, 8)}-late`, label: 'x', steps: [setStep(piece(), ['notes'], 'late')] }],
      })
    const key = id.slice(0, 8)
    const apart = await late(20, `${key}-20`)
    expect([apart.status, apart.body.error!.code]).toEqual([409, 'apart'])
    expect(apart.body.error!.data).toEqual({ revision: 600, head: `${key}-600` })
    expect((await late(20, `${key}-21`)).body.error!.code).toBe('astray')
    expect((await late(150, `${key}-150`)).body.error!.code).toBe('stale')
    expect((await who.call('GET', `piece/${id}/step?after=20&on=${key}-20`)).body.error!.code).toBe('apart')
    const last = await who.call<{ missing: { number: number }[] }>('GET', `piece/${id}/step?last=500`)
    expect(last.body.missing[0]!.number).toBe(101)
  })
  it('a running server thins by itself, soon after its start', async () => {
    const who = await person(address)
    const id = await longLived(who, 600)
    await aged(id, 100)
    const fresh = await anotherInstance()
    try {
      for (let k = 0; k < 60 && (await keptSteps(id)).length === 600; k++)
        await new Promise((resolve) => setTimeout(resolve, 250))
      expect((await keptSteps(id)).length).toBe(500)
    } finally {
      await fresh.stop()
    }
  })
})

describe('a transaction beyond what an answer holds', () => {
  it('is not sent as steps: the asker opens the piece anew', async () => {
    const who = await person(address)
    const id = await longLived(who, 3)
    await db('revision').where({ piece_id: id, number: 2 }).update({ bytes: 5_000_000 })
    const missing = async (query: string) =>
      who.call<{ missing: { number: number }[] }>('GET', `piece/${id}/step?${query}`)
    expect((await missing('after=0')).body.missing.map((m) => m.number)).toEqual([1])
    expect((await missing('after=1')).body.error!.code).toBe('apart')
    expect((await missing('after=2')).body.missing.map((m) => m.number)).toEqual([3])
    expect((await missing('last=3')).body.missing.map((m) => m.number)).toEqual([3])
  })
  it('pages end where they grow too long, by the bytes that are sent', async () => {
    const who = await person(address)
    const id = await longLived(who, 9)
    const { rows } = await db.raw<{ rows: { right: boolean }[] }>(
      // As they were sent: without the spaces that the database writes.
      `select bool_and(bytes = octet_length(regexp_replace(steps::text, '([:,]) ', '\\1', 'g'))) as right
      from revision where piece_id = ?`,
      [id],
    )
    expect(rows[0]!.right).toBe(true)
    await db('revision').where({ piece_id: id }).update({ bytes: 300_000 })
    const page = await who.call<{ missing: unknown[] }>('GET', `piece/${id}/step?after=0`)
    expect(page.body.missing.length).toBe(4)
  })
})

describe('room', () => {
  it('is measured, and what has none is refused with words until room was made', async () => {
    const small = await anotherInstance({ WEBEN_ACCOUNT_MB: '1' })
    try {
      const who = await person(small.address)
      const room = async () => (await who.call<{ bytes: number; most: number }>('GET', 'account/storage')).body
      expect(await room()).toEqual({ bytes: 0, most: 1_000_000 })
      const id = await longLived(who, 1)
      const { bytes } = await room()
      const { rows } = await db.raw<{ rows: { bytes: number }[] }>(
        `select (select sum(octet_length(body)) from snapshot where piece_id = ?) + (
          select sum(bytes) from revision where piece_id = ?) as bytes`,
        [id, id],
      )
      expect(bytes).toBe(Number(rows[0]!.bytes))
      await who.call('GET', `piece/${id}/picture/1`)
      await who.call('POST', 'shelf', { values: [DEMO_SHELF[0]] })
      expect((await room()).bytes).toBeGreaterThan(bytes + 500)
      await db('revision').where({ piece_id: id }).update({ bytes: 999_000 })
      const rename = (which: string, base: number) =>
        who.call('POST', `piece/${which}/step`, {
          base,
          transactions: [
            { id: `${which.slice(0, 8)}-more-${base}`, label: 'x', steps: [setStep(piece(), ['notes'], 'n')] },
          ],
        })
      // What was measured a moment ago still has room for it; what is measured anew has not.
      await room()
      const full = await rename(id, 1)
      expect([full.status, full.body.error!.code]).toEqual([507, 'account-full'])
      expect(full.body.error!.says).toMatch(/1 MB of the 1 MB.*remove them/)
      expect((await who.call('POST', 'piece', pieceToBody(piece()))).status).toBe(507)
      await who.call('DELETE', `piece/${id}`)
      await who.call('DELETE', `piece/${id}?for=good`)
      const again = (await who.call<{ id: string }>('POST', 'piece', pieceToBody(piece()))).body.id
      expect((await rename(again, 0)).status).toBe(200)
    } finally {
      await small.stop()
    }
  })
})

describe('everything that one owns', () => {
  const download = async (who: Person) =>
    Buffer.from(
      await (await fetch(`${address}/api/account/archive`, { headers: { cookie: who.cookie } })).arrayBuffer(),
    )
  const upload = async (who: Person, file: Uint8Array | string) => {
    const response = await fetch(`${address}/api/account/archive`, {
      method: 'POST',
      headers: { 'cookie': who.cookie, 'origin': address, 'content-type': 'application/gzip' },
      body: file as BodyInit,
    })
    return {
      status: response.status,
      body: (await response.json()) as { pieces?: number; shelf?: number; error?: { code: string; says: string } },
    }
  }
  const linesOf = (file: Buffer) => gunzipSync(file).toString('utf8').trimEnd().split('\n')
  const packed = (lines: readonly string[]) => gzipSync(`${lines.join('\n')}\n`)

  async function owner(): Promise<Person> {
    const who = await person(address)
    const items = (
      await who.call<{ items: ShelfItem[] }>('POST', 'shelf', {
        values: DEMO_SHELF.map((v) => shelfValueSchema.parse(v)),
      })
    ).body.items
    const bead = items.find((i) => i.value.kind === 'bead')!
    await who.call('PATCH', 'settings', { ...SETTINGS })
    const band = await longLived(who, 3)
    for (const as of ['begin-one-1', 'begin-two-2']) {
      const begun = await who.call<{ making: { id: string } }>('POST', `piece/${band}/making`, {
        as,
        revision: 2,
        head: { copies: 2, copyOrder: 'side by side', name: as },
      })
      await who.call('POST', `piece/${band}/making/${begun.body.making.id}/event`, {
        after: 0,
        now: 9000,
        events: [
          {
            id: 'press-one-1',
            at: 5000,
            event: { do: 'at', task: 'band/1/4', bite: 1, says: 'Row 6', beads: 9, of: 32 },
          },
          { id: 'note-one-1', at: 6000, event: { do: 'note', task: 'band/1/4', text: 'Thread frays' } },
        ],
      })
    }
    await who.call('POST', `piece/${band}/holding`, { what: 'reserve', asks: [{ shelfId: bead.id, amount: 0.25 }] })
    const away = await longLived(who, 1)
    await who.call('DELETE', `piece/${away}`)
    return who
  }
  const SETTINGS = {
    unit: 'in',
    theme: 'evening',
    hand: 'left',
    school: 'B',
    paper: 'Letter',
    currency: 'USD',
    supplier: 'well',
    benchHours: [0, 1.5, 0, 2, 0, 4, 3],
    learnSpeed: 'on',
    learnCull: 'off',
    learnThread: 'on',
    proved: 'on',
    letters: 'off',
  }
  /** What an account holds, without the names that its server gave. */
  const holds = async (who: Person) => {
    const list = async (path: string) =>
      (await who.call<{ pieces: { id: string; name: string; updatedAt: string }[] }>('GET', path)).body.pieces
    const here = await list('piece')
    const shelf = (await who.call<{ items: ShelfItem[] }>('GET', 'shelf')).body.items
    const { holdings } = (
      await who.call<{ holdings: { pieceId: string; shelfId: string; amount: number }[] }>('GET', 'holding')
    ).body
    return {
      settings: (await who.call<{ account: { settings: unknown } }>('GET', 'session')).body.account.settings,
      shelf: shelf.map((i) => i.value),
      pieces: await Promise.all(here.map(async (p) => [p.updatedAt, (await openedAt(who, p.id)).piece])),
      makings: await Promise.all(
        here.map(async (p) => {
          const { makings } = (await who.call<{ makings: MakingListing[] }>('GET', `piece/${p.id}/making`)).body
          return Promise.all(
            makings.map(async ({ id, name, copies, copyOrder, status, begunAt }) => {
              const { body } = await who.call<SyncedMaking>('GET', `piece/${p.id}/making/${id}`)
              return { name, copies, copyOrder, status, begunAt, events: body.events }
            }),
          )
        }),
      ),
      away: (await list('piece?away=1')).map((p) => p.name),
      held: holdings.map((h) => [
        here.find((p) => p.id === h.pieceId)?.name,
        shelf.find((i) => i.id === h.shelfId)?.value,
        h.amount,
      ]),
    }
  }

  it('is one file that an empty account reads back: nothing differs', async () => {
    const who = await owner()
    const file = await download(who)
    const lines = linesOf(file)
    expect(archiveHead.safeParse(JSON.parse(lines[0]!)).success).toBe(true)
    const kinds = lines.slice(1).map((line) => {
      const value = JSON.parse(line) as { is?: string }
      return value.is === undefined ? readPieceFile(line).ok : archiveLine.parse(value).is
    })
    expect(kinds).toEqual([
      'settings',
      ...DEMO_SHELF.map(() => 'shelf'),
      'piece',
      true,
      'making',
      'making',
      'piece',
      true,
      'end',
    ])
    const heir = await person(address)
    expect(await upload(heir, file)).toEqual({ status: 200, body: { pieces: 2, shelf: DEMO_SHELF.length } })
    const before = await holds(who)
    expect(await holds(heir)).toEqual(before)
    expect([before.settings, before.away]).toEqual([SETTINGS, ['Name 1']])
    expect(before.makings[0]!.map((m) => [m.name, m.status, m.events.map((e) => e.id)]).sort()).toEqual([
      ['begin-one-1', 'on the bench', ['press-one-1', 'note-one-1']],
      ['begin-two-2', 'on the bench', ['press-one-1', 'note-one-1']],
    ])
    expect(before.held).toEqual([['Name 3', expect.objectContaining({ kind: 'bead' }), 0.25]])
    // And once more: what is saved of it there is the same, but for the day and the names.
    const named = (text: string) => text.replace(/"(id|shelf|madeAt)":"[^"]*"/g, '')
    expect(linesOf(await download(heir)).map(named)).toEqual(lines.map(named))
  })
  it('is refused, with words and nothing read, where it is broken or would mix', async () => {
    const file = await download(await owner())
    const lines = linesOf(file)
    const at = (is: string) => lines.findIndex((line) => line.includes(`"is":"${is}"`))
    const changed = (k: number, text: string) => lines.map((line, n) => (n === k ? text : line))
    const heir = await person(address)
    const broken: [string, Uint8Array | string][] = [
      ['not-gzip', 'no archive at all'],
      ['not-gzip', file.subarray(0, file.length - 30)],
      ['archive-unsound', packed(lines.slice(0, -1))],
      ['archive-unsound', packed(lines.filter((_, k) => k !== at('shelf')))],
      ['archive-unsound', packed(lines.slice(1))],
      ['archive-unsound', packed(changed(at('settings'), '{"is":"settings","settings":{"unit":"ell"}}'))],
      ['archive-unsound', packed(changed(at('shelf'), 'x'))],
      ['archive-unsound', packed(changed(0, lines[0]!.replace('"version":2', '"version":3')))],
      ['archive-unsound', packed(changed(at('end'), lines[at('end')]!.replace('"pieces":2', '"pieces":3')))],
      ['file-format', packed(changed(at('piece') + 1, '{}'))],
      [
        'archive-unsound',
        packed(lines.map((l) => (l.includes('"holdings":[{') ? l.replace(/"shelf":"./, '"shelf":"?') : l))),
      ],
      ['text-unsound', packed(changed(at('piece') + 1, lines[at('piece') + 1]!.replace('Name', '\\u0000')))],
    ]
    for (const [code, body] of broken) {
      const answer = await upload(heir, body)
      expect([code, answer.body.error?.code]).toEqual([code, code])
      expect(answer.status).toBeGreaterThanOrEqual(400)
      expect(answer.status).toBeLessThan(500)
      expect(answer.body.error!.says).toMatch(/[.]$/)
    }
    const nothing = await holds(heir)
    expect([nothing.pieces, nothing.shelf]).toEqual([[], []])
    expect((await upload(heir, file)).status).toBe(200)
    const twice = await upload(heir, file)
    expect([twice.status, twice.body.error!.code]).toEqual([409, 'account-not-empty'])
  })
  it('belongs to who is signed in, and to nobody else', async () => {
    const stranger = await fetch(`${address}/api/account/archive`)
    expect(stranger.status).toBe(401)
    const other = client(address)
    await other.call('POST', 'account', { signIn: newName(), password: PASSWORD })
    const lines = linesOf(await download(Object.assign(other, { name: '' })))
    expect(lines.length).toBe(3)
  })
})
