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
  readonly period: { readonly columns: number, readonly rows: number }
  /** period.columns × period.rows sites, row-major. */
  readonly sites: readonly Site[]
  /** Size of a bead as it lies at turn 0, mm: across the width and along the length. */
  readonly beadX: number
  readonly beadY: number
  /** Which way the hole runs at turn 0. */
  readonly hole: 'across' | 'along'
}

export interface Site { readonly dx: number, readonly dy: number, readonly turnDegrees: number }

export interface Place { readonly c: number, readonly r: number }

export interface Point { readonly x: number, readonly y: number }

const modulo = (n: number, m: number): number => ((n % m) + m) % m

export function siteOf({ period, sites }: Lattice, c: number, r: number): Site {
  return sites[modulo(r, period.rows) * period.columns + modulo(c, period.columns)]!
}

/** Middle of the bead at (c, r), mm. */
export function beadCentre(lattice: Lattice, c: number, r: number): Point {
  const site = siteOf(lattice, c, r)
  return { x: lattice.originX + c * lattice.pitchX + site.dx, y: lattice.originY + r * lattice.pitchY + site.dy }
}

/** The cell whose middle lies nearest to a point, measured in bead sizes; it may lie outside the work. */
export function nearestPlace(lattice: Lattice, { x, y }: Point): Place {
  const c0 = Math.round((x - lattice.originX) / lattice.pitchX)
  const r0 = Math.round((y - lattice.originY) / lattice.pitchY)
  let best: Place = { c: c0, r: r0 }
  let least = Infinity
  for (let c = c0 - 1; c <= c0 + 1; c++) {
    for (let r = r0 - 1; r <= r0 + 1; r++) {
      const centre = beadCentre(lattice, c, r)
      const far = Math.max(Math.abs(centre.x - x) / lattice.pitchX, Math.abs(centre.y - y) / lattice.pitchY)
      if (far < least - 1e-9) { least = far; best = { c, r } }
    }
  }
  return best
}

/**
 * Offsets to the cells that touch the bead at (c, r) along a side (a corner is not enough). Which they are depends only on
 * the site, so the answer serves every cell of the same site.
 */
export function neighbourOffsets(lattice: Lattice, c: number, r: number): Place[] {
  const here = beadCentre(lattice, c, r)
  const out: Place[] = []
  for (let dr = -1; dr <= 1; dr++) {
    for (let dc = -1; dc <= 1; dc++) {
      if (dc === 0 && dr === 0) continue
      const there = beadCentre(lattice, c + dc, r + dr)
      const x = Math.abs(there.x - here.x) / lattice.pitchX
      const y = Math.abs(there.y - here.y) / lattice.pitchY
      if (Math.max(x, y) < 1 + 1e-6 && Math.min(x, y) < 1 - 1e-6) out.push({ c: dc, r: dr })
    }
  }
  return out
}

/** A lattice whose odd columns (or, with `low: 1`, even ones) lie half a bead further along. */
export function columnStagger(low: 0 | 1, half: number): { period: Lattice['period'], sites: Site[] } {
  const up = { dx: 0, dy: half, turnDegrees: 0 }
  const down = { dx: 0, dy: 0, turnDegrees: 0 }
  return { period: { columns: 2, rows: 1 }, sites: low === 0 ? [down, up] : [up, down] }
}

export const STRAIGHT: { period: Lattice['period'], sites: Site[] } = { period: { columns: 1, rows: 1 }, sites: [{ dx: 0, dy: 0, turnDegrees: 0 }] }

/** The lattice seen with x and y exchanged: the band laid along the screen instead of down it. */
export function transpose(lattice: Lattice): Lattice {
  const { columns, rows } = lattice.period
  const sites: Site[] = []
  for (let r = 0; r < columns; r++) {
    for (let c = 0; c < rows; c++) {
      const site = lattice.sites[c * columns + r]!
      sites.push({ dx: site.dy, dy: site.dx, turnDegrees: -site.turnDegrees })
    }
  }
  return {
    pitchX: lattice.pitchY, pitchY: lattice.pitchX, originX: lattice.originY, originY: lattice.originX,
    beadX: lattice.beadY, beadY: lattice.beadX, hole: lattice.hole === 'across' ? 'along' : 'across',
    period: { columns: rows, rows: columns }, sites,
  }
}
