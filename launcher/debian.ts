import { existsSync, readdirSync } from 'node:fs'
import { lastLines, run } from './run'
import { step, Trouble } from './say'

export const isRoot = (): boolean => process.getuid?.() === 0

/** Installs a Debian package, or says how to. */
async function install(name: string, why: string): Promise<void> {
  if (!isRoot()) throw new Trouble(`${why} Install it as root with “apt-get install ${name}”, then try again.`)
  await step(`installing ${name} from Debian’s packages`, async () => {
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
    await run('apt-get', ['update'], { env })
    const { code, output } = await run('apt-get', ['install', '-y', '--no-install-recommends', name], { env })
    if (code !== 0) throw new Trouble(`${why} “apt-get install ${name}” failed:\n${lastLines(output)}`)
  })
}

function findPostgres(): string | null {
  const root = '/usr/lib/postgresql'
  if (!existsSync(root)) return null
  const versions = readdirSync(root)
    .filter((v) => existsSync(`${root}/${v}/bin/initdb`))
    .map(Number)
    .filter((v) => v >= 13)
    .sort((a, b) => b - a)
  return versions.length > 0 ? `${root}/${versions[0]}/bin` : null
}

/** The folder of PostgreSQL's programs, installed if missing. */
export async function postgresPrograms(): Promise<string> {
  const found = findPostgres()
  if (found) return found
  await install('postgresql', 'PostgreSQL is missing.')
  const now = findPostgres()
  if (!now)
    throw new Trouble(
      'PostgreSQL was installed but its programs are not in /usr/lib/postgresql. Set WEBEN_DATABASE_URL to a ' +
        'server of your own instead.',
    )
  return now
}

const CHROMIUM = '/usr/bin/chromium'

export async function ensureChromium(): Promise<void> {
  if (!existsSync(CHROMIUM)) await install('chromium', 'Chromium is missing; the browser tests need it.')
}
