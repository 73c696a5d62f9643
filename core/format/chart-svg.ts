import type { TrayBead } from '../bead/bead'
import { glyphSvg } from '../bead/glyph'
import { inkOn } from '../colour/colour'
import { columnsOf, partRow, rowsOf, techniqueOf, trayByNumber, type Part } from '../piece/piece'
import { latticeOnScreen, type Lie } from '../picture/raster'
import { beadCentre } from '../technique/lattice'

export interface ChartOptions {
  readonly lie: Lie
  /** Bead rows from … up to, not including; the whole part by default. */
  readonly from?: number
  readonly to?: number
  /** How much larger than life. */
  readonly scale: number
  /** colour: filled beads; both: filled with glyphs; glyphs: black on white. */
  readonly ink: 'colour' | 'both' | 'glyphs'
  readonly title: string
}

const escape = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')

const round = (mm: number): number => Math.round(mm * 1000) / 1000

/** Room for counts along two edges, mm on paper. */
const EDGE = 6

/**
 * A chart as SVG, in mm on paper: every bead where the stitch puts it, with counts along the edges. Each kind of bead is
 * defined once and used, so that a chart of some thousand beads stays small.
 */
export function chartSvg(part: Part, tray: readonly TrayBead[], { lie, from = 0, to = rowsOf(part), scale, ink, title }: ChartOptions): string {
  const lattice = latticeOnScreen(part, lie)
  const along = lie === 'along'
  const columns = columnsOf(part)
  const w = lattice.beadX * scale
  const h = lattice.beadY * scale
  const beads = trayByNumber(tray)
  const middle = (c: number, r: number) => {
    const p = along ? beadCentre(lattice, r - from, c) : beadCentre(lattice, c, r - from)
    return { x: p.x * scale + EDGE, y: p.y * scale + EDGE }
  }
  const used = new Set<number>()
  const uses: string[] = []
  let right = 0
  let bottom = 0
  for (let r = from; r < to; r++) {
    const row = partRow(part, r)
    for (let c = 0; c < columns; c++) {
      const { x, y } = middle(c, r)
      right = Math.max(right, x + w / 2)
      bottom = Math.max(bottom, y + h / 2)
      const number = row[c]!
      used.add(number)
      uses.push(`<use href="#b${number}" x="${round(x)}" y="${round(y)}"/>`)
    }
  }
  const glyph = Math.min(w, h) * 0.72
  const defs = [...used].sort((a, b) => a - b).map((number) => {
    const bead = beads.get(number)
    const rx = round(Math.min(w, h) * 0.22)
    const body = (fill: string, stroke: string) => `<rect x="${round(-w * 0.48)}" y="${round(-h * 0.48)}" width="${round(w * 0.96)}" height="${round(h * 0.96)}" rx="${rx}" fill="${fill}" stroke="${stroke}" stroke-width="${round(Math.min(w, h) * 0.035)}"/>`
    if (!bead) return `<g id="b${number}"><circle r="${round(Math.min(w, h) * 0.06)}" fill="#999"/></g>`
    const mark = ink === 'colour' ? '' : `<g transform="scale(${round(glyph)}) translate(-.5 -.5)">${glyphSvg(bead.glyph, ink === 'glyphs' ? '#111111' : inkOn(bead.colour))}</g>`
    return `<g id="b${number}"><title>${escape(`${bead.letter} ${bead.name}`)}</title>${ink === 'glyphs' ? body('#ffffff', '#888888') : body(bead.colour, '#00000055')}${mark}</g>`
  })
  const perRow = techniqueOf(part).countedRows(1)
  const labels: string[] = []
  for (let r = from; r < to; r++) {
    if ((r + 1) % 5 !== 0) continue
    const p = middle(0, r)
    labels.push(along ? `<text x="${round(p.x)}" y="${EDGE - 1.5}" text-anchor="middle">${(r + 1) * perRow}</text>` : `<text x="${EDGE - 1}" y="${round(p.y + 1)}" text-anchor="end">${(r + 1) * perRow}</text>`)
  }
  for (let c = 4; c < columns; c += 5) {
    const p = middle(c, from)
    labels.push(along ? `<text x="${EDGE - 1}" y="${round(p.y + 1)}" text-anchor="end">${c + 1}</text>` : `<text x="${round(p.x)}" y="${EDGE - 1.5}" text-anchor="middle">${c + 1}</text>`)
  }
  const width = round(right + 1)
  const height = round(bottom + 1)
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}" role="img"><title>${escape(title)}</title>`
    + `<defs>${defs.join('')}</defs><g font-family="sans-serif" font-size="2.8" fill="#555555">${labels.join('')}</g>${uses.join('')}</svg>\n`
}

/** Strips of bead rows that fit a length of paper, mm, at a scale: [from, to) for each. */
export function chartStrips(part: Part, from: number, to: number, scale: number, paperMm: number): [number, number][] {
  const lattice = latticeOnScreen(part, 'down')
  const each = Math.max(1, Math.floor((paperMm - EDGE - 1) / (lattice.pitchY * scale) - 0.5))
  const out: [number, number][] = []
  for (let at = from; at < to; at += each) out.push([at, Math.min(to, at + each)])
  return out
}
