import { boolean, object } from 'yup'
import { resolveComment } from '~~/database/letters'

/** Marks a comment as dealt with, or opens it again. */
export default defineEventHandler(async (event) => {
  const { resolved } = await readInput(event, object({ resolved: boolean().required() }))
  const { db, clock } = satchel()
  const { letter_id } = mailingOf(event)
  const by = author(event)
  if (!resolveComment(db, letter_id, idOf(event, 'comment'), resolved, by, clock()))
    throw notFound('This comment is not there any more.')
  return { ok: true }
})
