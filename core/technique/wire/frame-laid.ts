import { keyOf } from '../../grid/key'
import type { Row } from '../../recipe/rows'
import { wireDiameterMm } from '../../units/wire-gauge'
import { freeSpanMm } from '../../wire/cross'
import type { MeasuredCurve } from '../../wire/curve'
import { fellowGap, placesOnFrame, type FramePlace } from '../../wire/frame'
import type { Carrier, PlacedBead } from '../drawing'
import type { Point } from '../lattice'
import type { Work } from '../technique'
import type { Cross } from '../wire-side'
import { fillingOf } from './fillings'
import type { FilledSpan } from './filling'
import {
  crossesOf,
  frameCurve,
  frameSize,
  freeMmOf,
  gauged,
  loopEnds,
  readFrame,
  topLoop,
  type OwnFrame,
} from './frame-own'
import { coil } from './coil'
import { keptByShape, ringPoints } from './wire-work'

/** A frame with its beads, and the wires across it, as they lie. Lengths in mm. */

export interface LaidCross extends Cross {
  readonly row: Row
  readonly filled: FilledSpan
  readonly freeMm: number
  /** Where it comes out of the frame, on the left and on the right. */
  readonly from: Point
  readonly to: Point
}

export interface Measured {
  readonly own: OwnFrame
  readonly curve: MeasuredCurve
  readonly beads: Row
  readonly freeMm: number
  readonly places: readonly FramePlace[]
  readonly crosses: readonly LaidCross[]
}

/** The middle of the gap behind so many beads of a frame. */
export function gapPoint(curve: MeasuredCurve, places: readonly FramePlace[], gap: number): Point {
  const before = places[gap - 1]
  const after = places[gap]
  if (!before || !after) return curve.at(before ? before.to : (after?.from ?? 0))
  return curve.at((before.to + after.from) / 2)
}

export const measure = keptByShape((work: Work, rows: readonly Row[]): Measured => {
  const asked = readFrame(work.settings)
  const [beads = [], ...lines] = rows
  const plan = crossesOf(asked, work.plan, lines.length, beads.length)
  const own = gauged(
    asked,
    rows,
    plan.map(({ filling }) => filling),
  )
  const freeMm = freeMmOf(own, beads, plan)
  const curve = frameCurve(own, beads, freeMm)
  const { places } = placesOnFrame(curve, beads)
  const crosses = plan.map((cross, k) => {
    const laid = layCross({ curve, places, beads }, cross, lines[k]!)
    // Several in one gap would hide each other: each is shown a little lower, and is a finding.
    const before = plan.slice(0, k).filter((one) => sameGaps(one, cross, beads.length)).length
    const lower = ({ x, y }: Point) => ({ x, y: y + before * SHOWN_LOWER_MM })
    return before === 0 ? laid : { ...laid, from: lower(laid.from), to: lower(laid.to) }
  })
  return { own, curve, beads, freeMm, places, crosses }
})

const SHOWN_LOWER_MM = 0.4

const sameGaps = (a: Cross, b: Cross, beads: number): boolean => {
  const [one, other] = [gapsOf(a, beads), gapsOf(b, beads)]
  return one.left === other.left && one.right === other.right
}

export interface Bent {
  readonly curve: MeasuredCurve
  readonly places: readonly FramePlace[]
  readonly beads: Row
}

/** Gaps of a wire across, within the frame. */
export function gapsOf({ gap, left }: Cross, beads: number): { readonly right: number; readonly left: number } {
  const within = (at: number) => Math.max(1, Math.min(Math.max(1, beads - 1), at))
  return { right: within(gap), left: within(fellowGap(left ?? gap, beads)) }
}

/** Room for a row at a height, between the beads of the frame. */
const freeAt = ({ curve, beads }: Bent, y: number, high: number): number =>
  freeSpanMm(
    curve,
    y,
    high,
    beads.reduce((most, { d }) => Math.max(most, d), 0),
  )

/** Beads across at most. */
export const MOST_ACROSS = 400
/** What is longer than its room by less than this fits, mm. */
const FITS_MM = 0.05

export const overMm = ({ filled, freeMm }: Pick<LaidCross, 'filled' | 'freeMm'>): number => {
  const over = filled.longMm - freeMm
  return over > FITS_MM ? over : 0
}

/** How high two rows are together, and how far apart they lie, mm. */
export const roomBetween = (one: LaidCross, other: LaidCross) => ({
  highMm: (one.filled.highMm + other.filled.highMm) / 2,
  apartMm: Math.abs(one.from.y + one.to.y - other.from.y - other.to.y) / 2,
})

export function lieInEachOther(one: LaidCross, other: LaidCross): boolean {
  const { highMm, apartMm } = roomBetween(one, other)
  return one.row.length > 0 && other.row.length > 0 && apartMm < highMm - FITS_MM
}

/**
 * What a filling takes in its place: asked again with the room that is left by how high it comes to be, and with less
 * of it until that fits; small beads alone, as many as fit after all. The least that it takes where nothing does.
 */
export function proposed(bent: Bent, cross: Cross, small: Work['bead'], large: Work['bead']): number[] {
  const filling = fillingOf(cross.filling)
  const laid = (parts: readonly number[]) =>
    layCross(
      bent,
      cross,
      parts.map((part) => (part === 0 ? small : large)),
    )
  const asked = (freeMm: number) => filling.propose(freeMm, small, large)
  let room = laid(asked(laid([1]).freeMm)).freeMm
  let parts = asked(room)
  while (room > 0 && overMm(laid(parts)) > 0) {
    room -= small.l / 2
    parts = asked(room)
  }
  const fits = (more: readonly number[]) => more.length <= MOST_ACROSS && overMm(laid(more)) === 0
  // Small beads lie where the frame is still wide: what was reckoned by half a bead may leave room for more of them.
  for (let more = filling.widened?.(parts); more && fits(more); more = filling.widened?.(parts)) parts = more
  return parts
}

export function layCross(bent: Bent, cross: Cross, row: Row): LaidCross {
  const { curve, places, beads } = bent
  const gaps = gapsOf(cross, beads.length)
  const [to, from] = [gapPoint(curve, places, gaps.right), gapPoint(curve, places, gaps.left)]
  const filling = fillingOf(cross.filling)
  const y = (from.y + to.y) / 2
  // How high it is where follows from its beads, and the room from that: its ends come nearest to the frame.
  const { profile } = filling.lay(row, 100)
  const freeMm = Math.min(
    freeAt(bent, y, 0),
    ...profile.map(({ highMm, outerMm }) => freeAt(bent, y, highMm) + 2 * outerMm),
  )
  return { ...cross, row, filled: filling.lay(row, freeMm), freeMm, from, to }
}

/** Points of the frame’s wire, and of its loops, which stand upright on its ends. */
export function frameLines({ own, curve }: Measured): Carrier[] {
  const thickMm = wireDiameterMm(own.gauge)
  const steps = 160
  const wire: Carrier = {
    kind: 'wire',
    thickMm,
    points: curve.along(steps),
  }
  const { upMm } = topLoop(own)
  return [
    wire,
    ...loopEnds(own, curve).map(({ x, y }): Carrier => ({
      ...{ kind: 'wire', thickMm },
      points: ringPoints(x, y - upMm, upMm, 24),
    })),
  ]
}

/** A point of a filling where it lies in the frame. */
function placed({ from, to }: LaidCross, { x, y }: Point): Point {
  const turn = Math.atan2(to.y - from.y, to.x - from.x)
  const [mx, my] = [(from.x + to.x) / 2, (from.y + to.y) / 2]
  return { x: mx + x * Math.cos(turn) - y * Math.sin(turn), y: my + x * Math.sin(turn) + y * Math.cos(turn) }
}

/** Wires across, each with its wraps on the frame. */
function crossLines(all: Measured): Carrier[] {
  const { own } = all
  const thickMm = wireDiameterMm(own.cross)
  return all.crosses.flatMap((cross): Carrier[] => {
    const ways = cross.filled.wires.map(({ points }): Carrier => ({
      ...{ kind: 'wire', thickMm },
      points: [cross.from, ...points.map((p) => placed(cross, p)), cross.to],
    }))
    return [...ways, ...wrapLines(all, cross, thickMm)]
  })
}

/** Turns round the frame’s wire, in the gap that a wire across comes to. */
function wrapLines({ own, curve, places, beads }: Measured, cross: LaidCross, thickMm: number): Carrier[] {
  const gaps = gapsOf(cross, beads.length)
  const turns = own.turns * cross.filled.wires.length
  const frameMm = wireDiameterMm(own.gauge)
  return [gaps.right, gaps.left].flatMap((gap) => {
    const [before, after] = [places[gap - 1], places[gap]]
    if (!before || !after) return []
    const half = (turns * thickMm) / 2
    const middle = (before.to + after.from) / 2
    const [from, to] = [curve.at(middle - half), curve.at(middle + half)]
    return coil({ from, to, turns, radiusMm: (frameMm + thickMm) / 2, thickMm })
  })
}

export function layoutOf(work: Work, all: Measured) {
  const { own, curve, beads, places } = all
  const { box, thick, lengthMm, widthMm } = frameSize(own, curve, beads)
  const { upMm } = topLoop(own)
  const shift = { x: thick / 2 - box.left, y: upMm - box.top }
  const move = <P extends Point>(p: P) => ({ ...p, x: p.x + shift.x, y: p.y + shift.y })
  const key = (c: number, r: number) => keyOf(work.columns, c, r)
  const onFrame = places.map(({ x, y, turnDegrees }, c): PlacedBead => ({
    ...{ key: key(c, 0), x, y, turnDegrees, bead: beads[c]! },
  }))
  const across = all.crosses.flatMap((cross, k) => {
    const turn = (Math.atan2(cross.to.y - cross.from.y, cross.to.x - cross.from.x) * 180) / Math.PI
    return cross.filled.poses.map((pose, c): PlacedBead => ({
      ...{ key: key(c, k + 1), ...placed(cross, pose), turnDegrees: pose.turnDegrees + turn, bead: cross.row[c]! },
    }))
  })
  return {
    placed: [...onFrame, ...across].map(move),
    carriers: [...frameLines(all), ...crossLines(all)].map((c) => ({
      ...c,
      points: c.points.map(({ x, y }) => move({ x, y })),
    })),
    ...{ widthMm, lengthMm },
    hungAt: move({ x: 0, y: box.top - upMm }),
    fixtureAt: () => null,
  }
}
