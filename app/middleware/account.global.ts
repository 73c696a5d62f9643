import { reach } from '../composables/api'
import { useAccount } from '../stores/account'

/**
 * Views belong to a signed-in person; the way in is for everyone else. While the server is away, who was here last
 * goes on with what this browser holds.
 */
export default defineNuxtRouteMiddleware(async (to) => {
  const store = useAccount()
  // Away already, and going about: no view waits for a server that does not answer.
  if (!store.known && store.account && reach.away) return
  if (!store.known) {
    try {
      await store.look()
    } catch {
      if (store.rememberLast()) return
      if (to.path !== '/enter') return navigateTo({ path: '/enter', query: { back: to.fullPath } })
    }
  }
  if (!store.account && to.path !== '/enter')
    return navigateTo({ path: '/enter', query: to.path === '/' ? {} : { back: to.fullPath } })
  if (store.account && to.path === '/enter') return navigateTo('/')
})
