import { hung } from '../piece/held'
import { drawnSize } from '../piece/drawn-size'
import type { Part, Piece } from '../piece/piece'
import { sized } from '../piece/sizes'
import type { Graded } from '../technique/begins'
import { chainOf, LINK_MM, USUAL_LINKS } from '../technique/on-chain'
import type { Settings } from '../technique/technique'
import { firstPart, hungBelow } from './part'

/** Room between neighbours of a set, mm, and the most of them on one side. */
const BETWEEN_MM = 2
const MOST_ASIDE = 6
/** Links that are shown beyond the outermost, in all. */
const BEYOND = 10

interface GradedWish {
  readonly graded: Graded
  /** How wide the front should be, mm: at least one hangs on each side, and no more than find room. */
  readonly widthMm: number
  /** A part of those settings, as it is begun. */
  part(settings: Settings): Part
}

/** Links between the middles of two neighbours; even, so that all hang from links that lie the same way. */
const apart = (aMm: number, bMm: number): number => 2 * Math.ceil(((aMm + bMm) / 2 + BETWEEN_MM) / LINK_MM / 2)

/** A front of a piece that is begun with its middle: ever smaller ones on both sides, on a chain round the neck. */
export function beginGraded(piece: Piece, { graded, widthMm, part }: GradedWish): Piece {
  const middle = piece.parts[0]!
  const wide = (one: Part) => drawnSize(one).width
  const aside: { readonly part: Part; readonly links: number }[] = []
  let before = { part: middle, links: 0 }
  for (let away = 1; away <= MOST_ASIDE; away++) {
    const settings = graded.smaller(middle.settings, away)
    if (settings === null) break
    const [one] = sized({ tray: piece.tray, parts: [part(settings)] }).parts as [Part]
    const next = { part: one, links: before.links + apart(wide(before.part), wide(one)) }
    if (away > 1 && 2 * next.links * LINK_MM + wide(one) > widthMm) break
    aside.push(next)
    before = next
  }
  // An odd count of links has a middle one.
  const half = Math.max(Math.floor(USUAL_LINKS / 2), before.links + BEYOND / 2)
  const chain = firstPart(chainOf(2 * half + 1, 2 * before.links + BEYOND), 'chain', middle.spec, () => 0)
  const on = (links: number) => hungBelow(chain.id, [half + 1 + links])
  const beside = (side: 'left' | 'right', sign: -1 | 1) =>
    aside.map(({ part: one, links }, k): Part => ({
      ...one,
      id: `${side}-${k + 1}`,
      name: `${side === 'left' ? 'Left' : 'Right'} ${k + 1}`,
      on: on(sign * links),
    }))
  const parts = [
    chain,
    ...beside('left', -1).toReversed(),
    { ...middle, name: 'Middle', on: on(0) },
    ...beside('right', 1),
  ]
  return hung(sized({ ...piece, parts, fit: { ...piece.fit, part: middle.id } }))
}
