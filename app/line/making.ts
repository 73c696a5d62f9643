import { createStore, delMany, entries, get, setMany } from 'idb-keyval'
import { syncedAnswer, type MakingAnswer, type SyncedMaking } from '#core/contract/making'
import { BENCH_LIMITS, stateOf, type KeptEvent, type MakingEvent, type MakingState } from '#core/making/event'
import { api, ApiError, backOff } from '../composables/api'
import { keepWaiting, letGoWaiting, waitingOf, type OwnedMaking } from './waiting'

/** The makings as the server last told them, in IndexedDB, to be gone on with while it is away. */
const makings = createStore('weben-bench-making', 'making')

interface Known extends OwnedMaking {
  readonly head: MakingAnswer
  readonly seq: number
  readonly events: readonly KeptEvent[]
  /** How far the server’s clock is ahead of this one, ms. */
  readonly ahead: number
}

const keyOf = ({ account, making }: OwnedMaking): string => `${account} ${making}`

/** Makings of a piece that this browser knows. */
export async function knownMakings(account: string, piece: string): Promise<MakingAnswer[]> {
  return (await entries<string, Known>(makings))
    .map(([, value]) => value)
    .filter((value) => value.account === account && value.piece === piece)
    .map((value) => value.head)
    .sort((a, b) => b.begunAt - a.begunAt)
}

/** Forgets what this browser keeps of makings for an account. */
export async function forgetMakings(account: string): Promise<void> {
  await letGoWaiting(await waitingOf(account))
  const known = await entries<string, OwnedMaking>(makings)
  await delMany(
    known.filter(([, v]) => v.account === account).map(([key]) => key),
    makings,
  )
}

/** How many events of an account wait here. */
export const countWaiting = async (account: string): Promise<number> => (await waitingOf(account)).length

const send = (owned: OwnedMaking, after: number, ahead: number, events: readonly KeptEvent[]): Promise<SyncedMaking> =>
  api(syncedAnswer, `piece/${owned.piece}/making/${owned.making}/event`, {
    method: 'POST',
    body: { after, now: Date.now() + ahead, events },
  })

/** Whether there is nothing any more that it could be added to. */
const isGone = (error: ApiError): boolean => error.status === 404

/**
 * Sends what waits of an account, whichever page is open. What belongs to a making that is gone is let go; what the
 * server does not take now stays here.
 */
export async function sendWaiting(account: string): Promise<void> {
  const all = await waitingOf(account)
  for (const making of new Set(all.map((w) => w.making))) {
    const own = all.filter((w) => w.making === making)
    const owned = own[0]!
    const ahead = (await get<Known>(keyOf(owned), makings))?.ahead ?? 0
    for (let k = 0; k < own.length; k += BENCH_LIMITS.together) {
      const some = own.slice(k, k + BENCH_LIMITS.together)
      try {
        // Nothing is asked back: whoever opens the making asks for what it lacks.
        await send(
          owned,
          Number.MAX_SAFE_INTEGER,
          ahead,
          some.map(({ kept }) => kept),
        )
      } catch (error) {
        if (!(error instanceof ApiError)) throw error
        if (error.isPassing) return
        if (!isGone(error)) break
      }
      await letGoWaiting(some)
    }
  }
}

export interface ShownMaking {
  readonly head: MakingAnswer
  readonly state: MakingState
  /** Events that the server has not acknowledged yet. */
  readonly waiting: number
  readonly says: string
}

const LOOK_EVERY_MS = 5000
const QUIET_MS = 2000

/**
 * One making at the bench. A press counts here at once, is kept in the browser and sent; presses of other devices come
 * in between, and all agree, since what follows does not depend on the order in which events came
 * (core/making/event.ts).
 */
export class MakingLine {
  private pending: KeptEvent[] = []
  private sending: Promise<void> | null = null
  private closed = false
  private failures = 0
  private says = ''
  private wake: (() => void) | null = null
  private quiet: ReturnType<typeof setTimeout> | undefined
  private readonly ticking: ReturnType<typeof setInterval>
  private readonly channel: BroadcastChannel
  private readonly ids: Set<string>
  private latest = 0

  private constructor(
    readonly owned: OwnedMaking,
    private head: MakingAnswer,
    private seq: number,
    private readonly events: KeptEvent[],
    private ahead: number,
    private readonly tell: (shown: ShownMaking) => void,
  ) {
    this.ids = new Set(events.map((e) => e.id))
    this.channel = new BroadcastChannel(`weben-bench ${owned.making}`)
    this.channel.onmessage = () => {
      this.look()
    }
    this.ticking = setInterval(() => {
      if (document.visibilityState === 'visible') this.look()
    }, LOOK_EVERY_MS)
  }

  /** Opens a making as the server has it, or as this browser knows it while the server is away. */
  static async open(owned: OwnedMaking, tell: (shown: ShownMaking) => void): Promise<MakingLine> {
    const known = await get<Known>(keyOf(owned), makings)
    // What waits here is known before what the server has is taken in: some of it may have come there.
    const own = (await waitingOf(owned.account)).filter((w) => w.making === owned.making).map((w) => w.kept)
    let line: MakingLine
    try {
      const at = `piece/${owned.piece}/making/${owned.making}`
      const first = await api(syncedAnswer, `${at}?after=${known?.seq ?? 0}`)
      line = new MakingLine(owned, first.making, known?.seq ?? 0, [...(known?.events ?? [])], known?.ahead ?? 0, tell)
      line.pending = own
      line.take(first)
      const { ids } = line
      void letGoWaiting(own.filter((e) => ids.has(e.id)).map((kept) => ({ ...owned, kept })))
    } catch (error) {
      if (!(error instanceof ApiError) || !error.isPassing || !known) throw error
      line = new MakingLine(owned, known.head, known.seq, [...known.events], known.ahead, tell)
      line.pending = own
      line.says = error.says
    }
    line.show()
    line.look()
    return line
  }

  get shown(): ShownMaking {
    return {
      head: this.head,
      state: stateOf([...this.events, ...this.pending]),
      waiting: this.pending.length,
      says: this.says,
    }
  }

  private show(): void {
    if (this.closed) return
    const { shown } = this
    this.latest = Math.max(this.latest, shown.state.at)
    this.tell(shown)
  }

  /** Something happened at the bench. */
  add(event: MakingEvent): void {
    // What is done here comes after all that is seen here, whatever the clocks say.
    const at = Math.max(Date.now() + this.ahead, this.latest + 1)
    const kept: KeptEvent = { id: crypto.randomUUID(), at, event }
    this.latest = at
    this.pending.push(kept)
    keepWaiting({ ...this.owned, kept })
    this.show()
    this.sendSoon()
  }

  private take({ making, seq, events, now }: SyncedMaking): void {
    this.head = making
    this.seq = Math.max(this.seq, seq)
    this.ahead = now - Date.now()
    const own = new Set(this.pending.map((p) => p.id))
    // What was pressed here since comes after what the server now has of this browser, however it reckons time.
    let latest = 0
    for (const event of events) {
      if (own.has(event.id)) latest = Math.max(latest, event.at)
      if (this.ids.has(event.id)) continue
      this.ids.add(event.id)
      this.events.push(event)
    }
    this.pending = this.pending
      .filter((p) => !this.ids.has(p.id))
      .map((p) => {
        const at = Math.max(p.at, latest + 1)
        latest = at
        if (at === p.at) return p
        const kept = { ...p, at }
        keepWaiting({ ...this.owned, kept })
        return kept
      })
    this.writeSoon()
  }

  /** Asks what happened elsewhere, and sends what waits here. */
  look(): void {
    this.wake?.()
    this.sendSoon(true)
  }

  private sendSoon(anyway = false): void {
    if (this.sending || this.closed || (!anyway && this.pending.length === 0)) return
    this.sending = this.sync(anyway).finally(() => {
      this.sending = null
      if (this.pending.length > 0 && this.says === '') this.sendSoon()
    })
  }

  private async sync(once: boolean): Promise<void> {
    // What happens at one press goes in one request: none of it stands without the rest.
    await Promise.resolve()
    let more = once
    while (!this.closed && (more || this.pending.length > 0)) {
      const sent = this.pending.slice(0, BENCH_LIMITS.together)
      try {
        const answer = await send(this.owned, this.seq, this.ahead, sent)
        const before = this.events.length
        this.take(answer)
        // Acknowledged, also where the answer has not come to them yet.
        const acknowledged = new Set(sent.map((e) => e.id))
        for (const e of sent) if (!this.ids.has(e.id)) this.events.push(e)
        for (const id of acknowledged) this.ids.add(id)
        this.pending = this.pending.filter((p) => !acknowledged.has(p.id))
        await letGoWaiting(sent.map((kept) => ({ ...this.owned, kept })))
        more = answer.more
        this.failures = 0
        const told = this.says !== ''
        this.says = ''
        if (this.closed) return
        if (this.events.length > before || told) this.show()
        if (sent.length > 0) this.channel.postMessage(answer.seq)
      } catch (error) {
        if (!(error instanceof ApiError)) throw error
        this.says = error.says
        this.show()
        if (!error.isPassing) return
        await this.pause()
      }
    }
  }

  private async pause(): Promise<void> {
    await new Promise<void>((done) => {
      const timer = setTimeout(done, backOff(this.failures++))
      this.wake = () => {
        clearTimeout(timer)
        done()
      }
    })
    this.wake = null
  }

  private writeSoon(): void {
    clearTimeout(this.quiet)
    this.quiet = setTimeout(() => {
      void this.write()
    }, QUIET_MS)
  }

  private async write(): Promise<void> {
    const { head, seq, events, ahead } = this
    await setMany(
      [[keyOf(this.owned), { ...this.owned, head, seq, events: [...events], ahead } satisfies Known]],
      makings,
    )
  }

  /** Resolves when all is sent, or after so long. */
  async settled(withinMs: number): Promise<void> {
    const until = performance.now() + withinMs
    while (this.pending.length > 0 && this.sending && performance.now() < until)
      await Promise.race([this.sending, new Promise((done) => setTimeout(done, 100))])
  }

  /** Stops here; what waits stays kept and is sent from any other page. */
  close(): void {
    if (this.closed) return
    this.closed = true
    clearInterval(this.ticking)
    clearTimeout(this.quiet)
    void this.write()
    this.channel.close()
    this.wake?.()
  }
}
