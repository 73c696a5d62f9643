import { amountOf, isStock, shelfValueSchema, withAmount, type Stock } from '../../core/shelf/shelf'
import type { Holding } from '../../core/supply/box'
import type { Database } from '../database/connection'
import { Failure, notFound } from './failure'
import { notOnShelf } from './shelf'

/** What a piece asks of the box: so much of a thing that lies there, in the unit of its kind. */
export interface Ask {
  readonly shelfId: string
  readonly amount: number
}

type HoldingChange = 'reserve' | 'release' | 'take' | 'back'

interface HoldingRow {
  piece_id: string
  shelf_id: string
  kind: Holding['kind']
  amount: number
}

const toHolding = (row: HoldingRow): Holding => ({
  pieceId: row.piece_id,
  shelfId: row.shelf_id,
  kind: row.kind,
  amount: row.amount,
})

/**
 * All that pieces of an account hold. What a piece that was put away had set aside is free again; what it took is not.
 */
export async function listHoldings(db: Database, accountId: string): Promise<Holding[]> {
  const rows = await db('holding')
    .join('piece', 'piece.id', 'holding.piece_id')
    .where('piece.account_id', accountId)
    .andWhere((q) => q.whereNull('piece.removed_at').orWhere('holding.kind', 'taken'))
    .select<HoldingRow[]>('holding.piece_id', 'holding.shelf_id', 'holding.kind', 'holding.amount')
  return rows.map(toHolding)
}

/**
 * Sets beads aside for a piece, frees them, takes them out of the box, or puts them back: all of it or none. Taking
 * more than lies there is refused with words. The rows of the box are locked in one order, so two pieces cannot take
 * the same beads.
 */
export async function changeHoldings(
  db: Database,
  accountId: string,
  pieceId: string,
  what: HoldingChange,
  asks: readonly Ask[],
): Promise<void> {
  await db.transaction(async (trx) => {
    const piece = await trx('piece').where({ id: pieceId, account_id: accountId }).whereNull('removed_at').first('id')
    if (!piece) throw notFound()
    const held = (
      await trx('holding')
        .where({ piece_id: pieceId })
        .forUpdate()
        .select<HoldingRow[]>('piece_id', 'shelf_id', 'kind', 'amount')
    ).map(toHolding)
    const ids = [
      ...new Set([
        ...asks.map((a) => a.shelfId),
        ...(what === 'back' ? held.filter((h) => h.kind === 'taken').map((h) => h.shelfId) : []),
      ]),
    ].sort()
    const rows = await trx('shelf')
      .where({ account_id: accountId })
      .whereIn('id', ids)
      .orderBy('id')
      .forUpdate()
      .select<{ id: string; value: unknown }[]>('id', 'value')
    const box = new Map(rows.map((r) => [r.id, shelfValueSchema.parse(r.value)]))
    const stock = (id: string): Stock => {
      const value = box.get(id)
      if (!value || !isStock(value)) throw notOnShelf()
      return value
    }
    const store = async (id: string, amount: number) => {
      const value = withAmount(stock(id), Math.max(0, Math.round(amount * 1000) / 1000))
      box.set(id, value)
      await trx('shelf')
        .where({ id })
        .update({ value: JSON.stringify(value) })
    }
    const hold = async (shelfId: string, kind: Holding['kind'], amount: number) => {
      await trx('holding')
        .insert({ piece_id: pieceId, shelf_id: shelfId, kind, amount })
        .onConflict(['piece_id', 'shelf_id', 'kind'])
        .merge(['amount', 'made_at'])
    }
    if (what === 'reserve' || what === 'take')
      await trx('holding').where({ piece_id: pieceId, kind: 'reserved' }).delete()
    switch (what) {
      case 'reserve':
        for (const { shelfId, amount } of asks) {
          stock(shelfId)
          await hold(shelfId, 'reserved', amount)
        }
        break
      case 'release':
        await trx('holding').where({ piece_id: pieceId, kind: 'reserved' }).delete()
        break
      case 'take':
        for (const { shelfId, amount } of asks) {
          const value = stock(shelfId)
          if (amountOf(value) < amount - 1e-6)
            throw new Failure(
              409,
              'box-short',
              `The box no longer holds enough ${value.name}. Look at the supplies again, or weigh it.`,
            )
          const before = held.find((h) => h.shelfId === shelfId && h.kind === 'taken')?.amount ?? 0
          await store(shelfId, amountOf(value) - amount)
          await hold(shelfId, 'taken', before + amount)
        }
        break
      case 'back':
        for (const { shelfId, kind, amount } of held)
          if (kind === 'taken') await store(shelfId, amountOf(stock(shelfId)) + amount)
        await trx('holding').where({ piece_id: pieceId, kind: 'taken' }).delete()
        break
    }
  })
}

/** What settling the box moved of one thing: what had been taken for the piece before, and what went out besides. */
interface Move {
  readonly shelfId: string
  readonly taken: number
  readonly more: number
}

/** Things of the box by id, locked in one order. */
async function lockStock(trx: Database, accountId: string, ids: readonly string[]): Promise<Map<string, Stock>> {
  const rows = await trx('shelf')
    .where({ account_id: accountId })
    .whereIn('id', [...ids].sort())
    .orderBy('id')
    .forUpdate()
    .select<{ id: string; value: unknown }[]>('id', 'value')
  return new Map(
    rows.flatMap((row) => {
      const value = shelfValueSchema.parse(row.value)
      return isStock(value) ? [[row.id, value] as const] : []
    }),
  )
}

const storeStock = (trx: Database, id: string, value: Stock, amount: number) =>
  trx('shelf')
    .where({ id })
    .update({ value: JSON.stringify(withAmount(value, Math.max(0, Math.round(amount * 1000) / 1000))) })

/**
 * What a piece really used goes out of the box: as much more, or less, as was taken for it already, no more than lies
 * there; then the piece holds nothing any more. Answers what was moved, so that it can be undone.
 */
export async function useUp(trx: Database, accountId: string, piece: string, uses: readonly Ask[]): Promise<Move[]> {
  const held = (await trx('holding').where({ piece_id: piece, kind: 'taken' }).forUpdate().select('*')) as HoldingRow[]
  const wanted = new Map<string, number>()
  for (const { shelfId, amount } of uses) wanted.set(shelfId, (wanted.get(shelfId) ?? 0) + amount)
  const ids = [...new Set([...wanted.keys(), ...held.map((h) => h.shelf_id)])]
  const stock = await lockStock(trx, accountId, ids)
  for (const id of wanted.keys()) if (!stock.has(id)) throw notOnShelf()
  const moves: Move[] = []
  for (const [id, value] of stock) {
    const taken = held.find((h) => h.shelf_id === id)?.amount ?? 0
    const more = Math.min(amountOf(value), (wanted.get(id) ?? 0) - taken)
    await storeStock(trx, id, value, amountOf(value) - more)
    moves.push({ shelfId: id, taken, more: Math.round(more * 1000) / 1000 })
  }
  await trx('holding').where({ piece_id: piece }).delete()
  return moves
}

/** Undoes `useUp`; what is not in the box any more is passed over. */
export async function putBackUsed(
  trx: Database,
  accountId: string,
  piece: string,
  moves: readonly Move[],
): Promise<void> {
  const stock = await lockStock(
    trx,
    accountId,
    moves.map((m) => m.shelfId),
  )
  for (const { shelfId, taken, more } of moves) {
    const value = stock.get(shelfId)
    if (!value) continue
    await storeStock(trx, shelfId, value, amountOf(value) + more)
    if (taken > 0)
      await trx('holding')
        .insert({ piece_id: piece, shelf_id: shelfId, kind: 'taken', amount: taken })
        .onConflict(['piece_id', 'shelf_id', 'kind'])
        .merge(['amount', 'made_at'])
  }
}
