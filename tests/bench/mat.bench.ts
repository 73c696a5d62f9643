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
    // Beads that lie freely are those of a technique that only tests know.
    plugins: [
      {
        name: 'guests',
        enforce: 'pre',
        resolveId: (id) => (id === './guests' ? `${root}/tests/guest/guests.ts` : null),
      },
    ],
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
  for (const [where, columns, length, width, height, lies = 'lattice'] of [
    ['8 800 at 1×', 88, 100, 1280, 800],
    ['100 000 at 1×', 200, 500, 1280, 800],
    ['8 800 at 2×', 88, 100, 2560, 1600],
    ['100 000 at 2×', 200, 500, 2560, 1600],
    ['10 000 that lie freely at 1×', 51, 200, 1280, 800, 'free'],
    ['10 000 that lie freely at 2×', 51, 200, 2560, 1600, 'free'],
    ['2 000 stitched motifs at 1×', 10, 2000, 1280, 800, 'chain'],
    ['1 000 000 at 1×', 200, 5000, 1280, 800],
  ] as const) {
    rows.push({
      where,
      ...(await page.evaluate(([c, l, w, h, lies]) => window.measure(c, l, w, h, lies), [
        columns,
        length,
        width,
        height,
        lies,
      ] as const)),
    })
  }
  for (const r of rows)
    console.log(
      `${r.where}: blit ${r.blit.toFixed(2)} ms · full ${(r.full / r.blit).toFixed(1)} × · new zoom ` +
        `${(r.zoom / r.blit).toFixed(1)} × · stroke ${(r.stroke / r.blit).toFixed(2)} × · pan ` +
        `${(r.pan / r.blit).toFixed(1)} × · tally, fit and supplies after an edit ${r.answers.toFixed(2)} ms`,
    )
  for (const r of rows.slice(0, 7)) {
    expect(r.full / r.blit).toBeLessThanOrEqual(12)
    // An edit of a chain finds its line among thousands.
    expect(r.stroke / r.blit).toBeLessThanOrEqual(r.where.includes('motifs') ? 2 : 1)
  }
})
