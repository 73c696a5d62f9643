/**
 * Thresholds of an ordered mix (Bayer 1973), each 0 … 1, side `LENGTH_8`; made from the smallest one by the rule that
 * doubles it.
 */
export const LENGTH_8 = 8

function doubled(small: readonly number[], side: number): number[] {
  const out = new Array<number>(4 * side * side)
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      const v = 4 * small[y * side + x]!
      out[y * 2 * side + x] = v
      out[y * 2 * side + x + side] = v + 2
      out[(y + side) * 2 * side + x] = v + 3
      out[(y + side) * 2 * side + x + side] = v + 1
    }
  }
  return out
}

export const BAYER_8: readonly number[] = doubled(doubled([0, 2, 3, 1], 2), 4).map((n) => (n + 0.5) / 64)
