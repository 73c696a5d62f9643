import { routes } from '#api-routes'
import { defineEventHandler, setResponseHeader, setResponseStatus } from 'h3'
import type { ErrorBody } from '../http/answer'

const known = routes.map(({ route, method }) => ({
  method: method.toUpperCase(),
  shape: new RegExp(`^${route.replace(/:\w+/g, '[^/]+')}/?$`),
}))

/** An address under /api that is no route, or not by this method, is answered as such: the page is not meant. */
export default defineEventHandler((event): ErrorBody | undefined => {
  const path = event.path.replace(/\?.*/, '')
  if (path !== '/api' && !path.startsWith('/api/')) return
  const methods = known.filter(({ shape }) => shape.test(path)).map(({ method }) => method)
  if (methods.includes(event.method)) return
  if (methods.length === 0) {
    setResponseStatus(event, 404)
    return { error: { code: 'no-such-route', says: 'Weben has nothing at this address.' } }
  }
  setResponseStatus(event, 405)
  setResponseHeader(event, 'Allow', methods.join(', '))
  const says = `This address takes ${methods.join(' and ')}, not ${event.method}.`
  return { error: { code: 'no-such-method', says } }
})
