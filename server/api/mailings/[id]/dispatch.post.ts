import { timeLabel } from '~~/core/time'
import { moveMailing } from '~~/database/mailings'
import { dispatchBlockers } from '~~/database/proof'
import { dispatchInput } from '~~/shared/inputs'

/** Sends a mailing now (`at` null), or sets the time at which it goes out. Blockers hold it. */
export default defineEventHandler(async (event) => {
  const { at } = await readInput(event, dispatchInput)
  const { db, clock, sends } = satchel()
  dispatchedMailingOf(event)
  const mailing = unsentMailingOf(event)
  if (!sends)
    throw refused(
      'No mail server is set, so nothing can go out. Start Satchel with SATCHEL_SMTP_URL.',
    )
  if (at !== null && at <= clock())
    throw createError({
      statusCode: 422,
      message: `It is ${timeLabel(clock(), account().zone)} already. Choose a time that is still to come.`,
      data: { fields: { at: 'This time has passed.' } },
    })
  const blockers = dispatchBlockers(db, mailing, clock())
  if (blockers.length) throw refused(`The proof holds it: ${blockers.join('; ')}.`)
  const moved = moveMailing(db, mailing.id, ['draft', 'held', 'scheduled'], 'scheduled', {
    scheduled_at: at ?? clock(),
    held_by: null,
    held_note: null,
  })
  if (!moved) throw refused('This mailing has just changed. Look again.')
  return { ok: true }
})
