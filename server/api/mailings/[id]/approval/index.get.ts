import { mayCall } from '~~/core/team'
import { approvalOf } from '~~/database/mailings'
import { usersOf } from '~~/database/account'

/** Who was asked whether the letter may go out, what they said, and who can be asked. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const { user } = me(event)
  return {
    approval: approvalOf(db, mailingOf(event).letter_id),
    me: user.id,
    others: usersOf(db).filter(
      ({ id, role }) => id !== user.id && mayCall(role, 'PUT /api/mailings/[id]/approval'),
    ),
  }
})
