import type { Page } from '@playwright/test'
import { FIT_TABLE } from '#core/wear/kind'
import { createPiece, expect, openMat, plainBracelet, readPiece, saved, test, chooseFrom, toStage } from './weaver'

/** Chooses from a list by its label; the option must be on the screen. */
const choose = (page: Page, label: string, option: string | RegExp): Promise<void> =>
  chooseFrom(page.getByRole('combobox', { name: label, exact: true }), option)
const answer = (page: Page) => page.locator('[data-test=answer]')
const reason = async (page: Page, id: string) => {
  const row = page.locator(`[data-reason=${id}]`)
  if ((await row.getAttribute('open')) === null) await row.locator('summary').click()
  return row.locator('p')
}

test('a bracelet is fitted: every number opens, a choice is taken, the piece follows', async ({ weaver: page }) => {
  const id = await createPiece(page, plainBracelet({ motif: 'diamonds', bodyMm: 170 }))
  await toStage(page, id, 'fit')
  await expect(page.getByRole('heading', { name: 'Will it close?' })).toBeVisible()
  await expect(await reason(page, 'wanted')).toHaveText('wrist 170.0 mm + room 13.0 mm = 183.0 mm')
  await expect(await reason(page, 'centre')).toHaveText(
    '183.0 mm + π × 1.6 mm, because it bends about its middle = 188.0 mm',
  )
  await expect(await reason(page, 'target')).toContainText('188.0 mm − 14.0 mm for toggle: ring and bar = 174.0 mm')
  // Another wrist changes the figures at once.
  await page.getByLabel('Wrist').fill('20 cm')
  await expect(await reason(page, 'wanted')).toHaveText('wrist 200.0 mm + room 13.0 mm = 213.0 mm')
  await expect(answer(page)).toContainText('No, it will not close')
  await page
    .getByRole('button', { name: /^Take \d+ repeats, whole repeats/ })
    .first()
    .click()
  await expect(answer(page)).toContainText('Yes,')
  await saved(page)
  expect((await readPiece(page, id)).piece.fit.bodyMm).toBe(200)
  // The chart says the same as its table.
  await page.getByText('Length against choices, as a chart').click()
  await expect(page.locator('.plot .main-svg').first()).toBeVisible()
  await page.getByText('The same as a table').click()
  expect(
    await page
      .getByRole('region', { name: 'Length against choices, as a chart, as a table' })
      .locator('tbody tr')
      .count(),
  ).toBe(await page.locator('.choices li[data-way]').count())
})

test('a wrapped one, with two buttons: the closure counts once, and one size becomes a range', async ({
  weaver: page,
}) => {
  const id = await createPiece(page, plainBracelet({ bodyMm: 160, easeMm: 6, technique: 'peyote', widthMm: 8 }))
  await toStage(page, id, 'fit')
  await choose(page, 'Times round', '3')
  await expect(await reason(page, 'centre')).toContainText('3 × (166.0 mm + π × 1.6 mm)')
  await choose(page, 'Closure', 'Button and loop')
  await page.getByText('Chain, more openings, overlap').click()
  await choose(page, 'Buttons or rings', '2')
  await page
    .getByRole('button', { name: /^Take \d+ repeats, / })
    .first()
    .click()
  await expect(answer(page)).toContainText('Yes,')
  await expect(answer(page)).toContainText('let out to')
  await saved(page)
  const { fit, parts } = (await readPiece(page, id)).piece
  expect(fit).toMatchObject({ wraps: 3, closure: { kind: 'button', openings: 2 } })
  // three rounds of beadwork, about half a metre
  expect(
    (parts[0]!.times * parts[0]!.repeat.length + parts[0]!.start.length + parts[0]!.end.length) * 1.6,
  ).toBeGreaterThan(460)
  // On elastic it is made to the wrist, and the elastic is on the cut list.
  await choose(page, 'Closure', 'Elastic, knotted')
  await expect(page.getByLabel('Room to move')).toHaveValue('−2.5 mm')
  await saved(page)
  await page.getByRole('link', { name: /^Supplies/ }).click()
  await expect(page.getByText('Elastic: 2 of 1000 mm')).toBeVisible()
})

test('a choker, a ring and a pair of earrings, from the start page', async ({ weaver: page }) => {
  const begin = async (kind: string) => {
    await page.goto('/start')
    await page.getByRole('radio', { name: kind, exact: true }).click()
  }
  await begin('Choker')
  await page.getByLabel('Neck').fill('34 cm')
  await page.getByRole('radio', { name: /low/ }).click()
  await expect(answer(page)).toContainText('Yes, low on the neck')
  await expect(answer(page)).toContainText('wanted 402')
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()

  await begin('Ring')
  await page.getByLabel('Finger').fill('54')
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  await page.getByRole('link', { name: /^Fit/ }).click()
  await page.getByLabel('Or a ring size').fill('L')
  await page.getByLabel('Or a ring size').press('Tab')
  await expect(page.getByText('ISO 51.3 · United States 5.75 · British L')).toBeVisible()
  await page
    .getByRole('button', { name: /^Take \d+ repeats?, / })
    .first()
    .click()
  await expect(answer(page)).toContainText('Yes, the ring fits')
  await page.getByLabel('Or a ring size').fill('huge')
  await page.getByLabel('Or a ring size').press('Tab')
  await expect(page.getByText('“huge” is not a ring size')).toBeVisible()

  await begin('Earrings')
  await page.getByLabel('Drop').fill('4 cm')
  await expect(answer(page)).toContainText('Yes, as long as wanted')
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  const id = page.url().match(/piece\/([^/]+)/)![1]!
  expect((await readPiece(page, id)).piece.fit).toMatchObject({
    kind: 'earrings',
    bodyMm: 40,
    closure: { kind: 'ear-wire' },
  })
  const one = Number((await page.locator('[data-test=beads]').innerText()).replace(/\s/g, ''))
  await page.getByRole('link', { name: /^Supplies/ }).click()
  await expect(page.getByText('Each weighs')).toBeVisible()
  const counts = (await page.locator('.beads li .what').allInnerTexts()).map((t) =>
    Number(/·\s*([\d\s\u202F]+) in all/.exec(t)![1]!.replace(/\s/g, '')),
  )
  expect(counts.reduce((a, b) => a + b, 0)).toBe(2 * one)
})

test('every kind can be chosen, and says how it is measured', async ({ weaver: page }) => {
  const id = await createPiece(page)
  await toStage(page, id, 'fit')
  for (const kind of FIT_TABLE.toReversed()) {
    await choose(page, 'It is', kind.name)
    await expect(page.getByLabel(kind.measureName, { exact: true })).toBeVisible()
    await expect(page.getByText(kind.howTo)).toBeVisible()
    await expect(answer(page).locator('strong')).not.toBeEmpty()
  }
})

test('people are measured once and chosen in any piece', async ({ weaver: page }) => {
  await page.goto('/people')
  await page.getByRole('button', { name: 'Add a person' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Ilse')
  await page.getByRole('button', { name: '+ Wrist' }).click()
  await page.getByLabel('Wrist', { exact: true }).fill('6 1/4 in')
  await page.getByRole('button', { name: '+ Hand at its widest' }).click()
  await page.getByLabel('Hand at its widest', { exact: true }).fill('201')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('wrist 159 mm · hand at its widest 201 mm')).toBeVisible()
  const id = await createPiece(page)
  await toStage(page, id, 'fit')
  await page.getByRole('button', { name: /Ilse/ }).click()
  await saved(page)
  expect((await readPiece(page, id)).piece.fit).toMatchObject({ wearer: 'Ilse', bodyMm: 158.75, passMm: 201 })
  // Without a closure it must pass her hand.
  await choose(page, 'Closure', 'No closure, ends joined')
  await expect(answer(page)).toContainText('No, it will not pass the hand')
  await expect(await reason(page, 'wanted')).toContainText('hand at its widest: 201.0 mm')
})

test('a swatch changes every size and says so; a strange one is questioned; a new piece begins with it', async ({
  weaver: page,
}) => {
  const id = await createPiece(page, plainBracelet({ technique: 'peyote', widthMm: 10 }))
  await toStage(page, id, 'fit')
  await expect(answer(page)).toContainText('By nominal bead sizes: ± 5 %')
  const before = await answer(page).locator('b').innerText()
  await page.getByRole('button', { name: 'Enter a swatch' }).click()
  await page.getByLabel('Bead rows counted').fill('20')
  await page.getByLabel('They measure').fill('33.6 mm')
  await page.getByRole('button', { name: 'Keep the swatch' }).click()
  await expect(answer(page)).toContainText('By your gauge, one swatch: ± 2.5 %')
  await expect(answer(page).locator('b')).not.toHaveText(before)
  await expect(page.getByText('20 rows = 33.6 mm')).toBeVisible()
  await page.getByRole('button', { name: 'Enter a swatch' }).click()
  await page.getByLabel('They measure').fill('40 mm')
  await page.getByRole('button', { name: 'Keep the swatch' }).click()
  await expect(page.getByText('Far from what the beads say')).toBeVisible()
  await page.getByRole('button', { name: 'Take out 20 rows = 40.0 mm' }).click()
  await expect(page.getByText('Far from what the beads say')).toHaveCount(0)
  await saved(page)
  expect((await readPiece(page, id)).piece.gauges).toMatchObject([
    { technique: 'peyote', swatches: [{ rows: 20, lengthMm: 33.6 }] },
  ])
  // And for all pieces.
  await expect
    .poll(async () => {
      const { items } = (await (await page.request.get('/api/shelf')).json()) as {
        items: { value: { gauge?: { swatches: { lengthMm: number }[] } } }[]
      }
      return items.flatMap(({ value }) => value.gauge?.swatches.map((s) => s.lengthMm) ?? [])
    })
    .toEqual([33.6])
  await page.goto('/start')
  await expect(answer(page)).toContainText('By your gauge, one swatch')
  // In another thread the hand is not known.
  await toStage(page, id, 'supplies')
  await choose(page, 'Thread', /gel-spun 8 lb/)
  await page.getByRole('link', { name: /^Fit/ }).click()
  await expect(answer(page)).toContainText('By nominal bead sizes')
})

test('a length comes from the caliper', async ({ weaver: page }) => {
  await page.goto('/devices')
  await page.getByLabel('Between the jaws, mm').fill('15.5')
  await page.getByLabel('Between the jaws, mm').press('Tab')
  await page.getByRole('button', { name: 'Read the caliper' }).click()
  await expect(page.getByText(/^15\.[45]\d mm/)).toBeVisible()
  const id = await createPiece(page)
  await toStage(page, id, 'fit')
  await page
    .getByRole('button', { name: /from the caliper/ })
    .first()
    .click()
  await expect(page.getByLabel('Its length, closed')).toHaveValue(/15\.[45]\d* mm/)
})

test('the reference converts, the strips print true, the screen is measured', async ({ weaver: page }) => {
  await page.goto('/reference')
  await page.getByLabel('A length, as you type it').fill('6 3/4"')
  await expect(page.locator('[data-test=length]')).toContainText('171.45 mm')
  await page.getByLabel('Size', { exact: true }).fill('8')
  await expect(page.locator('[data-test=ring]')).toContainText('ISO 57.0')
  await page.getByRole('link', { name: 'Strips to print' }).click()
  const widthMm = await page
    .getByAltText(/measure a wrist/)
    .evaluate((img) => (img.getBoundingClientRect().height * 25.4) / 96)
  expect(widthMm).toBeCloseTo(254, 0)
  await page.goto('/settings')
  await page.getByLabel('Width of the card on the screen, in pixels').fill('428')
  await expect(page.getByText('5.00 pixels a millimetre')).toBeVisible()
  const id = await createPiece(page)
  await openMat(page, id)
  await page.keyboard.press('e')
  await expect(page.locator('.scale')).toHaveText(/^true size( ·|$)/)
  expect(await page.evaluate(() => localStorage.getItem('weben-card-px'))).toBe('428')
})
