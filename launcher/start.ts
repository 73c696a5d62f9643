import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { seedDemo } from '../demo/seed'
import { connect } from '../server/database/connection'
import { migrate } from '../server/database/migrate'
import { startApplication } from './application'
import { ensureBuilt } from './build'
import { keptCluster, type Cluster } from './postgres'
import { say, step, Trouble } from './say'

export interface StartOptions {
  readonly port: number
  readonly host: string
  readonly empty: boolean
}

export function readStartOptions(args: readonly string[]): StartOptions {
  const parse = () => {
    try {
      return parseArgs({
        args: [...args],
        options: {
          port: { type: 'string', default: '4173' },
          host: { type: 'string', default: '127.0.0.1' },
          empty: { type: 'boolean', default: false },
        },
      }).values
    } catch (error) {
      throw new Trouble(`${(error as Error).message}. Use: ./weben start [--port 4173] [--host 127.0.0.1] [--empty]`)
    }
  }
  const { port: text, host, empty } = parse()
  const port = Number(text)
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Trouble(`“${text}” is not a port. Give a number from 1 to 65535.`)
  return { port, host, empty }
}

/** The key that seals session cookies: given, or made once and kept. */
export function sessionSecret(root: string): string {
  if (process.env.WEBEN_SESSION_SECRET) return process.env.WEBEN_SESSION_SECRET
  const file = join(root, '.weben', 'session-secret')
  if (!existsSync(file)) {
    mkdirSync(join(root, '.weben'), { recursive: true })
    writeFileSync(file, randomBytes(48).toString('base64url'), { mode: 0o600 })
  }
  return readFileSync(file, 'utf8').trim()
}

/** Brings the database up to date and, unless it is to stay empty, lays out the demo workshop in an empty one. */
export async function prepareDatabase(url: string, demo: boolean): Promise<void> {
  const db = connect(url, { min: 0, max: 2 })
  try {
    const done = await migrate(db)
    if (done.length > 0) say(`database brought up to date (${done.join(', ')})`)
    if (demo && (await seedDemo(db))) say('the demo workshop is laid out')
  } catch (error) {
    throw new Trouble(
      `The database could not be prepared: ${(error as Error).message}. Check that the server in ` +
        'WEBEN_DATABASE_URL runs and that its user may create tables.',
    )
  } finally {
    await db.destroy()
  }
}

/** Says at once, before anything is started, that a port is taken. */
function requireFreePort(port: number, host: string): Promise<void> {
  return new Promise((done, fail) => {
    const server = createServer()
    server.once('error', (error: NodeJS.ErrnoException) =>
      fail(
        new Trouble(
          error.code === 'EADDRINUSE'
            ? `Port ${port} is taken. Choose another, like: ./weben start --port ${port + 1}`
            : `Port ${port} on ${host} cannot be used (${error.code ?? error.message}). Choose another with ` +
                '--port or --host.',
        ),
      ),
    )
    server.listen(port, host, () => server.close(() => done()))
  })
}

export async function openDatabase(root: string): Promise<{ url: string; cluster: Cluster | null }> {
  const given = process.env.WEBEN_DATABASE_URL
  if (given) return { url: given, cluster: null }
  const cluster = await step('starting PostgreSQL', () => keptCluster(root))
  return { url: cluster.url, cluster }
}

/** A start that finds another one of the same checkout at work says so instead of sharing its database process. */
function claim(root: string): void {
  const file = join(root, '.weben', 'running')
  if (existsSync(file)) {
    const pid = Number(readFileSync(file, 'utf8'))
    const alive = (() => {
      try {
        return pid !== process.pid && process.kill(pid, 0)
      } catch {
        return false
      }
    })()
    if (alive)
      throw new Trouble(
        `Weben is already running from this folder (process ${pid}). Stop it first with Ctrl-C there, or with ` +
          `“kill ${pid}”.`,
      )
  }
  mkdirSync(join(root, '.weben'), { recursive: true })
  writeFileSync(file, String(process.pid))
}

export async function start(root: string, args: readonly string[]): Promise<void> {
  const options = readStartOptions(args)
  claim(root)
  await requireFreePort(options.port, options.host)
  await ensureBuilt(root)
  const { url, cluster } = await openDatabase(root)
  const stopping = new Promise<void>((done) =>
    ['SIGINT', 'SIGTERM'].forEach((signal) => process.once(signal, () => done())),
  )
  try {
    await prepareDatabase(url, !options.empty)
    const application = await step('starting Weben', () =>
      startApplication({
        root,
        port: options.port,
        host: options.host,
        databaseUrl: url,
        secret: sessionSecret(root),
        demo: !options.empty,
        log: 'inherit',
      }),
    )
    process.stdout.write(`\n  Weben is ready: ${application.address}\n  Stop it with Ctrl-C.\n\n`)
    const ended = new Promise<'ended'>((done) => application.process.once('exit', () => done('ended')))
    const asked = stopping.then(() => 'asked' as const)
    if ((await Promise.race([asked, ended])) === 'ended')
      throw new Trouble(
        'The application stopped by itself; its last words stand above. Start it again; nothing that was ' +
          'saved is lost.',
      )
    say('stopping…')
    await application.stop()
  } finally {
    cluster?.stop()
    rmSync(join(root, '.weben', 'running'), { force: true })
  }
  say('stopped')
}
