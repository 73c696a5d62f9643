import type { PixelRect } from './view'

/** A buffer of pixels, row-major, as a canvas stores them. */
export interface Surface {
  readonly width: number
  readonly height: number
  readonly pixels: Int32Array
}

/** Under this many pixels a bead is drawn as a plain rectangle of its mean colour. */
export const DETAIL_PX = 4

/** A rectangle of a surface, from its first pixel to the one behind its last. */
export interface Clip {
  readonly x0: number
  readonly y0: number
  readonly x1: number
  readonly y1: number
}

/** The part of a rectangle that lies on a surface; null if none does. */
export function clipOf({ width, height }: Surface, rect: PixelRect): Clip | null {
  const clip = {
    x0: Math.max(0, rect.x),
    y0: Math.max(0, rect.y),
    x1: Math.min(width, rect.x + rect.width),
    y1: Math.min(height, rect.y + rect.height),
  }
  return clip.x1 <= clip.x0 || clip.y1 <= clip.y0 ? null : clip
}

/** Copies one sprite, clipped to the rectangle x0 … x1, y0 … y1. */
export function stamp(
  pixels: Int32Array,
  width: number,
  sprite: Int32Array,
  sw: number,
  x: number,
  y: number,
  cx0: number,
  cx1: number,
  cy0: number,
  cy1: number,
): void {
  for (let py = cy0; py < cy1; py++) {
    let from = (py - y) * sw + (cx0 - x)
    let to = py * width + cx0
    const end = py * width + cx1
    while (to < end) pixels[to++] = sprite[from++]!
  }
}

/** Lays a see-through sprite over what is there, clipped to the rectangle. */
export function lay(
  pixels: Int32Array,
  width: number,
  sprite: Int32Array,
  sw: number,
  x: number,
  y: number,
  cx0: number,
  cx1: number,
  cy0: number,
  cy1: number,
): void {
  for (let py = cy0; py < cy1; py++) {
    let from = (py - y) * sw + (cx0 - x)
    let to = py * width + cx0
    const end = py * width + cx1
    for (; to < end; to++, from++) {
      const over = sprite[from]!
      const alpha = over >>> 24
      if (alpha === 0) continue
      if (alpha === 255) {
        pixels[to] = over
        continue
      }
      const under = pixels[to]!
      const rest = 255 - alpha
      const r = (((over & 255) * alpha + (under & 255) * rest + 127) / 255) | 0
      const g = ((((over >> 8) & 255) * alpha + ((under >> 8) & 255) * rest + 127) / 255) | 0
      const b = ((((over >> 16) & 255) * alpha + ((under >> 16) & 255) * rest + 127) / 255) | 0
      pixels[to] = (255 << 24) | (b << 16) | (g << 8) | r
    }
  }
}
