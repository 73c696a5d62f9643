import { createStore, del, entries, set } from 'idb-keyval'
import type { Transaction } from '#core/piece/step'
import { upgradeStep } from '#core/piece/upgrade'

/** What one tab has made of one piece and the server has not acknowledged. Kept in IndexedDB, so a closed tab loses nothing. */
export interface Unsent { readonly revision: number, readonly transactions: readonly Transaction[] }

const store = createStore('weben', 'unsent')

/** This tab's own name: kept over a reload, new in a new tab. */
function tabName(): string {
  let name = sessionStorage.getItem('weben-tab')
  if (!name) {
    name = crypto.getRandomValues(new Uint32Array(2)).join('-')
    sessionStorage.setItem('weben-tab', name)
  }
  return name
}

const keyOf = (piece: string, tab: string): string => `${piece} ${tab}`

/** Held for as long as the tab lives, so that others know whose steps are orphans. */
function holdTab(): void {
  void navigator.locks?.request(`weben-tab ${tabName()}`, () => new Promise(() => {}))
}

let held = false

export async function keepUnsent(piece: string, unsent: Unsent): Promise<void> {
  if (!held) { held = true; holdTab() }
  const key = keyOf(piece, tabName())
  if (unsent.transactions.length === 0) await del(key, store)
  else await set(key, unsent, store)
}

export interface Found { readonly key: string, readonly unsent: Unsent }

/** Unsent steps of this tab, and of tabs of this browser that are gone. Nothing is taken away until `letGo`. */
export async function findUnsent(piece: string): Promise<Found[]> {
  const own = keyOf(piece, tabName())
  const locks = new Set((await navigator.locks?.query())?.held?.map(lock => lock.name) ?? [])
  const found: Found[] = []
  for (const [key, unsent] of await entries<string, Unsent>(store)) {
    if (!key.startsWith(`${piece} `)) continue
    if (key !== own && locks.has(`weben-tab ${key.slice(piece.length + 1)}`)) continue
    found.push({ key, unsent: { ...unsent, transactions: unsent.transactions.map(t => ({ ...t, steps: t.steps.map(upgradeStep) })) } })
  }
  return found.sort((a, b) => a.unsent.revision - b.unsent.revision)
}

/** Lets go of what has been taken over under this tab's own name. */
export async function letGo(piece: string, taken: readonly Found[]): Promise<void> {
  const own = keyOf(piece, tabName())
  for (const { key } of taken) if (key !== own) await del(key, store)
}

/** Puts aside what could not be taken in, before this tab's own place is written anew; it is tried again at the next opening. */
export async function putAside(piece: string, { key, unsent }: Found): Promise<void> {
  if (key === keyOf(piece, tabName())) await set(`${key}-aside-${unsent.revision}`, unsent, store)
}
