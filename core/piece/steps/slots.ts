import { insertSlots, isRagged, lineAt, lineLength, removeSlots, type Lines } from '../../grid/lines'
import { numbersOf, runsLength, runsOf } from '../../grid/runs'
import { bad, good, type Result } from '../../problem'
import { counted, flipped, inSection, misfit, addNumbers, placesIn, same, shifted, type StepKind } from './kind'
import type { SlotsStep } from './schema'

function changed(lines: Lines, step: SlotsStep): Result<Lines> {
  if (!isRagged(lines) || step.line >= lines.rows) return bad(misfit('slots'))
  const count = runsLength(step.cells)
  const length = lineLength(lines, step.line)
  if (step.do === 'insert')
    return step.at > length
      ? bad(misfit('slots'))
      : good(insertSlots(lines, step.line, step.at, numbersOf(step.cells)))
  const there = lineAt(lines, step.line).subarray(step.at, step.at + count)
  return step.at + count <= length && same(runsOf(there), step.cells)
    ? good(removeSlots(lines, step.line, step.at, count))
    : bad(misfit('slots'))
}

/** How many places a step puts in or takes out of its line, and where. */
export const spanOfSlots = ({ do: doing, at, cells }: SlotsStep) => ({ do: doing, at, count: runsLength(cells) })

/** Places are put into one line, which grows longer, or taken out of it. */
export const slotsKind: StepKind<SlotsStep> = {
  apply: (piece, step) => inSection(piece, step, (lines) => changed(lines, step)),
  invert: flipped,
  part: (step) => step.part,
  numbers(step, add) {
    if (step.do === 'insert') addNumbers(step.cells, add)
  },
  map(step, position) {
    if (step.section !== position.section || step.line !== position.r) return position
    const c = shifted(position.c, spanOfSlots(step))
    return c === null ? null : { ...position, c }
  },
  effort(step, sizes) {
    const size = sizes.get(step.part)
    if (!size) return 0
    const there = placesIn(size, step.section)
    size.slots[step.section] = counted(size.slots[step.section], spanOfSlots(step))
    return there + spanOfSlots(step).count + step.cells.length
  },
}
