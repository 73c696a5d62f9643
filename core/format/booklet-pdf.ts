import { linesWord } from '../piece/nature'
import { keyOf } from '../grid/key'
import { degrees, PDFDocument, rgb, StandardFonts, type PDFFont } from 'pdf-lib'
import { requireSpec } from '../bead/spec'
import { inkOn } from '../colour/colour'
import { wholeExtent } from '../fit/whole'
import { jointWords, partsWith } from '../piece/joint'
import { pitchOf, turnOf, usualBead } from '../piece/drawing'
import { beadOutline, boxOutline, scaledSpec } from '../picture/outline'
import { pictureOf } from '../picture/picture'
import { CARRIER_COLOURS } from '../picture/placed'
import { boxOfWhole, wholeOf } from '../picture/whole'
import { linksNeeded } from '../supply/links'
import { ownSize } from '../picture/sprite'
import type { Point } from '../technique/lattice'
import { laidCounted } from '../piece/laid'
import {
  columnsOf,
  countedRows,
  fittedPart,
  partRow,
  isGrid,
  rowsOf,
  techniqueOf,
  trayByNumber,
  voidsOf,
  type Part,
  type Piece,
} from '../piece/piece'
import { bad, good, problem, type Result } from '../problem'
import { beadCounts, tallyPart, totalOf } from '../tally/tally'
import { asides, piecedRowWords, rowTitle, runText } from '../tally/words'
import { showNumber } from '../units/length'
import { INK, paint, PAPER, PT, sheet, SOFT, written, type Ground, type Sheet } from './pdf-sheet'
import { drawStepPages, stepPages, type StepPages } from './booklet-steps'
import { bookletLayout, carriersOnPage, OVERLAP, placeOnPage, type Layout, type Stretch, type Tile } from './booklet'

/**
 * The booklet as PDF: an index sheet (the whole work with its pages, the beads), a page for each piece of the chart
 * with what it shares with its neighbours shaded, and the words of all rows with running totals.
 */
interface BookletOptions {
  readonly paper: 'A4' | 'Letter'
  readonly ink: 'colour' | 'letters'
}

const MARGIN = 14
const HEAD = 12
const EDGE = 8

/** A booklet of more beads than this is not made: nobody works from hundreds of pages. */
const MOST_BOOKLET_BEADS = 60_000

function indexSheet(ground: Ground, piece: Piece, part: Part, layout: Layout, wordPages: { first: number }): void {
  const { page, text } = sheet(ground)
  text(piece.name, MARGIN, 24, 22, true)
  text(
    `${part.name}: ${techniqueOf(part).name}, ${requireSpec(part.spec).name}, ${columnsOf(part)} across, ` +
      `${laidCounted(part)} rows, ${showNumber(totalOf(tallyPart(part)))} beads`,
    MARGIN,
    32,
    10,
    false,
    true,
  )
  // The whole work with its pages on it.
  const w = 62
  const h = Math.min(150, Math.max(20, (((w * rowsOf(part)) / columnsOf(part)) * pitchOf(part).y) / pitchOf(part).x))
  const sx = w / columnsOf(part)
  const sy = h / rowsOf(part)
  text('Where each page lies', MARGIN, 44, 12, true)
  for (const t of layout.tiles) {
    // As the charts lie: the first rows at the bottom.
    const [x, y] = [MARGIN + t.c * sx, 48 + (rowsOf(part) - t.r - t.rows) * sy]
    page.drawRectangle({
      x: x * PT,
      y: (ground.height - y - t.rows * sy) * PT,
      width: t.columns * sx * PT,
      height: t.rows * sy * PT,
      borderColor: INK,
      borderWidth: 0.8,
    })
    text(
      String(t.page),
      x + (t.columns * sx) / 2 - 1.5,
      y + (t.rows * sy) / 2 + 1.5,
      Math.max(6, Math.min(12, t.rows * sy * 2)),
      true,
    )
  }
  text(
    layout.tiles.length > 1
      ? `Pages share ${OVERLAP} rows and columns; what was on the page before is shaded. Rows rise from the bottom.`
      : 'The chart is on one page; its rows rise from the bottom.',
    MARGIN,
    54 + h,
    8.5,
    false,
    true,
  )
  text(`Words of the ${linesWord(part)} from page ${wordPages.first}.`, MARGIN, 59 + h, 8.5, false, true)
  text('Beads', 96, 44, 12, true)
  beadCounts(piece.tray, tallyPart(part))
    .filter((b) => b.count > 0)
    .slice(0, 42)
    .forEach(({ bead, count, grams }, k) => {
      const y = 51 + k * 5.4
      page.drawRectangle({
        x: 96 * PT,
        y: (ground.height - y - 0.6) * PT,
        width: 4.2 * PT,
        height: 4.2 * PT,
        color: paint(bead.colour),
        borderColor: SOFT,
        borderWidth: 0.3,
      })
      text(bead.letter, 103, y, 10, true)
      text(`${bead.name}, ${bead.finish}`, 111, y, 9)
      text(`${showNumber(count)}   ${showNumber(grams, 1)} g`, 172, y, 9)
    })
}

function chartPage(
  ground: Ground,
  piece: Piece,
  part: Part,
  tile: Tile,
  layout: Layout,
  ink: BookletOptions['ink'],
): void {
  const out = sheet(ground)
  const { page, text } = out
  const { scale } = layout
  const usual = usualBead(part)
  const tray = trayByNumber(piece.tray)
  const voids = new Set(isGrid(part) ? voidsOf(part) : [])
  const columns = columnsOf(part)
  text(`${piece.name}: ${part.name}`, MARGIN, MARGIN, 10, true)
  text(
    `${isGrid(part) ? 'row' : techniqueOf(part).words.line}s ` +
      `${countedRows(part, tile.r) + 1}–${countedRows(part, tile.r + tile.rows)}, ` +
      (isGrid(part) ? `columns ${tile.c + 1}–${tile.c + tile.columns} · ` : '') +
      `page ${tile.page} of ${ground.total.pages}`,
    MARGIN + 80,
    MARGIN,
    9,
    false,
    true,
  )
  const place = placeOnPage(part, layout, tile)
  const at = (c: number, r: number) => {
    const { x, y } = place(c, r)
    return { x: MARGIN + EDGE + x, y: MARGIN + HEAD + y }
  }
  const draw = (stretches: readonly Stretch[]): void => {
    const point = ({ x, y }: Point) => ({ x: (MARGIN + EDGE + x) * PT, y: (ground.height - MARGIN - HEAD - y) * PT })
    for (const { kind, thick, from, to } of stretches) {
      const { r, g, b } = CARRIER_COLOURS[kind]
      page.drawLine({
        start: point(from),
        end: point(to),
        thickness: Math.max(0.3, thick * PT),
        color: rgb(r / 255, g / 255, b / 255),
      })
    }
  }
  const carriers = carriersOnPage(part, layout, tile)
  draw(carriers.under)
  for (let r = tile.r; r < tile.r + tile.rows; r++) {
    const row = partRow(part, r)
    for (let c = tile.c; c < Math.min(row.length, tile.c + tile.columns); c++) {
      if (voids.has(keyOf(columns, c, r))) continue
      const { x, y } = at(c, r)
      const bead = tray.get(row[c]!)
      if (!bead) {
        page.drawCircle({ x: x * PT, y: (ground.height - y) * PT, size: 0.5, color: SOFT })
        continue
      }
      const size = ownSize(bead, usual.hole)
      const turnDegrees = 0 - turnOf(part, c, r)
      const [w, h] = [size.x * scale * 0.94, size.y * scale * 0.94]
      // A cell of a grid is a box; what lies freely has the shape of its bead.
      page.drawSvgPath(isGrid(part) ? boxOutline(w, h) : beadOutline(scaledSpec(bead.spec, scale * 0.94)), {
        ...{ x: x * PT, y: (ground.height - y) * PT, scale: PT },
        rotate: degrees(-turnDegrees - (isGrid(part) || usual.hole === 'across' ? 0 : 90)),
        color: ink === 'colour' ? paint(bead.colour) : rgb(1, 1, 1),
        borderColor: SOFT,
        borderWidth: 0.35 / PT,
      })
      const letter = Math.min(7.5, Math.min(w, h) * PT * (bead.letter.length > 1 ? 0.5 : 0.72))
      page.drawText(bead.letter, {
        x: x * PT - ground.plain.widthOfTextAtSize(bead.letter, letter) / 2,
        y: (ground.height - y) * PT - letter * 0.36,
        size: letter,
        font: ground.plain,
        color: ink === 'colour' ? paint(inkOn(bead.colour)) : INK,
      })
    }
    if (row.length > 0 && ((r + 1) % 5 === 0 || r === tile.r))
      text(String(countedRows(part, r + 1)), MARGIN - 2, at(tile.c, r).y + 1, 7, false, true)
  }
  draw(carriers.over)
  // Beads of lines that lie freely stand in no columns.
  for (let c = tile.c; c < tile.c + tile.columns && isGrid(part); c++)
    if ((c + 1) % 5 === 0 || c === tile.c)
      text(String(c + 1), at(c, tile.r).x - 1.5, MARGIN + HEAD - 3.5, 7, false, true)
  if (isGrid(part)) shadeOverlap(ground, out, tile, layout, at)
}

/** What the page before showed already lies under a veil, with its page named. */
function shadeOverlap(
  ground: Ground,
  { page, text }: Sheet,
  tile: Tile,
  layout: Layout,
  at: (c: number, r: number) => { x: number; y: number },
): void {
  const first = at(tile.c, tile.r)
  const last = at(tile.c + tile.columns - 1, tile.r + tile.rows - 1)
  const [upper, lower] = [last.y - 2, first.y + 2]
  const veil = (x0: number, y0: number, x1: number, y1: number) =>
    page.drawRectangle({
      x: x0 * PT,
      y: (ground.height - y1) * PT,
      width: (x1 - x0) * PT,
      height: (y1 - y0) * PT,
      color: rgb(0.36, 0.32, 0.28),
      opacity: 0.22,
    })
  if (tile.overlapRows > 0) {
    const y = (at(tile.c, tile.r + tile.overlapRows - 1).y + at(tile.c, tile.r + tile.overlapRows).y) / 2
    veil(first.x - 2, y, last.x + 2, lower)
    text(
      `also on page ${tile.page - layout.pagesAcross}`,
      Math.min(last.x + 4, ground.width - 26),
      first.y + 1,
      7,
      true,
    )
  }
  if (tile.overlapColumns > 0) {
    const x = (at(tile.c + tile.overlapColumns - 1, tile.r).x + at(tile.c + tile.overlapColumns, tile.r).x) / 2
    veil(MARGIN + EDGE - 2, upper, x, lower)
    text(`also on page ${tile.page - 1}`, MARGIN + EDGE, lower + 4, 7, true)
  }
}

const LINE = 4.1

/** The words of all rows as lines that fit a column, continued lines set in. */
function wordLines(piece: Piece, part: Part, font: PDFFont, roomMm: number): string[] {
  const letters = trayByNumber(piece.tray)
  const lines: string[] = []
  let running = 0
  for (const words of piecedRowWords(piece, part)) {
    running += words.beads
    const runs = words.runs.map((run) => runText(run, letters)).join(' ')
    const notes = asides(words).map((a) => ` · ${a}`)
    const whole = `${rowTitle(words)} ${words.direction} ${runs} (${words.beads}; ${running})${notes.join('')}`
    let line = ''
    for (const word of whole.split(' ')) {
      const next = line === '' ? word : `${line} ${word}`
      if (font.widthOfTextAtSize(written(next), 8.4) > roomMm * PT && line !== '') {
        lines.push(line)
        line = `   ${word}`
      } else line = next
    }
    lines.push(line)
  }
  return lines
}

/** A part in the booklet: its index sheet, its chart and its words. */
interface Chapter {
  readonly part: Part
  readonly layout: Layout
  readonly lines: readonly string[]
  /** Its steps in pictures, where they are told. */
  readonly steps: StepPages
  /** Number of its index sheet. */
  readonly first: number
  readonly wordPages: number
}

const columnOf = ({ width }: Ground): number => (width - 2 * MARGIN - 8) / 2
const linesOf = ({ height }: Ground): number => Math.floor((height - 2 * MARGIN - 10) / LINE)

function chapterOf(ground: Ground, piece: Piece, part: Part, first: number): Chapter {
  const room = { widthMm: ground.width - 2 * MARGIN - EDGE, heightMm: ground.height - 2 * MARGIN - HEAD - 8 }
  const lines = wordLines(piece, part, ground.plain, columnOf(ground))
  return {
    part,
    layout: bookletLayout(part, room, first),
    lines,
    steps: stepPages(ground, piece, part),
    first,
    wordPages: Math.ceil(lines.length / (2 * linesOf(ground))),
  }
}

const pagesOf = ({ layout, steps, wordPages }: Chapter): number => 1 + layout.tiles.length + steps.pages + wordPages

function chapterPages(
  ground: Ground,
  piece: Piece,
  { part, layout, lines, steps, first, wordPages }: Chapter,
  ink: BookletOptions['ink'],
): void {
  const pictured = first + 1 + layout.tiles.length
  const words = pictured + steps.pages
  indexSheet(ground, piece, part, layout, { first: words })
  for (const tile of layout.tiles) chartPage(ground, piece, part, tile, layout, ink)
  drawStepPages(ground, piece, steps, pictured, ink)
  const perColumn = linesOf(ground)
  for (let k = 0; k < wordPages; k++) {
    const { text } = sheet(ground)
    text(`${piece.name}: ${linesWord(part)} as worked`, MARGIN, MARGIN, 10, true)
    text(`page ${words + k} of ${ground.total.pages}`, ground.width - MARGIN - 30, MARGIN, 9, false, true)
    for (let i = 0; i < 2 * perColumn; i++) {
      const line = lines[k * 2 * perColumn + i]
      if (line)
        text(line, MARGIN + (i < perColumn ? 0 : columnOf(ground) + 8), MARGIN + 9 + (i % perColumn) * LINE, 8.4)
    }
  }
}

/** Room for the picture of the whole, mm. */
const PICTURE = { width: 170, height: 120 } as const

/** The first sheet of a piece whose parts hang together: all of it, how its parts join, and what to have ready. */
async function coverSheet(ground: Ground, piece: Piece, chapters: readonly Chapter[]): Promise<void> {
  const { page, text } = sheet(ground)
  const parts = chapters.map((c) => c.part)
  text(piece.name, MARGIN, 24, 22, true)
  const { lengthMm, widthMm } = wholeExtent(piece, fittedIn(piece, parts))
  const mm = (value: number) => `${showNumber(value, 1)} mm`
  const beads = parts.reduce((sum, part) => sum + totalOf(tallyPart(part)), 0)
  text(
    `${parts.length} parts, ${showNumber(beads)} beads; in all ${mm(lengthMm.nominal)} long, ` +
      `${mm(widthMm.nominal)} wide`,
    MARGIN,
    32,
    10,
    false,
    true,
  )
  const lie = 'upright'
  const unit = boxOfWhole(wholeOf(parts), parts[0]!, { lie, scale: 1, x: 0, y: 0 })
  const turned = unit.height > unit.width * 1.6 ? 'level' : lie
  const image = await ground.doc.embedPng(
    pictureOf(parts[0]!, piece.tray, {
      lie: turned,
      scale: Math.max(2, Math.min(16, 1800 / Math.max(unit.width, unit.height))),
      ground: '#ffffff',
      glyphs: false,
      margin: 6,
      parts,
    }),
  )
  const fit = Math.min(PICTURE.width / image.width, PICTURE.height / image.height)
  const [w, h] = [image.width * fit, image.height * fit]
  page.drawImage(image, { x: MARGIN * PT, y: (ground.height - 40 - h) * PT, width: w * PT, height: h * PT })
  let y = 40 + h + 12
  const line = (words: string, bold = false) => {
    text(words, MARGIN, y, bold ? 11 : 9.5, bold)
    y += bold ? 6.5 : 5.4
  }
  line('The parts, in the order in which they hang', true)
  for (const { part, first } of chapters.slice(0, 14)) {
    const how = jointWords(piece.parts, part, mm)
    line(
      `${part.name}: ${techniqueOf(part).name}, ${showNumber(totalOf(tallyPart(part)))} beads, from page ${first}` +
        (how ? `. ${how}` : ''),
    )
  }
  if (chapters.length > 14) line(`and ${chapters.length - 14} more`)
  const links = linksNeeded({ parts })
  if (links.length > 0) {
    y += 3
    line('To join them', true)
    for (const { name, count } of links.slice(0, 6)) line(`${count} × ${name}`)
  }
}

/** The part that the piece is fitted by where it is among these, or the first of them. */
const fittedIn = (piece: Piece, parts: readonly Part[]): Part =>
  parts.find((p) => p.id === fittedPart(piece).id) ?? parts[0]!

/** Makes the booklet of a part, and of all that hangs together with it. */
export async function bookletPdf(
  piece: Piece,
  part: Part,
  { paper, ink }: BookletOptions,
): Promise<Result<Uint8Array>> {
  const parts = partsWith(piece.parts, part).filter((p) => columnsOf(p) * rowsOf(p) > 0)
  const beads = parts.reduce((sum, p) => sum + columnsOf(p) * rowsOf(p), 0)
  if (beads === 0)
    return bad(problem('booklet-empty', part.id, 'There is nothing to print yet: the part has no rows.'))
  if (beads > MOST_BOOKLET_BEADS)
    return bad(
      problem(
        'booklet-large',
        part.id,
        `A booklet of ${showNumber(beads)} beads would be hundreds of pages. Print the repeat alone, or save ` +
          'the chart as SVG.',
      ),
    )
  const doc = await PDFDocument.create()
  doc.setTitle(written(piece.name))
  doc.setCreator('Weben')
  const [width, height] = PAPER[paper]
  const ground: Ground = {
    doc,
    width,
    height,
    plain: await doc.embedFont(StandardFonts.Helvetica),
    bold: await doc.embedFont(StandardFonts.HelveticaBold),
    total: { pages: 0 },
  }
  const chapters: Chapter[] = []
  let first = parts.length > 1 ? 2 : 1
  for (const each of parts) {
    const chapter = chapterOf(ground, piece, each, first)
    chapters.push(chapter)
    first += pagesOf(chapter)
  }
  ground.total.pages = first - 1
  if (parts.length > 1) await coverSheet(ground, piece, chapters)
  for (const chapter of chapters) chapterPages(ground, piece, chapter, ink)
  return good(await doc.save())
}
