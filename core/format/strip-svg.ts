import { MM_PER_INCH } from '../units/length'
import { isoFromGb, isoFromUs } from '../units/ring-size'

/**
 * Strips to print, cut out and lay round: drawn in true millimetres, with a bar that shows whether the printer kept
 * them.
 */

/** Length of the bar that checks the printer, mm. */
export const SCALE_BAR_MM = 50

/** Longest wrist that the strip measures, mm: as much as a page of either paper holds. */
export const WRIST_STRIP_MM = 230

const text = (x: number, y: number, size: number, words: string, anchor: 'start' | 'middle' | 'end' = 'middle') =>
  `<text x="${x}" y="${y}" font-size="${size}" text-anchor="${anchor}">${words}</text>`
const line = (x1: number, y1: number, x2: number, y2: number, width = 0.2) =>
  `<path d="M${round(x1)} ${round(y1)}L${round(x2)} ${round(y2)}" stroke-width="${width}"/>`
const round = (n: number) => Math.round(n * 1000) / 1000

/** The bar of 50 mm at (x, y), lying down the page like the strips themselves. */
const scaleBar = (x: number, y: number) =>
  line(x, y, x, y + SCALE_BAR_MM, 0.35) +
  line(x - 1.5, y, x + 1.5, y, 0.35) +
  line(x - 1.5, y + SCALE_BAR_MM, x + 1.5, y + SCALE_BAR_MM, 0.35) +
  `<g transform="translate(${x + 4} ${y + SCALE_BAR_MM / 2}) rotate(90)">` +
  `${text(0, 0, 3, `${SCALE_BAR_MM} mm: lay a rule here`)}</g>`

function sheet(width: number, height: number, title: string, body: string): string {
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ` +
    `${height}" role="img" aria-label="${title}" fill="none" stroke="#111" font-family="sans-serif"><g ` +
    `fill="none">${body.replaceAll('<text', '<text fill="#111" stroke="none"')}</g></svg>`
  )
}

/**
 * Zero lies at the arrow; the other end is laid over it and read there. Millimetres on the left, inches on the right.
 */
export function wristStripSvg(): string {
  const [top, wide] = [12, 20]
  let body =
    `<path d="M2 ${top}L${2 + wide / 2} 3L${2 + wide} ${top}V${top + WRIST_STRIP_MM + 8}H2Z" ` +
    `stroke-width="0.3"/>${line(2, top, 2 + wide, top, 0.4)}${text(2 + wide / 2, top - 2, 2.6, 'read here')}`
  for (let mm = 5; mm <= WRIST_STRIP_MM; mm += 1) {
    const long = mm % 10 === 0 ? 5 : mm % 5 === 0 ? 3.5 : 2
    body += line(2, top + mm, 2 + long, top + mm, mm % 10 === 0 ? 0.3 : 0.15)
    if (mm % 10 === 0 && mm >= 80) body += text(10.6, top + mm + 1, 2.8, String(mm))
  }
  for (let eighth = 1; (eighth * MM_PER_INCH) / 8 <= WRIST_STRIP_MM; eighth++) {
    const y = top + (eighth * MM_PER_INCH) / 8
    body += line(
      2 + wide,
      y,
      2 + wide - (eighth % 8 === 0 ? 4.4 : eighth % 4 === 0 ? 3.2 : 2),
      y,
      eighth % 8 === 0 ? 0.3 : 0.15,
    )
    if (eighth % 8 === 0 && eighth >= 24) body += text(2 + wide - 7.2, y + 1, 2.6, `${eighth / 8} in`)
  }
  return sheet(40, top + WRIST_STRIP_MM + 12, 'Strip to measure a wrist', body + scaleBar(29, top + 10))
}

/** Where each size lies along the ring strip, mm from the arrow: the inside circumference itself. */
export function ringMarks(): { readonly iso: number; readonly label: string; readonly system: 'ISO' | 'US' | 'GB' }[] {
  const marks: { iso: number; label: string; system: 'ISO' | 'US' | 'GB' }[] = []
  for (let iso = 40; iso <= 76; iso += 2) marks.push({ iso, label: String(iso), system: 'ISO' })
  for (let us = 2; us <= 14; us++) marks.push({ iso: isoFromUs(us), label: String(us), system: 'US' })
  for (let code = 67; code <= 90; code += 2)
    marks.push({ iso: isoFromGb(String.fromCharCode(code))!, label: String.fromCharCode(code), system: 'GB' })
  return marks
}

export function ringStripSvg(): string {
  const top = 14
  const lanes = { ISO: 4.2, US: 8.8, GB: 13 }
  let body =
    `<path d="M2 ${top}L9 4L16 ${top}V${top + 84}H2Z" stroke-width="0.3"/>` +
    line(2, top, 16, top, 0.4) +
    text(9, top - 2, 2.2, 'read here') +
    line(4, top + 2, 14, top + 2, 0.5) +
    text(9, top + 5, 1.5, 'slit: pull through')
  for (const [name, x] of Object.entries(lanes)) body += text(x + 0.6, top + 37, 2, name)
  for (const { iso, label, system } of ringMarks())
    body +=
      line(lanes[system] - 2, top + iso, lanes[system] - 0.6, top + iso, 0.2) +
      text(lanes[system] + 1, top + iso + 0.7, 1.9, label)
  return sheet(34, top + 92, 'Strip to measure a finger', body + scaleBar(23, top + 10))
}
