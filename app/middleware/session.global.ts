/** Nobody sees a page of the application who is not signed in; the first visit makes the account. */
export default defineNuxtRouteMiddleware(async (to) => {
  const session = useSession()
  if (!session.loaded) await session.load()
  if (to.path === '/new-password') return
  if (session.needsOwner) return to.path === '/welcome' ? undefined : navigateTo('/welcome')
  if (!session.user)
    return to.path === '/sign-in'
      ? undefined
      : navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  if (to.path === '/sign-in' || to.path === '/welcome') return navigateTo('/')
})
