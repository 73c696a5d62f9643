/** Closures and the length each takes up of the round, measured closed with its rings and loops (common practice). */
export const CLOSURE_KINDS = ['hook', 'toggle', 'bar', 'magnet', 'button', 'slide', 'none'] as const

export type ClosureKind = (typeof CLOSURE_KINDS)[number]

export interface ClosureEntry {
  readonly kind: ClosureKind
  readonly name: string
  /** Usual length taken up, mm. */
  readonly lengthMm: number
  /** Thread for sewing it on at both ends, loops passed three times, mm. */
  readonly sewingMm: number
  readonly note: string
  readonly caution?: string
}

export const CLOSURES: readonly ClosureEntry[] = [
  { kind: 'toggle', name: 'Toggle: ring and bar', lengthMm: 14, sewingMm: 120, note: 'Usually 12–15 mm. The bar must pass the ring: leave a few plain beads before it.' },
  { kind: 'hook', name: 'Small hook or claw with ring', lengthMm: 11, sewingMm: 120, note: 'Usually 10–12 mm with its ring.' },
  { kind: 'bar', name: 'Bar in a woven loop', lengthMm: 10, sewingMm: 160, note: 'Measure it closed, loop included.' },
  { kind: 'button', name: 'Button and loop', lengthMm: 12, sewingMm: 180, note: 'The opening of the loop counts; where the band overlaps itself, the overlap subtracts.' },
  { kind: 'slide', name: 'Slide-lock tube', lengthMm: 8, sewingMm: 240, note: 'As long as the band is wide; sewn along the whole end.' },
  { kind: 'magnet', name: 'Magnetic barrel', lengthMm: 7, sewingMm: 120, note: 'Usually 6–8 mm.', caution: 'Magnets are dangerous if swallowed and must be kept from people with implanted devices. Not for small children.' },
  { kind: 'none', name: 'No closure, ends joined', lengthMm: 0, sewingMm: 0, note: 'It must pass the hand at its widest, thumb folded.' },
]

const BY_KIND = new Map(CLOSURES.map(c => [c.kind, c]))

export const closureOf = (kind: ClosureKind): ClosureEntry => BY_KIND.get(kind)!
