import { readFile } from 'node:fs/promises'
import { AxeBuilder } from '@axe-core/playwright'
import { readPieceFile } from '#core/format/piece-file'
import { tallyPiece, totalOf } from '#core/tally/tally'
import { rungLadder } from '../fixture/rung-ladder'
import { createPiece, expect, openMat, readPiece, saved, test } from './weaver'

test('a ladder of rungs is begun, drawn on, counted, cut for and exported', async ({ weaver: page }) => {
  await page.goto('/start')
  await page.getByRole('radio', { name: 'Ladder of rungs' }).click()
  await expect(page.getByLabel('Bead', { exact: true })).toHaveValue(/cube 3 mm/)
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  const mat = page.getByRole('application')
  await expect(mat).toBeVisible()
  const id = /piece\/([^/]+)\/mat/.exec(page.url())![1]!
  const { piece } = await readPiece(page, id)
  // Rungs of cubes, seeds at the sides and to the clasp.
  expect(piece.tray.map((b) => b.spec)).toEqual(['cube-3-mm', 'round-8', 'round-8'])
  expect(piece.parts[0]!.start).toEqual([[10, 3, 3, 1]])
  expect(piece.parts[0]!.repeat).toEqual([[6, 2, 3, 1]])
  expect(piece.parts[0]!.end).toEqual([[6, 2, 3, 1, 10, 3]])
  expect(piece.parts[0]!.times).toBeGreaterThan(15)

  // The first place is a lead: another seed is laid there, and undone.
  await page.keyboard.press('2')
  await mat.focus()
  await mat.press('Home')
  await mat.press(' ')
  await saved(page)
  expect((await readPiece(page, id)).piece.parts[0]!.start).toEqual([[1, 2, 9, 3, 3, 1]])
  await page.keyboard.press('Control+z')
  await saved(page)
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([])

  // Told needle by needle.
  await page.goto(`/piece/${id}/tally`)
  await expect(page.getByText('back through all 3 beads').first()).toBeVisible()
  await expect(page.getByText('left needle').first()).toBeVisible()
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([])
  await page.goto(`/piece/${id}/supplies`)
  await expect(page.getByText('Thread for both needles')).toBeVisible()

  await page.goto(`/piece/${id}/print`)
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /Piece file/ }).click(),
  ])
  const read = readPieceFile(await readFile(await file.path(), 'utf8'))
  expect(read.ok && totalOf(tallyPiece(read.value))).toBe(totalOf(tallyPiece(read.ok ? read.value : ({} as never))))
  expect(read.ok && read.value.parts[0]!.technique).toBe('rung-ladder')
})

test('a ladder is made rung by rung with both needles', async ({ weaver: page }) => {
  const id = await createPiece(page, rungLadder(4))
  await openMat(page, id)
  await page.goto(`/piece/${id}/bench`)
  await page.getByRole('button', { name: 'Begin' }).click()
  await page.getByRole('button', { name: 'Done, next' }).click()
  const step = page.locator('[data-test=runs]')
  await expect(step).toContainText('through the clasp ring')
  await page.keyboard.press('Space')
  await expect(step).toContainText('back through all 3 beads')
  await expect(step.getByText('left needle').first()).toBeVisible()
  const all = page.getByText('All is done')
  for (let k = 0; k < 40 && !(await all.isVisible()); k++) await page.keyboard.press('Space')
  await expect(all).toBeVisible()
})
