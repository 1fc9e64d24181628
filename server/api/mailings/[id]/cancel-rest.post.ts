import { transact } from '~~/database'
import { moveMailing } from '~~/database/mailings'
import { dropRest } from '~~/database/sending'

/** Ends a mailing that is going out or paused; whoever has not been mailed yet is not. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const mailing = dispatchedMailingOf(event)
  if (mailing.started_at === null) throw refused('This mailing has not begun to go out.')
  return transact(db, () => {
    const dropped = dropRest(db, mailing.id, clock())
    moveMailing(db, mailing.id, ['sending', 'held'], 'sent', {
      finished_at: clock(),
      held_by: null,
      held_note: null,
      waiting_note: null,
    })
    return { dropped }
  })
})
