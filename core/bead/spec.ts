/**
 * The catalogue: nominal sizes of beads (common practice, from memory, about ±10 %), and sizes that users write
 * themselves. Lengths in mm: `d` across (square to the hole), `l` along the hole, `h` the hole. `perGram` is a count.
 * Sizes with a slash: the larger the number, the smaller the bead; no formula links number and size.
 */
export const BEAD_SHAPES = [
  'cylinder',
  'round',
  'hex-cut',
  'cube',
  'bugle',
  'drop',
  'long-drop',
  'ball',
  'bicone',
  'faceted',
  'almond-duo',
  'domed-duo',
  'tile',
  'half-tile',
  'triangle',
  'hexagon',
] as const

/** Shapes of beads, and the cords that plain braids are made of. */
export type BeadShape = (typeof BEAD_SHAPES)[number] | 'cord'

export interface BeadSpec {
  readonly id: string
  readonly shape: BeadShape
  /** Plain name, for example `cylinder 11/0`. */
  readonly name: string
  readonly d: number
  readonly l: number
  readonly h: number
  readonly perGram: number
  /** Beads with two holes: how far apart these run, mm. */
  readonly spacing?: number
  /** Flat beads: how thick, square to d and l, mm. Others are as thick as they are wide. */
  readonly thick?: number
  /** Beads that hang: length from end to end, mm; the hole lies near one end. */
  readonly hangs?: number
}

/** Facts of a shape that matter in the hand, said where the bead is chosen (common practice). */
export const SHAPE_FACTS: Partial<Record<BeadShape, string>> = {
  'round': 'Rounds are uneven: a long run varies more than one of cylinders.',
  'hex-cut': 'Sharp edges fray thread: a tougher thread, or a seed bead at each end.',
  'bugle': 'Sharp ends fray thread: put a seed bead at each end, or use a tougher thread.',
  'ball': 'Soft stone and crystal chip when a needle is forced through: few passes, a thin needle.',
  'bicone': 'Crystal edges cut thread and chip: few passes, a thin needle.',
  'faceted': 'Facets cut thread: few passes, a thin needle.',
  'almond-duo': 'Two holes: check both open before starting.',
  'domed-duo': 'Two holes, and a right way up: dome outward. Check both holes open before starting.',
  'tile': 'Two holes: check both open before starting.',
  'half-tile': 'Two holes: check both open before starting.',
  'triangle': 'Two holes leave through one side, one through each of the others: mind the right way in.',
  'hexagon': 'Two holes: check both open before starting.',
}

type More = Pick<BeadSpec, 'spacing' | 'thick' | 'hangs'>

const NAMES: Partial<Record<BeadShape, string>> = {
  'long-drop': 'long drop',
  'ball': 'round glass or stone',
  'faceted': 'faceted round',
  'almond-duo': 'almond duo',
  'domed-duo': 'domed duo',
  'tile': 'square tile',
  'half-tile': 'half tile',
}

/** A shape in plain words. */
export const shapeName = (shape: BeadShape): string => NAMES[shape] ?? shape

const spec = (
  shape: BeadShape,
  size: string,
  d: number,
  l: number,
  h: number,
  perGram: number,
  more: More = {},
): BeadSpec => ({
  id: `${shape}-${size.replace('/0', '').replaceAll(/[ .]/g, '-').replaceAll('×', 'x')}`,
  shape,
  name: `${shapeName(shape)} ${size}`,
  d,
  l,
  h,
  perGram,
  ...more,
})

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
  spec('bugle', '7 mm', 2.0, 7, 0.8, 21),
  spec('bugle', '12 mm', 2.0, 12, 0.8, 12),
  spec('drop', '3.4 mm', 3.4, 2.6, 0.9, 25, { hangs: 3.4 }),
  spec('long-drop', '4 × 7 mm', 4, 3, 1.0, 8, { hangs: 7 }),
  spec('ball', '2 mm', 2, 2, 0.5, 95),
  spec('ball', '3 mm', 3, 3, 0.7, 28),
  spec('ball', '4 mm', 4, 4, 0.9, 12),
  spec('ball', '6 mm', 6, 6, 1.0, 3.5),
  spec('bicone', '3 mm', 3, 2.8, 0.8, 65),
  spec('bicone', '4 mm', 4, 3.8, 0.9, 28),
  spec('bicone', '6 mm', 6, 5.5, 1.1, 8.3),
  spec('faceted', '3 mm', 3, 2.8, 0.8, 30),
  spec('faceted', '4 mm', 4, 3.8, 0.9, 13),
  spec('faceted', '6 mm', 6, 5.7, 1.0, 4),
  // The weights of beads with two holes come from their geometry.
  spec('almond-duo', '5 × 2.5 mm', 5, 2.5, 0.8, 30, { spacing: 2.5, thick: 2 }),
  spec('domed-duo', '5 × 2.5 mm', 5, 2.5, 0.8, 28, { spacing: 2.5, thick: 2.2 }),
  spec('tile', '5 mm', 5, 5, 0.8, 10, { spacing: 3.2, thick: 1.9 }),
  spec('half-tile', '5 × 2.3 mm', 5, 2.3, 0.8, 21.5, { spacing: 3.2, thick: 1.9 }),
  spec('triangle', '6 mm', 6, 5.2, 0.8, 16, { spacing: 2.5, thick: 2 }),
  spec('hexagon', '6 mm', 6, 6, 0.8, 7.5, { spacing: 3, thick: 2 }),
]

/**
 * Cords for plain braids, by thickness: a crossing shows about as long as one and a half cords (a model, for drawing).
 * They have no hole, and are cut by length, never counted by weight.
 */
export const CORD_SPECS: readonly BeadSpec[] = [0.8, 1, 1.5, 2, 2.5, 3, 4, 5].map((mm) => ({
  id: `cord-${String(mm).replace('.', '-')}`,
  shape: 'cord',
  name: `cord ${mm} mm`,
  d: mm,
  l: Math.round(mm * 1.45 * 100) / 100,
  h: 0,
  perGram: Infinity,
}))

export const DEFAULT_CORD = 'cord-2'

export const isCord = ({ shape }: Pick<BeadSpec, 'shape'>): boolean => shape === 'cord'

/**
 * The catalogue's sizes of the same shape next smaller and next larger by their length across; none for a size of
 * one's own.
 */
export function neighbourSpecs(id: string): string[] {
  const own = BY_ID.get(id)
  if (!own) return []
  const same = CATALOGUE.filter((s) => s.shape === own.shape).sort((a, b) => a.d - b.d || a.l - b.l)
  const at = same.indexOf(own)
  return [same[at - 1], same[at + 1]].flatMap((s) => (s ? [s.id] : []))
}

/** Every spec that has an id of its own. */
export const CATALOGUE: readonly BeadSpec[] = [...BEAD_SPECS, ...CORD_SPECS]

const BY_ID = new Map(CATALOGUE.map((s) => [s.id, s]))

export const DEFAULT_SPEC = 'cylinder-11'

/**
 * A user's own spec is written out in its id, so that a piece file, a tray and a shelf carry it whole and nothing
 * needs to be looked up:
 * `own/shape/d/l/h/perGram/name`, lengths in mm, the name percent-encoded.
 */
export const OWN_SPEC = /^own\/[a-z-]{4,12}\/(?:\d{1,3}(?:\.\d{1,3})?\/){4}[A-Za-z0-9%._~!*'()-]{1,120}$/

export const ownSpecId = ({
  shape,
  d,
  l,
  h,
  perGram,
  name,
}: Pick<BeadSpec, 'shape' | 'd' | 'l' | 'h' | 'perGram' | 'name'>): string =>
  `own/${[shape, ...[d, l, h, perGram].map((n) => Math.round(n * 1000) / 1000), encodeURIComponent(name)].join('/')}`

interface OwnSpecProblem {
  readonly field: 'name' | 'd' | 'l' | 'h' | 'perGram'
  readonly says: string
}

/** What is wrong with the figures of an own spec; bounds are those that a bead can have. */
export function ownSpecProblems({
  name,
  d,
  l,
  h,
  perGram,
}: Pick<BeadSpec, 'name' | 'd' | 'l' | 'h' | 'perGram'>): OwnSpecProblem[] {
  const out: OwnSpecProblem[] = []
  if (name.trim() === '' || encodeURIComponent(name).length > 120)
    out.push({ field: 'name', says: 'Give it a short name.' })
  if (!(d >= 0.5 && d <= 40)) out.push({ field: 'd', says: 'A bead is 0.5 to 40 mm across.' })
  if (!(l >= 0.5 && l <= 60)) out.push({ field: 'l', says: 'A bead is 0.5 to 60 mm along its hole.' })
  if (!(h >= 0.2 && h < d)) out.push({ field: 'h', says: 'The hole is at least 0.2 mm and smaller than the bead.' })
  if (!(perGram >= 0.01 && perGram <= 999))
    out.push({ field: 'perGram', says: 'Between 0.01 and 999 beads weigh a gram.' })
  return out
}

const own = new Map<string, BeadSpec | undefined>()

function readOwn(id: string): BeadSpec | undefined {
  if (!OWN_SPEC.test(id)) return undefined
  const [, shape, d, l, h, perGram, text] = id.split('/')
  const known = BEAD_SHAPES.find((s) => s === shape)
  let name: string
  try {
    name = decodeURIComponent(text!)
  } catch {
    return undefined
  }
  if (!known) return undefined
  const read: BeadSpec = { id, shape: known, name, d: Number(d), l: Number(l), h: Number(h), perGram: Number(perGram) }
  return ownSpecProblems(read).length === 0 ? read : undefined
}

export function findSpec(id: string): BeadSpec | undefined {
  const known = BY_ID.get(id)
  if (known) return known
  if (!own.has(id)) {
    // Ids come from documents; what has been read is kept only as long as that stays little.
    if (own.size > 2000) own.clear()
    own.set(id, readOwn(id))
  }
  return own.get(id)
}

export function requireSpec(id: string): BeadSpec {
  const found = findSpec(id)
  if (!found) throw new Error(`no bead spec has the id ${JSON.stringify(id)}`)
  return found
}

/** Glass in g/mm³ (handbook figure for soda-lime glass, about 2.5 g/cm³). */
const GLASS_G_PER_MM3 = 2.5e-3

/**
 * Volume of the plain solid in mm³, and how much of it a shape fills: rounds lose their shoulders, cut and tile-like
 * beads little.
 */
const SOLID: Record<
  BeadShape,
  { readonly volume: (bead: Omit<BeadSpec, 'id' | 'name' | 'perGram'>) => number; readonly fill: number }
> = {
  'round': { volume: ({ d, l }) => ((Math.PI * d * d) / 4) * l, fill: 0.85 },
  'cylinder': { volume: ({ d, l }) => ((Math.PI * d * d) / 4) * l, fill: 0.95 },
  'bugle': { volume: ({ d, l }) => ((Math.PI * d * d) / 4) * l, fill: 0.95 },
  'hex-cut': { volume: ({ d, l }) => 0.866 * d * d * l, fill: 0.95 },
  'cube': { volume: ({ d, l }) => d * d * l, fill: 0.95 },
  'drop': { volume: ({ d, l }) => (Math.PI / 6) * d * d * l, fill: 1 },
  'long-drop': { volume: ({ d, hangs }) => (Math.PI / 6) * d * d * (hangs ?? 1.75 * d), fill: 1 },
  'ball': { volume: ({ d, l }) => (Math.PI / 6) * d * d * l, fill: 1 },
  'faceted': { volume: ({ d, l }) => (Math.PI / 6) * d * d * l, fill: 1 },
  'bicone': { volume: ({ d, l }) => (Math.PI / 12) * d * d * l, fill: 1 },
  'almond-duo': { volume: ({ d, l, thick }) => (Math.PI / 4) * d * l * (thick ?? l), fill: 0.8 },
  'domed-duo': { volume: ({ d, l, thick }) => (Math.PI / 4) * d * l * (thick ?? l), fill: 0.8 },
  'tile': { volume: ({ d, l, thick }) => d * l * (thick ?? d / 2.6), fill: 0.95 },
  'half-tile': { volume: ({ d, l, thick }) => d * l * (thick ?? d / 2.6), fill: 0.95 },
  'triangle': { volume: ({ d, l, thick }) => ((d * l) / 2) * (thick ?? d / 3), fill: 0.95 },
  'cord': { volume: ({ d, l }) => ((Math.PI * d * d) / 4) * l, fill: 1 },
  'hexagon': { volume: ({ d, l, thick }) => 0.866 * d * l * (thick ?? d / 3), fill: 0.95 },
}

/**
 * Beads in a gram predicted from geometry: glass, the solid less its holes, times the fill of the shape. A check on
 * the catalogue, to about ±20 %.
 */
export function perGramFromGeometry(bead: Omit<BeadSpec, 'id' | 'name' | 'perGram'>): number {
  const { volume, fill } = SOLID[bead.shape]
  const holes = (((bead.spacing === undefined ? 1 : 2) * Math.PI * bead.h * bead.h) / 4) * bead.l
  return 1 / ((volume(bead) - holes) * fill * GLASS_G_PER_MM3)
}

/** Grams of `count` beads. */
export const gramsOf = (count: number, bead: BeadSpec): number => count / bead.perGram
