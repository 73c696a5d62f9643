import { copyBox, insertColumns, removeColumns, type Cells } from '../../grid/cells'
import { numbersOf, runsLength, runsOf } from '../../grid/runs'
import { bad, good, type Result } from '../../problem'
import { columnsOf, isGrid, SECTIONS, type Part, type SectionName } from '../piece'
import { cellsIn, counted, flipped, inPart, misfit, addNumbers, rowsIn, same, shifted, type StepKind } from './kind'
import type { ColumnsStep } from './schema'

function changed(part: Part, step: ColumnsStep): Result<Part> {
  if (!isGrid(part)) return bad(misfit('columns'))
  const columns = columnsOf(part)
  if (step.do === 'insert' ? step.at > columns : step.at + step.count > columns || step.count >= columns)
    return bad(misfit('columns'))
  const next: Partial<Record<SectionName, Cells>> = {}
  for (const name of SECTIONS) {
    const cells = part[name]
    const runs = step.cells[name]
    if (runsLength(runs) !== step.count * cells.rows) return bad(misfit('columns'))
    if (step.do === 'insert') next[name] = insertColumns(cells, step.at, step.count, numbersOf(runs))
    else {
      if (!same(runsOf(copyBox(cells, step.at, 0, step.count, cells.rows)), runs)) return bad(misfit('columns'))
      next[name] = removeColumns(cells, step.at, step.count)
    }
  }
  return good({ ...part, ...next })
}

/** Columns are put into a part, through all its sections, or taken out of it. */
export const columnsKind: StepKind<ColumnsStep> = {
  apply: (piece, step) => inPart(piece, step.part, (part) => changed(part, step)),
  invert: flipped,
  part: (step) => step.part,
  numbers(step, add) {
    if (step.do === 'insert') for (const name of SECTIONS) addNumbers(step.cells[name], add)
  },
  map(step, position) {
    const c = shifted(position.c, step)
    return c === null ? null : { ...position, c }
  },
  effort(step, sizes) {
    const size = sizes.get(step.part)
    if (!size) return 0
    const there = cellsIn(size)
    size.columns = counted(size.columns, step)
    return there + step.count * rowsIn(size)
  },
}
