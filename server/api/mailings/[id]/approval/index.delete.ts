import { withdrawApproval } from '~~/database/approvals'

/** Takes the question back: the letter may go out without anybody's word. */
export default defineEventHandler((event) => {
  withdrawApproval(satchel().db, unsentMailingOf(event).letter_id)
  return { ok: true }
})
