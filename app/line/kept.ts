import { createStore, del, delMany, entries, get, set } from 'idb-keyval'
import { pieceFromBody, pieceToBody } from '#core/piece/codec'
import type { Point } from '#core/piece/catch-up'
import type { Piece } from '#core/piece/piece'
import type { Transaction } from '#core/piece/step'
import { upgradeBody, upgradeStep } from '#core/piece/upgrade'

/**
 * What this browser keeps of pieces, in IndexedDB, so that a closed tab loses nothing: what is not acknowledged, by
 * account, piece and tab; and the document as the server last gave it, by account and piece, to be seen while the
 * server is away.
 */
export interface Unsent {
  readonly revision: number
  /** Id of the transaction that the unsent ones stand on; unknown in what was kept before it was written down. */
  readonly head?: string | undefined
  readonly transactions: readonly Transaction[]
}

interface KeptUnsent extends Unsent {
  readonly account: string
  readonly piece: string
  readonly tab: string
}
interface KeptDocument extends Point {
  readonly body: unknown
}

const unsents = createStore('weben', 'unsent')
const documents = createStore('weben-documents', 'document')

/** This tab's own name: kept over a reload, new in a new tab. */
function tabName(): string {
  let name = sessionStorage.getItem('weben-tab')
  if (!name) {
    name = crypto.getRandomValues(new Uint32Array(2)).join('-')
    sessionStorage.setItem('weben-tab', name)
  }
  return name
}

/** One piece of one account. */
export interface Owned {
  readonly account: string
  readonly piece: string
}

const keyOf = ({ account, piece }: Owned, tab = tabName()): string => `${account} ${piece} ${tab}`

let held = false

/** Held for as long as the tab lives, so that others know whose steps are orphans. */
function holdTab(): void {
  if (held) return
  held = true
  void navigator.locks?.request(`weben-tab ${tabName()}`, () => new Promise(() => {}))
}

export async function keepUnsent(owned: Owned, unsent: Unsent): Promise<void> {
  holdTab()
  if (unsent.transactions.length === 0) await del(keyOf(owned), unsents)
  else await set(keyOf(owned), { ...unsent, ...owned, tab: tabName() } satisfies KeptUnsent, unsents)
}

export interface Found {
  readonly key: string
  readonly owned: Owned
  readonly unsent: Unsent
}

/** What was kept before accounts were told apart says only its piece; who may open that piece may take it up. */
function readKept(key: string, value: Partial<KeptUnsent>, account: string): { owned: Owned; tab: string } | null {
  if (value.account !== undefined)
    return value.account === account ? { owned: { account, piece: value.piece! }, tab: value.tab! } : null
  const [piece, tab] = key.split(' ')
  return piece && tab ? { owned: { account, piece }, tab } : null
}

/**
 * Unsent steps of this tab, and of tabs of this browser that are gone; of one piece or of all. Nothing is taken away
 * until `letGo`.
 */
export async function findUnsent(account: string, piece?: string): Promise<Found[]> {
  const own = tabName()
  const locks = new Set((await navigator.locks?.query())?.held?.map((lock) => lock.name) ?? [])
  const found: Found[] = []
  for (const [key, value] of await entries<string, KeptUnsent>(unsents)) {
    const kept = readKept(key, value, account)
    if (!kept || (piece !== undefined && kept.owned.piece !== piece)) continue
    if (kept.tab !== own && locks.has(`weben-tab ${kept.tab}`)) continue
    found.push({
      key,
      owned: kept.owned,
      unsent: {
        revision: value.revision,
        head: value.head,
        transactions: value.transactions.map((t) => ({ ...t, steps: t.steps.map(upgradeStep) })),
      },
    })
  }
  return found.sort((a, b) => a.unsent.revision - b.unsent.revision)
}

/** Pieces of an account that have unsent edits in this browser, in whichever tab, and how many. */
export async function countUnsent(account: string): Promise<Map<string, number>> {
  const counts = new Map<string, number>()
  for (const [, { account: whose, piece, transactions }] of await entries<string, KeptUnsent>(unsents)) {
    if (whose === account) counts.set(piece, (counts.get(piece) ?? 0) + transactions.length)
  }
  return counts
}

/** Lets go of what has been taken over under this tab's own name. */
export async function letGo(owned: Owned, taken: readonly Found[]): Promise<void> {
  await delMany(
    taken.map((t) => t.key).filter((key) => key !== keyOf(owned)),
    unsents,
  )
}

/**
 * Puts aside what could not be taken in, before this tab's own place is written anew; it is tried again at the next
 * opening.
 */
export async function putAside({ key, owned, unsent }: Found): Promise<void> {
  if (key === keyOf(owned))
    await set(
      `${key}-aside-${unsent.transactions[0]?.id}`,
      { ...unsent, ...owned, tab: tabName() } satisfies KeptUnsent,
      unsents,
    )
}

export interface Document extends Point {
  readonly piece: Piece
}

export async function keepDocument(
  { account, piece }: Owned,
  { revision, head, piece: document }: Document,
): Promise<void> {
  await set(`${account} ${piece}`, { revision, head, body: pieceToBody(document) } satisfies KeptDocument, documents)
}

/** Where the document stands that this browser last had from the server. */
export async function keptStand({ account, piece }: Owned): Promise<Point | null> {
  const kept = await get<KeptDocument>(`${account} ${piece}`, documents)
  return kept ? { revision: kept.revision, head: kept.head } : null
}

/**
 * The document as this browser last had it from the server; null if it has none, or one that cannot be read any more.
 */
export async function keptDocument({ account, piece }: Owned): Promise<Document | null> {
  const kept = await get<KeptDocument>(`${account} ${piece}`, documents)
  const read = kept && pieceFromBody(upgradeBody(kept.body))
  return kept && read?.ok ? { revision: kept.revision, head: kept.head, piece: read.value } : null
}

/** Forgets what this tab shows of a piece: its unsent edits and the document. */
export async function forgetShown(owned: Owned): Promise<void> {
  await del(keyOf(owned), unsents)
  await del(`${owned.account} ${owned.piece}`, documents)
}

/** Forgets a piece: all that any tab of this browser keeps of it for the account. */
export async function forgetPiece({ account, piece }: Owned): Promise<void> {
  const keys = (await entries<string, KeptUnsent>(unsents))
    .filter(([, kept]) => kept.account === account && kept.piece === piece)
    .map(([key]) => key)
  await delMany(keys, unsents)
  await del(`${account} ${piece}`, documents)
}

/** Forgets an account: everything this browser keeps for it. */
export async function forgetAccount(account: string): Promise<void> {
  await delMany(
    (await entries<string, KeptUnsent>(unsents)).filter(([, kept]) => kept.account === account).map(([key]) => key),
    unsents,
  )
  await delMany(
    (await entries<string, KeptDocument>(documents))
      .map(([key]) => key)
      .filter((key) => key.startsWith(`${account} `)),
    documents,
  )
}
