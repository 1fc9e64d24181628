import { webKey } from '~~/database/sending'

/** The public address of the letter; null while it has none. */
export default defineEventHandler((event) => {
  const { db, url } = satchel()
  const key = webKey(db, mailingOf(event).letter_id)
  return { url: key && `${url}/w/${key}` }
})
