import { swagOf, swagPlaces } from '../../hang/swag'
import type { BeadSpec } from '../../bead/spec'
import type { HungStrand } from '../../recipe/hung'
import { keptOf } from '../../recipe/hung'
import type { Row } from '../../recipe/rows'
import type { HeldPlace } from '../held'
import { halfBox } from '../lattice'
import { longOf } from '../carrier/line'

/** A bead of a strand where it hangs, mm: x across, y down from the top; drops by the middle of their hole. */
export interface HungBead {
  readonly x: number
  readonly y: number
  readonly turnDegrees: number
  readonly bead: BeadSpec
}

/** A strand as it hangs. */
export interface Hanging extends HungStrand {
  /** Where it begins. */
  readonly x: number
  readonly y: number
  readonly beads: readonly HungBead[]
  /** Its lowest point. */
  readonly endMm: number
}

/** How far below its upper end the hole of a hanging bead is drawn, mm. */
const drawnHole = ({ hangs, l, d }: BeadSpec): number => (hangs === undefined ? d / 2 : l / 2)

/** How far below its upper end a bead’s hole is when the thread turns round it, mm (a quarter of what hangs). */
export const turnDepthMm = ({ hangs, d }: BeadSpec): number => (hangs === undefined ? d / 2 : hangs / 4)

/** Thread round one bead that lies across at the end of a strand, mm: through it, and down to its hole and back. */
export const turnMm = (bead: BeadSpec): number => bead.l + 2 * Math.hypot(bead.l / 2, turnDepthMm(bead))

/** Lowest point of a bead as it hangs, mm. */
function lowestOf({ y, turnDegrees, bead }: HungBead): number {
  const { l, d, hangs } = bead
  const lies = Math.abs(Math.sin((turnDegrees * Math.PI) / 180)) < 0.5
  if (hangs !== undefined && lies) return y + hangs - drawnHole(bead)
  return y + halfBox({ beadX: l, beadY: d }, turnDegrees).y
}

/** Radius of the circle that beads lie round as chords, mm, so that they close. */
function ringRadius(lengths: readonly number[]): number {
  const turn = (radius: number) => lengths.reduce((sum, l) => sum + Math.asin(Math.min(1, l / 2 / radius)), 0)
  let low = Math.max(...lengths) / 2
  let high = lengths.reduce((sum, l) => sum + l, 0)
  for (let k = 0; k < 60; k++) {
    const middle = (low + high) / 2
    if (turn(middle) > Math.PI) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** What the thread turns round at the end of a strand, below `y`: one bead across, or several in a loop. */
function endBeads(row: Row, x: number, y: number): HungBead[] {
  if (row.length === 0) return []
  if (row.length === 1) return [{ x, y: y + drawnHole(row[0]!), turnDegrees: 0, bead: row[0]! }]
  if (row.length === 2) return row.map((bead, k) => ({ x, y: y + bead.l / 2, turnDegrees: k === 0 ? 90 : -90, bead }))
  const radius = ringRadius(row.map((b) => b.l))
  let turn = 0
  return row.map((bead) => {
    const wide = 2 * Math.asin(Math.min(1, bead.l / 2 / radius))
    const middle = turn + wide / 2
    turn += wide
    const far = radius * Math.cos(wide / 2)
    const lies = bead.hangs !== undefined
    return {
      x: x + far * Math.sin(middle),
      y: y + radius - far * Math.cos(middle),
      turnDegrees: lies ? 0 : (middle * 180) / Math.PI,
      bead,
    }
  })
}

/** Beads of a strand that comes back, from where it begins down to what ends it. */
function straight(row: Row, kept: number, x: number, y: number): HungBead[] {
  let at = y
  const down = row.slice(0, kept).map((bead): HungBead => {
    at += bead.l
    return { x, y: at - bead.l / 2, turnDegrees: 90, bead }
  })
  return [...down, ...endBeads(row.slice(kept), x, at)]
}

/** Beads of a swag from one place to another: on a catenary, tilted where one of them lies lower. */
function across(row: Row, from: HeldPlace, to: HeldPlace): HungBead[] {
  const span = Math.abs(to.x - from.x)
  const way = Math.sign(to.x - from.x)
  return swagPlaces(
    span,
    row.map((b) => b.l),
  ).map(({ x, y, turnDegrees }, k) => ({
    x: from.x + way * x,
    y: from.y + y + (span > 0 ? ((to.y - from.y) * x) / span : 0),
    // A drop on a swag hangs straight down whatever the slope.
    turnDegrees: row[k]!.hangs !== undefined ? 0 : way < 0 ? 180 - turnDegrees : turnDegrees,
    bead: row[k]!,
  }))
}

/** A strand hung from its places, moved aside where it shares one, and so far below it. */
export function hangStrand(
  strand: HungStrand,
  from: HeldPlace,
  to: HeldPlace | null,
  { asideMm = 0, loopMm = 0 } = {},
): Hanging {
  const [x, y] = [from.x + asideMm, from.y]
  const beads = to === null ? straight(strand.row, keptOf(strand), x, y + loopMm) : across(strand.row, from, to)
  return { ...strand, x, y, beads, endMm: beads.reduce((low, one) => Math.max(low, lowestOf(one)), y + loopMm) }
}

/** How long a strand is from its top to its lowest point, mm. */
export const longOfStrand = ({ y, endMm }: Pick<Hanging, 'y' | 'endMm'>): number => endMm - y

/** The swag that a strand hangs in; null of one that comes back, or does not reach. */
export const swagOfStrand = ({ row }: Pick<Hanging, 'row'>, from: HeldPlace, to: HeldPlace) =>
  swagOf(Math.abs(to.x - from.x), longOf(row))
