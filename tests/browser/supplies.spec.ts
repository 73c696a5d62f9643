import { readFile } from 'node:fs/promises'
import { parse } from 'csv-parse/sync'
import type { Page } from '@playwright/test'
import { shelfValueSchema, type ShelfInput, type ShelfItem } from '#core/shelf/shelf'
import { address, createPiece, expect, plainBracelet, readPiece, saved, test, chooseFrom, toStage } from './weaver'

async function put(page: Page, ...values: ShelfInput[]): Promise<ShelfItem[]> {
  const response = await page.request.post(`${address()}/api/shelf`, {
    headers: { origin: address() },
    data: { values: values.map((v) => shelfValueSchema.parse(v)) },
  })
  expect(response.ok()).toBe(true)
  return ((await response.json()) as { items: ShelfItem[] }).items
}
/** The first bead of every new tray. */
const fog = (grams: number): ShelfInput => ({
  kind: 'bead',
  name: 'Fog',
  spec: 'cylinder-11',
  colour: '#d9d4c7',
  finish: 'lustre',
  grams,
  tubeGrams: 2.3,
})
const grams = async (page: Page, name: string) => {
  const { items } = (await (await page.request.get(`${address()}/api/shelf`)).json()) as { items: ShelfItem[] }
  const found = items.find((i) => 'name' in i.value && i.value.name === name)!.value
  return found.kind === 'bead' ? found.grams : Number.NaN
}
const setSupplier = async (page: Page, way: string) => {
  await page.goto('/devices')
  const kept = page.waitForResponse((r) => r.url().endsWith('/api/settings') && r.request().method() === 'PATCH')
  await page.getByLabel(way, { exact: true }).check()
  await kept
}

test('shop for two pieces from one box: one line, the box taken off, a tube wanted twice is said', async ({
  weaver: page,
}) => {
  await put(
    page,
    fog(3),
    { kind: 'finding', name: 'My toggle', count: 1, closure: { kind: 'toggle', lengthMm: 14 } },
    { kind: 'thread', name: 'Grey', thread: 'gel-6', lengthMm: 500_000 },
  )
  const [first, second] = [
    await createPiece(page, plainBracelet({ name: 'One' })),
    await createPiece(page, plainBracelet({ name: 'Two' })),
  ]
  for (const id of [first, second]) {
    await toStage(page, id, 'supplies')
    await expect(page.getByText(/3\.0 g in the box/)).toBeVisible()
    await page.getByRole('button', { name: 'Set aside in the box' }).click()
    await expect(page.getByText(/Set aside in the box for this piece|nothing of this piece/)).toBeVisible()
  }
  // A plain band of 6 by about 100 is some 600 beads and 700 with spare: 3.6 g; the first took all of the tube, so the
  // second finds none.
  await page.goto(`/shop?piece=${first}`)
  await expect(page.getByLabel('One')).toBeChecked()
  await page.getByLabel('Two').check()
  const line = page.locator('[data-bead=Fog]')
  await expect(line).toContainText('for One, Two; 3.0 g from the box')
  await expect(page.locator('[data-other="Toggle: ring and bar"] .figure')).toHaveText('1')
  const figure = Number((await line.locator('.figure').innerText()).replace(' g', ''))
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()])
  const rows = parse(await readFile(await file.path()), { columns: true }) as Record<string, string>[]
  expect(Number(rows.find((r) => r.name === 'Fog')!['to buy'])).toBeCloseTo(figure, 1)
  // Prices, and what they come to.
  await page.getByRole('button', { name: 'Ask the supplier' }).click()
  await expect(page.getByText(/Prices of \d of 1 bead/)).toBeVisible()
  // Two pieces that set more aside than is there are named.
  const { items } = (await (await page.request.get(`${address()}/api/shelf`)).json()) as { items: ShelfItem[] }
  const tube = items.find((i) => i.value.kind === 'bead')!
  await page.request.post(`${address()}/api/piece/${second}/holding`, {
    headers: { origin: address() },
    data: { what: 'reserve', asks: [{ shelfId: tube.id, amount: 2 }] },
  })
  await page.goto('/box')
  await expect(page.getByRole('heading', { name: 'Wanted twice' })).toBeVisible()
  await expect(page.getByText(/One and Two|Two and One/)).toBeVisible()
})

test('beads are taken out of the box, and put back', async ({ weaver: page }) => {
  await put(page, fog(50))
  const id = await createPiece(page)
  await toStage(page, id, 'supplies')
  await expect(page.locator('[data-test=to-buy]')).toHaveText('0.0 g')
  await page.getByRole('button', { name: 'Take out of the box' }).click()
  await expect(page.getByText('Taken out of the box.')).toBeVisible()
  const left = await grams(page, 'Fog')
  expect(left).toBeLessThan(49)
  await expect(page.getByText(/g taken out for this piece/)).toBeVisible()
  await page.getByRole('button', { name: 'Put back in the box' }).click()
  await expect(page.getByText('Put back in the box.')).toBeVisible()
  expect(await grams(page, 'Fog')).toBeCloseTo(50, 3)
})

test('a tube is weighed; the scale fails once, and nothing is lost', async ({ weaver: page }) => {
  await put(page, fog(1))
  await page.goto('/devices')
  await page.getByLabel('On the pan, g').fill('14.62')
  await page.getByLabel('On the pan, g').press('Tab')
  await page.getByRole('button', { name: 'Read the scale' }).click()
  await expect(page.getByText(/^14\.6\d g/)).toBeVisible()
  await page
    .locator('section', { hasText: 'Bench scale' })
    .getByRole('button', { name: 'Miss the next reading' })
    .click()
  await expect(page.getByText('It will not answer once.')).toBeVisible()
  await page.getByRole('link', { name: 'In the box' }).click()
  await page.getByRole('button', { name: 'Weigh Fog' }).click()
  await page.getByRole('button', { name: 'Weigh tube and beads' }).click()
  await expect(page.getByRole('alert')).toContainText('The scale does not answer')
  await page.getByRole('button', { name: 'Weigh tube and beads' }).click()
  // 14.62 − 2.30 = 12.32 g, 195 to a gram
  await expect(page.getByRole('status').filter({ hasText: 'beads' })).toContainText(/12\.3\d g/)
  await expect(page.getByRole('status').filter({ hasText: 'beads' })).toContainText(/about 2.?40\d beads/)
  await page.getByRole('button', { name: 'Keep this weight' }).click()
  await expect(page.locator('[data-item=Fog] .figure')).toHaveText('12.3 g')
  expect(await grams(page, 'Fog')).toBeCloseTo(12.32, 1)
  // By hand it goes without any scale.
  await page.getByRole('button', { name: 'Weigh Fog' }).click()
  await page.getByLabel('or type it, g').fill('7,3')
  await page.getByRole('button', { name: 'Keep this weight' }).click()
  await expect(page.locator('[data-item=Fog] .figure')).toHaveText('5.0 g')
})

test('the supplier is down: the list works without it; short of stock is said', async ({ weaver: page }) => {
  const id = await createPiece(page, plainBracelet({ motif: 'rings', widthMm: 12 }))
  await setSupplier(page, 'down')
  await toStage(page, id, 'supplies')
  await page.getByRole('button', { name: 'Ask the supplier' }).click()
  await expect(
    page.getByText('The supplier does not answer. The list below works without its prices; ask again later.'),
  ).toBeVisible()
  await expect(page.locator('.beads li').first()).toContainText(' × ')
  await setSupplier(page, 'slow to answer')
  await toStage(page, id, 'supplies')
  await page.getByRole('button', { name: 'Ask the supplier' }).click()
  await expect(page.getByRole('button', { name: 'Asking…' })).toBeDisabled()
  await expect(page.getByText(/^Prices of/)).toBeVisible()
  await expect(page.locator('.beads li').first()).toContainText('supplier: €')
})

test('cost follows prices, speed and batch; what is left of the price is said', async ({ weaver: page }) => {
  const id = await createPiece(page)
  await toStage(page, id, 'supplies')
  await page.getByText('Prices, speed, currency').click()
  await page.getByLabel('A Fog, 10 g').fill('4,00')
  await page.getByLabel('A Fog, 10 g').press('Tab')
  await page.getByRole('button', { name: 'Add a finding' }).click()
  await page.getByLabel('Each, finding 1').fill('0,50')
  await page.getByLabel('Each, finding 1').press('Tab')
  await expect(page.getByRole('row', { name: /Other findings € 1\.00/ })).toBeVisible()
  await page.getByLabel('You ask for one').fill('90')
  await page.getByLabel('You ask for one').press('Tab')
  await page.getByLabel('How many to make').fill('3')
  await page.getByLabel('How many to make').press('Tab')
  await expect(page.getByText('Left of what you ask, € 270.00')).toBeVisible()
  await expect(page.getByRole('row', { name: /Beads worked in € [1-9]/ })).toBeVisible()
  await page.getByLabel('Your hour').fill('a lot')
  await page.getByLabel('Your hour').press('Tab')
  await expect(page.getByText('“a lot” is not an amount. Type it like 4.50.')).toBeVisible()
  await saved(page)
  const { piece } = await readPiece(page, id)
  expect(piece).toMatchObject({
    supply: { batch: 3 },
    cost: {
      asked: 9000,
      hourly: 1500,
      beads: [{ number: 1, grams: 10, price: 400 }],
      findings: [{ name: 'Jump rings', count: 2, price: 50 }],
    },
  })
  for (const chart of ['What it is made up of, as a chart', 'Beads by colour and size, as a chart']) {
    await page.getByText(chart).click()
    await expect(page.locator('details', { hasText: chart }).locator('.plot .main-svg').first()).toBeVisible()
  }
})

test('a hole that is tight says what would help, and one press takes the advice', async ({ weaver: page }) => {
  const id = await createPiece(page, plainBracelet({ technique: 'peyote', spec: 'cylinder-15', widthMm: 9 }))
  await toStage(page, id, 'supplies')
  await chooseFrom(page.getByRole('combobox', { name: 'Needle' }), /size 10/)
  await expect(
    page
      .getByText('Will not go through')
      .or(page.getByText(/^Tight/))
      .first(),
  ).toBeVisible()
  for (let k = 0; k < 6 && (await page.getByText('Would help:').count()) > 0; k++)
    await page.locator('.helps button').first().click()
  await expect(page.getByText('Would help:')).toHaveCount(0)
  await saved(page)
  expect((await readPiece(page, id)).piece.supply.needle).not.toBe('10')
})

test('the box goes out as CSV and comes back, with a report of each bad line', async ({ weaver: page }) => {
  await put(page, fog(12.5), { kind: 'thread', name: 'Grey', thread: 'gel-6', lengthMm: 20_000 })
  await page.goto('/box')
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'CSV out' }).click(),
  ])
  const text = (await readFile(await file.path())).toString()
  expect(parse(text, { columns: true })).toHaveLength(2)
  const more =
    `${text.replace('12.5', '9.5')}bead,Moss,cylinder 11/0,#446622,matte,4,g,0,,,\r\nbead,Stone,pebble ` +
    `3/0,#446622,matte,4,g,0,,,\r\n`
  await page.getByLabel('CSV in').setInputFiles({ name: 'box.csv', mimeType: 'text/csv', buffer: Buffer.from(more) })
  await expect(page.getByText('1 put in, 1 changed, 1 as they were; 1 line was not read.')).toBeVisible()
  await expect(page.getByRole('list', { name: 'Lines that were not read' })).toContainText(
    '“pebble 3/0” is not a size known here.',
  )
  await expect(page.locator('[data-item=Fog] .figure')).toHaveText('9.5 g')
  await expect(page.locator('[data-item=Moss] .figure')).toHaveText('4.0 g')
  // Taken out by a slip, and back with one press.
  await page.getByRole('button', { name: 'Take Moss out' }).click()
  await expect(page.locator('[data-item=Moss]')).toHaveCount(0)
  await page.getByRole('button', { name: 'Put it back' }).click()
  await expect(page.locator('[data-item=Moss] .figure')).toHaveText('4.0 g')
})

test('a closure of one’s own is put in the box and chosen for a piece', async ({ weaver: page }) => {
  await page.goto('/box')
  await page.getByRole('button', { name: 'Finding' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Shell button')
  await chooseFrom(page.getByRole('combobox', { name: 'Closes as' }), 'Button and loop')
  await page.getByLabel('Its length, closed').fill('17')
  await page.getByRole('button', { name: 'Put it in' }).click()
  await expect(page.locator('[data-item="Shell button"]')).toContainText('Button and loop, 17.0 mm closed')
  const id = await createPiece(page)
  await toStage(page, id, 'fit')
  await chooseFrom(page.getByRole('combobox', { name: 'Closure', exact: true }), 'Shell button (from the box)')
  await saved(page)
  expect((await readPiece(page, id)).piece.fit.closure).toMatchObject({
    kind: 'button',
    name: 'Shell button',
    lengthMm: 17,
  })
})

test('what is left becomes small things, earrings first', async ({ weaver: page }) => {
  await put(
    page,
    fog(4),
    { ...(fog(3) as object), name: 'Ink', colour: '#20305a' } as ShelfInput,
    { ...(fog(2) as object), name: 'Ember', colour: '#c1502f' } as ShelfInput,
  )
  await createPiece(page, plainBracelet({ name: 'Again', bodyMm: 120 }))
  await page.goto('/leftovers')
  await expect(page.locator('[data-design]').first()).toContainText('earrings')
  await expect(page.locator('[data-piece=Again]')).toContainText('Fog ends it')
  await page.getByRole('button', { name: 'Begin Leaf earrings' }).click()
  await expect(page.getByRole('heading', { name: 'Leaf earrings' })).toBeVisible()
  await page.getByRole('link', { name: /^Supplies/ }).click()
  await expect(page.locator('[data-test=to-buy]')).toHaveText('0.0 g')
})
