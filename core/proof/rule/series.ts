import { isGrid, partRow, rowsOf, techniqueOf, voidsOf, columnsOf, type Part } from '../../piece/piece'
import { keyOf } from '../../grid/key'
import { lineSteps } from '../../piece/alike'
import { layingSteps } from '../../piece/edit'
import { partFindings } from '../finding'
import type { Found, Rule } from '../found'
import { seriesBreaks } from '../series'
import { strandHalves } from './halves'
import { lineSpot } from '../spots'
import { counted, lineWord, rowSays } from '../words'

/** Series of more terms are patterns, which other rules read. */
const MOST_TERMS = 400

/** Codes of what techniques find themselves of their own series. */
const OWN = new Set(['step-breaks', 'strands-differ', 'not-level'])

/** A line of another count: beads are taken out of its middle, or the one in its middle comes again. */
function resized(line: Uint16Array, count: number): Uint16Array {
  const half = Math.ceil(count / 2)
  const from = line.length - (count - half)
  return Uint16Array.from(
    { length: count },
    (_, c) => line[c < half ? Math.min(c, line.length - 1) : Math.max(0, from + c - half)]!,
  )
}

/** Beads of each line, of work whose lines follow each other in a series. */
export const lineSeries: Rule = {
  id: 'series-breaks',
  group: 'counting',
  looksFor: 'Strands, rungs or rows whose counts break their own step.',
  // What is full by its geometry has counts that follow no step.
  needs: (part) => !isGrid(part) && !techniqueOf(part).wire?.full && techniqueOf(part).picks === undefined,
  ofPart(part, piece): Found[] {
    const rows = rowsOf(part)
    if (rows > MOST_TERMS || partFindings(part, piece).some(({ code }) => OWN.has(code))) return []
    // Of strands from both sides, the pair that differs is said.
    if (strandHalves.needs!(part, piece) && strandHalves.ofPart!(part, piece).length > 0) return []
    const counts = Array.from({ length: rows }, (_, r) => partRow(part, r).length)
    return seriesBreaks(counts).map(({ at, is, expected, rule }): Found => {
      const spot = lineSpot(part, at)
      return {
        weight: 'looks',
        says:
          `${rowSays(part, spot)} has ${counted(is, 'bead')}; the others are ${rule}, which would be ${expected}. ` +
          `${is > expected ? 'Take' : 'String'} ${counted(Math.abs(is - expected), 'bead')} ` +
          `${is > expected ? 'off' : 'more'}.`,
        why: 'One bead too many or too few is seen in a row of things that grow evenly.',
        spots: [spot],
        mends: [
          {
            label: `Make it ${counted(expected, 'bead')}`,
            steps: lineSteps(part, at, resized(partRow(part, at), expected)),
          },
        ],
      }
    })
  },
}

/** Empty places of a row before its first bead and behind its last, where it has any. */
function edges(part: Part, r: number): readonly [number, number] | null {
  const line = partRow(part, r)
  const first = line.findIndex((n) => n !== 0)
  return first < 0 ? null : [first, line.length - 1 - line.findLastIndex((n) => n !== 0)]
}

/** Makes an edge of a row what it should be: beads like its outermost one are laid, or beads are taken off. */
function edgeSteps(part: Part, r: number, side: 0 | 1, is: number, expected: number) {
  const line = partRow(part, r)
  const at = (k: number): number => (side === 0 ? k : line.length - 1 - k)
  const number = is > expected ? line[at(is)]! : 0
  const columns = columnsOf(part)
  const [from, to] = [Math.min(is, expected), Math.max(is, expected)]
  return layingSteps(
    part,
    new Map(Array.from({ length: to - from }, (_, k) => [keyOf(columns, at(from + k), r), number])),
  )
}

/** The edges of a shaped piece: how far in each row begins and ends. */
export const edgeSeries: Rule = {
  id: 'edge-breaks',
  group: 'counting',
  looksFor: 'An edge that grows or narrows by a step, and breaks it.',
  alone: true,
  needs: (part) => isGrid(part) && techniqueOf(part).rowsLieBeside && part.times <= 1,
  ofPart(part): Found[] {
    const rows = rowsOf(part)
    if (rows > MOST_TERMS || columnsOf(part) < 3) return []
    const all = Array.from({ length: rows }, (_, r) => edges(part, r))
    if (all.some((e) => e === null) || all.every((e) => e![0] === 0 && e![1] === 0)) return []
    // Places that the stitch does not have make edges of their own.
    if (voidsOf(part).length > 0) return []
    return ([0, 1] as const).flatMap((side): Found[] =>
      seriesBreaks(all.map((e) => e![side])).map(({ at, is, expected, rule }): Found => {
        const spot = lineSpot(part, at)
        const off = Math.abs(is - expected)
        return {
          weight: 'looks',
          says:
            `${rowSays(part, spot)} ${side === 0 ? 'begins' : 'ends'} ${counted(off, 'bead')} too ` +
            `${is > expected ? 'far in' : 'far out'}: the other ${lineWord(part)}s are ${rule}.`,
          why: 'The outline of a shaped piece is the first thing that is seen.',
          spots: [spot],
          mends: [
            {
              label: is > expected ? `Lay ${counted(off, 'bead')} there` : `Take ${counted(off, 'bead')} off`,
              steps: edgeSteps(part, at, side, is, expected),
            },
          ],
        }
      }),
    )
  },
}
