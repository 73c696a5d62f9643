import type { ClosureKind } from './closure'

/** What a piece is made to go round, or hang from. All are cases of one reckoning (reckon.ts). */
export const FIT_KINDS = [
  ...(['bracelet', 'cuff', 'anklet', 'choker', 'necklace', 'ring', 'hoop', 'earrings'] as const),
  'pendant',
] as const

export type FitKind = (typeof FIT_KINDS)[number]

/** A measure of a body, or of a finished thing, as it is kept with a person. */
type BodyMeasure =
  'wrist' | 'hand' | 'ankle' | 'heel' | 'neck' | 'head' | 'finger' | 'necklace' | 'hoop' | 'drop' | 'pendant'

interface Ease {
  readonly id: string
  readonly name: string
  readonly mm: number
}

/**
 * How length comes from the measure. `round`: the work bends about its middle and closes on itself; `open`: it bends,
 * but keeps a gap; `straight`: the finished length is measured laid flat or hanging.
 */
type Bend = 'round' | 'open' | 'straight'

interface FitKindEntry {
  readonly kind: FitKind
  readonly name: string
  /** What one such piece is called in a sentence. */
  readonly noun: string
  readonly bend: Bend
  readonly measure: BodyMeasure
  readonly measureName: string
  readonly howTo: string
  readonly least: number
  readonly most: number
  readonly usualMm: number
  /** Room added to the measure, by name (common practice); none where the measure is the finished length itself. */
  readonly eases: readonly Ease[]
  readonly closures: readonly ClosureKind[]
  /** What it must pass where nothing opens, and how that is measured. */
  readonly passes?: { readonly measure: BodyMeasure; readonly name: string; readonly howTo: string }
  /** How far from the wanted finished length is still right, mm; for kinds without eases. */
  readonly toleranceMm: number
  /** How many make one: earrings come in pairs. */
  readonly pieces: 1 | 2
  /** Whether it hangs from its first row, rather than going round something. */
  readonly hangs?: true
}

const TAPE = 'A tape or paper strip laid flat, snug and not tight; never stretch it. Measure twice.'
const CLASPS: readonly ClosureKind[] = ['toggle', 'hook', 'bar', 'button', 'slide', 'magnet']

export const FIT_TABLE: readonly FitKindEntry[] = [
  {
    kind: 'bracelet',
    name: 'Bracelet',
    noun: 'bracelet',
    bend: 'round',
    measure: 'wrist',
    measureName: 'Wrist',
    least: 80,
    most: 400,
    usualMm: 170,
    toleranceMm: 0,
    pieces: 1,
    howTo: 'A tape or paper strip flat round the wrist at the bone: snug, not tight, not stretched. Measure twice.',
    eases: [
      { id: 'close', name: 'close', mm: 6 },
      { id: 'easy', name: 'easy', mm: 13 },
      { id: 'loose', name: 'loose', mm: 22 },
    ],
    closures: [...CLASPS, 'elastic', 'none', 'own'],
    passes: { measure: 'hand', name: 'Hand at its widest', howTo: 'Round the knuckles, thumb folded into the palm.' },
  },
  {
    kind: 'cuff',
    name: 'Rigid cuff',
    noun: 'cuff',
    bend: 'open',
    measure: 'wrist',
    measureName: 'Wrist',
    least: 80,
    most: 400,
    usualMm: 170,
    toleranceMm: 0,
    pieces: 1,
    howTo: 'A tape or paper strip flat round the wrist at the bone: snug, not tight, not stretched. Measure twice.',
    eases: [],
    closures: ['none'],
  },
  {
    kind: 'anklet',
    name: 'Anklet',
    noun: 'anklet',
    bend: 'round',
    measure: 'ankle',
    measureName: 'Ankle',
    least: 120,
    most: 500,
    usualMm: 230,
    toleranceMm: 0,
    pieces: 1,
    howTo: `Round the ankle just above the bone. ${TAPE}`,
    eases: [
      { id: 'close', name: 'close', mm: 6 },
      { id: 'easy', name: 'easy', mm: 13 },
      { id: 'loose', name: 'loose', mm: 22 },
    ],
    closures: [...CLASPS, 'elastic', 'none', 'own'],
    passes: {
      measure: 'heel',
      name: 'Heel over the instep',
      howTo: 'Round heel and instep, the foot stretched: the widest that it must pass.',
    },
  },
  {
    kind: 'choker',
    name: 'Choker',
    noun: 'choker',
    bend: 'round',
    measure: 'neck',
    measureName: 'Neck',
    least: 200,
    most: 600,
    usualMm: 350,
    toleranceMm: 0,
    pieces: 1,
    howTo: `Round the neck where it will sit. ${TAPE}`,
    eases: [
      { id: 'high', name: 'high', mm: 15 },
      { id: 'low', name: 'low', mm: 62 },
    ],
    closures: [...CLASPS, 'breakaway', 'own'],
  },
  {
    kind: 'necklace',
    name: 'Necklace',
    noun: 'necklace',
    bend: 'straight',
    measure: 'necklace',
    measureName: 'Finished length',
    least: 250,
    most: 2000,
    usualMm: 457.2,
    toleranceMm: 12.7,
    pieces: 1,
    howTo:
      'Lay a necklace you like in a straight line, closed, and measure from end to end with its clasp; or ' +
      'hang a string where it should fall.',
    eases: [],
    closures: [...CLASPS.filter((c) => c !== 'slide'), 'breakaway', 'none', 'own'],
    passes: {
      measure: 'head',
      name: 'Head',
      howTo: 'Round forehead and the back of the head: it must pass over. Over 600 mm where nobody measured.',
    },
  },
  {
    kind: 'ring',
    name: 'Ring',
    noun: 'ring',
    bend: 'round',
    measure: 'finger',
    measureName: 'Finger',
    least: 30,
    most: 90,
    usualMm: 54,
    toleranceMm: 1.25,
    pieces: 1,
    howTo:
      'A narrow paper strip round the warm finger, and once more over the knuckle: the ring must pass it. ' +
      'Measure twice.',
    eases: [],
    closures: ['none'],
  },
  {
    kind: 'hoop',
    name: 'Hoops, a pair',
    noun: 'hoop',
    bend: 'round',
    measure: 'hoop',
    measureName: 'Round the hoop',
    least: 30,
    most: 500,
    usualMm: 126,
    toleranceMm: 3,
    pieces: 2,
    howTo:
      'A thread once round the outside of the hoop where the work will sit; or its diameter times 3.14: 40 mm ' +
      'across is 126 mm round. Both of a pair from the same one.',
    eases: [],
    closures: ['none'],
  },
  {
    kind: 'earrings',
    name: 'Earrings, a pair',
    noun: 'earring',
    bend: 'straight',
    measure: 'drop',
    measureName: 'Drop',
    least: 5,
    most: 200,
    usualMm: 40,
    toleranceMm: 3,
    pieces: 2,
    howTo: 'From the loop of the ear wire down to the lowest bead.',
    eases: [],
    closures: ['ear-wire', 'post', 'clip', 'own'],
    hangs: true,
  },
  {
    kind: 'pendant',
    name: 'Pendant or front',
    noun: 'pendant',
    bend: 'straight',
    measure: 'pendant',
    measureName: 'Length of the pendant',
    least: 10,
    most: 400,
    usualMm: 60,
    toleranceMm: 4,
    pieces: 1,
    howTo: 'From the cord or chain down to the lowest bead.',
    eases: [],
    closures: ['bail', 'own'],
    hangs: true,
  },
]

const BY_KIND = new Map(FIT_TABLE.map((k) => [k.kind, k]))

export const fitKindOf = (kind: FitKind): FitKindEntry => BY_KIND.get(kind)!

const WORN_ROUND: Readonly<Record<BodyMeasure, string | null>> = {
  wrist: 'wrist',
  hand: 'wrist',
  ankle: 'ankle',
  heel: 'ankle',
  neck: 'neck',
  head: 'neck',
  necklace: 'neck',
  finger: 'finger',
  hoop: 'hoop',
  drop: null,
  pendant: null,
}

/** What a kind goes round when it is worn, in a word; null of what hangs flat. */
export const wornRound = (kind: FitKind): string | null => WORN_ROUND[fitKindOf(kind).measure]

/** Whether it may be wound round more than once: what goes round a body, not a finger or a hoop. */
export const canWind = (kind: FitKind): boolean => {
  const { bend, eases } = fitKindOf(kind)
  return bend === 'round' && eases.length > 0
}

/** Necklace lengths by name, inches (common practice). */
export const NECKLACE_LENGTHS: readonly { readonly name: string; readonly least: number; readonly most: number }[] = [
  { name: 'collar', least: 12, most: 14 },
  { name: 'choker', least: 14, most: 16 },
  { name: 'short', least: 17, most: 19 },
  { name: 'mid', least: 20, most: 24 },
  { name: 'long', least: 28, most: 36 },
  { name: 'rope', least: 36, most: 60 },
]

/** A necklace without a clasp must pass the head: over this, mm, where the head was not measured (common practice). */
export const PASSES_HEAD_MM = 600

/** Share of the wrist that the band of a rigid cuff covers (common practice: three quarters to four fifths). */
export const CUFF_SHARE = { least: 0.75, most: 0.8 } as const

/** Gap that lets the wrist in sideways, mm (common practice). */
export const CUFF_GAP_MM = { least: 25, most: 30 } as const

/** Rings wider than this, mm, need half a size more. */
export const WIDE_RING_MM = 6

/** Weight of one earring, g (common practice): comfortable under, careful above. */
export const EARRING_GRAMS = { comfortable: 7, careful: 10 } as const

/** Elastic is made up to so much less than the wrist, mm. */
export const ELASTIC_LESS_MM = 5
