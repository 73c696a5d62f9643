import { readFile } from 'node:fs/promises'
import { readPieceFile } from '#core/format/piece-file'
import { valueOf } from '#core/problem'
import { tallyPiece } from '#core/tally/tally'
import { usualClosure } from '#core/wear/closure'
import { rowPiece } from '../fixture/rows'
import { rungLadder } from '../fixture/rung-ladder'
import { chooseWay, createPiece, expect, openMat, readPiece, saved, stateThere, test, plain, toStage } from './weaver'

/** What one finds by typing, what it begins with, and what its pages say. */
const FAMILIES = [
  {
    ...{ technique: 'rung-ladder', name: 'Ladder of rungs', typed: 'rungs', kind: 'Bracelet' },
    specs: ['cube-3-mm', 'round-8', 'round-8'],
    sections: { start: [[10, 3, 3, 1]], repeat: [[6, 2, 3, 1]], end: [[6, 2, 3, 1, 10, 3]] },
    first: [1, 2, 9, 3, 3, 1],
    says: 'back through all 3 beads',
    supplies: 'Thread for both needles',
  },
  {
    ...{ technique: 'cord-ladder', name: 'Ladder between cords', typed: 'cord ladder', kind: 'Bracelet' },
    specs: ['faceted-4-mm', 'round-8'],
    sections: {
      start: [
        [1, 2],
        [2, 2],
        [3, 2],
      ],
      repeat: [[1, 2, 1, 1, 1, 2]],
      end: [
        [3, 2],
        [2, 2],
        [1, 2],
      ],
    },
    first: [1, 1],
    says: 'wind half a turn round the far cord',
    supplies: 'Board with clips, or lap loom',
  },
  {
    ...{ technique: 'pins', name: 'Rows on pins', typed: 'elastic', kind: 'Bracelet' },
    specs: ['round-11', 'round-11', 'round-11', 'round-11'],
    sections: { start: [], repeat: [[14, 1]], end: [] },
    first: [1, 2, 13, 1],
    says: 'turned about: its head lies at the other side',
    supplies: 'Pins with 20 mm of room',
  },
  {
    ...{ technique: 'cuff-ribs', name: 'Ribs on a cuff', typed: 'wire', kind: 'Rigid cuff' },
    specs: ['round-8', 'round-8', 'round-8', 'round-8'],
    sections: { start: [], repeat: [[7, 1]], end: [] },
    first: [1, 2, 6, 1],
    says: 'wind half a turn round the cuff',
    supplies: 'Rigid cuff, 15 mm wide',
  },
  {
    ...{ technique: 'own-recipe', name: 'Recipe of your own', typed: 'own recipe', kind: 'Bracelet' },
    specs: ['round-8', 'round-8', 'round-8', 'faceted-4-mm'],
    sections: { start: [[6, 1]], repeat: [[3, 2, 3, 3, 1, 4, 3, 3]], end: [[3, 2, 6, 1]] },
    first: [1, 2, 5, 1],
    says: 'the ring closes; draw it tight',
    supplies: 'Beading needle',
  },
]

for (const { technique, name, typed, kind, specs, sections, first, says, supplies } of FAMILIES)
  test(`${name}: found at a door, drawn on, counted, cut for, printed and brought back`, async ({ weaver: page }) => {
    await page.goto('/start')
    await page.getByRole('radio', { name: kind, exact: true }).click()
    await chooseWay(page, name, typed)
    await page.getByRole('button', { name: 'Lay it on the mat' }).click()
    const mat = page.getByRole('application')
    await expect(mat).toBeVisible()
    const id = /piece\/([^/]+)\/mat/.exec(page.url())![1]!
    const begun = (await readPiece(page, id)).piece
    expect(begun.tray.map((b) => b.spec)).toEqual(specs)
    expect(begun.parts[0]).toMatchObject({ technique, ...sections })
    expect(begun.parts[0]!.times).toBeGreaterThan(5)
    // Where it is mostly made with a closure of its own, it begins with that.
    const closure = { 'cord-ladder': 'button', 'pins': 'elastic', 'cuff-ribs': 'none' }[technique] ?? 'toggle'
    expect(begun.fit.closure.kind).toBe(closure)

    // The first place is laid in the second bead, and what is laid there is part of the piece.
    await page.keyboard.press('2')
    await mat.focus()
    await mat.press('Home')
    const shown = technique === 'cord-ladder' ? '1' : '2'
    if (shown === '1') await page.keyboard.press('1')
    await mat.press(' ')
    await saved(page)
    const laid = (await readPiece(page, id)).piece.parts[0]!
    expect((laid.start[0] ?? laid.repeat[0])!).toEqual(first)
    await plain(page)

    await toStage(page, id, 'tally')
    await expect(page.getByText(says).first()).toBeVisible()
    await plain(page)
    await toStage(page, id, 'supplies')
    await expect(page.getByText(supplies).first()).toBeVisible()
    await plain(page)

    await toStage(page, id, 'print')
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: /Piece file/ }).click(),
    ])
    const path = await file.path()
    const read = valueOf(readPieceFile(await readFile(path, 'utf8')))
    const there = (await readPiece(page, id)).piece
    expect(read.parts[0]!.plan ?? {}).toEqual(there.parts[0]!.plan ?? {})
    await page.goto('/')
    await page
      .getByLabel('Piece file')
      .setInputFiles({ name: 'back.json', mimeType: 'application/json', buffer: await readFile(path) })
    await page.waitForURL(/piece\/.+\/mat/)
    const back = /piece\/([^/]+)\/mat/.exec(page.url())![1]!
    expect(back).not.toBe(id)
    expect((await readPiece(page, back)).piece.parts).toEqual(there.parts)
    expect([...tallyPiece(read)].length).toBeGreaterThan(0)
  })

test('doors are opened by key and by finger, offer what can become it, lately used first', async ({
  weaver: page,
}) => {
  await createPiece(page, rungLadder(6))
  await page.setViewportSize({ width: 400, height: 860 })
  await page.goto('/start')
  const doors = page.locator('.door .head')
  await expect(doors.first()).toContainText('Chains')
  const held = page.getByRole('button', { name: /Cords, pins and cuffs/ })
  await held.focus()
  await page.keyboard.press('Enter')
  await expect(held).toHaveAttribute('aria-expanded', 'true')
  await expect(page.getByRole('radio', { name: 'Ribs on a cuff' })).toHaveCount(0)
  await page.getByRole('radio', { name: 'Rows on pins' }).press('Space')
  await expect(held).toContainText('Chosen: Rows on pins')
  // Pins go on elastic, until another closure is chosen.
  await expect(page.getByRole('combobox', { name: 'Closure' }).locator('..')).toContainText('Elastic')
  await page.getByRole('radio', { name: 'Rigid cuff' }).click()
  await expect(page.getByText('Chosen: Rows on pins')).toHaveCount(0)
  // The door that was opened stays open.
  await page.getByRole('radio', { name: 'Ribs on a cuff' }).click()
  await page.getByRole('searchbox', { name: 'Find a way to make it' }).fill('nothing like it')
  await expect(page.getByText('can become a cuff')).toBeVisible()
  await page.getByRole('button', { name: 'Show all' }).click()
  await expect(doors).toHaveCount(2)
  await plain(page)
})

test('a ladder is made rung by rung with both needles', async ({ weaver: page }) => {
  const id = await createPiece(page, rungLadder(4))
  await openMat(page, id)
  await toStage(page, id, 'bench')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
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

test('rows between cords are begun at the button, made, bound, knotted and glued', async ({ weaver: page }) => {
  const fit = { closure: { ...usualClosure('button'), openings: 2 } }
  const id = await createPiece(
    page,
    rowPiece('cord-ladder', ['faceted-4-mm', 'round-8'], [[2, 1, 2]], { times: 3, fit }),
  )
  await toStage(page, id, 'bench')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  const step = page.getByRole('region', { name: 'The step in hand' })
  await expect(step).toContainText('Stretch the cords on the board')
  const seen: string[] = []
  for (let k = 0; k < 20 && !(await page.getByText('All is done').isVisible()); k++) {
    await page.keyboard.press('Space')
    seen.push(await step.innerText())
  }
  const all = seen.join('\n')
  for (const words of [
    ...['Fold the cord round the button', 'wind 10 turns round the near cord', 'back through all 3 beads'],
    ...['Bind the end', 'Knot 2 openings', 'A drop of glue on every knot'],
  ])
    expect(all).toContain(words)
  await page.getByRole('button', { name: 'Back', exact: true }).click()
  await expect(page.getByText('before it is moved').first()).toBeVisible()
})

test('pins are filled in any order, on a board that another device sees', async ({
  weaver: page,
  context,
  browser,
}) => {
  const rows = [
    [1, 1, 2],
    [2, 1, 1],
    [1, 1, 2],
    [2, 2, 2],
  ]
  const id = await createPiece(
    page,
    rowPiece('pins', ['round-11', 'round-11'], rows, {
      times: 3,
      settings: { stand: 'one way' },
      fit: { closure: usualClosure('elastic') },
    }),
  )
  await toStage(page, id, 'bench')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(page.getByText('Before you begin', { exact: true })).toBeVisible()
  await expect(page.getByText('0 of 12 pins filled')).toBeVisible()
  await page.keyboard.press('Space')
  await expect(page.locator('.step')).toContainText('Pin 1')
  await page.keyboard.press('Space')
  // Pins like the eighth are looked for and filled together, and one more by itself.
  await page.getByRole('button', { name: 'pin 8, empty' }).click()
  await expect(page.locator('[data-test=board-line]')).toContainText('Alike and empty: 4, 8, 12')
  await page.getByRole('button', { name: 'All 3 alike are filled' }).click()
  await page.getByRole('button', { name: 'pin 6, empty' }).click()
  await page.getByRole('button', { name: 'It is filled' }).click()
  await expect(page.getByText('5 of 12 pins filled')).toBeVisible()
  await expect(page.locator('[data-test=done]')).toHaveText('15')
  // What is in hand stays; the next press goes to the next that is empty.
  const step = page.locator('.step')
  await expect(step).toContainText('Pin 2')
  await page.keyboard.press('Space')
  await page.keyboard.press('Space')
  await expect(step).toContainText('Pin 5')
  await expect.poll(async () => (await stateThere(page, id)).presses.at(-1)?.task).toBe('rows/1/4')
  const other = await browser.newContext({
    storageState: await context.storageState(),
    viewport: { width: 400, height: 860 },
  })
  const phone = await other.newPage()
  await phone.goto(page.url())
  await expect(phone.getByText('7 of 12 pins filled')).toBeVisible()
  await phone.getByRole('button', { name: 'pin 6, filled' }).click()
  await phone.getByRole('button', { name: 'It is not filled' }).click()
  await expect(phone.getByText('6 of 12 pins filled')).toBeVisible()
  await other.close()
  await plain(page)
})

test('ribs are wound on a cuff with their turns', async ({ weaver: page }) => {
  const id = await createPiece(
    page,
    rowPiece(
      'cuff-ribs',
      ['hexagon-6-mm', 'round-11'],
      [
        [2, 1, 2, 1, 2],
        [2, 2, 2],
      ],
      {
        ...{ settings: { cuff: 20, shared: true, turns: 1 }, times: 2 },
        fit: { kind: 'cuff', easeMm: 0, closure: usualClosure('none') },
      },
    ),
  )
  await toStage(page, id, 'bench')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  const step = page.getByRole('region', { name: 'The step in hand' })
  await expect(step).toContainText('Wire springs and its ends cut')
  const seen: string[] = []
  for (let k = 0; k < 16 && !(await page.getByText('All is done').isVisible()); k++) {
    await page.keyboard.press('Space')
    seen.push(await step.innerText())
  }
  for (const words of [
    'Wind the beginning',
    'of the rib before, second hole',
    'wind 1 turn round the cuff',
    'Wind the end',
  ])
    expect(seen.join('\n')).toContain(words)
})

test('a strip is woven between cords in one step, and taken back', async ({ weaver: page }) => {
  await page.goto('/start')
  await chooseWay(page, 'Ladder', 'base of brick')
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  const id = /piece\/([^/]+)\/mat/.exec(page.url())![1]!
  const before = (await readPiece(page, id)).piece
  await page.getByRole('button', { name: 'Parts', exact: true }).click()
  await page.getByRole('button', { name: 'Weave it between cords' }).click()
  await expect(page.getByText('Ladder between cords: every row kept, bead for bead.')).toBeVisible()
  await saved(page)
  const after = (await readPiece(page, id)).piece
  expect(after.parts[0]).toMatchObject({ technique: 'cord-ladder', kind: 'lines', repeat: before.parts[0]!.repeat })
  await page.keyboard.press('Control+z')
  await saved(page)
  expect((await readPiece(page, id)).piece).toEqual(before)
})

test('a recipe is changed as a text: problems at their steps, then lines and words follow', async ({
  weaver: page,
}) => {
  await page.goto('/start')
  await chooseWay(page, 'Recipe of your own')
  await page.getByRole('button', { name: 'Lay it on the mat' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  const id = /piece\/([^/]+)\/mat/.exec(page.url())![1]!
  await toStage(page, id, 'fit')
  const text = page.getByLabel('Recipe', { exact: true })
  const written = await text.inputValue()
  expect(written).toContain('pick stem*s bud:low*p tip bud:high*p')
  await text.fill(written.replace('pass low[0..-1] tip', 'pass leaf'))
  await expect(page.getByText('Nothing is picked up as “leaf”')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Work by this recipe' })).toBeDisabled()
  await text.fill(written.replace('bud:low*p tip', 'bud:low*(p+1) tip'))
  await page.getByRole('button', { name: 'Work by this recipe' }).click()
  await saved(page)
  const { piece } = await readPiece(page, id)
  expect(piece.parts[0]!.repeat).toEqual([[3, 2, 4, 3, 1, 4, 3, 3]])
  await plain(page)
  await toStage(page, id, 'tally')
  await expect(page.getByText('through all 4 bud beads (low); the tip bead').first()).toBeVisible()
  await toStage(page, id, 'fit')
  await page.getByRole('button', { name: 'Undo' }).click()
  await saved(page)
  await expect(text).toHaveValue(/pick stem\*s bud:low\*p tip bud:high\*p/)
})
