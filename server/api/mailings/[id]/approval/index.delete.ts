import { withdrawApproval } from '~~/database/mailings'

/** Takes the question back: the letter may go out without anybody's word. */
export default defineEventHandler((event) => {
  withdrawApproval(satchel().db, unsentMailingOf(event).letter_id)
  return { ok: true }
})
