import { insertRowsStep, removeRowsStep } from '../../piece/edit'
import { runsOf } from '../../grid/runs'
import {
  columnsOf,
  numberAt,
  sectionStart,
  techniqueOf,
  type GridPart,
  type Part,
  type Piece,
} from '../../piece/piece'
import { hasField } from '../odd/field'
import type { OddOnes } from '../odd/group'
import { oddOnesOf, type OddFindings } from '../odd/odd'
import type { Slip } from '../odd/slip'
import type { Found, Mend, Rule, Spot } from '../found'
import { laying } from '../lay'
import { lineSpot, placeOfSpot } from '../spots'
import { counted, letterOf, lineWord, listed, rowSays, spotSays } from '../words'

/** Beads, runs and rows that break what nearly everything else of a pattern follows. */

/** What was read of a part, as long as its lines stay. */
const read = new WeakMap<object, { readonly of: readonly unknown[]; readonly found: OddFindings }>()

function oddOf(part: GridPart): OddFindings {
  const { start, repeat, end, times, technique, settings } = part
  const of = [start, end, times, technique, settings]
  const known = read.get(repeat)
  if (known?.of.every((value, k) => value === of[k])) return known.found
  const found = oddOnesOf(part)
  read.set(repeat, { of, found })
  return found
}

/** The spot of a cell of what is kept: start, the repeat once, end. */
function spotOfCell(part: Part, cell: number): Spot {
  const columns = columnsOf(part)
  const [c, r] = [cell % columns, Math.floor(cell / columns)]
  if (r < part.start.rows) return { section: 'start', r, c }
  const inside = r - part.start.rows
  return inside < part.repeat.rows
    ? { section: 'repeat', r: inside, c }
    : { section: 'end', r: inside - part.repeat.rows, c }
}

/** “5–8”, “5, 7 and 9”. */
function columnsSay(columns: readonly number[]): string {
  const sorted = columns.toSorted((a, b) => a - b)
  const run = sorted.every((c, k) => k === 0 || c === sorted[k - 1]! + 1)
  return run && sorted.length > 2 ? `${sorted[0]}–${sorted.at(-1)}` : listed(sorted, sorted.length)
}

const WHY = 'One bead off shows, and it is found at the end.'

function beadsFound(part: Part, piece: Piece, ones: OddOnes): Found {
  const order = ones.cells.map((_, k) => k).toSorted((a, b) => ones.cells[a]! - ones.cells[b]!)
  const spots = order.map((k) => spotOfCell(part, ones.cells[k]!))
  const expected = order.map((k) => ones.expected[k]!)
  const numbers = spots.map((spot) => {
    const { c, r } = placeOfSpot(part, spot)
    return numberAt(part, c, r)
  })
  const letters = (list: readonly number[]) => list.map((n) => letterOf(piece, n)).join(' ')
  const weight = ones.sure ? 'looks' : 'note'
  const code = ones.sure ? 'odd' : 'odd-perhaps'
  const head = { weight, code, why: WHY, spots } as const
  if (ones.pair && spots.length === 2) {
    const [a, b] = [letterOf(piece, numbers[0]!), letterOf(piece, numbers[1]!)]
    const both = (number: number, letter: string): Mend => ({
      label: `Make both ${letter}`,
      steps: laying(part, spots, [number, number]),
    })
    return {
      ...head,
      says:
        `${spotSays(part, spots[0]!)} (${a}) and ${spotSays(part, spots[1]!).toLowerCase()} (${b}) should be alike; ` +
        'which is right? Make both so.',
      mends: [both(numbers[0]!, a), both(numbers[1]!, b)],
    }
  }
  const lay: Mend = {
    label: spots.length === 1 ? `Lay ${letters(expected)} there` : `Lay these ${spots.length} beads`,
    steps: laying(part, spots, expected),
  }
  const places = `${counted(ones.witnesses, 'place')} like it`
  if (spots.length === 1)
    return {
      ...head,
      says:
        `${spotSays(part, spots[0]!)} is ${letters(numbers)} where ${letters(expected)} is expected (${places}). ` +
        `Lay ${letters(expected)} there.`,
      mends: [lay],
    }
  const oneRow = spots.every(({ section, r }) => section === spots[0]!.section && r === spots[0]!.r)
  const word = techniqueOf(part).words.place
  return {
    ...head,
    says: oneRow
      ? `${rowSays(part, spots[0]!)} breaks the pattern that ${counted(ones.witnesses, 'other place')} ` +
        `follow${ones.witnesses === 1 ? 's' : ''}: ${word}s ${columnsSay(spots.map(({ c }) => c! + 1))} ` +
        `are ${letters(numbers)}, expected ${letters(expected)}. Lay these.`
      : `${counted(spots.length, 'bead')} from ${spotSays(part, spots[0]!).toLowerCase()} to ` +
        `${spotSays(part, spots.at(-1)!).toLowerCase()} break the pattern round about (${places}): ` +
        `${letters(numbers)} where ${letters(expected)} are expected. Lay these.`,
    mends: [lay],
  }
}

/** Rows of what is kept as rows of the whole part. */
function wholeRow(part: Part, r: number): number {
  const inside = r - part.start.rows
  return inside < part.repeat.rows ? r : sectionStart(part, 'end') + inside - part.repeat.rows
}

function slipFound(part: GridPart, slip: Slip): Found {
  const { kind, row, to, witnesses, line } = slip
  const at = row - part.start.rows
  const spots = Array.from({ length: Math.min(to, part.start.rows + part.repeat.rows - 1) - row + 1 }, (_, k) =>
    lineSpot(part, wholeRow(part, row + k)),
  )
  const word = lineWord(part)
  const [first, last] = [rowSays(part, lineSpot(part, wholeRow(part, Math.max(0, row - 1)))), spots.at(-1)]
  const where = last ? `Between ${first.toLowerCase()} and ${rowSays(part, last).toLowerCase()}` : `After ${first}`
  const shown = `${counted(witnesses, word)} round it`
  const narrow = to === row
  const same = (a: number, b: number) =>
    Array.from({ length: part.repeat.columns }, (_, c) => c).every(
      (c) => numberAt(part, c, part.start.rows + a) === numberAt(part, c, part.start.rows + b),
    )
  if (kind === 'missing')
    return {
      ...{ weight: 'looks', code: 'row-missing', spots },
      says:
        `${where} a ${word} seems to be missing: ${shown} follow the pattern at one ${word} less. ` +
        (narrow && line ? 'Put it in.' : 'Count there, and put it in.'),
      why: 'A figure that is a row short is seen from afar.',
      mends:
        narrow && line
          ? [
              {
                label: `Put the ${word} in`,
                steps: [{ ...insertRowsStep(part, 'repeat', at, 1, 0), cells: runsOf(line) }],
              },
            ]
          : [],
    }
  // Of rows that are alike, any may be the one too many.
  const twin = at > 0 && same(at, at - 1)
  return {
    ...{ weight: 'looks', code: 'row-doubled', spots },
    says:
      `${where} there seems to be one ${word} too many: ${shown} follow the pattern at one ${word} more. ` +
      (narrow || twin ? 'Take it out.' : 'Count there, and take it out.'),
    why: 'A figure that is a row too long is seen from afar.',
    mends: narrow || twin ? [{ label: `Take one ${word} out`, steps: [removeRowsStep(part, 'repeat', at, 1)] }] : [],
  }
}

export const oddOnes: Rule = {
  id: 'odd',
  group: 'odd',
  looksFor: 'Beads, runs and rows that break what nearly everything else of a pattern follows.',
  alone: true,
  needs: (part) => hasField(part) && part.repeat.rows > 1,
  ofPart(part, piece): Found[] {
    if (!hasField(part)) return []
    const { beads, slip } = oddOf(part)
    return [...(slip ? [slipFound(part, slip)] : []), ...beads.map((ones) => beadsFound(part, piece, ones))]
  },
}
