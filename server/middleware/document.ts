import { defineEventHandler, getRequestHeader, setResponseHeader, setResponseStatus } from 'h3'
import { DOCUMENT_HEADER, DOCUMENT_VERSION } from '../../core/contract/answer'
import type { ErrorBody } from '../http/answer'

/**
 * Every answer says which version of the document this server writes, so that a browser knows it for Weben's. A page
 * of another version is asked to reload before it changes anything: it may not know what it would write over.
 */
export default defineEventHandler((event): ErrorBody | undefined => {
  if (!event.path.startsWith('/api/')) return
  setResponseHeader(event, DOCUMENT_HEADER, DOCUMENT_VERSION)
  const version = getRequestHeader(event, DOCUMENT_HEADER)
  if (version === undefined || version === DOCUMENT_VERSION || event.method === 'GET') return
  setResponseStatus(event, 409)
  return {
    error: {
      code: 'renewed',
      says:
        'Weben was renewed since this page was opened. Reload the page; what you did here is kept in this ' +
        'browser.',
    },
  }
})
