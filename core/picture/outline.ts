import { requireSpec, type BeadSpec } from '../bead/spec'

const round = (mm: number): number => Math.round(mm * 1000) / 1000

/** A closed line through points. */
const polygon = (points: readonly (readonly [number, number])[]): string =>
  `M${points.map(([x, y]) => `${round(x)} ${round(y)}`).join('L')}Z`

const ellipse = (a: number, b: number): string =>
  `M${round(-a)} 0A${round(a)} ${round(b)} 0 1 1 ${round(a)} 0A${round(a)} ${round(b)} 0 1 1 ${round(-a)} 0Z`

/** A box with its corners rounded. */
function box(a: number, b: number, share: number): string {
  const q = share * Math.min(a, b)
  const arc = (x: number, y: number): string => `A${round(q)} ${round(q)} 0 0 1 ${round(x)} ${round(y)}`
  return (
    `M${round(q - a)} ${round(-b)}H${round(a - q)}${arc(a, q - b)}V${round(b - q)}${arc(a - q, b)}` +
    `H${round(q - a)}${arc(-a, b - q)}V${round(q - b)}${arc(q - a, -b)}Z`
  )
}

/** A regular polygon of so many corners within a box, begun at an angle. */
const regular = (a: number, b: number, corners: number, begin = 0): string =>
  polygon(
    Array.from({ length: corners }, (_, k) => {
      const turn = begin + (2 * Math.PI * k) / corners
      return [a * Math.cos(turn), b * Math.sin(turn)] as const
    }),
  )

/**
 * The outline of a bead as an SVG path about its middle, mm: its holes lie along x, a second one toward +y. Paper and
 * screen draw the same.
 */
export function beadOutline({ shape, l, d, hangs }: Pick<BeadSpec, 'shape' | 'l' | 'd' | 'hangs'>): string {
  const [a, b] = [l / 2, d / 2]
  switch (shape) {
    case 'round':
      return box(a, b, 0.8)
    case 'ball':
      return ellipse(a, b)
    case 'faceted':
      return regular(a / Math.cos(Math.PI / 8), b / Math.cos(Math.PI / 8), 8, Math.PI / 8)
    case 'bicone':
      return polygon([
        [-a, -0.15 * b],
        [-0.12 * a, -b],
        [0.12 * a, -b],
        [a, -0.15 * b],
        [a, 0.15 * b],
        [0.12 * a, b],
        [-0.12 * a, b],
        [-a, 0.15 * b],
      ])
    case 'domed-duo':
      return ellipse(a, b)
    case 'almond-duo': {
      // A lens: two arcs through its tips, as wide as the bead is long along its holes.
      const r = round((b * b + a * a) / (2 * a))
      return `M0 ${round(-b)}A${r} ${r} 0 0 1 0 ${round(b)}A${r} ${r} 0 0 1 0 ${round(-b)}Z`
    }
    case 'drop':
    case 'long-drop': {
      // The hole near its narrow end, a ball hanging below it.
      const low = round(Math.max(0, (hangs ?? d) - b - a))
      return (
        `M${round(-b)} ${low}L${round(-a * 0.7)} ${round(-a)}H${round(a * 0.7)}L${round(b)} ${low}` +
        `A${round(b)} ${round(b)} 0 0 1 ${round(-b)} ${low}Z`
      )
    }
    case 'triangle':
      return polygon([
        [-a, b],
        [0, -b],
        [a, b],
      ])
    case 'hexagon':
      return regular(a, b, 6)
    case 'cylinder':
    case 'hex-cut':
    case 'bugle':
      return box(a, b, 0.2)
    case 'cube':
    case 'tile':
    case 'half-tile':
    case 'cord':
      return box(a, b, 0.28)
  }
}

/** A plain box of so much, about its middle. */
export const boxOutline = (w: number, h: number): string => box(w / 2, h / 2, 0)

/** Measures of a bead so many times larger than life. */
export function scaledSpec(id: string, by: number): Pick<BeadSpec, 'shape' | 'l' | 'd' | 'hangs'> {
  const { shape, l, d, hangs } = requireSpec(id)
  return { shape, l: l * by, d: d * by, ...(hangs === undefined ? {} : { hangs: hangs * by }) }
}

/** How a bead is put into a picture: moved, turned, and turned over where its second hole lies on the other side. */
export const beadTransform = (p: {
  readonly x: number
  readonly y: number
  readonly turnDegrees: number
  readonly flip: 1 | -1
}): string =>
  `translate(${round(p.x)} ${round(p.y)}) rotate(${round(p.turnDegrees)})${p.flip < 0 ? ' scale(1 -1)' : ''}`
