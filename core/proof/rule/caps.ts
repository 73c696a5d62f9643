import { setStep } from '../../piece/edit'
import { discOf } from '../../piece/nature'
import type { Piece } from '../../piece/piece'
import { boundEnd } from '../../tally/cords'
import { plainNumber } from '../../units/length'
import type { Found, Rule } from '../found'

/** What is called an end cap among the findings of a piece, and how wide it is said to be inside, mm. */
const NAMED = /^end caps?\b.*?(\d+(?:[.,]\d+)?)\s*mm/i
const INSIDE = /\d+(?:[.,]\d+)?\s*mm/

const renamed = ({ cost }: Piece, at: number, name: string): Piece['cost']['findings'] =>
  cost.findings.map((finding, k) => (k === at ? { ...finding, name } : { ...finding }))

/** End caps that the bound end of a braid does not go into. */
export const capNarrow: Rule = {
  id: 'cap-narrow',
  group: 'size',
  looksFor: 'End caps that are too narrow for what goes into them.',
  applies: ({ parts }) => parts.some((part) => discOf(part) !== null),
  ofPiece(piece: Piece): Found[] {
    const ends = piece.parts.flatMap((part) => {
      const end = boundEnd(part, piece.tray)
      return end ? [{ part, end }] : []
    })
    // Caps are bought for the thickest of what is bound.
    const thickest = ends.toSorted((a, b) => b.end.boundMm - a.end.boundMm)[0]
    if (!thickest) return []
    const { part, end } = thickest
    return piece.cost.findings.flatMap(({ name }, k): Found[] => {
      const said = NAMED.exec(name)?.[1]
      const insideMm = Number(said?.replace(',', '.'))
      if (said === undefined || insideMm >= end.boundMm) return []
      const wanted = `${plainNumber(end.capMm)} mm`
      const boundMm = plainNumber(Math.round(end.boundMm * 10) / 10)
      return [
        {
          weight: 'stops',
          says:
            `${name}: ${end.cords} cords bound together come to ${boundMm} mm and do not go in. ` +
            `Take end caps of ${wanted} inside.`,
          why: 'The end is bound and glued before it is tried: too thick, it has to be cut off again.',
          part: part.id,
          mends: [
            {
              label: `Take end caps of ${wanted}`,
              steps: [setStep(piece, ['cost', 'findings'], renamed(piece, k, name.replace(INSIDE, wanted)))],
            },
          ],
        },
      ]
    })
  },
}
