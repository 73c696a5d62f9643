import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: '.',
  globalSetup: './global-setup.ts',
  timeout: 90_000,
  // On a machine with two processors two browsers and a server wait for each other.
  expect: { timeout: 20_000 },
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
