import { keyOf } from '../grid/key'
import { layingSteps } from '../piece/edit'
import { columnsOf, type Part } from '../piece/piece'
import type { Mend, Spot } from './found'
import { placeOfSpot } from './spots'

/** Lays beads at spots, each what it should be. */
export function laying(part: Part, spots: readonly Spot[], numbers: readonly number[]): Mend['steps'] {
  const columns = columnsOf(part)
  return layingSteps(
    part,
    new Map(
      spots.map((spot, k) => {
        const { c, r } = placeOfSpot(part, spot)
        return [keyOf(columns, c, r), numbers[k]!]
      }),
    ),
  )
}
