import { copyBox, insertRows, removeRows, type Cells } from '../../grid/cells'
import { isRagged } from '../../grid/lines'
import { numbersOf, runsLength, runsOf } from '../../grid/runs'
import { bad, good, type Result } from '../../problem'
import {
  counted,
  flipped,
  inSection,
  misfit,
  addNumbers,
  PER_ROW,
  placesIn,
  same,
  shifted,
  type StepKind,
} from './kind'
import type { RowsStep } from './schema'

function changed(cells: Cells, step: RowsStep): Result<Cells> {
  const inserted = step.count * cells.columns
  if (runsLength(step.cells) !== inserted) return bad(misfit('rows'))
  if (step.do === 'insert')
    return step.at > cells.rows ? bad(misfit('rows')) : good(insertRows(cells, step.at, numbersOf(step.cells)))
  if (step.at + step.count > cells.rows) return bad(misfit('rows'))
  if (!same(runsOf(copyBox(cells, 0, step.at, cells.columns, step.count)), step.cells)) return bad(misfit('rows'))
  return good(removeRows(cells, step.at, step.count))
}

/** Rows of a grid are put into a section or taken out of it. */
export const rowsKind: StepKind<RowsStep> = {
  apply: (piece, step) =>
    inSection(piece, step, (lines) => (isRagged(lines) ? bad(misfit('rows')) : changed(lines, step))),
  invert: flipped,
  part: (step) => step.part,
  numbers(step, add) {
    if (step.do === 'insert') addNumbers(step.cells, add)
  },
  map(step, position) {
    if (step.section !== position.section) return position
    const r = shifted(position.r, step)
    return r === null ? null : { ...position, r }
  },
  effort(step, sizes) {
    const size = sizes.get(step.part)
    if (!size) return 0
    const there = placesIn(size, step.section)
    size.rows[step.section] = counted(size.rows[step.section], step)
    return there + step.count * (size.columns + PER_ROW)
  },
}
