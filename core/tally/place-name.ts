import { techniqueOf, workOf, type Part } from '../piece/piece'
import type { Place } from '../technique/lattice'
import { rowTitle } from './words'

/** Names of places of the work as weavers count them: a bead row of peyote is two. */

/** The line in which a bead is worked: “Row 12”, “Strand 7”. */
export function lineName(part: Part, { c, r }: Place): string {
  const { words, order } = techniqueOf(part)
  const work = workOf(part)
  const { from, to, title } = order.row(order.rowOf({ c, r }, work), work)
  return rowTitle({ from, to, line: words.line, ...(title ? { title } : {}) })
}

/** A bead as it is found in the work: “row 12, column 3”; in lines of their own lengths “strand 7, bead 3”. */
export const placeName = (part: Part, place: Place): string =>
  `${lineName(part, place).toLowerCase()}, ${techniqueOf(part).words.place} ${place.c + 1}`
