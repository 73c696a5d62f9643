import type { Page } from '@playwright/test'
import { readFile } from 'node:fs/promises'
import { parse } from 'csv-parse/sync'
import { PDFDocument } from 'pdf-lib'
import { beadAt } from '#core/technique/braid/surface'
import {
  address,
  chooseWay,
  createPiece,
  expect,
  openMat,
  PASSWORD,
  newName,
  plainBracelet,
  readPiece,
  saved,
  stateThere,
  test,
  walkTo,
  chooseFrom,
  toStage,
} from './weaver'

/** A round braid of eight strands in plain beads, begun as any piece. */
const plainBraid = (name: string) =>
  plainBracelet({ name, technique: 'braid-8', spec: 'round-8', motif: 'plain', bodyMm: 165 })

/** Past what is prepared and loaded: to the first move. */
async function toMoves(page: Page) {
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  const step = page.getByRole('region', { name: 'The step in hand' })
  await expect(step).toContainText('Before you begin')
  await page.keyboard.press('Space')
  await expect(step).toContainText('Load the bobbins')
  await page.keyboard.press('Space')
}

test('a braid is designed by its surface; the strands follow', async ({ weaver: page }) => {
  const id = await createPiece(page, plainBraid('By surface'))
  await openMat(page, id)
  await page.keyboard.press('2')
  // The bead on the surface in step 5, column 1, belongs to a strand that the formula names.
  const { s, k } = beadAt({ row: 5, col: 1 }, 8, 'A')!
  await walkTo(page, plainBraid('By surface').parts[0]!, { c: s, r: k })
  await page.getByRole('application').press(' ')
  await saved(page)
  await page.getByRole('link', { name: 'Disc' }).click()
  await page.getByRole('button', { name: 'beginning' }).click()
  await expect(page.getByLabel(`Strand ${s + 1}`, { exact: true })).toHaveValue(/B/)
  for (let other = 1; other <= 8; other++)
    if (other !== s + 1) await expect(page.getByLabel(`Strand ${other}`, { exact: true })).not.toHaveValue(/B/)
})

test('another is designed by its strands; the surface follows, and a wrong count is named', async ({
  weaver: page,
}) => {
  const id = await createPiece(page, plainBraid('By strands'))
  await toStage(page, id, 'disc')
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
  await page.getByText('Patterns of the whole rope').click()
  await chooseFrom(page.getByRole('combobox', { name: 'Loading' }), 'Double helix')
  await page.getByRole('button', { name: 'Load it' }).click()
  await expect(page.getByText(/^One round, \d+ times/)).toBeVisible()
  await expect(page.getByLabel('Strand 1', { exact: true })).toHaveValue('1A')
  await expect(page.getByLabel('Strand 2', { exact: true })).toHaveValue('1B')
  // Cards for the bobbins, as PDF and CSV.
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Bobbin cards and disc as PDF' }).click(),
  ])
  expect((await PDFDocument.load(await readFile(await pdf.path()))).getPageCount()).toBe(3)
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Strands as CSV' }).click(),
  ])
  expect(
    new Set(
      (parse(await readFile(await csv.path()), { columns: true }) as Record<string, string>[]).map((r) => r.bobbin),
    ).size,
  ).toBe(8)
})

test('a round is stepped through, paused, and found again on a second device', async ({ browser, page, baseURL }) => {
  const name = newName()
  await page.request.post(`${address()}/api/account`, {
    headers: { origin: address() },
    data: { signIn: name, password: PASSWORD },
  })
  const id = await createPiece(page, plainBraid('Paused'))
  await toStage(page, id, 'disc')
  await page.getByRole('link', { name: 'Braid it at the bench' }).click()
  await toMoves(page)
  const next = page.locator('[data-test=next]')
  await expect(next).toContainText('Strand 5, from the bottom left up to the top, left of the pair')
  await expect(next).toContainText('slot 17 → 31')
  await page.getByRole('button', { name: /Done, next/ }).click()
  await expect(page.locator('[data-test=pause]')).toContainText('Three strands at the top, one at the bottom')
  await expect(next).toContainText('slot 1 → 15')
  for (let k = 0; k < 10; k++) await page.keyboard.press('Space')
  await page.keyboard.press('Backspace')
  await expect(page.locator('[data-test=round]')).toHaveText('2')
  await page.keyboard.press('Space')
  // Presses go out in bundles: what another device can know is here when the last of them has arrived.
  await expect.poll(async () => (await stateThere(page, id)).presses.length).toBe(15)
  await expect(page.getByText(/wait in this browser/)).toHaveCount(0)
  const words = await next.locator('h3').innerText()

  const other = await browser.newContext({ baseURL, viewport: { width: 400, height: 860 } })
  const phone = await other.newPage()
  await phone.request.post(`${address()}/api/session`, {
    headers: { origin: address() },
    data: { signIn: name, password: PASSWORD },
  })
  await phone.goto('/')
  await expect(phone.getByText(/last time you stopped at round 2/)).toBeVisible()
  await toStage(phone, id, 'bench')
  await expect(phone.locator('[data-test=next] h3')).toHaveText(words)
  await expect(phone.locator('[data-test=round]')).toHaveText('2')
  // Any round can be gone to.
  await phone.getByText('Note, place, ways to work').click()
  await phone.getByLabel('Go to step').fill('5')
  await phone.getByLabel('Go to step').press('Tab')
  await expect(phone.locator('[data-test=next]')).toContainText('slot 13 → 27')
  // And the first device follows.
  await expect(next).toContainText('slot 13 → 27')
  await other.close()
})

test('a rope is mirrored, graduated, unrolled another way and seen in space', async ({ weaver: page }) => {
  const id = await createPiece(page, plainBraid('All of it'))
  await openMat(page, id)
  await page.getByRole('button', { name: 'Patterns', exact: true }).click()
  await page.getByRole('button', { name: 'Graduate', exact: true }).click()
  await expect(page.getByText('32 rounds at each end')).toBeVisible()
  await page.getByRole('button', { name: 'Mirror, to school B' }).click()
  await expect(page.getByText('Mirrored: now by school B.')).toBeVisible()
  await saved(page)
  const { piece } = await readPiece(page, id)
  expect(piece.parts[0]!.settings.school).toBe('B')
  expect(piece.parts[0]!.start).toHaveLength(8 + 8 * 3)
  expect(piece.parts[0]!.end.toReversed()).toEqual(piece.parts[0]!.start)
  await page.getByRole('button', { name: 'Views', exact: true }).click()
  await chooseFrom(page.getByRole('combobox', { name: 'Unrolled in' }), 'a line for each strand')
  // One line a strand: the arrow goes along the same strand.
  const mat = page.getByRole('application')
  await mat.focus()
  await mat.press('Home')
  await expect(page.getByText(/^Round 1, strand 1:/)).toBeAttached()
  await page.getByRole('radio', { name: 'as a rope, turning' }).click()
  await expect(page.getByRole('application', { name: /The rope/ })).toBeVisible()
  await page.getByRole('button', { name: 'Show the wrist side' }).click()
  await expect(page.getByRole('button', { name: 'Show the outside' })).toBeVisible()
  await page.getByRole('slider', { name: 'Twist of the model' }).press('ArrowRight')
  await expect(page.getByText(/Twist \+94° a round/)).toBeVisible()
  // What was laid by chart or view is nothing that is kept.
  expect(JSON.stringify((await readPiece(page, id)).piece)).not.toContain('"chart"')
})

test('a table of one’s own is checked, and gives its strands', async ({ weaver: page }) => {
  const id = await createPiece(
    page,
    plainBracelet({ name: 'My table', technique: 'braid-own', spec: 'round-8', motif: 'plain' }),
  )
  await toStage(page, id, 'fit')
  const table = page.getByRole('textbox', { name: 'Table of moves' })
  await table.fill('slots 7; load 2 3 4 5 6 7; move 2 1')
  await table.press('Tab')
  await expect(
    page.getByText('After the cycle the strands lie a slot further on. Add “turn 1” at its end.'),
  ).toBeVisible()
  expect((await readPiece(page, id)).piece.parts[0]!.columns).toBe(7)
  await table.fill('slots 7; load 2 3 4 5 6 7; move 3 1; turn 2')
  await table.press('Tab')
  await saved(page)
  expect((await readPiece(page, id)).piece.parts[0]!.columns).toBe(6)
  await page.getByRole('link', { name: 'Disc' }).click()
  await expect(page.getByLabel('Strand 6', { exact: true })).toBeVisible()
  await page.getByRole('link', { name: 'Bench', exact: true }).click()
  await toMoves(page)
  await expect(page.locator('[data-test=next]')).toContainText('slot 3 → 1')
})

test('plain cords: begun, coloured on the surface, cut and capped', async ({ weaver: page }) => {
  await page.goto('/start')
  await chooseWay(page, 'Plain cord braid')
  await expect(page.getByRole('combobox', { name: 'Cord' })).toBeVisible()
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page).toHaveURL(/\/mat$/)
  await expect(page.getByRole('application')).toBeVisible()
  const id = /piece\/([^/]+)\//.exec(page.url())![1]!
  await page.keyboard.press('3')
  const { piece } = await readPiece(page, id)
  expect(piece.parts[0]!.repeat).toHaveLength(1)
  // One crossing painted: the whole strand takes the colour.
  const mat = page.getByRole('application')
  await mat.focus()
  await mat.press('Home')
  await mat.press(' ')
  await saved(page)
  await page.getByRole('link', { name: 'Disc' }).click()
  await expect(page.getByLabel('Cord of strand 1', { exact: true })).toHaveValue('3')
  await page.getByLabel('Cord of strand 2', { exact: true }).selectOption('4')
  await page.getByLabel('two cords in the slot of strand 5').check()
  await saved(page)
  expect((await readPiece(page, id)).piece.parts[0]!.settings.doubled).toBe('5')
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'The loaded disc as PDF' }).click(),
  ])
  expect((await PDFDocument.load(await readFile(await pdf.path()))).getPageCount()).toBe(1)
  await page.getByRole('link', { name: 'Tally' }).click()
  await expect(page.getByText('Strands are moved in this order:')).toContainText('5 · 1 · 3 · 7 · 8 · 4 · 6 · 2')
  await page.getByRole('link', { name: 'Supplies' }).click()
  await expect(page.getByText('C Rust, cord 2 mm: one length')).toBeVisible()
  // nine cords of 2 mm pack into 3.6131 × 2 mm (Graham et al. 1998); half a millimetre of binding
  await expect(page.getByText('two end caps at least 8.0 mm inside')).toBeVisible()
})

test('a coiled rope is strung on wire round its core', async ({ weaver: page }) => {
  const id = await createPiece(
    page,
    plainBracelet({ name: 'Coil', technique: 'coil', spec: 'round-8', motif: 'plain', bodyMm: 165 }),
  )
  await toStage(page, id, 'supplies')
  await expect(page.getByText('Wire to cut')).toBeVisible()
  await expect(page.getByText('Core: one length')).toBeVisible()
  await toStage(page, id, 'fit')
  const before = await page.locator('[data-test=answer]').innerText()
  await page.getByLabel('Core, thick').fill('5')
  await page.getByLabel('Core, thick').press('Tab')
  await expect(page.locator('[data-test=answer]')).not.toHaveText(before)
  await saved(page)
  expect((await readPiece(page, id)).piece.parts[0]!.settings.coreMm).toBe(5)
})
