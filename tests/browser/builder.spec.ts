import { recipeText } from '#core/recipe/shorthand'
import { readRecipe } from '#core/recipe/check'
import { valueOf } from '#core/problem'
import type { Page } from '@playwright/test'
import { chooseFrom, chooseWay, expect, readPiece, saved, test, plain, toStage } from './weaver'

/** The motif of a piece’s recipe in short hand, a step a line. */
async function motifOf(page: Page, id: string): Promise<string[]> {
  const { plan } = (await readPiece(page, id)).piece.parts[0]! as unknown as { plan: { recipe: unknown } }
  const text = recipeText(valueOf(readRecipe(plan.recipe)))
  return (text.split('\nmotif\n')[1] ?? '')
    .split('\nend\n')[0]!
    .trimEnd()
    .split('\n')
    .map((line) => line.slice(2))
}

async function begin(page: Page, way: string, typed: string): Promise<string> {
  await page.goto('/start')
  await page.getByRole('radio', { name: 'Bracelet', exact: true }).click()
  await chooseWay(page, way, typed)
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  await page.getByRole('button', { name: 'Steps', exact: true }).click()
  return /piece\/([^/]+)\/mat/.exec(page.url())![1]!
}
const strung = (page: Page, name: string) =>
  page.getByRole('group', { name: 'String' }).getByRole('button', { name, exact: true })

/** Middles of the beads of the motif in hand on the screen, in the order of picking up. */
const beadsOf = (page: Page) =>
  page.locator('.board path.there.now').evaluateAll((paths) =>
    paths.map((path) => {
      const { x, y, width, height } = path.getBoundingClientRect()
      return { x: x + width / 2, y: y + height / 2, width }
    }),
  )

test('a small recipe is built from nothing: strung, gone through, varied, repeated, and taken back', async ({
  weaver: page,
}) => {
  const id = await begin(page, 'Recipe of your own', 'own')
  await page.getByRole('button', { name: 'Begin with nothing' }).click()
  await expect(page.getByText('Nothing is strung yet')).toBeVisible()
  await strung(page, 'bead').click()
  await strung(page, 'bead').click()
  await page.getByRole('button', { name: 'Another bead…' }).click()
  await chooseFrom(page.getByRole('combobox', { name: 'Bead of the tray' }), /^B /)
  await page.getByLabel('What it is here').fill('petal')
  await page.getByRole('button', { name: 'String one' }).click()
  for (let k = 0; k < 4; k++) await strung(page, 'petal').click()
  await expect.poll(() => motifOf(page, id)).toEqual(['pick bead*2 petal*5'])
  await expect.poll(async () => (await readPiece(page, id)).piece.parts[0]!.repeat).toEqual([[2, 1, 5, 2]])

  // The ring is closed by pressing the near end of the first petal: two stem beads, then it.
  await expect(page.locator('.board path.there.now')).toHaveCount(7)
  await page.waitForTimeout(300)
  const straight = await beadsOf(page)
  const petal = straight[2]!
  await page.mouse.click(petal.x - petal.width * 0.3, petal.y)
  await expect.poll(() => motifOf(page, id)).toEqual(['pick bead*2 petal*5', 'pass petal'])
  // And what was pressed is taken back and done again by keys.
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  await expect.poll(() => motifOf(page, id)).toEqual(['pick bead*2 petal*5'])
  const board = page.getByRole('application')
  await board.focus()
  for (let k = 0; k < 40; k++) {
    await page.keyboard.press('ArrowRight')
    if (/^the 1st petal, from where/.test(await page.locator('.board [role=status]').innerText())) break
  }
  await page.keyboard.press('Enter')
  await expect.poll(() => motifOf(page, id)).toEqual(['pick bead*2 petal*5', 'pass petal'])
  await plain(page)

  // The petals may vary: the ring closes for any number of them.
  await page.getByTestId('steps').or(page.locator('[data-test=steps]')).getByText('petals').first().click()
  await page.getByRole('button', { name: 'May vary…' }).nth(1).click()
  await page.getByLabel('What it counts').fill('Petals')
  await page.getByRole('button', { name: 'Make it a field' }).click()
  await expect.poll(async () => (await motifOf(page, id))[0]).toBe('pick bead*2 petal*petals')
  await page.getByLabel('Petals', { exact: true }).fill('7')
  await page.getByLabel('Petals', { exact: true }).press('Enter')
  await saved(page)
  await expect.poll(async () => (await readPiece(page, id)).piece.parts[0]!.repeat).toEqual([[2, 1, 7, 2]])

  // A knot, put at the end of all, and the whole counted elsewhere.
  await page.getByRole('tab', { name: /End/ }).click()
  await strung(page, 'bead').click()
  await page.getByRole('button', { name: 'Knot', exact: true }).click()
  await saved(page)
  await toStage(page, id, 'tally')
  await expect(page.getByText('through the 1st petal').first()).toBeVisible()
  await expect(page.getByText('In one repeat')).toBeVisible()
  await expect(page.locator('.counts .figures')).toContainText('9')
})

test('a design that ships is copied and changed on a phone: a step more, repeated, taken back', async ({
  weaver: page,
}) => {
  await page.setViewportSize({ width: 400, height: 860 })
  const id = await begin(page, 'Peaked rings', 'peaked')
  await expect(page.getByText('This design ships with Weben')).toBeVisible()
  await plain(page)
  await page.getByRole('button', { name: 'Change its steps' }).click()
  await expect.poll(async () => (await readPiece(page, id)).piece.parts[0]!.technique).toBe('own-recipe')
  const before = await motifOf(page, id)
  const rows = (await readPiece(page, id)).piece.parts[0]!.repeat
  // A bead more at the needle, and undone from the head of the page.
  await page.getByRole('group', { name: 'String' }).getByRole('button').first().click()
  await expect.poll(async () => (await motifOf(page, id)).length).toBe(before.length + 1)
  await page.locator('[data-test=steps] button.line').last().click()
  await page.getByRole('button', { name: 'Repeat…' }).click()
  await page.getByRole('button', { name: 'Repeat them' }).click()
  await expect.poll(async () => (await motifOf(page, id)).slice(-2)[0]).toMatch(/^each [a-z]\*2$/)
  await plain(page)
  for (let k = 0; k < 2; k++) await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  await expect.poll(() => motifOf(page, id)).toEqual(before)
  expect((await readPiece(page, id)).piece.parts[0]!.repeat).toEqual(rows)
  // Kept, it is worked in another piece.
  await page.getByRole('button', { name: 'Keep it for other pieces' }).click()
  await expect(page.getByText('is kept: it can be worked in any piece')).toBeVisible()
  const other = await begin(page, 'Flowers on a stem', 'flower')
  await page.getByRole('button', { name: 'Work by it' }).click()
  await expect.poll(async () => (await readPiece(page, other)).piece.parts[0]!.technique).toBe('own-recipe')
  await expect.poll(() => motifOf(page, other)).toEqual(before)
  await plain(page)
  await page.goto('/box')
  await expect(page.getByRole('heading', { name: 'Recipes' })).toBeVisible()
})
