import { defineNitroPlugin } from 'nitropack/runtime'
import { database, disconnect } from '../database/connection'
import { endWorkers } from '../heavy/pool'
import { writeLog } from '../http/log'
import { watchLoop } from '../http/loop'
import { thin } from '../service/thinning'

/**
 * Longer than proxies keep theirs (60 s is usual), so that it is never we who close a connection that is about to be
 * used.
 */
const KEEP_ALIVE_MS = 75_000

const THINNED_EVERY_MS = 6 * 3_600_000
const THINNED_FIRST_MS = 5000

/** Old steps are thinned out soon after the start, and again and again. */
function keepThin(): void {
  const once = async () => {
    try {
      const revisions = await thin(database())
      if (revisions > 0) writeLog('thinned', { revisions })
    } catch (error) {
      writeLog('thinning-failed', { message: error instanceof Error ? error.message : String(error) })
    }
  }
  setTimeout(() => void once(), THINNED_FIRST_MS).unref()
  setInterval(() => void once(), THINNED_EVERY_MS).unref()
}

/** Missing configuration stops the start; the pool is given back at the end. */
export default defineNitroPlugin((nitro) => {
  if (!import.meta.prerender) {
    database()
    if ((process.env.WEBEN_SESSION_SECRET ?? '').length < 32)
      throw new Error(
        'WEBEN_SESSION_SECRET is not set: give at least 32 random characters, the same for every instance',
      )
  }
  nitro.hooks.hook('request', (event) => {
    const { server } = event.node.req.socket as { server?: { keepAliveTimeout: number } }
    if (server) server.keepAliveTimeout = KEEP_ALIVE_MS
  })
  watchLoop(writeLog)
  if (!import.meta.prerender) keepThin()
  nitro.hooks.hook('close', disconnect)
  nitro.hooks.hook('close', endWorkers)
})
