import { missingAnswer, openedAnswer, savedAnswer, type Missing } from '#core/contract/piece'
import { acknowledged, catchUp, goesThrough, stacked, type Ahead, type Point } from '#core/piece/catch-up'
import { checkEffort, effortOf, sentTogether } from '#core/piece/effort'
import { stepsBetween } from '#core/piece/difference'
import { EMPTY_HISTORY, historyOf, recorded, takeBack, takenBackLabel, type History } from '#core/piece/history'
import type { Piece } from '#core/piece/piece'
import { applySteps, type Step, type Transaction } from '#core/piece/step'
import { valueOf } from '#core/problem'
import { shortened } from '#core/units/text'
import { api, ApiError, backOff } from '../composables/api'
import {
  findUnsent,
  forgetShown,
  keepDocument,
  keepUnsent,
  keptDocument,
  keptStand,
  letGo,
  putAside,
  type Document,
  type Found,
  type Owned,
  type Unsent,
} from './kept'

/**
 * saved: all acknowledged · saving: on the way · waiting: server away, kept here · full: the account has no room for
 * it · signed-out: the session has ended · renewed: this page is of another version. Where a person must choose: clash
 * (the same place changed elsewhere) · apart (what was changed elsewhere can no longer be told step by step) · refused
 * (the server does not take it) · gone (put away or removed elsewhere) · astray (the server was put back to an earlier
 * state).
 */
export type SaveState =
  | 'saved'
  | 'saving'
  | 'waiting'
  | 'full'
  | 'signed-out'
  | 'renewed'
  | 'clash'
  | 'apart'
  | 'refused'
  | 'gone'
  | 'astray'

/** Nothing more is sent until the person has chosen. */
export const wantsChoice = (state: SaveState): boolean =>
  state === 'clash' || state === 'apart' || state === 'refused' || state === 'gone' || state === 'astray'

/** It is sent again by itself after a while. */
const triesAgain = (state: SaveState): boolean => state === 'waiting' || state === 'full'

export interface Shown {
  readonly ahead: Ahead
  readonly state: SaveState
  readonly says: string
}

const MOST_AT_ONCE = 100
/** A fault of the server may pass; after so many in a row the person is asked. */
const MOST_FAULTS = 4
/** How many of a piece's last transactions can be taken back after it was opened. */
const UNDO_AFTER_OPENING = 60
/** A document is written down once nothing has happened for so long. */
const QUIET_MS = 2500
const PUT_BACK = 'The server no longer has the state that this browser had from it: it was put back to an earlier one.'
const SEND_WITHIN_MS = 60_000
const AGAIN_AFTER_MS = 4000

const transaction = (label: string, steps: readonly Step[]): Transaction => ({
  id: crypto.getRandomValues(new Uint32Array(4)).join('-').slice(0, 40),
  label,
  steps: [...steps],
})

const standing = ({ revision, head, piece }: Document): Ahead => ({
  revision,
  head,
  base: piece,
  pending: [],
  piece,
  history: EMPTY_HISTORY,
})

/**
 * One piece on its way to the server. Every edit is applied here at once, kept in the browser, and sent in order;
 * nothing is let go before the server has acknowledged it. Edits from elsewhere go under what is pending
 * (core/piece/catch-up.ts).
 */
export class Line {
  private sending: Promise<void> | null = null
  private failures = 0
  /** How often in a row the server stumbled over what was sent, though it was there. */
  private faults = 0
  private triedAt = -AGAIN_AFTER_MS
  private wake: (() => void) | null = null
  private closed = false
  private quiet: ReturnType<typeof setTimeout> | undefined
  /** Revision of the document that this browser has written down. */
  private written = -1
  private readonly channel: BroadcastChannel

  private constructor(
    readonly owned: Owned,
    private ahead: Ahead,
    private state: SaveState,
    private says: string,
    private readonly tell: (shown: Shown) => void,
  ) {
    this.channel = new BroadcastChannel(`weben ${owned.piece}`)
    this.channel.onmessage = () => {
      void this.look()
    }
  }

  /**
   * Opens a piece as the server has it, with what this browser has not sent yet on top. If the server is away, what
   * the browser holds is opened, and goes on from there when it is back. Fails, with everything still kept, if neither
   * is there.
   */
  static async open(owned: Owned, tell: (shown: Shown) => void): Promise<Line> {
    const found = await findUnsent(owned.account, owned.piece)
    const opened = await openedOrKept(owned, found)
    let { ahead, state, says } = opened
    const taken: Found[] = [...opened.taken]
    for (const each of found.filter((f) => !taken.includes(f))) {
      const resumed = state === 'saved' ? await resume(owned, ahead, each.unsent) : null
      if (resumed) {
        ;({ ahead } = resumed)
        state = resumed.state
        says = resumed.says
        taken.push(each)
      } else await putAside(each)
    }
    const line = new Line(owned, ahead, state, says, tell)
    await line.keep()
    await letGo(owned, taken)
    line.show({ ahead: { ...ahead, history: historyOf(ahead.pending, opened.history) } })
    if (state === 'waiting') line.written = ahead.revision
    else void line.writeDown()
    line.flushSoon()
    return line
  }

  get shown(): Shown {
    return { ahead: this.ahead, state: this.state, says: this.says }
  }

  private show(now: Partial<Shown>): void {
    ;({ ahead: this.ahead, state: this.state, says: this.says } = { ...this.shown, ...now })
    if (!this.closed) this.tell(this.shown)
  }

  private async keep(): Promise<void> {
    const { revision, head, pending } = this.ahead
    await keepUnsent(this.owned, { revision, head, transactions: pending })
  }

  private async writeDown(): Promise<void> {
    const { revision, head, base } = this.ahead
    if (this.written === revision) return
    this.written = revision
    await keepDocument(this.owned, { revision, head, piece: base })
  }

  private writeDownSoon(): void {
    clearTimeout(this.quiet)
    this.quiet = setTimeout(() => {
      void this.writeDown()
    }, QUIET_MS)
  }

  /** Stops here; what is pending stays kept. */
  close(): void {
    this.closed = true
    clearTimeout(this.quiet)
    this.channel.close()
    this.wake?.()
  }

  /** One gesture. Returns a sentence if it cannot be done; then nothing has changed. */
  commit(label: string, steps: readonly Step[]): string | null {
    if (steps.length === 0) return null
    return this.make(transaction(label, steps), (made) => recorded(this.ahead.history, made))
  }

  back(way: 'undo' | 'redo'): string | null {
    const taken = takeBack(this.ahead.history, way)
    return (
      taken && this.make(transaction(takenBackLabel(way, taken.entry.label), taken.entry.steps), () => taken.history)
    )
  }

  private make(made: Transaction, history: (made: Transaction) => History): string | null {
    const effort = checkEffort(effortOf(this.ahead.piece, made.steps))
    const next = effort.ok ? applySteps(this.ahead.piece, made.steps) : effort
    if (!next.ok) return next.problems[0]!.says
    this.show({
      ahead: { ...this.ahead, piece: next.value, pending: [...this.ahead.pending, made], history: history(made) },
    })
    void this.keep()
    this.flushSoon()
    return null
  }

  /** Tries again at once, unless that was done a moment ago: the server may be back. */
  again(): void {
    if (performance.now() - this.triedAt > AGAIN_AFTER_MS) this.wake?.()
    if (this.ahead.pending.length > 0) this.flushSoon()
    else void this.look()
  }

  private flushSoon(): void {
    if (this.sending || this.closed || wantsChoice(this.state) || this.state === 'renewed') return
    this.sending = this.flush().finally(() => {
      this.sending = null
    })
  }

  /** Resolves when there is nothing more to send, or nothing more can be done without a person. */
  async settled(): Promise<void> {
    while (this.sending) await this.sending
  }

  private async flush(): Promise<void> {
    if (this.ahead.pending.length === 0) return
    while (this.ahead.pending.length > 0) {
      if (this.closed) return
      const { revision, head, base, pending } = this.ahead
      // After a fault one at a time: what the server stumbles over must not keep the rest from being saved.
      const sent = pending.slice(0, this.faults > 0 ? 1 : sentTogether(base, pending.slice(0, MOST_AT_ONCE)))
      if (!triesAgain(this.state)) this.show({ state: 'saving' })
      try {
        this.triedAt = performance.now()
        const answer = await api(savedAnswer, `piece/${this.owned.piece}/step`, {
          method: 'POST',
          body: { base: revision, on: head, transactions: sent },
          within: SEND_WITHIN_MS,
        })
        // Another number than ours for what we sent is not an answer to it.
        if (answer.revision !== revision + sent.length)
          throw new ApiError(
            0,
            'not-ours',
            'The server’s answer does not fit what was sent. What you do is kept in this browser and sent again.',
          )
        if (this.closed) return
        this.failures = 0
        this.faults = 0
        this.show({ ahead: valueOf(acknowledged(this.ahead, sent.length)), state: 'saving' })
        await this.keep()
        this.writeDownSoon()
        this.channel.postMessage(answer.revision)
      } catch (error) {
        if (!(error instanceof ApiError)) throw error
        if (!(await this.recover(error))) return
      }
    }
    this.show({ state: 'saved', says: '' })
  }

  /** Whether to go on sending after a failure. */
  private async recover(error: ApiError): Promise<boolean> {
    if (this.closed) return false
    if (error.code === 'stale') {
      const before = this.ahead.revision
      const missing = missingAnswer.safeParse(error.data)
      if (missing.success && !(await this.take(missing.data))) return false
      if (this.ahead.revision > before) return true
    }
    if (error.code === 'fault') this.faults++
    const state = this.faults > MOST_FAULTS ? 'refused' : stateAfter(error)
    this.show({ state, says: error.says })
    // What this stands on may be nowhere else by now.
    await this.writeDown()
    if (!triesAgain(state)) return false
    await this.pause(error)
    return !this.closed
  }

  private async pause(error: ApiError): Promise<void> {
    const asked = Number((error.data as { wait?: number } | undefined)?.wait) * 1000
    await new Promise<void>((done) => {
      const timer = setTimeout(done, asked > 0 ? asked : backOff(this.failures++))
      // A new edit alone is no reason to try sooner.
      this.wake = () => {
        clearTimeout(timer)
        done()
      }
    })
    this.wake = null
  }

  private async take({ missing }: Missing): Promise<boolean> {
    const caught = catchUp(this.ahead, missing)
    if (!caught.ok) {
      this.show({ state: 'clash', says: caught.problems[0]!.says })
      return false
    }
    this.show({ ahead: caught.value })
    await this.keep()
    this.writeDownSoon()
    return true
  }

  /** Fetches what was changed elsewhere. */
  async look(): Promise<void> {
    if (this.closed || this.sending || wantsChoice(this.state) || this.state === 'renewed') return
    const { revision, head } = this.ahead
    try {
      const answer = await api(
        missingAnswer,
        `piece/${this.owned.piece}/step?after=${revision}&on=${encodeURIComponent(head)}`,
      )
      if (!this.closed && !this.sending && answer.missing.length > 0) await this.take(answer)
      if ((this.state === 'waiting' || this.state === 'signed-out') && this.ahead.pending.length === 0)
        this.show({ state: 'saved', says: '' })
    } catch (error) {
      if (!(error instanceof ApiError) || this.closed || this.sending) return
      const state = stateAfter(error)
      if (state === 'apart' && this.ahead.pending.length === 0) return this.openAnew()
      if (state !== 'waiting') this.show({ state, says: error.says })
      await this.writeDown()
    }
    this.flushSoon()
  }

  /** Takes the newest document in the place of this one, on which nothing waits. */
  private async openAnew(): Promise<void> {
    let there: Document
    try {
      there = await api(openedAnswer, `piece/${this.owned.piece}`)
    } catch (error) {
      // It is looked for again at the next occasion.
      if (error instanceof ApiError) return
      throw error
    }
    if (this.closed || this.ahead.pending.length > 0) return
    this.show({ ahead: standing(there), state: 'saved', says: '' })
    this.writeDownSoon()
  }

  /** After the server was put back: brings it to what is here, as one more edit on top of what it has. */
  async sendAgain(): Promise<void> {
    const there = await api(openedAnswer, `piece/${this.owned.piece}`)
    const steps = stepsBetween(there.piece, this.ahead.piece)
    const made = transaction('Sent again', steps)
    const ahead: Ahead = { ...standing(there), pending: steps.length > 0 ? [made] : [], piece: this.ahead.piece }
    this.written = -1
    this.failures = 0
    this.show({
      ahead: { ...ahead, history: steps.length > 0 ? recorded(EMPTY_HISTORY, made) : EMPTY_HISTORY },
      state: 'saving',
      says: '',
    })
    await this.keep()
    this.flushSoon()
    await this.settled()
  }

  /** Lets go of what is here; what other tabs have not sent stays kept. */
  async forget(): Promise<void> {
    this.close()
    await forgetShown(this.owned)
  }
}

function stateAfter(error: ApiError): SaveState {
  if (error.code === 'account-full') return 'full'
  if (error.isPassing) return 'waiting'
  if (error.code === 'renewed') return 'renewed'
  if (error.status === 401) return 'signed-out'
  if (error.code === 'astray' || error.code === 'apart') return error.code
  if (error.status === 404 || error.status === 410) return 'gone'
  // Nothing came of catching up: the line may be moving fast; it is tried again.
  if (error.code === 'stale') return 'waiting'
  return 'refused'
}

interface Begun {
  readonly ahead: Ahead
  readonly state: SaveState
  readonly says: string
  readonly history: History
  readonly taken: readonly Found[]
}

async function openedOrKept(owned: Owned, found: readonly Found[]): Promise<Begun> {
  // Read before the server is asked: another tab may write down a later state meanwhile.
  const stand = await keptStand(owned)
  try {
    const [opened, { missing }] = await Promise.all([
      api(openedAnswer, `piece/${owned.piece}`),
      api(missingAnswer, `piece/${owned.piece}/step?last=${UNDO_AFTER_OPENING}`),
    ])
    const made = missing.filter((m) => m.number <= opened.revision)
    const held = stand && (await isPutBack(owned, stand, opened, made)) ? await heldHere(owned, found) : null
    if (held) return { ...held, state: 'astray', says: PUT_BACK, history: EMPTY_HISTORY }
    return { ahead: standing(opened), state: 'saved', says: '', history: historyOf(made), taken: [] }
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    const kept = error.status === 401 ? null : await heldHere(owned, found)
    const state = stateAfter(error)
    if (!kept || (state === 'gone' && kept.ahead.pending.length === 0)) throw error
    return { ...kept, state, says: error.says, history: EMPTY_HISTORY }
  }
}

/** Whether this browser had a later state from the server than the server has now, or one of another line. */
async function isPutBack(owned: Owned, kept: Point, now: Point, made: Missing['missing']): Promise<boolean> {
  const same = goesThrough(kept, now, made)
  if (same !== null) return !same
  try {
    await missingSince(owned, kept)
    return false
  } catch (error) {
    if (error instanceof ApiError && error.code === 'astray') return true
    throw error
  }
}

/** What came after a point of the line; a sentence if that can no longer be told as steps. */
async function missingSince(owned: Owned, { revision, head }: Point): Promise<Missing['missing'] | string> {
  try {
    const path = `piece/${owned.piece}/step?after=${revision}&on=${encodeURIComponent(head)}`
    return (await api(missingAnswer, path)).missing
  } catch (error) {
    if (error instanceof ApiError && error.code === 'apart') return error.says
    throw error
  }
}

/** What this browser holds of a piece: the document it last had, and what was made on it and not sent. */
async function heldHere(owned: Owned, found: readonly Found[]): Promise<Pick<Begun, 'ahead' | 'taken'> | null> {
  const document = await keptDocument(owned)
  if (!document) return null
  for (const each of found) {
    if (each.unsent.revision !== document.revision) continue
    const ahead = ontop(document, each.unsent)
    if (ahead) return { ahead, taken: [each] }
  }
  return { ahead: standing(document), taken: [] }
}

function ontop(document: Document, { transactions }: Unsent): Ahead | null {
  const made = applySteps(
    document.piece,
    transactions.flatMap((t) => t.steps),
  )
  return made.ok ? { ...standing(document), pending: transactions, piece: made.value } : null
}

/**
 * Unsent steps of an earlier visit on top of what the server has, and of those taken in before. Null if they cannot be
 * taken in now; a server that cannot be reached fails the opening, and everything stays where it is kept.
 */
async function resume(
  owned: Owned,
  now: Ahead,
  unsent: Unsent,
): Promise<{ ahead: Ahead; state: SaveState; says: string } | null> {
  const alone = now.pending.length === 0
  const old =
    unsent.revision === now.revision && (unsent.head ?? now.head) === now.head
      ? { revision: now.revision, head: now.head, piece: now.base }
      : await stoodOn(owned, now, unsent)
  // What they stand on is nowhere any more: they stay where they are kept.
  if (old === 'astray') return null
  let mine = ontop(old, unsent)
  if (!mine) return null
  while (mine.revision < now.revision) {
    const missing = await missingSince(owned, mine)
    if (typeof missing === 'string') return alone ? { ahead: mine, state: 'apart', says: missing } : null
    const caught = catchUp(
      mine,
      missing.filter((m) => m.number <= now.revision),
    )
    if (!caught.ok || missing.length === 0) {
      // Nothing else waits yet: the person may choose at once. Otherwise these are put aside until the rest is sent.
      return caught.ok || !alone ? null : { ahead: mine, state: 'clash', says: caught.problems[0]!.says }
    }
    mine = caught.value
  }
  const both = stacked(now, mine)
  return both.ok ? { ahead: both.value, state: 'saved', says: '' } : null
}

/**
 * The document that unsent edits stand on; `astray` if the server no longer has it. If its steps are no longer kept,
 * it is what this browser has of it, or else the last state before it that the server has.
 */
async function stoodOn(owned: Owned, now: Ahead, { revision, head }: Unsent): Promise<Document | 'astray'> {
  if (revision > now.revision) return 'astray'
  const opened = await api(openedAnswer, `piece/${owned.piece}/revision/${revision}`)
  if (opened.revision === revision) return head !== undefined && head !== opened.head ? 'astray' : opened
  const kept = await keptDocument(owned)
  return kept?.revision === revision && kept.head === (head ?? kept.head) ? kept : opened
}

/** A piece as it was at a revision; as the last before it that the server still has. */
export const pieceAt = async (owned: Pick<Owned, 'piece'>, revision: number): Promise<Piece> =>
  (await api(openedAnswer, `piece/${owned.piece}/revision/${revision}`)).piece

/** A piece as it stands here, for a copy of its own. */
export const mineAsCopy = (piece: Piece): Piece => ({
  ...piece,
  name: shortened(`${piece.name} (my version)`, 80),
})
