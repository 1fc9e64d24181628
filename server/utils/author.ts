import type { H3Event } from 'h3'
import type { Author } from '~~/database/letter-history'
import { userById } from '~~/database/users'

/** Who asks; there is always somebody behind a request that came this far. */
export async function author(event: H3Event): Promise<Author> {
  const { user } = await getUserSession(event)
  const { id } = user as { id: number }
  return { id, name: userById(satchel().db, id)?.name ?? '' }
}
