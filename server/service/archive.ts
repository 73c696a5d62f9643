import {
  archiveHead,
  archiveLine,
  ARCHIVE_VERSION,
  type ArchiveHead,
  type ArchiveLine,
} from '../../core/contract/archive'
import { parseJson } from '../../core/units/text'
import type { Database } from '../database/connection'
import { done } from '../heavy/pool'
import { changeSettings, type Account } from './account'
import { Failure, notFound, sound } from './failure'
import { BENCH_LIMITS, makingSchema } from '../../core/making/event'
import { keepMaking, makingsToKeep } from './making'
import { insertPiece, requireOwn } from './piece'
import { pieceAt, writePieceFile } from './piece-store'
import { keep, listShelf } from './shelf'
import { requireRoom } from './storage'

/** An archive (core/contract/archive.ts) of all an account owns, line by line; one piece is in hand at a time. */
export async function* archiveOf(db: Database, { id: accountId, settings }: Account): AsyncGenerator<string> {
  const line = (value: ArchiveHead | ArchiveLine) => `${JSON.stringify(value)}\n`
  yield line({ format: 'weben-archive', version: ARCHIVE_VERSION, madeAt: new Date().toISOString() })
  yield line({ is: 'settings', settings })
  const shelf = await listShelf(db, accountId)
  for (const { id, value } of shelf) yield line({ is: 'shelf', id, value })
  const pieces = await db('piece')
    .where({ account_id: accountId })
    .orderBy('updated_at')
    .select<{ id: string }[]>('id')
  let count = 0
  for (const { id } of pieces) {
    const known = await whatIsKnown(db, accountId, id)
    // Removed for good meanwhile.
    if (!known) continue
    const found = await pieceAt(db, { accountId, id }, await requireOwn(db, accountId, id, { away: true }))
    if (!found) throw notFound()
    yield line(known)
    yield `${await writePieceFile(found.piece)}\n`
    for await (const making of makingsToKeep(db, id)) yield line({ is: 'making', ...making })
    count++
  }
  yield line({ is: 'end', pieces: count, shelf: shelf.length })
}

async function whatIsKnown(db: Database, accountId: string, id: string): Promise<ArchiveLine | null> {
  const row = await db('piece')
    .where({ id, account_id: accountId })
    .first<{ removed_at: Date | null; updated_at: Date } | undefined>('removed_at', 'updated_at')
  if (!row) return null
  const holdings = await db('holding')
    .where({ piece_id: id })
    .select<{ shelf: string; kind: 'reserved' | 'taken'; amount: number }[]>('shelf_id as shelf', 'kind', 'amount')
  return {
    is: 'piece',
    away: row.removed_at !== null,
    updatedAt: row.updated_at.toISOString(),
    places: {},
    holdings,
  }
}

const unreadable = (says: string): Failure => new Failure(422, 'archive-unsound', `${says} Nothing was read.`)
/** More pieces, or things in the box, are in no archive that is read. */
const MOST_LISTED = 5000
const CUT_OFF = 'This archive was cut off: its last line is missing. Save it again from where it was made.'

/**
 * Reads an archive into an account that holds nothing yet: all of it or nothing. Everything is checked as if a
 * person had put it in, and gets ids of its own.
 */
export async function readArchive(
  db: Database,
  accountId: string,
  lines: AsyncIterable<Uint8Array>,
): Promise<{ pieces: number; shelf: number }> {
  return db.transaction(async (trx) => {
    // Two readings at once cannot both find it empty.
    await trx('account').where({ id: accountId }).forNoKeyUpdate().first('id')
    for (const table of ['piece', 'shelf'])
      if (await trx(table).where({ account_id: accountId }).first('id'))
        throw new Failure(
          409,
          'account-not-empty',
          'An archive is read into an account that is still empty, so that nothing is mixed. Make another account, ' +
            'and read it there.',
        )
    const reader = lines[Symbol.asyncIterator]()
    const next = async (): Promise<Uint8Array> => {
      const { value, done: ended } = (await reader.next()) as IteratorResult<Uint8Array, undefined>
      if (ended || !value) throw unreadable(CUT_OFF)
      return value
    }
    readHead(await next())
    const shelf: Extract<ArchiveLine, { is: 'shelf' }>[] = []
    const shelfIds = new Map<string, string>()
    const keepShelf = async () => {
      const lines = shelf.splice(0)
      if (lines.length === 0) return
      const kept = await keep(
        trx,
        accountId,
        lines.map((line) => line.value),
      )
      for (const [k, line] of lines.entries()) shelfIds.set(line.id, kept[k]!.id)
    }
    let pieces = 0
    let lastPiece: string | null = null
    let makings = 0
    for (let at = 2; ; at++) {
      const line = readLine(await next(), at)
      if (line.is === 'shelf') {
        shelf.push(line)
        if (shelf.length > MOST_LISTED) throw unreadable('This archive holds more than a box can.')
        continue
      }
      await keepShelf()
      if (line.is === 'settings') await changeSettings(trx, accountId, line.settings)
      if (line.is === 'piece') {
        if (++pieces > MOST_LISTED) throw unreadable(`This archive holds more than ${MOST_LISTED} pieces.`)
        lastPiece = await takePiece(trx, accountId, line, await next(), shelfIds)
        makings = 0
      }
      if (line.is === 'making') {
        if (!lastPiece || ++makings > BENCH_LIMITS.makings)
          throw unreadable('This archive holds makings that belong to no piece, or too many of one.')
        await requireRoom(trx, accountId, JSON.stringify(line.events).length)
        await keepMaking(trx, lastPiece, `archive-${makings}`, line)
      }
      if (line.is === 'end') {
        if (line.pieces !== pieces || line.shelf !== shelfIds.size) throw unreadable(CUT_OFF)
        return { pieces, shelf: shelfIds.size }
      }
    }
  })
}

function readHead(bytes: Uint8Array): void {
  const read = parseJson(textOf(bytes))
  const head = read.ok ? archiveHead.safeParse(read.value) : null
  if (!head?.success)
    throw unreadable('This is not an archive of Weben, or one that a newer Weben wrote. Choose the file itself.')
}

function readLine(bytes: Uint8Array, at: number): ArchiveLine {
  const read = parseJson(textOf(bytes))
  const line = read.ok ? archiveLine.safeParse(read.value) : null
  if (!line?.success) throw unreadable(`Entry ${at} of this archive cannot be understood.`)
  return line.data
}

const textOf = (bytes: Uint8Array): string => new TextDecoder().decode(bytes)

async function takePiece(
  db: Database,
  accountId: string,
  { away, updatedAt, places, holdings }: Extract<ArchiveLine, { is: 'piece' }>,
  file: Uint8Array,
  shelfIds: ReadonlyMap<string, string>,
): Promise<string> {
  const begun = sound(await done('begunFromFile', file, { little: false }))
  await requireRoom(db, accountId, begun.snapshot.length)
  const id = await insertPiece(db, accountId, begun, { updatedAt, away })
  const events = Object.entries(places)
    .filter(([, moves]) => moves > 0)
    .map(([part, moves], k) => ({
      id: `carried-${k}`,
      at: Date.parse(updatedAt),
      event: { do: 'moved' as const, part, moves },
    }))
  if (events.length > 0)
    await keepMaking(db, id, 'carried', { head: makingSchema.parse({}), begunAt: Date.parse(updatedAt), events })
  const held = holdings.map(({ shelf, kind, amount }) => {
    const shelfId = shelfIds.get(shelf)
    if (!shelfId) throw unreadable('A piece of this archive holds something of the box that is not in it.')
    return { piece_id: id, shelf_id: shelfId, kind, amount }
  })
  if (held.length > 0) await db('holding').insert(held).onConflict().ignore()
  return id
}
