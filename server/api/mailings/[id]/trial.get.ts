import { letterOf } from '~~/database/letters'
import { trialMailboxes, trialsOf } from '~~/database/mailings'

/** What became of the letter where it was tried, and in how many mailboxes it can be. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const mailing = mailingOf(event)
  const { version } = letterOf(db, mailing.letter_id)
  return {
    mailboxes: trialMailboxes(db).length,
    trials: trialsOf(db, mailing.id).map((trial) => ({
      ...trial,
      changed: trial.version !== version,
    })),
  }
})
