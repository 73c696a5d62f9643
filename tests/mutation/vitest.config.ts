import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/**
 * The tests that mutants of a room of core are held against: those of the room itself, and the laws. A room that only
 * others' tests hold is not held. TypeScript's settings stand here, since where mutants live there is no generated
 * `.nuxt` to read them from.
 */
export default defineConfig({
  root: at('../..'),
  esbuild: { tsconfigRaw: { compilerOptions: { target: 'es2022', verbatimModuleSyntax: true } } },
  resolve: {
    alias: [
      { find: '#core', replacement: at('../../core') },
      { find: /^\.\/guests$/, replacement: at('../guest/guests.ts') },
    ],
  },
  test: {
    environment: 'node',
    include: [`core/${process.env.WEBEN_ROOM}/**/*.test.ts`, 'tests/law/**/*.test.ts'],
    setupFiles: [at('fewer-runs.ts')],
    testTimeout: 90_000,
  },
})
