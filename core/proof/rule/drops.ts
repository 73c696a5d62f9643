import { requireSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { layingSteps } from '../../piece/edit'
import { isCounted, isRound } from '../../piece/nature'
import { columnsOf, isGrid, partRow, rowsOf, techniqueOf, type Part, type Piece } from '../../piece/piece'
import type { Found, Mend, Rule, Spot } from '../found'
import { keptLines } from '../spots'
import { counted, lineWord, listed, rowSays } from '../words'

/** Beads that hang: their hole lies near one end. */
const drops = ({ tray }: Piece): ReadonlySet<number> =>
  new Set(tray.filter((b) => requireSpec(b.spec).hangs !== undefined).map((b) => b.number))

interface Line {
  readonly section: Spot['section']
  readonly r: number
  readonly whole: number
  /** Where drops stand in it. */
  readonly at: readonly number[]
}

/**
 * Drops with work on every side of them. At the end of a strand or along an edge they all hang one way; round a tube
 * they stand out.
 */
function within(part: Part, piece: Piece): Line[] {
  const hanging = drops(piece)
  const rows = rowsOf(part)
  const strands = techniqueOf(part).strands !== undefined
  return keptLines(part).flatMap(({ section, r, whole }) => {
    if (!strands && (whole === 0 || whole === rows - 1)) return []
    const line = partRow(part, whole)
    const last = line.length - 1
    const at = Array.from(line).flatMap((number, c) =>
      hanging.has(number) && (strands ? c < last : c > 0 && c < last && line[c - 1] !== 0 && line[c + 1] !== 0)
        ? [c]
        : [],
    )
    return at.length > 0 ? [{ section, r, whole, at }] : []
  })
}

/** Each strand with one drop in it has it as its last bead. */
function atTheEnd(part: Part, lines: readonly Line[]): Mend[] {
  const columns = columnsOf(part)
  const laying = new Map<number, number>()
  for (const { whole, at } of lines) {
    const line = partRow(part, whole)
    const last = line.length - 1
    if (at.length !== 1 || line[last] === line[at[0]!]) continue
    laying.set(keyOf(columns, at[0]!, whole), line[last]!)
    laying.set(keyOf(columns, last, whole), line[at[0]!]!)
  }
  return laying.size === 0 ? [] : [{ label: 'Let it hang at the end', steps: layingSteps(part, laying) }]
}

/** Drops that would face both ways. */
export const dropsBothWays: Rule = {
  id: 'drops-both-ways',
  group: 'making',
  looksFor: 'Drops that would face both ways.',
  alone: true,
  needs: (part, piece) =>
    isCounted(part) &&
    drops(piece).size > 0 &&
    (techniqueOf(part).strands !== undefined || (isGrid(part) && !isRound(part))),
  ofPart(part, piece): Found[] {
    const lines = within(part, piece)
    if (lines.length === 0) return []
    const strands = techniqueOf(part).strands !== undefined
    const all = lines.reduce((sum, { at }) => sum + at.length, 0)
    // Of two that follow each other one gives way to the other's foot: they lie on both sides for certain.
    const beside = lines.some(({ at }) => at.some((c, k) => at[k + 1] === c + 1))
    const names = lines.map((line) =>
      rowSays(part, { ...line, c: null })
        .toLowerCase()
        .split(' ')
        .at(-1)!,
    )
    const where = `${lineWord(part)}${lines.length === 1 ? '' : 's'} ${listed(names)}`
    return [
      {
        weight: beside ? 'looks' : 'note',
        says:
          `${counted(all, 'drop')} in ${where} ${all === 1 ? 'has' : 'have'} beads on both sides: a drop there ` +
          'stands out to the front or to the back as it pleases. ' +
          (strands
            ? 'Let it hang at the end of its strand, or turn each to the front before you go on.'
            : 'Lay it along an edge, or push each to the front before the next row holds it.'),
        why: 'Drops have their hole near one end: what holds them decides which way they face; some end up behind.',
        spots: lines.flatMap(({ section, r, at }) => at.map((c) => ({ section, r, c }))),
        mends: strands ? atTheEnd(part, lines) : [],
      },
    ]
  },
}
