import { readFile } from 'node:fs/promises'
import { PNG } from 'pngjs'
import { emptyCells } from '#core/grid/cells'
import { requireTechnique } from '#core/technique/registry'
import {
  createPiece,
  cursorTo,
  expect,
  openMat,
  plainBracelet,
  readPiece,
  saved,
  test,
  chooseFrom,
  toStage,
} from './weaver'
import type { Page } from '@playwright/test'

/** A loomed square of A, one section, no repeats. */
async function square(page: Page, columns = 9, rows = 9, technique = 'loom'): Promise<string> {
  const piece = plainBracelet({ name: 'Square' })
  const none = emptyCells(columns, 0)
  return createPiece(page, {
    ...piece,
    parts: [
      {
        ...piece.parts[0]!,
        technique,
        settings: requireTechnique(technique).settings.parse({}),
        times: 1,
        start: none,
        repeat: emptyCells(columns, rows, 1),
        end: none,
      },
    ],
  })
}

const LETTER = ['.', 'A', 'B', 'C', 'D', 'E', 'F', 'G', 'H']
async function grid(page: Page, id: string, part = 0): Promise<string[]> {
  const { piece } = await readPiece(page, id)
  return piece.parts[part]!.repeat.map((row) =>
    row.flatMap((n, i) => (i % 2 === 0 ? Array<string>(n).fill(LETTER[row[i + 1]!]!) : [])).join(''),
  )
}

test('live symmetry lays the images too, and says which the stitch has not', async ({ weaver: page }) => {
  const id = await square(page, 5, 5)
  await openMat(page, id)
  await page.keyboard.press('2')
  await page.keyboard.press('x')
  await page.keyboard.press('x')
  await page.keyboard.press('x')
  await expect(page.getByRole('button', { name: /Symmetry: both/ })).toHaveAttribute('aria-pressed', 'true')
  await cursorTo(page, 0, 1)
  await page.getByRole('application').press(' ')
  await saved(page)
  expect(await grid(page, id)).toEqual(['AAAAA', 'BAAAB', 'AAAAA', 'BAAAB', 'AAAAA'])
  await page.keyboard.press('Control+z')
  await saved(page)
  expect(await grid(page, id)).toEqual(Array<string>(5).fill('AAAAA'))
  const spiral = await square(page, 9, 6, 'peyote-spiral')
  await openMat(page, spiral)
  await page.keyboard.press('Escape')
  for (let k = 0; k < 4 && (await page.getByRole('button', { name: /Symmetry:/ }).count()) > 0; k++)
    await page.keyboard.press('x')
  await page.keyboard.press('x')
  await expect(page.getByText('This stitch has no symmetry across or along or both')).toBeVisible()
})

test('box, move, turn, repeat and shift', async ({ weaver: page }) => {
  const id = await square(page, 6, 4)
  await openMat(page, id)
  const mat = page.getByRole('application')
  await page.keyboard.press('2')
  await page.keyboard.press('b')
  await cursorTo(page, 0, 0)
  await mat.press('Enter')
  await mat.press('ArrowDown')
  await mat.press('Enter')
  await saved(page)
  expect((await grid(page, id))[0]).toBe('BBAAAA')
  await page.keyboard.press('s')
  await cursorTo(page, 0, 0)
  await mat.press('Enter')
  for (let k = 0; k < 2; k++) await mat.press('ArrowDown')
  await mat.press('Enter')
  await page.getByRole('button', { name: 'Half turn' }).click()
  await saved(page)
  expect((await grid(page, id))[0]).toBe('ABBAAA')
  await page.getByRole('button', { name: 'Repeat across' }).click()
  await saved(page)
  expect((await grid(page, id))[0]).toBe('ABBABB')
  await mat.press('d')
  await cursorTo(page, 0, 0)
  await mat.press('Enter')
  await mat.press('ArrowRight')
  await mat.press('ArrowRight')
  await mat.press('Enter')
  await saved(page)
  expect(await grid(page, id)).toEqual(['...ABB', 'AAAAAA', 'ABBAAA', 'AAAAAA'])
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Rows', exact: true }).click()
  await cursorTo(page, 3, 0)
  await page.getByRole('button', { name: 'across +' }).click()
  await saved(page)
  expect((await grid(page, id))[0]).toBe('B...AB')
  await page.getByRole('button', { name: 'Add a column' }).click()
  await saved(page)
  expect((await grid(page, id))[0]).toBe('B..B.AB')
  // The cursor stays on its bead.
  await expect(page.getByText('At bead row 1, column 5')).toBeVisible()
})

const DIAMOND = ['ABCDCDCBA', 'BCDCBCDCB', 'CDCBABCDC', 'DCBABABCD', 'CBABCBABC', 'BABCDCBAB']

test('patterns by rule: a diamond, a blend, a border and letters', async ({ weaver: page }) => {
  const id = await square(page, 9, 9)
  await openMat(page, id)
  await page.keyboard.press('p')
  const panel = page.getByRole('region', { name: 'Lay a pattern' })
  await panel.getByRole('radio', { name: 'Diamond' }).click()
  await expect(panel.getByText('The repeat becomes 12 bead rows long')).toBeVisible()
  await panel.getByRole('button', { name: 'Lay it' }).click()
  await saved(page)
  expect(await grid(page, id)).toEqual([...DIAMOND, ...DIAMOND])
  await panel.getByRole('radio', { name: 'Border' }).click()
  await panel.getByRole('button', { name: 'Clear' }).click()
  await panel.getByRole('button', { name: 'Then C Rust' }).click()
  await panel.getByRole('button', { name: 'Lay it' }).click()
  await saved(page)
  expect((await grid(page, id))[0]).toBe('CCCCCCCCC')
  await page.keyboard.press('4')
  await panel.getByRole('radio', { name: 'Letters' }).click()
  await panel.getByLabel('Text, in the chosen bead').fill('I')
  await panel.getByRole('button', { name: 'Lay it' }).click()
  await saved(page)
  expect((await grid(page, id)).join('').match(/D/g)!.length).toBeGreaterThanOrEqual(5)
  await panel.getByLabel('Text, in the chosen bead').fill('MUCH TOO LONG ☃')
  await expect(panel.getByText('The alphabet has no ☃.')).toBeVisible()
  await panel.getByRole('radio', { name: 'Blend' }).click()
  await panel.getByRole('radio', { name: 'in bands' }).click()
  await panel.getByRole('button', { name: 'Then A Fog' }).click()
  await panel.getByRole('button', { name: 'Lay it' }).click()
  await saved(page)
  expect(await grid(page, id)).toEqual([...Array<string>(6).fill('CCCCCCCCC'), ...Array<string>(6).fill('AAAAAAAAA')])
})

test('a stamp is kept, and laid in another piece with the beads it brings', async ({ weaver: page }) => {
  const id = await square(page, 5, 3)
  await openMat(page, id)
  const mat = page.getByRole('application')
  await page.keyboard.press('3')
  await cursorTo(page, 1, 1)
  await mat.press(' ')
  await page.keyboard.press('s')
  await mat.press('Enter')
  await mat.press('Enter')
  await page.getByRole('button', { name: 'Keep as a stamp' }).click()
  await page.getByLabel('Keep the selection as').fill('Dot')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Lay Dot' })).toBeVisible()
  const other = await createPiece(page, {
    ...plainBracelet({ name: 'Other' }),
    tray: plainBracelet().tray.slice(0, 2),
  })
  await openMat(page, other)
  await page.keyboard.press('h')
  await page.getByRole('button', { name: 'Lay Dot' }).click()
  await cursorTo(page, 0, 0)
  await page.getByRole('application').press(' ')
  await saved(page)
  const { piece } = await readPiece(page, other)
  expect(piece.tray.map((b) => b.name)).toEqual(['Fog', 'Kingfisher', 'Rust'])
  expect(piece.parts[0]!.start[0]!.slice(0, 2)).toEqual([1, 3])
  await page.goto('/box')
  await page.getByRole('button', { name: 'Throw Dot away' }).click()
  await expect(page.getByText('The box is empty.')).toBeVisible()
})

test('a part is added, turned by a quarter and taken off', async ({ weaver: page }) => {
  const id = await square(page, 4, 6, 'peyote')
  await openMat(page, id)
  await page.keyboard.press('2')
  await cursorTo(page, 0, 2)
  await page.getByRole('application').press(' ')
  await page.keyboard.press('j')
  await page.getByRole('button', { name: 'Turn by a quarter' }).click()
  await saved(page)
  expect(await grid(page, id)).toEqual(['AABAAA', 'AAAAAA', 'AAAAAA', 'AAAAAA'])
  expect((await readPiece(page, id)).piece.parts[0]!.technique).toBe('brick')
  await page.getByRole('button', { name: 'Add the part' }).click()
  await expect(page.getByText('In hand', { exact: true })).toBeVisible()
  await saved(page)
  expect((await readPiece(page, id)).piece.parts).toHaveLength(2)
  await page.getByRole('button', { name: 'Take off: Part 2' }).click()
  await saved(page)
  expect((await readPiece(page, id)).piece.parts).toHaveLength(1)
})

test('the tray is put in order, cleared, and goes out and in as a palette; a size of one’s own is measured', async ({
  weaver: page,
}) => {
  const id = await square(page)
  await openMat(page, id)
  await page.keyboard.press('z')
  const panel = page.getByRole('region', { name: 'Tray' })
  await panel.getByRole('button', { name: 'B earlier' }).click()
  await saved(page)
  const names = async () => (await readPiece(page, id)).piece.tray.map((b) => b.name)
  expect(await names()).toEqual(['Kingfisher', 'Fog', 'Rust', 'Old gold'])
  await panel.locator('.handle').nth(0).dragTo(panel.locator('.handle').nth(2))
  await expect.poll(names).toEqual(['Fog', 'Rust', 'Kingfisher', 'Old gold'])
  await expect(panel.locator('li').nth(1)).toContainText('Rust')
  const [out] = await Promise.all([
    page.waitForEvent('download'),
    panel.getByRole('button', { name: 'Palette out' }).click(),
  ])
  const palette = await readFile(await out.path())
  await panel.getByRole('button', { name: 'Take unused beads off' }).click()
  await saved(page)
  expect(await names()).toEqual(['Fog'])
  await panel.getByLabel('Palette in').setInputFiles({ name: 'back.gpl', mimeType: 'text/plain', buffer: palette })
  await expect.poll(names).toEqual(['Fog', 'Rust', 'Kingfisher', 'Old gold'])
  await panel
    .getByLabel('Palette in')
    .setInputFiles({ name: 'song.txt', mimeType: 'text/plain', buffer: Buffer.from('la la la') })
  await expect(page.getByText('This is not a GPL palette')).toBeVisible()
  await panel.getByRole('button', { name: 'Change A Fog' }).click()
  await chooseFrom(page.getByRole('combobox', { name: 'Shape and size' }), 'A size of my own…')
  await page.getByLabel('Its name').fill('Market rounds')
  await page.getByLabel('Hole, mm', { exact: true }).fill('9')
  await expect(page.getByText('smaller than the bead')).toBeVisible()
  await page.getByLabel('Hole, mm', { exact: true }).fill('0,7')
  await page.getByRole('button', { name: 'Use this size' }).click()
  await page.getByRole('button', { name: 'Keep in my box' }).click()
  await expect(page.getByText('In your box')).toBeVisible()
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await saved(page)
  expect((await readPiece(page, id)).piece.tray[0]!.spec).toMatch(
    /^own\/cylinder\/1\.6\/1\.3\/0\.7\/195\/Market%20rounds$/,
  )
  await page.goto('/box')
  await expect(page.getByRole('heading', { name: 'Market rounds' })).toBeVisible()
})

test('ways to look change what is seen and nothing else', async ({ weaver: page }) => {
  const id = await createPiece(page, plainBracelet({ motif: 'chevron', technique: 'peyote', widthMm: 14 }))
  const before = JSON.stringify((await readPiece(page, id)).piece)
  await openMat(page, id)
  const shot = async () => (await page.locator('.mat-canvas canvas').first().screenshot()).toString('base64')
  await page.keyboard.press('y')
  const panel = page.getByRole('region', { name: 'Ways to look' })
  // Beside a level chart it is said once what the arrow of the words means on the screen.
  await expect(page.locator('.scale')).toContainText('→ in the words runs from the upper edge to the lower')
  const seen = new Set([await shot()])
  for (const choice of ['wrong side', 'at the right', 'chart for black-and-white print', 'dark', 'upright']) {
    await panel.getByRole('radio', { name: choice, exact: true }).click()
    await page.waitForTimeout(150)
    seen.add(await shot())
  }
  expect(seen.size).toBe(6)
  await expect(page.locator('.scale')).not.toContainText('→')
  await panel.getByRole('radio', { name: 'beads', exact: true }).click()
  await page.waitForTimeout(100)
  const all = await shot()
  await chooseFrom(panel.getByRole('combobox', { name: 'Seen' }), /deuteranopia/)
  await page.waitForTimeout(150)
  expect(await shot()).not.toBe(all)
  await panel.getByRole('radio', { name: 'round the wrist' }).click()
  const round = page.getByRole('application', { name: /band round a wrist/ })
  const still = (await round.screenshot()).toString('base64')
  await round.press('ArrowRight')
  await page.waitForTimeout(100)
  expect((await round.screenshot()).toString('base64')).not.toBe(still)
  expect(JSON.stringify((await readPiece(page, id)).piece)).toBe(before)
})

test('a picture becomes beads, and wrong files get a sentence', async ({ weaver: page }) => {
  const id = await square(page, 12, 12)
  await openMat(page, id)
  await page.keyboard.press('o')
  const file = page.getByLabel('Choose a picture')
  const picture = new PNG({ width: 60, height: 60 })
  for (let y = 0; y < 60; y++)
    for (let x = 0; x < 60; x++) picture.data.set(x < 30 ? [30, 120, 160, 255] : [180, 80, 40, 255], (y * 60 + x) * 4)
  const good = PNG.sync.write(picture)
  await file.setInputFiles({ name: 'cut.png', mimeType: 'image/png', buffer: good.subarray(0, good.length - 30) })
  await expect(page.getByRole('alert')).toContainText('cut off or is damaged')
  const wide = Buffer.from(good)
  wide.writeUInt32BE(20_000, 16)
  await file.setInputFiles({ name: 'wide.png', mimeType: 'image/png', buffer: wide })
  await expect(page.getByRole('alert')).toContainText('20000 × 60 px')
  await file.setInputFiles({ name: 'note.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') })
  await expect(page.getByRole('alert')).toContainText('not a PNG, JPEG or WebP')
  const lying = Buffer.from(good)
  lying.fill(7, 60, good.length - 20)
  await file.setInputFiles({ name: 'damaged.png', mimeType: 'image/png', buffer: lying })
  await expect(page.getByRole('alert')).toContainText('damaged')
  // What the browser itself writes as JPEG and WebP is taken too.
  for (const type of ['image/jpeg', 'image/webp']) {
    const bytes = await page.evaluate(async (kind) => {
      const canvas = document.createElement('canvas')
      canvas.width = 80
      canvas.height = 40
      canvas.getContext('2d')!.fillRect(0, 0, 40, 40)
      const blob = await new Promise<Blob>((done) => canvas.toBlob((b) => done(b!), kind))
      return [...new Uint8Array(await blob.arrayBuffer())]
    }, type)
    await file.setInputFiles({ name: 'own', mimeType: type, buffer: Buffer.from(bytes) })
    await expect(page.getByRole('button', { name: 'Lay these beads' })).toBeVisible()
    await expect(page.getByRole('alert')).toHaveCount(0)
  }
  await file.setInputFiles({ name: 'halves.png', mimeType: 'image/png', buffer: good })
  await page.getByRole('radio', { name: 'chosen for it' }).click()
  await expect(page.getByText(/144\s*beads in 2 kinds/)).toBeVisible()
  await page.getByRole('button', { name: 'Lay these beads' }).click()
  await saved(page)
  const rows = await grid(page, id)
  expect(new Set(rows.slice(0, 6).join(''))).toEqual(new Set(['E']))
  expect(new Set(rows.slice(6).join(''))).toEqual(new Set(['F']))
  await page.keyboard.press('Control+z')
  await saved(page)
  expect(await grid(page, id)).toEqual(Array<string>(12).fill('A'.repeat(12)))
  expect((await readPiece(page, id)).piece.tray).toHaveLength(4)
})

test('the booklet is a PDF, the grid goes out and comes back', async ({ weaver: page }) => {
  const id = await createPiece(page, plainBracelet({ motif: 'diamonds', technique: 'peyote', widthMm: 14 }))
  await toStage(page, id, 'print')
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Booklet as PDF' }).click(),
  ])
  expect((await readFile(await pdf.path())).subarray(0, 5).toString()).toBe('%PDF-')
  // A booklet that cannot be made says so, and its button comes back.
  await page.reload()
  await expect(page.getByRole('button', { name: 'Booklet as PDF' })).toBeVisible()
  await page.route('**/_nuxt/**', (route) => route.abort())
  await page.getByRole('button', { name: 'Booklet as PDF' }).click()
  await expect(page.getByText('The booklet could not be made.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Booklet as PDF' })).toBeEnabled()
  await page.unroute('**/_nuxt/**')
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Grid as CSV' }).click(),
  ])
  const text = await readFile(await csv.path(), 'utf8')
  await page
    .getByLabel('Bring in a grid or word chart')
    .setInputFiles({ name: 'bad.csv', mimeType: 'text/csv', buffer: Buffer.from('A,B\nQ,A') })
  await expect(page.getByText('Row 2, column 1 says “Q”')).toBeVisible()
  await page
    .getByLabel('Bring in a grid or word chart')
    .setInputFiles({ name: 'grid.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await expect(page.getByText('“grid.csv” is now Band')).toBeVisible()
  await expect(page.getByText('Repeat, worked 1 time')).toBeVisible()
})
