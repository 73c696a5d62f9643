import { requireSpec } from '../bead/spec'
import type { TrayBead } from '../bead/bead'
import { closureName } from '../wear/closure'
import type { Piece } from '../piece/piece'
import { amountOf } from '../shelf/shelf'
import { boundEnd } from '../tally/cords'
import { tallyPiece } from '../tally/tally'
import { beadToBuy, timesMade, type BeadToBuy } from './beads'
import { closureIn, EMPTY_BOX, findingIn, freeFor, spoolOf, takenBy, type Box } from './box'
import { requireThread } from '../thread/catalogue'
import { linksNeeded } from './links'
import { keyOfWanted, type Offer } from './price-list'
import { cutList, lengthsOf } from './thread'
import { needsFor } from './tools'

interface ToShop {
  readonly id: string
  readonly piece: Piece
}

export interface ShopBead extends BeadToBuy {
  /** Pieces that want it, with their share of beads. */
  readonly wantedBy: readonly { readonly id: string; readonly name: string; readonly count: number }[]
}

/**
 * Thread, elastic, chain or findings: an amount that is wanted, what the box gives, and the rest. Lengths in mm,
 * findings by count.
 */
export interface ShopOther {
  readonly id: string
  readonly name: string
  readonly unit: 'mm' | 'count'
  readonly wanted: number
  readonly fromBox: number
  readonly buy: number
  readonly wantedBy: readonly string[]
}

export interface ShoppingList {
  readonly beads: readonly ShopBead[]
  readonly others: readonly ShopOther[]
  /** Price of all packs that have one, and how many beads to buy have none. */
  readonly price: number
  readonly unknown: number
  readonly currency: string
}

const lookOf = (b: Pick<TrayBead, 'spec' | 'colour' | 'finish'>): string => keyOfWanted(b)

/**
 * One list for several pieces from one box. The same bead in two pieces is one line: counts are added before spare,
 * culls and packs are rounded. The box gives what no other piece has set aside; what the pieces of the list set aside
 * or took themselves counts for them. Spare and packs of a line are those of the first piece that wants it.
 */
export function shoppingList(
  entries: readonly ToShop[],
  {
    box = EMPTY_BOX,
    offers,
    currency,
  }: { readonly box?: Box; readonly offers?: ReadonlyMap<string, Offer>; readonly currency?: string } = {},
): ShoppingList {
  // Within the list the pieces share: what one of them has set aside is there for all of them.
  const ids = new Set(entries.map((e) => e.id))
  const shared: Box = {
    ...box,
    holdings: box.holdings.map((h) => (ids.has(h.pieceId) ? { ...h, pieceId: 'list' } : h)),
  }
  const lines = new Map<
    string,
    { bead: TrayBead; piece: Piece; count: number; wantedBy: { id: string; name: string; count: number }[] }
  >()
  for (const { id, piece } of entries) {
    const counts = tallyPiece(piece)
    const times = timesMade(piece)
    for (const bead of piece.tray) {
      const count = (counts.get(bead.number) ?? 0) * times
      if (count === 0) continue
      const line = lines.get(lookOf(bead)) ?? { bead, piece, count: 0, wantedBy: [] }
      const mine = line.wantedBy.find((w) => w.id === id)
      lines.set(lookOf(bead), {
        ...line,
        count: line.count + count,
        wantedBy: mine
          ? line.wantedBy.map((w) => (w === mine ? { ...w, count: w.count + count } : w))
          : [...line.wantedBy, { id, name: piece.name, count }],
      })
    }
  }
  const beads = [...lines.values()]
    .map((line): ShopBead => ({
      ...beadToBuy(line.piece, line.bead, line.count, { box: shared, pieceId: 'list', offers, currency }),
      wantedBy: line.wantedBy,
    }))
    .sort(
      (a, b) =>
        requireSpec(a.bead.spec).name.localeCompare(requireSpec(b.bead.spec).name) ||
        a.bead.name.localeCompare(b.bead.name),
    )
  const buys = beads.filter((b) => b.buyGrams > 0)
  return {
    beads,
    others: othersOf(entries, shared),
    currency: currency ?? entries[0]?.piece.cost.currency ?? 'EUR',
    price: buys.reduce((sum, b) => sum + (b.price ?? 0), 0),
    unknown: buys.filter((b) => b.price === null).length,
  }
}

function othersOf(entries: readonly ToShop[], box: Box): ShopOther[] {
  const out = new Map<
    string,
    { name: string; unit: ShopOther['unit']; wanted: number; have: number; wantedBy: string[] }
  >()
  const want = (id: string, name: string, unit: ShopOther['unit'], amount: number, have: () => number, by: string) => {
    const there = out.get(id)
    out.set(id, {
      name,
      unit,
      wanted: (there?.wanted ?? 0) + amount,
      have: there?.have ?? have(),
      wantedBy: [...new Set([...(there?.wantedBy ?? []), by])],
    })
  }
  const free = (item: ReturnType<typeof spoolOf> | ReturnType<typeof findingIn>) =>
    item ? Math.min(amountOf(item.value), freeFor(box, item, 'list')) + takenBy(box, item, 'list') : 0
  for (const { piece } of entries) {
    const made = timesMade(piece)
    for (const { material, totalMm } of lengthsOf(piece, made)) {
      if (material === 'thread')
        want(
          `thread/${piece.supply.thread}`,
          requireThread(piece.supply.thread).name,
          'mm',
          totalMm,
          () => free(spoolOf(box, piece.supply.thread, 'list')),
          piece.name,
        )
    }
    for (const cut of cutList(piece).filter((c) => c.material !== 'thread')) {
      const name =
        cut.shopName ??
        { elastic: 'Elastic', chain: 'Extender chain', wire: 'Wire', cord: 'Cord', thread: 'Thread' }[cut.material]
      want(`${cut.material}/${name.toLowerCase()}`, name, 'mm', cut.totalMm * made, () => 0, piece.name)
    }
    // Caps take the bound braid, two to a rope; where the piece names them among its findings, these are meant.
    const named = piece.cost.findings.some((f) => f.name.toLowerCase().startsWith('end caps'))
    for (const end of named ? [] : piece.parts.flatMap((part) => boundEnd(part, piece.tray) ?? [])) {
      want(`cap/${end.capMm}`, `End caps, ${end.capMm} mm inside`, 'count', 2 * made, () => 0, piece.name)
    }
    for (const link of linksNeeded(piece).filter((l) => l.kind === 'ring'))
      want(`ring/${link.mm}`, link.name, 'count', link.count * made, () => 0, piece.name)
    for (const need of needsFor(piece))
      want(`need/${need.name.toLowerCase()}`, need.name, 'count', need.count * made, () => 0, piece.name)
    const { closure } = piece.fit
    const bent = closure.kind === 'ear-wire' && piece.supply.earWireGauge > 0
    if (closure.kind !== 'none' && closure.kind !== 'elastic' && !bent) {
      const name = closureName(closure)
      // A closure opens in so many places: each button or ring is one more; ear findings come by the piece.
      want(
        `closure/${closure.kind}/${name}`,
        name,
        'count',
        made * Math.max(1, closure.openings),
        () => free(closureIn(box, piece, 'list')),
        piece.name,
      )
    }
    for (const f of piece.cost.findings)
      want(
        `finding/${f.name.toLowerCase()}`,
        f.name,
        'count',
        f.count * piece.supply.batch,
        () => free(findingIn(box, f.name, 'list')),
        piece.name,
      )
  }
  return [...out].map(([id, { have, ...o }]) => ({
    id,
    ...o,
    fromBox: Math.min(o.wanted, have),
    buy: Math.max(0, o.wanted - have),
  }))
}
