import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { DOCUMENT_HEADER, DOCUMENT_VERSION } from '#core/contract/answer'
import { partToFile, pieceToBody } from '#core/piece/codec'
import { setStep } from '#core/piece/edit'
import type { Piece } from '#core/piece/piece'
import { applySteps, type Step, type Transaction } from '#core/piece/step'
import { valueOf } from '#core/problem'
import { part, piece } from '../../tests/fixture/piece'
import { countUnsent, findUnsent, forgetAccount, keepDocument, keepUnsent, keptStand, type Owned } from './kept'
import { Line, type SaveState } from './line'

vi.mock('../composables/api', async (original) => ({
  ...(await original<typeof import('../composables/api')>()),
  backOff: () => 1,
}))

/** A server with one piece, that can be away, stumble, or forget. */
class Server {
  made: (Transaction & { number: number })[] = []
  away = false
  /** Transactions that it stumbles over, and how often still. */
  stumbles = new Map<string, number>()
  /** The steps of revisions up to here were thinned out, but for a snapshot of revision 0. */
  thinnedTo = 0
  full = false
  /** Answers with a revision that does not fit what was sent. */
  liesBy = 0
  sent: string[][] = []

  constructor(readonly begun: Piece) {}

  at(revision: number): Piece {
    return this.made.slice(0, revision).reduce((now, { steps }) => valueOf(applySteps(now, steps)), this.begun)
  }

  private opened(revision: number): object {
    const head = this.made[revision - 1]?.id ?? ''
    return { id: 'x', revision, head, piece: pieceToBody(this.at(revision)) }
  }

  private told(from: number): [number, object] {
    const { revision, head } = this.missing(from)
    if (from < this.thinnedTo) return [409, { error: { code: 'apart', says: 'apart', data: { revision, head } } }]
    return [200, this.missing(from)]
  }

  private missing(from: number) {
    return { revision: this.made.length, head: this.made.at(-1)?.id ?? '', missing: this.made.slice(from) }
  }

  answer(path: string, body?: { base: number; on: string; transactions: Transaction[] }): [number, object] {
    const error = (status: number, code: string, data?: object): [number, object] => [
      status,
      { error: { code, says: code, ...(data ? { data } : {}) } },
    ]
    const on = /on=([^&]*)/.exec(path)?.[1]
    const after = Number(/after=(\d+)/.exec(path)?.[1] ?? body?.base)
    const lost = (head: string | undefined) => head !== undefined && head !== (this.made[after - 1]?.id ?? '')
    if (body) {
      this.sent.push(body.transactions.map((t) => t.label))
      for (const { label } of body.transactions) {
        const left = this.stumbles.get(label) ?? 0
        this.stumbles.set(label, left - 1)
        if (left > 0) return error(500, 'fault')
      }
      if (lost(body.on)) return error(409, 'astray')
      if (this.full) return error(507, 'account-full', { wait: 0.01 })
      if (body.base < this.thinnedTo) return this.told(body.base)
      if (body.base < this.made.length) return error(409, 'stale', this.missing(body.base))
      // Something that is not Weben, and yet answers like it: nothing is stored.
      if (this.liesBy !== 0) return [200, { revision: this.made.length + body.transactions.length + this.liesBy }]
      for (const t of body.transactions) this.made.push({ ...t, number: this.made.length + 1 })
      return [200, { revision: this.made.length }]
    }
    if (path.includes('/revision/')) {
      const asked = Number(path.split('/').at(-1))
      return [200, this.opened(asked < this.thinnedTo ? 0 : asked)]
    }
    if (path.includes('last=')) return [200, this.missing(this.thinnedTo)]
    if (path.includes('after=')) return lost(on) ? error(409, 'astray') : this.told(after)
    return [200, this.opened(this.made.length)]
  }
}

let server: Server
let number = 0
let owned: Owned
const lines: Line[] = []

const tab = (name: string) => sessionStorage.setItem('weben-tab', name)
const open = async (states: SaveState[] = []) => {
  const line = await Line.open(owned, (shown) => states.push(shown.state))
  lines.push(line)
  return line
}
const rename = (line: Line, label: string) => {
  const here: Piece = line.shown.ahead.piece
  expect(line.commit(label, [setStep(here, ['name'], label)])).toBeNull()
}
const until = (what: () => unknown) => vi.waitFor(() => expect(what()).toBeTruthy(), { timeout: 5000, interval: 5 })
const unsentHere = async () => (await findUnsent(owned.account, owned.piece)).flatMap((f) => f.unsent.transactions)

beforeEach(() => {
  owned = { account: `account-${++number}`, piece: `piece-${number}` }
  server = new Server(piece())
  tab(`tab-${number}`)
  const fetch = async (url: string, init: RequestInit): Promise<Response> => {
    await Promise.resolve()
    if (server.away) throw new TypeError('no line')
    const body = init.body ? (JSON.parse(init.body as string) as Parameters<Server['answer']>[1]) : undefined
    const [status, value] = server.answer(url, body)
    return new Response(JSON.stringify(value), { status, headers: { [DOCUMENT_HEADER]: DOCUMENT_VERSION } })
  }
  vi.stubGlobal('fetch', vi.fn(fetch))
})
afterEach(() => {
  for (const line of lines.splice(0)) line.close()
  vi.unstubAllGlobals()
})

describe('a line', () => {
  it('saves what is done, and lets go of it only then', async () => {
    const line = await open()
    rename(line, 'One')
    rename(line, 'Two')
    expect(line.shown.ahead.pending).toHaveLength(2)
    await line.settled()
    expect([server.at(2).name, line.shown.state, line.shown.ahead.revision]).toEqual(['Two', 'saved', 2])
    expect(await unsentHere()).toEqual([])
  })
  it('believes no acknowledgement of another revision than its own', async () => {
    const line = await open()
    server.liesBy = 1
    rename(line, 'One')
    await until(() => line.shown.state === 'waiting')
    expect((await unsentHere()).map((t) => t.label)).toEqual(['One'])
  })
  it('waits without a flicker while the server is away, writes down what it stands on, and goes on', async () => {
    const states: SaveState[] = []
    const line = await open(states)
    rename(line, 'One')
    await line.settled()
    server.away = true
    states.length = 0
    rename(line, 'Two')
    await until(() => states.filter((s) => s === 'waiting').length > 3)
    expect((await keptStand(owned))?.revision).toBe(1)
    const from = states.indexOf('waiting')
    expect(states.slice(from).every((s) => s === 'waiting')).toBe(true)
    server.away = false
    await until(() => line.shown.state === 'saved')
    expect(server.at(2).name).toBe('Two')
  })
  it('opened while the server is away is saved once it is seen to be back', async () => {
    const first = await open()
    rename(first, 'One')
    await first.settled()
    first.close()
    await vi.waitFor(async () => expect((await keptStand(owned))?.revision).toBe(0))
    server.away = true
    const again = await open()
    expect(again.shown.state).toBe('waiting')
    server.away = false
    await again.look()
    expect([again.shown.state, again.shown.ahead.piece.name]).toEqual(['saved', 'One'])
  })
})

describe('a fault of the server', () => {
  it('over one transaction keeps no other from being saved, and is asked about after a while', async () => {
    server.stumbles.set('Bad', Infinity)
    const line = await open()
    server.away = true
    for (const label of ['Fine', 'Bad', 'Later']) rename(line, label)
    await until(() => line.shown.state === 'waiting')
    server.away = false
    await until(() => line.shown.state === 'refused')
    expect(server.made.map((t) => t.label)).toEqual(['Fine'])
    expect(server.sent.filter((labels) => labels.includes('Bad')).length).toBeLessThan(8)
    expect((await unsentHere()).map((t) => t.label)).toEqual(['Bad', 'Later'])
  })
  it('that passes is nothing that a person sees', async () => {
    server.stumbles.set('One', 3).set('Two', 3)
    const states: SaveState[] = []
    const line = await open(states)
    rename(line, 'One')
    rename(line, 'Two')
    await until(() => line.shown.state === 'saved' || line.shown.state === 'refused')
    expect(server.made.map((t) => t.label)).toEqual(['One', 'Two'])
    expect(states).not.toContain('refused')
  })
})

describe('what can no longer be told step by step', () => {
  /** Others make so many revisions, whose steps are then thinned out. */
  const moveOn = (count: number) => {
    for (let k = 0; k < count; k++)
      server.made.push({
        id: `other-${k}`,
        label: 'x',
        steps: [setStep(server.at(server.made.length), ['notes'], `n ${k}`)],
        number: server.made.length + 1,
      })
    server.thinnedTo = server.made.length
  }
  it('is opened anew where nothing waits, without a word', async () => {
    const states: SaveState[] = []
    const line = await open(states)
    rename(line, 'One')
    await line.settled()
    moveOn(3)
    await line.look()
    expect([line.shown.state, line.shown.ahead.revision, line.shown.ahead.piece.notes]).toEqual(['saved', 4, 'n 2'])
    rename(line, 'Two')
    await line.settled()
    expect(server.at(5)).toMatchObject({ name: 'Two', notes: 'n 2' })
    expect(states).not.toContain('apart')
  })
  it('stays as it is where the server is gone again before it could be opened anew', async () => {
    const line = await open()
    moveOn(2)
    const answer = server.answer.bind(server)
    server.answer = (path, body) => {
      if (!path.includes('after=') && !path.includes('last=')) return [503, { error: { code: 'busy', says: 'busy' } }]
      return answer(path, body)
    }
    await line.look()
    expect([line.shown.state, line.shown.ahead.revision]).toEqual(['saved', 0])
    server.answer = answer
    await line.look()
    expect(line.shown.ahead.revision).toBe(2)
  })
  it('asks the person where an edit waits, and keeps it as it stands', async () => {
    const line = await open()
    server.away = true
    rename(line, 'Mine')
    await until(() => line.shown.state === 'waiting')
    moveOn(2)
    server.away = false
    await until(() => line.shown.state === 'apart')
    expect(line.shown.ahead.piece.name).toBe('Mine')
    expect((await unsentHere()).map((t) => t.label)).toEqual(['Mine'])
    expect(server.made.length).toBe(2)
  })
  it('is no sign of a server that was put back', async () => {
    const first = await open()
    rename(first, 'One')
    await first.settled()
    first.close()
    await vi.waitFor(async () => expect((await keptStand(owned))?.revision).toBe(0))
    moveOn(2)
    const again = await open()
    expect([again.shown.state, again.shown.ahead.revision]).toEqual(['saved', 3])
  })
  it('of an earlier visit is laid on the document that this browser has, else on the last of the server', async () => {
    const steps: Step[] = [setStep({ ...piece(), name: 'One' }, ['name'], 'Late')]
    for (const known of [true, false]) {
      owned = { account: `${owned.account}-${known}`, piece: owned.piece }
      server.made = [{ id: 'first', label: 'x', steps: [setStep(piece(), ['name'], 'One')], number: 1 }]
      const at = server.at(1)
      server.thinnedTo = 0
      moveOn(2)
      if (known) await keepDocument(owned, { revision: 1, head: 'first', piece: at })
      tab(`gone-${known}`)
      await keepUnsent(owned, { revision: 1, head: 'first', transactions: [{ id: 'late-1', label: 'Late', steps }] })
      tab(`here-${known}`)
      const line = await open()
      // Without the document it does not fit the state before it: it stays kept, and the piece opens.
      expect([line.shown.state, line.shown.ahead.piece.name]).toEqual(known ? ['apart', 'Late'] : ['saved', 'One'])
      expect((await unsentHere()).map((t) => t.label)).toEqual(['Late'])
      line.close()
    }
  })
})

describe('an account that is full', () => {
  it('keeps what is done in this browser, says so, and sends it once there is room', async () => {
    const states: SaveState[] = []
    const line = await open(states)
    server.full = true
    rename(line, 'One')
    await until(() => states.filter((state) => state === 'full').length > 2)
    expect(states.slice(states.indexOf('full')).every((state) => state === 'full')).toBe(true)
    expect((await unsentHere()).map((t) => t.label)).toEqual(['One'])
    server.full = false
    await until(() => line.shown.state === 'saved')
    expect(server.at(1).name).toBe('One')
  })
})

describe('what an older version left unsent', () => {
  it('is taken up in the form of today, sent, and let go', async () => {
    // Before a part could hang on another, what was put in said nothing of it.
    const { on: _, ...value } = partToFile(part({ id: 'tab', name: 'Tab' }))
    const steps = [{ type: 'part', do: 'insert', at: 1, value }] as unknown as Step[]
    tab('older')
    await keepUnsent(owned, { revision: 0, head: '', transactions: [{ id: 'older-edit-1', label: 'A tab', steps }] })
    tab('today')
    const line = await open()
    await until(() => line.shown.state === 'saved')
    expect(server.at(1).parts.map((p) => [p.id, p.on])).toEqual([
      ['band', null],
      ['tab', null],
    ])
    expect(await unsentHere()).toEqual([])
  })
})

describe('what another tab left unsent', () => {
  const left = (label: string, revision: number, head: string, at: Piece = piece()) => {
    const steps: Step[] = [setStep(at, ['name'], label)]
    return keepUnsent(owned, { revision, head, transactions: [{ id: `left-${owned.piece}-${label}`, label, steps }] })
  }
  it('is taken over before it is let go: at no moment is it kept nowhere', async () => {
    tab('gone')
    await left('Theirs', 0, '')
    tab('here')
    server.stumbles.set('Theirs', Infinity)
    const line = await open()
    expect(line.shown.ahead.piece.name).toBe('Theirs')
    line.close()
    expect((await unsentHere()).map((t) => t.label)).toEqual(['Theirs'])
  })
  it('and stands on a state that the server no longer has stays kept, and is laid on no other', async () => {
    tab('gone')
    await left('Theirs', 1, 'lost-head')
    tab('here')
    server.made.push({ id: 'another-line', label: 'x', steps: [setStep(piece(), ['notes'], 'n')], number: 1 })
    const line = await open()
    await line.settled()
    expect(line.shown.ahead.piece.name).toBe('Test band')
    expect(server.sent).toEqual([])
    expect((await unsentHere()).map((t) => t.label)).toEqual(['Theirs'])
  })
  it('of another account is neither seen nor counted nor forgotten', async () => {
    tab('gone')
    await left('Theirs', 0, '')
    tab('here')
    const other = { account: `${owned.account}-other`, piece: owned.piece }
    expect(await findUnsent(other.account)).toEqual([])
    expect((await countUnsent(other.account)).size).toBe(0)
    expect((await countUnsent(owned.account)).get(owned.piece)).toBe(1)
    await forgetAccount(other.account)
    expect((await unsentHere()).map((t) => t.label)).toEqual(['Theirs'])
    await forgetAccount(owned.account)
    expect(await unsentHere()).toEqual([])
  })
  it('is left alone as long as that tab lives', async () => {
    tab('living')
    await left('Theirs', 0, '')
    tab('here')
    const locks = {
      request: () => new Promise(() => {}),
      query: async () => ({ held: [{ name: 'weben-tab living' }] }),
    }
    vi.stubGlobal('navigator', { locks })
    expect(await unsentHere()).toEqual([])
    vi.stubGlobal('navigator', { locks: { ...locks, query: async () => ({ held: [] }) } })
    expect((await unsentHere()).map((t) => t.label)).toEqual(['Theirs'])
  })
})
