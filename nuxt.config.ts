import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'
import vuetify from 'vite-plugin-vuetify'

const core = fileURLToPath(new URL('./core', import.meta.url))

/** What the server's workers run, in a file of its own beside it (server/heavy/pool.ts). */
const buildWorker = (outfile: string) =>
  build({
    entryPoints: [fileURLToPath(new URL('./server/heavy/worker.ts', import.meta.url))],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    plugins: [
      {
        name: 'weben-guests',
        setup: (on) => on.onResolve({ filter: /^\.\/guests$/ }, () => (GUESTS ? { path: GUESTS } : null)),
      },
    ],
    alias: { '#core': core },
  })

/** A list of techniques to be known besides Weben's own (core/technique/guests.ts): a check of the house builds so. */
const GUESTS = process.env.WEBEN_GUESTS
const guests = () => ({
  name: 'weben-guests',
  enforce: 'pre' as const,
  resolveId: (id: string) => (GUESTS && id === './guests' ? GUESTS : null),
})

const IS_DEV = process.env.NODE_ENV === 'development'

export default defineNuxtConfig({
  modules: ['@pinia/nuxt', 'nuxt-security', '@nuxt/eslint'],
  // Every view but the way in belongs to one signed-in person and lives in the browser (docs/decisions.md).
  ssr: false,
  imports: { dirs: [] },
  devtools: { enabled: false },
  app: {
    head: {
      title: 'Weben',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'description', content: 'The workbench of someone who makes things of small beads' },
        { name: 'color-scheme', content: 'light dark' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/bead.svg' }],
    },
  },
  css: ['~/theme/fonts.css', '~/theme/tokens.css', '~/theme/base.css', '~/theme/vuetify.css'],
  spaLoadingTemplate: '../app/theme/loading.html',
  srcDir: 'app',
  ...(process.env.WEBEN_BUILD_DIR ? { buildDir: process.env.WEBEN_BUILD_DIR } : {}),
  alias: { '#core': core },
  build: { transpile: ['vuetify'] },
  features: { inlineStyles: false },
  compatibilityDate: '2026-01-01',
  nitro: {
    compressPublicAssets: !GUESTS,
    rollupConfig: { output: {}, plugins: [guests()] },
    ...(process.env.WEBEN_OUTPUT_DIR ? { output: { dir: process.env.WEBEN_OUTPUT_DIR } } : {}),
    typescript: { strict: true },
  },
  hooks: {
    // Without rendering on the server the development server still asks for an entry of that side, and finds none.
    'vite:extendConfig': (config) => {
      const { entry } = (config.build?.rollupOptions?.input ?? {}) as { entry?: string }
      const ssr = { build: { rollupOptions: { input: { server: entry } } } }
      if (IS_DEV && entry) Object.assign(config, { environments: { ...config.environments, ssr } })
    },
    // What answers for wrong addresses must know which are right: read from the tree, like the routes themselves.
    'nitro:init': (nitro) => {
      nitro.options.virtual['#api-routes'] = () => {
        const found = nitro.scannedHandlers.filter(({ route, method }) => route?.startsWith('/api/') && method)
        return `export const routes = ${JSON.stringify(found.map(({ route, method }) => ({ route, method })))}`
      }
      nitro.hooks.hook('compiled', async () => {
        if (!nitro.options.dev) await buildWorker(join(nitro.options.output.serverDir, 'heavy.mjs'))
      })
    },
  },
  vite: {
    plugins: [vuetify({ autoImport: true }), guests()],
    worker: { format: 'es', plugins: () => [guests()] },
    // Small files go with what they are used with: a page asks for fewer, and opens sooner.
    build: {
      target: 'es2022',
      rollupOptions: { output: { experimentalMinChunkSize: 40_000 } },
      // No one is given what knows techniques of tests: it need not be small.
      ...(GUESTS ? { minify: false } : {}),
    },
  },
  typescript: {
    strict: true,
    // The browser's program reads the routes for what they answer.
    tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true }, include: ['../server/*.d.ts'] },
    // The launcher, the demo and the tests are checked with the rest.
    nodeTsConfig: {
      include: ['../launcher/**/*.ts', '../demo/**/*.ts', '../tests/**/*.ts', '../core/**/*.ts', '../*.ts'],
    },
  },
  telemetry: false,
  eslint: { config: { stylistic: false } },
  security: {
    // The embedder policy blocks workers silently; limits and origin checks are ours, in PostgreSQL and in middleware.
    headers: {
      crossOriginEmbedderPolicy: false,
      // Served plainly on loopback, and behind a proxy that speaks https: the proxy promises https for itself.
      strictTransportSecurity: false,
      referrerPolicy: 'no-referrer',
      xFrameOptions: 'DENY',
      contentSecurityPolicy: {
        'default-src': ["'self'"],
        'base-uri': ["'none'"],
        'font-src': ["'self'"],
        'form-action': ["'self'"],
        'frame-ancestors': ["'none'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'object-src': ["'none'"],
        'script-src': ["'self'", "'nonce-{{nonce}}'"],
        'script-src-attr': ["'none'"],
        // The development server puts style sheets into the page without our word.
        'style-src': ["'self'", IS_DEV ? "'unsafe-inline'" : "'nonce-{{nonce}}'"],
        'connect-src': IS_DEV ? ["'self'", 'ws:'] : ["'self'"],
        'worker-src': ["'self'", 'blob:'],
        'upgrade-insecure-requests': false,
      },
    },
    rateLimiter: false,
    requestSizeLimiter: false,
    xssValidator: false,
    corsHandler: false,
    allowedMethodsRestricter: false,
    hidePoweredBy: true,
    basicAuth: false,
    csrf: false,
    nonce: true,
    sri: false,
  },
})
