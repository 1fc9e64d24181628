import { transact } from '~~/database'
import { moveMailing } from '~~/database/mailings'
import { letTierGo } from '~~/database/parts'

/** Goes on with a mailing that is paused; where a line held it, with the tier that waits. */
export default defineEventHandler((event) => {
  const mailing = dispatchedMailingOf(event)
  const { db } = satchel()
  const resumed = transact(db, () => {
    if (mailing.started_at === null) return false
    if (mailing.held_by === 'line') letTierGo(db, mailing.id)
    return moveMailing(db, mailing.id, ['held'], 'sending', { held_by: null, held_note: null })
  })
  if (!resumed) throw refused('This mailing is not paused.')
  return { ok: true }
})
