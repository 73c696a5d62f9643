import { defineEventHandler } from 'h3'
import { writeLog } from '../http/log'

/** One line for each API request: method, route with ids left out, status and time. */
export default defineEventHandler((event) => {
  if (!event.path.startsWith('/api/')) return
  const began = performance.now()
  const route = event.path
    .replace(/\?.*/, '')
    .replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, ':id')
    .replace(/\d+$/, ':n')
  event.node.res.once('finish', () => {
    writeLog('request', {
      method: event.method,
      route,
      status: event.node.res.statusCode,
      ms: Math.round(performance.now() - began),
    })
  })
})
