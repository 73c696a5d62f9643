import { parse } from 'csv-parse/sync'
import { PDFDocument } from 'pdf-lib'
import { describe, expect, it } from 'vitest'
import { BRAID_PIECES } from '../../demo/braids'
import { part, piece } from '../../tests/fixture/piece'
import { valueOf } from '../problem'
import { strandLists } from '../tally/strand'
import { strandCardsPdf, strandsCsv } from './strand-cards'

describe('what to string, on paper', () => {
  it('as CSV: every strand of every section, counts adding up (RFC 4180, read by an independent parser)', () => {
    for (const p of BRAID_PIECES) {
      const one = p.parts[0]!
      const read = parse(strandsCsv(p, one), { columns: true }) as Record<string, string>[]
      for (const { bobbin, beads } of strandLists(one)) {
        expect(read.filter(r => Number(r.bobbin) === bobbin && r.letter !== '').reduce((sum, r) => sum + Number(r.count) * Number(r.times), 0)).toBe(beads)
      }
    }
  })
  it('as PDF: the disc, then a card for each bobbin, four a page', async () => {
    for (const p of BRAID_PIECES) {
      const doc = await PDFDocument.load(valueOf(await strandCardsPdf(p, p.parts[0]!, { paper: 'A4' })))
      expect(doc.getPageCount()).toBeGreaterThanOrEqual(1 + Math.ceil(p.parts[0]!.repeat.columns / 4))
      expect(doc.getTitle()).toContain(p.name)
      expect(Math.round(doc.getPage(0).getWidth())).toBe(595)
    }
  })
  it('a part that is not braided is refused with words', async () => {
    const made = await strandCardsPdf(piece(), part(), { paper: 'Letter' })
    expect(made.ok ? '' : made.problems[0]!.says).toContain('Only braids')
  })
})
