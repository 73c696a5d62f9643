import type { TrayBead } from '../bead/bead'
import { requireSpec } from '../bead/spec'
import type { Part } from '../piece/piece'
import { freeOf, usualBead } from '../piece/drawing'
import type { Rgb } from '../colour/colour'
import { beadPixels, emptyPixels, lookOf, meanPixel, pack, turnedEmpty, turnedPixels } from './look'

/** From this many pixels on there is room for a glyph. */
export const GLYPH_PX = 13

export interface PaintOptions {
  readonly ground: Rgb
  readonly glyphs: boolean
  /** A nap of noise on the ground, 0 (flat) … about 6. */
  readonly nap: number
  /** Places without a bead are left as the ground, without a dimple: where nobody lays beads. */
  readonly bare?: boolean
}

/** Size of the tile of felt, px; wide, so that a line of the screen is a few copies. */
export const NAP_WIDTH = 512
export const NAP_HEIGHT = 128

/** A tile of felt: the ground with a fine, even noise. The same every time. */
function napTile({ ground, nap }: PaintOptions): Int32Array {
  const tile = new Int32Array(NAP_WIDTH * NAP_HEIGHT)
  let state = 0x9e3779b9
  for (let i = 0; i < tile.length; i++) {
    state ^= state << 13
    state ^= state >>> 17
    state ^= state << 5
    const noise = nap * ((state >>> 0) / 0xffffffff - 0.5) * 2
    tile[i] = pack(ground.r + noise, ground.g + noise, ground.b + noise)
  }
  return tile
}

/** What of a look does not depend on the scale: kept when only the scale changes. */
interface Far {
  readonly tile: Int32Array
  readonly means: Int32Array
}

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
  readonly options: PaintOptions
  readonly tile: Int32Array
  /** Mean colour by tray number. */
  readonly means: Int32Array
  /** Solid sprites by tray number and how the bead lies, then by size key. */
  readonly bySize: (Map<number, Int32Array> | undefined)[]
  /** See-through sprites by tray number and how the bead lies, then by size and turn. */
  readonly turned: (Map<number, Int32Array> | undefined)[]
}

/** Sprites for a scale; `before`, of the same tray and options, lends what does not depend on the scale. */
export function makeSprites(
  tray: readonly TrayBead[],
  scale: number,
  options: PaintOptions,
  before?: Sprites,
): Sprites {
  const { tile, means } = before ?? farLook(tray, options)
  return { tray, scale, options, tile, means, bySize: [], turned: [] }
}

/** Beads of a number that lie differently have pixels of their own: by the way of the hole, and of growth. */
const drawerOf = (number: number, hole: 'across' | 'down', way: 1 | -1): number =>
  number * 4 + (hole === 'down' ? 2 : 0) + (way > 0 ? 1 : 0)

/** A bead that fills its place on a straight or staggered lattice: solid, the ground at its corners included. */
export function solidSprite(
  sprites: Sprites,
  number: number,
  w: number,
  h: number,
  hole: 'across' | 'down',
  way: 1 | -1,
): Int32Array {
  const drawer = drawerOf(number, hole, way)
  let sizes = sprites.bySize[drawer]
  if (!sizes) {
    sizes = new Map()
    sprites.bySize[drawer] = sizes
  }
  const key = w * 4096 + h
  let pixels = sizes.get(key)
  if (!pixels) {
    const bead = sprites.tray.find((b) => b.number === number)
    const { options } = sprites
    const glyphs = options.glyphs && Math.min(w, h) >= GLYPH_PX
    pixels = bead
      ? beadPixels(lookOf(bead, { glyphs }, way), options.ground, w, h, hole)
      : emptyPixels(options.ground, w, h)
    sizes.set(key, pixels)
  }
  return pixels
}

/**
 * A bead of its own size, turned, with nothing round it: alpha says where it covers. `across` × `along` is the bead
 * before turning, px; w × h the box that it is drawn in.
 */
export function turnedSprite(
  sprites: Sprites,
  number: number,
  w: number,
  h: number,
  across: number,
  along: number,
  turnDegrees: number,
  hole: 'across' | 'down',
  way: 1 | -1,
  hanging = false,
): Int32Array {
  const drawer = drawerOf(number, hole, way)
  let sizes = sprites.turned[drawer]
  if (!sizes) {
    sizes = new Map()
    sprites.turned[drawer] = sizes
  }
  // Drawn at the turn by which it is found again: which of two beads came first must not be seen.
  const turn = Math.round(turnDegrees)
  const key = (w * 4096 + h) * 1024 + turn + 360
  let pixels = sizes.get(key)
  if (!pixels) {
    const bead = sprites.tray.find((b) => b.number === number)
    const { options } = sprites
    const glyphs = options.glyphs && Math.min(across, along) >= GLYPH_PX
    pixels = bead
      ? turnedPixels(lookOf(bead, { glyphs, hanging }, way), options.ground, w, h, across, along, turn, hole)
      : turnedEmpty(options.ground, w, h, across, along, turn)
    sizes.set(key, pixels)
  }
  return pixels
}

/** Size of a bead across and along its cell, mm, the hole lying as the lattice has it. */
export function ownSize(bead: TrayBead, hole: 'across' | 'along'): { readonly x: number; readonly y: number } {
  const { l, d } = requireSpec(bead.spec)
  return hole === 'across' ? { x: l, y: d } : { x: d, y: l }
}

/**
 * Size of a bead that lies freely, about the middle of its hole: one that hangs reaches as far above it as below,
 * though nothing of it is seen there.
 */
export function freeSize(bead: TrayBead, hole: 'across' | 'along'): { readonly x: number; readonly y: number } {
  const { l, d, hangs } = requireSpec(bead.spec)
  if (hangs === undefined) return ownSize(bead, hole)
  const tall = 2 * (hangs - l / 2)
  return hole === 'across' ? { x: d, y: tall } : { x: tall, y: d }
}

/** How much larger than its place the largest bead of the tray is: 1 if all fill theirs. */
export function largestGrowth(tray: readonly TrayBead[], part: Part): number {
  const { beadX, beadY, hole } = usualBead(part)
  let grow = 1
  for (const bead of tray) {
    if (bead.spec === part.spec) continue
    const { x, y } = freeOf(part) ? freeSize(bead, hole) : ownSize(bead, hole)
    grow = Math.max(grow, x / beadX, y / beadY)
  }
  return grow
}
