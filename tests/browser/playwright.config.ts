import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: '.',
  globalSetup: './global-setup.ts',
  timeout: 240_000,
  // Two browsers and a server wait for each other, and the slowest machine is three times as slow as the usual one.
  // Who passes does not wait for it.
  expect: { timeout: 60_000 },
  workers: 2,
  fullyParallel: true,
  forbidOnly: true,
  retries: 0,
  outputDir: '../../test-results',
  reporter: process.env.WEBEN_BROWSER_JSON
    ? [['line'], ['json', { outputFile: process.env.WEBEN_BROWSER_JSON }]]
    : [['line']],
  use: {
    viewport: { width: 1280, height: 800 },
    // What moves moves at once: a test sees where it comes to, and the time is for the next test.
    contextOptions: { reducedMotion: 'reduce' },
    trace: process.env.WEBEN_TRACE ? 'retain-on-failure' : 'off',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
