import { modulo } from '../../modulo'
import { keyOf } from '../../grid/key'
import { layingSteps } from '../../piece/edit'
import { latticeOf, freeOf } from '../../piece/drawing'
import { columnsOf, isGrid, lengthOfLine, partRow, rowsOf, techniqueOf, type Part } from '../../piece/piece'
import { neighbourOffsets, type Place } from '../../technique/lattice'
import { plainNumber } from '../../units/length'
import type { Found, Rule, Spot } from '../found'
import { keptLines } from '../spots'
import { rowSays } from '../words'

/** Whether the thread comes to every bead, in the order in which rows are worked. */

/** Places of a row that follow each other: beads, or the empty ones between them. */
interface Run {
  readonly from: number
  readonly to: number
}

/** Runs of beads in a line; of a round, its last and its first may be one. */
function runsOf(line: ArrayLike<number>): Run[] {
  const out: Run[] = []
  for (let c = 0; c < line.length; c++) {
    if (line[c] === 0) continue
    let to = c
    while (to + 1 < line.length && line[to + 1] !== 0) to++
    out.push({ from: c, to })
    c = to
  }
  return out
}

type Kept = ReturnType<typeof keptLines>[number]

/** Lines of one opening or cleft: rows that follow each other with an empty place between beads. */
interface Opening {
  readonly lines: { readonly line: Kept; readonly run: Run }[]
}

/** Places inside a row that stay empty, more than one beside the other, row after row. */
function openings(part: Part): Opening[] {
  const out: Opening[] = []
  let growing: Opening[] = []
  for (const line of keptLines(part)) {
    const cells = partRow(part, line.whole)
    const runs = runsOf(cells)
    const next: Opening[] = []
    for (let k = 1; k < runs.length; k++) {
      const gap = { from: runs[k - 1]!.to + 1, to: runs[k]!.from - 1 }
      if (gap.from === gap.to) continue
      const known = growing.find(({ lines }) => {
        const last = lines.at(-1)!
        return last.line.whole === line.whole - 1 && last.run.from <= gap.to && last.run.to >= gap.from
      })
      const opening = known && !next.includes(known) ? known : { lines: [] }
      if (opening !== known) out.push(opening)
      opening.lines.push({ line, run: gap })
      next.push(opening)
    }
    growing = next
  }
  return out
}

const rowsSay = (part: Part, first: Spot, last: Spot): string => {
  const [a, b] = [rowSays(part, first), rowSays(part, last)]
  return a === b ? a : `${a.replace(' ', 's ')} to ${b.split(' ').at(-1)}`
}

/** The places of an opening with the bead on their left in each row. */
function across(part: Part, lines: Opening['lines']): Map<number, number> {
  const columns = columnsOf(part)
  const out = new Map<number, number>()
  for (const { line, run } of lines)
    for (let c = run.from; c <= run.to; c++)
      out.set(keyOf(columns, c, line.whole), partRow(part, line.whole)[run.from - 1]!)
  return out
}

const onLattice = (part: Part): boolean => isGrid(part) && freeOf(part) === null

/** Thread that would lie bare across an opening. */
export const gapCrossed: Rule = {
  id: 'gap-crossed',
  group: 'making',
  looksFor: 'Openings in a row that the thread would cross bare.',
  alone: true,
  needs: (part) => onLattice(part) && !techniqueOf(part).round && techniqueOf(part).heldBy !== undefined,
  ofPart(part): Found[] {
    const { pitchX } = latticeOf(part)
    return openings(part).map(({ lines }): Found => {
      const [first, last] = [lines[0]!, lines.at(-1)!]
      const widest = lines.reduce((most, { run }) => Math.max(most, run.to - run.from + 1), 0)
      const mm = plainNumber(Math.round(widest * pitchX * 10) / 10)
      return {
        weight: 'looks',
        says:
          `${rowsSay(part, { ...first.line, c: null }, { ...last.line, c: null })}: an opening of up to ` +
          `${widest} places between beads; ${mm} mm of thread would lie bare across it. Work one side of it to its ` +
          'end, go back through the work, and then work the other; or lay beads there.',
        why: 'A bridge longer than a bead is seen, catches, and draws the two sides together.',
        spots: lines.flatMap(({ line: { section, r }, run }) => [
          { section, r, c: run.from - 1 },
          { section, r, c: run.to + 1 },
        ]),
        mends: [{ label: 'Lay beads across it', steps: layingSteps(part, across(part, lines)) }],
      }
    })
  },
}

/** Beads that touch nothing that was laid before them. */
function unreached(part: Part): { readonly line: Kept; readonly run: Run }[] {
  const lattice = latticeOf(part)
  const columns = columnsOf(part)
  const { period } = lattice
  const before: (readonly Place[])[] = Array.from({ length: period.columns * period.rows }, (_, k) =>
    neighbourOffsets(lattice, k % period.columns, Math.floor(k / period.columns)).filter(({ r }) => r < 0),
  )
  const filled = (c: number, r: number): boolean => {
    if (r < 0 || r >= rowsOf(part)) return false
    const at = lattice.round ? modulo(c, columns) : c
    return at >= 0 && at < lengthOfLine(part, r) && partRow(part, r)[at] !== 0
  }
  let begun = false
  return keptLines(part).flatMap((line) => {
    const cells = partRow(part, line.whole)
    let runs = runsOf(cells)
    // Round a tube the last beads of a round lie beside the first.
    if (lattice.round && runs.length > 1 && runs[0]!.from === 0 && runs.at(-1)!.to === cells.length - 1)
      runs = runs.slice(0, -1)
    if (runs.length === 0) return []
    // What is worked first hangs on nothing.
    if (!begun) {
      begun = true
      return runs.slice(1).map((run) => ({ line, run }))
    }
    return runs
      .filter(({ from, to }) => {
        for (let c = from; c <= to; c++)
          for (const o of before[(line.whole % period.rows) * period.columns + (c % period.columns)]!)
            if (filled(c + o.c, line.whole + o.r)) return false
        return true
      })
      .map((run) => ({ line, run }))
  })
}

/** Work that the thread cannot reach in the order in which its rows are worked. */
export const notReached: Rule = {
  id: 'not-reached',
  group: 'making',
  looksFor: 'Beads that touch nothing laid before them, so that they cannot be sewn on.',
  alone: true,
  needs: (part) => onLattice(part) && techniqueOf(part).heldBy === 'rows',
  ofPart: (part) =>
    unreached(part).map(({ line: { section, r }, run }): Found => {
      const beads = run.from === run.to ? `bead ${run.from + 1}` : `beads ${run.from + 1} to ${run.to + 1}`
      return {
        weight: 'looks',
        says:
          `${rowSays(part, { section, r, c: null })}: ${beads} touch nothing that is worked before them, so there ` +
          'is nothing to sew them to. Begin that part by itself and join it where it meets the rest, or turn the ' +
          'piece so that the whole side is worked first.',
        why: 'Worked in this order the thread comes to a place where there is no bead to go through.',
        spots: Array.from({ length: run.to - run.from + 1 }, (_, k) => ({ section, r, c: run.from + k })),
      }
    }),
}
