import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { seedDemo } from '../demo/seed'
import { connect } from '../server/database/connection'
import { isComingUp } from '../server/database/errors'
import { migrate, underLock } from '../server/database/migrate'
import { startApplication } from './application'
import { ensureBuilt } from './build'
import { keptCluster, stateFolder, type Cluster } from './postgres'
import { claim } from './running'
import { say, step, Trouble } from './say'

interface StartOptions {
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
  const file = join(stateFolder(root), 'session-secret')
  if (!existsSync(file)) {
    mkdirSync(stateFolder(root), { recursive: true })
    writeFileSync(file, randomBytes(48).toString('base64url'), { mode: 0o600 })
  }
  return readFileSync(file, 'utf8').trim()
}

/**
 * Brings the database up to date and, unless it is to stay empty, lays out the demo workshop in an empty one: one
 * start after the other, however many begin at once. A database that is just coming up is waited for.
 */
export async function prepareDatabase(url: string, demo: boolean): Promise<void> {
  const db = connect(url, { min: 0, max: 3 })
  try {
    await comingUp(() => db.raw('select 1'))
    await underLock(db, async () => {
      const done = await migrate(db)
      if (done.length > 0) say(`database brought up to date (${done.join(', ')})`)
      if (demo && (await seedDemo(db))) say('the demo workshop is laid out')
    })
  } catch (error) {
    throw new Trouble(
      `The database could not be prepared: ${(error as Error).message}. Check that the server in WEBEN_DATABASE_URL ` +
        'runs and that its user may create tables.',
    )
  } finally {
    await db.destroy()
  }
}

const WAIT_FOR_MS = 10_000

async function comingUp(ask: () => PromiseLike<unknown>): Promise<void> {
  for (const began = Date.now(); ; await new Promise((done) => setTimeout(done, 300))) {
    try {
      await ask()
      return
    } catch (error) {
      if (Date.now() - began > WAIT_FOR_MS || !isComingUp(error)) throw error
    }
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

/** Looked at this often, a database that died is started again. */
const LOOKED_EVERY_MS = 2000

/** Starts the kept cluster again, on its port, whenever it is found dead; gives what ends the watching. */
function watchCluster(root: string, first: Cluster): () => Cluster {
  let cluster = first
  let busy = false
  const timer = setInterval(() => {
    if (busy || cluster.runs()) return
    busy = true
    say('the database has died: starting it again')
    keptCluster(root, first.port)
      .then((again) => {
        cluster = again
        say('the database runs again; nothing that was saved is lost')
      })
      .catch((error: unknown) => say(`the database does not start: ${(error as Error).message}`))
      .finally(() => {
        busy = false
      })
  }, LOOKED_EVERY_MS)
  return () => {
    clearInterval(timer)
    return cluster
  }
}

export async function start(root: string, args: readonly string[]): Promise<void> {
  const options = readStartOptions(args)
  // On a database of someone else's any number of starts may serve; one's own cluster belongs to one of them.
  const mine = process.env.WEBEN_DATABASE_URL ? null : await claim(join(stateFolder(root), 'running'))
  try {
    await requireFreePort(options.port, options.host)
    await ensureBuilt(root)
    await serve(root, options, (pid) => mine?.started(pid))
  } finally {
    mine?.release()
  }
  say('stopped')
}

async function serve(root: string, options: StartOptions, started: (pid: number) => void): Promise<void> {
  const { url, cluster } = await openDatabase(root)
  const endWatching = cluster ? watchCluster(root, cluster) : null
  const asked = new Promise<'asked'>((done) =>
    ['SIGINT', 'SIGTERM'].forEach((signal) => process.once(signal, () => done('asked'))),
  )
  try {
    await prepareDatabase(url, !options.empty)
    const { port, host } = options
    const plan = { root, port, host, databaseUrl: url, secret: sessionSecret(root), demo: !options.empty }
    const application = await step('starting Weben', () => startApplication({ ...plan, log: 'inherit' }))
    started(application.process.pid!)
    process.stdout.write(`\n  Weben is ready: ${application.address}\n  Stop it with Ctrl-C.\n\n`)
    const ended = new Promise<'ended'>((done) => application.process.once('exit', () => done('ended')))
    if ((await Promise.race([asked, ended])) === 'ended')
      throw new Trouble(
        'The application stopped by itself; its last words stand above. Start it again; nothing that was saved is ' +
          'lost.',
      )
    say('stopping…')
    await application.stop()
  } finally {
    ;(endWatching?.() ?? cluster)?.stop()
  }
}
