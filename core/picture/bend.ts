import { pack } from './look'

/**
 * Work bent round: a flat picture of it laid on a cylinder and seen from outside, by parallel projection. Two cases: a
 * band closed round a wrist (its length goes round, the axis stands upright), and a tube (its columns go round, the
 * axis lies level).
 */
export interface Flat {
  readonly width: number
  readonly height: number
  readonly pixels: Int32Array
}

interface Bend {
  /**
   * Circumference of the cylinder in the flat picture's pixels; longer than the picture where a closure fills the gap.
   */
  readonly roundPx: number
  /** How far it is turned, radians. */
  readonly turn: number
  /** How far one looks into it from above, radians; 0 for a tube. */
  readonly tilt: number
  /** Pixels of the output for one of the picture. */
  readonly scale: number
  readonly ground: number
  /** Colour of the closure in the gap, packed. */
  readonly gap: number
}

const TAU = 2 * Math.PI

function shaded(pixel: number, light: number): number {
  return pack((pixel & 255) * light, ((pixel >> 8) & 255) * light, ((pixel >> 16) & 255) * light)
}

/** Size of what is drawn, output pixels. */
export function bentSize(
  flat: Pick<Flat, 'width' | 'height'>,
  { roundPx, tilt, scale }: Pick<Bend, 'roundPx' | 'tilt' | 'scale'>,
): { readonly width: number; readonly height: number } {
  const across = roundPx / Math.PI
  return {
    width: Math.ceil(across * scale),
    height: Math.ceil((flat.height * Math.cos(tilt) + across * Math.sin(tilt)) * scale),
  }
}

/** A band closed round a wrist. The outside shows in front, the inside behind it, darker, as its wrong side. */
export function bendBand(flat: Flat, bend: Bend): Flat {
  const { roundPx, turn, tilt, scale, ground, gap } = bend
  const { width, height } = bentSize(flat, bend)
  const pixels = new Int32Array(width * height).fill(ground)
  const radius = roundPx / TAU
  const cos = Math.cos(tilt)
  const sin = Math.sin(tilt)
  const half = flat.height / 2
  for (let px = 0; px < width; px++) {
    const x = (px + 0.5) / scale - radius
    const side = x / radius
    if (side <= -1 || side >= 1) continue
    const depth = Math.sqrt(1 - side * side)
    const front = Math.asin(side)
    for (let py = 0; py < height; py++) {
      const y = (py + 0.5) / scale - (half * cos + radius * sin)
      // Front wall first; what looks over its rim falls on the wall behind.
      let z = (y - radius * depth * sin) / cos
      let angle = front
      let light = 0.5 + 0.5 * depth
      if (z < -half || z >= half) {
        z = (y + radius * depth * sin) / cos
        angle = Math.PI - front
        light = 0.3 + 0.16 * depth
        if (z < -half || z >= half) continue
      }
      const round = (((((angle + turn) / TAU) % 1) + 1) % 1) * roundPx
      const u = Math.floor(round)
      const v = Math.floor(z + half)
      if (u < flat.width) pixels[py * width + px] = shaded(flat.pixels[v * flat.width + u]!, light)
      else if (Math.abs(z) < half * 0.34) pixels[py * width + px] = shaded(gap, light)
    }
  }
  return { width, height, pixels }
}

/** A tube lying level, its length along the screen, turned about its axis. The picture's height goes round. */
export function turnTube(flat: Flat, { roundPx, turn, scale, ground }: Bend): Flat {
  const radius = roundPx / TAU
  const width = Math.ceil(flat.width * scale)
  const height = Math.ceil(2 * radius * scale)
  const pixels = new Int32Array(width * height).fill(ground)
  for (let py = 0; py < height; py++) {
    const side = ((py + 0.5) / scale - radius) / radius
    if (side <= -1 || side >= 1) continue
    const light = 0.42 + 0.58 * Math.sqrt(1 - side * side)
    const round = (((((Math.asin(side) + turn) / TAU) % 1) + 1) % 1) * roundPx
    const v = Math.min(flat.height - 1, Math.floor(round))
    for (let px = 0; px < width; px++)
      pixels[py * width + px] = shaded(
        flat.pixels[v * flat.width + Math.min(flat.width - 1, Math.floor(px / scale))]!,
        light,
      )
  }
  return { width, height, pixels }
}
