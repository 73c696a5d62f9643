/** What grows from one to the next in a set. */

/**
 * Counts that grow evenly from `first` to `last` over so many places: steps differ by at most one, and both ends are
 * exact (n_j = a + ⌊j (b − a) / (m − 1) + ½⌋).
 */
export const grownEvenly = (first: number, last: number, places: number): number[] =>
  Array.from({ length: places }, (_, j) =>
    places === 1 ? first : first + Math.floor((j * (last - first)) / (places - 1) + 0.5),
  )

/** The last counts nearest to one that is wanted from which every step is the same: below and above; itself if so. */
export function evenLasts(first: number, last: number, places: number): number[] {
  if (places < 2) return [last]
  const step = (last - first) / (places - 1)
  return [...new Set([Math.floor(step), Math.ceil(step)])].map((s) => first + s * (places - 1))
}

/**
 * How often each of some sizes comes, from the outer to the inner, over the places of one half: as evenly as they
 * give, the outer and smaller ones once more where it does not divide (lighter, and cheaper).
 */
export const sizesShared = (sizes: number, places: number): number[] =>
  Array.from({ length: sizes }, (_, k) => Math.floor(places / sizes) + (k < places % sizes ? 1 : 0))
