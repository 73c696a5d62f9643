import type { Page } from '@playwright/test'
import { sessionAnswer } from '#core/contract/account'
import {
  address,
  chooseWay,
  createPiece,
  expect,
  join,
  openMat,
  plainBracelet,
  readPiece,
  saved,
  test,
  plain,
  toStage,
} from './weaver'

const check = async (page: Page, where: string) => {
  await plain(page, where)
  const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
  expect(`${where} scrolls sideways by ${wide}`).toBe(`${where} scrolls sideways by 0`)
}

/** A page that is there asks for nothing more while nothing happens. */
const quiet = (page: Page) => page.waitForLoadState('networkidle', { timeout: 60_000 })

/** Looks at screens one after the other, as someone who has an account. */
type Look = (page: Page, at: string) => Promise<void>

const emptyWorkshop: Look = async (page, at) => {
  await page.goto('/enter')
  await expect(page.getByRole('heading', { name: 'Weben' })).toBeVisible()
  await check(page, 'enter')
  await join(page, at)
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Your first bracelet' })).toBeVisible()
  await quiet(page)
  await check(page, 'empty workshop')
  await page.goto('/start')
  await expect(page.getByRole('button', { name: 'Lay it on the mat' })).toBeVisible()
  await check(page, 'start')
  await createPiece(page, plainBracelet(), at)
  await page.goto('/')
  await expect(page.locator('.pieces > li')).toHaveCount(1)
  await check(page, 'workshop')
}

const mat: Look = async (page, at) => {
  await join(page, at)
  await openMat(page, await createPiece(page, plainBracelet({ motif: 'diamonds', widthMm: 18 }), at), at)
  await check(page, 'mat')
  for (const panel of ['Tray', 'Patterns', 'Picture', 'Stamps', 'Parts', 'Views', 'Rows']) {
    await page.getByRole('button', { name: panel, exact: true }).click()
    await expect(page.locator('section.panel')).toBeVisible()
    await check(page, `mat with ${panel}`)
  }
  if (!(await page.getByRole('region', { name: 'Ways to look' }).isVisible()))
    await page.getByRole('button', { name: 'Views', exact: true }).click()
  await page.getByRole('radio', { name: 'round the wrist' }).click()
  await check(page, 'round the wrist')
  await page.getByRole('radio', { name: 'flat', exact: true }).click()
  await page.getByRole('button', { name: 'Glyphs' }).click()
  await check(page, 'mat with glyphs')
  await page.getByRole('button', { name: 'Change A Fog' }).click()
  await expect(page.getByRole('heading', { name: 'Bead A' })).toBeVisible()
  await check(page, 'bead dialog')
}

const stages: Look = async (page, at) => {
  await join(page, at)
  const id = await createPiece(page, plainBracelet({ motif: 'diamonds', widthMm: 18 }), at)
  for (const [stage, heading] of [
    ['fit', 'What comes near'],
    ['tally', 'Row by row, as worked'],
    ['supplies', 'Beads to buy'],
    ['print', 'Take it with you'],
    ['bench', 'Put it on the bench'],
  ] as const) {
    await toStage(page, id, stage)
    await expect(page.getByRole('heading', { name: heading })).toBeVisible()
    await check(page, stage)
    if (stage === 'tally')
      expect(
        await page
          .getByRole('group', { name: 'Table of counts' })
          .evaluate((table) => table.scrollWidth - table.clientWidth),
      ).toBe(0)
  }
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await page.getByRole('button', { name: /Done, next/ }).click()
  await page.getByText('Note, place, ways to work').click()
  await check(page, 'bench')
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'On the bench' })).toBeVisible()
  await check(page, 'workshop with work on the bench')
}

const braids: Look = async (page, at) => {
  await join(page, at)
  const braid = await createPiece(page, plainBracelet({ technique: 'braid-8', spec: 'round-8' }), at)
  await toStage(page, braid, 'disc')
  const toBench = page.getByRole('link', { name: 'Braid it at the bench' })
  await expect(toBench).toBeVisible()
  await check(page, 'disc')
  await toBench.click()
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(page.getByText('Before you begin', { exact: true })).toBeVisible()
  await check(page, 'what is prepared')
  await page.keyboard.press('ArrowRight')
  await expect(page.getByText('Load the bobbins', { exact: true })).toBeVisible()
  await check(page, 'bobbins to load')
  await page.keyboard.press('ArrowRight')
  await expect(page.locator('[data-test=next]')).toBeVisible()
  await check(page, 'bench of a braid')
  await toStage(page, braid, 'mat')
  await page.getByRole('button', { name: 'Patterns', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Graduate both ends' })).toBeVisible()
  await check(page, 'patterns of a rope')
  await page.getByRole('button', { name: 'Views', exact: true }).click()
  await page.getByRole('radio', { name: 'as a rope, turning' }).click()
  await check(page, 'rope in space')
  const cord = await createPiece(page, plainBracelet({ technique: 'braid-cord', spec: 'cord-2' }), at)
  for (const [stage, heading] of [
    ['disc', 'A cord in each slot'],
    ['supplies', 'What to cut'],
    ['tally', 'Every round alike'],
  ] as const) {
    await toStage(page, cord, stage)
    await expect(page.getByRole('heading', { name: heading })).toBeVisible()
    await check(page, `${stage} of plain cords`)
  }
}

const box: Look = async (page, at) => {
  await join(page, at)
  await page.goto('/box')
  await expect(page.getByText('The box is empty.')).toBeVisible()
  await check(page, 'box')
  await page.getByRole('button', { name: 'Put beads in' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Fog')
  await check(page, 'stock dialog')
  await page.getByRole('textbox', { name: 'There are, g' }).fill('40')
  await page.getByRole('textbox', { name: 'There are, g' }).press('Tab')
  await page.getByRole('button', { name: 'Put it in' }).click()
  await page.getByRole('button', { name: 'Weigh Fog' }).click()
  await check(page, 'weigh dialog')
  await page.getByRole('button', { name: 'Not now' }).click()
  await page.getByText('What the tubes hold, as a chart').click()
  await expect(page.locator('.plot .main-svg').first()).toBeVisible()
  await page.getByText('The same as a table').click()
  await check(page, 'box with a chart')
}

const shelves: Look = async (page, at) => {
  await join(page, at)
  await createPiece(page, plainBracelet(), at)
  for (const [view, heading] of [
    ['shop', 'To buy'],
    ['leftovers', 'Your pieces once more'],
    ['ready', 'To be made'],
    ['made', 'What your hand has taught'],
    ['devices', 'Bench scale'],
    ['people', 'People'],
    ['reference', 'Bead sizes'],
    ['reference/strips', 'Strips to print'],
  ] as const) {
    await page.goto(`/${view}`)
    await expect(page.getByRole('heading', { name: heading, exact: true })).toBeVisible()
    await quiet(page)
    await check(page, view)
  }
  await page.goto('/people')
  await page.getByRole('button', { name: 'Add a person' }).click()
  await page.getByRole('button', { name: '+ Wrist' }).click()
  await check(page, 'a person')
  await page.goto('/settings')
  await expect(page.getByRole('group', { name: 'Lengths in' })).toBeVisible()
  await check(page, 'settings')
}

const LOOKS: Readonly<Record<string, Look>> = {
  'on an empty workshop': emptyWorkshop,
  'on the mat': mat,
  'along the thread': stages,
  'on braids': braids,
  'in the box': box,
  'on the shelves': shelves,
}

// Colours hang on the theme, places on the width: each is looked at once.
for (const [theme, width] of [
  ['light', 1280],
  ['dark', 400],
] as const)
  for (const [where, look] of Object.entries(LOOKS))
    test(`axe finds nothing ${where}, ${theme}, ${width} px`, async ({ browser, baseURL }) => {
      const context = await browser.newContext({
        viewport: { width, height: 800 },
        colorScheme: theme,
        baseURL,
        reducedMotion: 'reduce',
      })
      await look(await context.newPage(), baseURL!)
      await context.close()
    })

test('inches, evening, a left hand and a braider’s school are kept and followed', async ({ weaver: page }) => {
  const id = await createPiece(page)
  await page.goto('/settings')
  await page.getByLabel('inches').check()
  await page.getByLabel('evening').check()
  await page.getByLabel(/left: new pieces/).check()
  await page.getByLabel(/school B/).check()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening')
  const kept = async () =>
    sessionAnswer.parse(await (await page.request.get(`${address()}/api/session`)).json()).account?.settings
  await expect.poll(kept).toMatchObject({ unit: 'in', theme: 'evening', hand: 'left', school: 'B' })
  await toStage(page, id, 'fit')
  await expect(page.getByLabel('Wrist')).toHaveValue('6 5/16 in')
  await page.getByLabel('Wrist').fill('7')
  await saved(page)
  expect((await readPiece(page, id)).piece.fit.bodyMm).toBeCloseTo(177.8, 9)
  await page.goto('/start')
  await chooseWay(page, 'Round braid, 8 strands')
  await page.getByText('How the stitch is worked').click()
  await expect(page.getByText('B: top left down first')).toBeVisible()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening')
})

test('a finger lays beads, two fingers move; nothing is laid by moving', async ({ browser, baseURL }) => {
  const context = await browser.newContext({
    viewport: { width: 400, height: 800 },
    hasTouch: true,
    isMobile: true,
    baseURL,
  })
  const page = await context.newPage()
  await page.request.post(`${baseURL}/api/account`, {
    maxRetries: 3,
    headers: { origin: baseURL! },
    data: { signIn: `Finger ${Date.now()}`, password: 'a long enough word' },
  })
  const id = await createPiece(page, plainBracelet(), baseURL)
  await openMat(page, id, baseURL)
  await page.getByRole('radio', { name: /Rust/ }).tap()
  const mat = page.getByRole('application')
  await mat.scrollIntoViewIfNeeded()
  const box = (await mat.boundingBox())!
  await page.touchscreen.tap(box.x + box.width / 2, box.y + box.height / 2)
  await saved(page)
  const laid = JSON.stringify((await readPiece(page, id)).piece.parts)
  expect(laid).toContain('1,3')
  const cdp = await context.newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: [number, number][]) =>
    cdp.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: points.map(([x, y], i) => ({ x: box.x + x, y: box.y + y, id: i })),
    })
  await touch('touchStart', [[150, 200]])
  await touch('touchStart', [
    [150, 200],
    [220, 200],
  ])
  for (let k = 1; k <= 5; k++)
    await touch('touchMove', [
      [150 - 6 * k, 200],
      [220 + 6 * k, 200],
    ])
  await touch('touchEnd', [])
  await expect(page.locator('.scale')).toBeVisible()
  expect(JSON.stringify((await readPiece(page, id)).piece.parts)).toBe(laid)
  await context.close()
})
