import { measured, type MeasuredCurve, type Segment } from './curve'
import { kinkOffMm, wireTakenMm, type Bent } from './section'

/**
 * Rows of beads wound round a stem with beads on it: each row lies on the outline of what is there, moved out by half
 * of itself. Lengths in mm, y down along the stem.
 */

/** A circle on the stem. */
interface OnStem {
  readonly y: number
  readonly r: number
}

/** Beads of a stem from its head down, each by its hole; the head of the first lies at 0. */
export function onStem(beads: readonly Pick<Bent, 'l' | 'd'>[]): OnStem[] {
  let y = 0
  return beads.map(({ l, d }) => {
    y += l
    return { y: y - l / 2, r: d / 2 }
  })
}

/** Half the angle of a tip to the stem, radians, at the head and at the foot; round where none is said. */
export interface Tips {
  readonly head?: number | undefined
  readonly foot?: number | undefined
}

/** How far circles reach towards a side that leans by `tip` to the stem, and towards their head. */
const reachMm = (circles: readonly OnStem[], tip: number): number =>
  Math.max(...circles.map(({ y, r }) => r - y * Math.sin(tip)))

/** The same circles from their foot up. */
const fromFoot = (circles: readonly OnStem[]): OnStem[] => circles.map(({ y, r }) => ({ y: -y, r }))

/** How much farther a tip stands out than a round end, of rows that lie `out` outside. */
export const tipMm = (
  circles: readonly OnStem[],
  out: number,
  { head, foot }: Tips,
): { head: number; foot: number } => {
  const more = (of: readonly OnStem[], tip: number | undefined): number =>
    tip === undefined ? 0 : (reachMm(of, tip) + out) / Math.sin(tip) - (reachMm(of, Math.PI / 2) + out)
  return { head: more(circles, head), foot: more(fromFoot(circles), foot) }
}

/** How much longer a side is for each millimetre that it lies farther out: π, and more where it comes to a tip. */
export const sideGrowth = ({ head, foot }: Tips): number =>
  [head, foot].reduce<number>((sum, tip) => sum + (tip === undefined ? Math.PI / 2 : tip + 1 / Math.tan(tip)), 0)

/**
 * The right half of the hull of circles on a stem, moved out by `out`, from its head to its foot: arcs about the
 * circles, and the lines that touch two of them. To a tip a line leads that touches the hull, from the stem on.
 */
export function halfHull(circles: readonly OnStem[], out: number, tips: Tips = {}): MeasuredCurve {
  const all = circles.map(({ y, r }) => ({ y, r: r + out }))
  const segments: Segment[] = []
  if (all.length === 0) return measured({ segments: [{ do: 'line', from: ORIGIN, to: ORIGIN }], closed: false })
  const touch = ({ y, r }: OnStem, at: number) => ({ x: r * Math.sin(at), y: y - r * Math.cos(at) })
  /** The circle that stands out most towards an angle. */
  const outmost = (at: number) =>
    all.reduce((best, one) => (one.r - one.y * Math.cos(at) > best.r - best.y * Math.cos(at) ? one : best))
  // Angles from the head, clockwise: where the hull begins, and where it ends.
  let from = tips.head === undefined ? 0 : Math.PI / 2 - tips.head
  const last = tips.foot === undefined ? Math.PI : Math.PI / 2 + tips.foot
  let here = outmost(from)
  if (tips.head !== undefined)
    segments.push({
      do: 'line',
      from: { x: 0, y: -reachMm(all, tips.head) / Math.sin(tips.head) },
      to: touch(here, from),
    })
  for (;;) {
    const next = all.flatMap((to) => {
      if (to.y <= here.y) return []
      const lean = (to.r - here.r) / (to.y - here.y)
      // Where one holds the other no line touches both.
      if (Math.abs(lean) >= 1) return []
      const angle = Math.PI / 2 - Math.asin(lean)
      return angle > from + 1e-12 && angle < last ? [{ to, angle }] : []
    })
    const first = next.reduce<(typeof next)[number] | null>(
      (best, one) =>
        best && (best.angle < one.angle || (best.angle === one.angle && best.to.y > one.to.y)) ? best : one,
      null,
    )
    const to = first?.angle ?? last
    segments.push({ do: 'arc', middle: { x: 0, y: here.y }, a: here.r, b: here.r, from, to })
    if (!first) break
    segments.push({ do: 'line', from: touch(here, to), to: touch(first.to, to) })
    here = first.to
    from = to
  }
  if (tips.foot !== undefined)
    segments.push({
      do: 'line',
      from: touch(here, last),
      to: { x: 0, y: reachMm(fromFoot(all), tips.foot) / Math.sin(tips.foot) },
    })
  return measured({ segments, closed: false })
}
const ORIGIN = { x: 0, y: 0 }

/** How far the middle of each row’s wire lies outside the outline: all rows before it, and half of its own. */
export const outOf = (thick: readonly number[]): number[] => {
  let before = 0
  return thick.map((d) => {
    before += d
    return before - d / 2
  })
}

/**
 * Turns on the stem at an end before a row, as many as it is thick, so that it lies beside the row before; at a tip
 * the stem is crossed at a slant.
 */
export const stemTurns = (before: number | null, thick: number, wireMm: number, tip = Math.PI / 2): number =>
  Math.max(1, Math.round((before === null ? thick : before + thick) / (2 * wireMm * Math.sin(tip))))

/** Wire that beads take along a curve on average, mm each. */
export function takenAlong(curve: MeasuredCurve, bead: Bent): number {
  if (curve.lengthMm <= 0) return bead.l
  const steps = 240
  let sum = 0
  for (let k = 0; k < steps; k++) {
    const bend = curve.bendAt(((k + 0.5) / steps) * curve.lengthMm)
    sum += (bend === 0 ? bead.l : (wireTakenMm(bead, 1 / Math.abs(bend)) ?? 2 * bead.l)) / steps
  }
  return sum
}

export interface WoundRow {
  /** Its half outline, where the middle of its wire lies. */
  readonly curve: MeasuredCurve
  /** What stays free of beads at its head and at its foot, mm along it: the stem, and the beads of the other side. */
  readonly clearMm: { readonly head: number; readonly foot: number }
  /** Room for beads on one side, mm, and what one takes of it. */
  readonly fillMm: number
  readonly takenMm: number
  /** Beads for each side; and what they leave, mm: below 0 they lift the row by a part of it (`sideGrowth`). */
  readonly count: number
  readonly slackMm: number
  /** Turns of the winding wire on the stem before it, at its head and at its foot. */
  readonly turns: { readonly head: number; readonly foot: number }
}

export interface Winding {
  readonly stemMm: number
  readonly wireMm: number
  readonly tips?: Tips
}

/** Rows round what stands on a stem: how many of a bead each takes on each side. */
export function woundRows(
  circles: readonly OnStem[],
  rows: readonly Bent[],
  { stemMm, wireMm, tips = {} }: Winding,
): WoundRow[] {
  const outs = outOf(rows.map(({ d }) => d))
  const inset = stemMm / 2 + wireMm
  return rows.map((bead, k) => {
    const curve = halfHull(circles, outs[k]!, tips)
    // At a tip both sides come to the stem at a slant, and their first beads to each other.
    const clear = (tip: number | undefined): number =>
      tip === undefined ? inset : Math.max(inset / Math.sin(tip), kinkOffMm(bead, Math.PI - 2 * tip))
    const clearMm = { head: clear(tips.head), foot: clear(tips.foot) }
    const fillMm = Math.max(0, curve.lengthMm - clearMm.head - clearMm.foot)
    const takenMm = takenAlong(curve, bead)
    const count = Math.round(fillMm / takenMm)
    const turns = (tip: number | undefined) => stemTurns(k === 0 ? null : rows[k - 1]!.d, bead.d, wireMm, tip)
    return {
      ...{ curve, clearMm, fillMm, takenMm, count },
      slackMm: fillMm - count * takenMm,
      turns: { head: turns(tips.head), foot: turns(tips.foot) },
    }
  })
}

/** More rows than this clump (common practice). */
export const MOST_ROWS = 4

/** Wire of rows of beads round a stem, mm: both sides of each and their turns on the stem. */
export const woundWireMm = (rows: readonly WoundRow[], { stemMm, wireMm }: Winding): number =>
  rows.reduce(
    (sum, { curve, turns }) => sum + 2 * curve.lengthMm + (turns.head + turns.foot) * Math.PI * (stemMm + wireMm),
    0,
  )
