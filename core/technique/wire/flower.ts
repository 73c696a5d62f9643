import { centreOfPetals, petalsRound, RATTLES } from '../../wire/cross'
import type { Row } from '../../recipe/rows'
import { tenths } from '../carrier/line'
import { highOfRow, largeIn, lineOf, longOfRow, places, profileOf, straightWay, type Filling } from './filling'

/** How a line is made up: beads to the flower, its petals, its middle, and beads on, as many as before. */
export function flowerIn(row: Row): { readonly lead: number; readonly petals: number; readonly centre: number } {
  const centre = largeIn(row)
  const after = Math.max(0, row.length - 1 - centre)
  const lead = Math.min(after, Math.max(0, centre - 3))
  return { lead, petals: Math.max(0, centre - lead), centre }
}

/** What is wrong with a middle of so many petals; nothing where they close on it. */
export function flowerSays(petal: Row[number], count: number, centreMm: number): string[] {
  if (count < 3) return []
  const closes = centreOfPetals(petal, count)
  if (centreMm < closes - RATTLES * petal.d)
    return [
      `${count} petals close on a middle of ${tenths(closes)} mm: one of ${tenths(centreMm)} mm rattles in them. ` +
        'Take a petal out, or a larger middle.',
    ]
  if (centreMm > closes + RATTLES * petal.d) {
    const { count: fits } = petalsRound(petal, centreMm)
    return [
      `A middle of ${tenths(centreMm)} mm is wider than ${count} petals close on (${tenths(closes)} mm): wire ` +
        `shows between them. ${fits > count ? `Take ${fits} petals` : 'Take a smaller middle'}.`,
    ]
  }
  return []
}

/** A ring of petals round a middle that a wire locks across it, beads on both sides. */
export const flower: Filling = {
  id: 'flower',
  name: 'Flower',
  says: 'A ring of petals, closed through the first, and a middle locked across it.',
  wires: 1,
  passes: { small: 2, large: 1 },
  propose(freeMm, small, large) {
    const { count } = petalsRound(small, large.d)
    const lead = Math.max(0, Math.floor((freeMm - large.d - 2 * small.d) / (2 * small.l) + 1e-9))
    const side = Array<number>(lead).fill(0)
    return [...side, ...Array<number>(Math.max(3, count)).fill(0), 1, ...side]
  },
  lay(row, freeMm) {
    const { lead, petals, centre } = flowerIn(row)
    const big = row[centre]
    if (!big || petals < 3)
      return {
        ...{ longMm: longOfRow(row), highMm: highOfRow(row), poses: lineOf(row, -freeMm / 2, freeMm / 2), says: [] },
        profile: profileOf(row),
        wires: [{ points: straightWay(freeMm), moreMm: 0 }],
        lacing: ([wire]) => [{ do: 'pick', by: wire!, at: places(0, row.length) }],
      }
    const ring = row.slice(lead, centre)
    const thick = highOfRow(ring)
    const closes = centreOfPetals(ring[0]!, petals)
    const middle = (Math.max(big.d, closes) + thick) / 2
    const half = middle + thick / 2
    const end = freeMm / 2
    const [left, right] = [row.slice(0, lead), row.slice(centre + 1)]
    const round = 2 * Math.PI * middle
    const leaves = lead + Math.ceil((petals + 1) / 2) - 1
    return {
      longMm: longOfRow(left) + 2 * half + longOfRow(right),
      highMm: 2 * half,
      profile: [
        { highMm: highOfRow([...left, ...right]), outerMm: 0 },
        { highMm: 2 * half, outerMm: Math.min(longOfRow(left), longOfRow(right)) },
      ],
      // The first petal lies on the left, where the wire comes in; they go over the top.
      poses: [
        ...lineOf(left, -end, -half),
        ...ring.map((_, i) => {
          const angle = (2 * Math.PI * i) / petals
          return {
            x: -middle * Math.cos(angle),
            y: -middle * Math.sin(angle),
            turnDegrees: (angle * 180) / Math.PI - 90,
          }
        }),
        { x: 0, y: 0, turnDegrees: 0 },
        ...lineOf(right, half, end),
      ],
      wires: [
        {
          points: [
            { x: -end, y: 0 },
            { x: -middle, y: 0 },
            ...Array.from({ length: 41 }, (_, k) => {
              const angle = (2 * Math.PI * k) / 40
              return { x: -middle * Math.cos(angle), y: -middle * Math.sin(angle) }
            }),
            { x: end, y: 0 },
          ],
          // Round, through the first petal again, and across to the far side.
          moreMm: round + ring[0]!.l,
        },
      ],
      lacing: ([wire]) => [
        { do: 'pick', by: wire!, at: places(0, lead) },
        { do: 'pick', by: wire!, at: places(lead, centre), note: 'petals' },
        { do: 'pass', by: wire!, at: [lead], way: 'on', note: 'closes the ring' },
        { do: 'pick', by: wire!, at: [centre], note: 'across the ring' },
        { do: 'pass', by: wire!, at: [leaves], way: 'on', note: 'out on the far side' },
        { do: 'pick', by: wire!, at: places(centre + 1, row.length) },
      ],
      says: flowerSays(ring[0]!, petals, big.d),
    }
  },
}
