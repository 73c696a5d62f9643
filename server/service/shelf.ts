import type { ShelfItem, ShelfValue } from '../../core/shelf/shelf'
import type { Database } from '../database/connection'
import { isBadUuid } from '../database/errors'
import { Failure } from './failure'

const MOST = 1000

export async function listShelf(db: Database, accountId: string): Promise<ShelfItem[]> {
  return db('shelf').where({ account_id: accountId }).orderBy('place').select<ShelfItem[]>('id', 'value')
}

/** Puts something on the shelf; a full shelf is refused with words. */
export async function keep(db: Database, accountId: string, values: readonly ShelfValue[]): Promise<ShelfItem[]> {
  return db.transaction(async (trx) => {
    // The account's row stands for its shelf: two requests at once cannot both fill the last place.
    await trx('account').where({ id: accountId }).forUpdate().first('id')
    const [there] = await trx('shelf').where({ account_id: accountId }).count<{ count: string }[]>('id as count')
    if (Number(there!.count) + values.length > MOST) throw new Failure(409, 'shelf-full', `Box and stamps hold ${MOST} things together. Take some out first.`)
    return trx('shelf').insert(values.map(value => ({ account_id: accountId, value: JSON.stringify(value) }))).returning<ShelfItem[]>(['id', 'value'])
  })
}

/** Takes something off; another's is indistinguishable from none. */
export async function takeOff(db: Database, accountId: string, id: string): Promise<void> {
  const none = new Failure(404, 'not-found', 'There is nothing of that name on your shelf.')
  try {
    if (await db('shelf').where({ id, account_id: accountId }).delete() === 0) throw none
  }
  catch (error) {
    throw isBadUuid(error) ? none : error
  }
}
