import { encode } from 'fast-png'
import type { TrayBead } from '../bead/bead'
import { rgbOf } from '../colour/colour'
import type { Part } from '../piece/piece'
import { paint } from './raster'
import { makeSprites } from './sprite'
import { sizeOnScreen, type Lie } from './view'

interface PictureOptions {
  readonly lie: Lie
  /** Pixels a millimetre. */
  readonly scale: number
  readonly ground: string
  readonly glyphs: boolean
  /** Border round the work, px. */
  readonly margin: number
  /** Cuts the picture off after this many px of length. */
  readonly most?: { readonly width: number; readonly height: number }
}

/** The part as a PNG (ISO/IEC 15948), drawn as on the mat. */
export function pictureOf(
  part: Part,
  tray: readonly TrayBead[],
  { lie, scale, ground, glyphs, margin, most }: PictureOptions,
): Uint8Array {
  const size = sizeOnScreen(part, { lie, scale })
  const width = Math.max(1, Math.min(most?.width ?? Infinity, Math.ceil(size.width) + 2 * margin))
  const height = Math.max(1, Math.min(most?.height ?? Infinity, Math.ceil(size.height) + 2 * margin))
  const surface = { width, height, pixels: new Int32Array(width * height) }
  const sprites = makeSprites(tray, scale, lie, { ground: rgbOf(ground), glyphs, nap: 0 })
  paint(surface, { x: 0, y: 0, width, height }, part, { lie, scale, x: margin, y: margin }, sprites)
  return encode({ width, height, channels: 4, depth: 8, data: new Uint8Array(surface.pixels.buffer) })
}
