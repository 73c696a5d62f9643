import { resolve } from 'node:path'
import { expect, test } from '@playwright/test'
import { build } from 'vite'
import type { Measured } from './page'

const root = resolve(import.meta.dirname, '../..')

/** The page’s script, bundled from the sources as they are. */
async function bundle(): Promise<string> {
  const result = await build({
    configFile: false,
    logLevel: 'silent',
    root,
    resolve: { alias: { '#core': resolve(root, 'core') } },
    build: {
      write: false,
      minify: true,
      lib: { entry: resolve(root, 'tests/bench/page.ts'), name: 'bench', formats: ['iife'] },
    },
  })
  const [first] = Array.isArray(result) ? result : [result]
  return (first as { output: { code: string }[] }).output[0]!.code
}

/**
 * Ratios to a blit (one canvas drawn whole onto another of the same size) in the same run; the goals are those of
 * docs/measured.md.
 */
test('the mat against a blit', async ({ page }) => {
  const code = await bundle()
  await page.goto('about:blank')
  await page.addScriptTag({ content: code })
  const rows: (Measured & { where: string })[] = []
  for (const [where, columns, length, width, height] of [
    ['8 800 at 1×', 88, 100, 1280, 800],
    ['100 000 at 1×', 200, 500, 1280, 800],
    ['8 800 at 2×', 88, 100, 2560, 1600],
    ['100 000 at 2×', 200, 500, 2560, 1600],
    ['1 000 000 at 1×', 200, 5000, 1280, 800],
  ] as const) {
    rows.push({
      where,
      ...(await page.evaluate(([c, l, w, h]) => window.measure(c!, l!, w!, h!), [columns, length, width, height])),
    })
  }
  for (const r of rows)
    console.log(
      `${r.where}: blit ${r.blit.toFixed(2)} ms · full ${(r.full / r.blit).toFixed(1)} × · new zoom ` +
        `${(r.zoom / r.blit).toFixed(1)} × · stroke ${(r.stroke / r.blit).toFixed(2)} × · pan ` +
        `${(r.pan / r.blit).toFixed(1)} × · tally, fit and supplies after an edit ${r.answers.toFixed(2)} ms`,
    )
  for (const r of rows.slice(0, 4)) {
    expect(r.full / r.blit).toBeLessThanOrEqual(12)
    expect(r.stroke / r.blit).toBeLessThanOrEqual(1)
  }
})
