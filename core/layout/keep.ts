import type { ChainAnswer, ChainProblem } from './problem'
import { solveChain } from './solve'

/**
 * What has been laid, by the question: colours are not in it, so that only a change of recipe, parameters or sizes
 * lays anew. Whoever has a worker asks there what is not kept yet (`isKept`) and puts the answer in (`keepAnswer`);
 * what is not kept is laid on the spot.
 */
const kept = new Map<string, ChainAnswer>()
const MOST_KEPT = 120

const texts = new WeakMap<ChainProblem, string>()

/** The question as a text: equal questions have equal answers. */
export function keyOfProblem(problem: ChainProblem): string {
  let text = texts.get(problem)
  if (!text) texts.set(problem, (text = JSON.stringify(problem)))
  return text
}

export function keepAnswer(problem: ChainProblem, answer: ChainAnswer): void {
  const key = keyOfProblem(problem)
  kept.delete(key)
  kept.set(key, answer)
  // The one that was asked longest ago goes.
  for (const old of kept.keys()) {
    if (kept.size <= MOST_KEPT) break
    kept.delete(old)
  }
}

export const isKept = (problem: ChainProblem): boolean => kept.has(keyOfProblem(problem))

/** The answer to a question: kept, or worked out now. */
export function answerTo(problem: ChainProblem): ChainAnswer {
  const known = kept.get(keyOfProblem(problem))
  const answer = known ?? solveChain(problem)
  keepAnswer(problem, answer)
  return answer
}
