import { askApproval } from '~~/database/approvals'
import { userById } from '~~/database/users'
import { approvalInput } from '~~/shared/letter-inputs'

/** Asks somebody whether the letter may go out. */
export default defineEventHandler(async (event) => {
  const asked = await readInput(event, approvalInput)
  const { db, clock } = satchel()
  if (!userById(db, asked.ofId)) throw notFound('Nobody like this works here.')
  const { letter_id } = unsentMailingOf(event)
  return { id: askApproval(db, letter_id, asked, await author(event), clock()) }
})
