import { partFindings } from '../finding'
import type { Found, Rule } from '../found'
import { lineSpot } from '../spots'

/** Why what a technique finds of its own matters, by what it weighs. */
const WHY = {
  stops: 'As it is planned, the hands come to a place where they cannot go on.',
  looks: 'It would be seen when the piece is done.',
  note: 'It can be worked as it is; better to know before it is begun.',
} as const

/** What every technique asks of its own work: empty lines, counts that its stitch forbids, how things hang. */
export const own: Rule = {
  id: 'own',
  group: 'making',
  looksFor: 'What a stitch asks of its own counts, paths and joints, and lines left empty.',
  ofPart: (part, piece) =>
    partFindings(part, piece).map(({ code, weight, says, lines }): Found => ({
      ...{ code, weight, says, why: WHY[weight] },
      ...(lines ? { spots: lines.map((r) => lineSpot(part, r)) } : {}),
    })),
}
