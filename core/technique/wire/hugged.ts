import { roundBead } from '../../wire/cross'
import type { Lacing } from '../../recipe/laced'
import type { Row } from '../../recipe/rows'
import { atBothEnds, highOfRow, largeIn, lineOf, longOfRow, places, straightWay, type Filling } from './filling'

/** How a line is made up: beads to the large one, those that curve over it, it, those below it, and beads on. */
function rolesOf(row: Row): { readonly lead: number; readonly round: number; readonly large: number } {
  const large = largeIn(row)
  const small = row[large - 1] ?? row[large + 1]
  const most = small && large >= 0 ? roundBead(small, row[large]!.d / 2, 'half') : 0
  const round = Math.max(0, Math.min(most, large, row.length - 1 - large))
  return { lead: large - round, round, large }
}

/**
 * A large bead with small ones curved over and under it: the wire goes through it, back over it through small beads,
 * through it again, back under it through as many, and through it once more.
 */
export const hugged: Filling = {
  id: 'hugged',
  name: 'Bead with a curve',
  says: 'A large bead, small ones curved over and under it; the wire passes it three times.',
  wires: 1,
  passes: { small: 1, large: 3 },
  propose(freeMm, small, large) {
    const round = roundBead(small, large.d / 2, 'half')
    const wide = Math.max(large.l, large.d + 2 * small.d)
    const lead = Math.max(0, Math.floor((freeMm - wide) / (2 * small.l) + 1e-9))
    const side = Array<number>(lead + round).fill(0)
    return [...side, 1, ...side]
  },
  widened: atBothEnds,
  lay(row, freeMm) {
    const { lead, round, large } = rolesOf(row)
    const big = row[large]
    if (!big)
      return {
        ...{
          longMm: 0,
          highMm: 0,
          profile: [],
          poses: [],
          wires: [{ points: straightWay(freeMm), moreMm: 0 }],
          says: [],
        },
        lacing: (): Lacing[] => [],
      }
    const above = row.slice(lead, lead + round)
    const below = row.slice(large + 1, large + 1 + round)
    const after = row.slice(large + 1 + round)
    const thick = Math.max(highOfRow(above), highOfRow(below))
    const middle = big.d / 2 + thick / 2
    const half = round > 0 ? big.d / 2 + thick : big.l / 2
    const [left, right] = [row.slice(0, lead), after]
    // Wire that leads on from the large bead to the small ones and back: half a bead on each side.
    const arc = (side: 1 | -1, beads: Row) =>
      beads.map((_, i) => {
        const angle = ((i + 0.5) / beads.length) * Math.PI
        return {
          x: -middle * Math.cos(angle),
          y: -side * middle * Math.sin(angle),
          turnDegrees: side * ((angle * 180) / Math.PI - 90),
        }
      })
    const way = (side: 1 | -1) =>
      Array.from({ length: 25 }, (_, k) => {
        const angle = (k / 24) * Math.PI
        return { x: middle * Math.cos(angle), y: -side * middle * Math.sin(angle) }
      })
    const end = freeMm / 2
    const loops = (round > 0 ? 2 : 0) * (Math.PI * middle + 2 * Math.max(0, middle - big.l / 2) + big.l)
    return {
      longMm: longOfRow(left) + 2 * half + longOfRow(right),
      highMm: round > 0 ? 2 * half : highOfRow(row),
      profile: [
        { highMm: highOfRow([...left, ...right]), outerMm: 0 },
        { highMm: round > 0 ? 2 * half : big.d, outerMm: Math.min(longOfRow(left), longOfRow(right)) },
      ],
      poses: [
        ...lineOf(left, -end, -half),
        ...arc(1, above),
        { x: 0, y: 0, turnDegrees: 0 },
        ...arc(-1, below),
        ...lineOf(right, half, end),
      ],
      wires: [
        {
          points: [
            { x: -end, y: 0 },
            { x: middle, y: 0 },
            ...(round > 0 ? [...way(1), { x: middle, y: 0 }, ...way(-1)] : []),
            { x: -middle, y: 0 },
            { x: end, y: 0 },
          ],
          moreMm: loops,
        },
      ],
      lacing: ([wire]): Lacing[] => [
        { do: 'pick', by: wire!, at: places(0, lead) },
        { do: 'pick', by: wire!, at: [large] },
        ...(round > 0
          ? ([
              {
                ...{ do: 'pick', by: wire!, at: places(lead, lead + round).reverse(), turned: true },
                note: 'back over the large bead',
              },
              { do: 'pass', by: wire!, at: [large], way: 'on' },
              {
                ...{ do: 'pick', by: wire!, at: places(large + 1, large + 1 + round).reverse(), turned: true },
                note: 'back under it',
              },
              { do: 'pass', by: wire!, at: [large], way: 'on', note: 'draw both curves close' },
            ] satisfies Lacing[])
          : []),
        { do: 'pick', by: wire!, at: places(large + 1 + round, row.length) },
      ],
      says: [],
    }
  },
}
