import { keyOf } from '../../grid/key'
import { keptOf, type HungStrand } from '../../recipe/hung'
import type { Row } from '../../recipe/rows'
import { tenths, thickOf } from '../carrier/line'
import type { HeldPlace } from '../held'
import { halfBox } from '../lattice'
import { rowsOfWork, type RowLayout } from '../row-work'
import { rangeOf, type Extent, type Work } from '../technique'
import { strandPlanOf } from './strand-plan'
import { hangStrand, type Hanging } from './strand'

/** How the strands of a fringe hang beside each other: which from where, and how far down. Lengths in mm. */

/** How lines hang beside each other, by the settings of their technique. */
export interface Hanger {
  /** Beads at the end of a line that its thread turns round; 0 on a pin. */
  readonly turning: number
  /** Place that the first line hangs from, counted from 1; 0: so that as many are left over on both sides. */
  readonly first: number
  readonly every: number
  readonly each: number
  /** From one to the next where they hang on nothing, mm; 0: as thick as they are. */
  readonly pitch: number
  /** What is between a place and the first bead, mm: the loop of a pin. */
  readonly loopMm: number
}

/** Room that a strand takes in the row, mm: its thickest bead that is not at its end. */
export const bodyOf = (strand: HungStrand): number => thickOf(strand.row.slice(0, keptOf(strand)))

/** Place, from 0, that the first line hangs from; in the middle as nearly as it can where it is asked to be. */
function firstPlace({ held }: Pick<Work, 'held'>, count: number, { first, every, each }: Hanger): number {
  if (first > 0) return first - 1
  const spare = (held?.places.length ?? 0) - 1 - every * (Math.ceil(count / each) - 1)
  return Math.max(0, Math.floor(spare / 2))
}

/** How strands hang by their plan and settings, from which place each. */
export function strandsOf(work: Pick<Work, 'plan' | 'held'>, rows: readonly Row[], hanger: Hanger): HungStrand[] {
  const { turning, every, each } = hanger
  const first = firstPlace(work, rows.length, hanger)
  const own = new Map(strandPlanOf(work.plan).own.map((one) => [one.strand, one]))
  return rows.map((row, i) => {
    const mine = own.get(i)
    return {
      row,
      at: mine?.at ?? first + Math.floor(i / each) * every,
      to: mine?.to ?? null,
      turning: Math.min(row.length, mine?.turning ?? turning),
    }
  })
}

/** Places that strands hang from: those of what holds them, gone on with where they are too few. */
export function placesFor(
  { held: holds }: Pick<Work, 'held'>,
  strands: readonly HungStrand[],
  { pitch }: Hanger,
): HeldPlace[] {
  const held = holds?.places ?? []
  const last = strands.reduce((most, { at, to }) => Math.max(most, at, to ?? 0), 0)
  const between = held.length > 1 ? Math.abs((held[0]!.x - held.at(-1)!.x) / (held.length - 1)) : 0
  const step =
    pitch > 0 && held.length === 0 ? pitch : between || Math.max(1, ...strands.map(bodyOf).filter((mm) => mm > 0))
  if (held.length === 0)
    return Array.from({ length: last + 1 }, (_, k) => ({ x: (last / 2 - k) * step, y: 0, bead: null }))
  const end = held.at(-1)!
  return [
    ...held,
    ...Array.from({ length: Math.max(0, last + 1 - held.length) }, (_, k) => ({ ...end, x: end.x - (k + 1) * step })),
  ]
}

/** How all strands hang. */
export interface Curtain {
  readonly strands: readonly Hanging[]
  readonly places: readonly HeldPlace[]
  /** From one place that carries strands to the next, mm, on average. */
  readonly pitchMm: number
  /** Strands that come back to each such place, on average. */
  readonly sharing: number
}

export function curtainOf(work: Work, hanger: Hanger, rows: readonly Row[] = rowsOfWork(work)): Curtain {
  const { each, loopMm } = hanger
  const strands = strandsOf(work, rows, hanger)
  const places = placesFor(work, strands, hanger)
  const hung = strands.filter(({ to }) => to === null)
  const used = [...new Set((hung.length > 0 ? hung : strands).map(({ at }) => at))].map((at) => places[at]!.x)
  const pitchMm =
    used.length > 1 ? (Math.max(...used) - Math.min(...used)) / (used.length - 1) : Math.max(1, ...strands.map(bodyOf))
  // Strands that share a place stand beside each other below it.
  const sharing = new Map<number, number>()
  for (const { at, to } of strands) if (to === null) sharing.set(at, (sharing.get(at) ?? 0) + 1)
  const before = new Map<number, number>()
  const hanging = strands.map((strand) => {
    const { at, to } = strand
    const many = sharing.get(at) ?? 1
    const nth = before.get(at) ?? 0
    if (to === null) before.set(at, nth + 1)
    const aside = to === null && many > 1 ? ((many - 1) / 2 - nth) * Math.min(bodyOf(strand), pitchMm / each) : 0
    return hangStrand(strand, places[at]!, to === null ? null : places[to]!, { asideMm: aside, loopMm })
  })
  return { strands: hanging, places, pitchMm, sharing: Math.max(1, hung.length / Math.max(1, used.length)) }
}

/** The box that a curtain fills, mm: from its highest place to its lowest bead. */
function boxOf({ strands, places }: Curtain): { left: number; right: number; top: number; bottom: number } {
  const box = { left: Infinity, right: -Infinity, top: Infinity, bottom: -Infinity }
  const used = new Set(strands.flatMap(({ at, to }) => (to === null ? [at] : [at, to])))
  for (const at of used) {
    const { x, y } = places[at]!
    box.left = Math.min(box.left, x)
    box.right = Math.max(box.right, x)
    box.top = Math.min(box.top, y)
    box.bottom = Math.max(box.bottom, y)
  }
  for (const { beads, endMm } of strands) {
    box.bottom = Math.max(box.bottom, endMm)
    for (const { x, turnDegrees, bead } of beads) {
      const half = Math.max(
        halfBox({ beadX: bead.l, beadY: bead.d }, turnDegrees).x,
        bead.hangs === undefined ? 0 : bead.d / 2,
      )
      box.left = Math.min(box.left, x - half)
      box.right = Math.max(box.right, x + half)
    }
  }
  return used.size === 0 ? { left: 0, right: 1, top: 0, bottom: 1 } : box
}

/** From the highest place of a curtain to its lowest bead, mm. */
export function curtainLong(curtain: Curtain): number {
  const { top, bottom } = boxOf(curtain)
  return bottom - top
}

/** How large a curtain is; `counted` says of how many, `more` what is in its length besides beads. */
export function curtainExtent(
  curtain: Curtain,
  rows: readonly Row[],
  { spread, counted, more }: { readonly spread: number; readonly counted: string; readonly more: string },
): Extent {
  const box = boxOf(curtain)
  const [long, wide] = [box.bottom - box.top, box.right - box.left]
  return {
    lengthMm: rangeOf(long, spread),
    widthMm: rangeOf(wide, spread),
    thicknessMm: rows.reduce((most, row) => Math.max(most, thickOf(row)), 0.1),
    basis: { kind: 'nominal', spread },
    lengthFormula: `lowest bead ${tenths(long)} mm below the highest place${more}`,
    widthFormula: `${counted}: ${tenths(wide)} mm`,
  }
}

/** Where the beads of a curtain lie in its box, and where strands go into what holds them. */
export function curtainLayout(curtain: Curtain, columns: number): RowLayout {
  const { strands, places } = curtain
  const box = boxOf(curtain)
  const to = (x: number, y: number) => ({ x: x - box.left, y: y - box.top })
  const placed = strands.flatMap(({ beads }, r) =>
    beads.map(({ x, y, turnDegrees, bead }, c) => ({ key: keyOf(columns, c, r), ...to(x, y), turnDegrees, bead })),
  )
  return {
    placed,
    carriers: [],
    widthMm: box.right - box.left,
    lengthMm: box.bottom - box.top,
    hungAt: to(0, 0),
    fixtureAt(fixture, row) {
      const strand = strands[row]
      const at = fixture === 'far' ? strand?.to : strand?.at
      if (at === undefined || at === null) return null
      // A place is gone into from above: a bead’s length over its lower edge.
      const { x, y, bead } = places[at]!
      return to(x, y - (bead?.l ?? 0))
    },
  }
}
