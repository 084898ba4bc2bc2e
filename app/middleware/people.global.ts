import { useMe } from '../stores/me'

/** Nobody comes further than the door where signing in is asked for. A desk that cannot be reached says so on its pages. */
export default defineNuxtRouteMiddleware(async to => {
  const store = useMe()
  if (to.path === '/sign-in') return
  const me = store.me ?? (await store.load().catch(() => null))
  if (me?.signInNeeded && !me.person) return navigateTo({ path: '/sign-in', query: { to: to.fullPath } })
})
