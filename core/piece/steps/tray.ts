import type { TrayBead } from '../../bead/bead'
import { bad, good } from '../../problem'
import { cellsIn, FIELDS, flipped, misfit, same, type StepKind } from './kind'
import type { StepOf } from './schema'

/** A bead is put on the tray or taken off it. */
export const trayKind: StepKind<StepOf<'tray'>> = {
  apply(piece, step) {
    if (step.do === 'insert')
      return step.at > piece.tray.length
        ? bad(misfit('tray'))
        : good({ ...piece, tray: piece.tray.toSpliced(step.at, 0, step.bead as TrayBead) })
    return same(piece.tray[step.at], step.bead)
      ? good({ ...piece, tray: piece.tray.toSpliced(step.at, 1) })
      : bad(misfit('tray'))
  },
  invert: flipped,
  part: () => null,
  effort: (step, sizes) =>
    step.do === 'insert' ? FIELDS : [...sizes.values()].reduce((sum, size) => sum + cellsIn(size), FIELDS),
}
