import { readMessagesAsked } from '~~/core/results'
import { messageCounts } from '~~/database/results'

/** A mailing's messages one by one, the newest first, with what was asked for. */
export default defineEventHandler(async (event) => {
  const { id } = mailingOf(event)
  const asked = readMessagesAsked(getQuery(event))
  const from = `messages of mailing ${id} for ${me(event).user.id}`
  const found = await askLong('messages', { mailingId: id, asked }, from)
  return { asked, ...found, counts: messageCounts(satchel().db, id) }
})
