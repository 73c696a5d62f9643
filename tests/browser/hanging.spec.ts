import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { readPieceFile } from '#core/format/piece-file'
import { fitOf } from '#core/fit/reckon'
import { pieceFromBody } from '#core/piece/codec'
import { isOwnMirror } from '#core/piece/pair'
import { fittedPart, rowsOf, type Piece } from '#core/piece/piece'
import { valueOf } from '#core/problem'
import { weightOf } from '#core/supply/cost'
import { cutList } from '#core/supply/thread'
import { tallyPart, tallyPiece, totalOf } from '#core/tally/tally'
import { DEMO_PIECES } from '../../demo/pieces'
import { chooseWay, createPiece, expect, readPiece, saved, test, chooseFrom, plain, toStage } from './weaver'

const now = async (page: Page, id: string): Promise<Piece> => valueOf(pieceFromBody((await readPiece(page, id)).piece))
const demo = (name: string): Piece => DEMO_PIECES.find((p) => p.name === name)!

/** Begins earrings (or what else) at a door, hanging from something. */
async function begin(page: Page, kind: string, way: string, typed: string, from: string): Promise<string> {
  await page.goto('/start')
  await page.getByRole('radio', { name: kind, exact: true }).click()
  await chooseWay(page, way, typed)
  await page.getByRole('radiogroup', { name: 'Hangs from' }).getByRole('radio', { name: from, exact: true }).click()
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  return /piece\/([^/]+)\/mat/.exec(page.url())![1]!
}

/** A zone is changed in the panel: strands, drop, weight and thread go with it at once, and back in one press. */
async function zoneEdited(page: Page, id: string) {
  await toStage(page, id, 'mat')
  await page.getByRole('button', { name: 'Strands', exact: true }).click()
  const before = await now(page, id)
  await page.getByRole('button', { name: 'Zone 1: one bead more' }).click()
  await saved(page)
  await expect
    .poll(async () => totalOf(tallyPiece(await now(page, id))))
    .toBe(totalOf(tallyPiece(before)) + rowsOf(fittedPart(before)))
  const after = await now(page, id)
  expect(fitOf(after).finishedMm.nominal).toBeGreaterThan(fitOf(before).finishedMm.nominal)
  expect(weightOf(after)).toBeGreaterThan(weightOf(before))
  const thread = (p: Piece) => cutList(p).reduce((sum, cut) => sum + cut.totalMm - cut.spareMm, 0)
  // Pins have wire of their own and no thread.
  if (fittedPart(before).technique === 'fringe') expect(thread(after)).toBeGreaterThan(thread(before))
  await page.getByRole('button', { name: /^Undo/ }).click()
  await saved(page)
  await expect.poll(async () => (await readPiece(page, id)).piece.parts).toEqual((await pieceOf(before)).parts)
}
const pieceOf = async (p: Piece) => (await import('#core/piece/codec')).pieceToBody(p)

/** Counted, fitted, supplied, printed and taken along. */
async function throughAll(page: Page, id: string, { findings, pair }: { findings: RegExp; pair: boolean }) {
  const piece = await now(page, id)
  const part = fittedPart(piece)
  await toStage(page, id, 'tally')
  await expect(page.getByText(String(totalOf(tallyPart(part)))).first()).toBeVisible()
  if (rowsOf(part) > 2 && isOwnMirror(part)) await expect(page.getByText(/from the other side/).first()).toBeVisible()
  await toStage(page, id, 'fit')
  await expect(page.locator('[data-test=answer]')).toContainText(pair ? 'Each hangs' : 'Comes to')
  await toStage(page, id, 'supplies')
  await expect(page.getByText(findings).first()).toBeVisible()
  await toStage(page, id, 'print')
  await expect(page.getByText('a card for each list').first()).toBeVisible()
  await expect(page.getByText(pair ? 'At true size: both of the pair' : 'At true size').first()).toBeVisible()
  const taken = async (button: string | RegExp) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: button }).click(),
    ])
    return readFile(await file.path())
  }
  const lists = (await taken('Strand lists as CSV')).toString('utf8').trim().split(/\r?\n/)
  expect(lists.slice(1).reduce((sum, line) => sum + Number(line.split(',')[7]), 0)).toBe(totalOf(tallyPart(part)))
  expect((await taken('The whole as SVG')).toString('utf8')).toContain('<svg')
  expect((await taken('Booklet as PDF')).subarray(0, 4).toString('latin1')).toBe('%PDF')
  const back = valueOf(readPieceFile((await taken(/Piece file/)).toString('utf8')))
  expect(back).toEqual(piece)
}

test('a chandelier on a bar with holes: begun, changed by its rule and by hand, fitted and taken along', async ({
  weaver: page,
}) => {
  const id = await begin(page, 'Earrings', 'Fringe', 'strands', 'A bar with holes')
  const begun = await now(page, id)
  expect(begun.parts.map((p) => p.technique)).toEqual(['finding', 'brick', 'fringe'])
  await plain(page)
  await zoneEdited(page, id)

  // Fifteen strands: the rule makes them, and so many beads go over the holes.
  const strands = rowsOf(fittedPart(await now(page, id)))
  await page.getByRole('button', { name: 'One strand fewer' }).click()
  await page.getByRole('button', { name: 'One strand fewer' }).click()
  await expect.poll(async () => rowsOf(fittedPart(await now(page, id)))).toBe(strands - 2)
  await plain(page)

  // A strand typed by hand: its mirror follows, and both are marked.
  await page.getByRole('button', { name: /^2 / }).click()
  const field = page.getByLabel('Strand 2 from the top, like 3A 1B')
  await field.fill('4A 2B 1C')
  await field.press('Enter')
  await saved(page)
  await expect(page.getByText('2 were changed by hand and stay so.')).toBeVisible()
  expect(isOwnMirror(fittedPart(await now(page, id)))).toBe(true)

  // A bead painted on the mat comes on the other side too.
  const mat = page.getByRole('application')
  await mat.focus()
  await mat.press('Home')
  await page.keyboard.press('3')
  await mat.press(' ')
  await saved(page)
  expect(isOwnMirror(fittedPart(await now(page, id)))).toBe(true)

  // A shorter drop is wanted: what comes near is a zone; one is taken.
  await toStage(page, id, 'fit')
  const drop = page.getByLabel('Drop')
  await drop.fill('50')
  await drop.press('Enter')
  await saved(page)
  await page
    .getByRole('button', { name: /^Take zone/ })
    .first()
    .click()
  await saved(page)
  await expect.poll(async () => Math.abs(fitOf(await now(page, id)).differenceMm)).toBeLessThan(1.5)
  await plain(page)
  await throughAll(page, id, { findings: /Bar with \d+ holes/, pair: true })
})

test('a hoop with fringe on the phone: seen as it hangs, made strand by strand, a mirrored one told as such', async ({
  weaver: page,
}) => {
  await page.setViewportSize({ width: 400, height: 860 })
  const id = await begin(page, 'Earrings', 'Fringe', 'strands', 'A hoop')
  await plain(page)
  await throughAll(page, id, { findings: /Hoop, \d+ mm across/, pair: true })
  await toStage(page, id, 'bench')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  const which = page.locator('.which').first()
  for (let k = 0; k < 60 && !/^Strand/.test(await which.innerText().catch(() => '')); k++) {
    await page.keyboard.press('Space')
    await page.waitForTimeout(60)
  }
  await expect(which).toContainText('Strand 1')
  const last = rowsOf(fittedPart(await now(page, id)))
  for (let r = 1; r < last; r++) {
    await page.keyboard.press('Space')
    await expect(which).toContainText(`Strand ${r + 1}`)
  }
  await expect(page.getByText('as strand 1, from the other side')).toBeVisible()
  await plain(page)
})

test('dangles graded in fives: pins by length, an uneven pair, both earrings', async ({ weaver: page }) => {
  const id = await begin(page, 'Earrings', 'Dangles on pins', 'pins', 'A bar with holes')
  expect(rowsOf(fittedPart(await now(page, id)))).toBeLessThanOrEqual(9)
  await zoneEdited(page, id)
  await page.getByRole('radio', { name: 'each its own' }).click()
  await page.getByRole('button', { name: /^1 / }).click()
  const field = page.getByLabel('Pin 1 from the top, like 3A 1B')
  await field.fill('1B 2A')
  await field.press('Enter')
  await saved(page)
  await expect(page.locator('[data-test=answer]')).toContainText('mirror of the first')
  await toStage(page, id, 'print')
  await expect(page.getByText('make it from the last pin to the first').first()).toBeVisible()
  await throughAll(page, id, { findings: /Headpins \d+ mm/, pair: true })
  await toStage(page, id, 'fit')
  await chooseFrom(page.getByRole('combobox', { name: 'The second of the pair' }), 'is a copy of it')
  await expect(page.locator('[data-test=answer]')).toContainText('Make two alike')
})

test('a fringed loom pendant and studs with a drop are changed and taken along', async ({ weaver: page }) => {
  const pendant = await createPiece(page, demo('Lighthouse pendant'))
  await zoneEdited(page, pendant)
  await throughAll(page, pendant, { findings: /Cord to wear it on/, pair: false })
  const studs = await createPiece(page, demo('Pebble studs'))
  await zoneEdited(page, studs)
  await throughAll(page, studs, { findings: /Headpins/, pair: true })
})

test('a front on a chain: its links are a necklace long, and every so-manieth carries a dangle', async ({
  weaver: page,
}) => {
  const id = await begin(page, 'Pendant or front', 'Dangles on pins', 'pins', 'A chain, as a front')
  const begun = await now(page, id)
  expect(begun.parts.map((p) => p.technique)).toEqual(['finding', 'dangles'])
  expect(fittedPart(begun).settings).toMatchObject({ first: 0 })
  await plain(page)
  await zoneEdited(page, id)
  await throughAll(page, id, { findings: /Chain of \d+ links/, pair: false })
  // A longer necklace has more links; where none of them is the middle one, the next counts are said.
  await toStage(page, id, 'mat')
  await page.getByRole('button', { name: 'Parts', exact: true }).click()
  await page.getByRole('button', { name: 'Take it in hand: Chain' }).click()
  const long = page.getByLabel('Length', { exact: true })
  const { tall, pitch } = begun.parts[0]!.settings as { tall: number; pitch: number }
  await long.fill(`${tall + pitch} mm`)
  await long.press('Enter')
  await saved(page)
  await expect.poll(async () => (await now(page, id)).parts[0]!.settings.tall).toBeCloseTo(tall + pitch, 6)
  await toStage(page, id, 'tally')
  await expect(page.getByText(/have no middle for \d+ places/).first()).toBeVisible()
})

test('a finding and a fringe are put on a band by hand, with a swag', async ({ weaver: page }) => {
  const id = await createPiece(page)
  await toStage(page, id, 'mat')
  await page.getByRole('button', { name: 'Parts', exact: true }).click()
  await page.getByRole('combobox', { name: 'Another part, in' }).fill('Fringe')
  await page.getByRole('option', { name: 'Fringe', exact: true }).click()
  await page.getByRole('button', { name: 'Add the part' }).click()
  await saved(page)
  await chooseFrom(page.getByRole('combobox', { name: 'Part', exact: true }), 'Band')
  await saved(page)
  const fringe = async () => (await now(page, id)).parts.find((p) => p.technique === 'fringe')!
  await expect.poll(async () => (await fringe()).held?.places.length ?? 0).toBeGreaterThan(3)
  await page.getByRole('button', { name: 'Strands', exact: true }).click()
  await page.getByRole('button', { name: /^1 / }).click()
  const to = page.getByLabel('Leads to place')
  await to.fill('4')
  await to.press('Enter')
  await saved(page)
  const { plan } = (await readPiece(page, id)).piece.parts.find((p) => p.technique === 'fringe')!
  expect((plan as { own: unknown[] }).own).toEqual([{ strand: 0, to: 3 }])
  await plain(page)

  // Earrings to match the band: its beads, its motif, in one press.
  await toStage(page, id, 'fit')
  await page.getByRole('button', { name: 'Earrings', exact: true }).click()
  await page.waitForURL((url) => /piece\/[^/]+\/mat/.test(url.pathname) && !url.pathname.includes(id))
  const matched = /piece\/([^/]+)\/mat/.exec(page.url())![1]!
  const set = await now(page, matched)
  expect(set.parts.map((p) => p.technique)).toEqual(['loom', 'fringe'])
  expect(set.fit.kind).toBe('earrings')
})
