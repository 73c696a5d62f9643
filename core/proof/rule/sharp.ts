import { requireSpec, type BeadShape } from '../../bead/spec'
import { columnsOf, isGrid, partRow, techniqueOf, type Part, type Piece } from '../../piece/piece'
import { isCounted } from '../../piece/nature'
import { pathOf } from '../../supply/thread'
import type { Found, Rule, Spot } from '../found'
import { keptLines } from '../spots'
import { counted, lineWord, listed, rowSays } from '../words'

/** Shapes whose edges fray thread (common practice). */
const SHARP = new Set<BeadShape>(['bugle', 'hex-cut', 'bicone', 'faceted'])

const onThread = (part: Part): boolean => pathOf(part).runs.some(({ id }) => id === 'thread' || id === 'weft')

/** Outermost beads of a line, round which the thread turns: both of a row, the lowest of a strand. */
const turnsAt = (part: Part, length: number): readonly number[] =>
  techniqueOf(part).strands ? [length - 1] : length > 1 ? [0, length - 1] : [0]

/** Spots where the thread turns at a sharp bead. */
function sharpTurns(part: Part, { tray }: Piece): Spot[] {
  const sharp = new Set(tray.filter((b) => SHARP.has(requireSpec(b.spec).shape)).map((b) => b.number))
  if (sharp.size === 0) return []
  return keptLines(part).flatMap(({ section, r, whole }) => {
    const line = partRow(part, whole)
    return turnsAt(part, line.length).flatMap((c) => (sharp.has(line[c]!) ? [{ section, r, c }] : []))
  })
}

/** Sharp-edged beads with no seed where the thread turns. */
export const sharpEdges: Rule = {
  id: 'sharp-turn',
  group: 'making',
  looksFor: 'Bugles, cut beads and crystals with no seed where the thread turns.',
  alone: true,
  needs: (part) =>
    isCounted(part) &&
    // Where work is told step by step, its lines do not end where the thread turns.
    (isGrid(part) ? !techniqueOf(part).round && columnsOf(part) > 1 : techniqueOf(part).strands !== undefined) &&
    onThread(part),
  ofPart(part, piece): Found[] {
    const spots = sharpTurns(part, piece)
    if (spots.length === 0) return []
    const lines = [...new Map(spots.map((s) => [`${s.section} ${s.r}`, s])).values()]
    const shapes = [...new Set(spots.map((s) => requireSpec(beadAt(piece, part, s)).name))]
    return [
      {
        weight: 'note',
        says:
          `The thread turns round ${listed(shapes)} in ${counted(lines.length, lineWord(part))}, first in ` +
          `${rowSays(part, lines[0]!).toLowerCase()}: put a seed bead at the turn, or take a thread that bears edges.`,
        why: 'Sharp edges cut thread where it bends round them; it breaks in wear.',
        spots,
      },
    ]
  },
}

const beadAt = ({ tray }: Piece, part: Part, { section, r, c }: Spot): string => {
  const whole = keptLines(part).find((l) => l.section === section && l.r === r)!.whole
  const number = partRow(part, whole)[c ?? 0]!
  return tray.find((b) => b.number === number)!.spec
}
