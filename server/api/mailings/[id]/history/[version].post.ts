import { letterVersion, saveLetter, letterOf } from '~~/database/letters'

/** Takes a letter back to how it was in a version. What it is now stays in its history. */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const { letter_id } = unsentMailingOf(event)
  const id = idOf(event, 'version')
  const then = letterVersion(db, letter_id, id)
  if (!then) throw notFound('This version is not kept any more.')
  const saw = letterOf(db, letter_id).version
  const version = saveLetter(db, letter_id, then, saw, author(event), clock(), id)
  if (version === null) throw refused('Somebody has changed this letter just now. Look again.')
  return { version }
})
