import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { fitOf } from '#core/fit/reckon'
import { readPieceFile } from '#core/format/piece-file'
import { emptyCells } from '#core/grid/cells'
import { linksNeeded } from '#core/supply/links'
import { beadCounts, tallyPiece } from '#core/tally/tally'
import { requireTechnique } from '#core/technique/registry'
import { valueOf } from '#core/problem'
import { showNumber } from '#core/units/length'
import { JOINED_PIECES } from '../../demo/joined'
import {
  address,
  createPiece,
  expect,
  openMat,
  plainBracelet,
  readPiece,
  saved,
  test,
  chooseFrom,
  plain,
  toStage,
} from './weaver'

/** Pieces whose parts hang together: hung by hand, taken in hand, seen, measured, counted and printed as one. */

async function band(page: Page): Promise<string> {
  const piece = plainBracelet({ name: 'Strap' })
  return createPiece(page, {
    ...piece,
    parts: [
      {
        ...piece.parts[0]!,
        technique: 'loom',
        settings: requireTechnique('loom').settings.parse({}),
        times: 1,
        start: emptyCells(10, 0),
        repeat: emptyCells(10, 20, 1),
        end: emptyCells(10, 0),
      },
    ],
  })
}
const choose = (page: Page, label: string, option: string) =>
  chooseFrom(page.getByRole('combobox', { name: label, exact: true }), option)
const joints = async (page: Page, id: string) => (await readPiece(page, id)).piece.parts.map((p) => p.on)

test('a part is added, hung at two beads by rings, taken in hand by pointer and key, and let go', async ({
  weaver: page,
}) => {
  const id = await band(page)
  await openMat(page, id)
  await page.keyboard.press('j')
  await page.getByRole('combobox', { name: 'Another part, in' }).fill('Brick')
  await page.getByRole('option', { name: 'Brick stitch', exact: true }).click()
  await page.getByRole('button', { name: 'Add the part' }).click()
  const panel = page.getByRole('region', { name: 'Parts' })
  await expect(panel.getByText('Part 2 hangs on')).toBeVisible()
  await choose(page, 'Part', 'Band')
  await choose(page, 'On its', 'last row')
  await choose(page, 'By this part’s', 'first row')
  await choose(page, 'With', 'A ring')
  await page.getByLabel('It keeps apart').fill('6 mm')
  await page.getByLabel('It keeps apart').press('Enter')
  // A bead that is not there, said beside the field; nothing is changed.
  await page.getByLabel('At beads').fill('2, 11')
  await page.getByLabel('At beads').blur()
  await expect(page.getByText('That side has beads 1 to 10.')).toBeVisible()
  await page.getByLabel('At beads').fill('2 and 9')
  await page.getByLabel('At beads').press('Enter')
  await expect(panel.getByText('Its first row on the last row of Band, beads 2 and 9, by rings, 6 mm')).toBeVisible()
  await saved(page)
  expect(await joints(page, id)).toEqual([
    null,
    { part: 'band', at: 'end', by: 'start', holes: [2, 9], link: { kind: 'ring', mm: 6 } },
  ])
  await expect(page.locator('[data-test=answer]')).toContainText('2 joined parts')

  // Both lie on the mat: the pale one is taken in hand by a press, the other by a key. No bead is laid by that.
  const mat = page.getByRole('application')
  await expect(mat).toHaveAccessibleName(/Part 2/)
  await page.getByRole('button', { name: 'All', exact: true }).click()
  const { x, y, width, height } = (await mat.boundingBox())!
  // A press that is drawn away is none.
  await page.mouse.move(x + width * 0.15, y + height / 2)
  await page.mouse.down()
  await page.mouse.move(x + width * 0.15 + 40, y + height / 2 + 30, { steps: 4 })
  await page.mouse.up()
  await expect(mat).toHaveAccessibleName(/Part 2/)
  await mat.click({ position: { x: width * 0.15, y: height / 2 } })
  await expect(mat).toHaveAccessibleName(/Band/)
  await mat.press('PageDown')
  await expect(mat).toHaveAccessibleName(/Part 2/)
  await mat.press('PageUp')
  await expect(mat).toHaveAccessibleName(/Band/)
  await saved(page)
  const { piece } = await readPiece(page, id)
  expect(piece.parts[0]!.repeat.every((row) => row.join() === '10,1')).toBe(true)
  // The first of the tree may hang on nothing that hangs on it.
  await expect(panel.getByText('Band hangs on')).toBeHidden()

  // Taken off, what hung on it hangs on nothing; and back.
  await panel.getByRole('button', { name: 'Take off: Band' }).click()
  await saved(page)
  expect(await joints(page, id)).toEqual([null])
  await mat.press('Control+z')
  await saved(page)
  expect((await joints(page, id))[1]).toMatchObject({ part: 'band', holes: [2, 9] })
})

test('a joint in a circle, to nowhere, or to a bead that is not there is refused with a sentence', async ({
  weaver: page,
}) => {
  const id = await createPiece(page, JOINED_PIECES[0])
  const hang = async (part: string, before: unknown, after: unknown) => {
    const response = await page.request.post(`/api/piece/${id}/step`, {
      headers: { origin: address() },
      data: {
        base: 0,
        transactions: [
          {
            id: `hang-${Math.random().toString(36).slice(2)}`,
            label: 'Hang',
            steps: [{ type: 'set', path: ['parts', part, 'on'], before, after }],
          },
        ],
      },
    })
    return { status: response.status(), text: await response.text() }
  }
  const now = JOINED_PIECES[0]!.parts[1]!.on!
  const circle = await hang('band', null, { ...now, part: 'gable' })
  expect(circle.status).toBe(422)
  expect(circle.text).toContain('hang on each other in a circle')
  expect((await hang('gable', now, { ...now, part: 'nobody' })).text).toContain('hangs on a part that is not there')
  expect((await hang('gable', now, { ...now, holes: [40] })).text).toContain('which has 12')
  expect((await readPiece(page, id)).revision).toBe(0)
})

for (const piece of JOINED_PIECES) {
  test(`${piece.name}: one length, one tally, one picture, one booklet, one file`, async ({ weaver: page }) => {
    const id = await createPiece(page, piece)
    await openMat(page, id)
    const total = beadCounts(piece.tray, tallyPiece(piece)).reduce((sum, b) => sum + b.count, 0)
    await expect(page.locator('[data-test=beads]')).toHaveText(showNumber(total))
    await expect(page.locator('[data-test=answer]')).toContainText('joined parts')
    await expect(page.locator('[data-test=answer]')).toContainText(
      `${fitOf(piece).finishedMm.nominal.toFixed(piece.fit.bodyMm < 100 ? 1 : 0)} mm`,
    )
    await page.keyboard.press('j')
    await plain(page)

    const rings = linksNeeded(piece).filter((l) => l.kind === 'ring')
    await toStage(page, id, 'supplies')
    await expect(page.getByRole('heading', { name: 'What to cut' })).toBeVisible()
    await expect(page.getByText('to join the parts')).toHaveCount(rings.length)

    await toStage(page, id, 'print')
    await expect(page.getByRole('heading', { name: 'How the parts join' })).toBeVisible()
    const save = async (name: string) => {
      const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name }).click()])
      return readFile(await file.path())
    }
    const pdf = (await save('Booklet as PDF')).toString('latin1')
    // A picture of all of it, and an index sheet for each part.
    expect(pdf).toContain('/Subtype /Image')
    const png = await save('Chart as PNG')
    expect(png.subarray(1, 4).toString()).toBe('PNG')
    const read = valueOf(readPieceFile((await save('Piece file')).toString('utf8')))
    expect(read.parts.map((p) => p.on)).toEqual(piece.parts.map((p) => p.on))
  })
}
