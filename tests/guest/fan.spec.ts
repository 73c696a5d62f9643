import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { readPieceFile } from '#core/format/piece-file'
import { chooseWay, createPiece, expect, openMat, plain, readPiece, saved, test, toStage } from '../browser/weaver'
import { fanPiece, lines } from './piece'

/** A technique on lines of their own lengths that only tests know, through every screen. */

const LETTER = ['.', 'A', 'B', 'C', 'D']
async function strands(page: Page, id: string): Promise<string[]> {
  const { piece } = await readPiece(page, id)
  return piece.parts[0]!.repeat.map((row) =>
    row.flatMap((n, i) => (i % 2 === 0 ? Array<string>(n).fill(LETTER[row[i + 1]!]!) : [])).join(''),
  )
}
/** A fan of four strands in one section. */
const small = () => fanPiece({ times: 1, start: lines(), repeat: lines('AAAA', 'AAAAAA', 'AA', 'AAA'), end: lines() })

test('is drawn on by keys: walked bead to bead, laid, undone, made longer and shorter', async ({ weaver: page }) => {
  const id = await createPiece(page, small())
  await openMat(page, id)
  const mat = page.getByRole('application')
  await expect(mat).toHaveAccessibleName(/6 in the longest strand, 4 strands/)
  await page.keyboard.press('2')
  await mat.focus()
  await mat.press('Home')
  // Level, the strands hang down: down is the next bead, right the next strand.
  await mat.press('ArrowDown')
  await expect(page.locator('[aria-live]').filter({ hasText: 'Strand 1, bead 2: A Bead 1' })).toHaveCount(1)
  await mat.press(' ')
  await saved(page)
  expect((await strands(page, id))[0]).toBe('ABAA')
  await mat.press('ArrowRight')
  await mat.press(' ')
  await saved(page)
  expect((await strands(page, id)).slice(0, 2)).toEqual(['ABAA', 'ABAAAA'])
  await page.keyboard.press('Control+z')
  await saved(page)
  expect((await strands(page, id))[1]).toBe('AAAAAA')

  await page.keyboard.press('u')
  const panel = page.getByRole('region', { name: 'Rows and repeats' })
  await expect(panel).toBeVisible()
  await panel.getByRole('button', { name: 'Longer strand' }).click()
  await saved(page)
  expect((await strands(page, id))[1]).toBe('AAAAAAB')
  await panel.getByRole('button', { name: 'Shorter strand' }).click()
  await panel.getByRole('button', { name: 'Add a strand' }).click()
  await saved(page)
  expect(await strands(page, id)).toEqual(['ABAA', 'BBBB', 'AAAAAA', 'AA', 'AAA'])
  await expect(page.locator('[data-test=answer], .figure').filter({ hasText: /^19$/ })).not.toHaveCount(0)
  await panel.getByRole('button', { name: 'Take it out' }).first().click()
  await saved(page)
  expect(await strands(page, id)).toEqual(['ABAA', 'AAAAAA', 'AA', 'AAA'])
})

test('is drawn on by pointer: laid, filled, swapped, boxed and taken in hand', async ({ weaver: page }) => {
  const id = await createPiece(page, small())
  await openMat(page, id)
  await page.getByRole('button', { name: 'All', exact: true }).click()
  await page.keyboard.press('2')
  const at = (await page.getByRole('application').boundingBox())!
  // Somewhere on the work a bead is hit: pressed along its middle line, some lie under the pointer.
  await page.mouse.move(at.x + at.width * 0.2, at.y + at.height * 0.45)
  await page.mouse.down()
  await page.mouse.move(at.x + at.width * 0.8, at.y + at.height * 0.45, { steps: 12 })
  await page.mouse.up()
  await saved(page)
  const laid = (await strands(page, id)).join('')
  expect(laid).toContain('B')
  expect(laid).toHaveLength(15)
  await page.keyboard.press('Control+z')
  await saved(page)
  await page.keyboard.press('w')
  const mat = page.getByRole('application')
  await mat.focus()
  await mat.press('Home')
  await mat.press(' ')
  await saved(page)
  expect((await strands(page, id)).join('')).toBe('B'.repeat(15))
  // A run goes along a strand, as the thread strings it.
  await page.keyboard.press('1')
  await page.keyboard.press('r')
  await mat.focus()
  await mat.press('Home')
  await mat.press(' ')
  await mat.press('ArrowDown')
  await mat.press('ArrowDown')
  await mat.press(' ')
  await saved(page)
  expect((await strands(page, id))[0]).toBe('AAAB')
})

test('says why a tool has no meaning, and lays the one that has', async ({ weaver: page }) => {
  const id = await createPiece(page, small())
  await openMat(page, id)
  await page.getByRole('button', { name: 'Patterns' }).click()
  await expect(page.getByText(/A figure needs a grid.*these strands lie each for itself/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Lay it' })).toBeDisabled()
  await page.getByRole('button', { name: 'Picture', exact: true }).click()
  await expect(page.getByText(/A picture needs a grid/)).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('x')
  await expect(page.getByText(/no symmetry across/).or(page.getByText(/have no/))).toBeVisible()
})

test('is tallied, fitted, supplied, printed and exported, and read in again', async ({ weaver: page }) => {
  const id = await createPiece(page, fanPiece())
  await toStage(page, id, 'tally')
  await expect(page.getByText('Strand by strand, as worked')).toBeVisible()
  await expect(page.getByText('back through 3 beads').first()).toBeVisible()
  await toStage(page, id, 'fit')
  await page.getByRole('button', { name: /^Take/ }).first().click()
  await saved(page)
  const fitted = (await readPiece(page, id)).piece.parts[0]!
  expect(fitted.start.length + fitted.times * 3 + fitted.end.length).toBeGreaterThan(40)
  await toStage(page, id, 'supplies')
  await expect(page.getByText(/most at strand 1, bead 1/)).toBeVisible()
  await toStage(page, id, 'print')
  await expect(page.getByText(/Fan: Repeat, worked/)).toBeVisible()
  const download = async (name: string) => {
    const wait = page.waitForEvent('download')
    await page.getByRole('button', { name }).click()
    return readFile((await (await wait).path())!)
  }
  const file = (await download('Piece file (JSON)')).toString()
  expect(JSON.parse(file)).toMatchObject({ version: 3, piece: { parts: [{ kind: 'lines', technique: 'fan' }] } })
  // This process does not know the technique: a Weben without it refuses the file with a sentence.
  const read = readPieceFile(file)
  expect(read.ok ? '' : read.problems[0]!.says).toMatch(/technique/)
  expect((await download('Chart as SVG')).toString().match(/<use /g)!.length).toBeGreaterThan(30)
  expect((await download('Booklet as PDF')).subarray(0, 5).toString()).toBe('%PDF-')
  expect((await download('Chart as PNG')).subarray(1, 4).toString()).toBe('PNG')
  const words = (await download('Word chart as text')).toString()
  expect(words).toContain('Strand 1 → 2A')
  // Read in again, the chart takes the place of the part: strands as long as its words say.
  const before = (await readPiece(page, id)).piece.parts[0]!
  await page.locator('input[type=file]').setInputFiles({
    name: 'fan-words.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(words),
  })
  await expect(page.getByText(/“fan-words.txt” is now/)).toBeVisible()
  await saved(page)
  const after = (await readPiece(page, id)).piece.parts[0]!
  const whole = [...before.start, ...Array(before.times).fill(before.repeat).flat(), ...before.end] as number[][]
  expect(after).toMatchObject({ kind: 'lines', technique: 'fan', times: 1, repeat: whole })
})

test('is begun from the start page and added as a part that hangs on another', async ({ weaver: page }) => {
  await page.goto('/start')
  await chooseWay(page, 'Fan of strands')
  await expect(page.getByText('Strands', { exact: true }).first()).toBeVisible()
  // How wide it is follows from its strands; patterns to begin with need a grid.
  await expect(page.getByText('0.0 mm')).toHaveCount(0)
  await expect(page.getByRole('radiogroup', { name: 'Pattern to begin with' })).toHaveCount(0)
  await page
    .getByRole('button', { name: /Begin|Make|Lay/ })
    .last()
    .click()
  await expect(page).toHaveURL(/\/piece\/.*\/(mat|fit)/)
  const id = /piece\/([^/]+)/.exec(page.url())![1]!
  const { piece } = await readPiece(page, id)
  expect(piece.parts[0]).toMatchObject({ technique: 'fan', kind: 'lines' })
  await openMat(page, id)
  await page.keyboard.press('j')
  await page.getByRole('button', { name: 'Add the part' }).click()
  await saved(page)
  expect((await readPiece(page, id)).piece.parts).toHaveLength(2)
})

test.describe('by touch', () => {
  test.use({ hasTouch: true, viewport: { width: 400, height: 800 } })
  test('a bead is laid where a finger taps, on a phone', async ({ weaver: page }) => {
    const id = await createPiece(page, small())
    await openMat(page, id)
    await page.keyboard.press('2')
    const at = (await page.getByRole('application').boundingBox())!
    // Strands lie across the phone: along a line down the work some bead is hit.
    for (let k = 1; k < 20 && !(await strands(page, id)).join('').includes('B'); k++) {
      await page.touchscreen.tap(at.x + at.width * 0.35, at.y + (at.height * k) / 20)
      await page.waitForTimeout(150)
    }
    await saved(page)
    expect((await strands(page, id)).join('')).toContain('B')
  })
})

for (const [width, height] of [
  [1280, 800],
  [400, 800],
] as const)
  test(`has screens on which axe finds nothing, ${width} px wide`, async ({ weaver: page }) => {
    await page.setViewportSize({ width, height })
    const id = await createPiece(page, fanPiece())
    for (const view of ['mat', 'tally', 'fit', 'supplies', 'print', 'bench']) {
      await toStage(page, id, view)
      await expect(page.getByRole('main').or(page.getByRole('application')).first()).toBeVisible()
      await plain(page, view)
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
    }
  })

test('is made at the bench strand by strand, with what the hands do besides', async ({ weaver: page }) => {
  const id = await createPiece(page, small())
  await toStage(page, id, 'bench')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  const step = page.getByRole('region', { name: 'The step in hand' })
  await expect(step).toContainText('Before you begin')
  await page.keyboard.press('Space')
  await expect(step).toContainText('Strand 1')
  await expect(step).toContainText('back through 3 beads')
  await expect(step).toContainText('fix to the bar')
  for (const done of ['4', '10', '12', '15']) {
    await page.keyboard.press('Space')
    await expect(page.locator('[data-test=done]')).toHaveText(done)
  }
  const all = page.getByText('All is done')
  for (let k = 0; k < 20 && !(await all.isVisible()); k++) await page.keyboard.press('Space')
  await expect(all).toBeVisible()
})
