import type { Locator, Page } from '@playwright/test'
import { address, createPiece, expect, plainBracelet, readPiece, saved, test, chooseFrom, toStage } from './weaver'

/**
 * On every route with fields that are saved by a button: what cannot be read says so and stops the button, and Enter
 * does not press it by surprise.
 */

interface Form {
  readonly where: string
  /** Goes there; returns the fields that measure something and the button that they must stop. */
  readonly open: (page: Page) => Promise<{ readonly fields: Locator; readonly button: Locator }>
}

const number = (page: Page | Locator) => page.locator('input[autocomplete="off"]:not([role="combobox"]):visible')

const gaugeForm = (where: string, opens: string, keeps: string): Form => ({
  where,
  open: async (page) => {
    await toStage(page, await createPiece(page), 'fit')
    await page.getByRole('button', { name: opens }).click()
    const form = page.locator('.gauge .form')
    return { fields: number(form), button: form.getByRole('button', { name: keeps }) }
  },
})

const FORMS: readonly Form[] = [
  {
    where: 'start',
    open: async (page) => {
      await page.goto('/start')
      await expect(page.getByLabel('Wrist')).toBeVisible()
      return { fields: number(page), button: page.getByRole('button', { name: 'Lay it on the mat' }) }
    },
  },
  {
    where: 'box: beads',
    open: async (page) => {
      await page.goto('/box')
      await page.getByRole('button', { name: 'Put beads in' }).click()
      const dialog = page.getByRole('dialog')
      await dialog.getByRole('textbox', { name: 'Name' }).fill('Fog')
      return { fields: number(dialog), button: dialog.getByRole('button', { name: 'Put it in' }) }
    },
  },
  {
    where: 'box: weigh',
    open: async (page) => {
      await page.request.post('/api/shelf', {
        headers: { origin: address() },
        data: { values: [{ kind: 'bead', name: 'Fog', spec: 'cylinder-11', colour: '#d9d4c7', finish: 'matte' }] },
      })
      await page.goto('/box')
      await page.getByRole('button', { name: 'Weigh Fog' }).click()
      const dialog = page.getByRole('dialog')
      return { fields: number(dialog), button: dialog.getByRole('button', { name: 'Keep this weight' }) }
    },
  },
  gaugeForm('fit: a swatch', 'Enter a swatch', 'Keep the swatch'),
  gaugeForm('fit: a finished piece', 'This piece is finished: measure it', 'Keep it as my gauge'),
  {
    where: 'mat: a size of one’s own',
    open: async (page) => {
      await toStage(page, await createPiece(page), 'mat')
      await page.getByRole('button', { name: 'Change A Fog' }).click()
      await chooseFrom(page.getByRole('combobox', { name: 'Shape and size' }), 'A size of my own…')
      const dialog = page.getByRole('dialog')
      return { fields: number(dialog), button: dialog.getByRole('button', { name: 'Use this size' }) }
    },
  },
  {
    where: 'people',
    open: async (page) => {
      await page.goto('/people')
      await page.getByRole('button', { name: 'Add a person' }).click()
      await page.getByRole('textbox', { name: 'Name' }).fill('Ada')
      await page.getByRole('button', { name: '+ Wrist' }).click()
      return { fields: number(page), button: page.getByRole('button', { name: 'Keep', exact: true }) }
    },
  },
]

for (const { where, open } of FORMS) {
  test(`${where}: a field that cannot be read says so and stops the button`, async ({ weaver: page }) => {
    const { fields, button } = await open(page)
    const count = await fields.count()
    expect(count).toBeGreaterThan(0)
    for (let k = 0; k < count; k++) {
      const field = fields.nth(k)
      const was = await field.inputValue()
      await field.fill('abc')
      await field.press('Tab')
      await expect(field).toHaveAttribute('aria-invalid', 'true')
      const at = page.url()
      await button.click()
      await expect(page.getByRole('alert').filter({ hasText: /\S/ }).first()).toBeVisible()
      expect(page.url()).toBe(at)
      await expect(field).toBeVisible()
      await field.fill(was)
      await field.press('Tab')
    }
  })
}

/** Fields that are saved as they are left: what cannot be read is asked back and changes nothing. */
for (const stage of ['fit', 'supplies'] as const) {
  test(`${stage}: a field that cannot be read says so and changes nothing`, async ({ weaver: page }) => {
    const id = await createPiece(page, plainBracelet({ motif: 'diamonds' }))
    await toStage(page, id, stage)
    await expect(
      page.getByRole('heading', { name: stage === 'fit' ? 'What comes near' : 'Beads to buy' }),
    ).toBeVisible()
    const fields = number(page)
    const count = await fields.count()
    expect(count).toBeGreaterThan(0)
    for (let k = 0; k < count; k++) {
      const field = fields.nth(k)
      const was = await field.inputValue()
      await saved(page)
      const before = await readPiece(page, id)
      await field.fill('abc')
      await field.press('Tab')
      await expect(field).toHaveAttribute('aria-invalid', 'true')
      expect(await readPiece(page, id)).toEqual(before)
      await field.fill(was)
      await field.press('Tab')
      await expect(field).not.toHaveAttribute('aria-invalid', 'true')
    }
  })
}

for (const path of ['/devices', '/reference']) {
  test(`${path}: a field that cannot be read says so`, async ({ weaver: page }) => {
    await page.goto(path)
    const fields = number(page)
    await expect(fields.first()).toBeEnabled()
    const count = await fields.count()
    for (let k = 0; k < count; k++) {
      const field = fields.nth(k)
      const was = await field.inputValue()
      await field.fill('abc')
      await field.press('Tab')
      await expect(field).toHaveAttribute('aria-invalid', 'true')
      await field.fill(was)
      await field.press('Tab')
    }
  })
}

test('a start without a server promises nothing, keeps what was filled in, and goes on when it is back', async ({
  weaver: page,
}) => {
  await page.goto('/start')
  await page.getByLabel('Wrist').fill('165')
  await page.route('**/api/**', (route) => route.abort())
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'the piece is not begun yet' })).toBeVisible()
  await expect(page.getByText('until then nothing can be saved on this page')).toBeVisible()
  await page.unroute('**/api/**')
  await expect(page.getByText('until then nothing can be saved on this page')).toBeHidden()
  await expect(page.getByLabel('Wrist')).toHaveValue('165 mm')
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
})

test('Enter in a field of the start does not begin a piece', async ({ weaver: page }) => {
  await page.goto('/start')
  await page.getByLabel('Wrist').fill('165')
  await page.getByLabel('Wrist').press('Enter')
  await page.waitForTimeout(500)
  expect(page.url()).toMatch(/\/start$/)
})
