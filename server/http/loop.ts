import { readFileSync } from 'node:fs'

/** No request may hold the event loop longer; what does is written to the log. */
export const HELD_MS = 250
const LOOKED_EVERY_MS = 25

/**
 * Processor time that the thread of the loop has used, ms: what workers use beside it is none of it. Where the system
 * does not tell it of each thread, that of the whole process.
 */
function usedMs(): number {
  try {
    return Number(readFileSync(`/proc/self/task/${process.pid}/schedstat`, 'latin1').split(' ')[0]) / 1e6
  } catch {
    const { user, system } = process.cpuUsage()
    return (user + system) / 1000
  }
}

/**
 * Tells of turns of the loop that were long. One in which its thread worked is a request that asked too much
 * (`loop-held`); one that used little was kept waiting: the machine has other work, or swaps (`loop-late`). Answers
 * what ends it.
 */
export function watchLoop(tell: (event: string, fields: { ms: number; cpuMs: number }) => void): () => void {
  let seen = performance.now()
  let used = usedMs()
  const timer = setInterval(() => {
    const now = performance.now()
    const all = usedMs()
    const [ms, cpuMs] = [Math.round(now - seen - LOOKED_EVERY_MS), Math.round(all - used)]
    if (ms > HELD_MS) tell(cpuMs > HELD_MS ? 'loop-held' : 'loop-late', { ms, cpuMs })
    seen = now
    used = all
  }, LOOKED_EVERY_MS).unref()
  return () => clearInterval(timer)
}
