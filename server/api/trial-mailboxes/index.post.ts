import { keepTrialMailbox } from '~~/database/mailings'
import { trialMailboxInput } from '~~/shared/trial-input'

/** Adds a mailbox to try letters in; one of the same address gets these settings. */
export default defineEventHandler(async (event) => {
  const { secure, ...mailbox } = await readInput(event, trialMailboxInput)
  const { db, clock } = satchel()
  return { id: keepTrialMailbox(db, { ...mailbox, secure: secure ? 1 : 0 }, clock()) }
})
