import { timeLabel, timeToLocalInput } from '~~/core/time'
import { moveMailing, updateMailing } from '~~/database/mailings'
import { firstLocalTime, planOf } from '~~/database/parts'
import { dispatchBlockers } from '~~/database/proof'
import { dispatchInput } from '~~/shared/mailing-inputs'

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
  const { zone } = account()
  const plan = planOf(mailing)
  if (plan.pace === 'local-time' && at === null)
    throw refused('Set the time that it is to be on each reader’s clock.')
  // It begins where that time comes first; each gets it when it comes to them.
  const localAt = plan.pace === 'local-time' ? timeToLocalInput(at!, zone) : null
  const begins =
    localAt === null ? (at ?? clock()) : firstLocalTime(db, { ...plan, localAt }, zone)!
  if (localAt !== null)
    updateMailing(db, mailing.id, { plan: JSON.stringify({ ...plan, localAt }) })
  const moved = moveMailing(db, mailing.id, ['draft', 'held', 'scheduled'], 'scheduled', {
    scheduled_at: Math.max(begins, clock()),
    held_by: null,
    held_note: null,
  })
  if (!moved) throw refused('This mailing has just changed. Look again.')
  return { ok: true }
})
