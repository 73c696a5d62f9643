import { readFile } from 'node:fs/promises'
import { readPieceFile } from '#core/format/piece-file'
import { valueOf } from '#core/problem'
import { tallyPiece } from '#core/tally/tally'
import { chooseWay, expect, readPiece, saved, test, chooseFrom, plain, toStage } from './weaver'

test('a bracelet of flowers is fitted to a wrist, changed by its fields, made and brought back', async ({
  weaver: page,
}) => {
  await page.goto('/start')
  await page.getByRole('radio', { name: 'Bracelet', exact: true }).click()
  await chooseWay(page, 'Flowers on a stem', 'flower')
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  const id = /piece\/([^/]+)\/mat/.exec(page.url())![1]!
  const begun = (await readPiece(page, id)).piece
  // Three stem beads, three petals and the heart, three petals more; parts that nothing plays have no bead.
  expect(begun.parts[0]).toMatchObject({ technique: 'stemmed-flowers', repeat: [[3, 1, 3, 2, 1, 3, 3, 2]] })
  expect(begun.tray.map((b) => b.spec)).toEqual(['round-8', 'round-8', 'round-8', 'round-11'])
  await plain(page)

  // Fitted: flowers as they come nearest, and one more or fewer beside it.
  await toStage(page, id, 'fit')
  await expect(page.getByText(/flowers? × .* mm and the ends/).first()).toBeAttached()
  await expect(page.getByText('Take this').first()).toBeVisible()

  // Another petal: every flower has it, in the colour of the others; one press takes it back.
  const petals = page.getByLabel('Petals')
  await petals.fill('7')
  await petals.press('Enter')
  await saved(page)
  await expect.poll(async () => (await readPiece(page, id)).piece.parts[0]!.repeat).toEqual([[3, 1, 4, 2, 1, 3, 3, 2]])
  await chooseFrom(page.getByRole('combobox', { name: 'Flowers' }), 'large and small in turn')
  await expect.poll(async () => (await readPiece(page, id)).piece.parts[0]!.repeat.length).toBe(2)
  const mixed = (await readPiece(page, id)).piece
  expect(mixed.tray.map((b) => b.spec)).toContain('round-15')
  await plain(page)

  // Two petals of eleven beads lie where they are seen: the mat is walked bead by bead.
  await toStage(page, id, 'mat')
  const mat = page.getByRole('application')
  await mat.focus()
  await mat.press('Home')
  await page.keyboard.press('2')
  await mat.press(' ')
  await saved(page)

  await toStage(page, id, 'tally')
  await expect(page.getByText('the petal beside the heart').first()).toBeVisible()
  await expect(page.locator('.step-picture').nth(3)).toBeVisible()
  await toStage(page, id, 'supplies')
  await expect(page.getByText('Beading needle').first()).toBeVisible()

  await toStage(page, id, 'print')
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /Piece file/ }).click(),
  ])
  const path = await file.path()
  const read = valueOf(readPieceFile(await readFile(path, 'utf8')))
  const there = (await readPiece(page, id)).piece
  expect(read.parts[0]!.settings).toEqual(there.parts[0]!.settings)
  await page.goto('/')
  await page
    .getByLabel('Piece file')
    .setInputFiles({ name: 'back.json', mimeType: 'application/json', buffer: await readFile(path) })
  await page.waitForURL(/piece\/.+\/mat/)
  const back = /piece\/([^/]+)\/mat/.exec(page.url())![1]!
  expect((await readPiece(page, back)).piece.parts).toEqual(there.parts)
  expect([...tallyPiece(read)].length).toBeGreaterThan(4)

  await toStage(page, back, 'bench')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(page.getByText(/flower|line/i).first()).toBeVisible()
})

test('a lozenge chain in two colours in turn is begun, coloured and made on the phone', async ({ weaver: page }) => {
  await page.setViewportSize({ width: 400, height: 860 })
  await page.goto('/start')
  await page.getByRole('radio', { name: 'Bracelet', exact: true }).click()
  await chooseWay(page, 'Lozenges of two-hole beads', 'two-hole')
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  const id = /piece\/([^/]+)\/mat/.exec(page.url())![1]!
  const { piece } = await readPiece(page, id)
  expect(piece.parts[0]!.repeat).toEqual([[3, 1, 1, 3, 3, 1, 1, 2]])
  expect(piece.tray.map((b) => b.spec)).toEqual(['almond-duo-5-x-2-5-mm', 'faceted-4-mm', 'round-8', 'round-11'])
  // Two colours in turn: another leaf on the tray, then the table of what plays a part.
  await page.getByRole('button', { name: 'Add a bead' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Autumn leaf')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect.poll(async () => (await readPiece(page, id)).piece.tray.length).toBe(5)
  const number = (await readPiece(page, id)).piece.tray[4]!.number
  await page.getByRole('button', { name: 'Colours', exact: true }).click()
  await page.getByRole('button', { name: /^leaf/ }).click()
  await page.getByRole('button', { name: 'Then E Autumn leaf' }).click()
  await page.getByRole('radio', { name: 'One for each motif' }).click()
  await plain(page)
  await page.getByRole('button', { name: 'Lay them so' }).click()
  await saved(page)
  const leaf = (n: number) => [3, n, 1, 3, 3, n, 1, 2]
  await expect.poll(async () => (await readPiece(page, id)).piece.parts[0]!.repeat).toEqual([leaf(1), leaf(number)])
  await expect(page.getByRole('button', { name: /^leaf/ })).toContainText('one for each motif')
  // Fitted, whole cycles come first; one is taken.
  await toStage(page, id, 'fit')
  await page.getByText('Take this').first().click()
  await saved(page)
  const fitted = (await readPiece(page, id)).piece.parts[0]!
  expect(fitted.repeat).toEqual([leaf(1), leaf(number)])
  // And made: the steps of the first lozenge in pictures.
  await toStage(page, id, 'tally')
  await expect(page.getByText('zigzag out to the second holes').first()).toBeVisible()
  await expect(page.locator('.step-picture').first()).toBeVisible()
  await toStage(page, id, 'bench')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  const step = page.getByRole('region', { name: 'The step in hand' })
  await expect(step).toBeVisible()
  // What is prepared and the start come first; each press shows before the next one.
  for (let k = 0; k < 12 && (await page.locator('[data-test=runs] .step-picture').count()) === 0; k++) {
    const before = await step.innerText()
    await page.keyboard.press('Enter')
    await expect.poll(() => step.innerText()).not.toBe(before)
  }
  await expect(page.locator('[data-test=runs] .step-picture').first()).toBeVisible()
  await plain(page)
})
