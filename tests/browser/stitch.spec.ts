import { readFile } from 'node:fs/promises'
import { parse } from 'csv-parse/sync'
import { emptyCells } from '#core/grid/cells'
import { requireTechnique, TECHNIQUES } from '#core/technique/registry'
import { createPiece, cursorTo, expect, openMat, plainBracelet, saved, test, walkTo } from './weaver'
import { isScattered } from '#core/piece/drawing'

/**
 * A small grid of A with two B laid by hand at (0, 0) and (1, 1), and the words that a person would write down for it.
 */
const WORDS: Record<string, { columns: number; settings?: Record<string, string>; words: string[] }> = {
  'loom': { columns: 3, words: ['1 → 1B 2A', '2 → 1A 1B 1A', '3 → 3A'] },
  'square': { columns: 3, words: ['1 → 1B 2A', '2 ← 1A 1B 1A', '3 → 3A'] },
  'peyote': { columns: 4, words: ['1–2 ← 3A 1B', '3 → 2A', '4 ← 1A 1B', '5 → 2A', '6 ← 2A'] },
  'peyote-odd': { columns: 5, words: ['1–2 ← 4A 1B', '3 → 3A long turn', '4 ← 1A 1B', '5 → 3A long turn', '6 ← 2A'] },
  'peyote-drop': { columns: 4, words: ['1–2 ← 3A 1B', '3 → 1A 1B', '4 ← 2A', '5 → 2A', '6 ← 2A'] },
  'brick': { columns: 3, words: ['1 → 1B 2A', '2 ← 1A 1B 1A', '3 → 3A'] },
  'ladder': { columns: 2, words: ['1 → 1B 1A', '2 ← 1B 1A', '3 → 2A'] },
  'herringbone': { columns: 4, words: ['1 → 1B 3A', '2 ← 2A 1B 1A', '3 → 4A'] },
  'right-angle': { columns: 3, words: ['1 → 1B 2A 1B', '2 ← 3A'] },
  'netting': { columns: 5, words: ['1 → 1B 4A', '2 ← 3A 1B 1A', '3 → 5A'] },
  'peyote-tube': {
    columns: 4,
    words: ['1–2 → 1B 3A join', '3 → 2A step up', '4 → 1B 1A step up', '5 → 2A step up', '6 → 2A step up'],
  },
  'peyote-spiral': { columns: 5, words: ['1–2 → 1B 4A join', '3 → 3A', '4 → 1B 1A', '5 → 3A', '6 → 2A'] },
  'brick-tube': { columns: 4, words: ['1 → 1B 3A join', '2 → 1A 1B 2A join', '3 → 4A join'] },
  'braid-8': { columns: 8, words: ['1 → 1A 1B 6A', '2 → 6A 1B 1A', '3 → 8A'] },
  'braid-12': { columns: 12, words: ['1 → 1A 1B 10A', '2 → 9A 1B 2A', '3 → 12A'] },
  'braid-7': { columns: 7, words: ['1 → 2A 1B 4A', '2 → 5A 1B 1A', '3 → 7A'] },
  'braid-own': { columns: 7, words: ['1 → 2A 1B 4A', '2 → 5A 1B 1A', '3 → 7A'] },
  'coil': { columns: 8, words: ['1 → 1B 7A', '2 → 1A 1B 6A', '3 → 8A'] },
  'braid-16': { columns: 16, words: ['1 → 1A 1B 14A', '2 → 11A 1B 4A', '3 → 16A'] },
  'herringbone-tube': { columns: 4, words: ['1 → 1B 3A step up', '2 → 1A 1B 2A step up', '3 → 4A step up'] },
}

/** Plain cords have no beads to write down; they have a test of their own (braid.spec.ts). */
const BEADED = TECHNIQUES.filter((t) => t.material.counted && t.store === 'cells')

test('every stitch has its list', () => expect(Object.keys(WORDS).sort()).toEqual(BEADED.map((t) => t.id).sort()))

for (const { id: technique, name } of BEADED) {
  const { columns, words } = WORDS[technique]!
  test(`${technique}: laid on the mat, read in words, printed and brought back`, async ({ weaver: page }) => {
    const piece = plainBracelet({ name: 'Small' })
    const none = emptyCells(columns, 0)
    const part = {
      ...piece.parts[0]!,
      technique,
      settings: requireTechnique(technique).settings.parse({}),
      times: 1,
      start: none,
      repeat: emptyCells(columns, 3, 1),
      end: none,
    }
    const id = await createPiece(page, { ...piece, parts: [part] })
    await openMat(page, id)
    await page.keyboard.press('2')
    for (const [c, r] of [
      [0, 0],
      [1, 1],
    ] as const) {
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
    expect(
      rows.map(
        (r) =>
          `${r['first row'] === r['last row'] ? r['first row'] : `${r['first row']}–${r['last row']}`} ` +
          `${r.direction === 'left to right' ? '→' : '←'} ${r.words}${r.also ? ` ${r.also}` : ''}`,
      ),
    ).toEqual(words)

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
