import type { Page } from '@playwright/test'
import { pieceFromBody } from '#core/piece/codec'
import { proofOf } from '#core/proof/proof'
import { valueOf } from '#core/problem'
import { SAMPLER } from '../../demo/sampler'
import { createPiece, expect, readPiece, saved, test, plain, toStage } from './weaver'

const now = async (page: Page, id: string) => valueOf(pieceFromBody((await readPiece(page, id)).piece))
const answer = (page: Page) => page.locator('[data-test=proof-answer]')
const findings = (page: Page, rule?: string) => page.locator(`article.finding${rule ? `[data-rule="${rule}"]` : ''}`)
/** What is read is of the piece as it is now. */
const read = (page: Page) => expect(answer(page)).toContainText('Read as it is now')

test('the apprentice’s sampler is mended to nothing found', async ({ weaver: page }) => {
  const id = await createPiece(page, SAMPLER)
  await toStage(page, id, 'proof')
  await read(page)
  await expect(answer(page)).toContainText('Not yet: mend these first')
  const wants = proofOf(SAMPLER).open.filter((f) => f.weight !== 'note').length
  await expect(page.getByRole('link', { name: new RegExp(`Proof ?${wants}`) })).toBeVisible()
  await plain(page)

  // One of them on the mat, lit, and back.
  await findings(page, 'odd').first().getByRole('button', { name: 'Show it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  await expect(page.locator('[data-test=lit]')).toContainText('breaks the pattern')
  await page.getByRole('link', { name: 'Back to the proof' }).click()
  await read(page)

  // A mend is shown before it is taken, with what is counted otherwise; it is undone like any edit.
  const before = proofOf(await now(page, id)).open.length
  const one = findings(page, 'row-missing').first()
  await one.getByRole('button', { name: 'Put the row in' }).click()
  await expect(one.getByRole('img', { name: 'Now' })).toBeVisible()
  await expect(one.getByRole('img', { name: 'Afterwards' })).toBeVisible()
  await expect(one.locator('.count').first()).toContainText('→')
  await plain(page)
  await one.locator('.trial').getByRole('button', { name: 'Put the row in' }).click()
  await saved(page)
  await expect(findings(page, 'row-missing')).toHaveCount(0)
  await page.getByRole('button', { name: /^Undo/ }).click()
  await saved(page)
  await expect(findings(page, 'row-missing')).toHaveCount(1)

  // All of a kind at once.
  await read(page)
  const tray = findings(page, 'tray-unused')
  await tray
    .first()
    .getByRole('button', { name: /^Take . off the tray/ })
    .first()
    .click()
  const all = page.getByRole('button', { name: /^Mend all \d+ of this kind/ })
  if ((await all.count()) > 0) await all.first().click()
  else await tray.first().locator('.trial').getByRole('button').first().click()
  await saved(page)
  await expect(tray).toHaveCount(0)

  // The rest one by one: the first mend of the first that has one.
  for (let k = 0; k < 40; k++) {
    await read(page)
    const next = page.locator('article.finding', { has: page.locator('button.mend') }).first()
    if ((await next.count()) === 0) break
    const label = await next.locator('button.mend').first().innerText()
    await next.locator('button.mend').first().click()
    await next.locator('.trial').getByRole('button', { name: label }).click()
    await saved(page)
  }
  await read(page)
  // What is meant so is kept quiet, with a reason.
  for (let k = 0; k < 6 && (await findings(page).count()) > 0; k++) {
    const next = page.locator('section article.finding').first()
    if ((await next.count()) === 0) break
    await next.getByRole('button', { name: 'It is meant so' }).click()
    await next.getByLabel('Why, for later').fill('practice')
    await next.getByRole('button', { name: 'Keep it quiet' }).click()
    await saved(page)
    await read(page)
  }
  await expect(answer(page)).toContainText('Nothing found')
  await expect(page.getByText('Beads that touch nothing laid before them')).toBeVisible()
  const end = proofOf(await now(page, id))
  expect(end.open.filter((f) => f.group !== 'safety')).toEqual([])
  expect(end.quiet.length).toBeGreaterThan(0)
  expect(before).toBeGreaterThan(20)
  await page.getByText(/meant so$/).click()
  await expect(page.getByText('Meant so:').first()).toBeVisible()
  await plain(page)
  // On the sheet, and kept with the piece.
  await toStage(page, id, 'print')
  await expect(page.locator('[data-test=proved]')).toContainText('nothing found')
})

test('only what is proved is printed, where the settings say so; on a phone', async ({ weaver: page }) => {
  await page.setViewportSize({ width: 400, height: 860 })
  const id = await createPiece(page, SAMPLER)
  await page.goto('/settings')
  const kept = page.waitForResponse((r) => r.url().endsWith('/api/settings') && r.ok())
  await page.getByRole('radio', { name: /^only what is proved/ }).check()
  await kept
  await toStage(page, id, 'print')
  await expect(page.getByRole('button', { name: 'Print this sheet' })).toBeDisabled()
  await expect(page.getByText('Only what is proved is printed')).toBeVisible()
  await expect(page.locator('[data-test=proved]')).toContainText('Row 14, column 7 is D where A is expected')
  await expect(page.locator('.words .look').first()).toContainText('Wants a look')
  await page.getByRole('link', { name: /things want a look/ }).click()
  await read(page)
  await plain(page)
  // Rows that want a look are marked where they are told.
  await toStage(page, id, 'tally')
  await page.getByRole('button', { name: 'Diamonds', exact: true }).click()
  await expect(page.getByText(/^Wants a look: Row 14/).first()).toBeAttached()
})
