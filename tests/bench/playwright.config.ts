import { defineConfig } from '@playwright/test'
import browser from '../browser/playwright.config'

export default defineConfig({
  ...browser,
  testDir: '.',
  testMatch: '*.bench.ts',
  globalSetup: undefined,
  workers: 1,
  timeout: 300_000,
  outputDir: '../../test-results/bench',
  reporter: [['line']],
})
