import { createHash, randomBytes } from 'node:crypto'
import { spawnSync } from 'node:child_process'
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import pg from 'pg'
import { isRoot, postgresPrograms } from './debian'
import { say, step, Trouble } from './say'

/** A PostgreSQL cluster of Weben's own: loopback only, no socket, a free port. */
export interface Cluster {
  readonly url: string
  readonly port: number
  /** Pid of the postmaster, for tests that kill it. */
  readonly pid: number
  /** It ran already when it was asked for. */
  readonly ranBefore: boolean
  /** Whether its postmaster runs. */
  runs(): boolean
  stop(): void
}

/** Where a start keeps its database and its secrets: `.weben` in the checkout, or WEBEN_STATE. */
export const stateFolder = (root: string): string => resolve(process.env.WEBEN_STATE ?? join(root, '.weben'))

const DATABASE = 'weben'

/** PostgreSQL refuses to run as root: its programs are then run as the user postgres. */
function asOwner(program: string, args: readonly string[]): { status: number | null; output: string } {
  const [command, all] = isRoot() ? ['runuser', ['-u', 'postgres', '--', program, ...args]] : [program, [...args]]
  const { status, stdout, stderr, error } = spawnSync(command as string, all as string[], {
    cwd: '/',
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  return { status, output: `${stdout ?? ''}${stderr ?? ''}${error?.message ?? ''}` }
}

export function freePort(): Promise<number> {
  return new Promise((done, fail) => {
    const server = createServer()
    server.once('error', fail)
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number }
      server.close(() => done(port))
    })
  })
}

function ownedFolder(folder: string): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  if (isRoot()) {
    const made = spawnSync('install', ['-d', '-o', 'postgres', '-g', 'postgres', '-m', '700', folder])
    if (made.status !== 0)
      throw new Trouble(
        `The folder ${folder} could not be given to the user postgres. Check that this user exists, or set ` +
          'WEBEN_DATABASE_URL.',
      )
  } else chmodSync(folder, 0o700)
}

const passable = (folder: string): boolean => !isRoot() || asOwner('test', ['-x', folder]).status === 0

/**
 * Where the kept cluster lives: in the checkout, or under /var/lib where the user postgres cannot enter the checkout.
 */
function keptFolder(root: string): string {
  const here = stateFolder(root)
  mkdirSync(here, { recursive: true })
  if (passable(here)) return join(here, 'postgres')
  const there = `/var/lib/weben-${createHash('sha256').update(here).digest('hex').slice(0, 8)}`
  say(`the user postgres cannot enter ${here}; the database is kept in ${there}`)
  mkdirSync(there, { recursive: true, mode: 0o755 })
  return join(there, 'postgres')
}

interface Plan {
  readonly folder: string
  readonly password: string | null
  readonly options: readonly string[]
  /** The port to listen on; a free one without. */
  readonly port?: number
}

async function initialise(programs: string, { folder, password }: Plan): Promise<void> {
  ownedFolder(folder)
  const data = join(folder, 'data')
  const args = ['-D', data, '-U', 'weben', '-E', 'UTF8', '--locale=C.UTF-8', '--no-instructions']
  const pwfile = join(folder, 'first-password')
  if (password) {
    writeFileSync(pwfile, password, { mode: 0o600 })
    if (isRoot()) spawnSync('chown', ['postgres', pwfile])
    args.push('-A', 'scram-sha-256', `--pwfile=${pwfile}`)
  } else args.push('-A', 'trust', '--no-sync')
  const { status, output } = asOwner(join(programs, 'initdb'), args)
  rmSync(pwfile, { force: true })
  if (status !== 0) throw new Trouble(`The database cluster could not be made in ${data}:\n${output}`)
}

function runningCluster(programs: string, data: string): { port: number; pid: number } | null {
  if (
    !existsSync(join(data, 'postmaster.pid')) ||
    asOwner(join(programs, 'pg_ctl'), ['status', '-D', data]).status !== 0
  )
    return null
  const lines = readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')
  return { pid: Number(lines[0]), port: Number(lines[3]) }
}

async function launch(plan: Plan): Promise<Cluster> {
  const programs = await postgresPrograms()
  const data = join(plan.folder, 'data')
  if (!existsSync(join(data, 'PG_VERSION')))
    await step('making a private PostgreSQL cluster', () => initialise(programs, plan))
  let running = runningCluster(programs, data)
  const ranBefore = running !== null
  if (running) say(`PostgreSQL of an earlier start still runs (process ${running.pid}): going on with it`)
  else {
    const port = plan.port ?? (await freePort())
    const options = [
      `-p ${port}`,
      '-c listen_addresses=127.0.0.1',
      "-c unix_socket_directories=''",
      ...plan.options,
    ].join(' ')
    const log = join(plan.folder, 'log')
    const begin = () =>
      asOwner(join(programs, 'pg_ctl'), ['start', '-w', '-t', '60', '-D', data, '-l', log, '-o', options])
    let { status, output } = begin()
    // After a postmaster was killed, its last processes hold the cluster for a moment.
    for (let tries = 0; status !== 0 && tries < 10 && existsSync(join(data, 'postmaster.pid')); tries++) {
      await new Promise((done) => setTimeout(done, 1000))
      ;({ status, output } = begin())
    }
    if (status !== 0) throw new Trouble(`PostgreSQL did not start; its log is ${join(plan.folder, 'log')}.\n${output}`)
    running = runningCluster(programs, data)
    if (!running) throw new Trouble(`PostgreSQL started and was gone again; its log is ${join(plan.folder, 'log')}.`)
  }
  const { port, pid } = running
  const address = (database: string) =>
    `postgres://weben${plan.password ? `:${plan.password}` : ''}@127.0.0.1:${port}/${database}`
  await createDatabase(address('postgres'))
  return {
    port,
    pid,
    url: address(DATABASE),
    ranBefore,
    runs: () => runningCluster(programs, data) !== null,
    stop: () => {
      asOwner(join(programs, 'pg_ctl'), ['stop', '-m', 'fast', '-w', '-t', '30', '-D', data])
    },
  }
}

async function createDatabase(adminUrl: string, name = DATABASE): Promise<void> {
  const client = new pg.Client({ connectionString: adminUrl })
  await client.connect()
  try {
    const { rowCount } = await client.query('select 1 from pg_database where datname = $1', [name])
    if (rowCount === 0) await client.query(`create database ${client.escapeIdentifier(name)}`)
  } catch (error) {
    // Another start was quicker.
    if (!['42P04', '23505'].includes((error as { code?: string }).code ?? '')) throw error
  } finally {
    await client.end()
  }
}

/** The cluster that `start` keeps between runs, with a password of its own. */
export function keptCluster(root: string, port?: number): Promise<Cluster> {
  const folder = keptFolder(resolve(root))
  const secretFile = join(stateFolder(root), 'database-password')
  const fresh = !existsSync(join(folder, 'data', 'PG_VERSION'))
  if (fresh || !existsSync(secretFile)) {
    if (!fresh)
      throw new Trouble(
        `The database in ${folder} is there but its password file ${secretFile} is gone. Put it back, or move ` +
          'the folder away to begin anew.',
      )
    writeFileSync(secretFile, randomBytes(24).toString('base64url'), { mode: 0o600 })
  }
  return launch({ folder, password: readFileSync(secretFile, 'utf8').trim(), options: [], ...(port ? { port } : {}) })
}

export interface ThrowAway extends Cluster {
  readonly folder: string
  /** Starts the same data again after it was killed. */
  again(): Promise<ThrowAway>
  /** Stops it and takes its folder away. */
  remove(): void
}

/** A cluster for tests. `durable` keeps fsync on, for tests that kill it. */
export async function throwAwayCluster({
  durable = false,
  folder = mkdtempSync(join(tmpdir(), 'weben-test-')),
} = {}): Promise<ThrowAway> {
  if (isRoot()) chmodSync(folder, 0o755)
  const plan: Plan = {
    folder: join(folder, 'postgres'),
    password: null,
    options: durable ? [] : ['-c fsync=off', '-c full_page_writes=off', '-c synchronous_commit=off'],
  }
  const cluster = await launch(plan)
  return {
    ...cluster,
    folder,
    again: () => throwAwayCluster({ durable, folder }),
    remove: () => {
      cluster.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
