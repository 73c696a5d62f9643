import { requireTechnique } from '../technique/registry'
import type { FitKind } from '../wear/kind'

/** What a first piece can hang from or hang with. */
export interface BeginningChoice {
  readonly id: string
  readonly label: string
  readonly says: string
  /** How wide it is usually, mm, where that is another width than that of its kind. */
  readonly usualWidthMm?: number
}

/** A set in graded sizes, by its id among the choices. */
export const GRADED = 'graded'
const ALONE: BeginningChoice = { id: 'alone', label: 'By itself', says: 'One, to hang where you like.' }

/** What work of a technique can be begun with for what it is to be, the usual first; none where nothing is chosen. */
export function beginningsFor(technique: string, kind: FitKind): readonly BeginningChoice[] {
  const { begins, graded } = requireTechnique(technique)
  if (begins) return begins.from.filter(({ kinds }) => kinds?.includes(kind) ?? true)
  return graded?.kinds.includes(kind) ? [ALONE, { ...graded, id: GRADED }] : []
}
