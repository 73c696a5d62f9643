import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureBuilt } from './build'
import { ensureChromium, postgresPrograms } from './debian'
import { lastLines, run } from './run'
import { say, step } from './say'

interface Count {
  readonly passed: number
  readonly failed: number
}

const add = (a: Count, b: Count): Count => ({ passed: a.passed + b.passed, failed: a.failed + b.failed })

/** A check that is one command: it counts as one. */
async function command(root: string, title: string, program: string, args: readonly string[]): Promise<Count> {
  const { code, output } = await step(title, () => run(join(root, 'node_modules/.bin', program), args, { cwd: root }))
  if (code === 0) return { passed: 1, failed: 0 }
  say(`${title} FAILED:\n${lastLines(output, 60)}`)
  return { passed: 0, failed: 1 }
}

function readJson(file: string): unknown {
  try {
    return JSON.parse(readFileSync(file, 'utf8'))
  } catch {
    return null
  }
}

/** Vitest projects; a run that counted nothing, or ended badly with no test failed, is a failure of its own. */
async function vitest(root: string, folder: string, title: string, projects: readonly string[]): Promise<Count> {
  const file = join(folder, `${projects[0]}.json`)
  const args = [
    'run',
    ...projects.flatMap((p) => ['--project', p]),
    '--reporter=json',
    `--outputFile=${file}`,
    '--reporter=dot',
  ]
  const { code, output } = await step(title, () => run(join(root, 'node_modules/.bin/vitest'), args, { cwd: root }))
  const report = readJson(file) as { numPassedTests: number; numFailedTests: number } | null
  const count = { passed: report?.numPassedTests ?? 0, failed: report?.numFailedTests ?? 0 }
  if (code !== 0) say(`${title} FAILED:\n${lastLines(output, 120)}`)
  return code !== 0 && count.failed === 0 ? { ...count, failed: 1 } : count
}

/** Browser tests of a folder, each with a configuration of its own. */
async function browser(root: string, folder: string, tests: 'browser' | 'guest'): Promise<Count> {
  const file = join(folder, `${tests}.json`)
  const title = tests === 'browser' ? 'browser tests' : 'browser tests with a technique of tests'
  const { code, output } = await step(title, () =>
    run(join(root, 'node_modules/.bin/playwright'), ['test', '-c', `tests/${tests}/playwright.config.ts`], {
      cwd: root,
      env: { ...process.env, WEBEN_BROWSER_JSON: file },
    }),
  )
  const stats = (readJson(file) as { stats: { expected: number; unexpected: number; flaky: number } } | null)?.stats
  const count = { passed: stats?.expected ?? 0, failed: (stats?.unexpected ?? 0) + (stats?.flaky ?? 0) }
  if (code !== 0) say(`${title} FAILED:\n${lastLines(output, 200)}`)
  return code !== 0 && count.failed === 0 ? { ...count, failed: 1 } : count
}

const DEPENDENCY_RULES = ['--config', '.dependency-cruiser.cjs', 'core', 'app', 'server', 'launcher']

/** Everything that is checked, in an order that fails early; ends with `N passed, N failed`. */
export async function test(root: string): Promise<void> {
  await postgresPrograms()
  await ensureChromium()
  const folder = mkdtempSync(join(tmpdir(), 'weben-results-'))
  let count: Count = { passed: 0, failed: 0 }
  const took = async (part: Promise<Count>) => {
    const one = await part
    count = add(count, one)
  }
  try {
    await took(command(root, 'preparing types', 'nuxt', ['prepare']))
    // What keeps one processor busy goes side by side.
    await Promise.all([
      (async () => {
        await took(command(root, 'layout of the code', 'prettier', ['--check', '--log-level', 'warn', '.']))
        await took(command(root, 'lint', 'eslint', ['.', '--max-warnings', '0']))
      })(),
      (async () => {
        await took(command(root, 'types', 'nuxt', ['typecheck']))
        await took(command(root, 'dependency rules', 'depcruise', DEPENDENCY_RULES))
      })(),
    ])
    await took(vitest(root, folder, 'unit and law tests', ['core', 'law', 'components']))
    await Promise.all([ensureBuilt(root), ensureBuilt(root, 'guest')])
    await took(vitest(root, folder, 'API tests', ['api']))
    await took(browser(root, folder, 'browser'))
    await took(browser(root, folder, 'guest'))
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
  process.stdout.write(`${count.passed} passed, ${count.failed} failed\n`)
  if (count.failed > 0) process.exitCode = 1
}
