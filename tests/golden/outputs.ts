import { createHash } from 'node:crypto'
import { decode } from 'fast-png'
import { decodePDFRawStream, PDFArray, PDFDocument, PDFRawStream, type PDFObject } from 'pdf-lib'
import { bookletPdf } from '#core/format/booklet-pdf'
import { chartSvg } from '#core/format/chart-svg'
import { gridCsv } from '#core/format/grid-csv'
import { writePieceFile } from '#core/format/piece-file'
import { reportPiece } from '#core/format/report'
import { strandCardsPdf, strandsCsv } from '#core/format/strand-cards'
import { rowsCsv, tallyCsv } from '#core/format/tally-csv'
import { wordChart } from '#core/format/word-chart'
import { pictureOf } from '#core/picture/picture'
import { choresOf } from '#core/making/chore'
import { rowsOf, type Piece } from '#core/piece/piece'
import { DEMO_PIECES } from '../../demo/pieces'
import { WORKED } from '../fixture/worked'

/** The pieces whose every output is known: the demo workshop and the worked examples, by a name of their own. */
export const GOLDEN_PIECES: readonly { readonly name: string; readonly piece: Piece }[] = [
  ...DEMO_PIECES.map((piece) => ({ name: `demo: ${piece.name}`, piece })),
  ...WORKED.map(({ title, piece }) => ({ name: `worked: ${title}`, piece })),
]

/** What is drawn and written on the pages of a PDF, without its dates and numbers of objects. */
async function pagesOf(pdf: Uint8Array): Promise<string> {
  const doc = await PDFDocument.load(pdf)
  const text = (stream: PDFObject | undefined) =>
    stream instanceof PDFRawStream ? Buffer.from(decodePDFRawStream(stream).decode()).toString('latin1') : ''
  const pages = doc.getPages().map(({ node }) => {
    const contents = node.Contents()
    if (!(contents instanceof PDFArray)) return text(contents)
    return Array.from({ length: contents.size() }, (_, k) => text(contents.lookup(k))).join('\n')
  })
  return pages.join('\n\f\n')
}

/** Everything that leaves Weben of a piece, by a name that says what it is: text, or pixels. */
export async function outputsOf(piece: Piece): Promise<Record<string, string | Uint8Array>> {
  const out: Record<string, string | Uint8Array> = {
    'piece.json': writePieceFile(piece),
    'report.json': JSON.stringify(reportPiece(piece), null, 1),
    'tally.csv': tallyCsv(piece),
    'rows.csv': rowsCsv(piece),
    // What is done besides beads, and when.
    'course.json': JSON.stringify(
      choresOf(piece, { copies: 1, copyOrder: 'in turn' }, { joined: new Map(), measured: [] }),
    ),
  }
  for (const part of piece.parts) {
    out[`${part.id}.grid.csv`] = gridCsv(piece, part)
    out[`${part.id}.words.txt`] = wordChart(piece, part)
    for (const lie of ['level', 'upright'] as const) {
      out[`${part.id}.${lie}.svg`] = chartSvg(part, piece.tray, {
        lie,
        to: Math.min(40, rowsOf(part)),
        scale: 2,
        ink: 'both',
        title: part.name,
      })
      const picture = { lie, scale: 5, ground: '#f4efe6', glyphs: false, margin: 6, most: { width: 600, height: 600 } }
      out[`${part.id}.${lie}.pixels`] = decode(pictureOf(part, piece.tray, picture)).data as Uint8Array
    }
    const booklet = await bookletPdf(piece, part, { paper: 'A4', ink: 'letters' })
    if (booklet.ok) out[`${part.id}.booklet.txt`] = await pagesOf(booklet.value)
    const cards = await strandCardsPdf(piece, part, { paper: 'A4' })
    if (cards.ok) {
      out[`${part.id}.strands.csv`] = strandsCsv(piece, part)
      out[`${part.id}.cards.txt`] = await pagesOf(cards.value)
    }
  }
  return out
}

/** A short print of an output: another print is another output. */
export const printOf = (output: string | Uint8Array): string =>
  createHash('sha256').update(output).digest('base64url').slice(0, 16)
