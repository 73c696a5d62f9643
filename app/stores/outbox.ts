import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { ApiError, reach } from '../composables/api'
import type { Line } from '../line/line'
import { useAccount } from './account'

const LOOK_EVERY_MS = 20_000

/** What knows of pieces and their steps is large: the way in, where there is nothing to send, does without. */
const sending = () => import('../line/sending')

/**
 * Sends what pieces have not sent yet, whichever page is open. The piece on the screen sends its own; one that needs a
 * person's choice waits until it is opened.
 */
export const useOutbox = defineStore('outbox', () => {
  const account = useAccount()
  /** How many edits of each piece wait in this browser. */
  const waiting = ref<ReadonlyMap<string, number>>(new Map())
  const lines = new Map<string, Line>()
  const jobs = new Map<string, Promise<void>>()
  /** On the screen: sends its own. */
  let onScreen: string | null = null
  const choice = new Set<string>()
  let working: Promise<void> | null = null
  let again = false

  const count = async (): Promise<void> => {
    const id = account.account?.id
    waiting.value = id ? await (await sending()).countUnsent(id) : new Map()
  }

  async function sendOne(owner: string, piece: string): Promise<void> {
    const { Line, wantsChoice } = await sending()
    try {
      const line = await Line.open({ account: owner, piece }, () => {})
      lines.set(piece, line)
      if (onScreen === piece) line.close()
      await line.settled()
      if (wantsChoice(line.shown.state)) choice.add(piece)
      line.close()
    } catch (error) {
      // A session that ended or a page of another version is no matter of this piece.
      if (!(error instanceof ApiError) || !(error.isPassing || error.status === 401 || error.code === 'renewed'))
        choice.add(piece)
    }
    lines.delete(piece)
  }

  function startOne(owner: string, piece: string): Promise<void> {
    const job = sendOne(owner, piece)
    jobs.set(piece, job)
    return job.finally(() => jobs.delete(piece))
  }

  async function send(): Promise<void> {
    const owner = account.account?.id
    if (!owner || reach.away || reach.renewed || reach.signedOut) {
      await count()
      return
    }
    const { findUnsent, sendWaiting } = await sending()
    await sendWaiting(owner)
    const pieces = new Set((await findUnsent(owner)).map((f) => f.owned.piece))
    for (const piece of pieces) {
      if (piece === onScreen || choice.has(piece) || account.account?.id !== owner) continue
      // A tab at a time: two would send the same twice, and one of them for nothing.
      const job = async (lock: Lock | null) => {
        if (lock) await startOne(owner, piece)
      }
      await (navigator.locks
        ? navigator.locks.request(`weben-send ${piece}`, { ifAvailable: true }, job)
        : startOne(owner, piece))
    }
    await count()
  }

  function soon(): void {
    again = true
    working ??= (async () => {
      while (again) {
        again = false
        await send()
      }
    })().finally(() => {
      working = null
    })
  }

  /** The piece comes onto the screen: what was sending it here stops first. */
  async function leave(piece: string): Promise<void> {
    onScreen = piece
    choice.delete(piece)
    lines.get(piece)?.close()
    await jobs.get(piece)
  }

  /** Nothing is on the screen any more. */
  const release = (): void => {
    onScreen = null
    soon()
  }

  /** Tries to send everything; returns how many edits are still waiting after so long. */
  async function sendAll(withinMs: number): Promise<number> {
    soon()
    await Promise.race([working, new Promise((done) => setTimeout(done, withinMs))])
    await count()
    const presses = account.account ? await (await sending()).countWaiting(account.account.id) : 0
    return [...waiting.value.values()].reduce((sum, n) => sum + n, presses)
  }

  async function forget(owner: string): Promise<void> {
    for (const line of lines.values()) line.close()
    const { forgetAccount, forgetMakings } = await sending()
    await forgetAccount(owner)
    await forgetMakings(owner)
    waiting.value = new Map()
  }

  function begin(): void {
    watch(
      [() => reach.away, () => reach.signedOut, () => account.account?.id],
      () => {
        if (!reach.away) soon()
      },
      { immediate: true },
    )
    setInterval(() => {
      if (document.visibilityState === 'visible') soon()
    }, LOOK_EVERY_MS)
    window.addEventListener('online', soon)
  }

  return { waiting, count, soon, leave, release, sendAll, forget, begin }
})
