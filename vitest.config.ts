import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))
// Properties are held over thousands of cases: on a busy machine that takes its time, and is no fault.
const BUSY = { testTimeout: 90_000, setupFiles: ['tests/fixture/seed.ts'] }
/** What is pure is read once by each worker, not once for each file. */
const PURE = { ...BUSY, environment: 'node', isolate: false } as const
/** Puts the techniques of tests where core looks for guests. */
const GUEST = { find: /^\.\/guests$/, replacement: at('./tests/guest/guests.ts') }
/** Tests of rooms that go through any technique as it comes: they are held with the guests too. */
const ANY_TECHNIQUE = [
  'core/picture/{lie,picture,whole}.test.ts',
  'core/format/{chart-svg,chart-text,booklet}.test.ts',
  'core/piece/{effort,codec}.test.ts',
  'core/making/{agenda,chore,join,measure}.test.ts',
  'app/mat/mat.test.ts',
]
const alias = { '#core': at('./core'), '~~': at('.'), '~': at('./app') }

export default defineConfig({
  test: {
    // With two processors one would stand idle.
    maxWorkers: Math.max(2, availableParallelism() - 1),
    projects: [
      {
        resolve: { alias },
        test: {
          ...PURE,
          name: 'core',
          include: [
            'core/**/*.test.ts',
            'app/mat/**/*.test.ts',
            'server/**/*.test.ts',
            'launcher/**/*.test.ts',
            'demo/**/*.test.ts',
            'tests/golden/**/*.test.ts',
          ],
        },
      },
      // The laws of the house hold for a technique that only tests know, too: one on lines of their own lengths.
      {
        resolve: { alias: [...Object.entries(alias).map(([find, replacement]) => ({ find, replacement })), GUEST] },
        test: {
          ...PURE,
          name: 'law',
          include: ['tests/law/**/*.test.ts', ...ANY_TECHNIQUE],
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'api',
          environment: 'node',
          include: ['tests/api/**/*.test.ts'],
          globalSetup: ['tests/api/setup.ts'],
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
      {
        plugins: [vue()],
        resolve: { alias },
        test: {
          ...BUSY,
          name: 'components',
          environment: 'happy-dom',
          include: ['app/{components,composables,line}/**/*.test.ts'],
          server: { deps: { inline: ['vuetify'] } },
        },
      },
    ],
    passWithNoTests: false,
  },
})
