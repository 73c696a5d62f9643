import type { Rgb } from '../colour/colour'
import type { Point } from '../technique/lattice'
import { pack } from './look'
import type { Clip, Surface } from './surface'

/** What of the plane a stretch of a bent line paints: up to where the next one is nearer, and from the one before. */
interface Bends {
  /** Directions of the lines that halve the bends at its two ends, by their normals; null where the line ends. */
  readonly from: Point | null
  readonly to: Point | null
}

/**
 * Strokes one straight stretch over what is there: a round wire or thread, lit along its middle. Cost follows the
 * pixels beside it, not the box round it.
 */
function strokeStretch(
  { width, pixels }: Surface,
  clip: Clip,
  [a, b]: readonly [Point, Point],
  half: number,
  colour: Rgb,
  { from, to }: Bends,
): void {
  const reach = half + 1
  const y0 = Math.max(clip.y0, Math.floor(Math.min(a.y, b.y) - reach))
  const y1 = Math.min(clip.y1, Math.ceil(Math.max(a.y, b.y) + reach))
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const long = Math.sqrt(dx * dx + dy * dy)
  // Along and across the stretch, as unit steps; a point has neither.
  const [ux, uy] = long === 0 ? [1, 0] : [dx / long, dy / long]
  const spread = Math.abs(uy) > 1e-9 ? reach / Math.abs(uy) : Infinity
  const [least, most] = [Math.min(a.x, b.x) - reach, Math.max(a.x, b.x) + reach]
  for (let py = y0; py < y1; py++) {
    // Of a line of pixels only those that the stretch comes near: between its crossings with a band about it.
    const down = py + 0.5 - a.y
    const middle = spread === Infinity ? 0 : a.x + (down / uy) * ux
    const x0 = Math.max(clip.x0, Math.floor(Math.max(least, middle - spread)))
    const x1 = Math.min(clip.x1, Math.ceil(Math.min(most, middle + spread)))
    for (let px = x0; px < x1; px++) {
      const right = px + 0.5 - a.x
      // What lies beyond a bend belongs to the next stretch: it would be lit twice.
      if (from && right * from.x + down * from.y < 0) continue
      if (to && (right - dx) * to.x + (down - dy) * to.y >= 0) continue
      const along = right * ux + down * uy
      const aside = right * uy - down * ux
      const over = along < 0 ? along : along > long ? along - long : 0
      const off = over === 0 ? (aside < 0 ? -aside : aside) : Math.sqrt(aside * aside + over * over)
      const cover = half - off + 0.5
      if (cover <= 0) continue
      const share = cover < 1 ? cover : 1
      const near = off < half ? off / half : 1
      const light = 1.08 - 0.4 * near * near
      const at = py * width + px
      const under = pixels[at]!
      const r = (under & 255) + (colour.r * light - (under & 255)) * share
      const g = ((under >> 8) & 255) + (colour.g * light - ((under >> 8) & 255)) * share
      const bl = ((under >> 16) & 255) + (colour.b * light - ((under >> 16) & 255)) * share
      pixels[at] = pack(r, g, bl)
    }
  }
}

/** Strokes a line from point to point, px, `thick` px across; never thinner than a hair that is still seen. */
export function strokeLine(surface: Surface, clip: Clip, points: readonly Point[], thick: number, colour: Rgb): void {
  const half = Math.max(0.6, thick / 2)
  const ways = points.slice(1).map((p, k): Point => {
    const { x, y } = points[k]!
    const long = Math.hypot(p.x - x, p.y - y)
    return long === 0 ? { x: 0, y: 0 } : { x: (p.x - x) / long, y: (p.y - y) / long }
  })
  /** Normal of the line that halves the bend before the k-th stretch; null where nothing bends there. */
  const bend = (k: number): Point | null => {
    const [before, after] = [ways[k - 1], ways[k]]
    if (!before || !after) return null
    const normal = { x: before.x + after.x, y: before.y + after.y }
    return Math.hypot(normal.x, normal.y) < 0.2 ? null : normal
  }
  ways.forEach((_, k) => {
    const ends = { from: bend(k), to: bend(k + 1) }
    strokeStretch(surface, clip, [points[k]!, points[k + 1]!], half, colour, ends)
  })
}
