import { latticeOf } from '../piece/drawing'
import { beadOf, columnsOf, partRow, rowsOf, techniqueOf, type Part } from '../piece/piece'
import { beadCentre, siteOf } from '../technique/lattice'

/** One bead of a rope in space: along the axis, how far out on the side that is seen, and across it; mm. */
interface RopeBead {
  readonly number: number
  readonly along: number
  /** −radius … radius, upward on the screen. */
  readonly across: number
  /** Toward the eye; negative behind. */
  readonly depth: number
  /** How the bead lies on the screen, degrees from the axis. */
  readonly turnDegrees: number
  /** Share of its width that is seen: beads at the edge are seen from the side. */
  readonly narrow: number
}

interface RopeLook {
  /** Rounds (rows) that are shown: from … up to, not including. */
  readonly from: number
  readonly to: number
  /** How far the rope is turned about its axis, radians. */
  readonly turn: number
  /** How far the lines of the chart wind round the rope in one round of the braid, degrees: the twist of the model. */
  readonly windDegrees: number
}

/** Middle circle of a tube or rope, mm: half of what its outside measures, less half a bead. */
function middleRadiusMm(part: Part): number {
  const bead = beadOf(part)
  const outer = techniqueOf(part).extent({
    columns: columnsOf(part),
    rows: Math.max(1, rowsOf(part)),
    bead,
    settings: part.settings,
  }).thicknessMm
  return Math.max(bead.d / 2, (outer - bead.d) / 2)
}

/**
 * Beads of a rope as they are seen from one side, furthest first. The unrolled surface is laid round a cylinder
 * through the middles of the beads: angle = 2π x ÷ girth, and on by the twist with every round. A model: real ropes
 * twist by the hand that makes them.
 */
export function ropeBeads(part: Part, { from, to, turn, windDegrees }: RopeLook): RopeBead[] {
  const lattice = latticeOf(part)
  const columns = columnsOf(part)
  const girth = columns * lattice.pitchX
  const radiusMm = middleRadiusMm(part)
  const wind = (windDegrees * Math.PI) / 180 / lattice.pitchY
  const out: RopeBead[] = []
  // From the beginning of the first row; the first line of the chart faces the eye at turn 0.
  const first = lattice.originY + from * lattice.pitchY
  for (let r = from; r < Math.min(to, rowsOf(part)); r++) {
    const row = partRow(part, r)
    for (let c = 0; c < columns; c++) {
      const number = row[c]!
      if (number === 0) continue
      const { x, y } = beadCentre(lattice, c, r)
      const angle = (2 * Math.PI * (x - lattice.originX)) / girth + wind * (y - first) + turn
      const depth = Math.cos(angle) * radiusMm
      out.push({
        number,
        along: y - first,
        across: Math.sin(angle) * radiusMm,
        depth,
        turnDegrees: siteOf(lattice, c, r).turnDegrees,
        narrow: 0.35 + 0.65 * Math.abs(Math.cos(angle)),
      })
    }
  }
  return out.sort((a, b) => a.depth - b.depth)
}
