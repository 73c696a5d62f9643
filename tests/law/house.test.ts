import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, normalize, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'

const CORE = fileURLToPath(new URL('../../core', import.meta.url))

/** The rooms of core from the ground up: each uses those before it, never one behind it. */
const ROOMS = [
  ...[
    'units',
    'money',
    'grid',
    'colour',
    'bead',
    'thread',
    'wear',
    'hang',
    'wire',
    'recipe',
    'layout',
    'technique',
    'piece',
    'pattern',
    'tally',
  ],
  ...['shelf', 'image', 'fit', 'supply', 'proof', 'begin', 'picture', 'making', 'device', 'contract', 'format'],
]

const files = readdirSync(CORE, { recursive: true, encoding: 'utf8' }).filter(
  (file) => file.includes('/') && file.endsWith('.ts') && !file.endsWith('.test.ts'),
)
const roomOf = (file: string): string => file.split('/')[0]!
/** Files of core that a file uses. */
const usedBy = (file: string): string[] =>
  [...readFileSync(join(CORE, file), 'utf8').matchAll(/from '(\.[^']+)'/g)].map(([, path]) =>
    relative(CORE, normalize(join(CORE, dirname(file), path!))),
  )

describe('the rooms of core', () => {
  it('are all known', () => {
    expect([...new Set(files.map(roomOf))].sort()).toEqual([...ROOMS].sort())
  })
  it('use only what stands below them', () => {
    const upwards = files.flatMap((file) =>
      usedBy(file)
        .filter((used) => used.includes('/') && ROOMS.indexOf(roomOf(used)) > ROOMS.indexOf(roomOf(file)))
        .map((used) => `${file} uses ${used}`),
    )
    expect(upwards).toEqual([])
  })
})
