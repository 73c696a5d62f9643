import { isDeepStrictEqual } from 'node:util'
import { shelfValueSchema, type ShelfItem, type ShelfValue } from '../../core/shelf/shelf'
import type { Database } from '../database/connection'
import { Failure } from './failure'

const MOST = 1000

interface StoredItem {
  id: string
  value: unknown
}

/** What was kept by an older Weben gets the usual values of what came since. */
const toItem = ({ id, value }: StoredItem): ShelfItem => ({ id, value: shelfValueSchema.parse(value) })

export const notOnShelf = (): Failure => new Failure(404, 'not-found', 'There is nothing of that name on your shelf.')

export async function listShelf(db: Database, accountId: string): Promise<ShelfItem[]> {
  const rows = await db('shelf').where({ account_id: accountId }).orderBy('place').select<StoredItem[]>('id', 'value')
  return rows.map(toItem)
}

/** Puts something on the shelf; a full shelf is refused with words. */
export async function keep(db: Database, accountId: string, values: readonly ShelfValue[]): Promise<ShelfItem[]> {
  return db.transaction(async (trx) => {
    // The account's row stands for its shelf: two requests at once cannot both fill the last place.
    await trx('account').where({ id: accountId }).forUpdate().first('id')
    const [there] = await trx('shelf').where({ account_id: accountId }).count<{ count: string }[]>('id as count')
    if (Number(there!.count) + values.length > MOST)
      throw new Failure(409, 'shelf-full', `Box and stamps hold ${MOST} things together. Take some out first.`)
    return (
      await trx('shelf')
        .insert(values.map((value) => ({ account_id: accountId, value: JSON.stringify(value) })))
        .returning<StoredItem[]>(['id', 'value'])
    ).map(toItem)
  })
}

/**
 * Puts another value in the place of one. `before` is what the change stands on: if it was changed elsewhere
 * meanwhile, the answer is 409 with what lies there now, and nothing is written over.
 */
export async function change(
  db: Database,
  accountId: string,
  id: string,
  before: ShelfValue,
  value: ShelfValue,
): Promise<ShelfItem> {
  return await db.transaction(async (trx) => {
    const row = await trx('shelf').where({ id, account_id: accountId }).forUpdate().first<StoredItem>('id', 'value')
    if (!row) throw notOnShelf()
    const now = toItem(row)
    if (now.value.kind !== value.kind)
      throw new Failure(
        422,
        'kind-differs',
        'A thing in the box cannot become a thing of another kind. Take it out and put in the other.',
      )
    if (!isDeepStrictEqual(now.value, before))
      throw new Failure(409, 'stale', 'This was changed elsewhere since. Look at it again, then repeat your change.', {
        data: now,
      })
    await trx('shelf')
      .where({ id })
      .update({ value: JSON.stringify(value) })
    return { id, value }
  })
}

/** Takes something off; another's is indistinguishable from none. */
export async function takeOff(db: Database, accountId: string, id: string): Promise<void> {
  if ((await db('shelf').where({ id, account_id: accountId }).delete()) === 0) throw notOnShelf()
}
