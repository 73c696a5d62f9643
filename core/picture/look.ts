import type { Finish, TrayBead } from '../bead/bead'
import { glyphDistance } from '../bead/glyph'
import { requireSpec, type BeadShape } from '../bead/spec'
import { inkOn, rgbOf, type Rgb } from '../colour/colour'

/** How one bead looks; the renderer makes its pixels from this once for each size and keeps them. */
export interface BeadLook {
  readonly colour: Rgb
  readonly finish: Finish
  readonly shape: BeadShape
  /** Drawn on the bead in its ink, or null for none. */
  readonly glyph: { readonly id: TrayBead['glyph'], readonly ink: Rgb } | null
}

export interface LookOptions {
  /** What lies under the beads: seen through transparent ones and between them. */
  readonly ground: Rgb
  readonly glyphs: boolean
}

export function lookOf(bead: TrayBead, { glyphs }: LookOptions): BeadLook {
  return { colour: rgbOf(bead.colour), finish: bead.finish, shape: requireSpec(bead.spec).shape, glyph: glyphs ? { id: bead.glyph, ink: rgbOf(inkOn(bead.colour)) } : null }
}

/**
 * One pixel as the canvas stores it: bytes R, G, B, A in memory order on little-endian machines. Signed, because engines copy
 * 32-bit integers several times faster than unsigned ones, which they hold as floating point.
 */
export const pack = (r: number, g: number, b: number, a = 255): number =>
  ((a << 24) | (clampByte(b) << 16) | (clampByte(g) << 8) | clampByte(r))

const clampByte = (v: number): number => (v < 0 ? 0 : v > 255 ? 255 : Math.round(v))

const mix = (a: number, b: number, t: number): number => a + (b - a) * t

/** Roundness of the outline: 0 square, 1 as round as it can be. */
const CORNER: Record<BeadShape, number> = { 'cylinder': 0.42, 'round': 0.95, 'hex-cut': 0.24, 'cube': 0.14, 'bugle': 0.16 }

interface Surface {
  /** How strongly the body is shaded toward its edges. */
  readonly depth: number
  readonly shine: number
  readonly narrow: number
  /** Share of the ground seen through the middle. */
  readonly clear: number
}

const SURFACE: Record<Finish, Surface> = {
  opaque: { depth: 0.42, shine: 0.38, narrow: 5, clear: 0 },
  matte: { depth: 0.26, shine: 0, narrow: 1, clear: 0 },
  lustre: { depth: 0.34, shine: 0.5, narrow: 2.2, clear: 0 },
  metallic: { depth: 0.6, shine: 0.8, narrow: 8, clear: 0 },
  transparent: { depth: 0.22, shine: 0.55, narrow: 7, clear: 0.26 },
  lined: { depth: 0.25, shine: 0.5, narrow: 6, clear: 0.3 },
  rainbow: { depth: 0.45, shine: 0.45, narrow: 4, clear: 0 },
}

/** Colour of the body at v (−1 … 1 across, light from −1) and u (−1 … 1 along the hole). */
function shade(look: BeadLook, ground: Rgb, u: number, v: number): [number, number, number] {
  const { colour, finish } = look
  const { depth, shine, narrow, clear } = SURFACE[finish]
  let { r, g, b } = colour
  const round = Math.sqrt(Math.max(0, 1 - v * v))
  const end = Math.abs(u) ** 5

  if (finish === 'rainbow') {
    const phase = v * 2.6 + u * 0.6
    r += 46 * Math.sin(phase)
    g += 40 * Math.sin(phase + 2.1)
    b += 50 * Math.sin(phase + 4.2)
  }
  if (clear > 0) {
    const through = clear * round * (finish === 'lined' ? Math.min(1, Math.abs(v) * 1.8) : 1)
    r = mix(r, ground.r, through)
    g = mix(g, ground.g, through)
    b = mix(b, ground.b, through)
    if (finish === 'lined') {
      // The lining shows as a saturated core along the hole, the glass around it is pale.
      const shell = Math.min(1, Math.max(0, Math.abs(v) - 0.3) * 1.6)
      r = mix(r, 245, 0.4 * shell)
      g = mix(g, 245, 0.4 * shell)
      b = mix(b, 245, 0.4 * shell)
    }
    else {
      // Light gathers on the far side of clear glass; the hole is a darker line.
      const glow = 0.3 * Math.max(0, v) * round
      r = mix(r, 255, glow); g = mix(g, 255, glow); b = mix(b, 255, glow)
      const line = 1 - 0.07 * Math.exp(-(v * v) * 30)
      r *= line; g *= line; b *= line
    }
  }
  let light = 1 - depth * (1 - round) - 0.22 * end - 0.16 * v
  if (finish === 'metallic') light -= 0.2 * Math.exp(-((v - 0.4) ** 2) * 5)
  r *= light; g *= light; b *= light
  const spot = shine * Math.exp(-((v + 0.42) ** 2) * narrow * 2.6) * (1 - end) * (1 - 0.35 * u * u)
  return [mix(r, 255, spot), mix(g, 255, spot), mix(b, 255, spot)]
}

/** Distance in px to the outline of the bead, negative inside. */
function outline(x: number, y: number, w: number, h: number, corner: number): number {
  const radius = corner * Math.min(w, h) / 2
  const dx = Math.abs(x) - (w / 2 - radius)
  const dy = Math.abs(y) - (h / 2 - radius)
  return Math.hypot(Math.max(dx, 0), Math.max(dy, 0)) + Math.min(Math.max(dx, dy), 0) - radius
}

/**
 * Pixels of one bead, w × h, opaque: what shows of the ground at its corners is in them, darkened as the bead shades it.
 * `hole`: which way the hole runs on the screen.
 */
export function beadPixels(look: BeadLook, ground: Rgb, w: number, h: number, hole: 'across' | 'down'): Int32Array {
  const out = new Int32Array(w * h)
  const gap = Math.min(0.5, 0.035 * Math.min(w, h))
  const corner = CORNER[look.shape]
  const shadow = 0.72
  const size = Math.min(w, h) * 0.62
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const px = x + 0.5 - w / 2
      const py = y + 0.5 - h / 2
      const away = outline(px, py, w - 2 * gap, h - 2 * gap, corner)
      const cover = Math.max(0, Math.min(1, 0.5 - away))
      const across = hole === 'across'
      const v = Math.max(-1, Math.min(1, (across ? py / (h / 2) : px / (w / 2))))
      const u = Math.max(-1, Math.min(1, (across ? px / (w / 2) : py / (h / 2))))
      let [r, g, b] = shade(look, ground, u, v)
      if (look.glyph) {
        const d = glyphDistance(look.glyph.id, px / size + 0.5, py / size + 0.5) * size
        const ink = Math.max(0, Math.min(1, 0.5 - d)) * 0.92
        r = mix(r, look.glyph.ink.r, ink); g = mix(g, look.glyph.ink.g, ink); b = mix(b, look.glyph.ink.b, ink)
      }
      out[y * w + x] = pack(mix(ground.r * shadow, r, cover), mix(ground.g * shadow, g, cover), mix(ground.b * shadow, b, cover))
    }
  }
  return out
}

/**
 * Pixels of one bead of its own size, turned in its box of w × h: premultiplied by nothing, alpha says how far it covers, and a
 * thin shadow lies round it. `across` × `along`: its size before turning, px.
 */
export function turnedPixels(look: BeadLook, ground: Rgb, w: number, h: number, across: number, along: number, turnDegrees: number, hole: 'across' | 'down'): Int32Array {
  const out = new Int32Array(w * h)
  const turn = turnDegrees * Math.PI / 180
  const cos = Math.cos(turn)
  const sin = Math.sin(turn)
  const gap = Math.min(0.6, 0.035 * Math.min(across, along))
  const corner = Math.min(1, CORNER[look.shape] * 1.15)
  const size = Math.min(across, along) * 0.62
  const soft = Math.max(0.8, 0.09 * Math.min(across, along))
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const px = x + 0.5 - w / 2
      const py = y + 0.5 - h / 2
      const bx = px * cos + py * sin
      const by = py * cos - px * sin
      const away = outline(bx, by, across - 2 * gap, along - 2 * gap, corner)
      const cover = Math.max(0, Math.min(1, 0.5 - away))
      const shadow = 0.34 * Math.max(0, 1 - Math.max(0, away) / soft)
      const alpha = cover + (1 - cover) * shadow
      if (alpha <= 0.004) continue
      const isAcross = hole === 'across'
      const v = Math.max(-1, Math.min(1, isAcross ? by / (along / 2) : bx / (across / 2)))
      const u = Math.max(-1, Math.min(1, isAcross ? bx / (across / 2) : by / (along / 2)))
      let [r, g, b] = shade(look, ground, u, v)
      if (look.glyph) {
        const d = glyphDistance(look.glyph.id, px / size + 0.5, py / size + 0.5) * size
        const ink = Math.max(0, Math.min(1, 0.5 - d)) * 0.92
        r = mix(r, look.glyph.ink.r, ink); g = mix(g, look.glyph.ink.g, ink); b = mix(b, look.glyph.ink.b, ink)
      }
      const share = cover / alpha
      out[y * w + x] = pack(mix(ground.r * 0.35, r, share), mix(ground.g * 0.35, g, share), mix(ground.b * 0.35, b, share), Math.round(alpha * 255))
    }
  }
  return out
}

/** An empty place of a turned bead: a faint dimple. */
export function turnedEmpty(ground: Rgb, w: number, h: number, across: number, along: number, turnDegrees: number): Int32Array {
  const out = new Int32Array(w * h)
  const turn = turnDegrees * Math.PI / 180
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const px = x + 0.5 - w / 2
      const py = y + 0.5 - h / 2
      const away = outline(px * Math.cos(turn) + py * Math.sin(turn), py * Math.cos(turn) - px * Math.sin(turn), across * 0.72, along * 0.72, 0.6)
      const cover = Math.max(0, Math.min(1, 0.5 - away)) * 0.15
      if (cover > 0) out[y * w + x] = pack(ground.r * 0.1, ground.g * 0.1, ground.b * 0.1, Math.round(cover * 255))
    }
  }
  return out
}

/** A dimple in the mat where no bead lies. */
export function emptyPixels(ground: Rgb, w: number, h: number): Int32Array {
  const out = new Int32Array(w * h)
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const away = outline(x + 0.5 - w / 2, y + 0.5 - h / 2, w * 0.72, h * 0.72, 0.6)
      const cover = Math.max(0, Math.min(1, 0.5 - away)) * 0.13
      out[y * w + x] = pack(ground.r * (1 - cover), ground.g * (1 - cover), ground.b * (1 - cover))
    }
  }
  return out
}

/** The colour of a bead from afar: the mean of its pixels. */
export function meanPixel(look: BeadLook, ground: Rgb): number {
  const pixels = beadPixels({ ...look, glyph: null }, ground, 9, 9, 'across')
  let r = 0
  let g = 0
  let b = 0
  for (const p of pixels) { r += p & 255; g += (p >> 8) & 255; b += (p >> 16) & 255 }
  return pack(r / pixels.length, g / pixels.length, b / pixels.length)
}
