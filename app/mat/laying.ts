import { keepAnswer } from '#core/layout/keep'
import type { ChainProblem } from '#core/layout/problem'
import type { Answer, Ask } from './worker/layout.worker'

/** Questions that are with the worker, by their number. */
const open = new Map<number, { readonly problem: ChainProblem; done(): void }>()
let worker: Worker | null = null
let asked = 0

/** Whoever waits goes on; what has no answer is laid where it is asked for. */
function giveUp(): void {
  worker?.terminate()
  worker = null
  for (const { done } of open.values()) done()
  open.clear()
}

function ready(): Worker {
  if (worker) return worker
  worker = new Worker(new URL('./worker/layout.worker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = ({ data: { id, answer } }: MessageEvent<Answer>) => {
    const one = open.get(id)
    if (!one) return
    open.delete(id)
    keepAnswer(one.problem, answer)
    one.done()
  }
  worker.onerror = giveUp
  return worker
}

/** Has chains laid away from the page; done when all answers are kept, or when no worker can be had. */
export async function layAway(problems: readonly ChainProblem[]): Promise<void> {
  await Promise.all(
    problems.map(
      (problem) =>
        new Promise<void>((done) => {
          const id = ++asked
          open.set(id, { problem, done })
          try {
            ready().postMessage({ id, problem } satisfies Ask)
          } catch {
            giveUp()
          }
        }),
    ),
  )
}
