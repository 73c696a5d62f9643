import type { Guide } from '../technique/wire-side'
import { SCALE_BAR_MM } from './strip-svg'

/** Bending guides at true size, with the bar that shows whether printer and screen keep it. */

const round = (n: number) => Math.round(n * 1000) / 1000
const escape = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')

const STROKES = {
  wire: 'stroke="#8a6a2f" stroke-linecap="round" stroke-linejoin="round"',
  tool: 'stroke="#3f5f8a" stroke-dasharray="1.2 0.8"',
  mark: 'stroke="#a2352f"',
} as const

/** Letters of a guide, mm high. */
const TEXT_MM = 2.6
/** Room that a letter takes at most, as a share of its height. */
const LETTER = 0.6

/** What one guide shows, its upper left corner at 0, 0; and how wide it is with its words. */
function drawn({ lines, labels, widthMm }: Guide): { readonly body: string; readonly wideMm: number } {
  const shown = lines.map(
    ({ kind, thickMm, points }) =>
      `<polyline points="${points.map(({ x, y }) => `${round(x)},${round(y)}`).join(' ')}" fill="none" ` +
      `stroke-width="${round(thickMm)}" ${STROKES[kind]}/>`,
  )
  let wide = widthMm
  const words = labels.map(({ x, y, says }) => {
    const long = says.length * TEXT_MM * LETTER
    // Words that would run over the edge of a wide guide end at their mark.
    const before = x + long > widthMm && x - long > 0
    if (!before) wide = Math.max(wide, x + long)
    return (
      `<text x="${round(x)}" y="${round(y)}" font-size="${TEXT_MM}" fill="#222"` +
      `${before ? ' text-anchor="end"' : ''}>${escape(says)}</text>`
    )
  })
  return { body: shown.join('') + words.join(''), wideMm: wide }
}

const svg = (width: number, height: number, title: string, body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${round(width)}mm" height="${round(height)}mm" ` +
  `viewBox="0 0 ${round(width)} ${round(height)}" role="img" font-family="sans-serif">` +
  `<title>${escape(title)}</title>` +
  `${body}</svg>\n`

/** One guide as SVG, in true millimetres. */
export function guideSvg(guide: Guide): string {
  const { body, wideMm } = drawn(guide)
  return svg(wideMm + 1, guide.lengthMm + 1, guide.title, `<g transform="translate(0.5 0.5)">${body}</g>`)
}

const EDGE = 6
/** Room of a title and of each sentence of a guide on a sheet, mm. */
const LINE_MM = 5

/** All guides of a piece on one sheet, below each other, with a bar of 50 mm. */
export function guideSheetSvg(guides: readonly Guide[], title: string): string {
  let y = EDGE + 12
  let wide = SCALE_BAR_MM + 40
  const body = guides.map((guide) => {
    const { body: own, wideMm } = drawn(guide)
    const words = [guide.title, ...guide.says].map(
      (says, k) =>
        `<text x="0" y="${round(y + k * LINE_MM)}" font-size="${k === 0 ? 3.6 : 2.8}" fill="#222"` +
        `${k === 0 ? ' font-weight="bold"' : ''}>${escape(says)}</text>`,
    )
    wide = Math.max(wide, wideMm, ...guide.says.map((says) => says.length * 2.8 * LETTER))
    y += (1 + guide.says.length) * LINE_MM
    const at = y - 2
    y += guide.lengthMm + LINE_MM
    return `${words.join('')}<g transform="translate(0 ${round(at)})">${own}</g>`
  })
  const bar =
    `<path d="M0 2v4M${SCALE_BAR_MM} 2v4M0 4h${SCALE_BAR_MM}" stroke="#111" stroke-width="0.35" fill="none"/>` +
    `<text x="${SCALE_BAR_MM + 3}" y="5" font-size="2.8" fill="#222">${SCALE_BAR_MM} mm: lay a rule here</text>`
  return svg(
    wide + 2 * EDGE,
    y + EDGE,
    title,
    `<g transform="translate(${EDGE} ${EDGE})">${bar}</g><g transform="translate(${EDGE} 0)">${body.join('')}</g>`,
  )
}
