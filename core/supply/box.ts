import type { TrayBead } from '../bead/bead'
import { closureName } from '../wear/closure'
import type { Piece } from '../piece/piece'
import { sameLook } from '../piece/tray'
import { amountOf, type ShelfBead, type ShelfFinding, type ShelfThread, type Stock } from '../shelf/shelf'

/**
 * What a piece holds of a thing in the box: set aside for it, or taken out already. Amounts in the unit of the thing:
 * g, mm, count.
 */
export interface Holding {
  readonly pieceId: string
  readonly shelfId: string
  readonly kind: 'reserved' | 'taken'
  readonly amount: number
}

export interface BoxItem<V extends Stock = Stock> {
  readonly id: string
  readonly value: V
}

/** The beads, threads and findings that one owns, and which pieces hold what of them. */
export interface Box {
  readonly items: readonly BoxItem[]
  readonly holdings: readonly Holding[]
}

export const EMPTY_BOX: Box = { items: [], holdings: [] }

/** Which piece asks; a piece that is not saved yet has no name and holds nothing. */
export type PieceId = string | undefined

const sum = (box: Box, pick: (h: Holding) => boolean): number =>
  box.holdings.reduce((total, h) => total + (pick(h) ? h.amount : 0), 0)

/** What lies there and is set aside for no other piece; never below 0. */
export function freeFor(box: Box, item: BoxItem, pieceId: PieceId): number {
  return Math.max(
    0,
    amountOf(item.value) - sum(box, (h) => h.shelfId === item.id && h.kind === 'reserved' && h.pieceId !== pieceId),
  )
}

export const takenBy = (box: Box, item: BoxItem, pieceId: PieceId): number =>
  sum(box, (h) => h.shelfId === item.id && h.kind === 'taken' && h.pieceId === pieceId)

/** What a piece asks the box of a thing that it wants so much of: what is free for it and not taken yet. */
export function askOf(
  box: Box,
  item: BoxItem | undefined,
  pieceId: PieceId,
  wanted: number,
): { shelfId: string; amount: number }[] {
  if (!item) return []
  const amount = Math.min(freeFor(box, item, pieceId), wanted - takenBy(box, item, pieceId))
  return amount > 0 ? [{ shelfId: item.id, amount }] : []
}

export const reservedBy = (box: Box, item: BoxItem, pieceId: PieceId): number =>
  sum(box, (h) => h.shelfId === item.id && h.kind === 'reserved' && h.pieceId === pieceId)

const isBead = (item: BoxItem): item is BoxItem<ShelfBead> => item.value.kind === 'bead'
const isThread = (item: BoxItem): item is BoxItem<ShelfThread> => item.value.kind === 'thread'
const isFinding = (item: BoxItem): item is BoxItem<ShelfFinding> => item.value.kind === 'finding'

/** Of things that all serve, the one that this piece holds already, or the fullest. */
function fullest<V extends Stock>(box: Box, items: readonly BoxItem<V>[], pieceId: PieceId): BoxItem<V> | undefined {
  const held = (i: BoxItem) => (takenBy(box, i, pieceId) + reservedBy(box, i, pieceId) > 0 ? 1 : 0)
  return [...items].sort((a, b) => held(b) - held(a) || freeFor(box, b, pieceId) - freeFor(box, a, pieceId))[0]
}

/** The tube in the box that a bead of a tray is: same size, colour and finish. */
export function tubeOf(
  box: Box,
  bead: Pick<TrayBead, 'name' | 'spec' | 'colour' | 'finish'>,
  pieceId?: PieceId,
): BoxItem<ShelfBead> | undefined {
  return fullest(
    box,
    box.items.filter(isBead).filter((i) => sameLook(i.value, bead)),
    pieceId,
  )
}

export const spoolOf = (box: Box, thread: string, pieceId?: PieceId): BoxItem<ShelfThread> | undefined =>
  fullest(
    box,
    box.items.filter(isThread).filter((i) => i.value.thread === thread),
    pieceId,
  )

/** The finding in the box that closes a piece: of its kind, and of its name where the piece names one. */
export function closureIn(box: Box, piece: Pick<Piece, 'fit'>, pieceId?: PieceId): BoxItem<ShelfFinding> | undefined {
  const { closure } = piece.fit
  const same = box.items.filter(isFinding).filter((i) => i.value.closure?.kind === closure.kind)
  return fullest(box, closure.name ? same.filter((i) => i.value.name === closureName(closure)) : same, pieceId)
}

export const findingIn = (box: Box, name: string, pieceId?: PieceId): BoxItem<ShelfFinding> | undefined =>
  fullest(
    box,
    box.items.filter(isFinding).filter((i) => i.value.name.toLowerCase() === name.toLowerCase()),
    pieceId,
  )

interface Contest {
  readonly item: BoxItem
  /** Pieces that have set it aside. */
  readonly pieceIds: readonly string[]
  /** What they want together, and what is there. */
  readonly wanted: number
  readonly there: number
}

/** Things of the box that pieces have set more aside of than is there. */
export function contests(box: Box): Contest[] {
  return box.items.flatMap((item) => {
    const wants = box.holdings.filter((h) => h.shelfId === item.id && h.kind === 'reserved')
    const wanted = wants.reduce((total, h) => total + h.amount, 0)
    const there = amountOf(item.value)
    return wants.length > 0 && wanted > there + 1e-6
      ? [{ item, pieceIds: [...new Set(wants.map((h) => h.pieceId))], wanted, there }]
      : []
  })
}
