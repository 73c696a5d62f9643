import { cellsKind } from './cells'
import { columnsKind } from './columns'
import type { StepKind } from './kind'
import { linesKind } from './lines'
import { partKind } from './part'
import { rowsKind } from './rows'
import type { Step, StepOf } from './schema'
import { setKind } from './set'
import { slotsKind } from './slots'
import { trayKind } from './tray'

/** What each kind of step does. */
const STEP_KINDS: { readonly [T in Step['type']]: StepKind<StepOf<T>> } = {
  cells: cellsKind,
  rows: rowsKind,
  columns: columnsKind,
  lines: linesKind,
  slots: slotsKind,
  set: setKind,
  tray: trayKind,
  part: partKind,
}

export const kindOf = <S extends Step>(step: S): StepKind<S> => STEP_KINDS[step.type] as unknown as StepKind<S>
