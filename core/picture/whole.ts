import { layOutAll, turned, type Placed, type Tie, type Whole } from '../piece/joint'
import type { Part } from '../piece/piece'
import type { Point } from '../technique/lattice'
import { pack } from './look'
import { paintBeads, paintGround } from './raster'
import type { Sprites } from './sprite'
import type { Surface } from './surface'
import { drawnSize } from '../piece/drawn-size'
import { screenOfWork, sizeOnScreen, type Flip, type PixelRect, type View } from './view'

/**
 * A piece of several parts as it is seen: where one part lies on the screen says where all others do. Joints turn by
 * quarters, so each part is drawn as it is drawn alone, in one of its two lies, turned by half or not.
 */

/** Room between parts that do not hang together, mm. */
const APART_MM = 8

export const wholeOf = (parts: readonly Part[]): Whole => layOutAll(parts, drawnSize, APART_MM)

/** Own size of a part that is placed, mm: across and along. */
const ownSize = ({ turn, width, length }: Placed): Point =>
  turn % 2 === 0 ? { x: width, y: length } : { x: length, y: width }

/** A point of a part, mm across and along, as a point of the whole. */
function inWhole(placed: Placed, { x, y }: Point): Point {
  const size = ownSize(placed)
  const p = turned({ x: x - size.x / 2, y: y - size.y / 2 }, placed.turn)
  return { x: placed.x + placed.width / 2 + p.x, y: placed.y + placed.length / 2 + p.y }
}

/** The turn that takes a turn back. */
const BACK = [0, 3, 2, 1] as const

/** The way back: a point of the whole in the own mm of a part. */
function inPart(placed: Placed, { x, y }: Point): Point {
  const size = ownSize(placed)
  const p = turned({ x: x - placed.x - placed.width / 2, y: y - placed.y - placed.length / 2 }, BACK[placed.turn])
  return { x: p.x + size.x / 2, y: p.y + size.y / 2 }
}

export const placedOf = (whole: Whole, part: Part): Placed => whole.placed.find((p) => p.part.id === part.id)!

/** A point of the whole on the screen, px, where `view` is how one of its parts is seen. */
function screenOfWhole(placed: Placed, view: View, point: Point): Point {
  const { x, y } = inPart(placed, point)
  return screenOfWork(placed.part, view, x, y)
}

/** How another part of the whole is seen, where `view` is how `seen` is. */
export function viewBeside(seen: Placed, view: View, other: Placed): View {
  const at = (x: number, y: number) => screenOfWhole(seen, view, inWhole(other, { x, y }))
  const [corner, across, along] = [at(0, 0), at(1, 0), at(0, 1)]
  const size = ownSize(other)
  const end = at(size.x, size.y)
  const level = Math.abs(along.x - corner.x) > Math.abs(along.y - corner.y)
  const flip: Flip = level
    ? { across: across.y < corner.y, along: along.x < corner.x }
    : { across: across.x < corner.x, along: along.y > corner.y }
  return {
    lie: level ? 'level' : 'upright',
    scale: view.scale,
    x: Math.min(corner.x, end.x),
    y: Math.min(corner.y, end.y),
    ...(flip.across || flip.along ? { flip } : {}),
  }
}

/** The box round the whole on the screen, px. */
export function boxOfWhole(whole: Whole, part: Part, view: View): PixelRect {
  const seen = placedOf(whole, part)
  const boxes = whole.placed.map((p) => {
    const v = viewBeside(seen, view, p)
    return { x: v.x, y: v.y, ...sizeOnScreen(p.part, v) }
  })
  const x = Math.min(...boxes.map((b) => b.x))
  const y = Math.min(...boxes.map((b) => b.y))
  return {
    x,
    y,
    width: Math.max(...boxes.map((b) => b.x + b.width)) - x,
    height: Math.max(...boxes.map((b) => b.y + b.height)) - y,
  }
}

/** A ring of wire, px: middle, radius of the middle of the wire, half its thickness. */
interface Ring {
  readonly x: number
  readonly y: number
  readonly radius: number
  readonly half: number
}

/** How far a link reaches over the edges that it joins, and the thickness of its wire, mm. */
const OVER_MM = 0.9
const WIRE_MM = 0.8
/** Length of one link of a chain, mm. */
const CHAIN_LINK_MM = 3

/** The rings that a tie is drawn as: one, or the links of a chain. */
export function ringsOf({ kind, from, to }: Tie, at: (p: Point) => Point, scale: number): Ring[] {
  const mm = Math.hypot(to.x - from.x, to.y - from.y)
  const reach = mm + 2 * OVER_MM
  const count = kind === 'ring' ? 1 : Math.max(2, Math.round(reach / CHAIN_LINK_MM))
  const [a, b] = [at(from), at(to)]
  const half = (WIRE_MM * scale) / 2
  return Array.from({ length: count }, (_, k) => {
    const along = (reach * (k + 0.5)) / count - OVER_MM
    const share = mm === 0 ? 0.5 : along / mm
    return {
      x: a.x + share * (b.x - a.x),
      y: a.y + share * (b.y - a.y),
      // Links of a chain lie in one another.
      radius: Math.max(half, ((reach / count) * scale * (kind === 'ring' ? 1 : 1.24)) / 2 - half),
      half,
    }
  })
}

const METAL = { r: 176, g: 166, b: 146 }

/** Paints a ring over what is there, within a rectangle. */
function paintRing({ width, height, pixels }: Surface, rect: PixelRect, { x, y, radius, half }: Ring): void {
  const reach = radius + half + 1
  const x1 = Math.min(width, rect.x + rect.width, Math.ceil(x + reach))
  const y1 = Math.min(height, rect.y + rect.height, Math.ceil(y + reach))
  for (let py = Math.max(0, rect.y, Math.floor(y - reach)); py < y1; py++) {
    for (let px = Math.max(0, rect.x, Math.floor(x - reach)); px < x1; px++) {
      const dx = px + 0.5 - x
      const dy = py + 0.5 - y
      const off = Math.hypot(dx, dy) - radius
      const cover = Math.max(0, Math.min(1, half - Math.abs(off) + 0.5))
      if (cover === 0) continue
      // Light from above: the outside of the wire above, its inside below.
      const light = 0.62 + 0.38 * (1 - Math.min(1, Math.abs(off) / half) ** 2) - (0.16 * Math.sign(off) * dy) / reach
      const under = pixels[py * width + px]!
      const mix = (over: number, below: number) => below + (over * light - below) * cover
      pixels[py * width + px] = pack(
        mix(METAL.r, under & 255),
        mix(METAL.g, (under >> 8) & 255),
        mix(METAL.b, (under >> 16) & 255),
      )
    }
  }
}

/** What is to be seen of a piece: the part in hand by its view, and all others beside it; null where it is alone. */
interface WholeScene {
  readonly part: Part
  readonly view: View
  readonly whole: Whole | null
}

/**
 * Paints a rectangle of the screen: ground, the other parts with sprites of their own, what ties them, and the part in
 * hand. Returns how many beads were drawn.
 */
export function paintWhole(
  surface: Surface,
  rect: PixelRect,
  { part, view, whole }: WholeScene,
  sprites: Sprites,
  others: Sprites,
): number {
  paintGround(surface, rect, view, sprites)
  let drawn = 0
  const seen = whole && placedOf(whole, part)
  if (whole && seen) {
    for (const p of whole.placed)
      if (p !== seen) drawn += paintBeads(surface, rect, p.part, viewBeside(seen, view, p), others)
  }
  drawn += paintBeads(surface, rect, part, view, sprites)
  if (whole && seen) {
    // Rings go through the edges of both: they lie over them.
    for (const tie of whole.ties)
      for (const ring of ringsOf(tie, (p) => screenOfWhole(seen, view, p), view.scale)) paintRing(surface, rect, ring)
  }
  return drawn
}
