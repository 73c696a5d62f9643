import { useAccount } from '../stores/account'

/** Views belong to a signed-in person; the way in is for everyone else. */
export default defineNuxtRouteMiddleware(async (to) => {
  const store = useAccount()
  if (!store.known) {
    try {
      await store.look()
    }
    catch {
      if (to.path !== '/enter') return navigateTo({ path: '/enter', query: { back: to.fullPath } })
    }
  }
  if (!store.account && to.path !== '/enter') return navigateTo({ path: '/enter', query: to.path === '/' ? {} : { back: to.fullPath } })
  if (store.account && to.path === '/enter') return navigateTo('/')
})
