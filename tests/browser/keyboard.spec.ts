import type { Page } from '@playwright/test'
import { expect, newName, PASSWORD, readPiece, saved, test } from './weaver'

/** Presses Tab until something with this name has the focus. */
async function tabTo(page: Page, name: string | RegExp, role?: string): Promise<void> {
  for (let k = 0; k < 90; k++) {
    await page.keyboard.press('Tab')
    const found = await page.evaluate(() => {
      const at = document.activeElement
      if (!at) return { name: '', role: '' }
      const label =
        at.getAttribute('aria-label') ?? (at as HTMLInputElement).labels?.[0]?.textContent ?? at.textContent ?? ''
      return { name: label.trim().replace(/\s+/g, ' '), role: at.getAttribute('role') ?? at.tagName.toLowerCase() }
    })
    const fits =
      typeof name === 'string' ? found.name === name || found.name.startsWith(`${name} `) : name.test(found.name)
    if (fits && (!role || found.role === role)) return
  }
  throw new Error(`Tab never reached ${String(name)}`)
}

test('the whole slice by keyboard alone', async ({ page, baseURL }) => {
  await page.goto(baseURL!)
  await expect(page.getByRole('heading', { name: 'Make an account' })).toBeVisible()
  await tabTo(page, 'Name')
  await page.keyboard.type(newName())
  await tabTo(page, 'Password')
  await page.keyboard.type(PASSWORD)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Your first bracelet' })).toBeVisible()

  await tabTo(page, 'Start a piece')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Start a piece' })).toBeVisible()
  await tabTo(page, 'Wrist')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('16,8 cm')
  await tabTo(page, /^Rings/)
  await page.keyboard.press('Space')
  await tabTo(page, 'Lay it on the mat')
  await page.keyboard.press('Enter')
  const mat = page.getByRole('application')
  await expect(mat).toBeVisible()
  const id = /piece\/([^/]+)/.exec(page.url())![1]!
  await expect(page.getByText('Yes, easy on the wrist')).toBeVisible()

  await tabTo(page, /^Mat: Band/)
  const before = (await readPiece(page, id)).piece.parts[0]!.start
  await page.keyboard.press('3')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Space')
  await saved(page)
  expect((await readPiece(page, id)).piece.parts[0]!.start).not.toEqual(before)
  await page.keyboard.press('Control+z')
  await saved(page)
  expect((await readPiece(page, id)).piece.parts[0]!.start).toEqual(before)

  await page.keyboard.press('Shift+Tab')
  for (const [stage, heading] of [
    ['Fit', 'What comes near'],
    ['Tally', 'Row by row, as worked'],
    ['Supplies', 'Beads to buy'],
    ['Print', 'Take it with you'],
  ] as const) {
    await page.evaluate(() => {
      ;(document.activeElement as HTMLElement | null)?.blur()
    })
    await tabTo(page, stage, 'a')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name: heading })).toBeVisible()
    if (stage === 'Fit') {
      await tabTo(page, /^Take \d+ repeats/)
      await page.keyboard.press('Enter')
      await expect(page.getByText('As planned')).toBeVisible()
    }
  }
  await tabTo(page, 'Piece file (JSON)')
  const [file] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')])
  expect(file.suggestedFilename()).toBe('rings-bracelet.weben.json')
})
