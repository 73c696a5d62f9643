import { keyOf } from '../grid/key'
import type { TrayBead } from '../bead/bead'
import { glyphSvg } from '../bead/glyph'
import { inkOn } from '../colour/colour'
import { centreOf, freeOf, isScattered, latticeOf, pitchOf, turnOf, usualBead } from '../piece/drawing'
import {
  columnsOf,
  countedRows,
  isGrid,
  lengthOfLine,
  partRow,
  rowsOf,
  techniqueOf,
  trayByNumber,
  voidsOf,
  type Part,
} from '../piece/piece'
import { partsWith } from '../piece/joint'
import { beadOutline, scaledSpec } from '../picture/outline'
import { CARRIER_COLOURS } from '../picture/placed'
import { ownSize } from '../picture/sprite'
import type { Lie } from '../picture/view'
import { drawnSize } from '../piece/drawn-size'
import { ringsOf, wholeOf } from '../picture/whole'
import { leastOf, seenCarriers, type Carrier } from '../technique/drawing'
import { halfBox, type Point } from '../technique/lattice'

interface ChartOptions {
  readonly lie: Lie
  /** Upright with its first lines above, as it hangs. */
  readonly hanging?: boolean
  /** Bead rows from … up to, not including; the whole part by default. */
  readonly from?: number
  readonly to?: number
  /** How much larger than life. */
  readonly scale: number
  /** colour: filled beads; both: filled with glyphs; glyphs: black on white. */
  readonly ink: 'colour' | 'both' | 'glyphs'
  readonly title: string
  /** A line under the chart, such as what an arrow means; none by default. */
  readonly note?: string
}

const escape = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')

const round = (mm: number): number => Math.round(mm * 1000) / 1000

/** Room for counts along two edges, mm on paper. */
const EDGE = 6

/** Size of a bead as it lies before turning, mm on paper; the place's own where it holds none. */
function sizeOf(
  bead: TrayBead | undefined,
  usual: ReturnType<typeof usualBead>,
  level: boolean,
  scale: number,
): { w: number; h: number } {
  const { x, y } = bead ? ownSize(bead, usual.hole) : { x: usual.beadX, y: usual.beadY }
  return level ? { w: y * scale, h: x * scale } : { w: x * scale, h: y * scale }
}

/**
 * One kind of bead as SVG about its middle, turned as it lies; the glyph stays upright, `marks` turned against what
 * all is turned by.
 */
function beadSvg(
  id: string,
  bead: TrayBead | undefined,
  w: number,
  h: number,
  turnDegrees: number,
  {
    ink,
    outline,
    marks,
  }: { readonly ink: ChartOptions['ink']; readonly outline: string | null; readonly marks: number },
): string {
  const least = Math.min(w, h)
  if (!bead) return `<g id="${id}"><circle r="${round(least * 0.06)}" fill="#999"/></g>`
  const [fill, stroke] = ink === 'glyphs' ? ['#ffffff', '#888888'] : [bead.colour, '#00000055']
  const turn = turnDegrees === 0 ? '' : ` transform="rotate(${round(turnDegrees)})"`
  const edge = `fill="${fill}" stroke="${stroke}" stroke-width="${round(least * 0.035)}"${turn}`
  const body =
    outline === null
      ? `<rect x="${round(-w * 0.48)}" y="${round(-h * 0.48)}" width="${round(w * 0.96)}" ` +
        `height="${round(h * 0.96)}" rx="${round(least * 0.22)}" ${edge}/>`
      : `<path d="${outline}" ${edge}/>`
  const mark =
    ink === 'colour'
      ? ''
      : `<g transform="${marks === 0 ? '' : `rotate(${marks}) `}scale(${round(least * 0.72)}) translate(-.5 ` +
        `-.5)">${glyphSvg(bead.glyph, ink === 'glyphs' ? '#111111' : inkOn(bead.colour))}</g>`
  return `<g id="${id}"><title>${escape(`${bead.letter} ${bead.name}`)}</title>${body}${mark}</g>`
}

/** Beads of a part on paper, mm: across the work and along it from the first row, each with the id of its shape. */
interface Drawn {
  readonly placed: readonly { readonly across: number; readonly along: number; readonly id: string }[]
  /** Shapes by id. */
  readonly shapes: ReadonlyMap<string, string>
  /** How far they reach. */
  readonly wide: number
  readonly long: number
  middle(c: number, r: number): { readonly across: number; readonly along: number }
}

/** What of cord, wire or cuff is shown before the first line of a section, mm. */
const BARE_ON_PAPER_MM = 4

/** Where a chart of the rows from … to begins, mm along the work. */
function beginOf(part: Part, from: number, to: number): number {
  const free = freeOf(part)
  if (!free) return from * latticeOf(part).pitchY
  let begins = Infinity
  for (let r = from; r < to; r++)
    for (let c = 0; c < lengthOfLine(part, r); c++) begins = Math.min(begins, centreOf(part, c, r).y)
  if (begins === Infinity || (from === 0 && to === rowsOf(part))) return 0
  // Of what is bare before the first line only its end is shown.
  const bare = from === 0 ? BARE_ON_PAPER_MM : 0
  return Math.max(0, begins - Math.max(free.beadX, free.beadY) / 2 - bare)
}

/**
 * What carries beads that lie freely, as lines on paper, under the beads and over them: `at` says where a point of the
 * work, mm, lies on it. Paper shows the right side.
 */
function carriersSvg(part: Part, at: (p: Point) => Point, scale: number): { under: string; over: string } {
  const free = freeOf(part)
  if (!free) return { under: '', over: '' }
  const { under, over } = seenCarriers(free, false)
  return { under: linesSvg(under.flat(), at, scale), over: linesSvg(over, at, scale) }
}

function linesSvg(carriers: readonly Carrier[], at: (p: Point) => Point, scale: number): string {
  if (carriers.length === 0) return ''
  const lines = carriers.map(({ kind, thickMm, points }) => {
    const { r, g, b } = CARRIER_COLOURS[kind]
    const path = points.map(at).map((p) => `${round(p.x)},${round(p.y)}`)
    return (
      `<polyline points="${path.join(' ')}" stroke="rgb(${r} ${g} ${b})" ` +
      `stroke-width="${round(Math.max(0.15, thickMm * scale))}"/>`
    )
  })
  return `<g fill="none" stroke-linecap="round" stroke-linejoin="round">${lines.join('')}</g>`
}

/** `prefix`: of the ids, so that several parts may lie in one picture. `bare`: places without a bead are left out. */
function drawnBeads(
  part: Part,
  tray: readonly TrayBead[],
  { lie, hanging = false, from = 0, to = rowsOf(part), scale, ink }: Omit<ChartOptions, 'title' | 'note'>,
  { prefix = 'b', bare = false, marks = 0 } = {},
): Drawn {
  const level = lie === 'level'
  const usual = usualBead(part)
  const columns = columnsOf(part)
  const beads = trayByNumber(tray)
  // An outline has its hole along x and hangs toward +y. The exchange of the axes turns what is the same from both of
  // its ends by a quarter, what rises by half.
  const isLong = (usual.hole === 'across') !== level
  const base = isLong ? (level || hanging ? 0 : 180) : -90
  const voids = new Set(isGrid(part) ? voidsOf(part) : [])
  const begins = beginOf(part, from, to)
  const middle = (c: number, r: number) => {
    const { x, y } = centreOf(part, c, r)
    return { across: x * scale, along: (y - begins) * scale }
  }
  const placed: { readonly across: number; readonly along: number; readonly id: string }[] = []
  const shapes = new Map<string, string>()
  let [wide, long] = [0, 0]
  for (let r = from; r < to; r++) {
    const row = partRow(part, r)
    for (let c = 0; c < row.length; c++) {
      if (voids.has(keyOf(columns, c, r)) || (bare && row[c] === 0)) continue
      const { across, along } = middle(c, r)
      // Either way the work is seen as the lattice exchanged, which turns a lean over.
      const turnDegrees = 0 - turnOf(part, c, r)
      const { w, h } = sizeOf(beads.get(row[c]!), usual, level, scale)
      const half = halfBox({ beadX: w, beadY: h }, turnDegrees)
      wide = Math.max(wide, across + (level ? half.y : half.x))
      long = Math.max(long, along + (level ? half.x : half.y))
      const id = `${prefix}${row[c]!}${turnDegrees === 0 ? '' : `t${Math.round(turnDegrees)}`}`
      if (!shapes.has(id)) {
        const bead = beads.get(row[c]!)
        // What lies freely has the shape of its bead, its hole along x before it is turned.
        const outline = bead && freeOf(part) ? beadOutline(scaledSpec(bead.spec, scale * 0.96)) : null
        shapes.set(id, beadSvg(id, bead, w, h, turnDegrees + (outline === null ? 0 : base), { ink, outline, marks }))
      }
      placed.push({ across, along, id })
    }
  }
  return { placed, shapes, wide, long, middle }
}

const inOrder = (shapes: ReadonlyMap<string, string>): string =>
  [...shapes]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([, svg]) => svg)
    .join('')

/**
 * A chart as SVG, in mm on paper: every bead where the stitch puts it, with counts along the edges. Each kind of bead
 * is defined once for each way it lies and used, so that a chart of some thousand beads stays small.
 */
export function chartSvg(
  part: Part,
  tray: readonly TrayBead[],
  { lie, hanging = false, from = 0, to = rowsOf(part), scale, ink, title, note = '' }: ChartOptions,
): string {
  const level = lie === 'level'
  const columns = columnsOf(part)
  const { placed, shapes, wide, long, middle } = drawnBeads(part, tray, { lie, hanging, from, to, scale, ink })
  /** Where that lies on the paper: level, the rows run to the right; upright, they rise. */
  const at = ({ across, along }: { readonly across: number; readonly along: number }) =>
    level
      ? { x: along + EDGE, y: across + EDGE }
      : hanging
        ? { x: wide - across + EDGE, y: along + EDGE }
        : { x: across + EDGE, y: long - along + EDGE }
  const uses = placed.map((bead) => {
    const { x, y } = at(bead)
    return `<use href="#${bead.id}" x="${round(x)}" y="${round(y)}"/>`
  })
  // Of a section what carries the beads is cut off where its beads end.
  const begins = beginOf(part, from, to)
  const carried = carriersSvg(part, ({ x, y }) => at({ across: x * scale, along: (y - begins) * scale }), scale)
  const whole = from === 0 && to === rowsOf(part)
  const isCut = !whole && carried.under + carried.over !== ''
  const cut = (lines: string): string => (isCut && lines !== '' ? `<g clip-path="url(#cut)">${lines}</g>` : lines)
  const clip = isCut
    ? `<clipPath id="cut"><rect x="${EDGE - 1}" y="${EDGE - 1}" ` +
      `width="${round((level ? long : wide) + 1)}" height="${round((level ? wide : long) + 1)}"/></clipPath>`
    : ''
  const labels: string[] = []
  const besideRow = (p: { readonly x: number; readonly y: number }, text: number) =>
    `<text x="${EDGE - 1}" y="${round(p.y + 1)}" text-anchor="end">${text}</text>`
  const above = (p: { readonly x: number; readonly y: number }, text: number) =>
    `<text x="${round(p.x)}" y="${EDGE - 1.5}" text-anchor="middle">${text}</text>`
  // Of what hangs side by side every line has its number above.
  const each = hanging && freeOf(part) ? 1 : 5
  // What is bent to a shape has no lines beside each other that numbers could name.
  const numbered = !techniqueOf(part).wire?.upright
  for (let r = from; r < to; r++)
    if (numbered && (r + 1) % each === 0 && lengthOfLine(part, r) > 0)
      labels.push((level || each === 1 ? above : besideRow)(at(middle(0, r)), countedRows(part, r + 1)))
  // On a rope strands are scattered round the surface: a number beside the chart would name none of its lines.
  for (let c = 4; numbered && c < columns && !isScattered(part) && each > 1; c += 5)
    labels.push((level ? besideRow : above)(at(middle(c, from)), c + 1))
  const [right, bottom] = level ? [long + EDGE, wide + EDGE] : [wide + EDGE, long + EDGE]
  if (note !== '') labels.push(`<text x="${EDGE}" y="${round(bottom + 4)}">${escape(note)}</text>`)
  const width = round(right + 1)
  const height = round(bottom + (note === '' ? 1 : 6))
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ` +
    `${height}" role="img"><title>${escape(title)}</title>` +
    `<defs>${inOrder(shapes)}</defs>` +
    `<g font-family="sans-serif" font-size="2.8" fill="#555555">${labels.join('')}</g>` +
    `${clip}${cut(carried.under)}${uses.join('')}${cut(carried.over)}</svg>\n`
  )
}

/** Wire of a link on paper, mm before scaling. */
const WIRE_MM = 0.8

/**
 * All that hangs together with a part as SVG, in mm on paper: each part where its joints lay it, links between. The
 * first part of the tree lies level; the others are turned as they hang.
 */
export function wholeSvg(
  parts: readonly Part[],
  part: Part,
  tray: readonly TrayBead[],
  { scale, ink, title, hanging = false }: Pick<ChartOptions, 'scale' | 'ink' | 'title' | 'hanging'>,
): string {
  const whole = wholeOf(partsWith(parts, part))
  // Level, the length runs to the right: across and along are exchanged, so what turns clockwise turns the other way.
  const at = ({ x, y }: { readonly x: number; readonly y: number }) => ({ x: y * scale, y: x * scale })
  const shapes = new Map<string, string>()
  const groups = whole.placed.map((p, k) => {
    const drawn = drawnBeads(
      p.part,
      tray,
      { lie: 'level', scale, ink },
      { prefix: `p${k}b`, bare: true, marks: hanging ? -90 : 0 },
    )
    for (const [id, svg] of drawn.shapes) shapes.set(id, svg)
    const size = drawnSize(p.part)
    const middle = at({ x: p.x - whole.x + p.width / 2, y: p.y - whole.y + p.length / 2 })
    const uses = drawn.placed.map(
      ({ along, across, id }) =>
        `<use href="#${id}" x="${round(along - (size.length * scale) / 2)}" ` +
        `y="${round(across - (size.width * scale) / 2)}"/>`,
    )
    const turn = p.turn === 0 ? '' : ` rotate(${-90 * p.turn})`
    const { under, over } = carriersSvg(
      p.part,
      ({ x, y }) => ({ x: (y - size.length / 2) * scale, y: (x - size.width / 2) * scale }),
      scale,
    )
    return (
      `<g transform="translate(${round(middle.x)} ${round(middle.y)})${turn}">` +
      `<title>${escape(p.part.name)}</title>${under}${uses.join('')}${over}</g>`
    )
  })
  const shifted = (p: { readonly x: number; readonly y: number }) => at({ x: p.x - whole.x, y: p.y - whole.y })
  const rings = whole.ties
    .flatMap((tie) => ringsOf(tie, shifted, scale))
    .map(({ x, y, radius }) => `<circle cx="${round(x)}" cy="${round(y)}" r="${round(radius)}"/>`)
  const [across, along] = [round(whole.length * scale + 2), round(whole.width * scale + 2)]
  const drawn =
    groups.join('') + `<g fill="none" stroke="#8d8472" stroke-width="${round(WIRE_MM * scale)}">${rings.join('')}</g>`
  // What hangs is the level picture turned by a quarter: its first lines come to lie above.
  const [width, height] = hanging ? [along, across] : [across, along]
  const body = hanging ? `<g transform="translate(${round(along - 2)} 0) rotate(90)">${drawn}</g>` : drawn
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="-1 -1 ${width} ` +
    `${height}" role="img"><title>${escape(title)}</title><defs>${inOrder(shapes)}</defs>${body}</svg>\n`
  )
}

/** Smallest and usual size of the smallest bead on paper, mm: a letter is read on it. */
const ON_PAPER_MM = { least: 2.2, usual: 4.2 } as const

/**
 * How much larger than life a part is drawn on paper: its smallest bead as large as lets the width of the work take at
 * most so many mm, and never smaller than a letter needs.
 */
export function paperScale(part: Part, widthMm: number): number {
  const free = freeOf(part)
  const { beadX, beadY } = usualBead(part)
  const least = free ? leastOf(free) : Math.min(beadX, beadY)
  const wide = free ? drawnSize(part).width : columnsOf(part) * pitchOf(part).x
  return Math.max(ON_PAPER_MM.least / least, Math.min(ON_PAPER_MM.usual / least, widthMm / wide))
}

/** The same for what hangs: all of it on one sheet, as wide and as long as that is, mm. */
export function hangingScale(part: Part, room: { readonly width: number; readonly height: number }): number {
  const { width, length } = drawnSize(part)
  const least = freeOf(part) ? leastOf(freeOf(part)!) : usualBead(part).beadX
  const most = Math.min((room.width - EDGE - 1) / width, (room.height - EDGE - 8) / length)
  return Math.max(0.2, Math.min(ON_PAPER_MM.usual / least, most))
}

/** How far along the work the last of a line that lies freely is, mm; what is before it where it is empty. */
function lineAlong(part: Part, r: number): number {
  for (let line = r; line >= 0; line--) {
    const count = lengthOfLine(part, line)
    if (count > 0) return Math.max(...Array.from({ length: count }, (_, c) => centreOf(part, c, line).y))
  }
  return 0
}

/** Strips of bead rows that fit a length of paper, mm, at a scale: [from, to) for each. */
export function chartStrips(part: Part, from: number, to: number, scale: number, paperMm: number): [number, number][] {
  const out: [number, number][] = []
  const free = freeOf(part)
  if (free) {
    // Lines that lie freely are as far apart as they are: as many as the paper holds, one at least.
    const room = (paperMm - EDGE - 1) / scale - Math.max(free.beadX, free.beadY)
    for (let at = from; at < to;) {
      const begins = lineAlong(part, at)
      let next = at + 1
      while (next < to && lineAlong(part, next) - begins <= room) next++
      out.push([at, next])
      at = next
    }
    return out
  }
  const each = Math.max(1, Math.floor((paperMm - EDGE - 1) / (pitchOf(part).y * scale) - 0.5))
  for (let at = from; at < to; at += each) out.push([at, Math.min(to, at + each)])
  return out
}
