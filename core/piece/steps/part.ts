import { runsLength } from '../../grid/runs'
import { bad, good } from '../../problem'
import { partFromFile, partToFile, settledSettings } from '../codec'
import { SECTIONS } from '../piece'
import type { PartFile } from '../schema'
import { cellsIn, FIELDS, flipped, misfit, addNumbers, same, type StepKind } from './kind'
import type { StepOf } from './schema'

const settled = (file: PartFile): PartFile => ({
  ...file,
  settings: settledSettings(file.technique, file.settings) as PartFile['settings'],
})

/** A part is put into the piece or taken out of it. */
export const partKind: StepKind<StepOf<'part'>> = {
  apply(piece, step) {
    if (step.do === 'insert') {
      const part = partFromFile(step.value)
      if (!part.ok) return part
      return step.at > piece.parts.length
        ? bad(misfit('parts'))
        : good({ ...piece, parts: piece.parts.toSpliced(step.at, 0, part.value) })
    }
    const there = piece.parts[step.at]
    if (!there || piece.parts.length === 1 || !same(settled(partToFile(there)), settled(step.value)))
      return bad(misfit('parts'))
    return good({ ...piece, parts: piece.parts.toSpliced(step.at, 1) })
  },
  invert: flipped,
  part: () => null,
  numbers(step, add) {
    if (step.do === 'insert') for (const name of SECTIONS) for (const row of step.value[name]) addNumbers(row, add)
  },
  map: (step, position) => (step.do === 'remove' && step.value.id === position.part ? null : position),
  effort(step, sizes) {
    const { start, repeat, end, id, columns = 0, kind } = step.value
    const places = (lines: readonly (readonly number[])[]) =>
      kind === 'lines' ? lines.reduce((sum, runs) => sum + runsLength(runs), 0) : 0
    const size = {
      columns,
      rows: { start: start.length, repeat: repeat.length, end: end.length },
      slots: { start: places(start), repeat: places(repeat), end: places(end) },
    }
    if (step.do === 'insert') sizes.set(id, size)
    else sizes.delete(id)
    return FIELDS + cellsIn(size)
  },
}
