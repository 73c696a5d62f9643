import { cellsKind } from './cells'
import { columnsKind } from './columns'
import type { StepKind } from './kind'
import { partKind } from './part'
import { rowsKind } from './rows'
import type { Step, StepOf } from './schema'
import { setKind } from './set'
import { trayKind } from './tray'

/** What each kind of step does. */
const STEP_KINDS: { readonly [T in Step['type']]: StepKind<StepOf<T>> } = {
  cells: cellsKind,
  rows: rowsKind,
  columns: columnsKind,
  set: setKind,
  tray: trayKind,
  part: partKind,
}

export const kindOf = <S extends Step>(step: S): StepKind<S> => STEP_KINDS[step.type] as unknown as StepKind<S>
