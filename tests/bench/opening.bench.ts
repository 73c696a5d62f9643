import { randomBytes } from 'node:crypto'
import { expect, test, type Page } from '@playwright/test'
import { median } from '#core/median'
import { emptyCells, withCells } from '#core/grid/cells'
import { pieceToBody } from '#core/piece/codec'
import { startApplication } from '../../launcher/application'
import { ensureBuilt } from '../../launcher/build'
import { freePort, throwAwayCluster } from '../../launcher/postgres'
import { prepareDatabase } from '../../launcher/start'
import { bead, part, piece } from '../fixture/piece'

const COLUMNS = 50

/** A loomed band of so many rows, every bead another. */
function band(rows: number) {
  let state = 12345
  const repeat = withCells(emptyCells(COLUMNS, rows, 1), (set) => {
    for (let k = 0; k < COLUMNS * rows; k++) {
      state = (state * 1103515245 + 12345) & 0x7fffffff
      set(k, 1 + ((state >> 16) % 6))
    }
  })
  return piece({
    name: `Band of ${rows}`,
    tray: Array.from({ length: 6 }, (_, k) => bead(k + 1)),
    parts: [part({ technique: 'loom', start: emptyCells(COLUMNS, 0), repeat, end: emptyCells(COLUMNS, 0) })],
  })
}

/** In the page: presses the link and tells after how many ms the step is on the screen; then presses once more. */
async function opened(page: Page): Promise<{ open: number; step: number }> {
  return page.evaluate(async () => {
    /** Milliseconds until something stands in the page, and until the frame after it. */
    const seen = (what: () => boolean) =>
      new Promise<number>((done) => {
        const began = performance.now()
        const look = () => {
          if (!what()) return
          watch.disconnect()
          requestAnimationFrame(() => done(performance.now() - began))
        }
        const watch = new MutationObserver(look)
        watch.observe(document.body, { subtree: true, childList: true, characterData: true })
        look()
      })
    const find = (selector: string) => document.querySelector<HTMLElement>(selector)
    const link = [...document.querySelectorAll('a')].find((a) => a.pathname.endsWith('/bench'))!
    link.click()
    const open = await seen(() => find('[data-test=runs]') !== null)
    const before = find('.which')!.textContent
    find('.hands .on')!.click()
    const step = await seen(() => find('.which')?.textContent !== before)
    return { open, step }
  })
}

/**
 * The bench as it opens in the browser, from the mat of the same piece: 100 000 beads against 100, so that what is
 * measured is what the beads cost and not the machine.
 */
test('the bench of a large piece opens in the browser like that of a small one', async ({ browser }) => {
  const root = process.cwd()
  await ensureBuilt(root)
  const cluster = await throwAwayCluster({})
  await prepareDatabase(cluster.url, false)
  const secret = randomBytes(32).toString('hex')
  const port = await freePort()
  const application = await startApplication({ root, port, databaseUrl: cluster.url, secret, demo: false })
  try {
    const at = application.address
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const headers = { origin: at }
    const data = { signIn: 'Bench', password: 'a long enough word' }
    expect((await page.request.post(`${at}/api/account`, { headers, data })).ok()).toBe(true)
    const times: Record<number, { open: number; step: number }> = {}
    for (const rows of [2, 2000]) {
      const created = await page.request.post(`${at}/api/piece`, { headers, data: pieceToBody(band(rows)) })
      const { id } = (await created.json()) as { id: string }
      await page.goto(`${at}/piece/${id}/bench`)
      await page.getByRole('button', { name: 'Begin' }).click()
      await page.getByRole('button', { name: 'Done, next' }).click()
      await expect(page.locator('[data-test=runs]')).toBeVisible()
      const rounds: { open: number; step: number }[] = []
      for (let k = 0; k < 7; k++) {
        await page.getByRole('link', { name: 'Mat', exact: true }).first().click()
        await expect(page.getByRole('application')).toBeVisible()
        await page.waitForTimeout(300)
        rounds.push(await opened(page))
        await page.keyboard.press('ArrowLeft')
      }
      times[rows] = { open: median(rounds.map((r) => r.open)), step: median(rounds.map((r) => r.step)) }
    }
    const [small, large] = [times[2]!, times[2000]!]
    for (const [which, t] of Object.entries({ '100 beads': small, '100 000 beads': large }))
      console.log(`bench of ${which}: open after ${t.open.toFixed(0)} ms, a step after ${t.step.toFixed(0)} ms`)
    expect(large.open / small.open).toBeLessThan(3)
    expect(large.step / small.step).toBeLessThan(3)
  } finally {
    await application.stop()
    cluster.remove()
  }
})
