import type { TrayBead } from '../bead/bead'
import type { Rgb } from '../colour/colour'
import { columnsOf, partRow, rowsOf, type Part } from '../piece/piece'
import type { Lattice } from '../technique/lattice'
import { latticeAlong, latticeOf } from '../pattern/place'
import { beadPixels, emptyPixels, lookOf, meanPixel, pack } from './look'

/** A buffer of pixels, row-major, as a canvas stores them. */
export interface Surface { readonly width: number, readonly height: number, readonly pixels: Int32Array }

/** A rectangle of whole pixels. */
export interface PixelRect { readonly x: number, readonly y: number, readonly width: number, readonly height: number }

/** How the band lies: its length along the screen, or down it. */
export type Lie = 'along' | 'down'

/** How the work is seen: pixels a millimetre and where the work's corner lies, px. */
export interface View { readonly lie: Lie, readonly scale: number, readonly x: number, readonly y: number }

/** Under this many pixels a bead is drawn as a plain rectangle of its mean colour. */
export const DETAIL_PX = 4

/** From this many pixels on there is room for a glyph. */
export const GLYPH_PX = 13

export interface PaintOptions {
  readonly ground: Rgb
  readonly glyphs: boolean
  /** A nap of noise on the ground, 0 (flat) … about 6. */
  readonly nap: number
}

/** Size of the tile of felt, px; wide, so that a line of the screen is a few copies. */
const NAP_WIDTH = 512
const NAP_HEIGHT = 128

/** A tile of felt: the ground with a fine, even noise. The same every time. */
export function napTile({ ground, nap }: PaintOptions): Int32Array {
  const tile = new Int32Array(NAP_WIDTH * NAP_HEIGHT)
  let state = 0x9E3779B9
  for (let i = 0; i < tile.length; i++) {
    state ^= state << 13; state ^= state >>> 17; state ^= state << 5
    const noise = nap * (((state >>> 0) / 0xFFFFFFFF) - 0.5) * 2
    tile[i] = pack(ground.r + noise, ground.g + noise, ground.b + noise)
  }
  return tile
}

/** What of a look does not depend on the scale: kept when only the scale changes. */
interface Far { readonly tile: Int32Array, readonly means: Int32Array }

function farLook(tray: readonly TrayBead[], options: PaintOptions): Far {
  const most = tray.reduce((m, b) => Math.max(m, b.number), 0)
  const means = new Int32Array(most + 1)
  means[0] = pack(options.ground.r * 0.96, options.ground.g * 0.96, options.ground.b * 0.96)
  for (const bead of tray) means[bead.number] = meanPixel(lookOf(bead, options), options.ground)
  return { means, tile: napTile(options) }
}

/** The sprites of a tray at one scale, made when first needed. */
export interface Sprites {
  readonly tray: readonly TrayBead[]
  readonly scale: number
  readonly lie: Lie
  readonly options: PaintOptions
  readonly tile: Int32Array
  /** Mean colour by tray number. */
  readonly means: Int32Array
  /** By tray number, then by size key. */
  readonly bySize: (Map<number, Int32Array> | undefined)[]
}

/** Sprites for a scale; `before`, of the same tray and options, lends what does not depend on the scale. */
export function makeSprites(tray: readonly TrayBead[], scale: number, lie: Lie, options: PaintOptions, before?: Sprites): Sprites {
  const { tile, means } = before ?? farLook(tray, options)
  return { tray, scale, lie, options, tile, means, bySize: [] }
}

function spriteFor(sprites: Sprites, number: number, w: number, h: number, hole: 'across' | 'down'): Int32Array {
  let sizes = sprites.bySize[number]
  if (!sizes) { sizes = new Map(); sprites.bySize[number] = sizes }
  const key = w * 4096 + h
  let pixels = sizes.get(key)
  if (!pixels) {
    const bead = sprites.tray.find(b => b.number === number)
    const { options } = sprites
    const glyphs = options.glyphs && Math.min(w, h) >= GLYPH_PX
    pixels = bead ? beadPixels(lookOf(bead, { ...options, glyphs }), options.ground, w, h, hole) : emptyPixels(options.ground, w, h)
    sizes.set(key, pixels)
  }
  return pixels
}

/** The lattice as it lies on the screen: i to the right, j down. */
export const latticeOnScreen = (part: Part, lie: Lie): Lattice => (lie === 'along' ? latticeAlong(part) : latticeOf(part))

/** Size of the whole work on the screen, px. */
export function sizeOnScreen(part: Part, { lie, scale }: Pick<View, 'lie' | 'scale'>): { width: number, height: number } {
  const lattice = latticeOf(part)
  const half = Math.max(...lattice.sites.map(s => s.dy))
  const across = (2 * lattice.originX + (columnsOf(part) - 1) * lattice.pitchX) * scale
  const along = (rowsOf(part) * lattice.pitchY + half) * scale
  return lie === 'along' ? { width: along, height: across } : { width: across, height: along }
}

/** Which cells can show in a rectangle of the screen, a margin of one included; counts of i and j on the screen. */
function visibleRange(lattice: Lattice, view: View, rect: PixelRect, countI: number, countJ: number, step: number) {
  // From afar every step-th bead stands for its neighbours: always the same ones, whichever part is painted.
  const aligned = (index: number) => Math.max(0, index - (step - 1) - (((index - (step - 1)) % step) + step) % step)
  const low = (px: number, origin: number, pitch: number, reach: number) => Math.floor((px / view.scale - origin - reach) / pitch) - 1
  const high = (px: number, origin: number, pitch: number) => Math.ceil((px / view.scale - origin) / pitch) + 2
  const reachX = Math.max(...lattice.sites.map(s => s.dx)) + lattice.beadX / 2
  const reachY = Math.max(...lattice.sites.map(s => s.dy)) + lattice.beadY / 2
  return {
    i0: aligned(low(rect.x - view.x, lattice.originX, lattice.pitchX, reachX)),
    i1: Math.min(countI, high(rect.x + rect.width - view.x, lattice.originX, lattice.pitchX)),
    j0: aligned(low(rect.y - view.y, lattice.originY, lattice.pitchY, reachY)),
    j1: Math.min(countJ, high(rect.y + rect.height - view.y, lattice.originY, lattice.pitchY)),
  }
}

/** Tray numbers of a window of the part, in screen order (j · count + i), every `step`-th. */
function readWindow(part: Part, lie: Lie, i0: number, i1: number, j0: number, j1: number, step: number): Uint16Array {
  const ni = Math.ceil((i1 - i0) / step)
  const nj = Math.ceil((j1 - j0) / step)
  const out = new Uint16Array(ni * nj)
  if (lie === 'down') {
    for (let j = 0; j < nj; j++) {
      const row = partRow(part, j0 + j * step)
      for (let i = 0; i < ni; i++) out[j * ni + i] = row[i0 + i * step]!
    }
  }
  else {
    for (let i = 0; i < ni; i++) {
      const row = partRow(part, i0 + i * step)
      for (let j = 0; j < nj; j++) out[j * ni + i] = row[j0 + j * step]!
    }
  }
  return out
}

function fillGround(surface: Surface, rect: PixelRect, view: View, tile: Int32Array): void {
  const { width, pixels } = surface
  const shiftX = ((Math.round(-view.x) % NAP_WIDTH) + NAP_WIDTH) % NAP_WIDTH
  const shiftY = ((Math.round(-view.y) % NAP_HEIGHT) + NAP_HEIGHT) % NAP_HEIGHT
  for (let y = rect.y; y < rect.y + rect.height; y++) {
    const row = ((y + shiftY) % NAP_HEIGHT) * NAP_WIDTH
    let x = rect.x
    while (x < rect.x + rect.width) {
      const from = (x + shiftX) % NAP_WIDTH
      const length = Math.min(NAP_WIDTH - from, rect.x + rect.width - x)
      pixels.set(tile.subarray(row + from, row + from + length), y * width + x)
      x += length
    }
  }
}

/** Left and right (or upper and lower) pixel edges of count cells for each site class: [class][2 · k], shared so that beads tile. */
function edges(from: number, count: number, step: number, classes: number, edge: (index: number, cls: number) => [number, number]): Int32Array {
  const out = new Int32Array(classes * count * 2)
  for (let cls = 0; cls < classes; cls++) {
    for (let k = 0; k < count; k++) {
      const [a, b] = edge(from + k * step, cls)
      out[(cls * count + k) * 2] = a
      out[(cls * count + k) * 2 + 1] = b
    }
  }
  return out
}

/** Copies one sprite, clipped to the rectangle x0 … x1, y0 … y1. */
function stamp(pixels: Int32Array, width: number, sprite: Int32Array, sw: number, x: number, y: number, cx0: number, cx1: number, cy0: number, cy1: number): void {
  for (let py = cy0; py < cy1; py++) {
    let from = (py - y) * sw + (cx0 - x)
    let to = py * width + cx0
    const end = py * width + cx1
    while (to < end) pixels[to++] = sprite[from++]!
  }
}

/**
 * Paints a rectangle of the screen: ground, then every bead that shows in it. Cost follows the pixels and the visible beads,
 * not the size of the work. Returns how many beads were drawn.
 */
export function paint(surface: Surface, rect: PixelRect, part: Part, view: View, sprites: Sprites): number {
  const { width, height } = surface
  const clip = { x0: Math.max(0, rect.x), y0: Math.max(0, rect.y), x1: Math.min(width, rect.x + rect.width), y1: Math.min(height, rect.y + rect.height) }
  if (clip.x1 <= clip.x0 || clip.y1 <= clip.y0) return 0
  fillGround(surface, { x: clip.x0, y: clip.y0, width: clip.x1 - clip.x0, height: clip.y1 - clip.y0 }, view, sprites.tile)

  const lattice = latticeOnScreen(part, view.lie)
  const [countI, countJ] = view.lie === 'along' ? [rowsOf(part), columnsOf(part)] : [columnsOf(part), rowsOf(part)]
  const pitchPx = Math.min(lattice.pitchX, lattice.pitchY) * view.scale
  const detailed = pitchPx >= DETAIL_PX
  const step = pitchPx >= 2 ? 1 : Math.max(1, Math.ceil(2 / pitchPx))
  const { i0, i1, j0, j1 } = visibleRange(lattice, view, rect, countI, countJ, step)
  if (i1 <= i0 || j1 <= j0) return 0
  const ni = Math.ceil((i1 - i0) / step)
  const nj = Math.ceil((j1 - j0) / step)
  const numbers = readWindow(part, view.lie, i0, i1, j0, j1, step)
  const { period, sites } = lattice
  const spreadX = (step - 1) * lattice.pitchX
  const spreadY = (step - 1) * lattice.pitchY
  const edgesX = edges(i0, ni, step, period.rows, (i, cls) => {
    const site = sites[cls * period.columns + (i % period.columns)]!
    const left = lattice.originX + i * lattice.pitchX + site.dx - lattice.beadX / 2
    return [Math.round(view.x + left * view.scale), Math.round(view.x + (left + lattice.beadX + spreadX) * view.scale)]
  })
  const edgesY = edges(j0, nj, step, period.columns, (j, cls) => {
    const site = sites[(j % period.rows) * period.columns + cls]!
    const top = lattice.originY + j * lattice.pitchY + site.dy - lattice.beadY / 2
    return [Math.round(view.y + top * view.scale), Math.round(view.y + (top + lattice.beadY + spreadY) * view.scale)]
  })
  const field: Field = { i0, j0, ni, nj, step, numbers, edgesX, edgesY, period, clip }
  if (detailed) return paintSprites(surface, field, sprites, lattice.hole === 'across' ? 'across' : 'down')
  // Lines of beads that lie level and without gaps are painted a line of pixels at a time.
  const level = period.columns === 1 && lattice.beadX >= lattice.pitchX - 1e-9
  return level ? paintLevel(surface, field, sprites.means) : paintFlat(surface, field, sprites.means, 0, nj)
}

/** The beads that show, and where: what both ways of painting go through. */
interface Field {
  readonly i0: number
  readonly j0: number
  readonly ni: number
  readonly nj: number
  readonly step: number
  readonly numbers: Uint16Array
  readonly edgesX: Int32Array
  readonly edgesY: Int32Array
  readonly period: Lattice['period']
  readonly clip: { readonly x0: number, readonly y0: number, readonly x1: number, readonly y1: number }
}

function paintSprites({ width, pixels }: Surface, { i0, j0, ni, nj, step, numbers, edgesX, edgesY, period, clip }: Field, sprites: Sprites, hole: 'across' | 'down'): number {
  const { x0, y0, x1, y1 } = clip
  let drawn = 0
  for (let j = 0; j < nj; j++) {
    const rowX = ((j0 + j * step) % period.rows) * ni
    for (let i = 0; i < ni; i++) {
      const ex = (rowX + i) * 2
      const ey = (((i0 + i * step) % period.columns) * nj + j) * 2
      const x = edgesX[ex]!
      const y = edgesY[ey]!
      const right = edgesX[ex + 1]!
      const bottom = edgesY[ey + 1]!
      if (right <= x0 || x >= x1 || bottom <= y0 || y >= y1 || right <= x || bottom <= y) continue
      stamp(pixels, width, spriteFor(sprites, numbers[j * ni + i]!, right - x, bottom - y, hole), right - x, x, y, x > x0 ? x : x0, right < x1 ? right : x1, y > y0 ? y : y0, bottom < y1 ? bottom : y1)
      drawn++
    }
  }
  return drawn
}

/** Lines `from` … `to` of beads as rectangles of their mean colours. */
function paintFlat({ width, pixels }: Surface, { i0, j0, ni, nj, step, numbers, edgesX, edgesY, period, clip }: Field, means: Int32Array, from: number, to: number): number {
  const { x0, y0, x1, y1 } = clip
  let drawn = 0
  for (let j = from; j < to; j++) {
    const rowX = ((j0 + j * step) % period.rows) * ni
    for (let i = 0; i < ni; i++) {
      const number = numbers[j * ni + i]!
      const ex = (rowX + i) * 2
      const ey = (((i0 + i * step) % period.columns) * nj + j) * 2
      const x = edgesX[ex]!
      const y = edgesY[ey]!
      const right = edgesX[ex + 1]!
      const bottom = edgesY[ey + 1]!
      if (number === 0 || right <= x0 || x >= x1 || bottom <= y0 || y >= y1) continue
      const colour = means[number]!
      const left = x > x0 ? x : x0
      const end = right < x1 ? right : x1
      const last = bottom < y1 ? bottom : y1
      for (let py = y > y0 ? y : y0; py < last; py++) {
        for (let at = py * width + left, stop = py * width + end; at < stop; at++) pixels[at] = colour
      }
      drawn++
    }
  }
  return drawn
}

/** The same, for lines that lie level: one line of pixels is filled and then copied down. Lines with empty places are painted bead by bead. */
function paintLevel(surface: Surface, field: Field, means: Int32Array): number {
  const { width, pixels } = surface
  const { j0, ni, nj, step, numbers, edgesX, edgesY, period, clip } = field
  let drawn = 0
  for (let j = 0; j < nj; j++) {
    const line = numbers.subarray(j * ni, (j + 1) * ni)
    if (line.includes(0)) { drawn += paintFlat(surface, field, means, j, j + 1); continue }
    const top = Math.max(clip.y0, edgesY[2 * j]!)
    const bottom = Math.min(clip.y1, edgesY[2 * j + 1]!)
    if (bottom <= top) continue
    const rowX = ((j0 + j * step) % period.rows) * ni * 2
    const base = top * width
    for (let i = 0; i < ni; i++) {
      const x = edgesX[rowX + 2 * i]!
      const right = edgesX[rowX + 2 * i + 1]!
      const colour = means[line[i]!]!
      for (let at = x > clip.x0 ? x : clip.x0, stop = right < clip.x1 ? right : clip.x1; at < stop; at++) pixels[base + at] = colour
    }
    const left = Math.max(clip.x0, edgesX[rowX]!)
    const end = Math.min(clip.x1, edgesX[rowX + 2 * ni - 1]!)
    for (let y = top + 1; y < bottom && left < end; y++) pixels.copyWithin(y * width + left, base + left, base + end)
    drawn += ni
  }
  return drawn
}

/** The pixel rectangle that a cell covers, for repainting it alone. */
export function rectOfCell(part: Part, view: View, c: number, r: number): PixelRect {
  const lattice = latticeOnScreen(part, view.lie)
  const [i, j] = view.lie === 'along' ? [r, c] : [c, r]
  const site = lattice.sites[(j % lattice.period.rows) * lattice.period.columns + (i % lattice.period.columns)]!
  const left = view.x + (lattice.originX + i * lattice.pitchX + site.dx - lattice.beadX / 2) * view.scale
  const top = view.y + (lattice.originY + j * lattice.pitchY + site.dy - lattice.beadY / 2) * view.scale
  const x = Math.floor(left)
  const y = Math.floor(top)
  return { x, y, width: Math.ceil(left + lattice.beadX * view.scale) - x + 1, height: Math.ceil(top + lattice.beadY * view.scale) - y + 1 }
}
