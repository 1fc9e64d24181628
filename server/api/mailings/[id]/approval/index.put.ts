import { answerApproval } from '~~/database/mailings'
import { verdictInput } from '~~/shared/letter-inputs'

/** What the one who was asked says of the letter they saw. */
export default defineEventHandler(async (event) => {
  const said = await readInput(event, verdictInput)
  const { db, clock } = satchel()
  const { letter_id } = unsentMailingOf(event)
  if (!answerApproval(db, letter_id, said, author(event), clock()))
    throw refused('The letter has changed since you looked at it. Look again, then answer.')
  return { ok: true }
})
