/** No request may hold the event loop longer; what does is written to the log. */
export const HELD_MS = 250
const LOOKED_EVERY_MS = 25

/**
 * Tells of turns of the loop that were long. One that used its processor is a request that asked too much
 * (`loop-held`); one that used little was kept waiting: the machine has other work, or swaps (`loop-late`). Answers
 * what ends it.
 */
export function watchLoop(tell: (event: string, fields: { ms: number; cpuMs: number }) => void): () => void {
  let seen = performance.now()
  let used = process.cpuUsage()
  const timer = setInterval(() => {
    const now = performance.now()
    const { user, system } = process.cpuUsage(used)
    const [ms, cpuMs] = [Math.round(now - seen - LOOKED_EVERY_MS), Math.round((user + system) / 1000)]
    if (ms > HELD_MS) tell(cpuMs > HELD_MS ? 'loop-held' : 'loop-late', { ms, cpuMs })
    seen = now
    used = process.cpuUsage()
  }, LOOKED_EVERY_MS).unref()
  return () => clearInterval(timer)
}
