import { approvalOf } from '~~/database/approvals'
import { usersOf } from '~~/database/users'

/** Who was asked whether the letter may go out, what they said, and who can be asked. */
export default defineEventHandler(async (event) => {
  const { db } = satchel()
  const me = await author(event)
  return {
    approval: approvalOf(db, mailingOf(event).letter_id),
    me: me.id,
    others: usersOf(db).filter(({ id }) => id !== me.id),
  }
})
