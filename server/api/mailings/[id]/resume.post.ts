import { transact } from '~~/database'
import { goOnWithMailing, watchAnew } from '~~/database/mailings'

/** Goes on with a mailing that is paused; where a limit stopped it, with the same tier, watched anew from here. */
export default defineEventHandler((event) => {
  const mailing = dispatchedMailingOf(event)
  const { db, clock } = satchel()
  const resumed = transact(db, () => {
    if (mailing.started_at === null) return false
    if (mailing.held_by === 'line') watchAnew(db, mailing.id)
    return goOnWithMailing(db, mailing.id, clock())
  })
  if (!resumed) throw refused('This mailing is not paused.')
  return { ok: true }
})
