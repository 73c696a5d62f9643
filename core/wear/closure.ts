/** Closures and the length each takes up of the round, measured closed with its rings and loops (common practice). */
export const CLOSURE_KINDS = [
  'hook',
  'toggle',
  'bar',
  'magnet',
  'button',
  'slide',
  'breakaway',
  'elastic',
  'none',
  'ear-wire',
  'post',
  'clip',
  'bail',
  'own',
] as const

export type ClosureKind = (typeof CLOSURE_KINDS)[number]

interface ClosureEntry {
  readonly kind: ClosureKind
  readonly name: string
  /** Usual length taken up, mm. */
  readonly lengthMm: number
  /** Thread for sewing it on at both ends, loops passed three times, mm. */
  readonly sewingMm: number
  readonly note: string
  readonly caution?: string
}

const EAR_CAUTION =
  'Metal in a pierced ear: nickel release is limited by law in many places. Say “nickel-free” only with the ' +
  'maker’s statement, file post ends smooth; a sore ear needs a doctor.'

export const CLOSURES: readonly ClosureEntry[] = [
  {
    kind: 'toggle',
    name: 'Toggle: ring and bar',
    lengthMm: 14,
    sewingMm: 120,
    note: 'Usually 12–15 mm. The bar must pass the ring: leave a few plain beads before it.',
  },
  {
    kind: 'hook',
    name: 'Small hook or claw with ring',
    lengthMm: 11,
    sewingMm: 120,
    note: 'Usually 10–12 mm with its ring.',
  },
  { kind: 'bar', name: 'Bar in a woven loop', lengthMm: 10, sewingMm: 160, note: 'Measure it closed, loop included.' },
  {
    kind: 'button',
    name: 'Button and loop',
    lengthMm: 12,
    sewingMm: 180,
    note: 'The opening of the loop counts; where the band overlaps itself, the overlap subtracts.',
  },
  {
    kind: 'slide',
    name: 'Slide-lock tube',
    lengthMm: 8,
    sewingMm: 240,
    note: 'As long as the band is wide; sewn along the whole end.',
  },
  {
    kind: 'magnet',
    name: 'Magnetic barrel',
    lengthMm: 7,
    sewingMm: 120,
    note: 'Usually 6–8 mm.',
    caution:
      'Magnets are dangerous if swallowed and must be kept from people with implanted devices. Not for small ' +
      'children.',
  },
  {
    kind: 'breakaway',
    name: 'Breakaway clasp',
    lengthMm: 18,
    sewingMm: 120,
    note: 'Opens under a pull: the clasp for children’s necklaces. Measure yours closed.',
  },
  {
    kind: 'elastic',
    name: 'Elastic, knotted',
    lengthMm: 0,
    sewingMm: 0,
    note: 'No clasp: it stretches over the hand. Made as long as the wrist, or up to 5 mm less.',
  },
  {
    kind: 'none',
    name: 'No closure, ends joined',
    lengthMm: 0,
    sewingMm: 0,
    note: 'It must pass what it is put on over.',
  },
  {
    kind: 'ear-wire',
    name: 'Ear wire',
    lengthMm: 3,
    sewingMm: 60,
    note: 'What hangs between the loop of the wire and the beadwork: ring or loop of thread.',
    caution: EAR_CAUTION,
  },
  {
    kind: 'post',
    name: 'Post with loop',
    lengthMm: 4,
    sewingMm: 60,
    note: 'A post is about 10 mm long and 0.6–0.8 mm thick; measure from the ear down to the beadwork.',
    caution: EAR_CAUTION,
  },
  {
    kind: 'clip',
    name: 'Ear clip with loop',
    lengthMm: 6,
    sewingMm: 60,
    note: 'For ears that are not pierced. Measure from the ear down to the beadwork.',
  },
  {
    kind: 'bail',
    name: 'Bail or ring on the cord',
    lengthMm: 6,
    sewingMm: 60,
    note: 'What goes over cord or chain, measured from there down to the beadwork.',
  },
  {
    kind: 'own',
    name: 'Another closure',
    lengthMm: 12,
    sewingMm: 120,
    note: 'Measure it closed, with its rings and loops.',
  },
]

const BY_KIND = new Map(CLOSURES.map((c) => [c.kind, c]))

export const closureOf = (kind: ClosureKind): ClosureEntry => BY_KIND.get(kind)!

/**
 * A closure as a piece has it. Beyond its own length it may overlap, be lengthened by a chain, or have several
 * openings.
 */
export interface Closure {
  readonly kind: ClosureKind
  /** Name of one's own; empty for the catalogue's. */
  readonly name: string
  readonly lengthMm: number
  /** Beadwork that lies over beadwork when closed, mm. */
  readonly overlapMm: number
  readonly extenderMm: number
  readonly openings: number
  readonly openingStepMm: number
  /** How the loop that something hangs by is seen: on its edge, or round from the front. */
  readonly loop: 'side' | 'front'
}

/** A closure at its usual length. */
export const usualClosure = (kind: ClosureKind): Closure => ({
  kind,
  name: '',
  lengthMm: closureOf(kind).lengthMm,
  overlapMm: 0,
  extenderMm: 0,
  openings: 1,
  openingStepMm: 8,
  loop: 'side',
})

export const closureName = ({ kind, name }: Pick<Closure, 'kind' | 'name'>): string => name || closureOf(kind).name

export const sameClosure = (a: Closure, b: Closure): boolean =>
  a.kind === b.kind &&
  a.name === b.name &&
  a.lengthMm === b.lengthMm &&
  a.overlapMm === b.overlapMm &&
  a.extenderMm === b.extenderMm &&
  a.openings === b.openings &&
  a.openingStepMm === b.openingStepMm &&
  a.loop === b.loop

/** How far a closure can be let out beyond its shortest, mm: by its chain, by its further openings, or by both. */
export const letOutMm = ({ extenderMm, openings, openingStepMm }: Closure): number =>
  extenderMm + (openings - 1) * openingStepMm

/**
 * The settings between shortest and longest that a closure really has: a chain closes anywhere, openings only at their
 * steps.
 */
export function settingsOf(closure: Closure, wantedMore: number): number {
  const most = letOutMm(closure)
  if (wantedMore <= 0 || most === 0) return 0
  if (wantedMore >= most) return most
  if (closure.extenderMm > 0) {
    // The opening below and as much chain as is needed; where the chain is too short for the gap, the nearer end of
    // the gap.
    const step =
      Math.min(closure.openings - 1, closure.openingStepMm > 0 ? Math.floor(wantedMore / closure.openingStepMm) : 0) *
      closure.openingStepMm
    const reached = Math.min(wantedMore, step + closure.extenderMm)
    const next = step + closure.openingStepMm
    return closure.openings > 1 && reached < wantedMore && next <= most && next - wantedMore < wantedMore - reached
      ? next
      : reached
  }
  return Math.round(wantedMore / closure.openingStepMm) * closure.openingStepMm
}
