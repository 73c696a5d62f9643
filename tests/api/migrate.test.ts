import { gzipSync } from 'node:zlib'
import { expect, inject, it } from 'vitest'
import { pieceToBody } from '#core/piece/codec'
import { connect } from '../../server/database/connection'
import { migrate } from '../../server/database/migrate'
import * as first from '../../server/database/migration/0001-first'
import * as shelf from '../../server/database/migration/0002-shelf'
import { listPieces, openPiece } from '../../server/service/piece'
import type { PieceBody } from '#core/piece/schema'
import { prepareDatabase } from '../../launcher/start'
import { piece } from '../fixture/piece'

/** A database as the Weben before this one left it: bracelets only, their measure called wristMm. */
it('an older database is brought up to date with everything in it', async () => {
  const url = new URL(inject('databaseUrl'))
  const admin = connect(url.href)
  const name = `older_${process.pid}`
  await admin.raw(`create database ${name}`)
  url.pathname = `/${name}`
  const db = connect(url.href)
  try {
    await first.up(db)
    await shelf.up(db)
    await db.raw(
      'create table knex_migrations (id serial primary key, name varchar(255), batch integer, migration_time ' +
        'timestamptz)',
    )
    await db('knex_migrations').insert([
      { name: '0001-first', batch: 1 },
      { name: '0002-shelf', batch: 1 },
    ])
    const [account] = await db('account')
      .insert({ sign_in: 'before', password: 'x' })
      .returning<{ id: string }[]>('id')
    const { gauges: _g, cost: _c, ...body } = pieceToBody(piece())
    const { kind, wearer, bodyMm, easeMm, widthMm } = body.fit
    const old = {
      ...body,
      fit: { kind, wearer, wristMm: bodyMm, easeMm, widthMm, closure: { kind: 'toggle', lengthMm: 14 } },
    }
    const [row] = await db('piece')
      .insert({
        account_id: account!.id,
        name: 'Old band',
        revision: 2,
        summary: JSON.stringify({
          technique: 'peyote',
          spec: 'cylinder-11',
          columns: 4,
          rows: 16,
          beads: 32,
          lengthMm: 13.6,
          closesAtMm: 22.5,
          wristMm: 170,
          feel: 'will not close',
        }),
      })
      .returning<{ id: string }[]>('id')
    await db('snapshot').insert({ piece_id: row!.id, revision: 0, body: gzipSync(JSON.stringify(old)) })
    const step = (before: number, after: number) => [
      { type: 'set', path: ['name'], before: 'Test band', after: 'Test band' },
      { type: 'set', path: ['fit', 'wristMm'], before, after },
    ]
    await db('revision').insert(
      [
        [1, 170, 175],
        [2, 175, 181],
      ].map(([number, before, after]) => ({
        piece_id: row!.id,
        number,
        transaction_id: `before-${number}`,
        label: 'Fit',
        steps: JSON.stringify(step(before!, after!)),
      })),
    )
    await db('shelf').insert({
      account_id: account!.id,
      value: JSON.stringify({ kind: 'bead', name: 'Moss', spec: 'round-11', colour: '#446622', finish: 'matte' }),
    })

    expect(await migrate(db)).toEqual([
      '0003-fit',
      '0004-box',
      '0005-place',
      '0006-picture',
      '0007-session',
      '0008-storage',
      '0009-summary',
      '0010-making',
    ])
    expect((await listPieces(db, account!.id))[0]!.summary).toMatchObject({
      kind: 'bracelet',
      finishedMm: 22.5,
      bodyMm: 170,
    })
    const { rows } = await db.raw<{ rows: { steps: { path: string[] }[] }[] }>(
      'select steps from revision order by number',
    )
    expect(rows.map((r) => r.steps.map((s) => s.path.join('/')))).toEqual([
      ['name', 'fit/bodyMm'],
      ['name', 'fit/bodyMm'],
    ])
    const bodyAt = async (at?: number) => {
      const opened = JSON.parse(await openPiece(db, account!.id, row!.id, at)) as { piece: PieceBody }
      return opened.piece.fit.bodyMm
    }
    expect(await bodyAt()).toBe(181)
    expect(await bodyAt(1)).toBe(175)
  } finally {
    await db.destroy()
    await admin.raw(`drop database ${name}`)
    await admin.destroy()
  }
})

it('three starts at once on an empty database lay out one demo, ten times out of ten', async () => {
  const url = new URL(inject('databaseUrl'))
  const admin = connect(url.href)
  try {
    for (let round = 0; round < 10; round++) {
      const name = `at_once_${process.pid}_${round}`
      await admin.raw(`create database ${name}`)
      url.pathname = `/${name}`
      await Promise.all([1, 2, 3].map(() => prepareDatabase(url.href, true)))
      const db = connect(url.href)
      expect(await db('account').count('id')).toEqual([{ count: '1' }])
      expect(await db('knex_migrations').count('id')).toEqual([{ count: '10' }])
      await db.destroy()
      await admin.raw(`drop database ${name}`)
    }
  } finally {
    await admin.destroy()
  }
})
