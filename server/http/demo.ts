import { getRequestHeader, type H3Event } from 'h3'
import { addressOf } from './session'

const LOOPBACK = new Set(['127.0.0.1', '::1', '::ffff:127.0.0.1'])
const LOCAL_HOST = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/

/**
 * The demo workshop opens without a password only in demo mode, only on loopback, only under a local name. The
 * development server stands behind a proxy of its own, which hides the address but not the name.
 */
export function demoAllowed(event: H3Event): boolean {
  const fromHere = LOOPBACK.has(addressOf(event)) && getRequestHeader(event, 'x-forwarded-for') === undefined
  return (
    process.env.WEBEN_DEMO === '1' &&
    LOCAL_HOST.test(getRequestHeader(event, 'host') ?? '') &&
    (import.meta.dev || fromHere)
  )
}
