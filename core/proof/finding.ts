import { emptyOf, laidRows } from '../piece/laid'
import { countedRows, rowsOf, techniqueOf, workOf, type Part, type Piece } from '../piece/piece'
import { closingOf } from '../supply/thread'
import type { Finding } from '../technique/technique'
import { hangingFindings } from './hanging'
import { counted } from './words'

/** Numbers in a row as spans: 3 4 5 9 → 3–5, 9. */
function spans(numbers: readonly number[]): string {
  const out: [number, number][] = []
  for (const n of numbers) {
    const last = out.at(-1)
    if (last && n === last[1] + 1) last[1] = n
    else out.push([n, n])
  }
  const shown = out.slice(0, 4).map(([a, b]) => (a === b ? String(a) : `${a}–${b}`))
  return `${shown.join(', ')}${out.length > 4 ? ` and ${out.length - 4} more` : ''}`
}

/**
 * What of a part wants a look: places left empty, and what its technique says of its own. With its piece, also what
 * its closure has to do with it.
 */
export const partFindings = (part: Part, piece?: Pick<Piece, 'fit' | 'parts'>): Finding[] =>
  laidRows(part) === 0
    ? piece
      ? hangingFindings(part, piece)
      : []
    : [
        ...gapFindings(part),
        ...(techniqueOf(part).findings?.({ ...workOf(part), ...(piece ? closingOf(piece, part) : {}) }) ?? []),
        ...(piece ? hangingFindings(part, piece) : []),
      ]

/** Empty rows and columns of a part: between beads they leave the work in pieces, at its edges they are no size. */
function gapFindings(part: Part): Finding[] {
  const { rows: emptyRows, columns: emptyColumns } = emptyOf(part)
  const out: Finding[] = []
  const name = techniqueOf(part).words.line
  const { between } = emptyRows
  if (between.length > 0) {
    // As weavers count them: a bead row of peyote is two.
    const rows = between.flatMap((r) =>
      Array.from({ length: countedRows(part, r + 1) - countedRows(part, r) }, (_, k) => countedRows(part, r) + 1 + k),
    )
    out.push({
      code: 'row-empty',
      weight: 'stops',
      says:
        `Nothing lies in ${name}${rows.length === 1 ? '' : 's'} ${spans(rows)}, with beads before and behind: ` +
        'the work would fall in two. Lay beads there, or take the rows out. They are not counted as length.',
    })
  }
  if (emptyColumns.between.length > 0)
    out.push({
      code: 'column-empty',
      weight: 'stops',
      says:
        `Nothing lies in column${emptyColumns.between.length === 1 ? '' : 's'} ` +
        `${spans(emptyColumns.between.map((c) => c + 1))}, with beads on both sides: the work would fall in ` +
        'two. Lay beads there, or take the columns out. They are not counted as width.',
    })
  const edges = [
    ...(emptyRows.start > 0 ? [`${counted(countedRows(part, emptyRows.start), `empty ${name}`)} at the start`] : []),
    ...(emptyRows.end > 0
      ? [`${counted(countedRows(part) - countedRows(part, rowsOf(part) - emptyRows.end), `empty ${name}`)} at the end`]
      : []),
    ...(emptyColumns.start + emptyColumns.end > 0
      ? [`${counted(emptyColumns.start + emptyColumns.end, 'empty column')} at the edges`]
      : []),
  ]
  if (edges.length > 0)
    out.push({ code: 'edge-empty', weight: 'note', says: `${edges.join(', ')}: not counted as size.` })
  return out
}
