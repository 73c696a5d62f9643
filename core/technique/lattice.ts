import { modulo } from '../modulo'
import { keyOf } from '../grid/key'
/**
 * Where the beads of a grid stitch lie. A lattice is periodic: the middle of cell (c, r) is
 *   x = originX + c · pitchX + dx,   y = originY + r · pitchY + dy      (mm; x across the width, y along the length)
 * where (dx, dy) and the turn of the bead come from the site at (c mod period.columns, r mod period.rows).
 * Straight, staggered and tilted stitches, and beads on the edges of squares, are all such lattices.
 */
export interface Lattice {
  readonly pitchX: number
  readonly pitchY: number
  readonly originX: number
  readonly originY: number
  readonly period: { readonly columns: number; readonly rows: number }
  /** period.columns × period.rows sites, row-major. */
  readonly sites: readonly Site[]
  /** Size of a bead as it lies at turn 0, mm: across the width and along the length. */
  readonly beadX: number
  readonly beadY: number
  /** Which way the hole runs at turn 0. */
  readonly hole: 'across' | 'along'
  /** Whether the last column touches the first: a tube. */
  readonly round?: boolean
  /** Offsets to touching cells by site, where nearness of the middles does not say it. */
  readonly touching?: readonly (readonly Place[])[]
}

export interface Site {
  readonly dx: number
  readonly dy: number
  readonly turnDegrees: number
}

/** A way to unroll a round surface, where there is more than one. */
export interface Chart {
  readonly id: string
  readonly name: string
  readonly says: string
}

/**
 * How a work lies on screen and paper. Level: its length runs to the right, row 1 at the left, column 1 at the top.
 * Upright is level turned a quarter counter-clockwise: row 1 at the bottom, column 1 at the left. The two are the same
 * work, never each other's mirror image.
 */
export type Lie = 'level' | 'upright'

export interface Place {
  readonly c: number
  readonly r: number
}

/** A box of cells, both corners included. */
export interface Box {
  readonly c: number
  readonly r: number
  readonly columns: number
  readonly rows: number
}

export interface Point {
  readonly x: number
  readonly y: number
}

/** Which of the sites of a lattice the cell (c, r) has. */
export const siteIndexOf = ({ columns, rows }: Lattice['period'], c: number, r: number): number =>
  keyOf(columns, modulo(c, columns), modulo(r, rows))

export function siteOf({ period, sites }: Lattice, c: number, r: number): Site {
  return sites[siteIndexOf(period, c, r)]!
}

/** Middle of the bead at (c, r), mm. */
export function beadCentre(lattice: Lattice, c: number, r: number): Point {
  const site = siteOf(lattice, c, r)
  return { x: lattice.originX + c * lattice.pitchX + site.dx, y: lattice.originY + r * lattice.pitchY + site.dy }
}

/** Half of the room that a bead takes on each axis as it lies, mm: of a turned bead, half of the box around it. */
export function halfBox({ beadX, beadY }: Pick<Lattice, 'beadX' | 'beadY'>, turnDegrees: number): Point {
  if (turnDegrees === 0) return { x: beadX / 2, y: beadY / 2 }
  const cos = Math.abs(Math.cos((turnDegrees * Math.PI) / 180))
  const sin = Math.abs(Math.sin((turnDegrees * Math.PI) / 180))
  return { x: (beadX * cos + beadY * sin) / 2, y: (beadX * sin + beadY * cos) / 2 }
}

interface Reach {
  readonly columns: number
  readonly rows: number
  readonly midX: number
  readonly midY: number
}
const reaches = new WeakMap<Lattice, Reach>()

/** How many cells aside of the plain grid a bead can lie, about the middle of where the sites put it. */
function reachOf(lattice: Lattice): Reach {
  let reach = reaches.get(lattice)
  if (!reach) {
    let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity]
    for (const { dx, dy } of lattice.sites) {
      x0 = Math.min(x0, dx)
      x1 = Math.max(x1, dx)
      y0 = Math.min(y0, dy)
      y1 = Math.max(y1, dy)
    }
    reach = {
      columns: 1 + Math.ceil((x1 - x0) / 2 / lattice.pitchX - 1e-9),
      rows: 1 + Math.ceil((y1 - y0) / 2 / lattice.pitchY - 1e-9),
      midX: (x0 + x1) / 2,
      midY: (y0 + y1) / 2,
    }
    reaches.set(lattice, reach)
  }
  return reach
}

/**
 * The cell whose bead lies nearest to a point, measured in the bead's own size as it is turned; it may lie outside the
 * work.
 */
export function nearestPlace(lattice: Lattice, { x, y }: Point): Place {
  const reach = reachOf(lattice)
  const c0 = Math.round((x - lattice.originX - reach.midX) / lattice.pitchX)
  const r0 = Math.round((y - lattice.originY - reach.midY) / lattice.pitchY)
  let best: Place = { c: c0, r: r0 }
  let least = Infinity
  for (let c = c0 - reach.columns; c <= c0 + reach.columns; c++) {
    for (let r = r0 - reach.rows; r <= r0 + reach.rows; r++) {
      const site = siteOf(lattice, c, r)
      const dx = lattice.originX + c * lattice.pitchX + site.dx - x
      const dy = lattice.originY + r * lattice.pitchY + site.dy - y
      let far: number
      if (site.turnDegrees === 0) far = Math.max(Math.abs(dx) / lattice.beadX, Math.abs(dy) / lattice.beadY)
      else {
        const turn = (site.turnDegrees * Math.PI) / 180
        far = Math.max(
          Math.abs(dx * Math.cos(turn) + dy * Math.sin(turn)) / lattice.beadX,
          Math.abs(dy * Math.cos(turn) - dx * Math.sin(turn)) / lattice.beadY,
        )
      }
      if (far < least - 1e-9) {
        least = far
        best = { c, r }
      }
    }
  }
  return best
}

/**
 * Offsets to the cells that touch the bead at (c, r) along a side (a corner is not enough). Which they are depends
 * only on the site, so the answer serves every cell of the same site.
 */
export function neighbourOffsets(lattice: Lattice, c: number, r: number): readonly Place[] {
  const { period } = lattice
  if (lattice.touching) return lattice.touching[siteIndexOf(period, c, r)]!
  const here = siteOf(lattice, c, r)
  const out: Place[] = []
  for (let dr = -1; dr <= 1; dr++) {
    for (let dc = -1; dc <= 1; dc++) {
      if (dc === 0 && dr === 0) continue
      // By site, not by place, so that beyond the seam of a tube the beads of its other edge are found.
      const there = siteOf(lattice, c + dc, r + dr)
      const x = Math.abs(dc + (there.dx - here.dx) / lattice.pitchX)
      const y = Math.abs(dr + (there.dy - here.dy) / lattice.pitchY)
      if (Math.max(x, y) < 1 + 1e-6 && Math.min(x, y) < 1 - 1e-6) out.push({ c: dc, r: dr })
    }
  }
  return out
}

export const STRAIGHT: { period: Lattice['period']; sites: Site[] } = {
  period: { columns: 1, rows: 1 },
  sites: [{ dx: 0, dy: 0, turnDegrees: 0 }],
}

/** The lattice seen with x and y exchanged: the band laid along the screen instead of down it. */
export function transpose(lattice: Lattice): Lattice {
  const { columns, rows } = lattice.period
  const sites: Site[] = []
  const touching: Place[][] = []
  for (let r = 0; r < columns; r++) {
    for (let c = 0; c < rows; c++) {
      const site = lattice.sites[keyOf(columns, r, c)]!
      sites.push({ dx: site.dy, dy: site.dx, turnDegrees: -site.turnDegrees })
      touching.push((lattice.touching?.[keyOf(columns, r, c)] ?? []).map((p) => ({ c: p.r, r: p.c })))
    }
  }
  return {
    pitchX: lattice.pitchY,
    pitchY: lattice.pitchX,
    originX: lattice.originY,
    originY: lattice.originX,
    beadX: lattice.beadY,
    beadY: lattice.beadX,
    hole: lattice.hole === 'across' ? 'along' : 'across',
    period: { columns: rows, rows: columns },
    sites,
    ...(lattice.touching ? { touching } : {}),
    ...(lattice.round ? { round: true } : {}),
  }
}
