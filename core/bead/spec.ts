/**
 * The built-in catalogue: nominal sizes of seed beads (common practice, from memory, about ±10 %).
 * Lengths in mm: `d` across (square to the hole), `l` along the hole, `h` the hole. `perGram` is a count.
 * Sizes with a slash: the larger the number, the smaller the bead; no formula links number and size.
 */
export type BeadShape = 'round' | 'cylinder' | 'hex-cut' | 'cube' | 'bugle'

export interface BeadSpec {
  readonly id: string
  readonly shape: BeadShape
  /** Plain name, for example `cylinder 11/0`. */
  readonly name: string
  readonly d: number
  readonly l: number
  readonly h: number
  readonly perGram: number
}

const spec = (shape: BeadShape, size: string, d: number, l: number, h: number, perGram: number): BeadSpec =>
  ({ id: `${shape}-${size.replace('/0', '').replaceAll(/[ .]/g, '-')}`, shape, name: `${shape} ${size}`, d, l, h, perGram })

export const BEAD_SPECS: readonly BeadSpec[] = [
  spec('cylinder', '15/0', 1.3, 1.0, 0.65, 370),
  spec('cylinder', '11/0', 1.6, 1.3, 0.8, 195),
  spec('cylinder', '10/0', 2.2, 1.7, 1.0, 95),
  spec('cylinder', '8/0', 3.0, 2.5, 1.3, 33),
  spec('round', '15/0', 1.5, 1.05, 0.6, 290),
  spec('round', '11/0', 2.1, 1.4, 0.8, 110),
  spec('round', '10/0', 2.3, 1.6, 0.9, 82),
  spec('round', '8/0', 3.0, 2.1, 1.1, 39),
  spec('round', '6/0', 4.0, 2.9, 1.4, 14.5),
  spec('hex-cut', '11/0', 2.1, 1.6, 0.8, 95),
  spec('hex-cut', '8/0', 2.8, 2.6, 1.1, 30),
  spec('cube', '1.8 mm', 1.8, 1.8, 0.7, 70),
  spec('cube', '3 mm', 3, 3, 1.0, 16),
  spec('cube', '4 mm', 4, 4, 1.3, 7.5),
  spec('bugle', '3 mm', 1.8, 3, 0.7, 60),
  spec('bugle', '6 mm', 2.0, 6, 0.8, 25),
]

const BY_ID = new Map(BEAD_SPECS.map(s => [s.id, s]))

export const DEFAULT_SPEC = 'cylinder-11'

export const findSpec = (id: string): BeadSpec | undefined => BY_ID.get(id)

export function requireSpec(id: string): BeadSpec {
  const found = BY_ID.get(id)
  if (!found) throw new Error(`no bead spec has the id ${JSON.stringify(id)}`)
  return found
}

/** Glass in g/mm³ (handbook figure for soda-lime glass, about 2.5 g/cm³). */
export const GLASS_G_PER_MM3 = 2.5e-3

/** How much of the plain solid a shape fills: rounds lose their shoulders, cut and tile-like beads little. */
const FILL: Record<BeadShape, number> = { 'round': 0.85, 'cylinder': 0.95, 'hex-cut': 0.95, 'cube': 0.95, 'bugle': 0.95 }

/**
 * Beads in a gram predicted from geometry: glass, a cylinder d × l (a cube: its square prism; a hex-cut: the hexagonal
 * prism between flats d) less its hole, times the fill of the shape. A check on the catalogue, to about ±20 %.
 */
export function perGramFromGeometry({ shape, d, l, h }: BeadSpec): number {
  const section = shape === 'cube' ? d * d : shape === 'hex-cut' ? 0.866 * d * d : Math.PI * d * d / 4
  return 1 / ((section - Math.PI * h * h / 4) * l * FILL[shape] * GLASS_G_PER_MM3)
}

/** Grams of `count` beads. */
export const gramsOf = (count: number, bead: BeadSpec): number => count / bead.perGram
