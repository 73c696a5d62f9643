import { defineNitroPlugin } from 'nitropack/runtime'
import { database, disconnect } from '../database/connection'

/** Missing configuration stops the start; the pool is given back at the end. */
export default defineNitroPlugin((nitro) => {
  if (!import.meta.prerender) {
    database()
    if ((process.env.WEBEN_SESSION_SECRET ?? '').length < 32) throw new Error('WEBEN_SESSION_SECRET is not set: give at least 32 random characters, the same for every instance')
  }
  nitro.hooks.hook('close', disconnect)
})
