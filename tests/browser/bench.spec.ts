import { readFile } from 'node:fs/promises'
import ICAL from 'ical.js'
import type { Page } from '@playwright/test'
import type { MakingListing } from '#core/contract/making'
import { courseOf } from '#core/making/chore'
import type { Piece } from '#core/piece/piece'
import { supplySchema } from '#core/piece/schema'
import { requireSpec } from '#core/bead/spec'
import { valueOf } from '#core/problem'
import { fitOf } from '#core/fit/reckon'
import { pieceFromBody } from '#core/piece/codec'
import type { PieceBody } from '#core/piece/schema'
import { requireTechnique } from '#core/technique/registry'
import { bead, part, piece, rows } from '../fixture/piece'
import { address, createPiece, expect, newName, PASSWORD, stateThere, test, plain, toStage } from './weaver'

const small = (technique: string, over: Partial<Piece> = {}): Piece => {
  const t = requireTechnique(technique)
  const spec = t.material.usualSpec
  const columns = t.growth.nearestColumns(4, t.settings.parse({}))
  const line = (letters: string) => letters.repeat(columns).slice(0, columns)
  return piece({
    name: `Small ${technique}`,
    tray: [1, 2].map((n) => bead(n, { spec })),
    parts: [
      part({
        technique,
        spec,
        settings: t.settings.parse({}),
        times: 2,
        start: rows(line('A')),
        repeat: t.material.through ? rows(line('A')) : rows(line('AB'), line('BA')),
        end: rows(line('A')),
      }),
    ],
    ...over,
  })
}

const begin = async (page: Page, id: string) => {
  await toStage(page, id, 'bench')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(page.locator('[data-test=done]')).toHaveText('0')
}
/** Past what is prepared. */
const beginRows = async (page: Page, id: string) => {
  await begin(page, id)
  await expect(page.getByText('Before you begin', { exact: true })).toBeVisible()
  await page.keyboard.press('Space')
  await expect(page.locator('[data-test=runs]')).toBeVisible()
}
// One of each family that shows otherwise, to the end: begun here, a part of it while the line is down, the rest on
// another device.
for (const technique of ['peyote', 'peyote-tube', 'braid-8', 'braid-cord', 'coil']) {
  test(`a small piece of ${technique} is made to the end`, async ({ weaver: page, context, browser, baseURL }) => {
    const p = small(technique)
    const agenda = courseOf(p, { copies: 1, copyOrder: 'in turn' })
    const id = await createPiece(page, p)
    await begin(page, id)
    let presses = 0
    const on = async (device: Page) => {
      // By key, by press, by the arrow: all are one.
      if (presses % 3 === 0) await device.getByRole('button', { name: /Done, next/ }).click()
      else await device.keyboard.press(presses % 3 === 1 ? 'Space' : 'ArrowRight')
      presses++
    }
    for (let k = 0; k < 3; k++) await on(page)
    await context.route('**/api/**', (route) => route.abort())
    for (let k = 0; k < 3; k++) await on(page)
    const done = await page.locator('[data-test=done]').innerText()
    await context.unroute('**/api/**')
    await expect.poll(async () => (await stateThere(page, id)).presses.length).toBe(presses)

    // Another device of the same person knows nothing but what the server has.
    const other = await browser.newContext({ baseURL: baseURL!, storageState: await context.storageState() })
    const there = await other.newPage()
    await toStage(there, id, 'bench')
    await expect(there.locator('[data-test=done]')).toHaveText(done)
    while (!(await there.getByText('All is done').isVisible()) && presses < 400) await on(there)
    await expect(there.locator('[data-test=done]')).toHaveText(String(agenda.beads))
    await there.getByRole('button', { name: 'It is made' }).click()
    await expect(there.getByText('It is made. Write it down.')).toBeVisible()
    await expect.poll(async () => (await stateThere(page, id)).status).toBe('made')
    const state = await stateThere(page, id)
    expect(state.presses).toHaveLength(presses)
    expect(state.presses.at(-1)).toMatchObject({ task: 'done', beads: agenda.beads })
    // The first device sees it too.
    await expect(page.getByText('It is made. Write it down.')).toBeVisible()
    await other.close()
  })
}

test('a row is gone through run by run, by keys, a pedal and a swipe, with a note, and found again', async ({
  browser,
  page,
  baseURL,
}) => {
  const name = newName()
  await page.request.post(`${address()}/api/account`, {
    headers: { origin: address() },
    data: { signIn: name, password: PASSWORD },
  })
  const id = await createPiece(page, small('loom'))
  await beginRows(page, id)
  await page.keyboard.press('Space')
  await expect(page.getByText('Row 2', { exact: false }).first()).toBeVisible()
  await page.getByText('Note, place, ways to work').click()
  await page.getByLabel('run by run within a row').check()
  await page.getByRole('button', { name: 'Teach a pedal or key' }).click()
  await page.keyboard.press('b')
  await expect(page.getByText('“b” goes on')).toBeVisible()
  await page.locator('h1').click({ position: { x: 2, y: 2 } })
  await page.keyboard.press('Escape')
  await page.getByLabel('A note at this step').fill('Thread frays here')
  await page.getByRole('button', { name: 'Keep the note' }).click()
  await page
    .getByRole('heading', { name: 'Bench' })
    .evaluate((h) => (document.activeElement as HTMLElement).blur() ?? h)
  await page.keyboard.press('b')
  await page.keyboard.press('b')
  const runs = page.locator('[data-test=runs] li')
  await expect(runs.nth(2)).toHaveAttribute('aria-current', 'step')
  await expect(page.locator('[data-test=done]')).toHaveText('6')
  await expect(page.locator('[data-test=pause]')).toContainText('2 of its 4 beads are strung')
  await page.keyboard.press('Backspace')
  await expect(runs.nth(1)).toHaveAttribute('aria-current', 'step')
  await expect(page.getByText('Thread frays here')).toBeVisible()

  // The rest on a phone lying on the table.
  const other = await browser.newContext({
    baseURL,
    viewport: { width: 400, height: 800 },
    hasTouch: true,
    isMobile: true,
  })
  const phone = await other.newPage()
  await phone.request.post(`${address()}/api/session`, {
    headers: { origin: address() },
    data: { signIn: name, password: PASSWORD },
  })
  await expect.poll(async () => (await stateThere(page, id)).presses.at(-1)?.bite).toBe(1)
  await toStage(phone, id, 'bench')
  await expect(phone.locator('[data-test=done]')).toHaveText('5')
  const lower = phone.getByRole('button', { name: /Done, next/ })
  const box = (await lower.boundingBox())!
  expect(box.y).toBeLessThan(520)
  expect(box.y + box.height).toBeGreaterThan(690)
  await lower.tap()
  // This device goes row by row: the row in hand is done.
  await expect(phone.locator('[data-test=done]')).toHaveText('8')
  const swipe = async (from: number, to: number) => {
    const touch = await other.newCDPSession(phone)
    const y = box.y + 60
    await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ x: from, y }] })
    for (let k = 1; k <= 5; k++)
      await touch.send('Input.dispatchTouchEvent', {
        type: 'touchMove',
        touchPoints: [{ x: from + ((to - from) * k) / 5, y }],
      })
    await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  }
  await swipe(330, 150)
  await expect(phone.locator('[data-test=done]')).toHaveText('12')
  await swipe(150, 330)
  await expect(phone.locator('[data-test=done]')).toHaveText('8')
  await expect(page.locator('[data-test=done]')).toHaveText('8')
  await plain(phone)
  await other.close()
})

test('presses made while the line is down wait in the browser, over a reload, and are counted once', async ({
  weaver: page,
  context,
}) => {
  const id = await createPiece(page, small('peyote'))
  await beginRows(page, id)
  await expect.poll(async () => (await stateThere(page, id)).presses.length).toBe(1)
  await context.route('**/api/**', (route) => route.abort())
  await page.keyboard.press('Space')
  await page.keyboard.press('Space')
  await expect(page.getByText(/2 presses wait in this browser/)).toBeVisible()
  await expect(page.locator('[data-test=done]')).toHaveText('6')
  // One more, and in the same moment the page is gone.
  await Promise.all([
    page.waitForEvent('domcontentloaded'),
    page.evaluate(() => {
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', code: 'Space', bubbles: true }))
      location.reload()
    }),
  ])
  await context.unroute('**/api/**')
  await expect(page.locator('[data-test=done]')).toHaveText('8')
  await expect.poll(async () => (await stateThere(page, id)).presses.length).toBe(4)
  expect((await stateThere(page, id)).presses.map((p) => p.task)).toEqual([0, 1, 2, 3].map((row) => `band/1/${row}`))
})

test('a pair is made side by side; the bench is cleared and the making found among what was made', async ({
  weaver: page,
}) => {
  const id = await createPiece(page, small('loom'))
  await toStage(page, id, 'bench')
  await page.getByLabel('How many').fill('2')
  await page.getByLabel('How many').press('Tab')
  await page.getByLabel('In which order').click({ force: true })
  await page.getByRole('option', { name: 'Side by side, row by row' }).click()
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(page.getByText('Before you begin', { exact: true })).toBeVisible()
  await page.keyboard.press('Space')
  await expect(page.getByText('1 of 2 ·')).toBeVisible()
  await page.keyboard.press('Space')
  await expect(page.getByText('2 of 2 ·')).toBeVisible()
  await expect(page.locator('.which strong')).toContainText('Row 1')
  const all = page.getByText('All is done')
  for (let k = 0; k < 40 && !(await all.isVisible()); k++) await page.keyboard.press('Space')
  await page.getByRole('button', { name: 'It is made' }).click()
  // Said too early: it is on the bench again, where it was.
  await page.getByRole('button', { name: 'Not finished after all' }).click()
  await expect(all).toBeVisible()
  await page.getByRole('button', { name: 'It is made' }).click()
  await page.getByRole('button', { name: 'Clear the bench' }).click()
  await expect(page.getByRole('heading', { name: 'Put it on the bench' })).toBeVisible()
  await expect(page.getByText('made', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Look at it' }).click()
  await expect(page.getByText('It is made. Write it down.')).toBeVisible()
  await page.getByRole('button', { name: 'Clear the bench' }).click()
  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  await page.getByRole('button', { name: 'Yes, remove it for good' }).click()
  await expect(page.getByText('Makings of this piece')).toHaveCount(0)
})

test('where the thread will end is foretold, and moves on when one joins earlier', async ({ weaver: page }) => {
  const p = small('peyote', { supply: supplySchema.parse({ workingLengthMm: 500, tailMm: 50, claspTailMm: 50 }) })
  const id = await createPiece(page, { ...p, parts: [{ ...p.parts[0]!, times: 60 }] })
  await beginRows(page, id)
  const join = page.locator('[data-test=join]')
  const rowsOn = async () => Number(/, (\d+) rows? on/.exec(await join.innerText())![1])
  const foretold = await rowsOn()
  expect(foretold).toBeGreaterThan(20)
  for (let k = 0; k < 10; k++) await page.keyboard.press('Space')
  await expect.poll(rowsOn).toBe(foretold - 10)
  // It ends here and now: the next is a whole thread away.
  await page.getByRole('button', { name: 'I joined here' }).click()
  await expect.poll(rowsOn).toBeGreaterThanOrEqual(foretold - 1)
  const title = page.locator('.which strong')
  for (let k = 0; k < 200 && !(await title.innerText()).startsWith('Join'); k++) await page.keyboard.press('Space')
  await expect(title).toHaveText('Join new thread')
  // It lasts a row longer than that.
  const laid = Number(await page.locator('[data-test=done]').innerText())
  await page.getByRole('button', { name: 'Not yet' }).click()
  await expect(title).toContainText('Row')
  await page.keyboard.press('Space')
  await expect(title).toHaveText('Join new thread')
  expect(Number(await page.locator('[data-test=done]').innerText())).toBeGreaterThan(laid)
})

test('it is measured on the way, comes out too long, and is led to its length', async ({ weaver: page }) => {
  const p = small('loom')
  const fit = { ...p.fit, bodyMm: 134 }
  const start = { ...p, fit, parts: [{ ...p.parts[0]!, times: 42 }] }
  const id = await createPiece(page, start)
  await beginRows(page, id)
  const title = page.locator('.which strong')
  for (let k = 0; k < 60 && !(await title.innerText()).startsWith('Lay'); k++) await page.keyboard.press('Space')
  const should = Number(/[\d.]+/.exec(await page.locator('[data-test=should]').innerText())![0])
  expect(should).toBeGreaterThan(25.4)
  // Ten in a hundred longer than foreseen.
  await page.getByLabel('It measures').fill(`${(should * 1.1).toFixed(1)} mm`)
  await page.getByRole('button', { name: 'That is it' }).click()
  const means = page.locator('[data-test=means]')
  await expect(means).toContainText('over')
  const choices = page.getByRole('list', { name: 'What may still be done' }).getByRole('listitem')
  await choices.filter({ hasText: 'just right' }).getByRole('button', { name: 'Take it' }).first().click()
  await expect(means).toContainText('just right')
  // The measure is a swatch of the piece, the rows made are as they were, and the place is kept.
  await expect(title).toHaveText('Lay the tape along it')
  const saved = async () =>
    (
      (await (await page.request.get(`${address()}/api/piece/${id}`)).json()) as {
        piece: { gauges: { swatches: { from: string }[] }[] }
      }
    ).piece.gauges[0]?.swatches[0]?.from ?? ''
  await expect.poll(saved).toContain('on the bench')
  await page.keyboard.press('Space')
  await expect(title).toContainText('Row')
  // To the end, as it was adapted: at this rate it is as long as it is wanted.
  const all = page.getByText('All is done')
  for (let k = 0; k < 300 && !(await all.isVisible()); k++) await page.keyboard.press('ArrowRight')
  await expect(all).toBeVisible()
  const body = (await (await page.request.get(`${address()}/api/piece/${id}`)).json()) as { piece: PieceBody }
  const ended = fitOf(valueOf(pieceFromBody(body.piece)))
  expect(ended.basis.kind).toBe('gauge')
  expect(Math.abs(ended.differenceMm)).toBeLessThan(1)
  expect(ended.beadworkMm.nominal / fitOf(start).beadworkMm.nominal).toBeLessThan(1.1)
})

test('glue is waited for, on any device and over a reload', async ({ weaver: page }) => {
  const id = await createPiece(page, small('braid-8'))
  await begin(page, id)
  await page.getByLabel('Cull: put broken').check()
  const title = page.locator('.which strong')
  await page.getByRole('button', { name: /Done, next/ }).focus()
  for (let k = 0; k < 80 && !(await title.filter({ hasText: 'Glue' }).isVisible()); k++)
    await page.keyboard.press('Space')
  await expect(page.getByText('instant glue bonds skin')).toBeVisible()
  await page.keyboard.press('Space')
  const timers = page.locator('[data-test=timers]')
  await expect(timers).toContainText(/(20:00|19:\d\d)before it is moved/)
  await expect(timers).toContainText('before it is worn')
  await expect.poll(async () => (await stateThere(page, id)).ticks.size).toBe(3)
  await page.reload()
  await expect(timers).toContainText('before it is moved')
})

test('a miscount is found, told bead by bead, and led out of', async ({ weaver: page }) => {
  const id = await createPiece(page, small('loom'))
  await beginRows(page, id)
  for (let k = 0; k < 3; k++) await page.keyboard.press('Space')
  const wrong = () => page.getByRole('button', { name: 'I found a mistake' }).click()
  const strung = page.getByLabel('Strung so')
  await wrong()
  // The row that was worked last is asked for; the one before it was wrong.
  await expect(page.locator('[data-test=looked-at]')).toHaveText('Row 3')
  await strung.fill('1B 1A 1B 1A')
  await expect(page.getByText('It is as planned.')).toBeVisible()
  await strung.fill('')
  await page.getByRole('button', { name: 'The one before' }).click()
  for (const letter of ['A', 'B', 'B', 'B']) await page.getByRole('button', { name: letter, exact: true }).click()
  await expect(strung).toHaveValue('1A 3B')
  const found = page.locator('[data-test=found]')
  await expect(found).toContainText('Row 2, 1 bead differs: bead 3: 1B instead of 1A')
  await expect(page.getByText('6 beads off and on again')).toBeVisible()
  await page.getByLabel('mirrored on the other half').check()
  await page.getByRole('button', { name: 'Carry on' }).click()
  await expect(page.locator('.which strong')).toContainText('Row 4')
  // The plan follows, mirrored, and nobody asks about it.
  const lines = async () => {
    const { piece: saved } = (await (await page.request.get(`${address()}/api/piece/${id}`)).json()) as {
      piece: { parts: { times: number; start: number[][]; end: number[][] }[] }
    }
    const { times, start, end } = saved.parts[0]!
    return JSON.stringify([start, times, end])
  }
  await expect.poll(lines).toContain('[1,1,3,2]')
  await expect.poll(async () => (await stateThere(page, id)).seen).toBeGreaterThan(0)
  await expect(page.locator('[data-test=changed]')).toHaveCount(0)
  expect((await stateThere(page, id)).mistakes).toMatchObject([{ way: 'carry on', beads: 0 }])

  // Another is unpicked: the hands go back to it.
  await wrong()
  await strung.fill('1B 1A 2B')
  await page.getByRole('button', { name: 'Unpick', exact: true }).click()
  await expect(page.locator('.which strong')).toContainText('Row 3')
  await expect(page.locator('[data-test=done]')).toHaveText('11')
  await expect(page.getByText('Unpicked: Row 3')).toBeVisible()
})

test('made rows that the plan has otherwise now are asked about; what is still to come is not', async ({
  weaver: page,
  context,
}) => {
  const id = await createPiece(page, small('loom'))
  await beginRows(page, id)
  for (let k = 0; k < 2; k++) await page.keyboard.press('Space')
  await expect.poll(async () => (await stateThere(page, id)).presses.length).toBe(3)
  const other = await context.newPage()
  const commit = async (base: number, steps: object[]) => {
    const answer = await other.request.post(`${address()}/api/piece/${id}/step`, {
      headers: { origin: address() },
      data: { base, transactions: [{ id: crypto.randomUUID(), label: 'Other', steps }] },
    })
    expect(answer.status()).toBe(200)
  }
  const changed = page.locator('[data-test=changed]')
  await commit(0, [{ type: 'set', path: ['parts', 'band', 'times'], before: 2, after: 4 }])
  await page.reload()
  await expect(page.locator('.which strong')).toContainText('Row 3')
  await expect.poll(async () => (await stateThere(page, id)).seen).toBe(1)
  await expect(changed).toHaveCount(0)
  // A row before all that is made, and one bead of it otherwise.
  await commit(1, [{ type: 'rows', do: 'insert', part: 'band', section: 'start', at: 0, count: 1, cells: [4, 2] }])
  // The line is down for a moment just when the piece as it was is asked for: it is asked for again.
  let lost = 0
  await page.route('**/revision/1', (route) => (lost++ === 0 ? route.abort() : route.continue()))
  await page.reload()
  await expect(changed).toContainText('Made rows differ now')
  expect(lost).toBe(2)
  await plain(page)
  await page.getByRole('button', { name: 'Keep my place' }).click()
  await expect(changed).toHaveCount(0)
  await expect(page.locator('.which strong')).toContainText('Row 4')
  // Kept by the server, and not only seen here.
  await expect.poll(async () => (await stateThere(page, id)).seen).toBe(2)
  await page.reload()
  await expect(page.locator('.which strong')).toContainText('Row 4')
  await expect(changed).toHaveCount(0)
})

test('a record is kept, settles the box in one press, and what it teaches is used', async ({ weaver: page }) => {
  const p = small('loom', { parts: [{ ...small('loom').parts[0]!, times: 40 }] })
  const [a] = p.tray
  const tube = { kind: 'bead', name: a!.name, spec: a!.spec, colour: a!.colour, finish: a!.finish, grams: 10 }
  await page.request.post(`${address()}/api/shelf`, { headers: { origin: address() }, data: { values: [tube] } })
  const id = await createPiece(page, p)
  await begin(page, id)
  // An evening of it, as it was pressed: 164 beads in an hour.
  const { makings } = (await (await page.request.get(`${address()}/api/piece/${id}/making`)).json()) as {
    makings: MakingListing[]
  }
  const now = Date.now()
  const press = (k: number) => ({
    id: `evening-${k}`,
    at: now - 3_600_000 + k * 240_000,
    event: { do: 'at', task: k < 15 ? `band/1/${k * 5}` : 'done', bite: 0, says: '', beads: (k * 328) / 15, of: 328 },
  })
  await page.request.post(`${address()}/api/piece/${id}/making/${makings[0]!.id}/event`, {
    headers: { origin: address() },
    data: {
      after: 0,
      now,
      events: Array.from({ length: 16 }, (_, k) => {
        const one = press(k)
        return { ...one, event: { ...one.event, beads: Math.round(one.event.beads) } }
      }),
    },
  })
  await page.reload()
  await page.getByRole('button', { name: 'It is made' }).click()
  await page.getByLabel('A aside').fill('36')
  await page.getByLabel('A used').fill('170')
  await page.getByRole('textbox', { name: 'Length of the beadwork' }).fill('140 mm')
  await page.getByLabel('For whom').fill('Ilse')
  await plain(page)
  await page.getByRole('button', { name: 'Keep the record' }).click()
  await expect(page.getByRole('heading', { name: 'Its record' })).toBeVisible()
  const grams = async () => {
    const { items } = (await (await page.request.get(`${address()}/api/shelf`)).json()) as {
      items: { value: { kind: string; grams?: number } }[]
    }
    return items.find((i) => i.value.kind === 'bead')!.value.grams!
  }
  await page.getByRole('button', { name: 'Take it out of the box' }).click()
  await expect(page.locator('[data-test=settled]')).toContainText('1 thing taken out')
  // 170 worked in and 36 put aside.
  expect(10 - (await grams())).toBeCloseTo(206 / requireSpec(a!.spec).perGram, 2)
  await page.getByRole('button', { name: 'Put it back in the box' }).click()
  await expect.poll(grams).toBe(10)
  await page.getByRole('button', { name: 'It is given away' }).click()
  await page.getByRole('button', { name: 'Clear the bench' }).click()

  // What it taught is said, is reckoned with, and can be switched off.
  await page.goto('/made')
  await expect(page.getByText('for Ilse')).toBeVisible()
  await expect(page.getByText('328 beads an hour')).toBeVisible()
  await toStage(page, id, 'supplies')
  const taught = page.locator('[data-test=taught]')
  await expect(taught).toContainText('279–377 beads an hour, from 1 of your makings')
  await expect(taught).toContainText('the share of beads that you put aside')
  await page.goto('/made')
  for (const which of [/used in hours and costs/, /used in what to buy/]) {
    const kept = page.waitForResponse((r) => r.url().endsWith('/api/settings') && r.ok())
    await page.getByLabel(which).uncheck()
    await kept
  }
  await toStage(page, id, 'supplies')
  await expect(page.getByRole('heading', { name: 'Beads to buy' })).toBeVisible()
  await expect(taught).toHaveCount(0)
  // Made again, with the gauge that the finished piece gave.
  await toStage(page, id, 'bench')
  await expect(page.getByText('your gauge for its stitch, bead and thread')).toBeVisible()
  await page.getByRole('button', { name: 'Make it again' }).click()
  await expect(page.getByText('Before you begin', { exact: true })).toBeVisible()
})

test('two pieces are wanted by a day: which rows on which day, what helps, and a calendar', async ({
  weaver: page,
}) => {
  const p = small('loom', { parts: [{ ...small('loom').parts[0]!, times: 150 }] })
  const ids = [
    await createPiece(page, { ...p, name: 'For the fair' }),
    await createPiece(page, { ...p, name: 'For a friend' }),
  ]
  for (const id of ids) await begin(page, id)
  await page.goto('/ready')
  const days = page.locator('[data-test=day]')
  await expect(days.first()).toBeVisible()
  for (const day of ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']) {
    await page.getByLabel(day, { exact: true }).fill('1')
    await page.getByLabel(day, { exact: true }).press('Tab')
  }
  // 1208 beads each, at 100 to 200 an hour.
  const friend = page.locator('[data-piece="For a friend"]')
  const inDays = (n: number) => {
    const day = new Date(Date.now() + n * 86_400_000)
    const two = (n: number) => String(n).padStart(2, '0')
    return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`
  }
  await friend.getByLabel('wanted by').fill(inDays(3))
  await expect(friend).toContainText('It cannot be ready by then')
  await expect(friend).toContainText('more on each of 4 days would do')
  await expect(days.first()).toContainText('For a friend')
  await friend.getByLabel('wanted by').fill(inDays(40))
  await expect(friend).toContainText('Ready on')
  await page.locator('[data-piece="For the fair"]').getByLabel('wanted by').fill(inDays(30))
  await expect(days.first()).toContainText('For the fair')
  await expect(days.first()).toContainText(/Before you begin – Row \d+/)
  await plain(page)
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as calendar' }).click(),
  ])
  const text = await readFile((await saved.path())!, 'utf8')
  const calendar = new ICAL.Component(ICAL.parse(text) as unknown[])
  const titles = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one).summary)
  expect(titles).toContain('For the fair')
  expect(titles).toContain('Ready: For a friend')
  // It follows what is really done, and stays.
  const first = await days.first().innerText()
  await toStage(page, ids[0]!, 'bench')
  await expect(page.getByText('Before you begin', { exact: true })).toBeVisible()
  for (let k = 0; k < 30; k++) await page.keyboard.press('ArrowRight')
  await page.goto('/ready')
  await expect(days.first()).toContainText('For the fair')
  expect(await days.first().innerText()).not.toBe(first)
})
