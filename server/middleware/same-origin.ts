import { defineEventHandler, getRequestHeader, setResponseStatus } from 'h3'
import type { ErrorBody } from '../http/answer'

const READING = new Set(['GET', 'HEAD', 'OPTIONS'])

/** Every change must come from a page of this very origin: browsers say so in Origin, and in Sec-Fetch-Site. */
export default defineEventHandler((event): ErrorBody | undefined => {
  if (READING.has(event.method)) return
  const origin = getRequestHeader(event, 'origin')
  const site = getRequestHeader(event, 'sec-fetch-site')
  const host =
    (process.env.WEBEN_TRUST_PROXY === '1' ? getRequestHeader(event, 'x-forwarded-host') : undefined) ??
    getRequestHeader(event, 'host')
  const fromHere = origin !== undefined && URL.canParse(origin) && new URL(origin).host === host
  if (fromHere && (site === undefined || site === 'same-origin')) return
  setResponseStatus(event, 403)
  return {
    error: {
      code: 'other-origin',
      says: 'This request did not come from a page of this Weben. Open Weben itself and try there.',
    },
  }
})
