import fc from 'fast-check'
import { PDFDocument, StandardFonts } from 'pdf-lib'
import { describe, expect, it } from 'vitest'
import { rowPiece } from '../../tests/fixture/rows'
import { WORKSHOP } from '../../tests/fixture/workshop'
import { anyPiece, part, piece, rows } from '../../tests/fixture/piece'
import { emptyCells } from '../grid/cells'
import { columnsOf, rowsOf, techniqueOf } from '../piece/piece'
import { valueOf } from '../problem'
import { bookletLayout, carriersOnPage, OVERLAP, placeOnPage } from './booklet'
import { shownRows } from '../tally/strips'
import { bookletPdf } from './booklet-pdf'
import { stepPages } from './booklet-steps'

const tall = part({
  technique: 'loom',
  settings: {},
  start: emptyCells(90, 0),
  repeat: emptyCells(90, 150, 1),
  end: emptyCells(90, 0),
  times: 1,
})

describe('a booklet', () => {
  it('shows every bead, and neighbours share their overlap', () => {
    fc.assert(
      fc.property(
        anyPiece.filter((p) => rowsOf(p.parts[0]!) > 0),
        fc.integer({ min: 20, max: 180 }),
        fc.integer({ min: 20, max: 260 }),
        (p, widthMm, heightMm) => {
          for (const one of [p.parts[0]!, tall]) {
            const { tiles, pagesAcross, pagesUp } = bookletLayout(one, { widthMm, heightMm })
            expect(tiles).toHaveLength(pagesAcross * pagesUp)
            const seen = new Set<number>()
            for (const t of tiles) {
              for (let r = t.r; r < t.r + t.rows; r++)
                for (let c = t.c; c < t.c + t.columns; c++) seen.add(r * columnsOf(one) + c)
              const left = tiles.find((o) => o.up === t.up && o.across === t.across - 1)
              expect(t.overlapColumns).toBe(left ? OVERLAP : 0)
              if (left) expect(left.c + left.columns).toBe(t.c + OVERLAP)
              const below = tiles.find((o) => o.across === t.across && o.up === t.up - 1)
              // On a page that holds hardly a line, they share all but one of them.
              const shared = below ? Math.min(OVERLAP, below.rows - 1) : 0
              expect(t.overlapRows).toBe(shared)
              if (below) expect(below.r + below.rows).toBe(t.r + shared)
            }
            expect(seen.size).toBe(columnsOf(one) * rowsOf(one))
            expect(tiles.map((t) => t.page)).toEqual(tiles.map((_, k) => k + 2))
          }
        },
      ),
      { numRuns: 40 },
    )
  })
  it('carries the beads of free lines on every page, and nothing beyond its lines', () => {
    const p = rowPiece('cuff-ribs', ['hexagon-6-mm', 'round-11'], [[2, 1, 2, 1, 2]], { times: 30 })
    const [ribs] = p.parts
    const layout = bookletLayout(ribs!, { widthMm: 90, heightMm: 120 })
    expect(layout.tiles.length).toBeGreaterThan(1)
    // A seed of 1.4 takes a letter of 3.4 mm, though the work is drawn for hexagons.
    expect(layout.scale).toBeCloseTo(3.4 / 1.4, 5)
    for (const tile of layout.tiles) {
      const { under: stretches, over } = carriersOnPage(ribs!, layout, tile)
      expect(over).toEqual([])
      const ys = stretches.flatMap(({ from, to }) => [from.y, to.y])
      const at = placeOnPage(ribs!, layout, tile)
      expect(Math.min(...ys)).toBeGreaterThanOrEqual(-1e-9)
      expect(Math.max(...ys)).toBeLessThanOrEqual(at(0, tile.r).y + 3.1 * layout.scale)
      // The cuff, and the wire across each of its ribs.
      const cuff = stretches.filter(({ kind }) => kind === 'bar')
      expect(cuff).toHaveLength(1)
      expect(Math.abs(cuff[0]!.to.y - cuff[0]!.from.y)).toBeCloseTo(Math.max(...ys) - Math.min(...ys), 6)
      for (let r = tile.r; r < tile.r + tile.rows; r++)
        expect(stretches.some(({ kind, from }) => kind === 'wire' && Math.abs(from.y - at(0, r).y) < 1e-6)).toBe(true)
    }
    expect(carriersOnPage(tall, layout, layout.tiles[0]!)).toEqual({ under: [], over: [] })
  })
  it('is a PDF of an index sheet, the chart and the words, on the paper asked for', async () => {
    for (const [paper, width] of [
      ['A4', 595],
      ['Letter', 612],
    ] as const) {
      const doc = await PDFDocument.load(
        valueOf(await bookletPdf(piece(), { ...tall, repeat: emptyCells(90, 150, 1) }, { paper, ink: 'letters' })),
      )
      const { tiles } = bookletLayout(tall, {
        widthMm: (paper === 'A4' ? 210 : 215.9) - 36,
        heightMm: (paper === 'A4' ? 297 : 279.4) - 48,
      })
      expect(tiles.length).toBeGreaterThan(1)
      expect(doc.getPageCount()).toBe(1 + tiles.length + 2)
      expect(Math.round(doc.getPage(0).getWidth())).toBe(width)
    }
  }, 60_000)
  it('is made of every stitch of the demo workshop, with names that the font lacks too', async () => {
    for (const p of WORKSHOP.filter((d) =>
      ['herringbone', 'right-angle', 'netting', 'peyote-tube'].includes(d.parts[0]!.technique),
    )) {
      const made = await bookletPdf({ ...p, name: `${p.name} 珠 ☃` }, p.parts[0]!, { paper: 'A4', ink: 'colour' })
      expect((await PDFDocument.load(valueOf(made))).getPageCount()).toBeGreaterThan(2)
    }
  }, 60_000)
  it('of nothing, or of far too much, is refused with words', async () => {
    const none = await bookletPdf(
      piece(),
      part({ start: emptyCells(4, 0), repeat: rows('AAAA'), end: emptyCells(4, 0), times: 0 }),
      { paper: 'A4', ink: 'colour' },
    )
    expect(none.ok ? '' : none.problems[0]!.code).toBe('booklet-empty')
    const much = await bookletPdf(piece(), { ...tall, times: 10 }, { paper: 'A4', ink: 'colour' })
    expect(much.ok ? '' : much.problems[0]!.code).toBe('booklet-large')
  })
  it('shows the steps of work that is told so, each card on its page and no two on each other', async () => {
    const daisies = WORKSHOP.find((p) => techniqueOf(p.parts[0]!).recipe)!
    const doc = await PDFDocument.create()
    const plain = await doc.embedFont(StandardFonts.Helvetica)
    const ground = { doc, plain, bold: plain, width: 210, height: 297, total: { pages: 9 } }
    const { placed, pages } = stepPages(ground, daisies, daisies.parts[0]!)
    const rows = shownRows(daisies.parts[0]!)
    expect(placed.filter((card) => card.kind === 'title')).toHaveLength(rows.length)
    const cards = placed.filter((card) => card.kind === 'step')
    expect(cards.map(({ step }) => step)).toEqual(rows.flatMap(({ steps }) => steps))
    expect(pages).toBe(1 + Math.max(...placed.map(({ page }) => page)))
    for (const card of cards) {
      expect(card.x + 58).toBeLessThanOrEqual(210 - 14 + 1e-9)
      expect(card.y + 27 + card.lines.length * 3.7).toBeLessThan(297 - 10)
      expect(card.lines.join(' ')).not.toBe('')
    }
    expect(new Set(cards.map(({ page, x, y }) => `${page} ${x} ${y}`)).size).toBe(cards.length)
    for (const ink of ['colour', 'letters'] as const) {
      const made = await PDFDocument.load(valueOf(await bookletPdf(daisies, daisies.parts[0]!, { paper: 'A4', ink })))
      const { tiles } = bookletLayout(daisies.parts[0]!, { widthMm: 174, heightMm: 249 }, 1)
      expect(made.getPageCount()).toBeGreaterThan(1 + tiles.length + pages - 1)
    }
    expect(stepPages(ground, piece(), piece().parts[0]!)).toMatchObject({ placed: [], pages: 0 })
  })
})
