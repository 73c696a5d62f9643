import { bad, good, problem, type Result } from '../problem'
import { checkPart, checkPiece, checkSize } from './codec'
import { hung } from './held'
import { checkJoints } from './joint'
import { findPart, SECTIONS, type Piece } from './piece'
import { sized } from './sizes'
import type { Step } from './steps/schema'
import { kindOf } from './steps/table'

/**
 * Every change of a piece is a step: it can be applied, inverted, merged, carried over other steps (rebase.ts) and
 * sent as JSON. A step names what was there before, so it applies only where it fits. Laws: apply then invert is
 * identity; to and from JSON is identity. What each kind does stands in steps/.
 */
export { stepSchema, transactionSchema } from './steps/schema'
export type {
  CellsStep,
  ColumnsStep,
  LinesStep,
  Patch,
  RowsStep,
  SetStep,
  SlotsStep,
  Step,
  Transaction,
} from './steps/schema'

export const invertSteps = (steps: readonly Step[]): Step[] => steps.map((step) => kindOf(step).invert(step)).reverse()

export const applyStep = (piece: Piece, step: Step): Result<Piece> => kindOf(step).apply(piece, step)

/** Numbers that a list of steps brings into cells: only these need to be looked up on the tray. */
function broughtIn(steps: readonly Step[]): Set<number> {
  const numbers = new Set<number>()
  for (const step of steps) kindOf(step).numbers?.(step, (number) => numbers.add(number))
  numbers.delete(0)
  return numbers
}

/** Whether any cell holds a number, also where the stitch has no bead. */
export function usesNumber(piece: Piece, number: number): boolean {
  return piece.parts.some((part) => SECTIONS.some((name) => part[name].blocks.some((block) => block.includes(number))))
}

/** Applies steps in order and checks that what comes out is a sound piece. Either all apply or none. */
export function applySteps(piece: Piece, steps: readonly Step[]): Result<Piece> {
  let next = piece
  for (const step of steps) {
    const result = applyStep(next, step)
    if (!result.ok) return result
    next = result.value
  }
  next = sized(next)
  const onTray = new Set(next.tray.map((b) => b.number))
  for (const number of broughtIn(steps)) {
    // What was laid and taken up again within the list is nowhere.
    if (!onTray.has(number) && usesNumber(next, number))
      return bad(problem('stray-number', 'tray', `Bead number ${number} is not on the tray. Add it first.`))
  }
  for (const step of steps) {
    if (
      step.type === 'tray' &&
      step.do === 'remove' &&
      !onTray.has(step.bead.number) &&
      usesNumber(next, step.bead.number)
    ) {
      return bad(
        problem(
          'bead-used',
          'tray',
          `${step.bead.letter} ${step.bead.name} is still in the pattern. Swap it for another bead first.`,
        ),
      )
    }
  }
  const touched = new Set(next.parts.filter((p) => p !== findPart(piece, p.id)))
  const problems =
    next.tray === piece.tray && next.parts.length === piece.parts.length
      ? [...[...touched].flatMap(checkPart), ...checkJoints(next), ...checkSize(next)]
      : checkPiece(next)
  // What is too large is refused before it is looked at how it hangs.
  return problems.length > 0 ? bad(...problems) : good(hung(next))
}
