import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { readPieceFile } from '#core/format/piece-file'
import { pieceFromBody, pieceToBody } from '#core/piece/codec'
import { setStep } from '#core/piece/edit'
import { applySteps, type Step } from '#core/piece/step'
import { upgradeStep } from '#core/piece/upgrade'
import { valueOf } from '#core/problem'
import { connect, type Database } from '../../server/database/connection'
import { piece } from '../fixture/piece'
import { person } from './client'

/** Pieces as older versions stored them: a snapshot in their form, and the steps made since, as they were. */
interface Older {
  readonly start: { readonly version: number; readonly piece: object }
  readonly transactions: readonly (readonly object[])[]
  readonly end: object
}

const readOlder = (version: number): Older =>
  JSON.parse(readFileSync(new URL(`../fixture/version-${version}.json`, import.meta.url), 'utf8')) as Older

let db: Database
beforeAll(() => {
  db = connect(inject('databaseUrl'))
})
afterAll(() => db.destroy())

describe.each([1, 2])('a piece that version %i stored', (version) => {
  it('opens as what it had become, at any revision, and goes on', async () => {
    const { start, transactions, end } = readOlder(version)
    const who = await person(inject('address'))
    const stored = await who.call<{ id: string }>('POST', 'piece', pieceToBody(piece()))
    expect(stored).toMatchObject({ status: 200 })
    const { id } = stored.body
    await db('snapshot')
      .where({ piece_id: id, revision: 0 })
      .update({ body: gzipSync(JSON.stringify(start.piece)) })
    await db('revision').insert(
      transactions.map((steps, k) => ({
        piece_id: id,
        number: k + 1,
        transaction_id: `older-${version}-${k + 1}`,
        label: 'An edit of then',
        steps: JSON.stringify(steps),
      })),
    )
    await db('piece').where({ id }).update({ revision: transactions.length })
    const opened = (await who.call<{ revision: number; head: string; piece: unknown }>('GET', `piece/${id}`)).body
    expect([opened.revision, opened.head]).toEqual([transactions.length, `older-${version}-${transactions.length}`])
    const became = valueOf(readPieceFile(JSON.stringify(end)))
    expect(opened.piece).toEqual(JSON.parse(JSON.stringify(pieceToBody(became))))

    const then = (await who.call<{ piece: unknown }>('GET', `piece/${id}/revision/1`)).body
    const begun = valueOf(readPieceFile(JSON.stringify(start)))
    const first = valueOf(applySteps(begun, (transactions[0] as Step[]).map(upgradeStep)))
    expect(valueOf(pieceFromBody(then.piece))).toEqual(first)

    const made = await who.call('POST', `piece/${id}/step`, {
      base: transactions.length,
      transactions: [{ id: `of-today-${version}`, label: 'Renamed', steps: [setStep(became, ['name'], 'Of today')] }],
    })
    expect(made.body).toMatchObject({ revision: transactions.length + 1 })
    const now = (await who.call<{ piece: { name: string } }>('GET', `piece/${id}`)).body
    expect(now.piece.name).toBe('Of today')
  })
})
