/**
 * Things that hang from every so-manieth of a row of places: links of a chain, holes, beads of an edge. They lie the
 * same from both sides only where as many places are left over on the left as on the right.
 */

/**
 * The first of `places` (from 0) that carries one of `count` things, `every` places apart, so that the same number is
 * left over on both sides: (places − 1 − every (count − 1)) / 2. Null where that is no whole number, or they do not
 * all find room.
 */
export function middleFirst(places: number, count: number, every: number): number | null {
  const spare = places - 1 - every * (count - 1)
  return count < 1 || spare < 0 || spare % 2 !== 0 ? null : spare / 2
}

/** Counts of places next to one over which so many lie the same from both sides; at least as many as they take. */
export function nearPlaces(places: number, count: number, every: number): number[] {
  const least = every * (count - 1) + 1
  return [...new Set([Math.max(least, places - 1), Math.max(least, places + 1)])].filter(
    (n) => middleFirst(n, count, every) !== null,
  )
}

/** Counts of things next to one that lie the same from both sides over those places; none where every is even. */
export const nearCounts = (places: number, count: number, every: number): number[] =>
  [count - 1, count + 1].filter((n) => middleFirst(places, n, every) !== null)

/** Whole links of a chain that is so long, mm; a piece is cut through the next link. */
export const linksIn = (mm: number, linkMm: number): number => (linkMm > 0 ? Math.round(mm / linkMm) : 0)

/** How far apart, in links, so many things hang that should span a width, mm; at least 1. */
export const everyFor = (spanMm: number, count: number, linkMm: number): number =>
  count > 1 && linkMm > 0 ? Math.max(1, Math.round(spanMm / (linkMm * (count - 1)))) : 1

/**
 * The length of a strap, mm, of a necklace that measures `necklaceMm` closed: less its clasp; one piece that what
 * hangs slides on, or two that end at the sides of a front of `frontMm`.
 */
export function strapPieces(
  necklaceMm: number,
  { claspMm, frontMm }: { readonly claspMm: number; readonly frontMm: number | null },
): { readonly pieces: 1 | 2; readonly eachMm: number } {
  const left = Math.max(0, necklaceMm - claspMm - (frontMm ?? 0))
  return frontMm === null ? { pieces: 1, eachMm: left } : { pieces: 2, eachMm: left / 2 }
}
