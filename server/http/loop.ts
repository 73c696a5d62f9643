import { readFileSync } from 'node:fs'

/** No request may hold the event loop longer; what does is written to the log. */
export const HELD_MS = 250
const LOOKED_EVERY_MS = 50

/** What has passed so far, ms: on the clock, in work of the loop's own thread, and taken from each processor. */
interface Passed {
  readonly ms: number
  readonly cpuMs: number
  readonly stolenMs: readonly number[]
}

/** One turn of the loop, ms; what was stolen is of the processor that lost most. */
export interface Turn {
  readonly ms: number
  readonly cpuMs: number
  readonly stolenMs: number
}

/** A file of the kernel, or nothing on a system that has none. */
function kernelSays(path: string): string | undefined {
  try {
    return readFileSync(path, 'latin1')
  } catch {
    return undefined
  }
}

/** What a processor's tick is in /proc/stat, ms (USER_HZ, 100 on every Linux that people run). */
const TICK_MS = 10

/**
 * Processor time is that of the loop's own thread: what workers use beside it is none of it. Where the system does not
 * tell it of each thread, it is that of the whole process. Stolen is what the host of a virtual machine gave to others
 * (proc(5), `steal`).
 */
export function passed(): Passed {
  const thread = kernelSays(`/proc/self/task/${process.pid}/schedstat`)
  const { user, system } = process.cpuUsage()
  const processors = kernelSays('/proc/stat')?.match(/^cpu\d.*$/gm) ?? []
  return {
    ms: performance.now(),
    cpuMs: thread === undefined ? (user + system) / 1000 : Number(thread.split(' ')[0]) / 1e6,
    stolenMs: processors.map((line) => Number(line.split(/\s+/)[8] ?? 0) * TICK_MS),
  }
}

/** What has passed from one look to another. */
export const turnOf = (from: Passed, to: Passed): Turn => ({
  ms: Math.round(to.ms - from.ms),
  cpuMs: Math.round(to.cpuMs - from.cpuMs),
  stolenMs: Math.max(0, ...to.stolenMs.map((ms, k) => ms - (from.stolenMs[k] ?? ms))),
})

/**
 * What a turn of the loop is to be called, if it was long. Held: its thread worked, a request asked too much. Late: it
 * was kept waiting, the machine has other work, or swaps. Time that is stolen in large pieces is partly booked as work
 * of whoever had the processor, so it is taken off: what asks too much will be seen in a calm hour.
 */
export function longTurn({ ms, cpuMs, stolenMs }: Turn): 'loop-held' | 'loop-late' | undefined {
  if (ms - LOOKED_EVERY_MS <= HELD_MS) return undefined
  return Math.min(cpuMs, ms) - stolenMs > HELD_MS ? 'loop-held' : 'loop-late'
}

/** Tells of turns of the loop that were long. Answers what ends it. */
export function watchLoop(tell: (event: string, fields: Readonly<Record<string, number>>) => void): () => void {
  let seen = passed()
  const timer = setInterval(() => {
    const now = passed()
    const turn = turnOf(seen, now)
    const event = longTurn(turn)
    seen = now
    if (event) tell(event, { ...turn })
  }, LOOKED_EVERY_MS).unref()
  return () => clearInterval(timer)
}
