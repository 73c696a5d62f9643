import { readFile } from 'node:fs/promises'
import { parse } from 'csv-parse/sync'
import { requireTechnique } from '#core/technique/registry'
import { createPiece, cursorTo, expect, openMat, plainBracelet, saved, test, walkTo } from './weaver'
import { isScattered } from '#core/piece/drawing'
import { asWritten, TWO_BEADS, writtenFor } from '../fixture/written'

/** One stitch of each family; what the others say is held without a browser (tests/golden/written.test.ts). */
const SHOWN = ['peyote', 'loom', 'brick', 'herringbone', 'right-angle', 'netting', 'peyote-tube', 'braid-8', 'coil']

for (const technique of SHOWN) {
  const { name } = requireTechnique(technique)
  test(`${technique}: laid on the mat, read in words, printed and brought back`, async ({ weaver: page }) => {
    const piece = plainBracelet({ name: 'Small' })
    const { part, words } = writtenFor(technique, piece.parts[0]!)
    const id = await createPiece(page, { ...piece, parts: [part] })
    await openMat(page, id)
    await page.keyboard.press('2')
    for (const { c, r } of TWO_BEADS) {
      if (isScattered(part)) await walkTo(page, part, { c, r })
      else await cursorTo(page, c, r)
      await page.getByRole('application').press(' ')
    }
    await saved(page)
    await page.getByRole('link', { name: 'Tally' }).click()
    await expect(
      page
        .getByText(
          words[0]!.includes('–')
            ? `Rows ${words[0]!.slice(0, 3)}`
            : technique.startsWith('braid')
              ? 'Round 1'
              : 'Row 1',
          { exact: false },
        )
        .first(),
    ).toBeVisible()
    const [csv] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Rows as CSV' }).click(),
    ])
    const rows = parse(await readFile(await csv.path()), { columns: true }) as Record<string, string>[]
    expect(asWritten(rows)).toEqual(words)

    // The word chart goes out, is corrected by hand, and comes back as the part.
    await page.getByRole('link', { name: 'Print' }).click()
    await expect(page.getByText(name, { exact: false }).first()).toBeVisible()
    const [chart] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Word chart as text' }).click(),
    ])
    const text = await readFile(await chart.path(), 'utf8')
    const last = words.at(-1)!.match(/(\d+)A/)![1]
    const corrected = text.replace(
      new RegExp(`(→|←) ${last}A \\((${last}); (\\d+)\\)((?: ·[^\\n]*)?)\\n\\nIn all`),
      `$1 ${last}C ($2; $3)$4\n\nIn all`,
    )
    expect(corrected).not.toBe(text)
    await page
      .getByLabel('Bring in a grid or word chart')
      .setInputFiles({ name: 'corrected.txt', mimeType: 'text/plain', buffer: Buffer.from(corrected) })
    await expect(page.getByText('“corrected.txt” is now Band')).toBeVisible()
    await page.getByRole('link', { name: 'Tally' }).click()
    await expect(page.getByRole('row', { name: /C Rust/ })).toContainText(last!)
  })
}
