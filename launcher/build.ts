import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { lastLines, run } from './run'
import { step, Trouble } from './say'

const SOURCES = ['app', 'core', 'server', 'public', 'nuxt.config.ts', 'package-lock.json']

function* files(path: string): Generator<string> {
  const entries = readdirSync(path, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))
  for (const entry of entries) {
    if (entry.isDirectory()) yield* files(join(path, entry.name))
    else if (!entry.name.endsWith('.test.ts')) yield join(path, entry.name)
  }
}

/** One number for everything that the build reads. */
function sourcesHash(root: string, variant: Variant): string {
  const hash = createHash('sha256')
  for (const source of variant === 'weben' ? SOURCES : [...SOURCES, ...GUEST_SOURCES]) {
    const path = join(root, source)
    if (!existsSync(path)) continue
    for (const file of source.includes('.') ? [path] : files(path)) hash.update(file).update(readFileSync(file))
  }
  return hash.digest('hex')
}

/**
 * What is built: Weben, or Weben that knows techniques of tests besides, in folders of its own. No one is given that.
 */
export type Variant = 'weben' | 'guest'

const GUEST_SOURCES = ['tests/guest/guests.ts', 'tests/guest/fan.ts', 'tests/guest/rungs.ts']

const outputOf = (root: string, variant: Variant): string =>
  join(root, variant === 'weben' ? '.output' : '.weben/guest/output')

export const serverEntry = (root: string, variant: Variant = 'weben'): string =>
  join(outputOf(root, variant), 'server/index.mjs')

/** What tells the build of a variant where to look and where to write. */
const settingsOf = (root: string, variant: Variant): NodeJS.ProcessEnv =>
  variant === 'weben'
    ? {}
    : {
        WEBEN_GUESTS: join(root, 'tests/guest/guests.ts'),
        WEBEN_BUILD_DIR: join(root, '.weben/guest/nuxt'),
        WEBEN_OUTPUT_DIR: outputOf(root, variant),
      }

/** Builds the application when its sources changed since the last build. */
export async function ensureBuilt(root: string, variant: Variant = 'weben'): Promise<void> {
  const stamp = join(root, '.weben', variant === 'weben' ? 'built-from' : 'guest-built-from')
  const hash = sourcesHash(root, variant)
  if (existsSync(serverEntry(root, variant)) && existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return
  const what = variant === 'weben' ? 'the application' : 'the application with techniques of tests'
  await step(`building ${what} (about a minute and a half)`, async () => {
    const { code, output } = await run('node_modules/.bin/nuxt', ['build'], {
      cwd: root,
      env: {
        ...process.env,
        ...settingsOf(root, variant),
        NODE_ENV: 'production',
        NODE_OPTIONS: '--max-old-space-size=4096',
      },
    })
    if (code !== 0) throw new Trouble(`The build failed:\n${lastLines(output, 40)}`)
  })
  mkdirSync(join(root, '.weben'), { recursive: true })
  writeFileSync(stamp, hash)
}
