import type { MeasuredCurve } from './curve'
import { kinkOffMm, sectionOf, wedgeAt, type Bent } from './section'

/** Wires across a frame, and beads that curve round others. Lengths in mm, y down. */

/** Points that one side of a frame is walked in. */
const WALK = 720

/**
 * Room inside a frame for a row that lies level at `y` and is `high`, from wall to wall, mm: the frame’s curve moved
 * inward by half of what lies on it, both sides taken as the narrower one. 0 where it does not reach.
 */
export function freeSpanMm(curve: MeasuredCurve, y: number, high: number, thickMm: number): number {
  const [from, to] = [y - high / 2, y + high / 2]
  let least = Infinity
  // Kinks lie on the axis: what is on the wire there blocks it on both sides.
  for (const { at } of curve.kinks) {
    const kink = curve.at(at)
    if (Math.abs(kink.x) < 1e-6 && kink.y + thickMm / 2 > from && kink.y - thickMm / 2 < to) return 0
  }
  let before: { x: number; y: number } | null = null
  for (const [k, at] of curve.along(WALK).entries()) {
    const turn = (at.turnDegrees * Math.PI) / 180
    // Clockwise as it is seen, y down: inside lies to the right of the way. What crossed the middle leaves no room.
    const side = k <= WALK / 2 ? 1 : -1
    const x = side * (at.x - (thickMm / 2) * Math.sin(turn))
    const here = { x: Math.max(0, x), y: at.y + (thickMm / 2) * Math.cos(turn) }
    if (here.y >= from && here.y <= to) least = Math.min(least, here.x)
    if (before)
      for (const edge of [from, to])
        if ((before.y - edge) * (here.y - edge) < 0) {
          const share = (edge - before.y) / (here.y - before.y)
          least = Math.min(least, before.x + share * (here.x - before.x))
        }
    before = here
  }
  return Number.isFinite(least) ? 2 * least : 0
}

/** Small beads on each side of a large one on a free span, and what is left over of it. */
export function besidesMm(
  freeMm: number,
  largeMm: number,
  smallMm: number,
): { readonly each: number; readonly leftMm: number } {
  const each = Math.max(0, Math.floor((freeMm - largeMm) / (2 * smallMm) + 1e-9))
  return { each, leftMm: freeMm - largeMm - 2 * each * smallMm }
}

/**
 * How far a row that is too long bows out of its line, mm: an arc of length `long` over a chord `free`; 0 where it
 * fits.
 */
export function bowMm(long: number, free: number): number {
  if (long <= free || free <= 0) return 0
  // long / free = (θ / 2) / sin (θ / 2), which rises from 1 to infinity up to a full turn.
  let [low, high] = [0, Math.PI]
  for (let turn = 0; turn < 60; turn++) {
    const half = (low + high) / 2
    if (half / Math.sin(half) > long / free) high = half
    else low = half
  }
  return (free / 2 / Math.sin(low)) * (1 - Math.cos(low))
}

/** How many of a small bead, hole along the wire, curve round a bead of radius `r`: half round it, or all round. */
export function roundBead(small: Bent, r: number, turn: 'half' | 'whole'): number {
  const half = wedgeAt(small, r + small.d / 2)
  return half === null ? 0 : Math.floor((turn === 'half' ? Math.PI / 2 : Math.PI) / half + 1e-9)
}

/** The middle that so many petals close on, mm across: they touch each other and it. */
export function centreOfPetals(petal: Bent, count: number): number {
  const { l, d } = petal
  if (count < 3) return 0
  const cot = 1 / Math.tan(Math.PI / count)
  switch (sectionOf(petal)) {
    case 'ellipse':
      return Math.max(0, Math.sqrt(d * d + l * l * cot * cot) - d)
    case 'box':
      // Inner corners meet: the middle of a bead lies l cot / 2 + d / 2 away.
      return Math.max(0, l * cot)
    case 'rhomb':
      return Math.max(0, l * cot - d)
  }
}

/** Petals that close round a middle, and what of the round they leave open, mm along the hole. */
export function petalsRound(petal: Bent, centreMm: number): { readonly count: number; readonly openMm: number } {
  const half = wedgeAt(petal, (centreMm + petal.d) / 2)
  if (half === null) return { count: 0, openMm: 0 }
  const count = Math.floor(Math.PI / half + 1e-9)
  return { count, openMm: (count === 0 ? 0 : (2 * Math.PI - 2 * half * count) * (centreMm + petal.d)) / 2 }
}

/** From this share of a petal’s thickness on, a middle that is too small or too large for its petals is said. */
export const RATTLES = 0.15

/** Where the middles of a lozenge’s beads lie, and how long its wires are. */
export interface Lozenge {
  /** From one to the next, mm. */
  readonly pitchMm: number
  readonly tallMm: number
  /** Way of the wires through one, mm: the middle one and an outer one, or each of two. */
  readonly wiresMm: readonly number[]
}

/**
 * Three wires that part and meet: one bead on each outer wire, two on the middle one, and a seed that takes all three.
 * Outer beads nest over the joint of the middle ones: y = d / 2 for bicones, d √3 / 2 for balls.
 */
export function lozengeOfThree(bead: Bent, seedMm: number): Lozenge & { readonly asideMm: number } {
  const { l, d } = bead
  const asideMm = sectionOf(bead) === 'rhomb' ? d / 2 : sectionOf(bead) === 'box' ? d : (d * Math.sqrt(3)) / 2
  const pitchMm = 2 * l + seedMm
  return {
    pitchMm,
    asideMm,
    tallMm: 2 * asideMm + d,
    wiresMm: [pitchMm, l + 2 * Math.hypot(l / 2, asideMm) + seedMm],
  }
}

/**
 * Two wires that part and meet: a bead on both, one on each, one on each, and the next on both. At rest each side
 * leans 45°, which takes the least wire: side l + what its ends stand off from two right angles.
 */
export function lozengeOfTwo(bead: Bent, single: Bent): Lozenge & { readonly sideMm: number } {
  const sideMm = bead.l + 2 * kinkOffMm(bead, Math.PI / 2)
  const pitchMm = Math.SQRT2 * sideMm + single.l
  return {
    sideMm,
    pitchMm,
    tallMm: Math.SQRT2 * sideMm + bead.d,
    wiresMm: [2 * sideMm + single.l, 2 * sideMm + single.l],
  }
}
