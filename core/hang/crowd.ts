/** Whether things that hang side by side have room. Lengths in mm. */

/**
 * How much lower one of two drops must hang so that they pass each other: they are ellipses so wide and so high,
 * their middles `pitchMm` apart. Δ = h √(1 − (p / w)²); nothing where they are no wider than that.
 */
export function staggerMm(pitchMm: number, wideMm: number, highMm: number): number {
  return pitchMm >= wideMm ? 0 : highMm * Math.sqrt(1 - (pitchMm / wideMm) ** 2)
}

/** Something that hangs at the end of a strand, as an ellipse: its middle, and how wide and high it is. */
export interface Hung {
  readonly x: number
  readonly y: number
  readonly wideMm: number
  readonly highMm: number
}

/**
 * Whether two of them touch more than at a point: of equal ones exactly, of unequal ones by the ellipse of their mean
 * measures.
 */
export function collide(a: Hung, b: Hung): boolean {
  const [wide, high] = [(a.wideMm + b.wideMm) / 2, (a.highMm + b.highMm) / 2]
  return ((a.x - b.x) / wide) ** 2 + ((a.y - b.y) / high) ** 2 < 1 - 1e-9
}

/** Levels that drops need to hang clear, one below the other in turn. */
export const levelsFor = (pitchMm: number, wideMm: number): number => Math.max(1, Math.ceil(wideMm / pitchMm - 1e-9))

/**
 * How far the outermost strand leans out where each takes more room than its place gives, degrees: the strands share
 * what is too much.
 */
export const fanDegrees = (strands: number, pitchMm: number, wideMm: number, longMm: number): number =>
  wideMm <= pitchMm || longMm <= 0 ? 0 : (Math.atan((strands * (wideMm - pitchMm)) / 2 / longMm) * 180) / Math.PI

/** What leans less than this hangs well, degrees (a model). */
export const HANGS_WELL_DEGREES = 10
