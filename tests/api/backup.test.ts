import { spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, beforeAll, expect, inject, it, vi } from 'vitest'
import { DEMO_PIECES } from '../../demo/pieces'
import { prepareDatabase } from '../../launcher/start'
import { connect, type Database } from '../../server/database/connection'

vi.setConfig({ testTimeout: 120_000, hookTimeout: 60_000 })
const root = resolve(import.meta.dirname, '../..')
const folder = mkdtempSync(join(tmpdir(), 'weben-backup-'))
const url = new URL(inject('databaseUrl'))
const admin = connect(url.href)
const name = `backup_${process.pid}`
let db: Database
beforeAll(async () => {
  await admin.raw(`create database ${name}`)
  url.pathname = `/${name}`
  await prepareDatabase(url.href, true)
  db = connect(url.href)
})
afterAll(async () => {
  await db.destroy()
  await admin.raw(`drop database ${name} with (force)`)
  await admin.destroy()
  rmSync(folder, { recursive: true })
})

const weben = (...args: string[]) => {
  const env = {
    ...process.env,
    WEBEN_DATABASE_URL: url.href,
    WEBEN_STATE: join(folder, 'state'),
    WEBEN_CALLER: folder,
  }
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['--import', 'tsx', join(root, 'launcher/main.ts'), ...args],
    { cwd: root, encoding: 'utf8', env },
  )
  return { status, said: stdout + stderr }
}

/** Every row of every table, to the byte. */
async function content(): Promise<Record<string, string>> {
  const { rows } = await db.raw<{ rows: { name: string }[] }>(
    "select table_name as name from information_schema.tables where table_schema = 'public' order by 1",
  )
  const out: Record<string, string> = {}
  for (const table of rows) {
    const found = await db.raw<{ rows: { all: string }[] }>(
      `select coalesce(string_agg(md5(t::text), ' ' order by md5(t::text)), '') as all from "${table.name}" as t`,
    )
    out[table.name] = found.rows[0]!.all
  }
  return out
}

it('what was backed up is brought back to the byte, and what was there meanwhile is kept', async () => {
  const before = await content()
  expect(before.piece!.split(' ')).toHaveLength(DEMO_PIECES.length)
  expect(weben('backup', 'all.dump')).toMatchObject({ status: 0, said: expect.stringContaining('all.dump') })
  await db('piece').where({ name: 'Reed bank cuff' }).delete()
  await db('piece').update({ name: 'Spoiled' })
  await db('account').insert({ sign_in: 'later', password: 'x' })
  const spoiled = await content()
  expect(spoiled).not.toEqual(before)
  expect(weben('restore', 'all.dump')).toMatchObject({ status: 0 })
  expect(await content()).toEqual(before)
  // What was there before can be brought back in its turn.
  const [kept] = readdirSync(join(folder, 'state')).filter((f) => f.startsWith('before-restore-'))
  expect(weben('restore', join('state', kept!))).toMatchObject({ status: 0 })
  expect(await content()).toEqual(spoiled)
})

it('nothing is written over, and what is no backup changes nothing', async () => {
  const before = await content()
  writeFileSync(join(folder, 'there.dump'), 'mine')
  expect(weben('backup', 'there.dump')).toMatchObject({ status: 1, said: expect.stringContaining('is there already') })
  expect(weben('restore', 'there.dump')).toMatchObject({ status: 1, said: expect.stringContaining('as it was') })
  expect(weben('restore', 'none.dump')).toMatchObject({ status: 1, said: expect.stringContaining('no such file') })
  expect(weben('backup')).toMatchObject({ status: 1, said: expect.stringContaining('./weben backup FILE') })
  expect(await content()).toEqual(before)
})
