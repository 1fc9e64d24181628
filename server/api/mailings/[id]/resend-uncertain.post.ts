import { transact } from '~~/database'
import { moveMailing } from '~~/database/mailings'
import { resendUncertain } from '~~/database/sending'

/** Sends once more to those of whom it is not known whether they got it. They may get it twice. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const mailing = mailingOf(event)
  return transact(db, () => {
    const resent = resendUncertain(db, mailing.id, clock())
    if (resent) moveMailing(db, mailing.id, ['sent'], 'sending', { finished_at: null })
    return { resent }
  })
})
