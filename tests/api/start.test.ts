import { spawn, type ChildProcess } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, afterEach, describe, expect, inject, it, vi } from 'vitest'
import { freePort } from '../../launcher/postgres'
import { connect } from '../../server/database/connection'

const root = resolve(import.meta.dirname, '../..')
vi.setConfig({ testTimeout: 120_000, hookTimeout: 60_000 })

interface Start {
  readonly child: ChildProcess
  readonly port: number
  said(): string
  readonly ended: Promise<number | null>
}
const started: Start[] = []

function start(port: number, env: Record<string, string>): Start {
  const args = ['--import', 'tsx', 'launcher/main.ts', 'start', '--empty', '--port', String(port)]
  const child = spawn(process.execPath, args, { cwd: root, env: { ...process.env, ...env } })
  let text = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (data: Buffer) => (text += data.toString()))
  const ended = new Promise<number | null>((done) => child.once('exit', done))
  const one = { child, port, said: () => text, ended }
  started.push(one)
  return one
}
const ready = (s: Start) =>
  vi.waitFor(() => expect(s.said()).toContain('Weben is ready'), { timeout: 60_000, interval: 100 })
const healthy = async (port: number) =>
  (await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null))?.ok ?? false

/** The state folder must be passable for whoever runs PostgreSQL. */
const state = mkdtempSync(join(tmpdir(), 'weben-state-'))
chmodSync(state, 0o755)
afterEach(async () => {
  for (const { child, ended } of started.splice(0)) {
    child.kill('SIGTERM')
    await ended
  }
})
afterAll(() => rmSync(state, { recursive: true, force: true }))

describe('./weben start', () => {
  it('three at once on an empty database all serve it', async () => {
    const url = new URL(inject('databaseUrl'))
    const admin = connect(url.href)
    const name = `three_${process.pid}`
    await admin.raw(`create database ${name}`)
    url.pathname = `/${name}`
    try {
      const env = { WEBEN_DATABASE_URL: url.href, WEBEN_SESSION_SECRET: 'x'.repeat(40), WEBEN_STATE: state }
      const three = await Promise.all([1, 2, 3].map(async () => start(await freePort(), env)))
      await Promise.all(three.map(ready))
      expect(await Promise.all(three.map((s) => healthy(s.port)))).toEqual([true, true, true])
      expect(three.filter((s) => s.said().includes('database brought up to date'))).toHaveLength(1)
      expect(existsSync(join(state, 'running'))).toBe(false)
      for (const s of started.splice(0)) {
        s.child.kill('SIGTERM')
        expect(await s.ended).toBe(0)
      }
    } finally {
      await admin.raw(`drop database ${name} with (force)`)
      await admin.destroy()
    }
  })
  it('knows its own orphans, starts a dead database again, leaves nothing where a port is taken', async () => {
    const env = { WEBEN_STATE: state, WEBEN_DATABASE_URL: '', WEBEN_SESSION_SECRET: '' }
    const port = await freePort()
    const first = start(port, env)
    await ready(first)
    const second = start(await freePort(), env)
    expect(await second.ended).toBe(1)
    expect(second.said()).toContain(`already running from this folder (process ${first.child.pid})`)

    const pidFile = join(state, 'postgres/data/postmaster.pid')
    const postmaster = () => Number(readFileSync(pidFile, 'utf8').split('\n')[0])
    const killed = postmaster()
    process.kill(killed, 'SIGKILL')
    await vi.waitFor(() => expect(first.said()).toContain('the database runs again'), { timeout: 40_000 })
    expect(postmaster()).not.toBe(killed)
    expect(await healthy(port)).toBe(true)

    first.child.kill('SIGKILL')
    await first.ended
    started.length = 0
    expect(await healthy(port)).toBe(true)
    const again = start(port, env)
    await ready(again)
    expect(again.said()).toContain('left its application behind')
    expect(again.said()).toContain('PostgreSQL of an earlier start still runs')
    again.child.kill('SIGTERM')
    expect(await again.ended).toBe(0)
    started.length = 0

    const taken = start(Number(new URL(inject('address')).port), env)
    expect(await taken.ended).toBe(1)
    expect(taken.said()).toContain('is taken')
    expect(existsSync(join(state, 'running'))).toBe(false)
    expect(existsSync(pidFile)).toBe(false)
  })
})
