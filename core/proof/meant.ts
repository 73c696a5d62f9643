import { setStep } from '../piece/edit'
import { findPart, type Piece } from '../piece/piece'
import { mapPosition } from '../piece/rebase'
import type { Meant } from '../piece/schema'
import type { Step } from '../piece/step'
import type { Finding } from './found'

/**
 * What a weaver said to be meant so. It is kept with the piece by the rule, the place and what lies there: it stays
 * quiet while that stays, moves along when lines do, and speaks again when the place changes.
 */

/** Where a finding is, as it is kept: its first spot; the piece or part as a whole where it names none. */
const anchorOf = ({ spots }: Pick<Finding, 'spots'>): Pick<Meant, 'section' | 'r' | 'c'> =>
  spots[0] ?? { section: 'start', r: 0, c: null }

const isAt = (mark: Meant, one: Pick<Finding, 'rule' | 'part' | 'sign' | 'spots'>): boolean => {
  const { section, r, c } = anchorOf(one)
  return (
    mark.rule === one.rule &&
    mark.part === (one.part ?? '') &&
    mark.sign === one.sign &&
    mark.section === section &&
    mark.r === r &&
    mark.c === c
  )
}

/** Why a finding is meant so; null where nobody said it. */
export const meantFor = (
  { meant }: Pick<Piece, 'meant'>,
  one: Pick<Finding, 'rule' | 'part' | 'sign' | 'spots'>,
): string | null => meant.find((mark) => isAt(mark, one))?.reason ?? null

/** The step that says of a finding that it is meant so. */
export const meanStep = (piece: Piece, one: Finding, reason: string): Step =>
  setStep(
    piece,
    ['meant'],
    [
      ...piece.meant.filter((mark) => !isAt(mark, one)),
      { rule: one.rule, part: one.part ?? '', sign: one.sign, ...anchorOf(one), reason },
    ],
  )

/** The step that takes it back. */
export const speakStep = (piece: Piece, one: Finding): Step =>
  setStep(
    piece,
    ['meant'],
    piece.meant.filter((mark) => !isAt(mark, one)),
  )

/**
 * Steps with one more where they move what is meant so: marks go along with their lines and columns. A mark whose
 * place is taken out goes with it, and comes back when that is undone.
 */
export function withMeant(piece: Piece, steps: readonly Step[]): readonly Step[] {
  if (piece.meant.length === 0 || steps.some((step) => step.type === 'set' && step.path[0] === 'meant')) return steps
  const moved = piece.meant.flatMap((mark): Meant[] => {
    let now: Meant | null = mark
    for (const step of steps) {
      if (step.type === 'part' && step.do === 'remove' && step.value.id === mark.part) now = null
      if (now === null || now.part === '' || !findPart(piece, now.part)) continue
      const at = mapPosition({ part: now.part, section: now.section, c: now.c ?? 0, r: now.r }, step)
      now = at && { ...now, r: at.r, c: now.c === null ? null : at.c }
    }
    return now ? [now] : []
  })
  return JSON.stringify(moved) === JSON.stringify(piece.meant) ? steps : [...steps, setStep(piece, ['meant'], moved)]
}
