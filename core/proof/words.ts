import { numberAt, techniqueOf, type Part, type Piece } from '../piece/piece'
import { lineName, placeName } from '../tally/place-name'
import type { Spot } from './found'
import { placeOfSpot } from './spots'

/** How places, beads and lists are said by the proofreader. */

export const rowSays = (part: Part, spot: Spot): string => lineName(part, placeOfSpot(part, spot))
export const spotSays = (part: Part, spot: Spot): string => {
  const words = placeName(part, placeOfSpot(part, spot))
  return words.slice(0, 1).toUpperCase() + words.slice(1)
}

/** “A”, by its letter; an empty place has none. */
export const letterOf = ({ tray }: Pick<Piece, 'tray'>, number: number): string =>
  number === 0 ? 'empty' : (tray.find((b) => b.number === number)?.letter ?? '?')

/** “A Fog”. */
export const beadSays = ({ tray }: Pick<Piece, 'tray'>, number: number): string => {
  const bead = tray.find((b) => b.number === number)
  return bead ? `${bead.letter} ${bead.name}` : letterOf({ tray }, number)
}

export const letterAt = (piece: Pick<Piece, 'tray'>, part: Part, spot: Spot): string => {
  const { c, r } = placeOfSpot(part, spot)
  return letterOf(piece, numberAt(part, c, r))
}

/** “3, 5 and 7”; of many the first. */
export function listed(words: readonly (string | number)[], most = 6): string {
  const all = words.map(String)
  if (all.length > most) return `${all.slice(0, most).join(', ')} and ${all.length - most} more`
  return all.length < 2 ? all.join('') : `${all.slice(0, -1).join(', ')} and ${all.at(-1)}`
}

export const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`

/** “row” or “strand”. */
export const lineWord = (part: Part): string => techniqueOf(part).words.line
