import { readFile } from 'node:fs/promises'
import Ajv2020 from 'ajv/dist/2020.js'
import { parse } from 'csv-parse/sync'
import { PNG } from 'pngjs'
import type { Page } from '@playwright/test'
import {
  createPiece,
  cursorTo,
  expect,
  newName,
  openMat,
  PASSWORD,
  plainBracelet,
  readPiece,
  saved,
  test,
  chooseFrom,
  toStage,
} from './weaver'

async function download(page: Page, button: string): Promise<Buffer> {
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: button }).click()])
  return readFile(await file.path())
}

test('from nothing to a printed bracelet: the whole way', async ({ page, baseURL }) => {
  await page.goto(baseURL!)
  await page.getByLabel('Name').fill(newName())
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Make the account' }).click()

  await expect(page.getByRole('heading', { name: 'Your first bracelet' })).toBeVisible()
  await page.getByRole('link', { name: 'Start a piece' }).first().click()

  // A wrist as people type it, and the answer at once.
  await page.getByLabel('Wrist').fill('6 3/4 in')
  await expect(page.getByText('wanted 184')).toBeVisible()
  await page.getByLabel('Wrist').fill('17,5 cm')
  await page.getByRole('radio', { name: /close/ }).click()
  await expect(page.getByText('wanted 181')).toBeVisible()
  await page.getByRole('radio', { name: /Chevron/ }).click()
  await page.getByLabel('Width wanted').fill('long')
  await expect(page.getByText('“long” is not a length.')).toBeVisible()
  await page.getByLabel('Width wanted').fill('13')
  await page.getByLabel('Name').fill('First band')
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()

  await expect(page.getByRole('heading', { name: 'First band' })).toBeVisible()
  await expect(page.getByText('Yes, close to the wrist')).toBeVisible()
  const before = Number(
    (await page.getByTestId('beads').or(page.locator('[data-test=beads]')).innerText()).replace(/\s/g, ''),
  )
  expect(before).toBeGreaterThan(500)

  // Fit: another choice, and the piece follows.
  await page.getByRole('link', { name: /^Fit/ }).click()
  const choice = page.getByRole('button', { name: /^Take \d+ repeats, whole repeats/ }).first()
  await choice.click()
  await expect(page.getByText('As planned')).toBeVisible()
  await saved(page)

  await page.getByRole('link', { name: 'Tally' }).click()
  await expect(page.getByRole('heading', { name: 'Row by row, as worked' })).toBeVisible()
  await expect(page.getByText('Rows 1–2 ←').first()).toBeVisible()
  const counts = parse((await download(page, 'Counts as CSV')).toString(), { columns: true }) as Record<
    string,
    string
  >[]
  const total = counts.reduce((sum, row) => sum + Number(row.count), 0)
  await expect(page.getByText(String(total)).first()).toBeVisible()
  const rows = parse((await download(page, 'Rows as CSV')).toString(), { columns: true }) as Record<string, string>[]
  expect(rows.reduce((sum, row) => sum + Number(row.beads), 0)).toBe(total)

  await page.getByRole('link', { name: /^Supplies/ }).click()
  await expect(page.getByText('Goes through easily').first()).toBeVisible()
  await page.getByLabel('Spare').fill('20')
  await page.getByLabel('Spare').press('Tab')
  await saved(page)

  await page.getByRole('link', { name: 'Print' }).click()
  await expect(page.getByText('50 mm', { exact: true })).toBeVisible()
  const file = JSON.parse((await download(page, 'Piece file (JSON)')).toString()) as {
    piece: { supply: { spare: number } }
  }
  expect(file.piece.supply.spare).toBe(0.2)
  const schema = JSON.parse(
    await readFile(new URL('../../docs/piece-file.schema.json', import.meta.url), 'utf8'),
  ) as object
  expect(new Ajv2020({ strict: false }).validate(schema, file)).toBe(true)
  const svg = (await download(page, 'Chart as SVG')).toString()
  expect(svg.match(/<use /g)).toHaveLength(total)
  const png = PNG.sync.read(await download(page, 'Chart as PNG'))
  expect(png.width).toBeGreaterThan(png.height)

  // The sheet prints on the paper that was asked for.
  const pdf = await page.pdf({ preferCSSPageSize: true })
  const box = /\/MediaBox\s*\[\s*0 0 ([\d.]+) ([\d.]+)/.exec(pdf.toString('latin1'))!
  expect([Math.round(Number(box[1])), Math.round(Number(box[2]))]).toEqual([595, 842])
  await chooseFrom(page.getByRole('combobox', { name: 'Paper' }), 'Letter')
  const letter = /\/MediaBox\s*\[\s*0 0 ([\d.]+) ([\d.]+)/.exec(
    (await page.pdf({ preferCSSPageSize: true })).toString('latin1'),
  )!
  expect([Math.round(Number(letter[1])), Math.round(Number(letter[2]))]).toEqual([612, 792])

  // Return: everything is there.
  await page.reload()
  await page.getByRole('link', { name: /^Supplies/ }).click()
  await expect(page.getByLabel('Spare')).toHaveValue('20 %')
})

test('every tool of the mat', async ({ weaver: page }) => {
  const id = await createPiece(page)
  await openMat(page, id)
  const mat = page.getByRole('application')
  const at = async (c: number, r: number) => {
    const { piece } = await readPiece(page, id)
    const part = piece.parts[0]!
    const row = [...part.start, ...Array.from({ length: part.times }).flatMap(() => part.repeat), ...part.end][r]!
    const flat = row.flatMap((n, i) => (i % 2 === 0 ? Array<number>(n).fill(row[i + 1]!) : []))
    return flat[c]
  }
  const first = (await readPiece(page, id)).piece.parts[0]!.start.length

  // lay with the second dish, in the first repeat; the other copies follow
  await page.keyboard.press('2')
  await cursorTo(page, 1, first)
  await mat.press(' ')
  await saved(page)
  expect(await at(1, first)).toBe(2)
  expect(await at(1, first + 8)).toBe(2)
  // run along the row below with the third
  await page.keyboard.press('3')
  await page.keyboard.press('r')
  await mat.press('ArrowRight')
  await mat.press(' ')
  await mat.press('ArrowDown')
  await mat.press('ArrowDown')
  await mat.press(' ')
  await saved(page)
  expect([await at(1, first + 1), await at(2, first + 1), await at(3, first + 1)]).toEqual([3, 3, 3])
  // take what lies there, fill the ground with it, undo, redo
  await page.keyboard.press('t')
  await mat.press('Enter')
  await expect(page.getByRole('radio', { name: /Rust/ })).toBeChecked()
  await page.keyboard.press('f')
  await cursorTo(page, 0, 0)
  await mat.press('Enter')
  await saved(page)
  expect(await at(5, 0)).toBe(3)
  await page.keyboard.press('Control+z')
  await saved(page)
  expect(await at(5, 0)).toBe(1)
  await page.getByRole('button', { name: 'Redo' }).click()
  await saved(page)
  expect(await at(5, 0)).toBe(3)
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  // swap one bead for another everywhere
  await page.keyboard.press('4')
  await page.keyboard.press('w')
  await mat.press('Enter')
  await saved(page)
  expect([await at(0, 0), await at(1, first), await at(2, first + 1)]).toEqual([4, 2, 3])
  // select, count, copy, set down, mirror
  await page.keyboard.press('s')
  await cursorTo(page, 1, first)
  await mat.press('Enter')
  await mat.press('ArrowDown')
  await mat.press('ArrowRight')
  await mat.press('Enter')
  await expect(page.locator('[data-test=selected]')).toHaveText('4')
  await page.keyboard.press('Control+c')
  await page.keyboard.press('v')
  await cursorTo(page, 4, 0)
  await mat.press('Enter')
  await saved(page)
  expect([await at(4, 0), await at(5, 1)]).toEqual([2, 3])
  await page.getByRole('button', { name: 'Mirror across' }).click()
  await saved(page)
  expect([await at(1, first), await at(2, first)]).toEqual([4, 2])
  // lift
  await page.keyboard.press('Escape')
  await page.keyboard.press('i')
  await cursorTo(page, 0, 0)
  await mat.press(' ')
  await saved(page)
  expect(await at(0, 0)).toBe(0)
})

test('the pointer lays a line of beads and shows the row under it', async ({ weaver: page }) => {
  const id = await createPiece(page)
  await openMat(page, id)
  await page.getByRole('radio', { name: /Kingfisher/ }).click()
  await page.getByRole('button', { name: 'Bead', exact: true }).click()
  const box = (await page.getByRole('application').boundingBox())!
  await page.mouse.move(box.x + box.width / 2 - 120, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + 120, box.y + box.height / 2, { steps: 6 })
  await page.mouse.up()
  await saved(page)
  const { piece } = await readPiece(page, id)
  expect(JSON.stringify(piece.parts[0]!.repeat.concat(piece.parts[0]!.start))).toContain('1, 2'.replace(' ', ''))
  await expect(page.getByLabel('Words of the row')).toContainText('Kingfisher'.slice(0, 0) + 'B')
  // a wheel with Ctrl comes closer, without it the mat moves
  const scale = page.locator('.scale')
  const was = await scale.innerText()
  await page.keyboard.down('Control')
  await page.mouse.wheel(0, -200)
  await page.keyboard.up('Control')
  await expect(scale).not.toHaveText(was)
  await page.keyboard.press('e')
  await expect(scale).toHaveText(/^true size( ·|$)/)
})

test('a piece file goes out and comes back; a bad one is refused with words', async ({ weaver: page }) => {
  const id = await createPiece(
    page,
    plainBracelet({ name: 'There and back', motif: 'diamonds', widthMm: 20, technique: 'peyote' }),
  )
  await toStage(page, id, 'print')
  const file = await download(page, 'Piece file (JSON)')
  await page.goto('/')
  const chooser = page.locator('input[type=file]')
  await chooser.setInputFiles({ name: 'cut.json', mimeType: 'application/json', buffer: file.subarray(0, 300) })
  await expect(page.getByRole('alert')).toContainText('it is not JSON, or it was cut off')
  await chooser.setInputFiles({
    name: 'newer.json',
    mimeType: 'application/json',
    buffer: Buffer.from(file.toString().replace(/"version": \d+/, '"version": 7')),
  })
  await expect(page.getByRole('alert')).toContainText('newer Weben (version 7')
  await chooser.setInputFiles({ name: 'good.json', mimeType: 'application/json', buffer: file })
  await expect(page.getByRole('application')).toBeVisible()
  const copy = page.url().match(/piece\/([^/]+)/)![1]!
  expect(copy).not.toBe(id)
  expect((await readPiece(page, copy)).piece).toEqual((await readPiece(page, id)).piece)
})

test('put away and bring back', async ({ weaver: page }) => {
  await createPiece(page, plainBracelet({ name: 'Come back' }))
  await page.goto('/')
  await page.getByRole('button', { name: 'Put Come back away' }).click()
  await expect(page.getByRole('heading', { name: 'Your first bracelet' })).toBeVisible()
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(page.getByRole('link', { name: 'Come back' })).toBeVisible()
})

test('beads of the tray are changed, added and taken off', async ({ weaver: page }) => {
  const id = await createPiece(page)
  await openMat(page, id)
  await page.getByRole('button', { name: 'Change A Fog' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Chalk')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('radio', { name: /Chalk/ })).toBeVisible()
  await page.getByRole('button', { name: 'Add a bead' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Moss')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('radio', { name: /Moss/ })).toBeChecked()
  await saved(page)
  const { piece } = await readPiece(page, id)
  expect(piece.tray.map((b) => `${b.letter} ${b.name}`)).toEqual([
    'A Chalk',
    'B Kingfisher',
    'C Rust',
    'D Old gold',
    'E Moss',
  ])
  await page.getByRole('button', { name: 'Change E Moss' }).click()
  await page.getByRole('button', { name: 'Take it off the tray' }).click()
  await expect(page.getByRole('radio', { name: /Moss/ })).toHaveCount(0)
})

test('the demo workshop opens with one button', async ({ page, baseURL }) => {
  await page.goto(baseURL!)
  await page.getByRole('button', { name: 'Open the demo workshop' }).click()
  await expect(page.getByRole('link', { name: 'Reed bank cuff', exact: true })).toBeVisible()
  expect(await page.locator('.pieces > li').count()).toBeGreaterThanOrEqual(4)
})

test('the stitch, the bead and the width can be changed later; the piece follows', async ({ weaver: page }) => {
  const id = await createPiece(page, plainBracelet({ technique: 'loom', widthMm: 10.5 }))
  expect((await readPiece(page, id)).piece.parts[0]!.columns).toBe(7)
  await toStage(page, id, 'fit')
  await chooseFrom(page.getByRole('combobox', { name: 'Stitch' }), 'Flat peyote, even count')
  await expect(page.getByText('flat peyote, even count · cylinder 11/0 · 8 across')).toBeVisible()
  await page.getByLabel('Width wanted').fill('2 cm')
  await page.getByRole('button', { name: /^16 across/ }).click()
  await chooseFrom(page.getByRole('combobox', { name: 'Bead' }), /cylinder 8\/0/)
  await expect(page.getByText('cylinder 8/0 · 16 across')).toBeVisible()
  await page.getByLabel('Notes').fill('For the summer fair')
  await page.getByLabel('Notes').press('Tab')
  await saved(page)
  const { piece } = await readPiece(page, id)
  expect(piece).toMatchObject({
    notes: 'For the summer fair',
    parts: [{ technique: 'peyote', spec: 'cylinder-8', columns: 16 }],
  })
  expect(new Set(piece.tray.map((b) => b.spec))).toEqual(new Set(['cylinder-8']))
  await toStage(page, id, 'print')
  await expect(page.getByText('For the summer fair')).toBeVisible()
})

test('a hundred thousand beads: drawn on, counted and saved like few', async ({ weaver: page }) => {
  const piece = plainBracelet({ technique: 'loom' })
  const row = () => Array.from({ length: 200 }, () => [1, 1 + Math.floor(Math.random() * 4)]).flat()
  const body = {
    ...(JSON.parse(JSON.stringify((await readPiece(page, await createPiece(page, piece))).piece)) as Awaited<
      ReturnType<typeof readPiece>
    >['piece']),
  }
  body.parts[0] = {
    ...body.parts[0]!,
    columns: 200,
    times: 1,
    start: [],
    repeat: Array.from({ length: 500 }, row),
    end: [],
  }
  const response = await page.request.post('/api/piece', {
    headers: { origin: new URL(page.url() === 'about:blank' ? process.env.WEBEN_TEST_ADDRESS! : page.url()).origin },
    data: body,
  })
  const { id } = (await response.json()) as { id: string }
  await openMat(page, id)
  await expect(page.locator('[data-test=beads]')).toHaveText(/100\s000/)
  const mat = page.getByRole('application')
  await page.keyboard.press('i')
  await cursorTo(page, 0, 0)
  await mat.press(' ')
  await expect(page.locator('[data-test=beads]')).toHaveText(/99\s999/)
  await page.keyboard.press('a')
  const box = (await mat.boundingBox())!
  await page.mouse.move(box.x + 120, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width - 120, box.y + box.height / 2 + 20, { steps: 12 })
  await page.mouse.up()
  await expect(page.locator('[data-test=beads]')).toHaveText(/99\s[1-6]\d\d/)
  await saved(page)
})
