import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { readPieceFile } from '#core/format/piece-file'
import { fitOf } from '#core/fit/reckon'
import { linesOf } from '#core/grid/lines'
import { pieceFromBody } from '#core/piece/codec'
import { fittedPart, rowsOf, type Piece } from '#core/piece/piece'
import { crossesOf, guidesOf } from '#core/piece/wire'
import { valueOf } from '#core/problem'
import { wireList } from '#core/supply/wire-list'
import { tallyPart, totalOf } from '#core/tally/tally'
import { chooseWay, expect, readPiece, saved, test, chooseFrom, plain, toStage } from './weaver'

const now = async (page: Page, id: string): Promise<Piece> => valueOf(pieceFromBody((await readPiece(page, id)).piece))
const counts = (piece: Piece) => linesOf(fittedPart(piece).repeat).map((line) => line.length)

/** Begins a piece on wire at its door. */
async function begin(page: Page, kind: string, way: string, from?: string): Promise<string> {
  await page.goto('/start')
  await page.getByRole('radio', { name: kind, exact: true }).click()
  await chooseWay(page, way)
  if (from) await page.getByRole('radio', { name: from }).click()
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  return /piece\/([^/]+)\/mat/.exec(page.url())![1]!
}

/** Chooses in a list of the fit page, by its label. */
async function choose(page: Page, label: string, option: string) {
  await chooseFrom(page.getByRole('combobox', { name: label, exact: true }).first(), option)
  await saved(page)
}

async function fill(page: Page, label: string, value: string) {
  const field = page.getByLabel(label, { exact: true }).first()
  await field.fill(value)
  await field.press('Enter')
  await saved(page)
}

/** Counted, fitted, supplied, printed with its bending guide, made ready on the bench, and taken along. */
async function throughAll(page: Page, id: string) {
  const piece = await now(page, id)
  const part = fittedPart(piece)
  await toStage(page, id, 'tally')
  await expect(page.getByText(String(totalOf(tallyPart(part)))).first()).toBeVisible()
  await expect(page.getByText('Step by step, in pictures').first()).toBeVisible()
  await toStage(page, id, 'supplies')
  for (const { name } of wireList(piece))
    await expect(page.locator('[data-test=wire]', { hasText: name })).toBeVisible()
  await expect(page.getByText('Eye protection').first()).toBeVisible()
  await plain(page)
  await toStage(page, id, 'print')
  await expect(page.getByRole('heading', { name: 'Bend it' })).toBeVisible()
  await expect(page.getByRole('img', { name: 'Bar of 50 mm' })).toBeVisible()
  // Words of a row stand apart: who goes, what is picked up, how many beads that is.
  for (const line of await page.locator('ol.words > li').allInnerTexts()) expect(line).not.toMatch(/end\d|\S\(\d+\)$/)
  // A guide is as large on paper as it says, in true millimetres.
  const [{ guides }] = guidesOf(piece) as [ReturnType<typeof guidesOf>[number]]
  const shown = page.locator(`[data-guide="${guides[0]!.title}"] img`).first()
  const wide = await shown.evaluate((img) => img.getBoundingClientRect().width / (96 / 25.4))
  expect(wide).toBeGreaterThanOrEqual(guides[0]!.widthMm - 0.5)
  const taken = async (button: string | RegExp) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: button }).click(),
    ])
    return readFile(await file.path())
  }
  expect((await taken('Chart as SVG')).toString('utf8')).toContain('<svg')
  expect((await taken('Booklet as PDF')).subarray(0, 4).toString('latin1')).toBe('%PDF')
  expect(valueOf(readPieceFile((await taken(/Piece file/)).toString('utf8')))).toEqual(piece)
  await toStage(page, id, 'fit')
  expect((await taken('Bending guide as SVG')).toString('utf8')).toContain('50 mm: lay a rule here')
  await plain(page)
}

test('a drop of wire: wires across are placed and filled, its size is taken, it is bent and wrapped', async ({
  weaver: page,
}) => {
  const id = await begin(page, 'Earrings', 'Frame of wire')
  await plain(page)
  await toStage(page, id, 'fit')
  await expect(page.locator('[data-test=answer]')).toContainText('beads on wire')
  // Two different patterns across.
  await choose(page, 'Wire 2 carries', 'Bead with a curve')
  await choose(page, 'Wire 3 carries', 'Lozenges on two wires')
  expect(crossesOf(fittedPart(await now(page, id)))!.map((c) => c.filling)).toEqual([
    ...['straight', 'hugged', 'lozenges-2'],
  ])
  await fill(page, 'Wire 1, gap', '6')
  expect(crossesOf(fittedPart(await now(page, id)))![0]!.gap).toBe(6)
  await page.getByRole('button', { name: 'Put a wire across' }).click()
  await saved(page)
  await expect.poll(async () => rowsOf(fittedPart(await now(page, id)))).toBe(5)
  await page.getByRole('button', { name: 'Take wire 4 out' }).click()
  await saved(page)
  await expect.poll(async () => rowsOf(fittedPart(await now(page, id)))).toBe(4)
  // Longer is wanted: the frame is offered in that size, and its beads follow.
  const before = counts(await now(page, id))[0]!
  await fill(page, 'Drop', '56')
  await page
    .getByRole('button', { name: /^Take a frame/ })
    .first()
    .click()
  await saved(page)
  await expect.poll(async () => Math.abs(fitOf(await now(page, id)).differenceMm)).toBeLessThan(0.5)
  expect(counts(await now(page, id))[0]!).toBeGreaterThan(before)
  expect(counts(await now(page, id))[0]! % 2).toBe(0)
  // A bead too many by hand: said, and mended in one press.
  await page.getByRole('button', { name: /^Undo/ }).click()
  await saved(page)
  await expect.poll(async () => counts(await now(page, id))[0]!).toBe(before)
  await throughAll(page, id)
  // On the bench: bend it first, by its guide; then string, wrap, tuck in.
  await toStage(page, id, 'bench')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(page.getByText('pieces of wire fly').first()).toBeVisible()
  const next = () => page.getByRole('button', { name: /Done, next/ }).click()
  await next()
  await expect(page.getByText('Bend the frame', { exact: true })).toBeVisible()
  await expect(page.getByRole('img', { name: 'Frame, at true size', exact: true })).toBeVisible()
  await expect(page.getByText('wire that slips out of the pliers springs')).toBeVisible()
  await plain(page)
  await next()
  await expect(page.getByText('from the top, round the right side').first()).toBeVisible()
  await plain(page)
  // Once round, the wires across, and both ends are tucked in; it is put on, not sewn.
  const rows = rowsOf(fittedPart(await now(page, id)))
  for (let k = 0; k < rows; k++) await next()
  await expect(page.getByText('Tuck every end in between beads')).toBeVisible()
  await next()
  await expect(page.getByText('Put on: Ear wire', { exact: true })).toBeVisible()
})

test('a frame that is left open carries a loop on each end, and fewer beads', async ({ weaver: page }) => {
  const id = await begin(page, 'Pendant or front', 'Frame of wire')
  await toStage(page, id, 'fit')
  const before = counts(await now(page, id))[0]!
  await fill(page, 'Left open', '24')
  const piece = await now(page, id)
  expect(counts(piece)[0]!).toBeLessThan(before - 8)
  expect(guidesOf(piece)[0]!.guides[0]!.lines.filter(({ kind }) => kind === 'wire')).toHaveLength(3)
  await toStage(page, id, 'supplies')
  await expect(page.getByText('Ring or short chain').first()).toBeVisible()
  await toStage(page, id, 'fit')
  await fill(page, 'Loops', '0')
  await toStage(page, id, 'proof')
  await expect(page.getByText('Beads slide off an open end').first()).toBeVisible()
})

test('a leaf of wound rows is pointed at both ends', async ({ weaver: page }) => {
  const id = await begin(page, 'Earrings', 'Rows wound round a centre')
  await toStage(page, id, 'fit')
  const before = counts(await now(page, id))
  await expect(page.getByLabel('Tip, degrees', { exact: true })).toHaveCount(0)
  await choose(page, 'Pointed', 'at both ends')
  const after = counts(await now(page, id))
  after.slice(1).forEach((count, k) => expect(count).toBeGreaterThan(before[k + 1]!))
  await fill(page, 'Tip, degrees', '35')
  expect(fittedPart(await now(page, id)).settings).toMatchObject({ pointed: 'both', tip: 35 })
  await plain(page)
})

test('a front of wound rounds in graded sizes: a row more is as full as it is there, on a phone', async ({
  weaver: page,
}) => {
  await page.setViewportSize({ width: 400, height: 860 })
  const id = await begin(page, 'Pendant or front', 'Rows wound round a centre', 'A graded front on a chain')
  const begun = (await now(page, id)).parts
  expect(begun.map((p) => p.settings['rows'])).toEqual([undefined, 2, 3, 4, 3, 2])
  await expect(page.getByRole('application')).toBeVisible()
  await plain(page)
  await throughAll(page, id)
  const before = counts(await now(page, id))
  await fill(page, 'Rows', '3')
  expect(counts(await now(page, id))).toEqual(before.slice(0, 4))
  await fill(page, 'Rows', '4')
  const after = counts(await now(page, id))
  expect(after[4]! % 2).toBe(0)
  expect(after[4]!).toBeGreaterThan(after[3]!)
})

test('a diamond ladder of two sizes: its outline is changed, rows follow, and stand close', async ({
  weaver: page,
}) => {
  const id = await begin(page, 'Earrings', 'Wire ladder')
  await toStage(page, id, 'fit')
  await choose(page, 'Outline', 'petal')
  const petal = counts(await now(page, id))
  expect(Math.max(...petal)).toBe(petal[Math.floor(petal.length / 2)])
  await choose(page, 'Outline', 'diamond')
  await fill(page, 'Drop', '52')
  await page
    .getByRole('button', { name: /^Take \d+ rows/ })
    .first()
    .click()
  await saved(page)
  await expect.poll(async () => Math.abs(fitOf(await now(page, id)).differenceMm)).toBeLessThan(2)
  const specs = new Set((await now(page, id)).tray.map((b) => b.spec))
  expect(specs).toContain('round-11')
  expect(specs).toContain('round-8')
  await throughAll(page, id)
})

test('a ring of tiles in two sizes: whole tiles, seeds between, and what is left over', async ({ weaver: page }) => {
  const id = await begin(page, 'Ring', 'Ring of tiles')
  for (const iso of ['50', '60']) {
    await toStage(page, id, 'fit')
    await fill(page, 'Finger', iso)
    await page
      .getByRole('button', { name: /^Take \d+ repeats, whole/ })
      .first()
      .click()
    await saved(page)
    // Within half of a tile with its seeds.
    await expect.poll(async () => Math.abs(fitOf(await now(page, id)).differenceMm)).toBeLessThan(6.5)
    await expect(page.locator('[data-test=answer]')).toContainText('Ring size')
  }
  const tiles = rowsOf(fittedPart(await now(page, id)))
  await fill(page, 'Seeds between', '1')
  expect(rowsOf(fittedPart(await now(page, id)))).toBe(tiles)
  expect(new Set(counts(await now(page, id)))).toEqual(new Set([3]))
  await throughAll(page, id)
  // Thick wire is said to be tight, and the next is named.
  await toStage(page, id, 'fit')
  await choose(page, 'Wire, gauge', '20 · 0.81 mm')
  await toStage(page, id, 'supplies')
  await expect(page.getByText('Tight').first()).toBeVisible()
  await expect(page.getByText(/Wire of 22 gauge \(0\.64 mm\) goes through easily/).first()).toBeVisible()
})

test('a bar stud and a hoop: beads that move, a post, and a butterfly for each', async ({ weaver: page }) => {
  const id = await begin(page, 'Earrings', 'Stud or hoop of wire')
  // From the wrong side one looks at the ends of its post and its bend, which hide behind it from the front.
  const shot = async () => (await page.locator('.mat-canvas canvas').first().screenshot()).toString('base64')
  const front = await shot()
  await page.keyboard.press('y')
  const panel = page.getByRole('region', { name: 'Ways to look' })
  await panel.getByRole('radio', { name: 'wrong side', exact: true }).click()
  await expect.poll(shot).not.toBe(front)
  // What hangs is bent round nothing when it is worn.
  await expect(panel.getByRole('radio', { name: /round/ })).toHaveCount(0)
  await toStage(page, id, 'supplies')
  await expect(page.getByText(/Butterfly backs/).first()).toBeVisible()
  await toStage(page, id, 'fit')
  const bar = counts(await now(page, id))[0]!
  await fill(page, 'Size', '30')
  expect(counts(await now(page, id))[0]!).toBeGreaterThan(Math.min(bar, 12))
  await choose(page, 'Shape', 'hoop')
  await expect(page.getByRole('button', { name: 'Every line is full' })).toBeDisabled()
  await throughAll(page, id)
})
