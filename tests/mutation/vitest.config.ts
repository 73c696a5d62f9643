import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const DRAWING = ['image', 'pattern', 'picture']

/**
 * The tests that mutants of core are held against. A file of its own: where mutants live there is no generated
 * `.nuxt`, so TypeScript's settings stand here instead of being read from it.
 */
export default defineConfig({
  root: fileURLToPath(new URL('../..', import.meta.url)),
  esbuild: { tsconfigRaw: { compilerOptions: { target: 'es2022', verbatimModuleSyntax: true } } },
  resolve: { alias: { '#core': fileURLToPath(new URL('../../core', import.meta.url)) } },
  test: {
    environment: 'node',
    include: ['core/**/*.test.ts', 'tests/law/**/*.test.ts'],
    // What draws takes long and tells of other rooms little that their own tests do not.
    exclude: DRAWING.filter((room) => room !== process.env.WEBEN_ROOM).map((room) => `core/${room}/**`),
    testTimeout: 90_000,
  },
})
