import { closeSync, mkdtempSync, openSync, readFileSync, rmSync } from 'node:fs'
import { randomBytes } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { emptyCells } from '#core/grid/cells'
import { pieceToBody } from '#core/piece/codec'
import { layingSteps, setStep } from '#core/piece/edit'
import type { PieceBody } from '#core/piece/schema'
import type { Step } from '#core/piece/step'
import { startApplication, type Application } from '../../launcher/application'
import { freePort } from '../../launcher/postgres'
import { part, piece } from '../fixture/piece'
import { person } from './client'

/** An instance of its own, whose memory and log are looked at. */
let application: Application
const folder = mkdtempSync(join(tmpdir(), 'weben-load-'))
const log = openSync(join(folder, 'log'), 'w')
type Person = Awaited<ReturnType<typeof person>>
let weaver: Person
beforeAll(async () => {
  const secret = randomBytes(32).toString('hex')
  const databaseUrl = inject('databaseUrl')
  application = await startApplication({
    root: process.cwd(),
    port: await freePort(),
    databaseUrl,
    secret,
    demo: false,
    log,
  })
  weaver = await person(application.address)
})
afterAll(async () => {
  await application.stop()
  closeSync(log)
  rmSync(folder, { recursive: true })
})

interface Line {
  readonly event: string
  readonly ms?: number
  readonly cpuMs?: number
  readonly stolenMs?: number
  readonly message?: string
}
/** What the log says of a fault or of a held event loop. */
const troubles = (): string[] =>
  readFileSync(join(folder, 'log'), 'utf8')
    .split('\n')
    .filter((text) => text.startsWith('{'))
    .map((text) => JSON.parse(text) as Line)
    .filter(({ event }) => event === 'fault' || event === 'loop-held')
    .map(
      ({ event, ms, cpuMs, stolenMs, message }) =>
        message ?? `${event} ${ms} ms, ${cpuMs} of them worked, ${stolenMs} stolen`,
    )

const memoryMb = (): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${application.process.pid}/status`, 'utf8'))![1]) / 1024

const million = (over = {}) =>
  piece({
    name: 'A million',
    parts: [
      part({
        start: emptyCells(500, 0),
        repeat: emptyCells(500, 2000, 1),
        end: emptyCells(500, 0),
        times: 1,
        ...over,
      }),
    ],
  })
const paint = (index: number, length: number, from = 1, to = 2): Step => ({
  type: 'cells',
  part: 'band',
  section: 'repeat',
  patches: [[index, length, from, to]],
})
let made = 0
const transaction = (steps: Step[]) => ({ id: `load-${process.pid}-${++made}`, label: 'x', steps })
const created = async (body: unknown) => (await weaver.call<{ id: string }>('POST', 'piece', body)).body.id
const send = (id: string, base: number, ...lists: Step[][]) =>
  weaver.call<{ revision: number }>('POST', `piece/${id}/step`, { base, transactions: lists.map(transaction) })

describe('small requests that ask for large work', () => {
  it('are counted before they are done, and refused where no hand could have done it', async () => {
    const id = await created(pieceToBody(million()))
    const whole = Array.from({ length: 100 }, (_, k) => paint(0, 1_000_000, (k % 2) + 1, 2 - (k % 2)))
    expect((await send(id, 0, whole)).body.error?.code).toBe('effort-large')
    expect((await send(id, 0, ...whole.map((step) => [step]))).body.error?.code).toBe('effort-large')
    const rows: Step = { type: 'rows', do: 'insert', part: 'band', section: 'end', at: 0, count: 3_000_000, cells: [] }
    expect((await send(id, 0, [rows])).body.error?.code).toBe('effort-large')
    expect((await send(id, 0, [paint(0, 1_000_000)], [paint(0, 1_000_000, 2, 3)])).body).toEqual({ revision: 2 })
    expect(troubles()).toEqual([])
  })
  it('have a rate in cost', async () => {
    const id = await created(pieceToBody(million()))
    let answer = await send(id, 0, [paint(0, 1_000_000)])
    for (let k = 1; k < 90 && answer.status === 200; k++)
      answer = await send(id, k, [paint(0, 1_000_000, (k % 2) + 1, 2 - (k % 2))])
    expect([answer.status, answer.body.error?.code]).toEqual([429, 'too-many'])
    // Another weaver goes on.
    const other = await person(application.address)
    const theirs = await other.call<{ id: string }>('POST', 'piece', pieceToBody(piece()))
    expect(theirs.status).toBe(200)
    expect(troubles()).toEqual([])
  })
})

describe('large pieces', () => {
  it('of a million beads in all colours are taken, changed and opened without holding anybody up', async () => {
    const noise = Uint16Array.from({ length: 1_000_000 }, (_, k) => 1 + (((k * k) % 7) % 3))
    const own = await person(application.address)
    const large = million({ repeat: { columns: 500, rows: 2000, blocks: blocksOf(noise) } })
    const body = JSON.stringify(pieceToBody(large))
    expect(body.length).toBeGreaterThan(2_000_000)
    const { id } = (await own.call<{ id: string }>('POST', 'piece', body, { 'content-type': 'application/json' })).body
    const one = layingSteps(large.parts[0]!, new Map([[7, noise[7] === 3 ? 1 : 3]]))
    const all = layingSteps(
      large.parts[0]!,
      new Map(Array.from({ length: 200_000 }, (_, k) => [k * 5, (noise[k * 5]! % 3) + 1])),
    )
    const ask = (base: number, steps: Step[]) =>
      own.call<{ revision: number }>('POST', `piece/${id}/step`, { base, transactions: [transaction(steps)] })
    expect((await ask(0, all)).body).toEqual({ revision: 1 })
    expect((await own.call('GET', `piece/${id}/step?after=0`)).status).toBe(200)
    expect((await ask(0, one)).body.error?.code).toBe('stale')
    expect((await own.call<{ piece: PieceBody }>('GET', `piece/${id}`)).body.piece.parts[0]!.repeat).toHaveLength(2000)
    expect((await own.call('GET', `piece/${id}/picture/1`)).status).toBe(200)
    expect(troubles()).toEqual([])
  })
})
const blocksOf = (flat: Uint16Array) =>
  Array.from({ length: Math.ceil(flat.length / 32_000) }, (_, k) => flat.slice(k * 32_000, (k + 1) * 32_000))

/** Values that someone might put where another was meant. */
const ODD: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  0.5,
  1e308,
  -1e308,
  2 ** 31,
  2 ** 53,
  '',
  'x',
  'x'.repeat(5000),
  [],
  {},
  [[]],
  [1, 2, 3],
  { a: { b: { c: {} } } },
  '\u0000',
  '\uD800',
  '__proto__',
  Array.from({ length: 3000 }, (_, k) => k),
]

/** A JSON value with some of its values exchanged for odd ones, taken out or doubled; where, is chosen by numbers. */
function spoiled(value: unknown, choose: () => number): unknown {
  const places: { of: Record<string, unknown>; key: string }[] = []
  const copy = structuredClone(value)
  const walk = (of: unknown) => {
    if (typeof of !== 'object' || of === null) return
    for (const key of Object.keys(of)) {
      places.push({ of: of as Record<string, unknown>, key })
      walk((of as Record<string, unknown>)[key])
    }
  }
  walk(copy)
  for (let times = 1 + (choose() % 2); times > 0 && places.length > 0; times--) {
    const { of, key } = places[choose() % places.length]!
    const odd = ODD[choose() % ODD.length]
    const way = choose() % 5
    if (way === 0) Reflect.deleteProperty(of, key)
    else of[way === 1 ? `${key}x` : key] = odd
  }
  return copy
}

describe('ten thousand bodies', () => {
  it('of every shape give no fault, hold nobody up and keep the memory flat', async () => {
    const id = await created(pieceToBody(piece()))
    const step = (...steps: unknown[]) => ({ base: 0, transactions: [{ id: 'fuzz-0001', label: 'x', steps }] })
    const bead = piece().tray[0]!
    const value = pieceToBody(piece()).parts[0]!
    const asks: [string, string, unknown][] = [
      ['POST', 'piece', pieceToBody(piece())],
      ['POST', `piece/${id}/step`, step(paint(0, 1), setStep(piece(), ['fit', 'bodyMm'], 171))],
      [
        'POST',
        `piece/${id}/step`,
        step({ type: 'rows', do: 'insert', part: 'band', section: 'end', at: 0, count: 1, cells: [4, 1] }),
      ],
      [
        'POST',
        `piece/${id}/step`,
        step({
          type: 'columns',
          do: 'insert',
          part: 'band',
          at: 0,
          count: 2,
          cells: { start: [2, 1], repeat: [4, 1], end: [2, 1] },
        }),
      ],
      [
        'POST',
        `piece/${id}/step`,
        step({ type: 'tray', do: 'insert', at: 0, bead }, { type: 'part', do: 'insert', at: 0, value }),
      ],
      ['POST', `piece/${id}/holding`, { what: 'reserve', asks: [{ shelfId: id, amount: 2 }] }],
      ['POST', `piece/${id}/making`, { as: 'begin-load-1', revision: 0, head: { copies: 1 } }],
      [
        'POST',
        `piece/${id}/making/${id}/event`,
        { after: 0, now: 1, events: [{ id: 'press-load-1', at: 0, event: { do: 'at', task: 'band/1/1', bite: 0 } }] },
      ],
      ['POST', 'shelf', { values: [{ kind: 'stamp', name: 'x' }] }],
      ['PUT', `shelf/${id}`, { before: {}, value: {} }],
      ['PATCH', 'settings', { units: 'mm' }],
      ['POST', 'session', { signIn: 'nobody', password: 'nothing at all here' }],
      ['PUT', 'device/scale', { state: 'fine' }],
      ['POST', 'supplier/offers', { wanted: [] }],
    ]
    const seeds = fc.sample(fc.infiniteStream(fc.nat(1_000_000)), { seed: 20261126, numRuns: 1 })[0]!
    const choose = () => seeds.next().value as number
    const random = fc.sample(fc.jsonValue({ maxDepth: 6 }), { seed: 11, numRuns: 400 })
    const statuses = new Map<number, number>()
    let most = 0
    const one = async (k: number) => {
      const [method, path, body] = asks[k % asks.length]!
      const text = JSON.stringify(k % 6 === 5 ? random[k % random.length] : spoiled(body, choose))
      const cut = k % 29 === 0 ? text.slice(0, choose() % (text.length + 1)) : text
      const { status, body: said } = await weaver.call(method, path, cut, { 'content-type': 'application/json' })
      statuses.set(status, (statuses.get(status) ?? 0) + 1)
      if (status >= 400) expect(said.error?.says.length, `${method} ${path} ${cut.slice(0, 300)}`).toBeGreaterThan(10)
      if (status >= 500) throw new Error(`${status} for ${method} ${path} ${cut.slice(0, 600)}`)
      if (k % 500 === 0) most = Math.max(most, memoryMb())
    }
    for (let k = 0; k < 10_000; k += 10) await Promise.all(Array.from({ length: 10 }, (_, i) => one(k + i)))
    expect([...statuses.keys()].every((status) => status < 500)).toBe(true)
    expect(statuses.get(422)).toBeGreaterThan(1000)
    expect(troubles()).toEqual([])
    expect(most).toBeLessThan(700)
  }, 300_000)
})
