import type { Page, Route } from '@playwright/test'
import { setStep } from '#core/piece/edit'
import { DOCUMENT_HEADER, DOCUMENT_VERSION } from '#core/contract/answer'
import type { Step } from '#core/piece/step'
import { connect } from '../../server/database/connection'
import {
  address,
  createPiece,
  cursorTo,
  expect,
  join,
  openMat,
  PASSWORD,
  plainBracelet,
  readPiece,
  saved,
  test,
} from './weaver'

/**
 * Edits that the browser keeps: strange answers, a server put back, a session that ends, a piece that goes, an account
 * that changes.
 */

const lay = async (page: Page, c: number, r: number, dish = '2') => {
  await cursorTo(page, c, r)
  await page.keyboard.press(dish)
  await page.keyboard.press('Space')
}
const firstRow = async (page: Page, id: string) => {
  const { piece } = await readPiece(page, id)
  return JSON.stringify(piece.parts[0]!.start[0])
}
const note = (page: Page, text: string | RegExp) =>
  expect(page.getByRole('status').filter({ hasText: text }).first()).toBeVisible()
const send = (page: Page, id: string, base: number, steps: Step[]) =>
  page.request.post(`${address()}/api/piece/${id}/step`, {
    headers: { origin: address() },
    data: { base, transactions: [{ id: `elsewhere-${id.slice(0, 8)}-${base}`, label: 'elsewhere', steps }] },
  })
const steps = '**/api/piece/*/step'

test('an answer that is not Weben’s acknowledges nothing', async ({ weaver: page }) => {
  const id = await createPiece(page)
  await openMat(page, id)
  const answers: readonly ((route: Route) => Promise<void>)[] = [
    (route) => route.fulfill({ status: 200, contentType: 'text/html', body: '<h1>Welcome to the guest network</h1>' }),
    (route) => route.fulfill({ status: 200, contentType: 'application/json', body: '{"revision":1}' }),
    (route) =>
      route.fulfill({
        status: 200,
        headers: { [DOCUMENT_HEADER]: DOCUMENT_VERSION },
        contentType: 'application/json',
        body: '{"fine":true}',
      }),
    (route) =>
      route.fulfill({
        status: 200,
        headers: { [DOCUMENT_HEADER]: DOCUMENT_VERSION },
        contentType: 'application/json',
        body: '{"revision":40}',
      }),
    (route) => route.fulfill({ status: 404, contentType: 'text/html', body: 'not here' }),
  ]
  let asked = 0
  await page.route(steps, (route) =>
    route.request().method() === 'POST' ? answers[asked++ % answers.length]!(route) : route.fallback(),
  )
  await lay(page, 0, 0)
  await note(page, 'Kept in this browser')
  await expect.poll(() => asked).toBeGreaterThanOrEqual(answers.length)
  expect((await readPiece(page, id)).revision).toBe(0)
  await page.unroute(steps)
  await saved(page)
  expect(await firstRow(page, id)).toContain('2')
})

/** As a backup that is brought back: the piece as it was at a revision, and nothing after it. */
async function putBack(id: string, revision: number): Promise<void> {
  const db = connect(process.env.WEBEN_TEST_DATABASE!)
  try {
    await db('revision').where({ piece_id: id }).andWhere('number', '>', revision).delete()
    await db('piece').where({ id }).update({ revision })
  } finally {
    await db.destroy()
  }
}

test('a server put back to an earlier state is said, and what is here is sent again or kept', async ({
  weaver: page,
}) => {
  const id = await createPiece(page)
  await openMat(page, id)
  await lay(page, 0, 0)
  await lay(page, 5, 0)
  await saved(page)
  await putBack(id, 1)
  let asked = 0
  page.on('request', (request) => {
    if (request.url().includes('/step')) asked++
  })
  await lay(page, 1, 0, '3')
  const dialog = page.getByRole('alertdialog')
  await expect(dialog).toContainText('The server has an earlier state of this piece')
  const then = asked
  await page.waitForTimeout(2500)
  expect(asked).toBe(then)
  expect((await readPiece(page, id)).revision).toBe(1)
  await dialog.getByRole('button', { name: 'Send mine again' }).click()
  await saved(page)
  expect(JSON.parse(await firstRow(page, id))).toEqual([1, 2, 1, 3, 3, 1, 1, 2])

  // The same found at the next opening, with nothing unsent: what this browser had from the server is not written
  // over.
  await page.waitForTimeout(3500)
  await putBack(id, 1)
  await page.reload()
  await expect(dialog).toContainText('The server has an earlier state of this piece')
  await dialog.getByRole('button', { name: 'Keep mine as a piece of its own' }).click()
  await expect(page.getByRole('heading', { name: 'Plain band (my version)' })).toBeVisible()
  const copy = /piece\/([^/]+)/.exec(page.url())![1]!
  expect(JSON.parse(await firstRow(page, copy))).toEqual([1, 2, 1, 3, 3, 1, 1, 2])
  await openMat(page, id)
  await saved(page)
})

test('a session that ends while one works is opened again in place', async ({ page }) => {
  const name = await join(page)
  const id = await createPiece(page)
  await openMat(page, id)
  await page.request.delete(`${address()}/api/session?everywhere=1`, { headers: { origin: address() } })
  await lay(page, 0, 0)
  const dialog = page.getByRole('dialog', { name: 'Sign in again' })
  await expect(dialog.getByLabel('Name')).toHaveValue(name)
  await dialog.getByLabel('Password').fill('not the word at all')
  await dialog.getByRole('button', { name: 'Sign in and go on' }).click()
  await expect(dialog.getByRole('alert')).toContainText('do not match')
  await dialog.getByLabel('Password').fill(PASSWORD)
  await dialog.getByRole('button', { name: 'Sign in and go on' }).click()
  await expect(dialog).toBeHidden()
  await saved(page)
  expect(await firstRow(page, id)).toBe('[1,2,5,1]')
})

test(
  'a piece that is put away or removed elsewhere is said to be, and can be brought back or kept as a copy that ' +
    'opens',
  async ({ weaver: page }) => {
    const headers = { origin: address() }
    const id = await createPiece(page)
    await openMat(page, id)
    await page.request.delete(`${address()}/api/piece/${id}`, { headers })
    await lay(page, 0, 0)
    const dialog = page.getByRole('alertdialog')
    await expect(dialog).toContainText('This piece was put away or removed elsewhere')
    await dialog.getByRole('button', { name: 'Bring it back' }).click()
    await saved(page)
    expect(await firstRow(page, id)).toBe('[1,2,5,1]')

    await page.request.delete(`${address()}/api/piece/${id}`, { headers })
    await page.request.delete(`${address()}/api/piece/${id}?for=good`, { headers })
    await lay(page, 2, 0)
    await dialog.getByRole('button', { name: 'Keep mine as a piece of its own' }).click()
    await expect(page.getByRole('heading', { name: 'Plain band (my version)' })).toBeVisible()
    await expect(page.getByRole('application')).toBeVisible()
    const copy = /piece\/([^/]+)/.exec(page.url())![1]!
    expect(copy).not.toBe(id)
    expect(await firstRow(page, copy)).toBe('[1,2,1,1,1,2,3,1]')
  },
)

test('an outage at reload shows what this browser holds, and the work goes on when the server is back', async ({
  weaver: page,
}) => {
  const id = await createPiece(page)
  await openMat(page, id)
  await lay(page, 0, 0)
  await saved(page)
  await page.route('**/api/**', (route) => route.abort())
  await lay(page, 1, 0)
  await lay(page, 3, 0, '4')
  await page.keyboard.press('Control+z')
  await note(page, 'Kept in this browser')
  await page.reload()
  await expect(page.getByRole('application')).toBeVisible()
  await expect(page.getByText('Weben’s server cannot be reached').first()).toBeVisible()
  await note(page, 'Kept in this browser')
  // An undo that waits is still an undo: it can be done again, and is.
  await page.getByRole('button', { name: 'Redo', exact: true }).click()
  await page.keyboard.press('Control+z')
  await lay(page, 2, 0)
  await page.unroute('**/api/**')
  await saved(page)
  await expect(page.getByText('Weben’s server cannot be reached')).toBeHidden()
  expect(await firstRow(page, id)).toBe('[3,2,3,1]')
})

test('edits of one piece are sent from any page; the workshop marks what waits', async ({ weaver: page }) => {
  const id = await createPiece(page)
  const second = await createPiece(page, plainBracelet({ name: 'Second band' }))
  await openMat(page, id)
  await page.route(steps, (route) => (route.request().method() === 'POST' ? route.abort() : route.fallback()))
  await lay(page, 0, 0)
  await note(page, 'Kept in this browser')
  await page.getByRole('link', { name: 'Back to the workshop' }).click()
  await expect(page.getByText('1 edit is in this browser, not yet sent')).toBeVisible()
  await page.getByRole('link', { name: 'Second band' }).click()
  await expect(page.getByRole('heading', { name: 'Second band' })).toBeVisible()
  await page.unroute(steps)
  await expect.poll(async () => (await readPiece(page, id)).revision).toBe(1)
  expect((await readPiece(page, second)).revision).toBe(0)
  await page.getByRole('link', { name: 'Back to the workshop' }).click()
  await expect(page.getByRole('link', { name: 'Plain band' })).toBeVisible()
  await expect(page.getByText('not yet sent')).toBeHidden()
})

test('what is unsent belongs to an account: signing out warns and clears, another neither sees nor sends it', async ({
  page,
}) => {
  await join(page)
  const id = await createPiece(page)
  await openMat(page, id)
  await page.route(steps, (route) => (route.request().method() === 'POST' ? route.abort() : route.fallback()))
  await lay(page, 0, 0)
  await note(page, 'Kept in this browser')
  // Another signs in in this browser, in another tab: this tab does not send its edits as theirs.
  const kept = await page.context().storageState()
  await join(page)
  await page.unroute(steps)
  await expect(page.getByRole('dialog', { name: 'Sign in again' })).toContainText('Someone else has signed in')
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Your first bracelet' })).toBeVisible()
  await page.waitForTimeout(1500)

  // Back as oneself: it is still there, and goes nowhere while the server is away.
  await page.route(steps, (route) => (route.request().method() === 'POST' ? route.abort() : route.fallback()))
  await page.context().clearCookies()
  await page.context().addCookies(kept.cookies)
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Plain band' })).toBeVisible()
  await expect(page.getByText('1 edit is in this browser, not yet sent')).toBeVisible()
  expect((await readPiece(page, id)).revision).toBe(0)
  await page.goto('/settings')
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  const dialog = page.getByRole('alertdialog', { name: 'Edits are not sent yet' })
  await expect(dialog).toContainText('One edit is not sent yet')
  await dialog.getByRole('button', { name: 'Stay signed in' }).click()
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await dialog.getByRole('button', { name: 'Sign out and let them go' }).click()
  await expect(page.getByRole('heading', { name: 'Weben', level: 1 })).toBeVisible()
  const left = await page.evaluate(async () => {
    const all = async (name: string, store: string) =>
      new Promise<number>((done, fail) => {
        const open = indexedDB.open(name)
        open.onerror = () => {
          fail(new Error(name))
        }
        open.onsuccess = () => {
          const count = open.result.transaction(store).objectStore(store).count()
          count.onsuccess = () => {
            done(count.result)
          }
        }
      })
    return [
      await all('weben', 'unsent'),
      await all('weben-documents', 'document'),
      localStorage.getItem('weben-account'),
    ]
  })
  expect(left).toEqual([0, 0, null])
})

test('a page of another version keeps its edits and asks for a reload', async ({ weaver: page }) => {
  const id = await createPiece(page)
  await openMat(page, id)
  await page.route('**/api/**', async (route) => {
    const response = await route.fetch({ headers: { ...route.request().headers(), [DOCUMENT_HEADER]: '1' } })
    await route.fulfill({ response, headers: { ...response.headers(), [DOCUMENT_HEADER]: '999' } })
  })
  await lay(page, 0, 0)
  await expect(page.getByRole('alert').filter({ hasText: 'Weben was renewed' })).toBeVisible()
  expect((await readPiece(page, id)).revision).toBe(0)
  await page.unroute('**/api/**')
  await page.getByRole('button', { name: 'Reload the page' }).click()
  await expect(page.getByRole('application')).toBeVisible()
  await saved(page)
  expect((await readPiece(page, id)).revision).toBe(1)
})

test('undo is on every stage, by button and key, and survives a reload', async ({ weaver: page }) => {
  const id = await createPiece(page)
  await openMat(page, id)
  await lay(page, 0, 0)
  await lay(page, 1, 0, '3')
  await saved(page)
  // Something else is done elsewhere in between.
  const now = await readPiece(page, id)
  expect((await send(page, id, now.revision, [setStep(now.piece as never, ['notes'], 'from elsewhere')])).ok()).toBe(
    true,
  )
  await page.reload()
  await expect(page.getByRole('application')).toBeVisible()
  for (const stage of ['Fit', 'Tally', 'Supplies', 'Print', 'Mat']) {
    await page.getByRole('link', { name: stage, exact: true }).click()
    await expect(page.getByRole('button', { name: 'Undo', exact: true })).toHaveAttribute('aria-disabled', 'false')
  }
  await page.getByRole('link', { name: 'Tally', exact: true }).click()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await page.keyboard.press('Control+z')
  await saved(page)
  expect(await firstRow(page, id)).toBe('[1,2,5,1]')
  expect((await readPiece(page, id)).piece.notes).toBe('')
  await page.reload()
  await page.getByRole('button', { name: 'Redo', exact: true }).click()
  await saved(page)
  expect(JSON.parse(await firstRow(page, id))).toEqual([1, 2, 1, 3, 4, 1])
})

test(
  'letters act only while the work has the focus, and can be switched off; Ctrl-C copies text where text is ' +
    'selected',
  async ({ weaver: page }) => {
    const id = await createPiece(page)
    await openMat(page, id)
    const glyphs = page.getByRole('button', { name: 'Glyphs', exact: true })
    await page.keyboard.press('g')
    await expect(glyphs).toHaveAttribute('aria-pressed', 'true')
    await page.getByRole('link', { name: 'Fit', exact: true }).focus()
    await page.keyboard.press('g')
    await page.evaluate(() => {
      ;(document.activeElement as HTMLElement).blur()
    })
    await page.keyboard.press('g')
    await expect(glyphs).toHaveAttribute('aria-pressed', 'true')
    // Selected text is copied as text, though a box of beads could be.
    await page.getByRole('application').focus()
    await page.keyboard.press('Control+a')
    await page.evaluate(() => {
      window.getSelection()!.selectAllChildren(document.querySelector('h1')!)
    })
    const taken = await page.evaluate(
      () =>
        new Promise<boolean>((done) => {
          document.addEventListener(
            'keydown',
            (event) =>
              setTimeout(() => {
                done(event.defaultPrevented)
              }),
            { once: true },
          )
          document
            .querySelector('.mat-canvas')!
            .dispatchEvent(new KeyboardEvent('keydown', { key: 'c', ctrlKey: true, bubbles: true, cancelable: true }))
        }),
    )
    expect(taken).toBe(false)
    for (let k = 0; k < 2; k++) {
      await page.getByRole('button', { name: 'Plain band' }).click()
      await expect(page.getByLabel('Name of the piece')).toBeFocused()
      await page.keyboard.press('Escape')
    }
    await page.goto('/settings')
    const kept = page.waitForResponse((r) => r.url().endsWith('/api/settings') && r.ok())
    await page.getByLabel(/off: letters do nothing/).check()
    await kept
    await openMat(page, id)
    await page.getByRole('application').focus()
    const was = await glyphs.getAttribute('aria-pressed')
    await page.keyboard.press('g')
    await expect(glyphs).toHaveAttribute('aria-pressed', was!)
    await page.keyboard.press('ArrowRight')
    await expect(page.locator('.work > [role=status]')).toContainText('column 1')
  },
)

test('the mat says what has changed after it has; the focus comes back after dialogs and removals', async ({
  weaver: page,
}) => {
  const id = await createPiece(page)
  await createPiece(page, plainBracelet({ name: 'Other band' }))
  await openMat(page, id)
  const says = page.locator('.work > [role=status]')
  await lay(page, 0, 0)
  await expect(says).toContainText('column 1: B Kingfisher')
  await page.keyboard.press('Control+z')
  await expect(says).toContainText('Undone')
  await expect(says).toContainText('column 1: A Fog')
  await page.keyboard.press('n')
  await expect(says).toContainText('Line')
  await page.keyboard.press('x')
  await expect(says).toContainText('Symmetry: across')
  await page.keyboard.press('3')
  await expect(says).toContainText('C Rust in hand')

  const change = page.getByRole('button', { name: 'Change C Rust' })
  await change.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Bead C' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(change).toBeFocused()

  await page.goto('/')
  await page.getByRole('button', { name: 'Put Other band away' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Plain band' })).toBeFocused()
  await page.getByRole('link', { name: 'Put-away pieces' }).click()
  await page.getByRole('button', { name: 'Remove Other band for good' }).click()
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('button', { name: 'Remove Other band for good' })).toBeFocused()
  await page.getByRole('button', { name: 'Bring Other band back' }).click()
  await expect(page.getByText('Other band is in the workshop again.')).toBeVisible()
  await expect(page.getByRole('link', { name: 'Back', exact: true })).toBeFocused()
})

test('what is put away is listed, brought back and removed for good', async ({ weaver: page }) => {
  await createPiece(page)
  await page.goto('/')
  await page.getByRole('button', { name: 'Put Plain band away' }).click()
  await expect(page.getByRole('heading', { name: 'Your first bracelet' })).toBeVisible()
  await page.goto('/away')
  await page.getByRole('button', { name: 'Bring Plain band back' }).click()
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Plain band' })).toBeVisible()
  await page.getByRole('button', { name: 'Put Plain band away' }).click()
  await page.goto('/away')
  await page.getByRole('button', { name: 'Remove Plain band for good' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Remove it for good' }).click()
  await expect(page.getByText('Plain band was removed for good.')).toBeVisible()
  await page.reload()
  await expect(page.getByText('Nothing is put away.')).toBeVisible()
})
