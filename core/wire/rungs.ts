import { sectionOf, type Bent } from './section'

/** Rows that both ends of a wire cross in: a wire ladder of rows of any widths. Lengths in mm. */
export type Rung = readonly Bent[]

export const widthOf = (row: Rung): number => row.reduce((sum, { l }) => sum + l, 0)
const thickest = (row: Rung): number => row.reduce((most, { d }) => Math.max(most, d), 0)

/** How high a row reaches above its wire at `x` from its middle, mm. */
function heightAt(row: Rung, x: number): number {
  let from = -widthOf(row) / 2
  for (const bead of row) {
    const t = (x - from - bead.l / 2) / (bead.l / 2)
    if (Math.abs(t) <= 1 + 1e-9) {
      const share = Math.min(1, Math.abs(t))
      const half = bead.d / 2
      switch (sectionOf(bead)) {
        case 'ellipse':
          return half * Math.sqrt(1 - share * share)
        case 'box':
          return half
        case 'rhomb':
          return half * (1 - share)
      }
    }
    from += bead.l
  }
  return 0
}

/** From one row to the next where they lie pushed together, mm: safe, by their thickest beads. */
export const safePitchMm = (a: Rung, b: Rung): number => (thickest(a) + thickest(b)) / 2

const STEPS = 480
const LEAST_PITCH_MM = 0.3

/** The same where their beads nest: the most that both reach towards each other anywhere. */
export function pitchMm(a: Rung, b: Rung): number {
  // A row without beads is a wire: the other lies beside it.
  if (a.length === 0 || b.length === 0) return Math.max(LEAST_PITCH_MM, safePitchMm(a, b))
  const wide = Math.min(widthOf(a), widthOf(b))
  let most = 0
  for (let k = 0; k <= STEPS; k++) {
    const x = (k / STEPS - 0.5) * wide
    most = Math.max(most, heightAt(a, x) + heightAt(b, x))
  }
  return most
}

/** Wire from the end of one row to the end of the next, mm; how much of it is bare, and by how much the side leans. */
export function sideOf(
  a: Rung,
  b: Rung,
): { readonly bridgeMm: number; readonly bareMm: number; readonly offMm: number } {
  const offMm = Math.abs(widthOf(a) - widthOf(b)) / 2
  const pitch = safePitchMm(a, b)
  const bridgeMm = Math.hypot(offMm, pitch)
  return { bridgeMm, bareMm: bridgeMm - pitch, offMm }
}

/** Outlines that a ladder can follow. */
export const OUTLINES = ['triangle', 'petal', 'diamond', 'drop'] as const
export type Outline = (typeof OUTLINES)[number]

/** How wide an outline is at each of so many rows, mm. */
export function outlineWidths(outline: Outline, rows: number, widestMm: number): number[] {
  return Array.from({ length: rows }, (_, i) => {
    const t = (i + 0.5) / rows
    switch (outline) {
      case 'triangle':
        return (widestMm * (i + 1)) / rows
      case 'petal':
        return widestMm * Math.sin(Math.PI * t)
      case 'diamond':
        return widestMm * (1 - Math.abs(2 * t - 1))
      case 'drop':
        return widestMm * Math.sin(Math.PI * t ** 1.5)
    }
  })
}

/** A row of two sizes that is its own mirror: how many of each; at most one of the counts is odd, and lies inside. */
interface Mix {
  readonly a: number
  readonly b: number
}

/** Rows within this many of the larger bead’s lengths of what is wanted are tried. */
const REACH = 0.75

function mixesFor(want: number, a: Bent, b: Bent): Mix[] {
  const out: Mix[] = []
  let nearest: { mix: Mix; off: number } | null = null
  const most = want + REACH * b.l
  for (let nb = 0; nb * b.l <= most + 1e-9; nb++)
    for (let na = 0; nb * b.l + na * a.l <= most + 1e-9; na++) {
      if (na + nb === 0 || (na % 2 === 1 && nb % 2 === 1)) continue
      const off = Math.abs(na * a.l + nb * b.l - want)
      if (off <= REACH * b.l + 1e-9) out.push({ a: na, b: nb })
      if (!nearest || off < nearest.off) nearest = { mix: { a: na, b: nb }, off }
    }
  return out.length > 0 ? out : [nearest?.mix ?? { a: 1, b: 0 }]
}

/** The beads of a mix from end to end: 0 the smaller outside, 1 the larger inside. */
export function mixedRow({ a, b }: Mix): number[] {
  const outer = Array<number>(Math.floor(a / 2)).fill(0)
  const inner = Array<number>(Math.floor(b / 2)).fill(1)
  const middle = a % 2 === 1 ? [0] : b % 2 === 1 ? [1] : []
  return [...outer, ...inner, ...middle, ...inner, ...outer]
}

/** What a mm² off the outline and a bead cost against a mm of bare wire. */
const OFF_COST = 0.5
const BEAD_COST = 0.01

/**
 * Rows of two sizes that follow an outline with the least bare wire at the sides: a dynamic programme over all
 * mirrored rows. Each row as 0 and 1, the smaller and the larger bead.
 */
export function rowsFollowing(widths: readonly number[], small: Bent, large: Bent): number[][] {
  const specs = [small, large]
  const beadsOf = (row: readonly number[]) => row.map((k) => specs[k]!)
  let paths: { row: number[]; beads: Bent[]; cost: number; before: unknown }[] = []
  type Path = (typeof paths)[number]
  widths.forEach((want, i) => {
    paths = mixesFor(want, small, large).map((mix): Path => {
      const row = mixedRow(mix)
      const beads = beadsOf(row)
      const own = OFF_COST * (widthOf(beads) - want) ** 2 + BEAD_COST * row.length
      if (i === 0) return { row, beads, cost: own, before: null }
      const best = paths.reduce<{ path: Path; cost: number } | null>((found, path) => {
        const cost = path.cost + 2 * sideOf(path.beads, beads).bareMm
        return found && found.cost <= cost + 1e-12 ? found : { path, cost }
      }, null)!
      return { row, beads, cost: own + best.cost, before: best.path }
    })
  })
  let at: Path | null = paths.reduce<Path | null>((best, path) => (best && best.cost <= path.cost ? best : path), null)
  const out: number[][] = []
  while (at) {
    out.push(at.row)
    at = at.before as Path | null
  }
  return out.reverse()
}

/** Each of two wires twisted together over a length, mm: √((t π a)² + L²). */
export const twistWireMm = (turns: number, wireMm: number, overMm: number): number =>
  Math.hypot(turns * Math.PI * wireMm, overMm)
