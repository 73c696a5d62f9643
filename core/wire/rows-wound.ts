import { measured, type MeasuredCurve, type Segment } from './curve'
import { wireTakenMm, type Bent } from './section'

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

/**
 * The right half of the hull of circles on a stem, moved out by `out`, from its head to its foot: arcs about the
 * circles, and the lines that touch two of them.
 */
export function halfHull(circles: readonly OnStem[], out: number): MeasuredCurve {
  const all = circles.map(({ y, r }) => ({ y, r: r + out }))
  const segments: Segment[] = []
  if (all.length === 0) return measured({ segments: [{ do: 'line', from: ORIGIN, to: ORIGIN }], closed: false })
  let here = all.reduce((best, one) => (one.y - one.r < best.y - best.r ? one : best))
  // Angles from the head, clockwise.
  let from = 0
  for (;;) {
    const next = all.flatMap((to) => {
      if (to.y <= here.y) return []
      const lean = (to.r - here.r) / (to.y - here.y)
      // Where one holds the other no line touches both.
      if (Math.abs(lean) >= 1) return []
      const angle = Math.PI / 2 - Math.asin(lean)
      return angle > from + 1e-12 ? [{ to, angle }] : []
    })
    const first = next.reduce<(typeof next)[number] | null>(
      (best, one) =>
        best && (best.angle < one.angle || (best.angle === one.angle && best.to.y > one.to.y)) ? best : one,
      null,
    )
    const to = first?.angle ?? Math.PI
    segments.push({ do: 'arc', middle: { x: 0, y: here.y }, a: here.r, b: here.r, from, to })
    if (!first) break
    const touch = ({ y, r }: OnStem) => ({ x: r * Math.sin(to), y: y - r * Math.cos(to) })
    segments.push({ do: 'line', from: touch(here), to: touch(first.to) })
    here = first.to
    from = to
  }
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

/** Turns on the stem at each end before a row, as many as it is thick: so that it lies beside the row before. */
export const stemTurns = (before: number | null, thick: number, wireMm: number): number =>
  Math.max(1, Math.round((before === null ? thick : before + thick) / (2 * wireMm)))

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
  /** Room for beads on one side, mm, and what one takes of it. */
  readonly fillMm: number
  readonly takenMm: number
  /** Beads for each side; and what they leave, mm: below 0 they lift the row by a πth part of it. */
  readonly count: number
  readonly slackMm: number
  /** Turns of the winding wire on the stem before it, at its foot and at its head. */
  readonly turns: number
}

/** Rows round what stands on a stem: how many of a bead each takes on each side. */
export function woundRows(
  circles: readonly OnStem[],
  rows: readonly Bent[],
  { stemMm, wireMm }: { readonly stemMm: number; readonly wireMm: number },
): WoundRow[] {
  const outs = outOf(rows.map(({ d }) => d))
  return rows.map((bead, k) => {
    const curve = halfHull(circles, outs[k]!)
    const fillMm = Math.max(0, curve.lengthMm - 2 * (stemMm / 2 + wireMm))
    const takenMm = takenAlong(curve, bead)
    const count = Math.round(fillMm / takenMm)
    return {
      ...{ curve, fillMm, takenMm, count },
      slackMm: fillMm - count * takenMm,
      turns: stemTurns(k === 0 ? null : rows[k - 1]!.d, bead.d, wireMm),
    }
  })
}

/** More rows than this clump (common practice). */
export const MOST_ROWS = 4

/** Wire of a row of beads round a stem, mm: both sides and its turns on the stem. */
export const woundWireMm = (
  rows: readonly WoundRow[],
  { stemMm, wireMm }: { readonly stemMm: number; readonly wireMm: number },
): number =>
  rows.reduce((sum, { curve, turns }) => sum + 2 * curve.lengthMm + 2 * turns * Math.PI * (stemMm + wireMm), 0)
