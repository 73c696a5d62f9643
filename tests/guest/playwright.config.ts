import { defineConfig } from '@playwright/test'
import browser from '../browser/playwright.config'

/** The same browser, on a Weben that knows the techniques of tests. */
export default defineConfig({ ...browser, testDir: '.', globalSetup: './global-setup.ts' })
