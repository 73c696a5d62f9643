import { keyOf } from '../grid/key'
import { LINEAR } from '../colour/spaces'
import { beadCentre, type Lattice, type Lie, type Box } from '../technique/lattice'

/** Decoded pixels, RGBA bytes, row-major. */
export interface Pixels {
  readonly width: number
  readonly height: number
  readonly data: Uint8ClampedArray | Uint8Array
}

/** The part of a picture that is used, in its own pixels, after turning. */
export interface Crop {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

export interface SampleWish {
  readonly box: Box
  /**
   * How the work lies while the picture lies over it: level, the picture's x runs with the length; upright, its y runs
   * against it.
   */
  readonly lie: Lie
  readonly crop: Crop
  /** −1 … 1, 0 as it is. */
  readonly brightness: number
  readonly contrast: number
}

/** Pixels turned by quarters, clockwise. */
export function turned({ width, height, data }: Pixels, quarters: number): Pixels {
  const q = ((quarters % 4) + 4) % 4
  if (q === 0) return { width, height, data }
  const from = new Uint32Array(data.buffer, data.byteOffset, width * height)
  const out = new Uint32Array(width * height)
  const [w, h] = q === 2 ? [width, height] : [height, width]
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const to = q === 1 ? x * w + (w - 1 - y) : q === 2 ? (h - 1 - y) * w + (w - 1 - x) : (h - 1 - x) * w + y
      out[to] = from[y * width + x]!
    }
  }
  return { width: w, height: h, data: new Uint8ClampedArray(out.buffer) }
}

/** Room that a box of cells takes, mm: where its beads begin and end on both axes of the work. */
function roomOf(
  lattice: Lattice,
  box: Box,
): { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number } {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  // The outermost beads lie within one period of the corners.
  const near = (from: number, count: number, period: number) =>
    Array.from({ length: Math.min(count, period) }, (_, k) => [from + k, from + count - 1 - k]).flat()
  for (const c of near(box.c, box.columns, Math.min(lattice.period.columns, 64))) {
    for (const r of near(box.r, box.rows, lattice.period.rows)) {
      const { x, y } = beadCentre(lattice, c, r)
      x0 = Math.min(x0, x - lattice.pitchX / 2)
      x1 = Math.max(x1, x + lattice.pitchX / 2)
      y0 = Math.min(y0, y - lattice.pitchY / 2)
      y1 = Math.max(y1, y + lattice.pitchY / 2)
    }
  }
  return { x0, y0, x1, y1 }
}

/** Width to height that a crop should have, so that nothing is stretched. */
export function proportionOf(lattice: Lattice, box: Box, lie: Lie): number {
  const { x0, y0, x1, y1 } = roomOf(lattice, box)
  return lie === 'level' ? (y1 - y0) / (x1 - x0) : (x1 - x0) / (y1 - y0)
}

/** The largest crop of that proportion in the middle of a picture. */
export function middleCrop({ width, height }: Pick<Pixels, 'width' | 'height'>, proportion: number): Crop {
  const w = Math.min(width, height * proportion)
  const h = w / proportion
  return { x: (width - w) / 2, y: (height - h) / 2, width: w, height: h }
}

/**
 * Mean colour of a picture under each cell of a box, linear sRGB, three numbers a cell, row-major; where less than
 * half of a cell is opaque, −1. Each cell takes the pixels under its own place, staggered or not, in its true
 * proportion.
 */
export function sampleCells(
  pixels: Pixels,
  lattice: Lattice,
  { box, lie, crop, brightness, contrast }: SampleWish,
  progress: (share: number) => void = () => {},
): Float32Array {
  const { x0, y0, x1, y1 } = roomOf(lattice, box)
  const out = new Float32Array(box.columns * box.rows * 3)
  const { width, height, data } = pixels
  const [spanX, spanY] = lie === 'level' ? [y1 - y0, x1 - x0] : [x1 - x0, y1 - y0]
  const perX = crop.width / spanX
  const perY = crop.height / spanY
  const [cellX, cellY] = lie === 'level' ? [lattice.pitchY, lattice.pitchX] : [lattice.pitchX, lattice.pitchY]
  // Brightness and contrast work on levels; a table says what each level becomes in linear light.
  const gain = contrast >= 0 ? 1 + 2 * contrast : 1 + contrast
  const table = Float64Array.from(
    { length: 256 },
    (_, v) => LINEAR[Math.max(0, Math.min(255, Math.round((v - 128) * gain + 128 + 128 * brightness)))]!,
  )
  for (let r = 0; r < box.rows; r++) {
    if (r % 64 === 0) progress(r / box.rows)
    for (let c = 0; c < box.columns; c++) {
      const centre = beadCentre(lattice, box.c + c, box.r + r)
      const [a, b] = lie === 'level' ? [centre.y - y0, centre.x - x0] : [centre.x - x0, y1 - centre.y]
      const left = Math.max(0, Math.min(width - 1, Math.round(crop.x + (a - cellX / 2) * perX)))
      const right = Math.max(left + 1, Math.min(width, Math.round(crop.x + (a + cellX / 2) * perX)))
      const top = Math.max(0, Math.min(height - 1, Math.round(crop.y + (b - cellY / 2) * perY)))
      const bottom = Math.max(top + 1, Math.min(height, Math.round(crop.y + (b + cellY / 2) * perY)))
      let [red, green, blue, weight] = [0, 0, 0, 0]
      for (let y = top; y < bottom; y++) {
        for (let at = (y * width + left) * 4, end = (y * width + right) * 4; at < end; at += 4) {
          const alpha = data[at + 3]!
          red += table[data[at]!]! * alpha
          green += table[data[at + 1]!]! * alpha
          blue += table[data[at + 2]!]! * alpha
          weight += alpha
        }
      }
      const to = 3 * keyOf(box.columns, c, r)
      if (weight < 127.5 * (right - left) * (bottom - top)) {
        out[to] = -1
        out[to + 1] = -1
        out[to + 2] = -1
      } else {
        out[to] = red / weight
        out[to + 1] = green / weight
        out[to + 2] = blue / weight
      }
    }
  }
  return out
}
