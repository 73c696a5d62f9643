import type { TrayBead } from '../bead/bead'
import type { Rgb } from '../colour/colour'
import { columnsOf, partRow, rowsOf, type Part } from '../piece/piece'
import { transpose, type Lattice } from '../technique/lattice'
import { latticeOf } from '../pattern/place'
import { beadPixels, emptyPixels, lookOf, meanPixel, pack } from './look'

/** A buffer of pixels, row-major, as a canvas stores them. */
export interface Surface { readonly width: number, readonly height: number, readonly pixels: Uint32Array }

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

const NAP = 128

/** A tile of felt: the ground with a fine, even noise. The same every time. */
export function napTile({ ground, nap }: PaintOptions): Uint32Array {
  const tile = new Uint32Array(NAP * NAP)
  let state = 0x9E3779B9
  for (let i = 0; i < tile.length; i++) {
    state ^= state << 13; state ^= state >>> 17; state ^= state << 5
    const noise = nap * (((state >>> 0) / 0xFFFFFFFF) - 0.5) * 2
    tile[i] = pack(ground.r + noise, ground.g + noise, ground.b + noise)
  }
  return tile
}

/** The sprites of a tray at one scale, made when first needed. */
export interface Sprites {
  readonly tray: readonly TrayBead[]
  readonly scale: number
  readonly lie: Lie
  readonly options: PaintOptions
  readonly tile: Uint32Array
  /** Mean colour by tray number. */
  readonly means: Uint32Array
  /** By tray number, then by size key. */
  readonly bySize: (Map<number, Uint32Array> | undefined)[]
}

export function makeSprites(tray: readonly TrayBead[], scale: number, lie: Lie, options: PaintOptions): Sprites {
  const most = tray.reduce((m, b) => Math.max(m, b.number), 0)
  const means = new Uint32Array(most + 1)
  means[0] = pack(options.ground.r * 0.96, options.ground.g * 0.96, options.ground.b * 0.96)
  for (const bead of tray) means[bead.number] = meanPixel(lookOf(bead, options), options.ground)
  return { tray, scale, lie, options, tile: napTile(options), means, bySize: [] }
}

function spriteFor(sprites: Sprites, number: number, w: number, h: number, hole: 'across' | 'down'): Uint32Array {
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
export const latticeOnScreen = (part: Part, lie: Lie): Lattice => (lie === 'along' ? transpose(latticeOf(part)) : latticeOf(part))

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

function fillGround(surface: Surface, rect: PixelRect, view: View, tile: Uint32Array): void {
  const { width, pixels } = surface
  const shiftX = ((Math.round(-view.x) % NAP) + NAP) % NAP
  const shiftY = ((Math.round(-view.y) % NAP) + NAP) % NAP
  for (let y = rect.y; y < rect.y + rect.height; y++) {
    const row = ((y + shiftY) % NAP) * NAP
    let x = rect.x
    while (x < rect.x + rect.width) {
      const from = (x + shiftX) % NAP
      const length = Math.min(NAP - from, rect.x + rect.width - x)
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
function stamp(pixels: Uint32Array, width: number, sprite: Uint32Array, sw: number, x: number, y: number, cx0: number, cx1: number, cy0: number, cy1: number): void {
  for (let py = cy0; py < cy1; py++) {
    let from = (py - y) * sw + (cx0 - x)
    let to = py * width + cx0
    const end = py * width + cx1
    while (to < end) pixels[to++] = sprite[from++]!
  }
}

function fillRect(pixels: Uint32Array, width: number, colour: number, x0: number, x1: number, y0: number, y1: number): void {
  for (let y = y0; y < y1; y++) {
    const end = y * width + x1
    for (let at = y * width + x0; at < end; at++) pixels[at] = colour
  }
}

/**
 * Paints a rectangle of the screen: ground, then every bead that shows in it. Cost follows the pixels and the visible beads,
 * not the size of the work. Returns how many beads were drawn.
 */
export function paint(surface: Surface, rect: PixelRect, part: Part, view: View, sprites: Sprites): number {
  const { width, height, pixels } = surface
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
  const hole = lattice.hole === 'across' ? 'across' : 'down'
  let drawn = 0
  for (let j = 0; j < nj; j++) {
    const classJ = (j0 + j * step) % period.rows
    for (let i = 0; i < ni; i++) {
      const ex = (classJ * ni + i) * 2
      const ey = (((i0 + i * step) % period.columns) * nj + j) * 2
      const x = edgesX[ex]!
      const y = edgesY[ey]!
      const right = edgesX[ex + 1]!
      const bottom = edgesY[ey + 1]!
      const cx0 = x > clip.x0 ? x : clip.x0
      const cx1 = right < clip.x1 ? right : clip.x1
      const cy0 = y > clip.y0 ? y : clip.y0
      const cy1 = bottom < clip.y1 ? bottom : clip.y1
      if (cx1 <= cx0 || cy1 <= cy0) continue
      const number = numbers[j * ni + i]!
      if (detailed) stamp(pixels, width, spriteFor(sprites, number, right - x, bottom - y, hole), right - x, x, y, cx0, cx1, cy0, cy1)
      else if (number !== 0) fillRect(pixels, width, sprites.means[number]!, cx0, cx1, cy0, cy1)
      drawn++
    }
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
