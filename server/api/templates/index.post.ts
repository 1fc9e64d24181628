import { mailingById } from '~~/database/mailings'
import { letterOf, keepTemplate } from '~~/database/letters'
import { templateInput } from '~~/shared/letter-inputs'

/** Keeps the letter of a mailing as a template. */
export default defineEventHandler(async (event) => {
  const { mailingId, name, about } = await readInput(event, templateInput)
  const { db, clock } = satchel()
  const mailing = mailingById(db, mailingId)
  if (!mailing) throw notFound('This mailing is not on file.')
  const letter = letterOf(db, mailing.letter_id)
  return { id: keepTemplate(db, { name, about }, letter, author(event), clock()) }
})
