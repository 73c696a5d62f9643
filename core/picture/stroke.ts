import type { Rgb } from '../colour/colour'
import type { Point } from '../technique/lattice'
import { pack } from './look'
import type { Clip, Surface } from './surface'

/** How far a point lies from the stretch a … b, px. */
function farFrom(x: number, y: number, a: Point, b: Point): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const long = dx * dx + dy * dy
  const t = long === 0 ? 0 : Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / long))
  return Math.hypot(x - a.x - t * dx, y - a.y - t * dy)
}

/**
 * Strokes one straight stretch over what is there: a round wire or thread, lit along its middle. Cost follows the
 * pixels beside it, not the box round it.
 */
function strokeStretch({ width, pixels }: Surface, clip: Clip, a: Point, b: Point, half: number, colour: Rgb): void {
  const reach = half + 1
  const y0 = Math.max(clip.y0, Math.floor(Math.min(a.y, b.y) - reach))
  const y1 = Math.min(clip.y1, Math.ceil(Math.max(a.y, b.y) + reach))
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const long = Math.hypot(dx, dy)
  for (let py = y0; py < y1; py++) {
    // Of a line of pixels only those that the stretch comes near: between its crossings with a band about it.
    let [x0, x1] = [Math.min(a.x, b.x) - reach, Math.max(a.x, b.x) + reach]
    if (Math.abs(dy) > 1e-9) {
      const middle = a.x + ((py + 0.5 - a.y) / dy) * dx
      const spread = (reach * long) / Math.abs(dy)
      x0 = Math.max(x0, middle - spread)
      x1 = Math.min(x1, middle + spread)
    }
    for (let px = Math.max(clip.x0, Math.floor(x0)); px < Math.min(clip.x1, Math.ceil(x1)); px++) {
      const off = farFrom(px + 0.5, py + 0.5, a, b)
      const cover = Math.max(0, Math.min(1, half - off + 0.5))
      if (cover === 0) continue
      const light = 1.08 - 0.4 * Math.min(1, off / half) ** 2
      const under = pixels[py * width + px]!
      const mix = (over: number, below: number) => below + (over * light - below) * cover
      pixels[py * width + px] = pack(
        mix(colour.r, under & 255),
        mix(colour.g, (under >> 8) & 255),
        mix(colour.b, (under >> 16) & 255),
      )
    }
  }
}

/** Strokes a line from point to point, px, `thick` px across; never thinner than a hair that is still seen. */
export function strokeLine(surface: Surface, clip: Clip, points: readonly Point[], thick: number, colour: Rgb): void {
  const half = Math.max(0.6, thick / 2)
  for (let k = 1; k < points.length; k++) strokeStretch(surface, clip, points[k - 1]!, points[k]!, half, colour)
}
