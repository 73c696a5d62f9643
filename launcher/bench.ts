import { join } from 'node:path'
import { ensureChromium, postgresPrograms } from './debian'
import { run } from './run'

/** Measures the goals for speed (tests/bench); each is a ratio within one run, so it holds on slow machines too. */
export async function bench(root: string): Promise<void> {
  await postgresPrograms()
  await ensureChromium()
  const { code } = await run(
    join(root, 'node_modules/.bin/playwright'),
    ['test', '-c', 'tests/bench/playwright.config.ts'],
    { cwd: root, live: true },
  )
  process.exitCode = code
}
