import { readAhead } from '~/stores/read-ahead'

/** Every screen but the sign-in needs a person. When the server is away, whoever was signed in goes on. */
export default defineNuxtRouteMiddleware(async (to) => {
  // A phone is let in by its token, without anybody signing in on it.
  if (import.meta.server || to.path === '/phone') return undefined
  const session = useSessionStore()
  if (!session.known) {
    // What the screen needs is fetched while the server says who is there.
    void preloadRouteComponents(to.path)
    readAhead(to.path)
    try {
      await session.load()
    } catch {
      return abortNavigation(createError({ statusCode: 503, message: 'The server cannot be reached at the moment.' }))
    }
  }
  if (!session.person && to.path !== '/sign-in')
    return navigateTo({ path: '/sign-in', query: to.fullPath === '/' ? {} : { back: to.fullPath } })
  if (session.person && !session.ranOut && to.path === '/sign-in') return navigateTo('/')
  return undefined
})
