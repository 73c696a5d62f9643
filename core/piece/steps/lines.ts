import { insertLines, isRagged, lineAt, removeLines, type Lines } from '../../grid/lines'
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
import type { LinesStep } from './schema'

function changed(lines: Lines, step: LinesStep): Result<Lines> {
  if (!isRagged(lines)) return bad(misfit('lines'))
  if (step.do === 'insert')
    return step.at > lines.rows ? bad(misfit('lines')) : good(insertLines(lines, step.at, step.lines.map(numbersOf)))
  if (step.at + step.lines.length > lines.rows) return bad(misfit('lines'))
  return step.lines.every((runs, k) => same(runsOf(lineAt(lines, step.at + k)), runs))
    ? good(removeLines(lines, step.at, step.lines.length))
    : bad(misfit('lines'))
}

/** How many lines a step puts in or takes out, and where: as a step of rows says it. */
export const spanOfLines = ({ do: doing, at, lines }: LinesStep) => ({ do: doing, at, count: lines.length })

/** Lines of their own lengths are put into a section or taken out of it. */
export const linesKind: StepKind<LinesStep> = {
  apply: (piece, step) => inSection(piece, step, (lines) => changed(lines, step)),
  invert: flipped,
  part: (step) => step.part,
  numbers(step, add) {
    if (step.do === 'insert') for (const runs of step.lines) addNumbers(runs, add)
  },
  map(step, position) {
    if (step.section !== position.section) return position
    const r = shifted(position.r, spanOfLines(step))
    return r === null ? null : { ...position, r }
  },
  effort(step, sizes) {
    const size = sizes.get(step.part)
    if (!size) return 0
    const count = step.lines.reduce((sum, runs) => sum + runsLength(runs), 0)
    const there = placesIn(size, step.section)
    size.rows[step.section] = counted(size.rows[step.section], spanOfLines(step))
    size.slots[step.section] = counted(size.slots[step.section], { do: step.do, at: 0, count })
    return there + count + step.lines.length * PER_ROW
  },
}
