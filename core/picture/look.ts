import type { Finish, TrayBead } from '../bead/bead'
import { glyphDistance } from '../bead/glyph'
import { requireSpec, type BeadShape } from '../bead/spec'
import { inkOn, rgbOf, type Rgb } from '../colour/colour'

/** How one bead looks; the renderer makes its pixels from this once for each size and keeps them. */
interface BeadLook {
  readonly colour: Rgb
  readonly finish: Finish
  readonly shape: BeadShape
  /** How far each of two holes runs from the middle, as a share of half the bead; 0 for one hole in the middle. */
  readonly apart: number
  /**
   * Which way the work grows on the screen across the hole, 1 with the axis and −1 against it: shapes that have a
   * point turn with the work.
   */
  readonly way: 1 | -1
  /** Of a bead that hangs: how far above its hole it begins, as a share of how far below it ends; null of others. */
  readonly above: number | null
  /** Drawn on the bead in its ink, or null for none. */
  readonly glyph: { readonly id: TrayBead['glyph']; readonly ink: Rgb } | null
}

interface LookOptions {
  readonly glyphs: boolean
  /** Whether a bead that hangs is drawn so, about its hole; else it fills the place that it has on a grid. */
  readonly hanging?: boolean
}

export function lookOf(bead: TrayBead, { glyphs, hanging = false }: LookOptions, way: BeadLook['way'] = 1): BeadLook {
  const spec = requireSpec(bead.spec)
  return {
    colour: rgbOf(bead.colour),
    finish: bead.finish,
    shape: spec.shape,
    apart: spec.spacing === undefined ? 0 : spec.spacing / spec.d,
    way,
    above: hanging && spec.hangs !== undefined ? spec.l / 2 / (spec.hangs - spec.l / 2) : null,
    glyph: glyphs ? { id: bead.glyph, ink: rgbOf(inkOn(bead.colour)) } : null,
  }
}

/**
 * One pixel as the canvas stores it: bytes R, G, B, A in memory order on little-endian machines. Signed, because
 * engines copy 32-bit integers several times faster than unsigned ones, which they hold as floating point.
 */
export const pack = (r: number, g: number, b: number, a = 255): number =>
  (a << 24) | (clampByte(b) << 16) | (clampByte(g) << 8) | clampByte(r)

const clampByte = (v: number): number => (v < 0 ? 0 : v > 255 ? 255 : Math.round(v))

const mix = (a: number, b: number, t: number): number => a + (b - a) * t

/** Distance in px to a rounded rectangle about the middle, negative inside. */
function rounded(a: number, b: number, A: number, B: number, corner: number): number {
  const radius = corner * Math.min(A, B)
  const da = Math.abs(a) - (A - radius)
  const db = Math.abs(b) - (B - radius)
  return Math.hypot(Math.max(da, 0), Math.max(db, 0)) + Math.min(Math.max(da, db), 0) - radius
}

const ellipse: Outline = (a, b, A, B) => (Math.hypot(a / A, b / B) - 1) * Math.min(A, B)

/**
 * Signed distance, about, from a point to the outline of a shape: `a` along the hole, `b` across it, A and B the half
 * sizes; px.
 */
type Outline = (a: number, b: number, A: number, B: number) => number

const corners =
  (corner: number): Outline =>
  (a, b, A, B) =>
    rounded(a, b, A, B, corner)

const OUTLINES: Record<BeadShape, Outline> = {
  'cylinder': corners(0.42),
  'round': corners(0.95),
  'hex-cut': corners(0.24),
  'cube': corners(0.14),
  'bugle': corners(0.16),
  'tile': corners(0.26),
  'half-tile': corners(0.3),
  'drop': ellipse,
  'long-drop': ellipse,
  'ball': ellipse,
  'faceted': ellipse,
  'domed-duo': ellipse,
  'cord': corners(0.9),
  // Two cones base to base, their points cut off by the hole.
  'bicone': (a, b, A, B) => Math.max(Math.abs(a) - A, (Math.abs(b) / B + (0.66 * Math.abs(a)) / A - 1) * B * 0.84),
  'almond-duo': (a, b, A, B) => (Math.abs(a) / A + (b / B) ** 2 - 1) * A * 0.8,
  'triangle': (a, b, A, B) => Math.max(b - B, (Math.abs(a) / A - (b + B) / (2 * B)) * A * 0.87),
  'hexagon': (a, b, A, B) => Math.max(Math.abs(a) - A, (Math.abs(a) / A / 2 + Math.abs(b) / B - 1) * B * 0.87),
}

/** A drop about its hole: a narrow neck above, a ball below; B reaches from the hole to its lowest point. */
function dropped(a: number, b: number, A: number, B: number, above: number): number {
  const top = -B * above
  const ball = B - A
  const share = Math.max(0, Math.min(1, (b - top) / Math.max(1e-6, ball - top)))
  const wide = b >= ball ? Math.sqrt(Math.max(0, A * A - (b - ball) ** 2)) : A * (0.34 + 0.66 * share ** 1.2)
  return Math.max(top - b, (Math.abs(a) - wide) * 0.86, b - B)
}

/** Shapes whose light breaks on flat faces, and into how many. */
const FACETS: Partial<Record<BeadShape, number>> = { 'faceted': 2.5, 'bicone': 1.5, 'hex-cut': 1.5 }

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
function shade(look: BeadLook, ground: Rgb, u: number, across: number): [number, number, number] {
  const { colour, finish, apart } = look
  const facets = FACETS[look.shape]
  const v =
    facets === undefined
      ? across
      : Math.max(-1, Math.min(1, Math.round((across + (look.shape === 'hex-cut' ? 0 : 0.12) * u) * facets) / facets))
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
    } else {
      // Light gathers on the far side of clear glass; the hole is a darker line.
      const glow = 0.3 * Math.max(0, v) * round
      r = mix(r, 255, glow)
      g = mix(g, 255, glow)
      b = mix(b, 255, glow)
      const line = 1 - 0.07 * Math.exp(-(v * v) * 30)
      r *= line
      g *= line
      b *= line
    }
  }
  let light = 1 - depth * (1 - round) - 0.22 * end - 0.16 * v
  if (finish === 'metallic') light -= 0.2 * Math.exp(-((v - 0.4) ** 2) * 5)
  // Two holes show as dark mouths at both ends, and faintly through the bead.
  if (apart > 0) light *= 1 - (Math.abs(u) > 0.74 ? 0.55 : 0.1) * Math.exp(-(((Math.abs(v) - apart) / 0.13) ** 2))
  // The plies of a cord lie aslant.
  if (look.shape === 'cord') light *= 0.94 + 0.1 * Math.sin(8 * u + 3.2 * look.way * v)
  r *= light
  g *= light
  b *= light
  const spot = shine * Math.exp(-((v + 0.42) ** 2) * narrow * 2.6) * (1 - end) * (1 - 0.35 * u * u)
  return [mix(r, 255, spot), mix(g, 255, spot), mix(b, 255, spot)]
}

const bound = (v: number): number => Math.max(-1, Math.min(1, v))

/**
 * Colour of a bead at a point from its middle, glyph included: (x, y) upright for the glyph, (a, b) along and across
 * its hole, px.
 */
function coloured(
  look: BeadLook,
  ground: Rgb,
  a: number,
  b: number,
  A: number,
  B: number,
  x: number,
  y: number,
): [number, number, number] {
  const [r, g, blue] = shade(look, ground, bound(a / A), bound(b / B))
  if (!look.glyph) return [r, g, blue]
  const size = Math.min(A, B) * 1.24
  const d = glyphDistance(look.glyph.id, x / size + 0.5, y / size + 0.5) * size
  const ink = Math.max(0, Math.min(1, 0.5 - d)) * 0.92
  return [mix(r, look.glyph.ink.r, ink), mix(g, look.glyph.ink.g, ink), mix(blue, look.glyph.ink.b, ink)]
}

/**
 * Pixels of one bead, w × h, opaque: what shows of the ground at its corners is in them, darkened as the bead shades
 * it.
 * `hole`: which way the hole runs on the screen.
 */
export function beadPixels(look: BeadLook, ground: Rgb, w: number, h: number, hole: 'across' | 'down'): Int32Array {
  const out = new Int32Array(w * h)
  const gap = Math.min(0.5, 0.035 * Math.min(w, h))
  const outline = OUTLINES[look.shape]
  const shadow = 0.72
  const [A, B] = hole === 'across' ? [w / 2, h / 2] : [h / 2, w / 2]
  for (let py = 0; py < h; py++) {
    for (let px = 0; px < w; px++) {
      const x = px + 0.5 - w / 2
      const y = py + 0.5 - h / 2
      const [a, b] = hole === 'across' ? [x, y] : [y, x]
      const cover = Math.max(0, Math.min(1, 0.5 - outline(a, look.way * b, A - gap, B - gap)))
      const [red, green, blue] = coloured(look, ground, a, b, A, B, x, y)
      out[py * w + px] = pack(
        mix(ground.r * shadow, red, cover),
        mix(ground.g * shadow, green, cover),
        mix(ground.b * shadow, blue, cover),
      )
    }
  }
  return out
}

/**
 * Pixels of one bead of its own size, turned in its box of w × h: premultiplied by nothing, alpha says how far it
 * covers, and a thin shadow lies round it. `across` × `along`: its size before turning, px.
 */
export function turnedPixels(
  look: BeadLook,
  ground: Rgb,
  w: number,
  h: number,
  across: number,
  along: number,
  turnDegrees: number,
  hole: 'across' | 'down',
): Int32Array {
  const out = new Int32Array(w * h)
  const turn = (turnDegrees * Math.PI) / 180
  const cos = Math.cos(turn)
  const sin = Math.sin(turn)
  const gap = Math.min(0.6, 0.035 * Math.min(across, along))
  const outline = OUTLINES[look.shape]
  const soft = Math.max(0.8, 0.09 * Math.min(across, along))
  const [A, B] = hole === 'across' ? [across / 2, along / 2] : [along / 2, across / 2]
  for (let py = 0; py < h; py++) {
    for (let px = 0; px < w; px++) {
      const x = px + 0.5 - w / 2
      const y = py + 0.5 - h / 2
      const bx = x * cos + y * sin
      const by = y * cos - x * sin
      const [a, b] = hole === 'across' ? [bx, by] : [by, bx]
      const down = look.way * b
      const away =
        look.above === null ? outline(a, down, A - gap, B - gap) : dropped(a, down, A - gap, B - gap, look.above)
      const cover = Math.max(0, Math.min(1, 0.5 - away))
      const shadow = 0.34 * Math.max(0, 1 - Math.max(0, away) / soft)
      const alpha = cover + (1 - cover) * shadow
      if (alpha <= 0.004) continue
      // What hangs is lit about its own middle.
      const middle = look.above === null ? 0 : (look.way * B * (1 - look.above)) / 2
      const half = look.above === null ? B : (B * (1 + look.above)) / 2
      const [red, green, blue] = coloured(look, ground, a, b - middle, A, half, x, y - middle)
      const share = cover / alpha
      out[py * w + px] = pack(
        mix(ground.r * 0.35, red, share),
        mix(ground.g * 0.35, green, share),
        mix(ground.b * 0.35, blue, share),
        Math.round(alpha * 255),
      )
    }
  }
  return out
}

/** An empty place of a turned bead: a faint dimple. */
export function turnedEmpty(
  ground: Rgb,
  w: number,
  h: number,
  across: number,
  along: number,
  turnDegrees: number,
): Int32Array {
  const out = new Int32Array(w * h)
  const turn = (turnDegrees * Math.PI) / 180
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const px = x + 0.5 - w / 2
      const py = y + 0.5 - h / 2
      const away = rounded(
        px * Math.cos(turn) + py * Math.sin(turn),
        py * Math.cos(turn) - px * Math.sin(turn),
        across * 0.36,
        along * 0.36,
        0.6,
      )
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
      const away = rounded(x + 0.5 - w / 2, y + 0.5 - h / 2, w * 0.36, h * 0.36, 0.6)
      const cover = Math.max(0, Math.min(1, 0.5 - away)) * 0.13
      out[y * w + x] = pack(ground.r * (1 - cover), ground.g * (1 - cover), ground.b * (1 - cover))
    }
  }
  return out
}

/** A bead is looked at so large for its colour from afar, px. */
const FAR_PX = 9

/**
 * The colour of a bead from afar: the mean of its pixels within its rim. Ground and shadow at the rim would make a
 * pale bead as dark as the mat that it lies on.
 */
export function meanPixel(look: BeadLook, ground: Rgb): number {
  const whole = beadPixels({ ...look, glyph: null }, ground, FAR_PX, FAR_PX, 'across')
  const inside = (k: number) => k > 0 && k < FAR_PX - 1
  const pixels = whole.filter((_, k) => inside(k % FAR_PX) && inside(Math.floor(k / FAR_PX)))
  let r = 0
  let g = 0
  let b = 0
  for (const p of pixels) {
    r += p & 255
    g += (p >> 8) & 255
    b += (p >> 16) & 255
  }
  return pack(r / pixels.length, g / pixels.length, b / pixels.length)
}
