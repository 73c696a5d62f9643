import type { BeadSpec } from '../bead/spec'
import type { MeasuredCurve, OnCurve } from './curve'
import { kinkOffMm, wireTakenMm, type Bent } from './section'

/** Beads on a bent wire: how many it takes, and where each lies. Lengths in mm along the middle of the wire. */

/** A stretch of wire without a kink, mm along the curve, less what its beads must keep clear of its ends. */
interface Stretch {
  readonly from: number
  readonly to: number
  /** How much a kink at each end turns, radians; 0 at a joint. */
  readonly before: number
  readonly behind: number
}

/** Stretches of a frame from its joint, which lies at its beginning, to its kinks and round to the joint. */
function stretchesOf(curve: MeasuredCurve): Stretch[] {
  const inner = curve.kinks.filter(({ at }) => at > 1e-9)
  const tau = curve.kinks.find(({ at }) => at <= 1e-9)?.tau ?? 0
  const stops = [{ at: 0, tau }, ...inner, { at: curve.lengthMm, tau: curve.closed ? tau : 0 }]
  return stops.slice(1).map((stop, k) => ({
    ...{ from: stops[k]!.at, to: stop.at },
    ...{ before: stops[k]!.tau, behind: stop.tau },
  }))
}

/** Wire that a bead takes where it lies from `s` on: by the sharpest bend of its two ends and its middle. */
function takenAt(curve: MeasuredCurve, bead: Bent, s: number): number {
  const bend = Math.max(
    Math.abs(curve.bendAt(s)),
    Math.abs(curve.bendAt(s + bead.l / 2)),
    Math.abs(curve.bendAt(s + bead.l)),
  )
  // A bead that does not lie on a bend is kept off it by more than its length, and is a finding.
  return bend === 0 ? bead.l : (wireTakenMm(bead, 1 / bend) ?? 2 * bead.l)
}

/** Where beads begin, one after the other from `s`, `gap` between them; and where the last one ends. */
function walk(curve: MeasuredCurve, beads: readonly Bent[], s: number, gap: number) {
  const starts: number[] = []
  let at = s + gap / 2
  for (const bead of beads) {
    const taken = takenAt(curve, bead, at)
    starts.push(at + (taken - bead.l) / 2)
    at += taken + gap
  }
  return { starts, end: at - gap / 2 }
}

/** Room of a stretch for these beads, from where to where. */
function roomOf({ from, to, before, behind }: Stretch, first: Bent, last: Bent) {
  const clear = (bead: Bent, tau: number) => (tau > 0 ? kinkOffMm(bead, tau) : 0)
  return { from: from + clear(first, before), to: to - clear(last, behind) }
}

interface Count {
  readonly count: number
  /** Beads on each stretch from the joint. */
  readonly each: readonly number[]
  /** Wire that is left over, mm, what must stay free not counted. */
  readonly slackMm: number
}

/**
 * How many beads of a cycle a frame takes, touching each other on its bends; `freeMm`: what must stay free for joints
 * and wraps, shared out by length. Where an even count is asked for, one bead less than an odd one.
 */
export function beadsOnFrame(
  curve: MeasuredCurve,
  cycle: readonly BeadSpec[],
  { freeMm = 0, even = false } = {},
): Count {
  const none = { count: 0, each: [], slackMm: curve.lengthMm }
  if (cycle.length === 0) return none
  let count = 0
  let slackMm = 0
  const each = stretchesOf(curve).map((stretch) => {
    const share = (freeMm * (stretch.to - stretch.from)) / curve.lengthMm
    const beadAt = (k: number) => cycle[(count + k) % cycle.length]!
    let [n, s, last] = [0, NaN, NaN]
    for (;;) {
      const room = roomOf(stretch, beadAt(0), beadAt(n))
      if (n === 0) [s, last] = [room.from, room.from]
      const end = s + takenAt(curve, beadAt(n), s)
      if (end > room.to - share + 1e-9 || n >= MOST_BEADS) break
      ;[s, last] = [end, end]
      n++
    }
    slackMm += stretch.to - share - last
    count += n
    return n
  })
  if (!even || count % 2 === 0) return { count, each, slackMm }
  const most = each.indexOf(Math.max(...each))
  const lost = cycle[(count - 1) % cycle.length]!.l
  return { count: count - 1, each: each.map((n, k) => (k === most ? n - 1 : n)), slackMm: slackMm + lost }
}
/** More beads than any frame is made of. */
const MOST_BEADS = 2000

export interface FramePlace extends OnCurve {
  /** Ends of its hole along the wire, mm. */
  readonly from: number
  readonly to: number
}

/** Beads of each stretch: as many as its share of the wire. */
function sharedOut(curve: MeasuredCurve, stretches: readonly Stretch[], beads: readonly BeadSpec[]): BeadSpec[][] {
  const long = beads.reduce((sum, { l }) => sum + l, 0)
  const on: BeadSpec[][] = stretches.map(() => [])
  let sofar = 0
  for (const bead of beads) {
    const middle = ((sofar + bead.l / 2) / Math.max(long, 1e-9)) * curve.lengthMm
    const k = stretches.findIndex(({ to }) => middle <= to + 1e-9)
    on[k < 0 ? stretches.length - 1 : k]!.push(bead)
    sofar += bead.l
  }
  return on
}

/**
 * Where beads lie on a frame: on every stretch between its joint and its kinks as many as its share of the wire, all
 * joints of a stretch open by the same. `gapMm`: the least of these; below 0 there are too many beads.
 */
export function placesOnFrame(
  curve: MeasuredCurve,
  beads: readonly BeadSpec[],
): { readonly places: readonly FramePlace[]; readonly gapMm: number } {
  const stretches = stretchesOf(curve)
  const on = sharedOut(curve, stretches, beads)
  const laid = stretches.map((stretch, k) =>
    on[k]!.length === 0 ? NOTHING : placesBetween(curve, on[k]!, roomOf(stretch, on[k]![0]!, on[k]!.at(-1)!)),
  )
  const gapMm = Math.min(...laid.map((one) => one.gapMm))
  return { places: laid.flatMap(({ places }) => places), gapMm: Number.isFinite(gapMm) ? gapMm : 0 }
}

/** Bounds of a frame’s perimeter, mm. */
const PERIMETER = { least: 20, most: 600 } as const

/**
 * Wire of the smallest frame of a form that so many beads find room on, `freeMm` left free among them: the other way
 * round, for so many beads. Of a frame with so much wire the form tells the curve.
 */
export function wireForBeads(
  ofLength: (lengthMm: number) => MeasuredCurve,
  beads: readonly BeadSpec[],
  freeMm: number,
): number {
  let low = Math.max(PERIMETER.least, beads.reduce((sum, { l }) => sum + l, 0) + freeMm)
  let high = Math.max(low, Math.min(PERIMETER.most, 2 * low))
  const fits = (mm: number): boolean => {
    const curve = ofLength(mm)
    const stretches = stretchesOf(curve)
    const on = sharedOut(curve, stretches, beads)
    // All stretches together: where one bead more lies on one side of a kink, its fellows give way a little.
    const left = stretches.reduce((sum, stretch, k) => {
      const own = on[k]!
      if (own.length === 0) return sum + stretch.to - stretch.from
      const room = roomOf(stretch, own[0]!, own.at(-1)!)
      return sum + room.to - walk(curve, own, room.from, 0).end
    }, 0)
    return left >= freeMm - 1e-9
  }
  if (fits(low)) return low
  for (let turn = 0; turn < 24; turn++) {
    const middle = (low + high) / 2
    if (fits(middle)) high = middle
    else low = middle
  }
  return high
}

interface LaidOn {
  readonly places: readonly FramePlace[]
  /** How far neighbours stand apart beyond touching, mm; below 0 there are too many. */
  readonly gapMm: number
}

const NOTHING: LaidOn = { places: [], gapMm: Infinity }

/** Where beads lie on a stretch of a curve, mm along it, all joints open by the same. */
export function placesBetween(
  curve: MeasuredCurve,
  beads: readonly Bent[],
  { from, to }: { readonly from: number; readonly to: number },
): LaidOn {
  if (beads.length === 0) return NOTHING
  let [low, high] = [-Math.max(...beads.map(({ l }) => l)), Math.max(0, to - from) / beads.length]
  for (let turn = 0; turn < 50; turn++) {
    const gap = (low + high) / 2
    if (walk(curve, beads, from, gap).end > to) high = gap
    else low = gap
  }
  return {
    places: walk(curve, beads, from, low).starts.map((s, i) => chordAt(curve, s, beads[i]!.l)),
    gapMm: low,
  }
}

/** A bead by the ends of its hole on the wire: its middle between them, turned as its hole. */
function chordAt(curve: MeasuredCurve, s: number, l: number): FramePlace {
  const [a, b] = [curve.at(s), curve.at(s + l)]
  return {
    ...{ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, from: s, to: s + l },
    turnDegrees: (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI,
    bend: curve.bendAt(s + l / 2),
  }
}

/** The gap, by how many beads lie before it, on the other side of a frame at the same height. */
export const fellowGap = (gap: number, beads: number): number => beads - gap

/** Wire that is held while a frame is bent and its ends are closed, mm on each end (from memory). */
const HELD_MM = 10

/** Wire to cut for a frame: its round, a loop at each end, what overlaps, and something to hold. */
export const frameWireMm = (
  roundMm: number,
  { loops, loopMm, overlapMm }: { readonly loops: number; readonly loopMm: number; readonly overlapMm: number },
): number => roundMm + loops * loopMm + overlapMm + 2 * HELD_MM

/** Wire of a frame that wraps of cross wires cover, mm: each so many turns on both sides. */
export const wrapsMm = (crosses: number, turns: number, crossWireMm: number): number =>
  2 * crosses * turns * crossWireMm
