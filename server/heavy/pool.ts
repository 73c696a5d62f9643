import { existsSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { dirname, join } from 'node:path'
import { Piscina } from 'piscina'
import { Failure } from '../service/failure'
import { WORK } from './work'

/**
 * Workers for what would hold the event loop: parsing by the megabyte, applying and replaying large steps, pictures. A
 * job that takes too long is ended with its worker; too many waiting are refused with the time to wait.
 */
const LONGEST_MS = 20_000
const MOST_WAITING = 64

type Work = typeof WORK
type Job = keyof Work

let pool: Piscina | null | undefined

/** The built server has its worker beside it; run from its sources it does everything itself. */
function workers(): Piscina | null {
  if (pool === undefined) {
    const filename = join(dirname(process.argv[1] ?? ''), 'heavy.mjs')
    pool = existsSync(filename)
      ? new Piscina({
          filename,
          minThreads: 1,
          maxThreads: Math.max(1, Math.min(4, availableParallelism() - 1)),
          maxQueue: MOST_WAITING,
          idleTimeout: 60_000,
          resourceLimits: { maxOldGenerationSizeMb: 512 },
        })
      : null
  }
  return pool
}

const busy = (): Failure =>
  new Failure(503, 'busy', 'The server has much to do just now. Try again in a moment.', { data: { wait: 2 } })
const tooLong = (): Failure =>
  new Failure(422, 'too-heavy', 'This is more than the server can work out at once. Do it in smaller steps.')

/** Does a job in a worker, at once if `little`. Arguments and results are copied, never shared. */
export async function done<J extends Job>(
  name: J,
  input: Parameters<Work[J]>[0],
  { little }: { readonly little: boolean },
): Promise<ReturnType<Work[J]>> {
  const there = little ? null : workers()
  if (!there) return (WORK[name] as (input: unknown) => ReturnType<Work[J]>)(input)
  const before = there.queueSize
  if (before >= MOST_WAITING) throw busy()
  try {
    return (await there.run({ name, input }, { signal: AbortSignal.timeout(LONGEST_MS) })) as ReturnType<Work[J]>
  } catch (error) {
    const { name: kind, code } = error as { name?: string; code?: string }
    if (kind === 'AbortError' || kind === 'TimeoutError' || code === 'ERR_WORKER_OUT_OF_MEMORY')
      // What had to wait may only have waited too long.
      throw before > 0 ? busy() : tooLong()
    throw error
  }
}

export async function endWorkers(): Promise<void> {
  await pool?.destroy()
  pool = undefined
}
