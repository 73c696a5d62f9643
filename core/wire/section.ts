import type { BeadShape, BeadSpec } from '../bead/spec'

/**
 * Beads on bent wire. Lengths in mm, angles in radians. A bead is seen in the plane of the bend: `l` along its hole,
 * `d` square to it. Derived from where a line through the middle of the bend touches the section; a model of beads
 * without play. Real rounded edges lie between an ellipse and a box, so that a count by the box is on the safe side.
 */
export type Section = 'ellipse' | 'rhomb' | 'box'

const SECTIONS: Readonly<Record<BeadShape, Section>> = {
  'cylinder': 'box',
  'round': 'ellipse',
  'hex-cut': 'box',
  'cube': 'box',
  'bugle': 'box',
  'drop': 'ellipse',
  'long-drop': 'ellipse',
  'ball': 'ellipse',
  'bicone': 'rhomb',
  'faceted': 'ellipse',
  'almond-duo': 'ellipse',
  'domed-duo': 'ellipse',
  'tile': 'box',
  'half-tile': 'box',
  'triangle': 'box',
  'hexagon': 'box',
  'cord': 'box',
}

export type Bent = Pick<BeadSpec, 'shape' | 'l' | 'd'>

export const sectionOf = ({ shape }: Pick<BeadSpec, 'shape'>): Section => SECTIONS[shape]

/** How far a section reaches from its middle in a direction `beta` from its hole, mm. */
export function supportMm(bead: Bent, beta: number): number {
  const [along, across] = [(bead.l / 2) * Math.abs(Math.cos(beta)), (bead.d / 2) * Math.abs(Math.sin(beta))]
  switch (sectionOf(bead)) {
    case 'ellipse':
      return Math.hypot(along, across)
    case 'box':
      return along + across
    case 'rhomb':
      return Math.max(along, across)
  }
}

/**
 * Half the angle that a bead takes of a bend of radius `r`, its hole’s ends on the wire; null where the bend is
 * tighter than the bead can lie on. Two equal neighbours touch where their middles stand twice this apart.
 */
export const wedge = (bead: Bent, r: number): number | null => wedgeAt(bead, Math.sqrt(r * r - (bead.l * bead.l) / 4))

/** The same for a bead whose middle lies so far from the middle of the bend, mm. */
export function wedgeAt(bead: Bent, middle: number): number | null {
  const { l, d } = bead
  if (!(middle > d / 2)) return null
  switch (sectionOf(bead)) {
    case 'ellipse':
      return Math.atan(l / Math.sqrt(4 * middle * middle - d * d))
    case 'box':
      return Math.atan(l / (2 * middle - d))
    case 'rhomb':
      // Their tips meet first.
      return Math.atan(l / (2 * middle))
  }
}

/** Wire that a bead takes of a bend of radius `r`, mm: never less than its hole; null where it does not lie there. */
export function wireTakenMm(bead: Bent, r: number): number | null {
  if (!Number.isFinite(r)) return bead.l
  const half = wedge(bead, r)
  return half === null ? null : Math.max(bead.l, 2 * r * half)
}

/** From this share more than its length on, straight-sided beads are seen to gape. */
export const GAPES = 0.08

/** How far the end of a bead’s hole stands off from a kink that turns by `tau`, mm. */
export function kinkOffMm(bead: Bent, tau: number): number {
  const { l, d } = bead
  const t = Math.tan(tau / 2)
  switch (sectionOf(bead)) {
    case 'box':
      return (d / 2) * t
    case 'ellipse':
      return (Math.hypot(l, d * t) - l) / 2
    case 'rhomb':
      return Math.max(0, (d * t - l) / 2)
  }
}

/**
 * The tightest bend, as the radius of the wire’s middle, mm, that the straight hole of a bead slides round: the wire
 * touches its outer wall in the middle and its inner wall at both ends. Infinity where the wire fills the hole.
 */
export function tightestBendMm({ l, h }: Pick<BeadSpec, 'l' | 'h'>, wireMm: number): number {
  const play = h - wireMm
  return play > 0 ? wireMm / 2 + play / 2 + (l * l) / (8 * play) : Infinity
}
