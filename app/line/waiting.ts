import { createStore, delMany, entries, set } from 'idb-keyval'
import type { KeptEvent } from '#core/making/event'

/**
 * Events of the bench that the server has not acknowledged, each by itself in IndexedDB, so that any tab may send it:
 * an event that is sent twice is one. A page that is closed in the moment of a press ends what it was writing there;
 * so until that is done the event stands in localStorage, which is written at once.
 */
const store = createStore('weben-bench-waiting', 'event')
const AT_ONCE = 'weben-bench-waiting '

/** One making of one piece of one account. */
export interface OwnedMaking {
  readonly account: string
  readonly piece: string
  readonly making: string
}

export interface Waiting extends OwnedMaking {
  readonly kept: KeptEvent
}

const keyOf = ({ account, making, kept }: Waiting): string => `${account} ${making} ${kept.id}`

/** A browser that keeps nothing loses nothing but this: what is not sent yet ends with the page. */
function tried<T>(act: () => T): T | undefined {
  try {
    return act()
  } catch {
    return undefined
  }
}
const putAtOnce = (one: Waiting): void => tried(() => localStorage.setItem(AT_ONCE + keyOf(one), JSON.stringify(one)))
const takeAtOnce = (key: string): void => tried(() => localStorage.removeItem(AT_ONCE + key))

/** What was written at once and not yet where it belongs. */
function atOnce(): Waiting[] {
  const keys = tried(() => Object.keys(localStorage)) ?? []
  return keys.flatMap((key) => {
    const one = key.startsWith(AT_ONCE) ? tried(() => JSON.parse(localStorage.getItem(key)!) as Waiting | null) : null
    return one ? [one] : []
  })
}

async function putAway(one: Waiting): Promise<void> {
  try {
    await set(keyOf(one), one, store)
    takeAtOnce(keyOf(one))
  } catch {
    /* it stands where it was written at once */
  }
}

/** Keeps an event until the server has it: from now on a closed page does not lose it. */
export function keepWaiting(one: Waiting): void {
  putAtOnce(one)
  void putAway(one)
}

/** Events of an account that wait in this browser, the earliest first. */
export async function waitingOf(account: string): Promise<Waiting[]> {
  const here = atOnce()
  await Promise.all(here.map(putAway))
  const all = new Map(here.map((one) => [keyOf(one), one]))
  for (const [key, one] of await entries<string, Waiting>(store)) all.set(key, one)
  return [...all.values()].filter((one) => one.account === account).sort((a, b) => a.kept.at - b.kept.at)
}

/** Lets events go that the server has. */
export async function letGoWaiting(gone: readonly Waiting[]): Promise<void> {
  const keys = gone.map(keyOf)
  keys.forEach(takeAtOnce)
  await delMany(keys, store)
}
