import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { run } from './run'
import { Trouble } from './say'

/**
 * Plants small mistakes in a room of core (`piece`, or one file of it, `piece/rebase`) and tells which of them no
 * test notices. Works in a copy under `.weben/mutate`; what was tried before and has not changed since is not tried
 * again.
 */
export async function mutate(root: string, rooms: readonly string[]): Promise<void> {
  if (rooms.length === 0) throw new Trouble(`Say which room of core: ./weben mutate ${roomsOf(root).join(' | ')}`)
  for (const room of rooms) {
    const kept = join(root, '.weben/mutate', room.replaceAll('/', '-'))
    const { code } = await run(
      join(root, 'node_modules/.bin/stryker'),
      [
        ...['run', 'tests/mutation/stryker.config.mjs', '--mutate', filesOf(root, room).join(',')],
        ...['--incrementalFile', `${kept}.json`],
      ],
      { cwd: root, live: true, env: { ...process.env, WEBEN_ROOM: room.split('/')[0] } },
    )
    if (code !== 0) process.exitCode = 1
  }
}

function filesOf(root: string, room: string): string[] {
  const path = join(root, 'core', room)
  if (existsSync(`${path}.ts`)) return [`core/${room}.ts`]
  if (room.split('/').includes('..') || !existsSync(path) || !statSync(path).isDirectory())
    throw new Trouble(`“${room}” is no room of core. There are: ${roomsOf(root).join(', ')}.`)
  return [`core/${room}/**/*.ts`, `!core/${room}/**/*.test.ts`]
}

const roomsOf = (root: string): string[] =>
  readdirSync(join(root, 'core'), { withFileTypes: true })
    .filter((entry) => entry.isDirectory())
    .map((entry) => entry.name)
