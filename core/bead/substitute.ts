import { difference } from '../colour/colour'
import type { TrayBead } from './bead'
import { BEAD_SPECS, requireSpec, type BeadSpec } from './spec'

/** What stands in for a bead that one lacks. */
export type Coloured = Pick<TrayBead, 'name' | 'spec' | 'colour' | 'finish'>

interface NearBead<T extends Coloured> {
  readonly bead: T
  /** Colour difference ΔE00; beads of another finish count as further off. */
  readonly deltaE: number
  readonly sameFinish: boolean
}

/** A finish shows more than a small difference of colour: this much ΔE00 is added where it differs. */
const OTHER_FINISH = 6

/** Beads of the same size, nearest in colour first; at most `most`. */
export function nearestInColour<T extends Coloured>(wanted: Coloured, among: readonly T[], most = 5): NearBead<T>[] {
  return among
    .filter((b) => b.spec === wanted.spec)
    .map((bead) => ({
      bead,
      deltaE: difference(wanted.colour, bead.colour),
      sameFinish: bead.finish === wanted.finish,
    }))
    .sort((a, b) => a.deltaE + (a.sameFinish ? 0 : OTHER_FINISH) - b.deltaE - (b.sameFinish ? 0 : OTHER_FINISH))
    .slice(0, most)
}

interface RunInstead {
  readonly spec: BeadSpec
  /** So many of these … */
  readonly count: number
  /** … for so many of the bead that is lacking. */
  readonly forCount: number
  /** Their length less the length that they stand for, mm. */
  readonly lengthErrorMm: number
  /** Their weight less that of what they stand for, g. */
  readonly gramsMore: number
}

/**
 * Runs of other sizes that keep the length along the thread: one long bead by a run of short ones (a 7 mm bugle by
 * five 11/0), or a short run by fewer of a neighbouring size. `tolerance`: largest error as a share of the length; the
 * least error comes first.
 */
function runsInstead(wanted: BeadSpec, specs: readonly BeadSpec[] = BEAD_SPECS, tolerance = 0.06): RunInstead[] {
  const out: RunInstead[] = []
  for (const spec of specs) {
    // Only what is threaded the same way: one hole, and not so thick that the row would bulge.
    if (
      spec.id === wanted.id ||
      spec.spacing !== undefined ||
      wanted.spacing !== undefined ||
      spec.d > 1.5 * Math.max(wanted.d, 1.6)
    )
      continue
    let best: RunInstead | null = null
    for (let forCount = 1; forCount <= 6; forCount++) {
      const lengthMm = forCount * wanted.l
      const count = Math.max(1, Math.round(lengthMm / spec.l))
      const lengthErrorMm = count * spec.l - lengthMm
      if (Math.abs(lengthErrorMm) / lengthMm > tolerance) continue
      if (!best || Math.abs(lengthErrorMm) / forCount < Math.abs(best.lengthErrorMm) / best.forCount - 0.02)
        best = { spec, count, forCount, lengthErrorMm, gramsMore: count / spec.perGram - forCount / wanted.perGram }
      if (Math.abs(lengthErrorMm) / lengthMm < 0.01) break
    }
    if (best) out.push(best)
  }
  return out.sort(
    (a, b) => a.forCount + a.count - b.forCount - b.count || Math.abs(a.lengthErrorMm) - Math.abs(b.lengthErrorMm),
  )
}

/** The same by the id of the lacking bead. */
export const runsInsteadOf = (spec: string): RunInstead[] => runsInstead(requireSpec(spec))
