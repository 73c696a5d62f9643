import { lineAt } from '../../grid/lines'
import { numberAt, techniqueOf, type Part, type Piece } from '../../piece/piece'
import { laying } from '../lay'
import { oddInLines, type OddBead, type OddInLine } from '../line-law'
import { hasField } from '../odd/field'
import type { Found, Rule, Spot } from '../found'
import { keptLines, placeOfSpot } from '../spots'
import { counted, letterOf, lineWord, listed, rowSays, spotSays } from '../words'

/** Beads that break what the lists of strung, recipe and wire work follow, where no lattice tells it. */

const WHY = 'One bead off shows, and it is found at the end.'

function found(part: Part, piece: Piece, one: OddInLine, spots: readonly Spot[]): Found {
  const letterAt = (spot: Spot) => {
    const { c, r } = placeOfSpot(part, spot)
    return letterOf(piece, numberAt(part, c, r))
  }
  const expected = one.beads.map((bead) => bead.expected)
  const letters = expected.map((number) => letterOf(piece, number))
  const [spot, fellow] = spots as [Spot, Spot?]
  const head = { weight: 'looks', why: WHY, spots } as const
  if ((one.law === 'mirror' || one.law === 'halves') && fellow) {
    const sides = one.law === 'mirror' ? 'from both ends' : 'in both halves'
    return {
      ...head,
      says:
        `${spotSays(part, spot)} (${letterAt(spot)}) and ${placeWord(part)} ${fellow.c! + 1} (${letterAt(fellow)}) ` +
        `should be alike, as ${counted(one.witnesses, 'pair')} are ${sides}; which is right? Make both so.`,
      mends: [
        { label: `Make both ${letterAt(spot)}`, steps: laying(part, [fellow], [expected[1]!]) },
        { label: `Make both ${letterAt(fellow)}`, steps: laying(part, [spot], [expected[0]!]) },
      ],
    }
  }
  const again =
    one.law === 'along'
      ? `its ${one.step} beads come again, ${counted(one.witnesses, 'place')} like it`
      : one.step === 1
        ? `${counted(one.witnesses, lineWord(part))} like it`
        : `every ${one.step} ${lineWord(part)}s they come again, ${one.witnesses} like it`
  const [letter] = letters
  if (spots.length === 1)
    return {
      ...head,
      says:
        `${spotSays(part, spot)} is ${letterAt(spot)} where ${letter} is expected (${again}). ` +
        `Lay ${letter} there.`,
      mends: [{ label: `Lay ${letter} there`, steps: laying(part, spots, expected) }],
    }
  return {
    ...head,
    says:
      `${rowSays(part, spot)} is not as the others (${again}): ${placeWord(part)}s ` +
      `${listed(spots.map(({ c }) => c! + 1))} are ${spots.map(letterAt).join(' ')}, expected ${letters.join(' ')}. ` +
      'Lay these.',
    mends: [{ label: `Lay these ${spots.length} beads`, steps: laying(part, spots, expected) }],
  }
}

const placeWord = (part: Part): string => techniqueOf(part).words.place

export const oddLines: Rule = {
  id: 'line-odd',
  group: 'odd',
  looksFor: 'Beads of a strand, wire or motif that break what the rest of it, or its fellows, follow.',
  alone: true,
  needs: (part) => !hasField(part),
  ofPart(part, piece) {
    const kept = keptLines(part)
    const lines = kept.map(({ section, r }) => lineAt(part[section], r))
    const size = new Map(piece.tray.map(({ number, spec }) => [number, spec]))
    // A bead of another size is how the work is made, not a slip of colour.
    const isColour = ({ line, c, expected }: OddBead) => size.get(lines[line]![c]!) === size.get(expected)
    return oddInLines(lines)
      .filter(({ beads }) => beads.every(isColour))
      .map((one) =>
        found(
          part,
          piece,
          one,
          one.beads.map(({ line, c }) => ({ section: kept[line]!.section, r: kept[line]!.r, c })),
        ),
      )
  },
}
