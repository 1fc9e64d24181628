import { userById } from '~~/database/users'

/** Every /api route needs somebody who is signed in, but for those one needs to sign in. */
const open = new Set([
  'GET /api/session',
  'POST /api/session',
  'POST /api/owner',
  'GET /api/health',
])

export default defineEventHandler(async (event) => {
  const path = event.path.split('?')[0]!
  if (!path.startsWith('/api/') || path.startsWith('/api/_')) return
  // Programs come with a token instead; each of these handlers asks for it.
  if (path.startsWith('/api/v1/')) return
  if (open.has(`${event.method} ${path}`)) return
  const session = await getUserSession(event)
  const id = (session.user as { id?: number } | undefined)?.id
  if (id === undefined || !userById(satchel().db, id))
    throw createError({ statusCode: 401, message: 'Sign in first.' })
})
