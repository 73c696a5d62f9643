import { randomBytes } from 'node:crypto'
import { resolve } from 'node:path'
import { test as plain } from '@playwright/test'
import { startApplication, type Application } from '../../launcher/application'
import { freePort, throwAwayCluster, type ThrowAway } from '../../launcher/postgres'
import { prepareDatabase } from '../../launcher/start'
import { createPiece, cursorTo, expect, join, openMat, plainBracelet, readPiece, saved, test } from './weaver'

const gone = async (pid: number) => {
  for (let k = 0; k < 100; k++) {
    try {
      process.kill(pid, 0)
    } catch {
      return
    }
    await new Promise((done) => setTimeout(done, 50))
  }
  throw new Error(`process ${pid} is still there`)
}

plain(
  'a killed application and a killed database lose nothing that was acknowledged, and what was not waits',
  async ({ page }) => {
    const root = resolve(import.meta.dirname, '../..')
    const secret = randomBytes(32).toString('hex')
    const port = await freePort()
    let cluster: ThrowAway = await throwAwayCluster({ durable: true })
    let application: Application | null = null
    const address = `http://127.0.0.1:${port}`
    const start = async () => {
      application = await startApplication({ root, port, databaseUrl: cluster.url, secret, demo: false })
    }
    try {
      await prepareDatabase(cluster.url, false)
      await start()
      await join(page, address)
      const id = await createPiece(page, plainBracelet(), address)
      await openMat(page, id, address)
      await page.keyboard.press('2')
      const mat = page.getByRole('application')
      await cursorTo(page, 0, 0)
      for (let round = 0; round < 3; round++) {
        // Edits that are acknowledged …
        for (let k = 0; k < 2; k++) {
          await mat.press(' ')
          await mat.press('ArrowRight')
        }
        await saved(page)
        const before = await readPiece(page, id, address)
        // … then both are killed, in the middle of the work, and edits go on.
        application!.process.kill('SIGKILL')
        process.kill(cluster.pid, 'SIGKILL')
        await gone(cluster.pid)
        await mat.press(' ')
        await mat.press('ArrowRight')
        await expect(page.getByText('Kept in this browser;')).toBeVisible()
        if (round === 1) {
          // Even a closed tab keeps what was not sent.
          cluster = await cluster.again()
          await start()
          const now = await readPiece(page, id, address)
          expect(now.revision).toBeGreaterThanOrEqual(before.revision)
          await page.reload()
          await expect(mat).toBeVisible()
          await page.keyboard.press('2')
          await cursorTo(page, 0, 3 * (round + 1))
        } else {
          cluster = await cluster.again()
          expect(cluster.pid).toBeGreaterThan(0)
          await start()
        }
        await saved(page)
        const after = await readPiece(page, id, address)
        expect(after.revision).toBe(3 * (round + 1))
      }
      const { piece } = await readPiece(page, id, address)
      const laid = [
        ...piece.parts[0]!.start,
        ...Array.from({ length: piece.parts[0]!.times }).flatMap(() => piece.parts[0]!.repeat),
      ]
        .slice(0, 9)
        .map((row) => row[1])
      expect(laid).toEqual(Array(9).fill(2))
    } finally {
      await (application as Application | null)?.stop()
      cluster.remove()
    }
  },
)

test('a second tab is brought up to date, and both tabs’ edits stand', async ({ weaver: page, context }) => {
  const id = await createPiece(page)
  await openMat(page, id)
  const second = await context.newPage()
  await openMat(second, id)
  await page.keyboard.press('2')
  await cursorTo(page, 0, 0)
  await page.keyboard.press('Space')
  await saved(page)
  await expect(second.locator('.list tr', { hasText: 'Kingfisher' })).toContainText('1')
  await second.keyboard.press('3')
  await cursorTo(second, 1, 0)
  await second.keyboard.press('Space')
  await saved(second)
  await expect(page.locator('.list tr', { hasText: 'Rust' })).toContainText('1')
  expect((await readPiece(page, id)).piece.parts[0]!.start[0]!.slice(0, 4)).toEqual([1, 2, 1, 3])
  // Undo here takes back what was done here, not what the other tab did.
  await page.keyboard.press('Control+z')
  await saved(page)
  expect((await readPiece(page, id)).piece.parts[0]!.start[0]!.slice(0, 4)).toEqual([1, 1, 1, 3])
})

test('edits made offline meet edits made elsewhere: apart they merge, in one place a person chooses', async ({
  weaver: page,
  context,
}) => {
  const id = await createPiece(page)
  await openMat(page, id)
  await page.keyboard.press('2')
  await cursorTo(page, 0, 0)
  const other = await context.newPage()
  await openMat(other, id)
  await page.route('**/api/piece/*/step*', (route) => route.abort())
  await page.keyboard.press('Space')
  await expect(page.getByText('Kept in this browser;')).toBeVisible()
  await other.keyboard.press('3')
  await cursorTo(other, 3, 0)
  await other.keyboard.press('Space')
  await saved(other)
  await page.unroute('**/api/piece/*/step*')
  await saved(page)
  expect((await readPiece(page, id)).piece.parts[0]!.start[0]).toEqual([1, 2, 2, 1, 1, 3, 2, 1])

  // Now the same bead.
  await page.route('**/api/piece/*/step*', (route) => route.abort())
  await page.keyboard.press('4')
  await page.keyboard.press('Space')
  await other.keyboard.press('2')
  await cursorTo(other, 0, 0)
  await other.keyboard.press('3')
  await other.keyboard.press('Space')
  await saved(other)
  await page.unroute('**/api/piece/*/step*')
  await expect(page.getByRole('alertdialog')).toContainText('Two changes want the same place')
  await page.getByRole('button', { name: 'Keep mine as a piece of its own' }).click()
  await expect(page.getByRole('heading', { name: 'Plain band (my version)' })).toBeVisible()
  const copy = /piece\/([^/]+)/.exec(page.url())![1]!
  expect((await readPiece(page, copy)).piece.parts[0]!.start[0]!.slice(0, 2)).toEqual([1, 4])
  expect((await readPiece(page, id)).piece.parts[0]!.start[0]!.slice(0, 2)).toEqual([1, 3])
})
