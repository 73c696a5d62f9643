import { encode } from 'fast-png'
import type { TrayBead } from '../bead/bead'
import { rgbOf } from '../colour/colour'
import type { Part } from '../piece/piece'
import { partsWith } from '../piece/joint'
import { makeSprites } from './sprite'
import type { Lying } from './view'
import { boxOfWhole, paintWhole, wholeOf } from './whole'

interface PictureOptions extends Lying {
  /** Pixels a millimetre. */
  readonly scale: number
  readonly ground: string
  readonly glyphs: boolean
  /** Border round the work, px. */
  readonly margin: number
  /** Parts of the piece: what of them hangs together with the part is drawn too. */
  readonly parts?: readonly Part[]
  /** The picture is at least so large, px. */
  readonly least?: { readonly width: number; readonly height: number }
  /** Cuts the picture off after this many px. */
  readonly most?: { readonly width: number; readonly height: number }
}

/** The part as a PNG (ISO/IEC 15948), drawn as on the mat; with `parts`, all that hangs together with it. */
export function pictureOf(
  part: Part,
  tray: readonly TrayBead[],
  { lie, flip, scale, ground, glyphs, margin, least, most, parts = [part] }: PictureOptions,
): Uint8Array {
  const lying = { lie, ...(flip ? { flip } : {}) }
  const whole = wholeOf(partsWith(parts, part))
  const box = boxOfWhole(whole, part, { ...lying, scale, x: 0, y: 0 })
  const [across, down] = [Math.ceil(box.width), Math.ceil(box.height)]
  const side = (work: number, least = 1, most = Infinity) => Math.min(most, Math.max(least, work + 2 * margin))
  const width = side(across, least?.width, most?.width)
  const height = side(down, least?.height, most?.height)
  // What is smaller than the picture lies in its middle.
  const beginAt = (room: number, work: number) => Math.max(margin, Math.floor((room - work) / 2))
  const surface = { width, height, pixels: new Int32Array(width * height) }
  const sprites = makeSprites(tray, scale, { ground: rgbOf(ground), glyphs, nap: 0, bare: whole.placed.length > 1 })
  const view = { ...lying, scale, x: beginAt(width, across) - box.x, y: beginAt(height, down) - box.y }
  paintWhole(surface, { x: 0, y: 0, width, height }, { part, view, whole }, sprites, sprites)
  return encode({ width, height, channels: 4, depth: 8, data: new Uint8Array(surface.pixels.buffer) })
}
