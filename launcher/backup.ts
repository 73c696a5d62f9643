import { existsSync, mkdirSync, mkdtempSync, renameSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { postgresPrograms } from './debian'
import { stateFolder } from './postgres'
import { run, type Outcome } from './run'
import { claim } from './running'
import { say, step, Trouble } from './say'
import { openDatabase, prepareDatabase } from './start'

const fileOf = (args: readonly string[], command: string): string => {
  const [name, ...more] = args
  if (!name || more.length > 0) throw new Trouble(`Use: ./weben ${command} FILE`)
  return resolve(process.env.WEBEN_CALLER ?? process.cwd(), name)
}

/** Writes everything of the database to a file, in PostgreSQL's own format; whole or not at all. */
async function dump(url: string, file: string): Promise<void> {
  const program = join(await postgresPrograms(), 'pg_dump')
  const half = `${file}.half`
  const { code, output } = await run(program, ['--format=custom', '--no-owner', `--file=${half}`, `--dbname=${url}`])
  if (code !== 0) {
    rmSync(half, { force: true })
    throw new Trouble(`The backup could not be written to ${file}:\n${output.trim()}`)
  }
  renameSync(half, file)
}

/** `./weben backup FILE`: also while Weben runs. */
export async function backup(root: string, args: readonly string[]): Promise<void> {
  const file = fileOf(args, 'backup')
  if (existsSync(file)) throw new Trouble(`${file} is there already. Choose another name, or move it away.`)
  const { url, cluster } = await openDatabase(root)
  try {
    await step('writing the backup', () => dump(url, file))
    say(`everything is in ${file}`)
  } finally {
    if (cluster && !cluster.ranBefore) cluster.stop()
  }
}

/** In one transaction: what is there goes whole, also what only a newer Weben has, and what the backup holds comes. */
async function bringBack(url: string, file: string): Promise<Outcome> {
  const programs = await postgresPrograms()
  const folder = mkdtempSync(join(tmpdir(), 'weben-restore-'))
  try {
    const script = join(folder, 'all.sql')
    const read = await run(join(programs, 'pg_restore'), ['--no-owner', `--file=${script}`, file])
    if (read.code !== 0) return read
    const clear = 'drop schema public cascade; create schema public'
    const how = ['--no-psqlrc', '--quiet', '--single-transaction', '--set=ON_ERROR_STOP=1']
    return await run(join(programs, 'psql'), [...how, `--command=${clear}`, `--file=${script}`, url])
  } finally {
    rmSync(folder, { recursive: true })
  }
}

/**
 * `./weben restore FILE`: puts the database back to what a backup holds, whole or not at all. What was there before is
 * backed up first.
 */
export async function restore(root: string, args: readonly string[]): Promise<void> {
  const file = fileOf(args, 'restore')
  if (!existsSync(file)) throw new Trouble(`${file} cannot be read: there is no such file.`)
  const mine = process.env.WEBEN_DATABASE_URL ? null : await claim(join(stateFolder(root), 'running'))
  try {
    const { url, cluster } = await openDatabase(root)
    try {
      const folder = stateFolder(root)
      mkdirSync(folder, { recursive: true })
      const before = join(folder, `before-restore-${new Date().toISOString().replace(/[:.]/g, '-')}.dump`)
      await step('keeping what is there', () => dump(url, before))
      say(`what was there is in ${before}`)
      const { code, output } = await step('bringing back', () => bringBack(url, file))
      if (code !== 0)
        throw new Trouble(`${file} could not be brought back; the database is as it was.\n${output.trim()}`)
      await prepareDatabase(url, false)
      say('the database is what the backup holds')
    } finally {
      if (cluster && !cluster.ranBefore) cluster.stop()
    }
  } finally {
    mine?.release()
  }
}
