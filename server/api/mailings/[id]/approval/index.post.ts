import { mayCall } from '~~/core/team'
import { askApproval } from '~~/database/mailings'
import { userById } from '~~/database/account'
import { approvalInput } from '~~/shared/letter-inputs'

/** Asks somebody whether the letter may go out. */
export default defineEventHandler(async (event) => {
  const asked = await readInput(event, approvalInput)
  const { db, clock } = satchel()
  const of = userById(db, asked.ofId)
  if (!of) throw notFound('Nobody like this works here.')
  if (!mayCall(of.role, 'PUT /api/mailings/[id]/approval'))
    throw refused(`${of.name} is a ${of.role}; editors and owners approve.`)
  const { letter_id } = unsentMailingOf(event)
  return { id: askApproval(db, letter_id, asked, author(event), clock()) }
})
