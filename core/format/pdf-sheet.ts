import { rgb, type PDFDocument, type PDFFont, type PDFPage } from 'pdf-lib'
import { rgbOf } from '../colour/colour'

/**
 * Sheets of a PDF measured in mm from their upper left corner, in the standard fonts: what every printed format
 * shares.
 */
export const PAPER = { A4: [210, 297], Letter: [215.9, 279.4] } as const
export const PT = 72 / 25.4

export const INK = rgb(0.1, 0.086, 0.075)
export const SOFT = rgb(0.39, 0.35, 0.31)
export const paint = (hex: string) => {
  const { r, g, b } = rgbOf(hex)
  return rgb(r / 255, g / 255, b / 255)
}

/** Text that the standard fonts can write; signs that they lack become a question mark, arrows become words. */
export const written = (text: string): string =>
  text
    .replaceAll('→', '>')
    .replaceAll('←', '<')
    .replaceAll(/[^\x20-\x7E\xA1-\xFF–—‘’“”•…]/g, '?')

export interface Ground {
  readonly doc: PDFDocument
  readonly plain: PDFFont
  readonly bold: PDFFont
  readonly width: number
  readonly height: number
  readonly total: { pages: number }
}

export interface Sheet {
  readonly page: PDFPage
  text: (words: string, x: number, y: number, size?: number, bold?: boolean, soft?: boolean) => void
  line: (x0: number, y0: number, x1: number, y1: number, w?: number) => void
}

/** A page whose measures are mm from its upper left corner. */
export function sheet({ doc, plain, bold, width, height }: Ground): Sheet {
  const page = doc.addPage([width * PT, height * PT])
  return {
    page,
    text: (words, x, y, size = 9, heavy = false, soft = false) =>
      page.drawText(written(words), {
        x: x * PT,
        y: (height - y) * PT,
        size,
        font: heavy ? bold : plain,
        color: soft ? SOFT : INK,
      }),
    line: (x0, y0, x1, y1, w = 0.2) =>
      page.drawLine({
        start: { x: x0 * PT, y: (height - y0) * PT },
        end: { x: x1 * PT, y: (height - y1) * PT },
        thickness: w * PT,
        color: SOFT,
      }),
  }
}
