import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { pieceFromBody, pieceToBody } from '#core/piece/codec'
import { acknowledged, catchUp, stacked, type Ahead, type Incoming } from '#core/piece/catch-up'
import { EMPTY_HISTORY, recorded, takeBack } from '#core/piece/history'
import type { Piece } from '#core/piece/piece'
import { applySteps, type Step, type Transaction } from '#core/piece/step'
import { valueOf } from '#core/problem'
import { api, ApiError } from '../composables/api'
import { findUnsent, keepUnsent, letGo, putAside, type Found } from './unsent'

interface Opened { id: string, revision: number, piece: unknown }
interface Missing { revision: number, missing: Incoming[] }

/** saved: all acknowledged · saving: on the way · waiting: server away, kept here · clash: a person must choose · signed-out. */
export type SaveState = 'saved' | 'saving' | 'waiting' | 'clash' | 'signed-out'

const read = (body: unknown): Piece => valueOf(pieceFromBody(body))
const MOST_AT_ONCE = 100
const LOOK_EVERY_MS = 15_000
const sleep = (ms: number) => new Promise(done => setTimeout(done, ms))

/**
 * The open piece and its way to the server. Every edit is applied here at once, kept in the browser, and sent in order; the
 * server's answer moves `base` on. Edits from elsewhere go under what is pending (core/piece/catch-up.ts).
 */
export const usePiece = defineStore('piece', () => {
  const id = ref<string | null>(null)
  const ahead = shallowRef<Ahead | null>(null)
  const state = ref<SaveState>('saved')
  const says = ref('')

  const piece = computed(() => ahead.value?.piece ?? null)
  const canUndo = computed(() => ahead.value?.history.undo.at(-1)?.label ?? null)
  const canRedo = computed(() => ahead.value?.history.redo.at(-1)?.label ?? null)

  let channel: BroadcastChannel | null = null
  let ticking: ReturnType<typeof setInterval> | undefined
  let sending: Promise<void> | null = null
  let wait = 500

  async function keep(): Promise<void> {
    if (id.value && ahead.value) await keepUnsent(id.value, { revision: ahead.value.revision, transactions: ahead.value.pending })
  }

  async function open(which: string): Promise<void> {
    if (id.value === which && ahead.value) {
      await look()
      return
    }
    close()
    id.value = which
    const opened = await api<Opened>(`piece/${which}`)
    const base = read(opened.piece)
    let now: Ahead = { revision: opened.revision, base, pending: [], piece: base, history: EMPTY_HISTORY }
    const taken: Found[] = []
    for (const found of await findUnsent(which)) {
      const next = state.value === 'clash' ? null : await resume(which, now, found.unsent)
      if (next) { now = next; taken.push(found) }
      else await putAside(which, found)
    }
    ahead.value = now
    await keep()
    await letGo(which, taken)
    channel = new BroadcastChannel(`weben ${which}`)
    channel.onmessage = () => { void look() }
    document.addEventListener('visibilitychange', lookIfSeen)
    // Other tabs of this browser tell at once; other devices are asked now and then.
    ticking = setInterval(lookIfSeen, LOOK_EVERY_MS)
    window.addEventListener('online', flushSoon)
    if (state.value !== 'clash') flushSoon()
  }

  /**
   * Unsent steps of an earlier visit on top of what the server has, and of those taken in before. Null if they cannot be taken in
   * now; a server that cannot be reached fails the opening, and everything stays where it is kept.
   */
  async function resume(which: string, now: Ahead, unsent: { revision: number, transactions: readonly Transaction[] }): Promise<Ahead | null> {
    const old = unsent.revision === now.revision ? now.base : read((await api<Opened>(`piece/${which}/revision/${unsent.revision}`)).piece)
    const made = applySteps(old, unsent.transactions.flatMap(t => t.steps))
    if (!made.ok) return null
    let mine: Ahead = { revision: unsent.revision, base: old, pending: unsent.transactions, piece: made.value, history: EMPTY_HISTORY }
    while (mine.revision < now.revision) {
      const { missing } = await api<Missing>(`piece/${which}/step?after=${mine.revision}`)
      const caught = catchUp(mine, missing.filter(m => m.number <= now.revision))
      if (!caught.ok || missing.length === 0) {
        // Nothing else waits yet: the person may choose at once. Otherwise these are put aside until the rest is sent.
        if (caught.ok || now.pending.length > 0) return null
        state.value = 'clash'
        says.value = caught.problems[0]!.says
        return mine
      }
      mine = caught.value
    }
    const both = stacked(now, mine)
    return both.ok ? both.value : null
  }

  function close(): void {
    channel?.close()
    clearInterval(ticking)
    channel = null
    document.removeEventListener('visibilitychange', lookIfSeen)
    window.removeEventListener('online', flushSoon)
    id.value = null
    ahead.value = null
    state.value = 'saved'
    says.value = ''
  }

  /** One gesture. Returns a sentence if it cannot be done; then nothing has changed. */
  function commit(label: string, steps: readonly Step[]): string | null {
    if (!ahead.value || steps.length === 0) return null
    const next = applySteps(ahead.value.piece, steps)
    if (!next.ok) return next.problems[0]!.says
    const made: Transaction = { id: crypto.getRandomValues(new Uint32Array(4)).join('-').slice(0, 40), label, steps: [...steps] }
    ahead.value = { ...ahead.value, piece: next.value, pending: [...ahead.value.pending, made], history: recorded(ahead.value.history, made) }
    void keep()
    flushSoon()
    return null
  }

  function back(way: 'undo' | 'redo'): string | null {
    const now = ahead.value
    const taken = now && takeBack(now.history, way)
    if (!now || !taken) return null
    const next = applySteps(now.piece, taken.entry.steps)
    if (!next.ok) return next.problems[0]!.says
    const made: Transaction = { id: crypto.getRandomValues(new Uint32Array(4)).join('-').slice(0, 40), label: `${way}: ${taken.entry.label}`.slice(0, 80), steps: [...taken.entry.steps] }
    ahead.value = { ...now, piece: next.value, pending: [...now.pending, made], history: taken.history }
    void keep()
    flushSoon()
    return null
  }

  function flushSoon(): void {
    if (sending || state.value === 'clash') return
    sending = flush().finally(() => { sending = null })
  }

  async function flush(): Promise<void> {
    while (id.value && ahead.value && ahead.value.pending.length > 0) {
      const which = id.value
      const { revision, pending } = ahead.value
      const sent = pending.slice(0, MOST_AT_ONCE)
      if (state.value !== 'waiting') state.value = 'saving'
      try {
        const answer = await api<{ revision: number }>(`piece/${which}/step`, { method: 'POST', body: { base: revision, transactions: sent } })
        if (id.value !== which || !ahead.value) return
        ahead.value = valueOf(acknowledged(ahead.value, sent.length, answer.revision))
        wait = 500
        await keep()
        channel?.postMessage(answer.revision)
        state.value = 'saving'
      }
      catch (error) {
        if (id.value !== which || !ahead.value) return
        if (!await recover(error)) return
      }
    }
    if (ahead.value && (state.value === 'saving' || state.value === 'waiting')) state.value = 'saved'
  }

  /** Whether to go on sending after a failure. */
  async function recover(error: unknown): Promise<boolean> {
    if (!(error instanceof ApiError)) throw error
    says.value = error.says
    if (error.code === 'stale') return take(error.data as Missing)
    if (error.status === 401) {
      state.value = 'signed-out'
      return false
    }
    if (error.status === 0 || error.status >= 500 || error.status === 429) {
      state.value = 'waiting'
      await sleep(wait)
      wait = Math.min(wait * 2, 8000)
      return true
    }
    state.value = 'clash'
    return false
  }

  async function take({ missing }: Missing): Promise<boolean> {
    if (!ahead.value) return false
    const caught = catchUp(ahead.value, missing)
    if (!caught.ok) {
      state.value = 'clash'
      says.value = caught.problems[0]!.says
      return false
    }
    ahead.value = caught.value
    await keep()
    return true
  }

  const lookIfSeen = () => { if (document.visibilityState === 'visible') void look() }

  /** Fetches what was changed elsewhere. */
  async function look(): Promise<void> {
    if (!id.value || !ahead.value || state.value === 'clash') return
    const which = id.value
    try {
      const answer = await api<Missing>(`piece/${which}/step?after=${ahead.value.revision}`)
      if (id.value === which && !sending && answer.missing.length > 0) await take(answer)
    }
    catch { /* the next look will find it */ }
    if (ahead.value?.pending.length) flushSoon()
  }

  /** After a clash: keep what was made here as a piece of its own, then show what the server has. Returns the copy's id. */
  async function keepMineAsCopy(): Promise<string | null> {
    const which = id.value
    if (!which || !ahead.value) return null
    const mine = ahead.value.piece
    const copy = await api<{ id: string }>('piece', { method: 'POST', body: pieceToBody({ ...mine, name: `${mine.name} (my version)`.slice(0, 80) }) })
    await takeTheirs()
    return copy.id
  }

  /** After a clash: let the edits made here go and show what the server has. */
  async function takeTheirs(): Promise<void> {
    const which = id.value
    if (!which) return
    await keepUnsent(which, { revision: 0, transactions: [] })
    close()
    await open(which)
  }

  return { id, piece, state, says, canUndo, canRedo, open, close, commit, undo: () => back('undo'), redo: () => back('redo'), look, flushSoon, keepMineAsCopy, takeTheirs }
})
