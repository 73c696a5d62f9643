import { isCounted } from '../piece/nature'
import { parse } from 'csv-parse/sync'
import { PDFDocument } from 'pdf-lib'
import { describe, expect, it } from 'vitest'
import { BRAID_PIECES } from '../../demo/braids'
import { part, piece } from '../../tests/fixture/piece'
import { valueOf } from '../problem'
import { techniqueOf } from '../piece/piece'

import { strandLists } from '../tally/strand'
import { strandCardsPdf, strandsCsv } from './strand-cards'

const BRAIDS = BRAID_PIECES.filter((p) => techniqueOf(p.parts[0]!).disc)
const BEADED = BRAIDS.filter((p) => isCounted(p.parts[0]!))

describe('what to string, on paper', () => {
  it('as CSV: every strand of every section, counts adding up (RFC 4180, read by an independent parser)', () => {
    for (const p of BEADED) {
      const one = p.parts[0]!
      const read = parse(strandsCsv(p, one), { columns: true }) as Record<string, string>[]
      for (const { bobbin, beads } of strandLists(one)) {
        expect(
          read
            .filter((r) => Number(r.bobbin) === bobbin && r.letter !== '')
            .reduce((sum, r) => sum + Number(r.count) * Number(r.times), 0),
        ).toBe(beads)
      }
    }
  })
  it('plain cords: a line for each strand, two where a slot holds two', () => {
    const p = BRAIDS.find((q) => !isCounted(q.parts[0]!))!
    const one = { ...p.parts[0]!, settings: { ...p.parts[0]!.settings, doubled: '2' } }
    const read = parse(strandsCsv(p, one), { columns: true }) as Record<string, string>[]
    expect(read.map((r) => [r.bobbin, r.count, r.letter, r.size])).toEqual(
      [
        [1, 1, 'C'],
        [2, 2, 'A'],
        [3, 1, 'B'],
        [4, 1, 'A'],
        [5, 1, 'C'],
        [6, 1, 'A'],
        [7, 1, 'B'],
        [8, 1, 'A'],
      ].map(([bobbin, count, letter]) => [
        String(bobbin),
        String(count),
        letter,
        letter === 'C' ? 'cord 2.5 mm' : 'cord 1.5 mm',
      ]),
    )
  })
  it('as PDF: the disc, then a card for each bobbin, four a page', async () => {
    for (const p of BRAIDS) {
      const doc = await PDFDocument.load(valueOf(await strandCardsPdf(p, p.parts[0]!, { paper: 'A4' })))
      expect(doc.getPageCount()).toBeGreaterThanOrEqual(
        !isCounted(p.parts[0]!) ? 1 : 1 + Math.ceil(p.parts[0]!.repeat.columns / 4),
      )
      expect(doc.getTitle()).toContain(p.name)
      expect(Math.round(doc.getPage(0).getWidth())).toBe(595)
    }
  })
  it('a part that is not braided is refused with words', async () => {
    const made = await strandCardsPdf(piece(), part(), { paper: 'Letter' })
    expect(made.ok ? '' : made.problems[0]!.says).toContain('Only braids')
  })
})
