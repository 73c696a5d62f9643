import { isKept, keyOfProblem } from '../layout/keep'
import type { ChainProblem } from '../layout/problem'
import { techniqueOf, workOf, type Piece } from './piece'
import type { Step } from './step'

/** Questions of layout that a piece’s pictures and sizes stand on and that nobody has answered yet, each once. */
export function awaited({ parts }: Pick<Piece, 'parts'>): ChainProblem[] {
  const open = new Map<string, ChainProblem>()
  for (const part of parts)
    for (const question of techniqueOf(part).awaits?.(workOf(part)) ?? [])
      if (!isKept(question)) open.set(keyOfProblem(question), question)
  return [...open.values()]
}

/** Whether steps can change how something lies that takes time to be laid: other colours do not, nor do grids. */
export const canMove = ({ parts }: Pick<Piece, 'parts'>, steps: readonly Step[]): boolean =>
  steps.some(({ type }) => type === 'part') ||
  (steps.some(({ type }) => type !== 'cells') && parts.some((part) => techniqueOf(part).awaits !== undefined))
