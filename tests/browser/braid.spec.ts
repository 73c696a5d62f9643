import { readFile } from 'node:fs/promises'
import { parse } from 'csv-parse/sync'
import { PDFDocument } from 'pdf-lib'
import { beadAt } from '#core/technique/braid/surface'
import { address, createPiece, cursorTo, expect, openMat, PASSWORD, newName, plainBracelet, readPiece, saved, test } from './weaver'

/** A round braid of eight strands in plain beads, begun as any piece. */
const plainBraid = (name: string) => plainBracelet({ name, technique: 'braid-8', spec: 'round-8', motif: 'plain', bodyMm: 165 })

test('a braid is designed by its surface; the strands follow', async ({ weaver: page }) => {
  const id = await createPiece(page, plainBraid('By surface'))
  await openMat(page, id)
  await page.keyboard.press('2')
  // The bead on the surface in step 5, column 1, belongs to a strand that the formula names.
  const { s, k } = beadAt({ row: 5, col: 1 }, 8, 'A')!
  await cursorTo(page, s, k)
  await page.getByRole('application').press(' ')
  await saved(page)
  await page.getByRole('link', { name: 'Disc' }).click()
  await page.getByRole('button', { name: 'beginning' }).click()
  await expect(page.getByLabel(`Strand ${s + 1}`, { exact: true })).toHaveValue(/B/)
  for (let other = 1; other <= 8; other++) if (other !== s + 1) await expect(page.getByLabel(`Strand ${other}`, { exact: true })).not.toHaveValue(/B/)
})

test('another is designed by its strands; the surface follows, and a wrong count is named', async ({ weaver: page }) => {
  const id = await createPiece(page, plainBraid('By strands'))
  await page.goto(`/piece/${id}/disc`)
  const rounds = (await readPiece(page, id)).piece.parts[0]!.repeat.length
  await page.getByLabel('Strand 3', { exact: true }).fill(`${rounds + 1}C`)
  await page.getByLabel('Strand 3', { exact: true }).press('Tab')
  await expect(page.getByText(`Strand 3 has ${rounds + 1} beads, 1 more than the ${rounds} rounds`)).toBeVisible()
  await page.getByLabel('Strand 3', { exact: true }).fill(`${rounds}C`)
  await page.getByLabel('Strand 3', { exact: true }).press('Tab')
  await saved(page)
  const row = (await readPiece(page, id)).piece.parts[0]!.repeat[0]!
  expect(row.flatMap((n, i) => (i % 2 === 0 ? Array<number>(n).fill(row[i + 1]!) : []))[2]).toBe(3)
  // A loading by rule takes its place.
  await page.getByText('Load by a rule').click()
  await page.getByRole('combobox', { name: 'Loading' }).press('Enter')
  await page.getByRole('option', { name: 'Double helix' }).click()
  await page.getByRole('button', { name: 'Load it' }).click()
  await expect(page.getByText(/^One round, \d+ times/)).toBeVisible()
  await expect(page.getByLabel('Strand 1', { exact: true })).toHaveValue('1A')
  await expect(page.getByLabel('Strand 2', { exact: true })).toHaveValue('1B')
  // Cards for the bobbins, as PDF and CSV.
  const [pdf] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Bobbin cards and disc as PDF' }).click()])
  expect((await PDFDocument.load(await readFile(await pdf.path()))).getPageCount()).toBe(3)
  const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Strands as CSV' }).click()])
  expect(new Set((parse(await readFile(await csv.path()), { columns: true }) as Record<string, string>[]).map(r => r.bobbin)).size).toBe(8)
})

test('a round is stepped through, paused, and found again on a second device', async ({ browser, page, baseURL }) => {
  const name = newName()
  await page.request.post(`${address()}/api/account`, { headers: { origin: address() }, data: { signIn: name, password: PASSWORD } })
  const id = await createPiece(page, plainBraid('Paused'))
  await page.goto(`/piece/${id}/disc`)
  await expect(page.locator('[data-test=next]')).toContainText('Strand 5, from the bottom left up to the top, left of the pair')
  await expect(page.locator('[data-test=next]')).toContainText('slot 17 → 31')
  await page.getByRole('button', { name: 'Next move' }).click()
  await expect(page.locator('[data-test=pause]')).toContainText('Three strands at the top, one at the bottom')
  await expect(page.locator('[data-test=next]')).toContainText('slot 1 → 15')
  await page.locator('h3').first().click()
  for (let k = 0; k < 10; k++) await page.keyboard.press('Space')
  await page.keyboard.press('Backspace')
  await expect(page.locator('[data-test=round]')).toHaveText('2')
  const kept = page.waitForResponse(r => r.url().endsWith('/place') && r.request().method() === 'PUT')
  await page.keyboard.press('Space')
  await kept
  const words = await page.locator('[data-test=next] h3').innerText()

  const other = await browser.newContext({ baseURL, viewport: { width: 400, height: 860 } })
  const phone = await other.newPage()
  await phone.request.post(`${address()}/api/session`, { headers: { origin: address() }, data: { signIn: name, password: PASSWORD } })
  await phone.goto(`/piece/${id}/disc`)
  await expect(phone.locator('[data-test=next] h3')).toHaveText(words)
  await expect(phone.locator('[data-test=round]')).toHaveText('2')
  await other.close()
})
