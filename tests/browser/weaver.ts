import { test as base, expect, type Locator, type Page } from '@playwright/test'
import axe from 'axe-core'
import type { MakingListing, SyncedMaking } from '#core/contract/making'
import { stateOf } from '#core/making/event'
import { usualClosure } from '#core/wear/closure'
import { beginPiece, type PieceWish } from '#core/begin/begin'
import { pieceToBody } from '#core/piece/codec'
import { beside } from '#core/pattern/place'
import type { Part, Piece } from '#core/piece/piece'
import type { Place } from '#core/technique/lattice'

export { expect }

export const address = (): string => process.env.WEBEN_TEST_ADDRESS!

let people = 0
export const newName = (): string => `Weaver ${process.pid}-${Date.now().toString(36)}-${++people}`
export const PASSWORD = 'a long enough word'

/** A page of a person who has just made an account; fails the test on any error of the page. */
export const test = base.extend<{ weaver: Page }>({
  // eslint-disable-next-line no-empty-pattern -- the runner reads the names of what is asked for; here nothing is
  baseURL: async ({}, use) => use(address()),
  page: async ({ page }, use) => {
    const errors: string[] = []
    page.on('pageerror', (error) => errors.push(error.message))
    page.on('console', (message) => {
      if (message.type() === 'error' && !/Failed to load resource|net::ERR/.test(message.text()))
        errors.push(message.text())
    })
    await use(page)
    expect(errors).toEqual([])
  },
  weaver: async ({ page }, use) => {
    await join(page)
    await use(page)
  },
})

export async function join(page: Page, at = address(), name = newName()): Promise<string> {
  const response = await page.request.post(`${at}/api/account`, {
    maxRetries: 3,
    headers: { origin: at },
    data: { signIn: name, password: PASSWORD },
  })
  expect(response.ok()).toBe(true)
  return name
}

/** A small plain bracelet, to be drawn on: 6 across, loom by default. */
export function plainBracelet(over: Partial<PieceWish> = {}): Piece {
  return beginPiece({
    kind: 'bracelet',
    name: 'Plain band',
    wearer: '',
    bodyMm: 160,
    easeMm: 13,
    closure: usualClosure('toggle'),
    widthMm: 9,
    technique: 'loom',
    spec: 'cylinder-11',
    motif: 'plain',
    start: 'left',
    ...over,
  })
}

export async function createPiece(page: Page, piece: Piece = plainBracelet(), at = address()): Promise<string> {
  const response = await page.request.post(`${at}/api/piece`, {
    maxRetries: 3,
    headers: { origin: at },
    data: pieceToBody(piece),
  })
  expect(response.ok()).toBe(true)
  return ((await response.json()) as { id: string }).id
}

export async function readPiece(
  page: Page,
  id: string,
  at = address(),
): Promise<{ revision: number; piece: ReturnType<typeof pieceToBody> }> {
  return (await (await page.request.get(`${at}/api/piece/${id}`)).json()) as {
    revision: number
    piece: ReturnType<typeof pieceToBody>
  }
}

export async function openMat(page: Page, id: string, at = address()): Promise<void> {
  await page.goto(`${at}/piece/${id}/mat`)
  await expect(page.getByRole('application')).toBeVisible()
}

/** To a stage of a piece: along its thread, as one goes; where the piece is not open yet, by its address. */
export async function toStage(page: Page, id: string, stage: string): Promise<void> {
  const path = `/piece/${id}/${stage}`
  if (!page.url().includes(`/piece/${id}/`) || page.url().endsWith(path)) {
    await page.goto(path)
    return
  }
  await page.getByRole('navigation', { name: 'Stages of the piece' }).locator(`a[href="${path}"]`).click()
  await page.waitForURL(`**${path}`)
}

/**
 * Puts the keyboard’s cursor on a cell of the mat: the band lies along the screen, rows to the right and columns down.
 */
export async function cursorTo(page: Page, c: number, r: number): Promise<void> {
  const mat = page.getByRole('application')
  await mat.focus()
  await mat.press('Home')
  for (let k = 0; k < 12; k++) await mat.press('ArrowUp')
  for (let k = 0; k < c; k++) await mat.press('ArrowDown')
  for (let k = 0; k < r; k++) await mat.press('ArrowRight')
}

/**
 * Chooses from a list. What is pressed while a list still opens or closes is lost, for hands as for tests: it is
 * pressed again.
 */
export async function chooseFrom(list: Locator, option: string | RegExp): Promise<void> {
  const page = list.page()
  const options = page.locator('.v-select__content:visible')
  const wanted = page.getByRole('option', { name: option, exact: typeof option === 'string' })
  const open = async () => (await list.getAttribute('aria-expanded')) === 'true'
  await expect(async () => {
    if (!(await open())) {
      await expect(options).toHaveCount(0, { timeout: 5000 })
      await list.press('Enter', { timeout: 10_000 })
      await expect(list).toHaveAttribute('aria-expanded', 'true', { timeout: 5000 })
    }
    await wanted.click({ timeout: 5000 })
    await expect(list).toHaveAttribute('aria-expanded', 'false', { timeout: 5000 })
  }).toPass({ timeout: 120_000 })
}

const ARROWS = [
  ['ArrowRight', 0, 1],
  ['ArrowLeft', 0, -1],
  ['ArrowDown', 1, 0],
  ['ArrowUp', -1, 0],
] as const

/**
 * Puts the cursor on a bead of a rope, where the keys go from bead to bead as they lie; from the place where it
 * stands, the first by default.
 */
export async function walkTo(page: Page, part: Part, to: Place, from: Place = { c: 0, r: 0 }): Promise<void> {
  const mat = page.getByRole('application')
  await mat.focus()
  if (from.c === 0 && from.r === 0) await mat.press('Home')
  const came = new Map<string, { readonly key: string; readonly before: Place } | null>([
    [`${from.c} ${from.r}`, null],
  ])
  const queue = [from]
  for (let at = queue.shift(); at && !came.has(`${to.c} ${to.r}`); at = queue.shift()) {
    for (const [key, dx, dy] of ARROWS) {
      const next = beside(part, at, dx, dy)
      if (!came.has(`${next.c} ${next.r}`)) {
        came.set(`${next.c} ${next.r}`, { key, before: at })
        queue.push(next)
      }
    }
  }
  const keys: string[] = []
  for (let step = came.get(`${to.c} ${to.r}`); step; step = came.get(`${step.before.c} ${step.before.r}`))
    keys.unshift(step.key)
  for (const key of keys) await mat.press(key)
}

export const saved = (page: Page) => expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible()

/** What the server knows of the only making of a piece. */
export async function stateThere(page: Page, id: string, at = address()) {
  const { makings } = (await (await page.request.get(`${at}/api/piece/${id}/making`)).json()) as {
    makings: MakingListing[]
  }
  const path = `${at}/api/piece/${id}/making/${makings[0]!.id}`
  const { events } = (await (await page.request.get(path)).json()) as SyncedMaking
  return stateOf(events)
}

/** Chooses how a piece is made on the page where it is begun: typed, and taken. */
export async function chooseWay(page: Page, name: string, typed = name) {
  await page.getByRole('searchbox', { name: 'Find a way to make it' }).fill(typed)
  await page.getByRole('radio', { name, exact: true }).click()
}

/** No rule of reading aloud, contrast or naming is broken. Weben has no frames in frames, so that one run does. */
export async function plain(page: Page, where = page.url()): Promise<void> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
  const broken = await page.evaluate(async () => {
    const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(document, {
      resultTypes: ['violations'],
    })
    return violations.map(({ id, nodes }) => [id, ...nodes.slice(0, 3).map((n) => n.target.join(' '))].join(' | '))
  })
  expect(broken.map((one) => `${where}: ${one}`)).toEqual([])
}
