import { numberAtIndex, slotCount, withNumbers, type Lines } from '../../grid/lines'
import { bad, good, type Result } from '../../problem'
import { inSection, misfit, placesIn, type StepKind } from './kind'
import type { CellsStep, Patch } from './schema'

/** Cells of a block that are copied for one that is changed: 64 rows of a band as wide as most. */
const COPIED = 640

function patched(cells: Lines, patches: readonly Patch[], at: string): Result<Lines> {
  const size = slotCount(cells)
  let last = 0
  for (const [index, length, before] of patches) {
    if (index < last || index + length > size) return bad(misfit(at))
    last = index + length
    for (let i = index; i < last; i++) if (numberAtIndex(cells, i) !== before) return bad(misfit(at))
  }
  return good(
    withNumbers(cells, (set) => {
      for (const [index, length, , after] of patches) for (let i = index; i < index + length; i++) set(i, after)
    }),
  )
}

/** Beads are laid, lifted or exchanged in one section. */
export const cellsKind: StepKind<CellsStep> = {
  apply: (piece, step) =>
    inSection(piece, step, (lines) => patched(lines, step.patches, `${step.part}/${step.section}`)),
  invert: (step) => ({
    ...step,
    patches: step.patches.map(([index, length, before, after]) => [index, length, after, before]),
  }),
  part: (step) => step.part,
  numbers(step, add) {
    for (const patch of step.patches) add(patch[3])
  },
  effort(step, sizes) {
    const size = sizes.get(step.part)
    if (!size) return 0
    // What is patched is read and written; blocks that are touched are copied.
    const cells = step.patches.reduce((sum, patch) => sum + patch[1], 0)
    return 2 * cells + step.patches.length + Math.min(placesIn(size, step.section), cells * COPIED)
  },
}
