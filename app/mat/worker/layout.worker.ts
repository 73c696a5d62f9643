import type { ChainAnswer, ChainProblem } from '#core/layout/problem'
import { solveChain } from '#core/layout/solve'

/** Lays stitched chains away from the page. */
export interface Ask {
  readonly id: number
  readonly problem: ChainProblem
}
export interface Answer {
  readonly id: number
  readonly answer: ChainAnswer
}

self.onmessage = ({ data: { id, problem } }: MessageEvent<Ask>) =>
  (self as unknown as Worker).postMessage({ id, answer: solveChain(problem) } satisfies Answer)
