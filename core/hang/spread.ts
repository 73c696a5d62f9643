/**
 * How many of a row of beads each hole of a finding takes, so that they lie as evenly as they can and the same from
 * both sides: every hole ⌊N / H⌋, and the holes nearest to evenly spread places one more. Holes from left to right;
 * null where no such way is: an odd number of extra beads needs a middle hole.
 *
 * The ideal place of extra bead i of e is (i + ½) H / e, counted in holes; the nearest middle of a hole is the one it
 * lies in.
 */
export function spreadOver(holes: number, beads: number): number[] | null {
  if (holes < 1 || beads < 0) return null
  const each = Math.floor(beads / holes)
  const extra = beads - each * holes
  if (extra % 2 === 1 && holes % 2 === 0) return null
  const out = Array<number>(holes).fill(each)
  for (let i = 0; i < Math.floor(extra / 2); i++) {
    const hole = Math.floor(((2 * i + 1) * holes) / (2 * extra))
    out[hole]!++
    out[holes - 1 - hole]!++
  }
  if (extra % 2 === 1) out[(holes - 1) / 2]!++
  return out
}

/** Holes, from 0, that take more beads than the others; all that take any where not every hole has one. */
export function fullerHoles(spread: readonly number[]): number[] {
  const least = Math.min(...spread)
  return spread.flatMap((beads, hole) => (beads > least ? [hole] : []))
}

/** Counts next to one that can be spread the same from both sides. */
export const nearSpreads = (holes: number, beads: number): number[] =>
  [beads - 1, beads + 1].filter((n) => n > 0 && spreadOver(holes, n) !== null)
